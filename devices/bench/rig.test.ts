import { describe, expect, it } from "vitest";
import { degToRad, radToDeg } from "@/core/units";
import { planOf } from "@/tests/fixtures";
import { rigLook, rollUnderRig } from "./rig";
import { schoolReading } from "./school-readings";
import { openBay, trueReading } from "./world";

const world = openBay("rig", planOf(0, 0));

describe("the simulated camera rig", () => {
  const looks = Array.from({ length: 400 }, (_, n) => rigLook(world, n));
  it("says the same at the same look, and never the truth itself", () => {
    expect(rigLook(world, 3)).toEqual(looks[3]);
    const first = looks.find((l) => l.values["rig-fl-x"] !== undefined)!;
    expect(first.values["rig-fl-x"]).not.toBe(trueReading(world, "rig-fl-x"));
  });
  it("is right on average, and each look is coarser than what it states for many", () => {
    for (const id of ["rig-fl-x", "rig-fr-y", "rig-rl-x", "rig-rr-y"]) {
      const values = looks.flatMap((l) => l.values[id] ?? []);
      const mean = values.reduce((a, b) => a + b, 0) / values.length;
      const spread = Math.sqrt(values.reduce((a, v) => a + (v - mean) ** 2, 0) / values.length);
      expect(Math.abs(mean - trueReading(world, id))).toBeLessThan(
        (4 * spread) / Math.sqrt(values.length),
      );
      expect(spread).toBeGreaterThan(2.5);
    }
  });
  it("loses a wheel now and then, in runs, and names it", () => {
    const lost = looks.filter((l) => l.lost.length > 0);
    expect(lost.length / looks.length).toBeGreaterThan(0.2);
    expect(lost.length / looks.length).toBeLessThan(0.6);
    for (const l of lost)
      for (const wheel of l.lost)
        expect(["front left", "front right", "rear left", "rear right"]).toContain(wheel);
    for (const l of looks) expect(Object.keys(l.values)).toHaveLength(8 - 2 * l.lost.length);
  });
  it("rolled under it, the rear wheels' toe is found to a few hundredths", () => {
    const found = Array.from({ length: 60 }, (_, n) => rollUnderRig(world, n).leftDeg);
    const mean = found.reduce((a, b) => a + b, 0) / found.length;
    expect(Math.abs(mean - radToDeg(world.toe.leftRad))).toBeLessThan(0.01);
    expect(Math.max(...found) - Math.min(...found)).toBeLessThan(0.12);
  });
  it("a bay without a rig has none", () => {
    const bare = {
      ...world,
      plan: { ...world.plan, instruments: world.plan.instruments.filter((i) => i.kind !== "rig") },
    };
    expect(() => rigLook(bare, 0)).toThrow(/No camera rig/);
  });
});

describe("readings of the other schools, on a scene worked out by hand", () => {
  const points = [
    { id: "hubFL", xMm: 3000, yMm: 800 },
    { id: "hubFR", xMm: 3000, yMm: -800 },
    { id: "hubRL", xMm: 0, yMm: 800 },
    { id: "hubRR", xMm: 0, yMm: -800 },
    { id: "badgeF", xMm: 3900, yMm: 0 },
    { id: "badgeR", xMm: -900, yMm: 0 },
  ];
  /** A stand that leans nowhere, a metre of beam to either side of the board. */
  const scene = (xMm: number, yMm: number, turnRad: number) => {
    const reach = { x: -1000 * Math.sin(turnRad), y: 1000 * Math.cos(turnRad) };
    return {
      points,
      toe: { leftRad: 0, rightRad: 0 },
      board: { xMm, yMm, headingRad: Math.PI + turnRad },
      beam: {
        left: { x: xMm + reach.x, y: yMm + reach.y },
        right: { x: xMm - reach.x, y: yMm - reach.y },
        middle: { x: xMm, y: yMm },
      },
    };
  };
  const straight = scene(6000, 30, 0);
  it.each([
    ["box-centre", 30],
    ["box-ahead", 2100],
    ["box-hub-l", 3000],
    ["box-end-l", 0],
    ["box-rear-centre", 770],
    ["box-rear-ahead", 6000],
    ["box-diag-l", Math.hypot(3000, 800 + 970)],
    ["panel-rl", 6000],
    ["panel-fl", 3000],
    ["scale-rl", 770],
    ["scale-rr", 830],
    ["rig-fl-x", 3000],
    ["rig-fl-y", 770],
    ["rig-rr-y", -830],
  ])("%s shows %f", (slot, shown) => expect(schoolReading(slot, straight)).toBeCloseTo(shown, 9));
  it("a beam turned by one degree brings its left end 17.45 mm nearer, and tells it on panels and marks alike", () => {
    const turned = scene(6000, 0, degToRad(1));
    const by = 1000 * Math.sin(degToRad(1));
    expect(Math.abs(schoolReading("box-end-l", turned)!)).toBeCloseTo(by, 6);
    expect(schoolReading("box-end-l", turned)).toBeCloseTo(-schoolReading("box-end-r", turned)!, 9);
    expect(Math.sign(schoolReading("panel-rl", turned)! - schoolReading("panel-rr", turned)!)).toBe(
      Math.sign(schoolReading("box-end-l", turned)!),
    );
  });
  it("what is no reading of theirs is none", () =>
    expect(schoolReading("tape-fl-l", straight)).toBeNull());
});
