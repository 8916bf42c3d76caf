import { beforeAll, describe, expect, it } from "vitest";
import { setBoard } from "@/bench/hands";
import { installFloorSlots } from "@/core/setout/floor-slots";
import { trailerAlone } from "@/core/vehicle/trailer";
import { AROUND } from "@/demo/data/around";
import { VEHICLES } from "@/demo/data/vehicles";
import { openBay } from "../bench/world";
import { planOf } from "@/tests/fixtures";
import { DeviceRefusal } from "./scan-tool";
import { simulatedScanTool, type Cabin } from "./simulated";

const plan = planOf(0, 0);
const world = openBay("tool", plan);
const cabin: Cabin = {
  system: "forward-camera",
  ignition: "on",
  done: { lamps: null, twice: false, buttons: false, seenTo: false },
  maintained: false,
  unplugged: false,
  ignitionOnSeconds: 0,
  connectionsBefore: 0,
  vin: "0NVLS2DA7R100417",
  holdsBefore: 0,
  silentSeconds: null,
  looksBefore: 0,
  learned: false,
  testsBefore: 0,
  articulationRad: null,
  arms: [],
};
const tool = (change: Partial<Cabin>) =>
  simulatedScanTool([{ name: "first place", world }], { ...cabin, ...change }, 0);

beforeAll(installFloorSlots);

describe("the simulated scan tool", () => {
  it("has a plug that fails about one time in eight, and says what to do", async () => {
    let refused = 0;
    for (let n = 0; n < 400; n++)
      await tool({ connectionsBefore: n })
        .connect()
        .catch((e: unknown) => {
          expect(e).toBeInstanceOf(DeviceRefusal);
          expect((e as Error).message).toMatch(/Push the plug home/);
          refused++;
        });
    expect(refused).toBeGreaterThan(25);
    expect(refused).toBeLessThan(75);
  });
  it("drains the battery with ignition on, unless a maintainer is on, and refuses the routine when it is low", async () => {
    const volts = async (change: Partial<Cabin>): Promise<number> =>
      (await tool(change).readValue("battery-voltage")).value;
    expect(await volts({ ignitionOnSeconds: 400 })).toBeLessThan(await volts({}));
    expect(await volts({ maintained: true, ignitionOnSeconds: 400 })).toBeGreaterThan(13);
    const off = { maintained: true, unplugged: true };
    expect(await volts(off)).toBeGreaterThan(12.6);
    expect(await volts({ ...off, ignitionOnSeconds: 400 })).toBeLessThan(12.6);
    await expect(
      tool({ ...off, ignitionOnSeconds: 1200 }).runRoutine("forward-camera-static"),
    ).rejects.toThrow(/Put the maintainer on/);
    await expect(
      tool({ ignitionOnSeconds: 600 }).runRoutine("forward-camera-static"),
    ).rejects.toThrow(/battery too low/);
  });
  it("lets a unit test itself: content once it has learned, unless there is dirt that is then wiped off", async () => {
    expect(await tool({}).selfTest()).toMatchObject({ passed: false });
    const seeds = Array.from({ length: 60 }, (_, n) => openBay(`test-${n}`, plan));
    const test = (bay: typeof world, testsBefore: number) =>
      simulatedScanTool(
        [{ name: "first place", world: bay }],
        { ...cabin, learned: true, testsBefore },
        0,
      ).selfTest();
    const first = await Promise.all(seeds.map((w) => test(w, 0)));
    const dirty = first.filter((r) => !r.passed);
    expect(dirty.length).toBeGreaterThan(4);
    expect(dirty.length).toBeLessThan(24);
    expect(dirty[0]!.says).toMatch(/clean/);
    for (const w of seeds) expect((await test(w, 1)).passed).toBe(true);
  });
  it("speaks inches where the book speaks millimetres", async () => {
    const { value, unit } = await tool({}).readValue("camera-height");
    expect(unit).toBe("in");
    expect(Math.abs(value * 25.4 - plan.vehicle.camera.zMm)).toBeLessThan(15);
  });
  it("runs the routine on the bay as it truly stands", async () => {
    // Rolled in by eye and never moved: the vehicle sees that the board is not where it should be.
    const result = await tool({ maintained: true }).runRoutine("forward-camera-static");
    expect(result.passed).toBe(false);
    expect(result.reason).toMatch(/stands too|Aim|turned/);
  });
  it("looks for a board behind the trailer too, beside standing in line with it", async () => {
    const board = AROUND.flatMap((s) => s.setups)
      .flatMap((s) => s.targets)
      .find((t) => t.stands === "behind")!;
    const van = VEHICLES.find((v) => v.id === "ardvale-motto")!;
    const towed = {
      ...plan,
      vehicle: trailerAlone(van),
      target: { ...board, frame: "trailer" as const },
    };
    const learn = (behind: typeof world, articulationRad: number) =>
      simulatedScanTool(
        [{ name: "behind the trailer", world: behind }],
        { ...cabin, maintained: true, articulationRad },
        0,
      ).runRoutine("trailer-camera-static");
    const { world: set } = setBoard(towed, "towed")!;
    expect(await learn(set, 0)).toMatchObject({ passed: true });
    const { base } = set.stand;
    const aside = { ...set, stand: { ...set.stand, base: { ...base, yMm: base.yMm + 300 } } };
    expect(await learn(aside, 0)).toMatchObject({ passed: false });
    expect(await learn(set, 0.3)).toMatchObject({ passed: false });
  });
});
