import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { VEHICLES } from "@/demo/data/vehicles";
import { readVehicle, signVehicle, vehicleFieldName, vehicleProblems, type Vehicle } from ".";

const LISSE = VEHICLES[0]!;
const draft = (change: object): Record<string, unknown> => ({
  ...structuredClone(LISSE),
  ...change,
});
const first = (change: object): string => {
  const [p] = vehicleProblems(draft(change));
  return p ? `${p.field}: ${p.message}` : "nothing";
};

describe("a vehicle on its way into the measuring book", () => {
  it("has nothing to put right when it is one of the shop's own", () => {
    for (const v of VEHICLES) expect(vehicleProblems(v)).toEqual([]);
  });
  it.each([
    ["metres", { wheelbaseMm: 2.61 }, /^wheelbaseMm: .*Typed in metres\? That would be 2610 mm\./],
    ["inches", { trackRearMm: 61 }, /^trackRearMm: .*(inches\? That would be 1549\.4|centimetres)/],
    [
      "centimetres",
      { hubHeightMm: 32.2 },
      /^hubHeightMm: .*Typed in centimetres\? That would be 322 mm\./,
    ],
    ["a place in metres", { camera: { xMm: 1905, yMm: 0, zMm: 11620 } }, /^camera\.zMm/],
    ["nothing at all", { glass: undefined }, /^glass: /],
    [
      "a rear overhang that is none",
      { lengthMm: 3500 },
      /^lengthMm: leaves -15 mm behind the rear axle/,
    ],
    [
      "a badge behind the wheel",
      { frontBadge: { xMm: 900, yMm: 0, zMm: 560 } },
      /^frontBadge\.xMm: lies behind/,
    ],
    ["a track wider than the car", { trackFrontMm: 1900 }, /^trackFrontMm: is wider/],
  ])("is held back by the field: %s", (_, change, words) => expect(first(change)).toMatch(words));
  it("goes out to a file and comes back without loss, whatever is in it", () => {
    const figure = fc.double({ min: 0.9, max: 1.1, noNaN: true });
    fc.assert(
      fc.property(
        fc.constantFrom(...VEHICLES),
        figure,
        fc.string({ minLength: 1 }),
        (v, k, source) => {
          const changed: Vehicle = {
            ...v,
            hubHeightMm: v.hubHeightMm * k,
            wheelbaseMm: v.wheelbaseMm + k,
            source,
          };
          expect(readVehicle(JSON.parse(JSON.stringify(changed)))).toEqual({
            ok: true,
            vehicle: changed,
          });
        },
      ),
    );
  });
  it("is signed by a second person only, and says who", () => {
    const entered = draft({ checked: { enteredBy: "Ines Tarbet" } });
    expect(signVehicle(entered, 2, "Mara Quill", "2026-11-03")).toMatchObject({
      version: 2,
      checked: { enteredBy: "Ines Tarbet", checkedBy: "Mara Quill" },
    });
    expect(() => signVehicle(entered, 2, "Ines Tarbet", "2026-11-03")).toThrow(/second person/);
    expect(() => signVehicle(draft({ wheelbaseMm: 2.6 }), 2, "Mara Quill", "2026-11-03")).toThrow(
      /wheelbaseMm/,
    );
  });
  it("its fields have names people use", () => {
    expect([
      vehicleFieldName("wheelbaseMm"),
      vehicleFieldName("archMm.FL"),
      vehicleFieldName("odd"),
    ]).toEqual(["the wheelbase", "an arch height", "odd"]);
  });
});
