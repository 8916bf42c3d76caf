import { describe, expect, it } from "vitest";
import { gaussian, randomFrom, type Random } from "@/core/math/random";
import type { Target } from "@/core/sheet";
import { STANDS } from "@/demo/data/kit";
import { RADARS } from "@/demo/data/radar";
import { VEHICLES } from "@/demo/data/vehicles";
import { vehiclePoints } from "@/core/vehicle";
import { JOINT_95, mahalanobis } from "@/tests/coverage";
import { planOf } from "@/tests/fixtures";
import { aim } from "./aim";
import { NOWHERE } from "./displace";
import { estimate } from "./estimate";
import { disturb, epochNow, moveVehicle, newHistory, rollIn, ROLLED_IN } from "./history";
import { datumFrame, nominalTarget, type SetOutPlan } from "./plan";
import { carrierPoints, slotsFor } from "./slots";
import { TOUCHES, type TouchKind } from "./touch";

const BOARD = planOf(0, 0);
const { targets } = RADARS[0]!.setups[0]!;
/** A reflector on its small stand, squared to the rear axle. */
const REFLECTOR: SetOutPlan = {
  ...BOARD,
  vehicle: VEHICLES.find((v) => v.id === "brannoch-fell")!,
  target: targets[0]!,
  stand: STANDS.find((s) => s.id === "S-4")!,
};
const SIGMA = { tape: 2.3, laser: 1.9 };

type Point = { x: number; y: number };
type Pose = Point & { heading: number };
type Car = Record<"FL" | "FR" | "RL" | "RR" | "badgeF" | "badgeR", Point>;

/** This very vehicle: every hub and badge where it truly is. */
function car({ vehicle }: SetOutPlan, random: Random): Car {
  const axle = 1.2 * gaussian(random);
  const caps = { F: 1.5 * gaussian(random), R: 1.5 * gaussian(random) };
  const of = Object.fromEntries(
    vehiclePoints(vehicle).map((p) => {
      const hub = /^hub([FR])([LR])/.exec(p.id);
      const out = hub ? caps[hub[1] as "F" | "R"] * (hub[2] === "L" ? 1 : -1) : 0;
      return [
        p.id.replace("hub", ""),
        {
          x: p.xMm + (hub?.[1] === "F" ? axle : 0) + p.sigmaMm * gaussian(random),
          y: p.yMm + out + p.sigmaMm * gaussian(random),
        },
      ];
    }),
  );
  return of as Car;
}

/** Along, across and twist of the board by plain plane geometry, not by core's. */
function truly(c: Car, b: Pose, { placement, datum }: Target): [number, number, number] {
  // Badge to badge, or a quarter turn off the rear axle through its middle.
  const [origin, way] =
    datum === "centreline"
      ? [c.badgeR, Math.atan2(c.badgeF.y - c.badgeR.y, c.badgeF.x - c.badgeR.x)]
      : [
          { x: (c.RL.x + c.RR.x) / 2, y: (c.RL.y + c.RR.y) / 2 },
          Math.atan2(c.RL.y - c.RR.y, c.RL.x - c.RR.x) - Math.PI / 2,
        ];
  const hubs = { x: (c.FL.x + c.FR.x) / 2, y: (c.FL.y + c.FR.y) / 2 };
  const far = Math.hypot(b.x - hubs.x, b.y - hubs.y);
  const along = far * Math.cos(Math.atan2(b.y - hubs.y, b.x - hubs.x) - way);
  const reach = Math.hypot(b.x - origin.x, b.y - origin.y);
  const across = reach * Math.sin(Math.atan2(b.y - origin.y, b.x - origin.x) - way);
  const twist = b.heading - way - Math.PI;
  return [
    along - placement.alongMm,
    across - placement.acrossMm,
    Math.atan2(Math.sin(twist), Math.cos(twist)),
  ];
}

