import { describe, expect, it } from "vitest";
import { gaussian, randomFrom, type Random } from "@/core/math/random";
import { vehiclePoints } from "@/core/vehicle";
import { planOf } from "@/tests/fixtures";
import { aim } from "./aim";
import { NOWHERE } from "./displace";
import { estimate } from "./estimate";
import { disturb, epochNow, moveVehicle, newHistory, rollIn, ROLLED_IN } from "./history";
import { datumFrame, nominalTarget } from "./plan";
import { slotsFor, standPoints } from "./slots";
import { TOUCHES, type TouchKind } from "./touch";

const plan = planOf(0, 0);
const frame = datumFrame(plan);
const slots = new Map(slotsFor(plan).map((s) => [s.id, s]));
const SIGMA = { tape: 2.3, laser: 1.9 };

type Point = { x: number; y: number };
type Pose = Point & { heading: number };
type Car = Record<"FL" | "FR" | "RL" | "RR" | "badgeF" | "badgeR", Point>;

/** This very vehicle: every hub and badge where it truly is. */
function car(random: Random): Car {
  const of = Object.fromEntries(
    vehiclePoints(plan.vehicle).map((p) => [
      p.id.replace("hub", ""),
      { x: p.xMm + p.sigmaMm * gaussian(random), y: p.yMm + p.sigmaMm * gaussian(random) },
    ]),
  );
  return of as Car;
}

/** Along, across and twist of the board by plain plane geometry, not by core's. */
function truly(c: Car, b: Pose): [number, number, number] {
  const way = Math.atan2(c.badgeF.y - c.badgeR.y, c.badgeF.x - c.badgeR.x);
  const hubs = { x: (c.FL.x + c.FR.x) / 2, y: (c.FL.y + c.FR.y) / 2 };
  const far = Math.hypot(b.x - hubs.x, b.y - hubs.y);
  const along = far * Math.cos(Math.atan2(b.y - hubs.y, b.x - hubs.x) - way);
  const reach = Math.hypot(b.x - c.badgeR.x, b.y - c.badgeR.y);
  const across = reach * Math.sin(Math.atan2(b.y - c.badgeR.y, b.x - c.badgeR.x) - way);
  const twist = b.heading - way - Math.PI;
  const { placement } = plan.target;
  return [
    along - placement.alongMm,
    across - placement.acrossMm,
    Math.atan2(Math.sin(twist), Math.cos(twist)),
  ];
}

/** What an exact tape or laser shows, in space. */
function shown(c: Car, b: Pose, slotId: string): number {
  const half = plan.stand.beamHalfMm;
  if (slotId === "laser-badge") {
    const [dx, dy] = [c.badgeF.x - b.x, c.badgeF.y - b.y];
    // The board faces the car: what lies to its left is vehicle right.
    return Math.hypot(dx, dy) * Math.sin(Math.atan2(dy, dx) - b.heading);
  }
  const [, hub, end] = slotId.split("-") as [string, string, "l" | "r"];
  const at = c[hub.toUpperCase() as "FL"];
  const reach = end === "l" ? -half : half;
  const hook = { x: b.x - reach * Math.sin(b.heading), y: b.y + reach * Math.cos(b.heading) };
  const rise = plan.stand.hookHeightMm - plan.vehicle.hubHeightMm;
  return Math.sqrt((hook.x - at.x) ** 2 + (hook.y - at.y) ** 2 + rise ** 2);
}

const READ = ["tape-fl-l", "tape-fr-r", "tape-fl-r", "laser-badge", "tape-fr-l"];
/** Two of each: enough after a disturbance, with what was known before. */
const AGAIN = ["laser-badge", "tape-fl-l", "tape-fr-r"];

/** Chi-square quantile at 95 % of three degrees of freedom. */
const JOINT_95 = 7.8147;

