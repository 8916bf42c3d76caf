import { beforeAll, describe, expect, it } from "vitest";
import { SCOPES, tabletEventSchema, type TabletEvent } from "@/core/job";
import { madeUpVin } from "@/demo/data/vehicles";
import { INTAKE } from "@/tests/fixtures";
import { INES, openTestShop } from "@/tests/shop-database";
import { eventsAfter } from "./log";
import { judgeLine, POLICIES } from "./policy";
import { findJob } from "./store";
import { takeIn } from "./take-in";

type Kind = TabletEvent["kind"];

const pose = { xMm: 4800, yMm: 0, headingRad: 3.14 };
const after = { pose, heightMm: 1200, pitchRad: 0, rollRad: 0 };
const READING = { slotId: "tape-fl-l", typed: "2876", shown: 2876, sigma: 1, instrumentId: "T-3" };
const ROLL = { kind: "roll", awayMm: 9, leftMm: 0, turnRad: 0, after };
const DRAW = { kind: "draw", end: "whole", aheadMm: 9, leftMm: 0, turnRad: 0, pivotMm: 0, after };

/** One plain line of every kind that is of a target or of a calibration. */
const LINES: Partial<Record<Kind, object>> = {
  reading: READING,
  touch: { touch: "hung" },
  move: { move: ROLL, rest: [] },
  board: { code: "HQ-14", reason: null },
  kept: {
    from: { jobId: "none", seq: 1, at: "2026-10-01T08:00:00.000Z", called: "HQ 00 AAA" },
    standing: {
      pose: after.pose,
      covariance: [0, 1, 2].map(() => [0, 0, 0]),
      height: { value: 1, sigma: 1 },
      pitch: { value: 0, sigma: 1 },
      roll: { value: 0, sigma: 1 },
      adjusters: [],
      finished: [],
    },
  },
  bump: {},
  settle: {},
  position: { to: "first" },
  school: { school: "free" },
  "drive-leave": {
    driveId: "d",
    source: "made-up",
    departMs: 1,
    planned: null,
    keeps: "foot",
    hotspot: true,
    rains: false,
    rainReason: "",
    drove: "Ines",
    watched: "",
  },
  "drive-part": {
    driveId: "d",
    startMs: 1,
    rows: [[0, 1500, 2, 1, 0, -1, 2, 0, 1800, 1, 1_900_000, 56_400_000, 1]],
  },
  "drive-end": {
    driveId: "d",
    outcome: "given-up",
    says: "",
    remark: "rain",
    drove: "Oskar Veld",
    watched: "",
  },
};

const { sheetId: _, sheetVersion: __, standId: ___, ...CAR } = INTAKE;
const TWO = {
  ...CAR,
  vin: madeUpVin("0BRTRN5C9T220944"),
  vehicleId: "brannoch-tarn",
  happenings: [
    { event: "glass-out", place: "windshield" },
    { event: "mirror-touched", place: "left" },
  ],
  answers: { trim: "high" },
  rearToeDeg: { left: 0.1, right: 0.1 },
  sheets: [
    { sheetId: "tarn-forward", sheetVersion: 3, standId: "S-1" },
    { sheetId: "tarn-surround", sheetVersion: 1, standId: null },
  ],
};

beforeAll(() => openTestShop());

/** Judges a line in a fresh job; the words of a refusal, or "taken". */
function judged(intake: object, kind: Kind, more: object): string {
  const job = findJob(takeIn(intake, INES))!;
  const body = tabletEventSchema.parse({ kind, ...LINES[kind], ...more });
  try {
    judgeLine(body, { job, events: eventsAfter(job.id), person: INES });
    return "taken";
  } catch (error) {
    return (error as Error).message;
  }
}

const OF_TARGETS = (Object.keys(SCOPES) as Kind[]).filter((k) => SCOPES[k] === "target");
const OF_CALIBRATIONS = (Object.keys(SCOPES) as Kind[]).filter((k) => SCOPES[k] !== "job");

