import { randomFrom, seedFrom } from "@/core/math/random";
import type { RefusalCode, RoutineResult } from "@/core/run";
import { datumFrame, datumLine, type BoardState } from "@/core/setout";
import { targetPose } from "@/core/setout/plan";
import { radToDeg } from "@/core/units";
import { blurred, findsNothing, type Trouble } from "./trouble";
import type { BenchWorld } from "../bench/world";
import { boardOf } from "../bench/stand-sim";

/**
 * The vehicle's own forward camera and the computer behind it.
 *
 * The camera sees the printed points of the board where the board truly stands. The computer
 * believes the board stands where the sheet says, and turns its idea of the camera until the two
 * pictures agree. What is left over, in size or in shape, it refuses. Nothing here knows what the
 * technician measured.
 */
type Vec3 = [number, number, number];

const FOCAL_PX = 1250;
const PIXEL_NOISE = 0.12;
/**
 * The computer's own limits: how far it will turn its idea of the camera, and how ill the picture
 * may fit.
 */
const LIMITS = { yawDeg: 1.4, pitchDeg: 1.4, rollDeg: 0.9, scale: 0.008, rmsPx: 0.6 };

/** Points printed on the board, in its own plane (right of centre, above centre), millimetres. */
function boardPattern(widthMm: number): [number, number][] {
  const points: [number, number][] = [];
  for (let i = -2; i <= 2; i++)
    for (let j = -1; j <= 1; j++) points.push([(i * widthMm) / 5, (j * widthMm) / 5]);
  return points;
}

/**
 * Board points in vehicle axes. The board's normal is its heading; roll turns it in its plane,
 * pitch leans it.
 */
function boardPoints(board: BoardState, widthMm: number): Vec3[] {
  const [c, s] = [Math.cos(board.pose.headingRad), Math.sin(board.pose.headingRad)];
  // In body axes x faces the car, y is to vehicle right for a board that faces it, z is up.
  return boardPattern(widthMm).map(([right, up]) => {
    const y = right * Math.cos(board.rollRad) + up * Math.sin(board.rollRad);
    const z = up * Math.cos(board.rollRad) - right * Math.sin(board.rollRad);
    const lean = -Math.sin(board.pitchRad) * z;
    return [
      board.pose.xMm + c * lean - s * y,
      board.pose.yMm + s * lean + c * y,
      board.heightMm + Math.cos(board.pitchRad) * z,
    ];
  });
}

type Turn = { yaw: number; pitch: number; roll: number };

const turnedFrom = (a: Turn, b: Turn): Turn => ({
  yaw: a.yaw + b.yaw,
  pitch: a.pitch + b.pitch,
  roll: a.roll + b.roll,
});

/**
 * Pinhole picture of vehicle points; camera axes x right, y down, z forward, turned by yaw, pitch,
 * roll.
 */
function picture(
  points: Vec3[],
  camera: { xMm: number; yMm: number; zMm: number },
  turn: Turn,
): [number, number][] {
  const [cy, sy] = [Math.cos(turn.yaw), Math.sin(turn.yaw)];
  const [cp, sp] = [Math.cos(turn.pitch), Math.sin(turn.pitch)];
  const [cr, sr] = [Math.cos(turn.roll), Math.sin(turn.roll)];
  return points.map(([px, py, pz]) => {
    const [dx, dy, dz] = [px - camera.xMm, py - camera.yMm, pz - camera.zMm];
    // Into the camera's frame: undo yaw (about z up), then pitch (nose down positive), then roll.
    const [fx, fy] = [cy * dx + sy * dy, -sy * dx + cy * dy];
    const [gx, gz] = [cp * fx - sp * dz, sp * fx + cp * dz];
    const [hy, hz] = [cr * fy + sr * gz, -sr * fy + cr * gz];
    return [(-FOCAL_PX * hy) / gx, (-FOCAL_PX * hz) / gx];
  });
}

/**
 * Points of the floor as a body has them that was lifted, and turned about the middle between its
 * axles: nose up, left side up.
 */
function fromBody(points: Vec3[], wheelbaseMm: number, stance: BenchWorld["stance"]): Vec3[] {
  if (!stance) return points;
  const { heaveMm, pitchRad, rollRad } = stance;
  const middle = wheelbaseMm / 2;
  const [cp, sp] = [Math.cos(pitchRad), Math.sin(pitchRad)];
  const [cr, sr] = [Math.cos(rollRad), Math.sin(rollRad)];
  return points.map(([x, y, z]) => {
    const [dx, dz] = [x - middle, z - heaveMm];
    const [px, pz] = [cp * dx + sp * dz, cp * dz - sp * dx];
    return [middle + px, cr * y + sr * pz, cr * pz - sr * y];
  });
}

