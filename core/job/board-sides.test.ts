import { beforeAll, describe, expect, it } from "vitest";
import { fieldsFor, judgeMeasure } from "@/core/ready";
import { floorStep } from "@/core/setout";
import { installFloorSlots } from "@/core/setout/floor-slots";
import { AROUND } from "@/demo/data/around";
import { SHEETS } from "@/demo/data/sheets";
import { VEHICLES } from "@/demo/data/vehicles";
import { groundOf, INTAKE, logOf } from "@/tests/fixtures";
import { bayStandX, intakeSchema, itemsOf, planFor, viewOf, type CalibrationGround } from ".";

beforeAll(installFloorSlots);

const intake = intakeSchema.parse({ ...INTAKE, vehicleId: "ardvale-motto" });
const van = VEHICLES.findIndex((v) => v.id === "ardvale-motto");
/** The van's boards at either side, and behind it: three floors to stand on. */
const [sides, behind] = ["motto-sides", "motto-rear"].map((id) => AROUND.find((s) => s.id === id)!);
const ground = groundOf(intake, van, sides!, groundOf(intake, 0, SHEETS[0]!).stand);
const both: CalibrationGround = viewOf(
  {
    ...ground,
    calibrations: [
      ...ground.calibrations,
      { ...ground.calibrations[0]!, id: behind!.id, sheet: behind! },
    ],
  },
  behind!.id,
);
const floor = itemsOf(both, "ready").find((i) => i.measure?.kind === "floor")!;
const READ = {
  FL: 600,
  FR: 600,
  RL: 600,
  RR: 600,
  stand: 604,
  "stand-right": 588,
  "stand-behind": 611,
};
const wholeFloor = { kind: "measured", itemId: floor.id, values: READ, typed: {} } as const;

describe("boards on several sides of a vehicle", () => {
  it("stand on floors of their own: each is read, and each board is held to its own", () => {
    const stands = fieldsFor(floor.measure!, both.vehicle).filter((f) => f.id.startsWith("stand"));
    expect(stands.map((f) => f.name)).toEqual([
      "stand, rear foot",
      "stand, front foot",
      "stand on vehicle right",
      "stand behind",
    ]);
    const { "stand-behind": _, ...short } = READ;
    expect(judgeMeasure(floor.measure!, short, both.vehicle).ok).toBeNull();
    expect(judgeMeasure(floor.measure!, READ, both.vehicle)).toMatchObject({
      ok: true,
      headline:
        "floor at the stand 4.0 mm lower, on vehicle right 12.0 mm higher, behind 11.0 mm lower than the car’s plane",
    });

    const log = logOf(both, wholeFloor);
    const step = (id: string, calibration: string): number =>
      floorStep(planFor(viewOf(both, calibration), log, id)).value;
    // A rule that reads more stands on lower floor.
    expect(step("board-left", sides!.id)).toBeCloseTo(-4, 6);
    expect(step("board-right", sides!.id)).toBeCloseTo(12, 6);
    expect(step("board-rear", behind!.id)).toBeCloseTo(-11, 6);
  });

  it("do not stand on the floor a bay keeps, which was read before a vehicle", () => {
    expect(bayStandX(both, [])).toBeNull();
    const forward = groundOf(intakeSchema.parse(INTAKE), 0, SHEETS[0]!);
    const x = bayStandX(forward, logOf(forward))!;
    expect(x).toBeGreaterThan(forward.vehicle.wheelbaseMm + 1000);
  });
});
