import { describe, expect, it } from "vitest";
import { gaussian, randomFrom, type Random } from "@/core/math/random";
import { vehiclePoints } from "@/core/vehicle";
import { layDown, matReading, seenFrom, shoved, type MatBody } from "@/devices/bench/mat-sim";
import { shapeOf } from "@/devices/bench/world";
import { JOINT_95, mahalanobis } from "@/tests/coverage";
import { MATS as setup, matPlan, trueMats } from "@/tests/mats";
import { aim } from "./aim";
import { NOWHERE } from "./displace";
import { estimate } from "./estimate";
import { disturb, epochNow, moveVehicle, newHistory, rollIn, ROLLED_IN } from "./history";
import { datumFrame, nominalTarget } from "./plan";
import { relationErrors } from "./relations";
import { carrierPoints, slotsFor } from "./slots";
import { TOUCHES } from "./touch";

const PLANS = setup.targets.map(matPlan);
const { vehicle } = PLANS[0]!;
const SLOTS = PLANS.map((p) => new Map(slotsFor(p).map((s) => [s.id, s])));
const FRAME = datumFrame(PLANS[0]!);
const SIGMA = 1.6;

/** The truth in the order it is judged: each mat's along, across and heading, then what both are. */
function truly(points: Parameters<typeof trueMats>[0], mats: readonly MatBody[]): number[] {
  const { each, apart, open, even } = trueMats(points, mats);
  return [
    ...each.flatMap((m, i) => [m.along, m.across - setup.targets[i]!.placement.acrossMm, m.twist]),
    apart - 3000,
    open,
    even,
  ];
}

/** What happens: one mat is stepped on, or the car is moved. */
type Act = 0 | 1 | "car";

const OWN = ["mat-beside-front", "mat-beside-rear", "mat-abeam", "mat-rear-front"];
/** What is read again of a mat that was stepped on; of both when the car was moved. */
const AGAIN = ["mat-beside-front", "mat-beside-rear", "mat-abeam"];
const BETWEEN = ["mat-apart-front", "mat-apart-rear"];

function lay(random: Random, i: number): MatBody {
  const n = nominalTarget(PLANS[i]!);
  return layDown(
    n.xMm + 0.1 * ROLLED_IN.planMm * gaussian(random),
    n.yMm + 0.1 * ROLLED_IN.planMm * gaussian(random),
    n.headingRad + 0.05 * ROLLED_IN.headingRad * gaussian(random),
  );
}

/** Both mats through so much, drawn as the model says; which of what is known holds the truth. */
function run(seed: number, acts: readonly Act[]): { inside: boolean[]; joint: boolean } {
  const random = randomFrom(seed);
  const points = vehiclePoints(vehicle).map((p) => ({
    id: p.id,
    xMm: p.xMm + p.sigmaMm * gaussian(random),
    yMm: p.yMm + p.sigmaMm * gaussian(random),
    zMm: p.zMm,
  }));
  const hub = (id: string) => points.find((p) => p.id === id)!;
  let mats = PLANS.map((_, i) => lay(random, i));
  const h = newHistory();
  PLANS.forEach((p, i) => rollIn(h, `m${i}`, nominalTarget(p), carrierPoints(p)));
  const read = (i: number, ids: readonly string[]): void => {
    for (const id of ids) {
      const other = 1 - i;
      const mate = { body: mats[other]!, shape: shapeOf(PLANS[other]!.target) };
      const truth = matReading(id, mats[i]!, shapeOf(PLANS[i]!.target), hub, mate);
      const slot = SLOTS[i]!.get(id)!;
      h.readings.push({
        id: `r${h.readings.length}`,
        target: `t${i}`,
        body: epochNow(h, `m${i}`).body,
        ...(slot.mate ? { mate: { target: "t", body: epochNow(h, `m${other}`).body } } : {}),
        slot,
        shown: truth + SIGMA * gaussian(random),
        sigma: SIGMA,
      });
    }
  };
  read(0, OWN);
  read(1, OWN);
  read(0, BETWEEN);
  for (const act of acts) {
    const w = TOUCHES[act === "car" ? "moved-car" : "knocked"].widening;
    const [x, y] = [w.planMm * gaussian(random), w.planMm * gaussian(random)];
    const turn = w.headingRad * gaussian(random);
    if (act === "car") {
      moveVehicle(h, w);
      mats = mats.map((m) => seenFrom(m, x, y, turn));
      // One of them is read anew: the motion it tells carries the other along.
      read(0, AGAIN);
    } else {
      disturb(h, `m${act}`, w, NOWHERE);
      mats = mats.map((m, i) => (i === act ? shoved(m, x, y, turn) : m));
      read(act, AGAIN);
    }
  }
  const { adjustment } = estimate(h, vehicle);
  const { covariance, order } = adjustment!.joint;
  const body = (i: number): string => epochNow(h, `m${i}`).body;
  const aims = PLANS.map((p, i) => aim(adjustment!, p.target, FRAME, body(i)));
  const relations = relationErrors(adjustment!, FRAME, setup, setup.targets[0]!, (id) =>
    body(setup.targets.findIndex((t) => t.id === id)),
  );
  const rows = [...aims.flatMap((a) => a.jacobian), ...relations.map((r) => r.jacobian)];
  const covarianceOf = (p: Float64Array, q: Float64Array): number => {
    let sum = 0;
    for (let i = 0; i < order; i++)
      if (p[i] !== 0)
        for (let k = 0; k < order; k++) sum += p[i]! * covariance[i * order + k]! * q[k]!;
    return sum;
  };
  const said = [
    ...aims.flatMap((a) => [a.alongMm, a.acrossMm, a.twistRad]),
    ...relations.map((r) => r.error),
  ];
  const off = truly(points, mats).map((t, i) => said[i]! - t);
  // Two places say all: spacing and the rest hang on them, so the region is drawn in those six.
  const six = rows.slice(0, 6).map((p) => rows.slice(0, 6).map((q) => covarianceOf(p, q)));
  return {
    inside: off.map((d, i) => Math.abs(d) < 1.96 * Math.sqrt(covarianceOf(rows[i]!, rows[i]!))),
    joint: mahalanobis(six, off.slice(0, 6)) < JOINT_95[6]!,
  };
}

describe("both mats of a surround view", () => {
  it.each([
    ["one touch", [0]],
    ["four touches", [0, 1, 1, 0]],
    ["eight touches", [0, 1, 0, 1, 1, 0, 0, 1]],
    ["the car moved, and one mat read anew", [1, "car"]],
  ] as [string, Act[]][])(
    "hold the truth as often as they say, each figure, each relation and all of it: 2,000 pairs, %s",
    (_, acts) => {
      const runs = Array.from({ length: 2000 }, (_, n) => run(51_000_000 + n, acts));
      const share = (of: (r: (typeof runs)[number]) => boolean): number =>
        runs.filter(of).length / runs.length;
      const shares = [
        ...runs[0]!.inside.map((_, i) => share((r) => r.inside[i]!)),
        share((r) => r.joint),
      ];
      expect(shares).toHaveLength(10);
      for (const s of shares) {
        expect(s).toBeGreaterThan(0.93);
        expect(s).toBeLessThan(0.97);
      }
    },
  );
});
