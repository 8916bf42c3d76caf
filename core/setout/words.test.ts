import { describe, expect, it } from "vitest";
import { planOf } from "@/tests/fixtures";
import { actOf, moveWords, slotsFor, slotValue, type Move } from ".";
import { adjustersOf } from "./moves";
import { estimateScalar } from "./scalar";

const right = { driverSide: "right" } as const;
const left = { driverSide: "left" } as const;
const after = { pose: { xMm: 0, yMm: 0, headingRad: 0 }, heightMm: 0, pitchRad: 0, rollRad: 0 };
const plain = (text: string): string => text.replace(/[\s\u202f\u00a0]+/g, " ");

const CASES: [Move, string, string][] = [
  [
    { kind: "slide", joint: 1, axis: "cross", byMm: -14, awayMm: 0, leftMm: 14, after },
    "Slide the board 14 mm toward vehicle left.",
    "14 mm",
  ],
  [
    { kind: "slide", joint: 1, axis: "cross", byMm: 14, awayMm: 0, leftMm: -14, after },
    "Slide the board 14 mm toward vehicle right.",
    "14 mm",
  ],
  [
    { kind: "slide", joint: 2, axis: "fore-aft", byMm: 9, awayMm: -9, leftMm: 0, after },
    "Slide the board 9 mm toward the car.",
    "9 mm",
  ],
  [
    { kind: "crank", upMm: -1012, turns: -168.67, after },
    "Crank the board 1 012 mm down.",
    "1 012 mm",
  ],
  [
    { kind: "yaw", joint: 0, turnRad: -0.02, leftEndMm: 23, after },
    "Turn the beam until its vehicle-left end has come 23 mm away from the car.",
    "23 mm",
  ],
  [
    { kind: "level", foot: 2, raiseMm: -3, turns: -2, after },
    "Screw foot 3 in by 2.0 turns.",
    "2.0 turns",
  ],
  [
    { kind: "roll", awayMm: 40, leftMm: -120, turnRad: 0, after },
    "Roll the stand 40 mm away from the car and 120 mm toward vehicle right.",
    "120 mm",
  ],
  [
    { kind: "roll", awayMm: 0, leftMm: 0, turnRad: 0.05, after },
    "Turn the stand 2.86° counter-clockwise seen from above.",
    "2.86°",
  ],
];

it("a reading through a clamp says first that it is to be seated anew, where that is asked", () => {
  const plan = { ...planOf(0, 0), school: "wheel-panels" as const };
  const slot = slotsFor(plan).find((s) => s.id === "panel-rl")!;
  expect(actOf({ slot, anew: false })).toBe(slot.act);
  expect(actOf({ slot, anew: true })).toBe(
    `Take off the panel at the rear left wheel and seat it anew. ${slot.act}`,
  );
});

describe("a move in words", () => {
  it.each(CASES)("%j", (move, say, figure) => {
    const words = moveWords(move, right);
    expect(plain(words.say)).toBe(say);
    expect(plain(words.figure)).toBe(figure);
  });
  it("says which side that is for the person in the seat, on either side of the road", () => {
    const slide = CASES[0]![0];
    expect(moveWords(slide, right).detail).toContain("Vehicle left is the passenger side.");
    expect(moveWords(slide, left).detail).toContain("Vehicle left is the driver’s side.");
  });
  it("speaks inches with tape fractions when the tablet is set so", () => {
    expect(plain(moveWords(CASES[2]![0], right, "in").say)).toBe(
      "Slide the board 11/32 in toward the car.",
    );
  });
});

describe("a reading in words", () => {
  const slots = slotsFor(planOf(1, 1));
  const value = (id: string, shown: number): string =>
    plain(
      slotValue(
        slots.find((s) => s.id === id)!,
        shown,
      ),
    );
  it("names the side instead of wearing a sign, and tilts in degrees", () => {
    expect(value("laser-badge", -7)).toBe("7 mm vehicle right");
    expect(value("laser-badge", 0)).toBe("0 mm");
    expect(value("tilt-pitch", 0.01)).toBe("0.57° top away from the car");
    expect(value("tape-fl-l", 2871)).toBe("2 871 mm");
  });
  it("turns what an instrument shows into what the network wants, and back", () => {
    for (const slot of slots) {
      const shown = slot.quantity.dimension === "angle" ? 0.01 : 1480;
      expect(slot.toShown(slot.toModel(shown))).toBeCloseTo(shown, 9);
    }
  });
});

describe("one number with readings of its own", () => {
  const prior = { value: 1245, variance: 150 ** 2 };
  it("is the weighted mean, with the statistics of a direct measurement", () => {
    const e = estimateScalar(prior, [
      { id: "rule", value: 1250, sigma: 1 },
      { id: "scale", value: 1253, sigma: 2 },
    ]);
    // Weights 1 and 1/4 (the prior hardly counts): mean 1250.6, variance 0.8, redundancies 0.2 and
    // 0.8.
    expect(e.value).toBeCloseTo(1250.6, 2);
    expect(e.variance).toBeCloseTo(0.8, 3);
    expect(e.residuals[0]!.redundancy).toBeCloseTo(0.2, 3);
    expect(e.residuals[1]!.redundancy).toBeCloseTo(0.8, 3);
    expect(e.suspect).toBeNull();
  });
  it("calls two readings that contradict each other suspect", () => {
    const e = estimateScalar(prior, [
      { id: "rule", value: 1250, sigma: 1 },
      { id: "scale", value: 1275, sigma: 1.5 },
    ]);
    expect(e.suspect).not.toBeNull();
    expect(Math.abs(e.residuals[0]!.w)).toBeCloseTo(Math.abs(e.residuals[1]!.w), 1);
  });
});

describe("adjusters at their marks", () => {
  it("lists what a stand has", () => {
    const { stand, vehicle } = planOf(0, 0);
    const pose = { xMm: 0, yMm: 0, headingRad: 0 };
    const after = { pose, heightMm: 1245, pitchRad: 0, rollRad: 0 };
    expect(moveWords({ kind: "zero", adjusters: adjustersOf(stand), after }, vehicle).say).toBe(
      "Put the adjusters at their marks: turn at zero, cross and fore-aft slide centred.",
    );
  });
});
