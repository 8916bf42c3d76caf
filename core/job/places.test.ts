import { describe, expect, it } from "vitest";
import { SHEETS } from "@/demo/data/sheets";
import { firstTarget, placeName, readSheet, targetOf, type Sheet } from "@/core/sheet";
import { groundOf, INTAKE, logOf } from "@/tests/fixtures";
import {
  intakeSchema,
  sceneNow,
  standingAt,
  staysOf,
  targetInHand,
  type EventBody,
  type JobEvent,
} from ".";

const TWO = SHEETS.find((s) => s.setups.length > 1)!;
const GROUND = groundOf(intakeSchema.parse(INTAKE), 0, TWO);
const log = (...bodies: EventBody[]): JobEvent[] => logOf(GROUND, ...bodies);
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
    const at = (events: JobEvent[], id: string) => standingAt(GROUND, events, id);
    const entries = (events: JobEvent[], id: string) =>
      sceneNow(GROUND, events, id).entries.map((e) => e.id);
    const events = log(reading, settled, board, move);
    expect(at(events.slice(0, 4), "first")).toMatchObject({
      settled: { id: "e3" },
      board: { id: "e4" },
    });
    expect(targetInHand(GROUND, events).id).toBe("far");
    // The stand went on: nothing stands at the first place any more.
    expect(at(events, "first")).toBeNull();
    expect(at(events, "far")).toMatchObject({ settled: null, board: null, begun: false });
    expect(entries(events, "far")).toEqual([]);
    const there = log(reading, settled, board, move, reading, settled, board);
    expect(at(there, "far")).toMatchObject({ settled: { id: "e7" }, board: { id: "e8" } });
    expect(entries(there, "far")).toEqual(["e6"]);
    expect(staysOf(GROUND, there).map((s) => [s.target.id, s.from, s.until])).toEqual([
      ["first", 0, 5],
      ["far", 5, Infinity],
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
