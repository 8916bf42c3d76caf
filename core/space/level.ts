import { archPlace, CORNERS, type Vehicle } from "@/core/vehicle";
import type { Bay } from "./bay";
import type { Vec } from "./convex";
import { placed, type FloorRule, type Pose } from "./fit";
import { surfaceOf, type Surface } from "./surface";
import { adjustLevels, SurveyError } from "./survey";

/** What a sheet allows of the floor, and where it counts. */
export type FloorLimits = {
  slopeDeg: number;
  twistMm: number;
  /** Middles of the targets in the vehicle's frame: the floor under each may slope no more. */
  targets: readonly Vec[];
};

/** Heights are looked up so far apart, mm: a floor hardly bends between. */
const STEP_MM = 100;
/** A target and its stand rest on about so much floor either way, mm. */
const TARGET_HALF_MM = 400;

/** The surveyed floor of a bay; null where it was not surveyed, or what was read makes no floor. */
export function floorSurface({ floor }: Pick<Bay, "floor">): Surface | null {
  if (!floor) return null;
  try {
    return surfaceOf(adjustLevels(floor.spots, floor.setups));
  } catch (error) {
    // A survey that somebody is still at.
    if (error instanceof SurveyError) return null;
    throw error;
  }
}

export type FloorGrid = {
  heightAt: (xMm: number, yMm: number) => number;
  /**
   * By how much the height changes at the most over a millimetre, anywhere in a square about a place of
   * so many millimetres either way; and by how much beyond the mean slope of the whole floor.
   */
  changeNear: (xMm: number, yMm: number, eitherWayMm: number) => Change;
  /** The same anywhere at all. */
  steepestPerMm: number;
};
type Change = { perMm: number; bendsPerMm: number };

/** Maxima of squares, of squares of four of them, and so on up to one. */
type Pyramid = { nx: number; ny: number; perMm: Float64Array; bendsPerMm: Float64Array }[];

function pyramidOf(first: Pyramid[number]): Pyramid {
  const levels: Pyramid = [first];
  for (let below = first; below.nx > 1 || below.ny > 1; below = levels.at(-1)!) {
    const [nx, ny] = [Math.ceil(below.nx / 2), Math.ceil(below.ny / 2)];
    const [perMm, bendsPerMm] = [new Float64Array(nx * ny), new Float64Array(nx * ny)];
    for (let i = 0; i < below.nx; i++)
      for (let j = 0; j < below.ny; j++) {
        const [to, from] = [(i >> 1) * ny + (j >> 1), i * below.ny + j];
        perMm[to] = Math.max(perMm[to]!, below.perMm[from]!);
        bendsPerMm[to] = Math.max(bendsPerMm[to]!, below.bendsPerMm[from]!);
      }
    levels.push({ nx, ny, perMm, bendsPerMm });
  }
  return levels;
}

