import { describe, expect, it } from "vitest";
import { SHEETS } from "@/demo/data/sheets";
import { mannersOf, unmet, type Circumstances } from "./manners";

const NOTHING: Circumstances = { lamps: null, twice: false, buttons: false, seenTo: false };
const of = (vehicleId: string, system: Parameters<typeof mannersOf>[1]) =>
  mannersOf(vehicleId, system);

describe("the units of the made-up fleet", () => {
  it("behave in at least twelve different ways over every system the shop has sheets of", () => {
    // The unit's own ways alone: that sheets differ, or systems do, makes no vehicle behave.
    const ways = SHEETS.flatMap(({ appliesTo }) =>
      appliesTo.vehicles.map((v) => JSON.stringify(of(v, appliesTo.system))),
    );
    expect(new Set(ways).size).toBeGreaterThanOrEqual(12);
    expect(new Set(SHEETS.map((s) => s.appliesTo.system)).size).toBe(7);
  });
  it("want what their own sheets ask for, and say what is missing", () => {
    const lamps = of("ardvale-sandling", "forward-camera");
    expect(unmet(lamps, "on", NOTHING)).toMatch(/wants them on/);
    expect(unmet(lamps, "on", { ...NOTHING, lamps: "off" })).toMatch(/wants them on/);
    expect(unmet(lamps, "on", { ...NOTHING, lamps: "on" })).toBeNull();
    expect(unmet(of("ardvale-motto", "rear-camera"), "on", NOTHING)).toMatch(/wants them off/);
    const idle = of("keld-carrier", "rear-camera");
    expect(unmet(idle, "on", NOTHING)).toMatch(/not running/);
    expect(unmet(idle, "running", NOTHING)).toBeNull();
    expect(unmet(of("norvane-lisse", "forward-camera"), "running", NOTHING)).toMatch(
      /wants it off/,
    );
    const twice = of("keld-carrier", "side-camera");
    expect(unmet(twice, "on", NOTHING)).toMatch(/enter it again/);
    expect(unmet(twice, "on", { ...NOTHING, twice: true })).toBeNull();
    const held = of("norvane-cirrin", "front-radar");
    expect(unmet(held, "on", NOTHING)).toMatch(/buttons/);
    expect(unmet(held, "on", { ...NOTHING, buttons: true })).toBeNull();
    // Where no step of a sheet says it, somebody goes and sees to it.
    expect(unmet(idle, "on", { ...NOTHING, seenTo: true })).toBeNull();
  });
});
