import { describe, expect, it } from "vitest";
import type { Sheet } from "@/core/sheet";
import { SHEETS } from "@/demo/data/sheets";
import { SURROUND } from "@/demo/data/surround";
import { groundOf, INTAKE, logOf } from "@/tests/fixtures";
import {
  conflicts,
  intakeSchema,
  isHeldBy,
  sceneNow,
  scopedLog,
  standingAt,
  type EventBody,
  type JobEvent,
  type TabletEvent,
} from ".";
import { asDone } from "./set-out";

const forward = SHEETS.find((s) => s.id === "tarn-forward")!;
const one = groundOf(intakeSchema.parse(INTAKE), 2, forward);
const ground = {
  ...one,
  calibrations: [...one.calibrations, { id: SURROUND.id, sheet: SURROUND, stand: one.stand }],
};
const LEFT = { calibrationId: SURROUND.id, targetId: "mat-left" };
const RIGHT = { calibrationId: SURROUND.id, targetId: "mat-right" };
const BOARD = { calibrationId: forward.id, targetId: "first" };

/** The same job with two boards on one beam beside the mats. */
const first = forward.setups[0]!.targets[0]!;
const PAIR: Sheet = {
  ...forward,
  id: "tarn-beam",
  setups: [
    {
      id: "pair",
      name: "both boards",
      targets: ["near", "far"].map((id) => ({ ...first, id, beam: { acrossMm: 0 } })),
    },
  ],
};
const onBeam = {
  ...ground,
  calibrations: [...ground.calibrations, { id: PAIR.id, sheet: PAIR, stand: one.stand }],
};
const NEAR = { calibrationId: PAIR.id, targetId: "near" };
const FAR = { calibrationId: PAIR.id, targetId: "far" };

const reading = (of: object): TabletEvent => ({
  kind: "reading",
  ...of,
  slotId: "mat-abeam",
  typed: "3",
  shown: 3,
  sigma: 1,
  instrumentId: "T-3",
});
const touch = (of: object, what: "knocked" | "moved-car" = "knocked"): TabletEvent => ({
  kind: "touch",
  ...of,
  touch: what,
});
const settle = (of: object): TabletEvent => ({ kind: "settle", ...of });
const LEFT_OUT: EventBody = { kind: "strike", target: "r9", reason: "misread" };
const settled = (of: object): EventBody => ({
  kind: "settled",
  ...of,
  chance: 0.995,
  quantities: [],
  readingIds: [],
});
const check = (itemId: string): TabletEvent => ({
  kind: "check",
  stage: "ready",
  itemId,
  outcome: "fine",
  reason: null,
});
const run: EventBody = {
  kind: "run",
  event: { at: "2026-11-03T09:00:00.000Z", type: "routine-started", step: "learn" },
  calibrationId: forward.id,
};

describe("what two people write without knowing of each other", () => {
  it.each([
    ["a reading beside anything", reading(LEFT), touch(LEFT), false],
    ["a touch beside a reading of the same mat", touch(LEFT), reading(LEFT), false],
    ["a touch against a touch of the same mat", touch(LEFT), touch(LEFT), true],
    ["a touch beside a touch of the other mat", touch(LEFT), touch(RIGHT), false],
    ["a settlement beside one of the other mat", settle(LEFT), settled(RIGHT), false],
    ["a settlement against a reading of the same mat", settle(LEFT), reading(LEFT), true],
    ["a settlement beside a line left out", settle(LEFT), LEFT_OUT, false],
    ["a touch against a settlement of the same mat", touch(LEFT), settled(LEFT), true],
    ["a touch beside a settlement of a board", touch(LEFT), settled(BOARD), false],
    ["a moved car against anything that stands", touch({}, "moved-car"), settled(BOARD), true],
    ["a settlement against a moved car", settle(RIGHT), touch({}, "moved-car"), true],
    ["a touch that does not say of what", touch({}), touch(LEFT), true],
    ["two answers to one item", check("tyres"), check("tyres"), true],
    ["answers to two items", check("tyres"), check("light"), false],
    ["a reading beside a hand-over", reading(LEFT), { kind: "hand-over" }, false],
    ["a touch against a touch of the other board of the beam", touch(NEAR), touch(FAR), true],
    ["a hand-over against a reading", { kind: "hand-over" }, reading(LEFT), true],
    ["anything but a reading against a hand-over", touch(LEFT), { kind: "hand-over" }, true],
    ["a touch beside the routine of another calibration", touch(LEFT), run, false],
  ] as [string, TabletEvent, EventBody, boolean][])("%s", (_, mine, theirs, crosses) => {
    expect(conflicts(onBeam, mine, theirs)).toBe(crosses);
  });

  it("a reading waits behind a refused touch of its own carrier only, and behind a moved car", () => {
    const held = (refused: TabletEvent) =>
      [reading(LEFT), reading(RIGHT), reading(BOARD), check("tyres")].map((b) =>
        isHeldBy(b, refused, ground),
      );
    expect(held(touch(LEFT))).toEqual([true, false, false, false]);
    expect(held(touch({}, "moved-car"))).toEqual([true, true, true, true]);
    expect(held(touch({}))).toEqual([true, true, true, false]);
    // Targets of two calibrations may bear one name.
    const namesake = { ...BOARD, calibrationId: PAIR.id };
    expect(isHeldBy(reading(BOARD), touch(namesake), onBeam)).toBe(false);
    // A tablet asks without the job's documents.
    expect(isHeldBy(reading(BOARD), touch(namesake))).toBe(false);
    expect(isHeldBy(reading(BOARD), touch(BOARD))).toBe(true);
    expect(isHeldBy(reading(NEAR), touch(FAR), onBeam)).toBe(true);
  });
});

