import { describe, expect, it } from "vitest";
import { judgeMeasure } from "@/core/ready";
import { nominalTarget } from "@/core/setout";
import type { Measure } from "@/core/sheet";
import { openBay } from "@/devices/bench/world";
import { readReadiness } from "@/devices/bench/readiness";
import { planOf } from "@/tests/fixtures";
import { DeviceRefusal } from "../scan-tool/scan-tool";
import { clearCodes, readModules, signInToGateway, type NetworkState } from "./network";

const plan = planOf(1, 1);
const bays = Array.from({ length: 120 }, (_, i) => openBay(`net-${i}`, plan));
const LOST = ["forward-camera"] as const;
const fresh: NetworkState = {
  volts: 12.6,
  open: true,
  lost: LOST,
  learned: [],
  provesOnRoad: [],
  driven: false,
  cleared: false,
  without: [],
};
const codes = (world: (typeof bays)[number], state: NetworkState): string[] =>
  readModules(world, state).flatMap((m) => m.codes.map((c) => c.code));

describe("the simulated vehicle's network", () => {
  it("has a silent control unit now and then, always the same in the same car", () => {
    const silent = bays.filter((w) => readModules(w, fresh).some((m) => !m.answers));
    expect(silent.length).toBeGreaterThan(10);
    expect(silent.length).toBeLessThan(40);
    for (const w of silent) expect(readModules(w, fresh)).toEqual(readModules(w, fresh));
  });
  it("lets units fall asleep when the supply is low", () => {
    for (const w of bays.slice(0, 20)) {
      const asleep = readModules(w, { ...fresh, volts: 11.7 })
        .filter((m) => !m.answers)
        .map((m) => m.id);
      expect(asleep).toEqual(expect.arrayContaining(["body", "steering"]));
    }
  });
  it("reports the camera until it has learned and is cleared, and not after", () => {
    const [w] = bays as [(typeof bays)[number]];
    expect(codes(w, fresh)).toContain("FC-031");
    expect(codes(w, { ...fresh, cleared: true })).toContain("FC-031");
    expect(codes(w, { ...fresh, learned: LOST })).toContain("FC-031");
    expect(codes(w, { ...fresh, learned: LOST, cleared: true })).not.toContain("FC-031");
  });
  it("keeps a code until the road where the unit proves itself there", () => {
    const [w] = bays as [(typeof bays)[number]];
    const done = { ...fresh, learned: LOST, cleared: true };
    expect(codes(w, done)).not.toContain("FC-047");
    expect(codes(w, { ...done, provesOnRoad: LOST })).toContain("FC-047");
    expect(codes(w, { ...done, provesOnRoad: LOST, driven: true })).not.toContain("FC-047");
    expect(codes(w, { ...fresh, provesOnRoad: LOST })).not.toContain("FC-047");
  });
  it("has no answer from a unit that was not built in, and a steering that forgets when it is cleared", () => {
    const [w] = bays as [(typeof bays)[number]];
    const of = (state: NetworkState, id: string) => readModules(w, state).find((m) => m.id === id)!;
    const bare = { ...fresh, without: ["rear-camera"] as const };
    expect(of(fresh, "rear-camera").answers).toBe(true);
    expect(of(bare, "rear-camera").answers).toBe(false);
    const forgetting = bays.filter((b) => codes(b, { ...fresh, cleared: true }).includes("ST-058"));
    expect(forgetting.length).toBeGreaterThan(25);
    expect(forgetting.length).toBeLessThan(75);
    for (const b of forgetting) expect(codes(b, fresh)).not.toContain("ST-058");
  });
  it("clears nothing behind a locked gateway or on a low supply, and says what to do", () => {
    expect(() => clearCodes({ ...fresh, open: false })).toThrow(/sign in over the network first/);
    expect(() => clearCodes({ ...fresh, volts: 11.5 })).toThrow(/maintainer/);
    expect(() => clearCodes(fresh)).not.toThrow();
  });
  it("has a sign-in service that fails about one time in five, and works when tried again", () => {
    let refused = 0;
    for (const w of bays)
      try {
        signInToGateway(w, 0);
      } catch (error) {
        expect(error).toBeInstanceOf(DeviceRefusal);
        refused++;
        expect(
          [1, 2, 3, 4, 5, 6].some((n) => {
            try {
              signInToGateway(w, n);
              return true;
            } catch {
              return false;
            }
          }),
        ).toBe(true);
      }
    expect(refused).toBeGreaterThan(10);
    expect(refused).toBeLessThan(45);
  });
});

describe("the simulated car as it was driven in", () => {
  const PRESSURES: Measure = { kind: "pressures", load: "half", toleranceKPa: 12 };
  const judge = (w: (typeof bays)[number], m: Measure, fixed: boolean) =>
    judgeMeasure(m, readReadiness(w, "item", m, fixed, 0), plan.vehicle);

  it("has a soft tyre in some four of ten cars, and none once it was put right", () => {
    const soft = bays.filter((w) => !judge(w, PRESSURES, false).ok);
    expect(soft.length).toBeGreaterThan(30);
    expect(soft.length).toBeLessThan(70);
    for (const w of soft) expect(judge(w, PRESSURES, true).ok).toBe(true);
  });
  it("stands on a floor whose step the rule readings find, within their noise", () => {
    const floor: Measure = { kind: "floor", slopeDeg: 0.6, twistMm: 5 };
    for (const w of bays.slice(0, 30)) {
      const values = readReadiness(w, "floor", floor, false, 0);
      const step = (values.stand! + values["stand-2"]!) / 2;
      const ahead = w.floor.aheadRad * nominalTarget(w.plan).xMm;
      expect(Math.abs(600 - step - ahead - w.floor.stepMm)).toBeLessThan(3);
    }
  });
  it("is another reading each time, of the same car", () => {
    const [a, b] = [0, 1].map((n) => readReadiness(bays[0]!, "item", PRESSURES, false, n));
    expect(a).not.toEqual(b);
    expect(readReadiness(bays[0]!, "item", PRESSURES, false, 0)).toEqual(a);
  });
});