/** Heights of a bay's floor on a grid, so that they are had at once at any pose. */
export function floorGrid(bay: Pick<Bay, "outline">, surface: Surface): FloorGrid {
  const [xs, ys] = [bay.outline.map((c) => c[0]), bay.outline.map((c) => c[1])];
  const [x0, y0] = [Math.min(...xs), Math.min(...ys)];
  const nx = Math.ceil((Math.max(...xs) - x0) / STEP_MM) + 1;
  const ny = Math.ceil((Math.max(...ys) - y0) / STEP_MM) + 1;
  const heights = new Float64Array(nx * ny);
  for (let i = 0; i < nx; i++)
    for (let j = 0; j < ny; j++)
      heights[i * ny + j] = surface.heightAt(x0 + i * STEP_MM, y0 + j * STEP_MM);
  // Slopes along both sides of every square; between its corners the height goes straight.
  const cells = (nx - 1) * (ny - 1);
  const sides = (k: number): [number, number][] => {
    const [i, j] = [Math.floor(k / (ny - 1)), k % (ny - 1)];
    const [a, b, c, d] = [i * ny + j, (i + 1) * ny + j, i * ny + j + 1, (i + 1) * ny + j + 1].map(
      (n) => heights[n]! / STEP_MM,
    ) as [number, number, number, number];
    return [b - a, d - c].flatMap((x) => [c - a, d - b].map((y): [number, number] => [x, y]));
  };
  let [meanX, meanY] = [0, 0];
  for (let k = 0; k < cells; k++)
    for (const [x, y] of sides(k)) [meanX, meanY] = [meanX + x / cells / 4, meanY + y / cells / 4];
  const [perMm, bendsPerMm] = [new Float64Array(cells), new Float64Array(cells)];
  for (let k = 0; k < cells; k++)
    for (const [x, y] of sides(k)) {
      perMm[k] = Math.max(perMm[k]!, Math.hypot(x, y));
      bendsPerMm[k] = Math.max(bendsPerMm[k]!, Math.hypot(x - meanX, y - meanY));
    }
  const levels = pyramidOf({ nx: nx - 1, ny: ny - 1, perMm, bendsPerMm });
  // Beyond its edge the floor is taken to go on level across it: there the mean slope is a bend as well.
  const beyond = Math.hypot(meanX, meanY);
  const changeNear: FloorGrid["changeNear"] = (xMm, yMm, eitherWayMm) => {
    const inside = (v: number, n: number): number => Math.min(n - 1, Math.max(0, v));
    const level =
      levels[
        inside(Math.ceil(Math.log2(Math.max(1, (2 * eitherWayMm) / STEP_MM))), levels.length)
      ]!;
    const size = STEP_MM * 2 ** levels.indexOf(level);
    const span = (at: number, n: number): [number, number] => [
      inside(Math.floor((at - eitherWayMm) / size), n),
      inside(Math.floor((at + eitherWayMm) / size), n),
    ];
    const [x, y] = [xMm - x0, yMm - y0];
    const [[i0, i1], [j0, j1]] = [span(x, level.nx), span(y, level.ny)];
    const change: Change = { perMm: 0, bendsPerMm: 0 };
    for (let i = i0; i <= i1; i++)
      for (let j = j0; j <= j1; j++) {
        const k = i * level.ny + j;
        change.perMm = Math.max(change.perMm, level.perMm[k]!);
        change.bendsPerMm = Math.max(change.bendsPerMm, level.bendsPerMm[k]!);
      }
    const out =
      x < eitherWayMm ||
      y < eitherWayMm ||
      x + eitherWayMm > (nx - 1) * STEP_MM ||
      y + eitherWayMm > (ny - 1) * STEP_MM;
    if (out) change.bendsPerMm += beyond;
    return change;
  };
  const cell = (t: number, n: number): [number, number] => {
    const at = Math.min(n - 1, Math.max(0, t));
    const k = Math.min(n - 2, Math.floor(at));
    return [k, at - k];
  };
  return {
    changeNear,
    steepestPerMm: levels.at(-1)!.perMm[0]!,
    heightAt: (xMm, yMm) => {
      const [i, u] = cell((xMm - x0) / STEP_MM, nx);
      const [j, v] = cell((yMm - y0) / STEP_MM, ny);
      const h = (a: number, b: number): number => heights[a * ny + b]!;
      return (
        (1 - u) * ((1 - v) * h(i, j) + v * h(i, j + 1)) +
        u * ((1 - v) * h(i + 1, j) + v * h(i + 1, j + 1))
      );
    },
  };
}

const TO_DEG = 180 / Math.PI;

/** Slope ahead and to the left and twist of four tyres, and the steepest slope under a target. */
export type FloorThere = { aheadDeg: number; leftDeg: number; twistMm: number; targetDeg: number };

/**
 * The floor under a vehicle at a pose. Tyres stand at the corners of a rectangle or nearly so: slopes
 * are differences of the means of two, as in {@link fitFloor} for a rectangle.
 */
export function floorThere(
  grid: FloorGrid,
  v: Vehicle,
  targets: readonly Vec[],
  pose: Pose,
): FloorThere {
  const own = CORNERS.map((c) => archPlace(v, c));
  const tyres = placed(
    own.map((p): Vec => [p.xMm, p.yMm]),
    pose,
  );
  const height = Object.fromEntries(
    CORNERS.map((c, i) => [c, grid.heightAt(...tyres[i]!)]),
  ) as Record<(typeof CORNERS)[number], number>;
  const { FL, FR, RL, RR } = height;
  const lefts = own.filter((p) => p.yMm > 0).reduce((s, p) => s + p.yMm, 0) / 2;
  const slopes = targets.map(([x, y]) => {
    const feet = placed(
      [
        [x + TARGET_HALF_MM, y],
        [x - TARGET_HALF_MM, y],
        [x, y + TARGET_HALF_MM],
        [x, y - TARGET_HALF_MM],
      ],
      pose,
    ).map((p) => grid.heightAt(...p)) as [number, number, number, number];
    return Math.hypot(feet[0] - feet[1], feet[2] - feet[3]) / (2 * TARGET_HALF_MM);
  });
  return {
    aheadDeg: TO_DEG * Math.atan((FL + FR - RL - RR) / 2 / v.wheelbaseMm),
    leftDeg: TO_DEG * Math.atan((FL + RL - FR - RR) / 2 / (2 * lefts)),
    twistMm: (FL - FR - RL + RR) / 4,
    targetDeg: TO_DEG * Math.atan(Math.max(0, ...slopes)),
  };
}

