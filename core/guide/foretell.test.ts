import { beforeAll, describe, expect, it } from "vitest";
import { setBoard } from "@/bench/hands";
import { gaussian, randomFrom, type Random } from "@/core/math/random";
import { stanceFrom } from "@/core/ready";
import { glassSeatOf } from "@/core/ready/glass";
import { nominalTarget, quantitiesOf, solveSetOut } from "@/core/setout";
import { installFloorSlots } from "@/core/setout/floor-slots";
import { degToRad } from "@/core/units";
import { GLASS_SPOTS } from "@/core/vehicle";
import { readReadiness, stanceNow } from "@/devices/bench/readiness";
import { boardOf } from "@/devices/bench/stand-sim";
import { openBay, type BenchWorld } from "@/devices/bench/world";
import { learnForwardCamera } from "@/devices/vehicle/forward-camera";
import { planOf } from "@/tests/fixtures";
import {
  boardBias,
  fitOfAim,
  foretellAim,
  stanceBias,
  UNREAD_ROLL,
  UNREAD_STANCE,
  type AimFit,
  type BodyStance,
} from "./foretell";

beforeAll(installFloorSlots);

const plan = planOf(0, 0);
const rangeMm = nominalTarget(plan).xMm - plan.vehicle.camera.xMm;
const rakeRad = degToRad(plan.vehicle.glass.rakeDeg);
const SPREAD = { left: 4, up: 3 };

/** Of how a camera sits, what its glass has of it and what bracket and camera add, degrees. */
const [GLASS, OWN] = [
  [0.15, 0.15, 0.1],
  [0.32, 0.26, 0.17],
] as const;

/**
 * What a depth gauge shows round the glass of a car whose camera sits so, mm: points of a plate that
 * is turned, not slopes.
 */
function depthsOf({ cameraRad }: BenchWorld, random: Random): Record<string, number> {
  const { glass } = plan.vehicle;
  const [yaw, pitch, roll] = [cameraRad.yaw, cameraRad.pitch, cameraRad.roll].map((turn, i) => {
    const [g, own] = [degToRad(GLASS[i]!), degToRad(OWN[i]!)];
    const both = g * g + own * own;
    return (g * g * turn) / both + ((g * own) / Math.sqrt(both)) * gaussian(random);
  }) as [number, number, number];
  // In vehicle axes: up along the glass, and out of it.
  const up = [-Math.cos(rakeRad), 0, Math.sin(rakeRad)] as const;
  const out = [Math.sin(rakeRad), 0, Math.cos(rakeRad)] as const;
  return Object.fromEntries(
    GLASS_SPOTS.map((spot) => {
      const has = (a: string, b: string): number =>
        spot.includes(a) ? 1 : spot.includes(b) ? -1 : 0;
      const y = (has("left", "right") * glass.widthMm) / 2;
      const v = (has("top", "bottom") * glass.heightMm) / 2;
      const [px, pz] = [v * up[0], v * up[2]];
      // A small turn moves a point by turn x p; what of it goes out of the glass is read.
      const proud = (pitch * pz - yaw * y) * out[0] + (roll * y - pitch * px) * out[2];
      return [spot, Math.round((proud + 0.3 * gaussian(random)) * 10) / 10];
    }),
  );
}

/** How its arches say that it stands, as a tape reads them. */
function archesOf(own: BenchWorld, n: number): BodyStance {
  const measure = { kind: "arches", cameraHeightMm: 18, pitchDeg: 0.3, rollDeg: 0.3 } as const;
  const read = readReadiness(own, "stance", measure, false, n);
  const { pitchRad, rollRad, cameraHeightMm } = stanceFrom(plan.vehicle, read);
  const { value, sigma } = cameraHeightMm;
  return { pitchRad, rollRad, riseMm: { value: value - plan.vehicle.camera.zMm, sigma } };
}

/** Boards set with care, and what their readings say of where they stand. */
const boards = (): { world: ReturnType<typeof openBay>; left: number; up: number }[] =>
  Array.from({ length: 12 }, (_, n) => {
    const { world, entries } = setBoard(plan, `aim-board-${n}`)!;
    const quantities = quantitiesOf(solveSetOut(plan, entries));
    const error = (id: string): number => quantities.find((q) => q.id === id)!.error;
    return { world, left: error("across"), up: error("height") };
  });

