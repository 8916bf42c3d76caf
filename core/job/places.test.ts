import { describe, expect, it } from "vitest";
import { SHEETS } from "@/demo/data/sheets";
import { firstTarget, placeName, readSheet, targetOf, type Sheet } from "@/core/sheet";
import {
  piecesOf,
  sentAt,
  setOutEntries,
  standingBoard,
  standingSettlement,
  targetNow,
  type EventBody,
  type JobEvent,
} from ".";

const TWO = SHEETS.find((s) => s.setups.length > 1)!;
const GROUND = { sheet: TWO };
const log = (...bodies: EventBody[]): JobEvent[] =>
  bodies.map((body, i) => ({
    id: `e${i + 1}`,
    seq: i + 1,
    at: `2026-11-03T09:0${i}:00.000Z`,
    by: { id: "ines", name: "Ines Tarbet", initials: "IT" },
    body,
  }));
const reading: EventBody = {
  kind: "reading",
  slotId: "tape-fl-l",
  typed: "2900",
  shown: 2900,
  sigma: 1.7,
  instrumentId: "T-3",
};
const settled: EventBody = {
  kind: "settled",
  chance: 0.995,
  alongMm: 1,
  acrossMm: 1,
  twistRad: 0,
  heightMm: 0,
  sigma: { alongMm: 1, acrossMm: 1, twistRad: 1e-3, heightMm: 1 },
  readingIds: ["e1"],
};
const board: EventBody = { kind: "board", code: "HQ-14", reason: null };
const move: EventBody = { kind: "position", to: "far" };

describe("a sheet with several places", () => {
  it("has a target at each, with placement and board of its own", () => {
    expect(targetOf(TWO, "first")).toBe(firstTarget(TWO));
    expect(targetOf(TWO, "far")).toMatchObject({
      placement: { alongMm: 3900 },
      object: { code: "HQ-17" },
    });
    expect(placeName(TWO, "far")).toBe("the far place");
  });
  it("each place has readings, settlement and board check of its own", () => {
    const events = log(reading, settled, board, move);
    expect([targetNow(GROUND, events).id, sentAt(events)]).toEqual(["far", 4]);
    expect(standingSettlement(events.slice(0, 3))?.id).toBe("e2");
    expect(standingSettlement(events)).toBeNull();
    expect(standingBoard(events)).toBeNull();
    expect(setOutEntries(events)).toEqual([]);
    const there = log(reading, settled, board, move, reading, settled, board);
    expect(standingSettlement(there)?.id).toBe("e6");
    expect(standingBoard(there)?.id).toBe("e7");
    expect(setOutEntries(there).map((e) => e.id)).toEqual(["e5"]);
    expect(
      piecesOf(GROUND, there).map((p) => [p.target.id, standingSettlement(p.events)?.id]),
    ).toEqual([
      ["first", "e2"],
      ["far", "e6"],
    ]);
  });
  const problems = (change: (s: Sheet) => void): string => {
    const s = structuredClone(TWO);
    change(s);
    const read = readSheet(s);
    return read.ok ? "none" : read.problems.join("; ");
  };
  it.each([
    [
      "a step to a place that is not there",
      (s: Sheet) =>
        (s.run = s.run.map((r) => (r.kind === "position" ? { ...r, to: "nowhere" } : r))),
      /names a place the sheet does not have/,
    ],
    [
      "a place nobody goes to",
      (s: Sheet) => (s.run = s.run.filter((r) => r.kind !== "position")),
      /no step of the routine moves the board there/,
    ],
    [
      "a place called first",
      (s: Sheet) => (s.setups[1]!.targets[0]!.id = "first"),
      /is used twice/,
    ],
  ])("is refused with %s", (_, change, words) => expect(problems(change)).toMatch(words));
});
