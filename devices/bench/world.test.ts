import { describe, expect, it } from "vitest";
import { readingSigma, slotsFor } from "@/core/setout";
import { planOf } from "@/tests/fixtures";
import { liveFigure } from "./live-figure";
import { boardOf } from "./stand-sim";
import { act, measure, openBay, trueReading } from "./world";

const plan = planOf(0, 0);

describe("the simulated bay", () => {
  it("is the same world under the same seed and another under another", () => {
    expect(openBay("a", plan)).toEqual(openBay("a", plan));
    expect(openBay("a", plan).stand).not.toEqual(openBay("b", plan).stand);
    expect(measure(openBay("a", plan), "tape-fl-l", 0)).toBe(
      measure(openBay("a", plan), "tape-fl-l", 0),
    );
    expect(measure(openBay("a", plan), "tape-fl-l", 0)).not.toBe(
      measure(openBay("a", plan), "tape-fl-l", 1),
    );
  });

  it.each(["tape-fl-l", "laser-badge", "height-rule"])(
    "reads %s with the noise its instrument states",
    (slotId) => {
      const world = openBay("noise", plan);
      const slot = slotsFor(plan).find((s) => s.id === slotId)!;
      const truth = trueReading(world, slotId);
      const sigma = readingSigma(
        plan.instruments.find((i) => i.kind === slot.instrument)!,
        slot,
        truth,
      );
      const off = Array.from(
        { length: 4000 },
        (_, n) => (measure(world, slotId, n) - truth) / sigma,
      );
      const variance = off.reduce((s, v) => s + v * v, 0) / off.length;
      expect(variance).toBeGreaterThan(0.9);
      expect(variance).toBeLessThan(1.1);
    },
  );

  it("shows a figure that runs no faster than a hand turns, and comes to rest beside where it was to go", () => {
    const world = openBay("turning", plan);
    const from = trueReading(world, "height-scale");
    for (let nth = 0; nth < 50; nth++) {
      const to = from + (nth % 2 ? 120 : -90);
      const at = (s: number): number => liveFigure(world, "height-scale", to, nth, s);
      expect(Math.abs(at(0) - from)).toBeLessThan(1);
      expect(Math.abs(at(1) - from)).toBeLessThan(41);
      expect(Math.abs(at(1) - from)).toBeGreaterThan(39);
      expect(Math.abs(at(9) - to)).toBeLessThan(2.5);
      expect(Math.abs(at(9) - at(9.2))).toBeLessThan(0.8);
    }
  });

  it("a tape is the straight line in space from hub cap to hook", () => {
    const open = openBay("space", plan);
    const world = { ...open, tapeScale: 0, stand: { ...open.stand, feetMm: [0, 0, 0] } };
    const plain = {
      ...world,
      points: world.points.map((p) =>
        p.id === "hubFL" ? { ...p, zMm: plan.stand.hookHeightMm } : p,
      ),
    };
    const rise = plan.stand.hookHeightMm - plan.vehicle.hubHeightMm;
    expect(trueReading(world, "tape-fl-l")).toBeCloseTo(
      Math.hypot(trueReading(plain, "tape-fl-l"), rise),
      9,
    );
  });

  it("a car that is moved leaves the bay as it is: two boards keep their distance, hubs come nearer or go", () => {
    const aside = {
      ...plan,
      target: { ...plan.target, placement: { ...plan.target.placement, acrossMm: 1400 } },
    };
    const before = [openBay("car", plan), openBay("car", aside)];
    const after = before.map((w) => act(w, { id: "m", kind: "touch", touch: "moved-car" }));
    const between = ([a, b]: typeof before) => {
      const [p, q] = [a!, b!].map((w) => boardOf(w.plan.stand, w.stand).pose);
      const [x, y] = [q!.xMm - p!.xMm, q!.yMm - p!.yMm];
      return { far: Math.hypot(x, y), bearing: Math.atan2(y, x), heading: p!.headingRad };
    };
    const [was, is] = [between(before), between(after)];
    expect(is.far).toBeCloseTo(was.far, 6);
    // Seen from the car all of it has turned together, not each board about itself.
    expect(is.bearing - was.bearing).toBeCloseTo(is.heading - was.heading, 9);
    expect(Math.abs(is.heading - was.heading)).toBeGreaterThan(1e-3);
    const moved = trueReading(after[0]!, "tape-fl-l") - trueReading(before[0]!, "tape-fl-l");
    expect(Math.abs(moved)).toBeGreaterThan(1);
  });

  it("knows no reading that no instrument here can take", () => {
    const world = openBay("none", {
      ...plan,
      instruments: plan.instruments.filter((i) => i.kind !== "laser"),
    });
    expect(() => measure(world, "laser-badge", 0)).toThrow(/No instrument in this bay/);
    expect(() => measure(world, "tape-up-up", 0)).toThrow(/No instrument/);
  });
});
