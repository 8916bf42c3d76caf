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
  /** By how much the height changes at the most over a millimetre; and beyond its mean slope. */
  perMm: number;
  bendsPerMm: number;
};

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
  const slopes: [number, number][] = [];
  for (let i = 0; i + 1 < nx; i++)
    for (let j = 0; j + 1 < ny; j++) {
      const [a, b, c, d] = [i * ny + j, (i + 1) * ny + j, i * ny + j + 1, (i + 1) * ny + j + 1].map(
        (k) => heights[k]! / STEP_MM,
      ) as [number, number, number, number];
      for (const alongX of [b - a, d - c])
        for (const alongY of [c - a, d - b]) slopes.push([alongX, alongY]);
    }
  const mean = [0, 1].map((k) => slopes.reduce((s, g) => s + g[k]!, 0) / slopes.length);
  const most = (of: (g: readonly [number, number]) => number): number =>
    slopes.reduce((m, g) => Math.max(m, of(g)), 0);
  const cell = (t: number, n: number): [number, number] => {
    const at = Math.min(n - 1, Math.max(0, t));
    const k = Math.min(n - 2, Math.floor(at));
    return [k, at - k];
  };
  return {
    perMm: most(([x, y]) => Math.hypot(x, y)),
    bendsPerMm: most(([x, y]) => Math.hypot(x - mean[0]!, y - mean[1]!)),
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

/** What a sheet's limits make of every pose on a surveyed floor. */
export function floorRule(grid: FloorGrid, v: Vehicle, limits: FloorLimits): FloorRule {
  const { slopeDeg, twistMm, targets } = limits;
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
  const { perMm, bendsPerMm } = grid;
  return {
    used,
    changes: (pushMm, turnRad, about) => {
      const swing = turnRad * reach(about, own);
      const rise = bendsPerMm * pushMm + perMm * swing;
      const under = pushMm + turnRad * (reach(about, targets) + TARGET_HALF_MM);
      return Math.max(
        (2 * rise) / Math.min(v.wheelbaseMm, wide) / slope,
        (bendsPerMm * (pushMm + swing)) / twistMm,
        targets.length > 0 ? (bendsPerMm * Math.SQRT2 * under) / TARGET_HALF_MM / slope : 0,
      );
    },
    straysMm: (pushMm, turnRad, about) =>
      pushMm + turnRad * (reach(about, [...own, ...targets]) + TARGET_HALF_MM),
  };
}