/**
 * A car that is repaired its own way before such a board: its aim foretold and learned.
 *
 * @param unseen how far the board was pushed to the left since, mm, of which nobody knows
 */
function car(
  from: ReturnType<typeof boards>[number],
  n: number,
  withGlass: boolean,
  unseen = 0,
): AimFit {
  const random = randomFrom(5000 + n);
  const own = openBay(`aim-${n}`, plan);
  const [left, up] = [SPREAD.left * gaussian(random), SPREAD.up * gaussian(random)];
  const { stand } = from.world;
  const base = { ...stand.base, yMm: stand.base.yMm + left + unseen };
  const stance = stanceNow(own, false);
  const world = {
    ...from.world,
    stance,
    seed: own.seed,
    cameraRad: own.cameraRad,
    stand: { ...stand, base, mastMm: stand.mastMm + up },
  };
  const verdict = withGlass ? glassSeatOf(plan.vehicle, depthsOf(world, random)) : null;
  const foretold = foretellAim(
    verdict && { seat: verdict.seat, rakeRad },
    [
      boardBias(
        rangeMm,
        { mm: from.left, sigma: SPREAD.left },
        { mm: from.up, sigma: SPREAD.up },
        { rad: 0, sigma: UNREAD_ROLL },
      ),
    ],
    stanceBias(rangeMm, 0, withGlass ? archesOf(own, n) : UNREAD_STANCE),
  );
  const r = learnForwardCamera(world, "look");
  const learned = [r.learnedYawDeg, r.learnedPitchDeg, r.learnedRollDeg].map((deg) =>
    degToRad(deg!),
  );
  return fitOfAim(learned as [number, number, number], foretold);
}