/** A camera as the maker mounts it: where it sits, and how it is turned from straight ahead, rad. */
export type Eye = { xMm: number; yMm: number; zMm: number; turn: Turn };

/** What the computer concludes from one look at the board. */
export const learnForwardCamera = (world: BenchWorld, look: string, limits = 1): RoutineResult =>
  learnFromBoard(
    world,
    look,
    { ...world.plan.vehicle.camera, turn: { yaw: 0, pitch: 0, roll: 0 } },
    limits,
  );

/**
 * The same of a camera that looks another way, at a board that stands there.
 *
 * @param eye as its maker mounts it; the repair left it turned a little from that
 * @param limits its computer's own against a usual one's: below 1 stricter, above 1 laxer
 */
export function learnFromBoard(
  world: BenchWorld,
  look: string,
  eye: Eye,
  limits = 1,
): RoutineResult {
  const { plan } = world;
  // Height counts from the vehicle's own plane; the stand stands on its own piece of floor.
  const standing = boardOf(plan.stand, world.stand);
  // Its tilts are read against gravity; the vehicle knows only the plane it stands on.
  const { stepMm, aheadRad, leftRad } = world.floor;
  const [ch, sh] = [Math.cos(standing.pose.headingRad), Math.sin(standing.pose.headingRad)];
  // On a beam that carries several boards this one hangs beside its middle; its right is vehicle left.
  const { headingRad } = standing.pose;
  const right = -world.railMm;
  const board = {
    ...standing,
    pose: {
      ...standing.pose,
      xMm: standing.pose.xMm - Math.sin(headingRad) * right,
      yMm: standing.pose.yMm + Math.cos(headingRad) * right,
    },
    heightMm: standing.heightMm + stepMm,
    // The floor rises toward where the board looks, and toward its right hand.
    pitchRad: standing.pitchRad - (ch * aheadRad + sh * leftRad),
    rollRad: standing.rollRad - (sh * aheadRad - ch * leftRad),
  };
  // The computer knows nothing of beams: it believes the board where the sheet puts it.
  const { beam: _, ...alone } = plan.target;
  const pose = targetPose(alone, datumLine(datumFrame(plan), world.points));
  return lookAt({
    eye,
    seat: world.cameraRad,
    widthMm: plan.target.object.widthMm,
    board,
    believed: { pose, heightMm: plan.target.placement.heightMm, pitchRad: 0, rollRad: 0 },
    trouble: world.trouble ?? {},
    standing: (points) => fromBody(points, plan.vehicle.wheelbaseMm, world.stance),
    limits,
    seed: `${world.seed}/look/${look}`,
  });
}

/** One look of a camera at a board, with all that may be wrong about it. */
export type Look = {
  eye: Eye;
  /** How the camera truly sits, turned from where its maker mounts it. */
  seat: Turn;
  /** The print its computer expects. */
  widthMm: number;
  /** The board as it truly stands, and where the computer believes it. */
  board: BoardState;
  believed: BoardState;
  trouble: Trouble;
  /** Where a body that stands off its book sees a point that stands on the floor; as it is elsewise. */
  standing?: (points: Vec3[]) => Vec3[];
  /** How well it finds a point, where that is not as usual, px. */
  noisePx?: number;
  /** Its computer's limits against a usual one's. */
  limits?: number;
  seed: string;
};

