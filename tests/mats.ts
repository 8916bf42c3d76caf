import { DEFAULT_THRESHOLDS, HANDS, type SetOutPlan } from "@/core/setout";
import type { Target } from "@/core/sheet";
import { INSTRUMENTS } from "@/demo/data/kit";
import { SURROUND } from "@/demo/data/surround";
import { VEHICLES } from "@/demo/data/vehicles";
import type { MatBody } from "@/devices/bench/mat-sim";

/** The demo's two mats, on the vehicle their sheet is for. */
export const MATS = SURROUND.setups[0]!;

/** How one of them is set out with the demo's instruments. */
export const matPlan = (target: Target): SetOutPlan => ({
  vehicle: VEHICLES.find((v) => v.id === "brannoch-tarn")!,
  target,
  setup: MATS,
  stand: HANDS,
  instruments: INSTRUMENTS,
  rearToe: null,
  thresholds: DEFAULT_THRESHOLDS,
});

type Place = { id: string; xMm: number; yMm: number };

/**
 * Where two mats, left and right, truly lie by plain vectors, not by core's: mm from the front hubs'
 * line, mm from the middle of the rear axle, rad from the car's way; then how far apart, how much
 * farther the left one from its hubs, how far open ahead.
 */
export function trueMats(points: readonly Place[], mats: readonly MatBody[]) {
  const at = (id: string): [number, number] => {
    const p = points.find((q) => q.id === id)!;
    return [p.xMm, p.yMm];
  };
  const middle = (a: string, b: string): [number, number] => [
    (at(a)[0] + at(b)[0]) / 2,
    (at(a)[1] + at(b)[1]) / 2,
  ];
  const [rl, rr] = [at("hubRL"), at("hubRR")];
  const axle = Math.hypot(rl[0] - rr[0], rl[1] - rr[1]);
  const left = [(rl[0] - rr[0]) / axle, (rl[1] - rr[1]) / axle] as const;
  const ahead = [left[1], -left[0]] as const;
  const dot = (v: readonly [number, number], p: readonly [number, number]): number =>
    v[0] * p[0] + v[1] * p[1];
  const front = dot(ahead, middle("hubFL", "hubFR"));
  const rear = dot(left, middle("hubRL", "hubRR"));
  const each = mats.map((m) => ({
    along: dot(ahead, m.at) - front,
    across: dot(left, m.at) - rear,
    twist: Math.atan2(m.way[1], m.way[0]) - Math.atan2(ahead[1], ahead[0]),
  }));
  const [l, r] = mats.map((m) => dot(left, m.at)) as [number, number];
  const hubs = (a: string, b: string): number => dot(left, middle(a, b));
  return {
    each,
    apart: l - r,
    even: l - hubs("hubFL", "hubRL") - (hubs("hubFR", "hubRR") - r),
    open: each[0]!.twist - each[1]!.twist,
  };
}