describe("a reading whose reader did not know", () => {
  const by = (id: string) => ({ id, name: id, initials: "XX" });
  const line = (seq: number, who: string, body: TabletEvent, seen: number): JobEvent => ({
    id: `e${seq}`,
    seq,
    at: `2026-11-03T09:0${seq}:00.000Z`,
    by: by(who),
    body: body as EventBody,
    seen,
  });
  const order = (...events: JobEvent[]): string[] => asDone(onBeam, events).map((e) => e.id);

  it("counts as taken before somebody else's disturbance of its own carrier, and of no other", () => {
    const unseen = line(3, "oskar", reading(LEFT), 1);
    expect(order(line(2, "ines", touch(LEFT), 1), unseen)).toEqual(["e3", "e2"]);
    expect(order(line(2, "ines", touch(RIGHT), 1), unseen)).toEqual(["e2", "e3"]);
    expect(order(line(2, "ines", touch({}, "moved-car"), 1), unseen)).toEqual(["e3", "e2"]);
    // Whoever touched it knows, sent together or not; whoever has seen it knows too.
    expect(order(line(2, "oskar", touch(LEFT), 1), unseen)).toEqual(["e2", "e3"]);
    expect(order(line(2, "ines", touch(LEFT), 1), line(3, "oskar", reading(LEFT), 2))).toEqual([
      "e2",
      "e3",
    ]);
  });

  it("of a beam counts as before a touch of the other board, not before a slide of it", () => {
    const unseen = line(3, "oskar", reading(NEAR), 1);
    const slide: TabletEvent = {
      kind: "move",
      ...FAR,
      move: {
        kind: "rail",
        leftMm: 4,
        after: {
          pose: { xMm: 0, yMm: 0, headingRad: 0 },
          heightMm: 0,
          pitchRad: 0,
          rollRad: 0,
        },
      },
      rest: [],
    };
    expect(order(line(2, "ines", touch(FAR), 1), unseen)).toEqual(["e3", "e2"]);
    expect(order(line(2, "ines", slide, 1), unseen)).toEqual(["e2", "e3"]);
  });

  it("is then in doubt like any reading from before a touch", () => {
    const log = logOf(one, reading(BOARD) as EventBody).slice(0, 1);
    const events = [
      ...log,
      line(2, "ines", touch(BOARD), 1),
      line(3, "oskar", { ...reading(BOARD), slotId: "tape-fl-l", shown: 2900 } as TabletEvent, 1),
    ];
    expect(sceneNow(one, events, "first").entries.map((e) => e.kind)).toEqual(["reading", "touch"]);
  });
});

describe("a line of an older log", () => {
  it("that went to the place where the board stood rolled the stand there anew", () => {
    const line = (seq: number, body: object): JobEvent => ({
      id: `e${seq}`,
      seq,
      at: `2026-11-03T09:0${seq}:00.000Z`,
      by: { id: "ines", name: "Ines Tarbet", initials: "IT" },
      body: body as EventBody,
    });
    const old = scopedLog(one, [line(1, settled({})), line(2, { kind: "position", to: "first" })]);
    expect(standingAt(one, old.slice(0, 1), "first")!.settled).not.toBeNull();
    expect(standingAt(one, old, "first")!.settled).toBeNull();
  });
});