/** Solves Sigma z = d by Cramer's rule, apart from the code under test; d' z. */
function mahalanobis(m: number[][], d: readonly number[]): number {
  const det = (a: number[][]): number =>
    a[0]![0]! * (a[1]![1]! * a[2]![2]! - a[1]![2]! * a[2]![1]!) -
    a[0]![1]! * (a[1]![0]! * a[2]![2]! - a[1]![2]! * a[2]![0]!) +
    a[0]![2]! * (a[1]![0]! * a[2]![1]! - a[1]![1]! * a[2]![0]!);
  const whole = det(m);
  const z = [0, 1, 2].map(
    (k) => det(m.map((row, i) => row.map((v, j) => (j === k ? d[i]! : v)))) / whole,
  );
  return d.reduce((s, v, i) => s + v * z[i]!, 0);
}

/** One board through so many disturbances, drawn as the model says they are. */
function run(seed: number, touches: readonly TouchKind[]): { inside: boolean[]; joint: boolean } {
  const random = randomFrom(seed);
  const c = car(random);
  const nominal = nominalTarget(plan);
  // Nobody rolls a stand in by 300 mm; a tenth of that prior is what hands do.
  let b: Pose = {
    x: nominal.xMm + 0.1 * ROLLED_IN.planMm * gaussian(random),
    y: nominal.yMm + 0.1 * ROLLED_IN.planMm * gaussian(random),
    heading: nominal.headingRad + 0.1 * ROLLED_IN.headingRad * gaussian(random),
  };
  const h = newHistory();
  rollIn(h, "stand", nominal, standPoints(plan));
  let n = 0;
  const read = (ids: readonly string[]): void => {
    for (const id of ids) {
      const slot = slots.get(id)!;
      const sigma = id === "laser-badge" ? SIGMA.laser : SIGMA.tape;
      const { body } = epochNow(h, "stand");
      const value = shown(c, b, id) + sigma * gaussian(random);
      h.readings.push({ id: `r${n++}`, target: "board", body, slot, shown: value, sigma });
    }
  };
  read(READ);
  for (const touch of touches) {
    const w = TOUCHES[touch].widening;
    const off = [
      w.planMm * gaussian(random),
      w.planMm * gaussian(random),
      w.headingRad * gaussian(random),
    ] as const;
    if (touch === "moved-car") {
      moveVehicle(h, w);
      // The bay stays; in the car's new axes the stand has gone the other way. Its own points go with it.
      const [x, y] = [b.x - off[0], b.y - off[1]];
      const far = Math.hypot(x, y);
      const way = Math.atan2(y, x) - off[2];
      b = { x: far * Math.cos(way), y: far * Math.sin(way), heading: b.heading - off[2] };
    } else {
      disturb(h, "stand", w, NOWHERE);
      b = { x: b.x + off[0], y: b.y + off[1], heading: b.heading + off[2] };
    }
    read(AGAIN);
  }
  const { adjustment } = estimate(h, plan.vehicle);
  const a = aim(adjustment!, plan.target, frame, epochNow(h, "stand").body);
  const t = truly(c, b);
  const d = [a.alongMm - t[0], a.acrossMm - t[1], a.twistRad - t[2]];
  return {
    inside: d.map((v, i) => Math.abs(v) < 1.96 * Math.sqrt(a.covariance[i]![i]!)),
    joint: mahalanobis(a.covariance, d) < JOINT_95,
  };
}

describe("the estimate after disturbances", () => {
  const kinds: TouchKind[] = ["hung", "cranked", "knocked", "moved-car"];
  it.each([1, 4, 8])(
    "covers each quantity, and all three together, as often as it says: 2,000 set-ups after %d",
    (count) => {
      const touches = Array.from({ length: count }, (_, i) => kinds[i % kinds.length]!);
      const hits = [0, 0, 0, 0];
      const runs = 2000;
      for (let n = 0; n < runs; n++) {
        const { inside, joint } = run(1_000 * count + n, touches);
        inside.forEach((hit, i) => (hits[i]! += Number(hit)));
        hits[3]! += Number(joint);
      }
      for (const [i, name] of ["along", "across", "twist", "all together"].entries()) {
        expect(hits[i]! / runs, name).toBeGreaterThan(0.93);
        expect(hits[i]! / runs, name).toBeLessThan(0.97);
      }
    },
  );
});
