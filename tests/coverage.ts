import { wrapAngle } from "@/core/math/linear";
import { datumFrame, datumLine, type SetOutSolution } from "@/core/setout";
import { targetPose } from "@/core/setout/plan";
import { boardOf } from "@/devices/bench/stand-sim";
import type { BenchWorld } from "@/devices/bench/world";

/** Chi-square quantiles at 95 % of three and of six degrees of freedom. */
export const JOINT_95: Record<number, number> = { 3: 7.8147, 6: 12.5916 };

/** d' Sigma^-1 d by Gaussian elimination with pivoting, apart from the code under test. */
export function mahalanobis(sigma: readonly (readonly number[])[], d: readonly number[]): number {
  const n = d.length;
  // Angles and millimetres are brought to one size first.
  const size = sigma.map((row, i) => Math.sqrt(row[i]!));
  const m = sigma.map((row, i) => [
    ...row.map((v, j) => v / (size[i]! * size[j]!)),
    d[i]! / size[i]!,
  ]);
  for (let k = 0; k < n; k++) {
    const best = m
      .slice(k)
      .reduce((b, row, i, all) => (Math.abs(row[k]!) > Math.abs(all[b]![k]!) ? i : b), 0);
    [m[k], m[k + best]] = [m[k + best]!, m[k]!];
    for (let i = k + 1; i < n; i++) {
      const f = m[i]![k]! / m[k]![k]!;
      for (let j = k; j <= n; j++) m[i]![j]! -= f * m[k]![j]!;
    }
  }
  const z = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--)
    z[i] = (m[i]![n]! - z.reduce((s, v, j) => s + v * m[i]![j]!, 0)) / m[i]![i]!;
  return d.reduce((s, v, i) => s + (v / size[i]!) * z[i]!, 0);
}

/** Where a board truly stands beside where it belongs: along, across (mm) and twist (rad). */
export function trueError({ plan, points, stand, toe }: BenchWorld): [number, number, number] {
  const line = datumLine(datumFrame({ ...plan, rearToe: toe }), points);
  const wanted = targetPose(plan.target, line);
  const board = boardOf(plan.stand, stand).pose;
  const [c, n] = [Math.cos(line.headingRad), Math.sin(line.headingRad)];
  const [dx, dy] = [board.xMm - wanted.xMm, board.yMm - wanted.yMm];
  const turn = wrapAngle(board.headingRad - wanted.headingRad);
  return [c * dx + n * dy, -n * dx + c * dy, turn];
}

/** Squared Mahalanobis distance of the aim from the truth: how far off, by its own uncertainty. */
export function offBy(world: BenchWorld, { aim }: SetOutSolution): number {
  const truth = trueError(world);
  const off = [aim!.alongMm, aim!.acrossMm, aim!.twistRad].map((v, i) => v - truth[i]!);
  return mahalanobis(aim!.covariance, off);
}
