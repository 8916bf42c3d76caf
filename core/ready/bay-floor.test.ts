import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { VEHICLES } from "@/demo/data/vehicles";
import { archPlace, CORNERS } from "@/core/vehicle";
import { asBayFloor, bayFloorSigma, floorOf, valuesFromBay } from ".";

const [LISSE, , TARN] = VEHICLES as [(typeof VEHICLES)[0], unknown, (typeof VEHICLES)[0]];
const AT = "2026-11-03T09:00:00.000Z";

/** A stand straight ahead, so far before the rear axle. */
const before = (xMm: number) => ({ xMm, yMm: 0, headingRad: Math.PI });

describe("a floor kept of a bay", () => {
  it("gives another vehicle on the same marks what a rule would read there, on any tilted and twisted floor", () => {
    const slope = fc.double({ min: -0.02, max: 0.02, noNaN: true });
    fc.assert(
      fc.property(
        slope,
        slope,
        slope,
        fc.integer({ min: -20, max: 20 }),
        (ahead, left, twist, step) => {
          // Rule readings under a level line: 600 less the height of the floor.
          const height = (x: number, y: number): number =>
            ahead * x + left * y + (twist * x * y) / 1000;
          const read = (v: typeof LISSE, standX: number): Record<string, number> => ({
            ...Object.fromEntries(
              CORNERS.map((c) => [c, 600 - height(archPlace(v, c).xMm, archPlace(v, c).yMm)]),
            ),
            stand: 600 - height(standX, 350) - step,
            "stand-2": 600 - height(standX, -350) - step,
          });
          const kept = asBayFloor("Bay 1", AT, read(LISSE, 5400), LISSE, 5400)!;
          const [mine, truth] = [valuesFromBay(kept, TARN, 5600), read(TARN, 5600)];
          for (const id of Object.keys(truth)) expect(mine[id]).toBeCloseTo(truth[id]!, 6);
        },
      ),
    );
  });
  it("is believed less than one read here, and less the older it is", () => {
    expect(bayFloorSigma(0.8, 0)).toBeGreaterThan(0.8);
    expect(bayFloorSigma(0.8, 90)).toBeGreaterThan(bayFloorSigma(0.8, 1));
    const values = { FL: 600, FR: 600, RL: 600, RR: 600, stand: 609 };
    const [here, kept] = [
      floorOf(values, LISSE, before(5400))!,
      floorOf(values, LISSE, before(5400), 60)!,
    ];
    expect(kept.correction!.value).toBeCloseTo(here.correction!.value, 9);
    expect(kept.correction!.sigma).toBeGreaterThan(1.5 * here.correction!.sigma);
    // Kept this week it serves a height of 6 mm; a quarter of a year old it does not.
    const sure = (days: number): boolean =>
      2.58 * floorOf(values, LISSE, before(5470), days)!.correction!.sigma < 6;
    expect([sure(0), sure(7), sure(90)]).toEqual([true, true, false]);
  });
  it("is no floor without all four tyres and the stand", () => {
    expect(asBayFloor("Bay 1", AT, { FL: 1, FR: 1, RL: 1, RR: 1 }, LISSE, 5400)).toBeNull();
  });
});