/** What an exact tape or laser shows, in space. */
function shown({ stand, vehicle }: SetOutPlan, c: Car, b: Pose, slotId: string): number {
  const half = stand.beamHalfMm;
  if (slotId === "laser-badge") {
    const [dx, dy] = [c.badgeF.x - b.x, c.badgeF.y - b.y];
    // The board faces the car: what lies to its left is vehicle right.
    return Math.hypot(dx, dy) * Math.sin(Math.atan2(dy, dx) - b.heading);
  }
  const [, hub, end] = slotId.split("-") as [string, string, "l" | "r"];
  const at = c[hub.toUpperCase() as "FL"];
  const reach = end === "l" ? -half : half;
  const hook = { x: b.x - reach * Math.sin(b.heading), y: b.y + reach * Math.cos(b.heading) };
  const rise = stand.hookHeightMm - vehicle.hubHeightMm;
  return Math.sqrt((hook.x - at.x) ** 2 + (hook.y - at.y) ** 2 + rise ** 2);
}

const READ = ["tape-fl-l", "tape-fr-r", "tape-fl-r", "laser-badge", "tape-fr-l"];
/** Two of each: enough after a disturbance, with what was known before. */
const AGAIN = ["laser-badge", "tape-fl-l", "tape-fr-r"];

/** What is set out: one board, or two beside each other, each on a carrier of its own. */
const ONE = [BOARD];
const TWO = [-700, 700].map((acrossMm) => ({
  ...BOARD,
  target: { ...BOARD.target, placement: { ...BOARD.target.placement, acrossMm } },
}));

/** A disturbance: of one carrier, or of the vehicle and so of all. */
type Disturbance = { touch: TouchKind; carrier: number };

type Run = { inside: boolean[]; joint: boolean };

/** Boards through so many disturbances, drawn as the model says they are. */
function run(
  seed: number,
  plans: readonly SetOutPlan[],
  disturbances: readonly Disturbance[],
): Run {
  const random = randomFrom(seed);
  const [plan] = plans as [SetOutPlan];
  const frame = datumFrame(plan);
  const c = car(plan, random);
  const scale = 3e-4 * gaussian(random);
  const h = newHistory();
  const slots = plans.map((p) => new Map(slotsFor(p).map((s) => [s.id, s])));
  const boards = plans.map((p, i): Pose => {
    const nominal = nominalTarget(p);
    rollIn(h, `c${i}`, nominal, carrierPoints(p));
    // Nobody rolls a stand in by 300 mm; a tenth of that prior is what hands do.
    return {
      x: nominal.xMm + 0.1 * ROLLED_IN.planMm * gaussian(random),
      y: nominal.yMm + 0.1 * ROLLED_IN.planMm * gaussian(random),
      heading: nominal.headingRad + 0.1 * ROLLED_IN.headingRad * gaussian(random),
    };
  });
  const read = (i: number, ids: readonly string[]): void => {
    for (const id of ids) {
      const slot = slots[i]!.get(id)!;
      const sigma = id === "laser-badge" ? SIGMA.laser : SIGMA.tape;
      const { body } = epochNow(h, `c${i}`);
      const taped = id === "laser-badge" ? 1 : 1 + scale;
      const value = taped * shown(plan, c, boards[i]!, id) + sigma * gaussian(random);
      const name = `r${h.readings.length}`;
      h.readings.push({ id: name, target: `t${i}`, body, slot, shown: value, sigma });
    }
  };
  boards.forEach((_, i) => read(i, READ));
  for (const { touch, carrier } of disturbances) {
    const w = TOUCHES[touch].widening;
    const off = [
      w.planMm * gaussian(random),
      w.planMm * gaussian(random),
      w.headingRad * gaussian(random),
    ] as const;
    if (touch === "moved-car") {
      moveVehicle(h, w);
      boards.forEach((b, i) => {
        // The bay stays; in the car's new axes every board has gone the other way.
        const [x, y] = [b.x - off[0], b.y - off[1]];
        const far = Math.hypot(x, y);
        const way = Math.atan2(y, x) - off[2];
        boards[i] = { x: far * Math.cos(way), y: far * Math.sin(way), heading: b.heading - off[2] };
      });
      // One board is read anew; what is known of the motion carries the other along.
      read(carrier, READ);
    } else {
      disturb(h, `c${carrier}`, w, NOWHERE);
      const b = boards[carrier]!;
      boards[carrier] = { x: b.x + off[0], y: b.y + off[1], heading: b.heading + off[2] };
      read(carrier, AGAIN);
    }
  }
  const { adjustment } = estimate(h, plan.vehicle);
  const { covariance, order } = adjustment!.joint;
  const aims = plans.map((p, i) => aim(adjustment!, p.target, frame, epochNow(h, `c${i}`).body));
  const rows = aims.flatMap((a) => a.jacobian);
  const sigma = rows.map((p) =>
    rows.map((q) => {
      let sum = 0;
      for (let i = 0; i < order; i++)
        if (p[i] !== 0)
          for (let k = 0; k < order; k++) sum += p[i]! * covariance[i * order + k]! * q[k]!;
      return sum;
    }),
  );
  const d = aims.flatMap((a, i) => {
    const t = truly(c, boards[i]!, plans[i]!.target);
    return [a.alongMm - t[0], a.acrossMm - t[1], a.twistRad - t[2]];
  });
  const inside = d.map((v, i) => Math.abs(v) < 1.96 * Math.sqrt(sigma[i]![i]!));
  if (plans.length === 2) {
    // How far apart they stand: a relation of both, known better than either place.
    const variance = sigma[1]![1]! + sigma[4]![4]! - 2 * sigma[1]![4]!;
    inside.push(Math.abs(d[4]! - d[1]!) < 1.96 * Math.sqrt(variance));
  }
  return { inside, joint: mahalanobis(sigma, d) < JOINT_95[d.length]! };
}