describe("the aim a camera is going to learn", () => {
  it.each([false, true])(
    "is what it learns, as often as it says (glass measured: %s)",
    (withGlass) => {
      const stood = boards();
      const cars = Array.from({ length: 1500 }, (_, n) =>
        car(stood[n % stood.length]!, n, withGlass),
      );
      const share = (inside: (fit: AimFit) => boolean): number =>
        cars.filter(inside).length / cars.length;
      for (const axis of [0, 1] as const) {
        expect(share((f) => Math.abs(f.w[axis]) < 1.96)).toBeGreaterThan(0.93);
        expect(share((f) => Math.abs(f.w[axis]) < 1.96)).toBeLessThan(0.975);
      }
      // All cars before a board share how it hangs: roll is only seen not to be held too narrow.
      expect(share((f) => Math.abs(f.w[2]) < 1.96)).toBeGreaterThan(0.93);
      expect(share((f) => f.p > 0.05)).toBeGreaterThan(0.93);
      expect(share((f) => f.p > 0.05)).toBeLessThan(0.99);
    },
  );

  it("does not go with a board that was pushed a hand’s breadth since, nor with a glass that lies askew", () => {
    const stood = boards();
    const atOdds = (unseen: number): number =>
      Array.from({ length: 300 }, (_, n) => car(stood[n % stood.length]!, n, true, unseen)).filter(
        (f) => f.p < 0.001,
      ).length;
    expect(atOdds(0)).toBeLessThan(3);
    expect(atOdds(100)).toBeGreaterThan(200);
    const flat = foretellAim(null, []);
    const askew = glassSeatOf(plan.vehicle, {
      "top-left": 5,
      "top-right": 5,
      "bottom-left": 0,
      "bottom-right": 0,
    })!;
    const { mean, covariance } = foretellAim({ seat: askew.seat, rakeRad }, []);
    expect(askew.inside).toBe(false);
    expect(mean[1]).toBeGreaterThan(0.8 * askew.seat.pitchRad.value);
    expect(covariance[1][1]).toBeLessThan(flat.covariance[1][1]);
    expect(fitOfAim([0, 0, 0], { mean, covariance }).p).toBeLessThan(fitOfAim([0, 0, 0], flat).p);
  });

  it("follows a board that is pushed, cranked up or tipped, each by what it was moved, in the simulated bay", () => {
    const world = openBay("signs", plan);
    const { stand } = world;
    const learn = (moved: Partial<BenchWorld["stand"]>) =>
      learnForwardCamera({ ...world, stand: { ...stand, ...moved } }, "look");
    const from = learn({});
    const sure = { mm: 0, sigma: 1 };
    const level = { rad: 0, sigma: 1e-3 };
    const pushed = learn({ base: { ...stand.base, yMm: stand.base.yMm + 20 } });
    const [yaw] = boardBias(rangeMm, { mm: 20, sigma: 1 }, sure, level).mean;
    expect(degToRad(pushed.learnedYawDeg! - from.learnedYawDeg!)).toBeCloseTo(yaw, 3);
    const cranked = learn({ mastMm: stand.mastMm + 20 });
    const [, pitch] = boardBias(rangeMm, sure, { mm: 20, sigma: 1 }, level).mean;
    expect(degToRad(cranked.learnedPitchDeg! - from.learnedPitchDeg!)).toBeCloseTo(pitch, 3);
    const feetMm = stand.feetMm.map((f, i) => f + 4 * Math.sign(plan.stand.feet[i]!.yMm));
    const tipped = learn({ feetMm });
    const rolled =
      boardOf(plan.stand, { ...stand, feetMm }).rollRad - boardOf(plan.stand, stand).rollRad;
    const [, , roll] = boardBias(rangeMm, sure, sure, { rad: rolled, sigma: 1e-3 }).mean;
    expect(degToRad(tipped.learnedRollDeg! - from.learnedRollDeg!)).toBeCloseTo(roll, 3);
    expect(Math.abs(roll)).toBeGreaterThan(0.005);
  });

  it("goes with the body it hangs on: nose up, left side up and lifted, each as the simulated bay has it", () => {
    const world = openBay("stance", plan);
    const still = { heaveMm: 0, pitchRad: 0, rollRad: 0 };
    const learn = (stance: Partial<typeof still>) =>
      learnForwardCamera({ ...world, stance: { ...still, ...stance } }, "look");
    const sure = { value: 0, sigma: 0 };
    const body = (s: Partial<BodyStance>): BodyStance => ({
      pitchRad: sure,
      rollRad: sure,
      riseMm: sure,
      ...s,
    });
    const known = (value: number) => ({ value, sigma: 0 });
    const from = learn({});
    for (const [moved, stands] of [
      [learn({ rollRad: 0.006 }), body({ rollRad: known(0.006) })],
      [learn({ heaveMm: 25 }), body({ riseMm: known(25) })],
      [
        learn({ pitchRad: 0.006 }),
        body({
          pitchRad: known(0.006),
          riseMm: known(0.006 * (plan.vehicle.camera.xMm - plan.vehicle.wheelbaseMm / 2)),
        }),
      ],
    ] as const) {
      const [, pitch, roll] = stanceBias(rangeMm, 0, stands).mean;
      expect(degToRad(moved.learnedPitchDeg! - from.learnedPitchDeg!)).toBeCloseTo(pitch, 3);
      expect(degToRad(moved.learnedRollDeg! - from.learnedRollDeg!)).toBeCloseTo(roll, 3);
      expect(Math.abs(pitch) + Math.abs(roll)).toBeGreaterThan(0.004);
    }
    // To the rear and to the side the same body turns a camera otherwise.
    const nose = body({ pitchRad: known(0.01) });
    expect(stanceBias(3000, Math.PI, nose).mean[1]).toBeCloseTo(0.01, 9);
    expect(stanceBias(3000, Math.PI / 2, nose).mean[2]).toBeCloseTo(-0.01, 9);
  });

  it("is turned right by a board too far left, down by one too high", () => {
    const none = { mm: 0, sigma: 1 };
    const flat = { rad: 0, sigma: 0.001 };
    const { mean } = foretellAim(null, [
      boardBias(3000, { mm: 30, sigma: 2 }, none, flat),
      boardBias(3000, none, { mm: 60, sigma: 2 }, flat),
    ]);
    // The mean of both looks: half of 30 / 3000 to the right, half of 60 / 3000 down.
    expect(mean.map((v) => v + 0)).toEqual([-0.005, 0.01, 0]);
  });
});
