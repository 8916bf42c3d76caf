import { describe, expect, it } from "vitest";
import { SHEETS } from "@/demo/data/sheets";
import { readSheet, sheetAt, type Sheet } from "@/core/sheet";
import {
  piecesOf,
  placeOf,
  setOutEntries,
  standingBoard,
  standingSettlement,
  type EventBody,
  type JobEvent,
} from ".";

const TWO = SHEETS.find((s) => s.positions)!;
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
  it("is itself at the first, and takes placement and board of another there", () => {
    expect(sheetAt(TWO, "first")).toBe(TWO);
    expect(sheetAt(TWO, "far")).toMatchObject({
      placement: { alongMm: 3900 },
      board: { code: "HQ-17" },
    });
    expect(sheetAt(TWO, "far").tolerance).toBe(TWO.tolerance);
  });
  it("each place has readings, settlement and board check of its own", () => {
    const events = log(reading, settled, board, move);
    expect(placeOf(events)).toEqual({ id: "far", seq: 4 });
    expect(standingSettlement(events.slice(0, 3))?.id).toBe("e2");
    expect(standingSettlement(events)).toBeNull();
    expect(standingBoard(events)).toBeNull();
    expect(setOutEntries(events)).toEqual([]);
    const there = log(reading, settled, board, move, reading, settled, board);
    expect(standingSettlement(there)?.id).toBe("e6");
    expect(standingBoard(there)?.id).toBe("e7");
    expect(setOutEntries(there).map((e) => e.id)).toEqual(["e5"]);
    expect(piecesOf(there).map((p) => [p.place, standingSettlement(p.events)?.id])).toEqual([
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
    ["a place called first", (s: Sheet) => (s.positions![0]!.id = "first"), /is used twice/],
  ])("is refused with %s", (_, change, words) => expect(problems(change)).toMatch(words));
});