/** Shares of 2,000 runs in which each quantity, and all together, hold the truth. */
function shares(plans: readonly SetOutPlan[], disturbances: readonly Disturbance[], seed: number) {
  const runs = Array.from({ length: 2000 }, (_, n) => run(seed + n, plans, disturbances));
  const share = (of: (r: Run) => boolean): number => runs.filter(of).length / runs.length;
  return [...runs[0]!.inside.map((_, i) => share((r) => r.inside[i]!)), share((r) => r.joint)];
}

describe("the estimate after disturbances", () => {
  const kinds: TouchKind[] = ["hung", "cranked", "knocked", "moved-car"];
  it.each([1, 4, 8])(
    "covers each quantity, and all three together, as often as it says: 2,000 set-ups after %d",
    (count) => {
      const touches = Array.from({ length: count }, (_, i) => ({
        touch: kinds[i % kinds.length]!,
        carrier: 0,
      }));
      for (const share of shares(ONE, touches, 1_000_000 * count)) {
        expect(share).toBeGreaterThan(0.93);
        expect(share).toBeLessThan(0.97);
      }
    },
  );
  it("covers a reflector before its radar the same way: 2,000 set-ups after a knock", () => {
    for (const share of shares([REFLECTOR], [{ touch: "knocked", carrier: 0 }], 45_000_000)) {
      expect(share).toBeGreaterThan(0.93);
      expect(share).toBeLessThan(0.97);
    }
  });
  it.each([
    ["one of them touched", [{ touch: "knocked", carrier: 0 }]],
    ["the vehicle moved, and one of them read anew", [{ touch: "moved-car", carrier: 1 }]],
    [
      "both touched and the vehicle moved in between",
      [
        { touch: "hung", carrier: 0 },
        { touch: "moved-car", carrier: 0 },
        { touch: "cranked", carrier: 1 },
        { touch: "hung", carrier: 0 },
      ],
    ],
  ] as [string, Disturbance[]][])(
    "covers two targets that share a vehicle, their spacing and all six together: %s",
    (_, disturbances) => {
      for (const share of shares(TWO, disturbances, 77_000_000)) {
        expect(share).toBeGreaterThan(0.93);
        expect(share).toBeLessThan(0.97);
      }
    },
  );
});
