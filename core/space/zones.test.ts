import { describe, expect, it } from "vitest";
import { BAYS } from "@/demo/data/bays";
import { VEHICLES } from "@/demo/data/vehicles";
import { baySchema } from "./bay";
import { placesFor } from "./places";
import { needFor, noseOf, parkMarks, vehicleZone } from "./zones";

const car = {
  ...VEHICLES[0]!,
  wheelbaseMm: 2700,
  frontOverhangMm: 900,
  lengthMm: 4400,
  widthMm: 1800,
  trackFrontMm: 1500,
  trackRearMm: 1520,
};

describe("what has to be free about a vehicle", () => {
  it("is the vehicle and the room of each calibration, in its own frame", () => {
    const { zones } = needFor(car, "board", { ahead: 4, behind: 0, sides: 0.5 });
    expect([vehicleZone(car), ...zones].map((z) => [z.name, z.shape[0], z.shape[2]])).toEqual([
      ["the vehicle", [-800, -900], [3600, 900]],
      // A stand wants two metres across, more than this car is wide.
      ["board, ahead", [3600, -1000], [7600, 1000]],
      ["board, at the sides", [-800, -1400], [3600, 1400]],
    ]);
  });
  it("stands by distances from two walls that do not run alike, nose in or out", () => {
    const [bay] = BAYS;
    // Its left side to wall 3, its nose to wall 2; walls 1 and 3 run alike, 2 and 4 too.
    const pose = { xMm: 4000, yMm: 3000, headingRad: 0 };
    expect(parkMarks(bay!, car, pose)).toEqual([
      {
        wheel: "front left wheel",
        from: [
          { wall: 3, mm: 2650 },
          { wall: 2, mm: 6500 },
        ],
      },
      {
        wheel: "rear left wheel",
        from: [
          { wall: 3, mm: 2640 },
          { wall: 4, mm: 4000 },
        ],
      },
    ]);
    // A wall that ends before it comes abreast is no wall to hold a tape to, however near its line.
    const [, angled] = BAYS;
    const [front] = parkMarks(angled!, car, { xMm: 2600, yMm: 2700, headingRad: 0 });
    expect(front!.from.map((f) => f.wall)).toEqual([5, 6]);
    expect(noseOf(bay!, pose)).toBe("in");
    expect(noseOf(bay!, { ...pose, headingRad: Math.PI })).toBe("out");
    expect(noseOf({ ...bay!, doors: [] }, pose)).toBeNull();
  });
  it("is had at one place, at as few as there must be, or is named with what hinders it", () => {
    const hall = (lengthMm: number) =>
      baySchema.parse({
        id: "h",
        name: "Hall",
        outline: [
          [0, 0],
          [lengthMm, 0],
          [lengthMm, 4000],
          [0, 4000],
        ],
      });
    const room = { ahead: 0, behind: 0, sides: 0 };
    const ahead = needFor(car, "ahead", { ...room, ahead: 4 });
    const behind = needFor(car, "behind", { ...room, behind: 3 });
    const little = needFor(car, "little", { ...room, ahead: 1 });
    const places = (mm: number): string[][] =>
      placesFor(hall(mm), vehicleZone(car), [ahead, behind, little]).map((p) => p.needs);
    // Car and both ends: 11 400 mm. Car and the longer end: 8 400.
    expect(places(11_600)).toEqual([["ahead", "behind", "little"]]);
    const two = places(9000);
    expect(two).toHaveLength(2);
    expect(two.find((p) => p.includes("ahead"))).not.toContain("behind");
    expect(places(8000)).toEqual([["ahead"]]);
    expect(placesFor(hall(8000), vehicleZone(car), [ahead])[0]!.fit.marginMm).toBeLessThan(0);
  });
  it("lies in bays of the demo that are whole", () => {
    for (const bay of BAYS) expect(baySchema.parse(bay)).toEqual(bay);
  });
});