/** What the computer concludes from it. */
export function lookAt({
  eye,
  seat,
  widthMm,
  board,
  believed,
  trouble,
  standing = (points) => points,
  ...how
}: Look): RoutineResult {
  const random = randomFrom(seedFrom(how.seed));
  const load = { yaw: 0, pitch: trouble.loadRad ?? 0, roll: 0 };
  const points = picture(
    standing(boardPoints(board, widthMm * (trouble.print ?? 1))),
    eye,
    turnedFrom(eye.turn, turnedFrom(seat, load)),
  );
  const seen = blurred(points, how.noisePx ?? PIXEL_NOISE, trouble, random);
  const expected = boardPoints(believed, widthMm);
  const turn: Turn = { ...eye.turn };
  for (let round = 0; round < 8; round++) if (fitTurn(turn, expected, seen, eye) < 1e-12) break;

  const fitted = picture(expected, eye, turn);
  const rms = Math.sqrt(
    seen.reduce((s, p, i) => s + (p[0] - fitted[i]![0]) ** 2 + (p[1] - fitted[i]![1]) ** 2, 0) /
      seen.length,
  );
  const scale = spread(seen) / spread(fitted) - 1;
  if (findsNothing(trouble, random))
    return {
      passed: false,
      qualityPercent: 0,
      reason: NOT_FOUND.reason,
      refused: NOT_FOUND.code,
    };
  const result = {
    qualityPercent: Math.max(0, 100 - 22 * rms),
    learnedYawDeg: radToDeg(turn.yaw - eye.turn.yaw),
    learnedPitchDeg: radToDeg(turn.pitch - eye.turn.pitch),
    learnedRollDeg: radToDeg(turn.roll - eye.turn.roll),
  };
  const refused = refusal(result, scale, rms, how.limits ?? 1);
  return {
    ...result,
    passed: refused === null,
    reason: refused?.reason ?? null,
    sizePercent: scale * 100,
    ...(refused ? { refused: refused.code } : {}),
  };
}

type Refused = { code: RefusalCode; reason: string };

const NOT_FOUND: Refused = { code: "not-found", reason: "Target not found." };

function refusal(
  r: Record<"learnedYawDeg" | "learnedPitchDeg" | "learnedRollDeg", number>,
  scale: number,
  rms: number,
  limits: number,
): Refused | null {
  const percent = (Math.abs(scale) * 100).toFixed(1);
  if (scale < -LIMITS.scale * limits)
    return {
      code: "too-small",
      reason: `Board appears ${percent} % too small: it stands too far from the camera.`,
    };
  if (scale > LIMITS.scale * limits)
    return {
      code: "too-large",
      reason: `Board appears ${percent} % too large: it stands too near the camera.`,
    };
  const beyond = (code: RefusalCode, what: string, deg: number): Refused => ({
    code,
    reason: `${what} beyond the limit: ${deg.toFixed(2)} degrees.`,
  });
  if (Math.abs(r.learnedYawDeg) > LIMITS.yawDeg * limits)
    return beyond("aim-side", "Aim to the side", r.learnedYawDeg);
  if (Math.abs(r.learnedPitchDeg) > LIMITS.pitchDeg * limits)
    return beyond("aim-height", "Aim up or down", r.learnedPitchDeg);
  if (Math.abs(r.learnedRollDeg) > LIMITS.rollDeg * limits)
    return beyond("aim-roll", "Camera or board turned", r.learnedRollDeg);
  if (rms > LIMITS.rmsPx * limits)
    return { code: "shape", reason: "Board does not look as it should." };
  return null;
}

/** Mean distance of picture points from their centre. */
function spread(points: [number, number][]): number {
  const n = points.length;
  const u = points.reduce((s, p) => s + p[0], 0) / n;
  const v = points.reduce((s, p) => s + p[1], 0) / n;
  return points.reduce((s, p) => s + Math.hypot(p[0] - u, p[1] - v), 0) / n;
}

/** One Gauss-Newton step on yaw, pitch and roll, with forward differences of the picture.
 * @returns the largest of the three */
function fitTurn(
  turn: Turn,
  believed: Vec3[],
  seen: [number, number][],
  camera: { xMm: number; yMm: number; zMm: number },
): number {
  const H = 1e-6;
  const keys = ["yaw", "pitch", "roll"] as const;
  const at = picture(believed, camera, turn).flat();
  const columns = keys.map((key) =>
    picture(believed, camera, { ...turn, [key]: turn[key] + H })
      .flat()
      .map((v, i) => (v - at[i]!) / H),
  );
  const left = seen.flat().map((v, i) => v - at[i]!);
  const dot = (a: number[], b: number[]): number => a.reduce((s, v, i) => s + v * b[i]!, 0);
  const m = columns.map((a) => [...columns.map((b) => dot(a, b)), dot(a, left)]);
  // Gauss elimination on the 3x4 system; the three columns are never parallel for a board with
  // extent.
  for (let i = 0; i < 3; i++)
    for (let k = 0; k < 3; k++) {
      if (k === i) continue;
      const f = m[k]![i]! / m[i]![i]!;
      for (let j = i; j < 4; j++) m[k]![j]! -= f * m[i]![j]!;
    }
  const steps = keys.map((key, i) => {
    const step = m[i]![3]! / m[i]![i]!;
    turn[key] += step;
    return Math.abs(step);
  });
  return Math.max(...steps);
}
