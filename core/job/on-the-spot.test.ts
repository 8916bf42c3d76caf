import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { gaussian, randomFrom, seedFrom } from "@/core/math/random";
import { readSheet } from "@/core/sheet";
import { hubCovariance } from "@/core/vehicle";
import { ON_THE_SPOT } from "@/tests/fixtures";
import { documentsOnTheSpot, onTheSpotSchema } from "./on-the-spot";

const TYPED = onTheSpotSchema.parse({ ...ON_THE_SPOT, tapedSigmaMm: 6, systems: ["front-radar"] });
const documents = (change: object = {}) =>
  documentsOnTheSpot(
    { ...TYPED, ...change },
    { vin: "0STVAL7A7R100311", happenings: [{ event: "glass-out" }] },
    "Ines Tarbet",
    "2026-11-27",
  );

describe("documents of a car no book has", () => {
  it("keep the hub caps where they were taped, whatever is assumed of the rest", () => {
    for (const body of ["car", "coupe", "van", "camper", "truck"] as const) {
      const { vehicle: v, sheet } = documents({ body });
      expect(v.trackFrontMm + 2 * v.hubCapOutMm).toBe(1672);
      expect(v.trackRearMm + 2 * v.hubCapOutMm).toBe(1668);
      expect(v.fitted.map((f) => f.system)).toEqual(["forward-camera", "front-radar"]);
      expect(readSheet(JSON.parse(JSON.stringify(sheet)))).toMatchObject({ ok: true });
    }
  });
  it("stand for whatever the form lets pass, out to the ends of its bounds", () => {
    const within = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    const figures = fc.record({
      wheelbaseMm: within(1500, 7000),
      frontCapsMm: within(1100, 2700),
      rearCapsMm: within(1100, 2700),
      tapedSigmaMm: within(0.5, 20),
      hubHeightMm: within(200, 700),
      alongMm: within(300, 12000),
      heightMm: within(100, 3000),
      boardWidthMm: within(200, 4000),
      model: fc.string({ minLength: 1, maxLength: 40 }).filter((m) => m.trim() !== ""),
      body: fc.constantFrom("car", "coupe", "van", "camper", "truck"),
    });
    fc.assert(
      fc.property(figures, fc.string({ maxLength: 20 }), (typed, vin) => {
        const read = onTheSpotSchema.parse({ ...TYPED, ...typed });
        const happened = [{ event: "glass-out" as const }];
        documentsOnTheSpot(read, { vin, happenings: happened }, "Ines Tarbet", "2026-11-27");
      }),
    );
  });
  it("make a sheet that does not pass for a checked one", () => {
    const { sheet } = documents();
    const read = readSheet({ ...sheet, status: "checked" });
    expect(read).toEqual({
      ok: false,
      problems: ["source.checkedBy: is needed: a second person compares it with the source."],
    });
  });
  it("know the hubs no better than the tape and the caps allow: against 40 000 cars drawn from it", () => {
    const { vehicle } = documents();
    const random = randomFrom(seedFrom("cars as they are"));
    const draw = (sigma: number): number => sigma * gaussian(random);
    const n = 40_000;
    const sum = Array.from({ length: 8 }, () => new Float64Array(8));
    for (let k = 0; k < n; k++) {
      // Both wheels of an axle alike: the axle ahead, and half of what the track is wider.
      const axle = draw(6) + draw(1.7);
      const [front, rear] = [draw(6) / 2 + draw(1.5), draw(6) / 2 + draw(1.5)];
      const own = (): number => draw(vehicle.hubSigmaMm);
      const off = [
        axle + own(),
        front + own(),
        axle + own(),
        -front + own(),
        own(),
        rear + own(),
        own(),
        -rear + own(),
      ];
      off.forEach((a, i) => off.forEach((b, j) => (sum[i]![j]! += (a * b) / n)));
    }
    const { covariance } = hubCovariance(vehicle);
    covariance.forEach((row, i) =>
      row.forEach((v, j) => {
        const spread = Math.sqrt((covariance[i]![i]! * covariance[j]![j]! + v * v) / n);
        expect(Math.abs(sum[i]![j]! - v)).toBeLessThan(4.5 * spread);
      }),
    );
  });
});
