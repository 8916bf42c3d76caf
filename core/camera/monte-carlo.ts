import { choleskyInPlace } from "@/core/math/linear";
import { gaussian, randomFrom } from "@/core/math/random";
import { laneOffsetMm, learnedTurn, learner, rangeErrorMm } from "./road";
import type { BoardError, Setting } from "./setting";

/** Distances the road is looked at, mm. */
export const ROAD_DISTANCES_MM = [30_000, 60_000, 100_000] as const;

/**
 * What is known of the board: its errors, and their covariance (along, across, twist together; the
 * rest each alone).
 */
export type BoardKnowledge = {
  mean: BoardError;
  /** 3x3 on (along mm, across mm, twist rad). */
  planCovariance: number[][];
  sigma: { heightMm: number; pitchRad: number; rollRad: number };
};

/** A quantity's spread: 2.5 %, median and 97.5 %. */
export type Spread = { low: number; middle: number; high: number };

export type RoadOutcome = {
  samples: number;
  turn: { yaw: Spread; pitch: Spread; roll: Spread };
  lane: { distanceMm: number; offsetMm: Spread }[];
  range: { distanceMm: number; errorMm: Spread }[];
  /** Lane offsets at 60 m, sorted, thinned to 201: the curve of chance. */
  laneCurveMm: number[];
};

const spreadOf = (sorted: Float64Array): Spread => {
  const at = (q: number): number =>
    sorted[Math.min(sorted.length - 1, Math.max(0, Math.round(q * (sorted.length - 1))))]!;
  return { low: at(0.025), middle: at(0.5), high: at(0.975) };
};

/**
 * Carries what is known of the board through the computer's own learning to the road, by Monte
 * Carlo: the learning is not linear and the range is far from it near the horizon.
 *
 * @param samples 20 000 give the 2.5 % points to about 1 % of the spread
 * @param seed the same seed gives the same figures
 */
export function roadOutcome(
  setting: Setting,
  known: BoardKnowledge,
  samples = 20_000,
  seed = 1,
): RoadOutcome {
  const l = Float64Array.from(known.planCovariance.flat());
  // A covariance that is flat in some direction is not an error here: that direction simply does
  // not spread.
  for (let i = 0; i < 3; i++) l[4 * i]! += 1e-18;
  if (choleskyInPlace(l, 3, 0) >= 0)
    throw new RangeError("The covariance of the board is not positive.");
  const learn = learner(setting);
  const random = randomFrom(seed);
  const columns = Array.from(
    { length: 3 + 2 * ROAD_DISTANCES_MM.length },
    () => new Float64Array(samples),
  );
  for (let n = 0; n < samples; n++) {
    const [a, b, c] = [gaussian(random), gaussian(random), gaussian(random)];
    const turn = learn({
      alongMm: known.mean.alongMm + l[0]! * a,
      acrossMm: known.mean.acrossMm + l[3]! * a + l[4]! * b,
      twistRad: known.mean.twistRad + l[6]! * a + l[7]! * b + l[8]! * c,
      heightMm: known.mean.heightMm + known.sigma.heightMm * gaussian(random),
      pitchRad: known.mean.pitchRad + known.sigma.pitchRad * gaussian(random),
      rollRad: known.mean.rollRad + known.sigma.rollRad * gaussian(random),
    });
    columns[0]![n] = turn.yaw;
    columns[1]![n] = turn.pitch;
    columns[2]![n] = turn.roll;
    ROAD_DISTANCES_MM.forEach((d, i) => {
      columns[3 + i]![n] = laneOffsetMm(turn, d);
      columns[3 + ROAD_DISTANCES_MM.length + i]![n] = rangeErrorMm(turn, setting.camera.zMm, d);
    });
  }
  for (const column of columns) column.sort();
  const [yaw, pitch, roll] = columns.slice(0, 3).map(spreadOf) as [Spread, Spread, Spread];
  const lane60 = columns[3 + 1]!;
  return {
    samples,
    turn: { yaw, pitch, roll },
    lane: ROAD_DISTANCES_MM.map((distanceMm, i) => ({
      distanceMm,
      offsetMm: spreadOf(columns[3 + i]!),
    })),
    range: ROAD_DISTANCES_MM.map((distanceMm, i) => ({
      distanceMm,
      errorMm: spreadOf(columns[6 + i]!),
    })),
    laneCurveMm: Array.from(
      { length: 201 },
      (_, i) => lane60[Math.round((i / 200) * (samples - 1))]!,
    ),
  };
}

/** The board's errors by the names people use. */
export const ADJUSTMENTS = {
  alongMm: "distance",
  acrossMm: "place across",
  twistRad: "twist",
  heightMm: "height",
  pitchRad: "lean",
  rollRad: "level",
} as const;

/**
 * What nulling one error alone would buy: how much nearer the lane at 60 m is believed to where it
 * is, mm.
 */
export type Gain = { id: keyof typeof ADJUSTMENTS; name: string; laneMm: number; rangeMm: number };

/** Which single adjustment buys most, best first, by the lane at 60 m and then the range there. */
export function gains(setting: Setting, mean: BoardError): Gain[] {
  const cost = (e: BoardError): { lane: number; range: number } => {
    const turn = learnedTurn(setting, e);
    return {
      lane: Math.abs(laneOffsetMm(turn, 60_000)),
      range: Math.abs(rangeErrorMm(turn, setting.camera.zMm, 60_000)),
    };
  };
  const now = cost(mean);
  return (Object.keys(ADJUSTMENTS) as (keyof typeof ADJUSTMENTS)[])
    .map((id): Gain => {
      const then = cost({ ...mean, [id]: 0 });
      return {
        id,
        name: ADJUSTMENTS[id],
        laneMm: now.lane - then.lane,
        rangeMm: now.range - then.range,
      };
    })
    .sort((a, b) => b.laneMm + 0.02 * b.rangeMm - (a.laneMm + 0.02 * a.rangeMm));
}