describe("the one table of what may be written", () => {
  it("has a row and a scope for every kind a tablet can send, and for no other", () => {
    const kinds = tabletEventSchema.options.map((o) => o.shape.kind.value).sort();
    expect(Object.keys(POLICIES).sort()).toEqual(kinds);
    expect(Object.keys(SCOPES).sort()).toEqual(kinds);
    expect(Object.keys(LINES).sort()).toEqual([...OF_CALIBRATIONS].sort());
  });

  it.each(OF_CALIBRATIONS)("refuses a %s of a calibration the job does not have", (kind) => {
    expect(judged(TWO, kind, { calibrationId: "lisse-forward" })).toMatch(
      /^calibration: this job has none called “lisse-forward”/,
    );
  });

  it.each(OF_TARGETS)("refuses a %s of a target that belongs to another calibration", (kind) => {
    const of = { calibrationId: "tarn-forward", targetId: "mat-left" };
    expect(judged(TWO, kind, of)).toMatch(
      /^target: Tarn, forward camera, static, on the thrust line has none called “mat-left”/,
    );
  });

  it.each(OF_TARGETS)("refuses a %s at a place of a setup that is not up yet", (kind) => {
    const places = { ...INTAKE, sheetId: "lisse-forward-two", sheetVersion: 1 };
    expect(judged(places, kind, { targetId: "far" })).toMatch(
      /^target: nothing stands at the far place now/,
    );
  });

  const MAT = { calibrationId: "tarn-surround", targetId: "mat-left" };
  const BOARD = { calibrationId: "tarn-forward", targetId: "first" };
  it.each([
    [
      "an observable nobody knows",
      "reading",
      { ...BOARD, slotId: "tape-xx-l" },
      /^slot: T-3 reads/,
    ],
    ["a board's observable at a mat", "reading", MAT, /^slot: T-3 reads mat-beside-front/],
    [
      "a mat's observable at a board",
      "reading",
      { ...BOARD, slotId: "mat-abeam" },
      /^slot: T-3 reads tape-fl-l/,
    ],
    ["a stand's move at a mat", "move", MAT, /a mat or a mark has no adjusters/],
    ["a hand's move at a board", "move", { ...BOARD, move: DRAW }, /only a mat or a mark is drawn/],
    [
      "a slide along a rail that is not there",
      "move",
      { ...BOARD, move: { kind: "rail", leftMm: 5, after } },
      /hangs on no rail/,
    ],
    ["a crank at a mat", "touch", { ...MAT, touch: "cranked" }, /nobody does that to a mat/],
    [
      "a mat brought on a stand",
      "position",
      { ...MAT, to: "mat-left" },
      /What lies on the floor needs no bringing/,
    ],
    ["a mat proved by nothing", "settle", MAT, /do not prove the mat in place/],
    ["the other side's mat", "board", { ...MAT, code: "HQ-M3" }, /for vehicle right/],
  ] as [string, Kind, object, RegExp][])("refuses %s", (_, kind, more, words) => {
    expect(judged(TWO, kind, more)).toMatch(words);
  });

  it("takes each of them where it belongs, and writes what it is of", () => {
    const job = findJob(takeIn(TWO, INES))!;
    const at = { job, events: eventsAfter(job.id), person: INES };
    const drawn = tabletEventSchema.parse({ kind: "move", ...MAT, move: DRAW, rest: [] });
    expect(judgeLine(drawn, at)).toMatchObject(MAT);
    // What does not say so is of the first calibration, and of the target that stands there.
    const read = tabletEventSchema.parse({ kind: "reading", ...READING });
    expect(judgeLine(read, at)).toMatchObject(BOARD);
    const moved = tabletEventSchema.parse({ kind: "touch", ...MAT, touch: "moved-car" });
    expect(judgeLine(moved, at)).toEqual({ kind: "touch", touch: "moved-car" });
  });
});