/** Which limits a rule was made of, and for which floor and vehicle. */
const madeOf = new WeakMap<FloorRule, { grid: FloorGrid; v: Vehicle; limits: FloorLimits }>();

/** Several rules of one floor and vehicle as one: the strictest limits, under all their targets. */
function joinedRule(rules: readonly FloorRule[]): FloorRule | null {
  const all = rules.flatMap((r) => madeOf.get(r) ?? []);
  const [first] = all;
  if (!first || all.length < rules.length) return null;
  if (all.some((r) => r.grid !== first.grid || r.v !== first.v)) return null;
  const targets = new Map(all.flatMap((r) => r.limits.targets.map((t) => [t.join(), t] as const)));
  return floorRule(first.grid, first.v, {
    slopeDeg: Math.min(...all.map((r) => r.limits.slopeDeg)),
    twistMm: Math.min(...all.map((r) => r.limits.twistMm)),
    targets: [...targets.values()],
  });
}

/** What a sheet's limits make of every pose on a surveyed floor. */
export function floorRule(grid: FloorGrid, v: Vehicle, limits: FloorLimits): FloorRule {
  const rule: FloorRule = {
    ...bareRule(grid, v, limits),
    joined: (others) => joinedRule([rule, ...others]),
  };
  madeOf.set(rule, { grid, v, limits });
  return rule;
}

function bareRule(
  grid: FloorGrid,
  v: Vehicle,
  { slopeDeg, twistMm, targets }: FloorLimits,
): FloorRule {
  const used = (pose: Pose): number => {
    const is = floorThere(grid, v, targets, pose);
    return Math.max(
      Math.abs(is.aheadDeg) / slopeDeg,
      Math.abs(is.leftDeg) / slopeDeg,
      Math.abs(is.twistMm) / twistMm,
      is.targetDeg / slopeDeg,
    );
  };
  const slope = slopeDeg / TO_DEG;
  const wide = Math.min(v.trackFrontMm, v.trackRearMm);
  const own = CORNERS.map((c): Vec => {
    const { xMm, yMm } = archPlace(v, c);
    return [xMm, yMm];
  });
  const reach = (from: Vec, places: readonly Vec[]): number =>
    Math.max(0, ...places.map((p) => Math.hypot(p[0] - from[0], p[1] - from[1])));
  // What all of the floor slopes alike cancels between two places that are pushed alike, in a twist, and
  // under a target: there only what it slopes more or less than its mean counts.
  const nearAll = (places: readonly Vec[], pose: Pose, eitherWayMm: number): Change => {
    const change: Change = { perMm: 0, bendsPerMm: 0 };
    for (const [x, y] of placed(places, pose)) {
      const is = grid.changeNear(x, y, eitherWayMm);
      change.perMm = Math.max(change.perMm, is.perMm);
      change.bendsPerMm = Math.max(change.bendsPerMm, is.bendsPerMm);
    }
    return change;
  };
  return {
    used,
    changes: (pose, pushMm, turnRad, about) => {
      const swing = turnRad * reach(about, own);
      const tyres = nearAll(own, pose, pushMm + swing);
      const rise = tyres.bendsPerMm * pushMm + tyres.perMm * swing;
      const under = pushMm + turnRad * (reach(about, targets) + TARGET_HALF_MM);
      const { bendsPerMm } = nearAll(targets, pose, under + TARGET_HALF_MM);
      return Math.max(
        (2 * rise) / Math.min(v.wheelbaseMm, wide) / slope,
        (tyres.bendsPerMm * (pushMm + swing)) / twistMm,
        (bendsPerMm * Math.SQRT2 * under) / TARGET_HALF_MM / slope,
      );
    },
    straysMm: (pushMm, turnRad, about) =>
      pushMm + turnRad * (reach(about, [...own, ...targets]) + TARGET_HALF_MM),
  };
}
