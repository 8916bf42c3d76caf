import type { BoardState, Move, PlanPose, Stand } from "@/core/setout";

/**
 * A stand as a physical thing: rigid links carried by 4x4 transforms from the floor to the board.
 *
 * Written apart from core/setout, which solves for the adjusters in closed form; the two check each
 * other.
 */
export type StandBody = {
  /** Base origin on the floor plan and heading of its levelled axes. */
  base: PlanPose;
  /** How far each foot is screwed out, mm. */
  feetMm: number[];
  joints: number[];
  /** Height of the board centre on the mast above the base plane, booster included, mm. */
  mastMm: number;
  /** What stands under the mast. */
  booster?: string | null;
};

type Mat4 = number[]; // row-major, 16

const multiply = (a: Mat4, b: Mat4): Mat4 =>
  Array.from({ length: 16 }, (_, k) => {
    const [i, j] = [k >> 2, k & 3];
    return (
      a[i * 4]! * b[j]! +
      a[i * 4 + 1]! * b[4 + j]! +
      a[i * 4 + 2]! * b[8 + j]! +
      a[i * 4 + 3]! * b[12 + j]!
    );
  });
const translate = (x: number, y: number, z: number): Mat4 => [
  1,
  0,
  0,
  x,
  0,
  1,
  0,
  y,
  0,
  0,
  1,
  z,
  0,
  0,
  0,
  1,
];
const turnZ = (t: number): Mat4 => [
  Math.cos(t),
  -Math.sin(t),
  0,
  0,
  Math.sin(t),
  Math.cos(t),
  0,
  0,
  0,
  0,
  1,
  0,
  0,
  0,
  0,
  1,
];

/**
 * Slopes of the plane through the foot tips, by least squares over three or four feet (normal
 * equations).
 */
function footPlane(stand: Stand, feetMm: number[]): { a: number; b: number } {
  const f0 = stand.feet[0]!;
  let [xx, xy, yy, xz, yz] = [0, 0, 0, 0, 0];
  stand.feet.forEach((f, i) => {
    const [dx, dy, dz] = [f.xMm - f0.xMm, f.yMm - f0.yMm, feetMm[i]! - feetMm[0]!];
    xx += dx * dx;
    xy += dx * dy;
    yy += dy * dy;
    xz += dx * dz;
    yz += dy * dz;
  });
  const det = xx * yy - xy * xy;
  return { a: (xz * yy - yz * xy) / det, b: (yz * xx - xz * xy) / det };
}

/** The smallest rotation that stands the tilted base's up-vector (a, b, 1) upright. */
function upright(a: number, b: number): Mat4 {
  const n = Math.hypot(a, b, 1);
  const up = [a / n, b / n, 1 / n] as const;
  // v = up x z, R = I + [v] + [v]^2 / (1 + c)
  const v = [up[1], -up[0], 0] as const;
  const k = 1 / (1 + up[2]);
  return [
    1 - v[1] * v[1] * k,
    v[0] * v[1] * k,
    v[1],
    0,
    v[0] * v[1] * k,
    1 - v[0] * v[0] * k,
    -v[0],
    0,
    -v[1],
    v[0],
    1 - (v[0] * v[0] + v[1] * v[1]) * k,
    0,
    0,
    0,
    0,
    1,
  ];
}

/** From the frame that the board hangs in, above the last joint, to the bay. */
function frameOf(stand: Stand, body: StandBody): Mat4 {
  const { a, b } = footPlane(stand, body.feetMm);
  const f0 = stand.feet[0]!;
  const pivot = translate(f0.xMm, f0.yMm, 0);
  const back = translate(-f0.xMm, -f0.yMm, 0);
  let m = multiply(translate(body.base.xMm, body.base.yMm, 0), turnZ(body.base.headingRad));
  m = multiply(multiply(m, pivot), multiply(upright(a, b), back));
  stand.joints.forEach((j, i) => {
    const v = body.joints[i]!;
    if (j.kind === "yaw") m = multiply(m, multiply(translate(j.xMm, j.yMm, 0), turnZ(v)));
    else m = multiply(m, j.axis === "fore-aft" ? translate(v, 0, 0) : translate(0, v, 0));
  });
  return m;
}

/** Where the board truly is. */
export function boardOf(stand: Stand, body: StandBody): BoardState {
  const { a, b } = footPlane(stand, body.feetMm);
  const m = multiply(frameOf(stand, body), translate(stand.boardXMm, stand.boardYMm, body.mastMm));
  // Tilts are read along the base's own axes; a yawed beam sees them turned by less than 1 % over a
  // few degrees.
  const n = Math.hypot(a, b, 1);
  const heading =
    body.base.headingRad +
    stand.joints.reduce((s, j, i) => s + (j.kind === "yaw" ? body.joints[i]! : 0), 0);
  return {
    pose: { xMm: m[3]!, yMm: m[7]!, headingRad: heading },
    heightMm: m[11]!,
    pitchRad: Math.asin(a / n),
    rollRad: -Math.asin(b / n),
  };
}

/**
 * Where a point in the board's own upright plane truly is: `leftMm` to the board's left (vehicle
 * right) of its middle, `upMm` along the mast from the base.
 */
export function pointOf(
  stand: Stand,
  body: StandBody,
  leftMm: number,
  upMm: number,
): { x: number; y: number; z: number } {
  const at = translate(stand.boardXMm, stand.boardYMm + leftMm, upMm);
  const m = multiply(frameOf(stand, body), at);
  return { x: m[3]!, y: m[7]!, z: m[11]! };
}

/** An adjuster goes as far as its stops. */
function stopped(joint: Stand["joints"][number], value: number): number {
  const limit = joint.kind === "yaw" ? joint.limitRad : joint.limitMm;
  return Math.max(-limit, Math.min(limit, value));
}

/** Carries out one move; `error` scales each amount (1 = exactly as asked). */
export function carryOut(stand: Stand, body: StandBody, move: Move, error = 1): StandBody {
  switch (move.kind) {
    case "roll": {
      const { base } = body;
      return {
        ...body,
        base: {
          xMm: base.xMm + move.awayMm * error,
          yMm: base.yMm + move.leftMm * error,
          headingRad: base.headingRad + move.turnRad * error,
        },
      };
    }
    case "level":
      return {
        ...body,
        feetMm: body.feetMm.map((f, i) => (i === move.foot ? f + move.raiseMm * error : f)),
      };
    case "yaw":
    case "slide": {
      const by = (move.kind === "yaw" ? move.turnRad : move.byMm) * error;
      const joints = body.joints.map((v, i) =>
        i === move.joint ? stopped(stand.joints[i]!, v + by) : v,
      );
      return { ...body, joints };
    }
    case "zero":
      return { ...body, joints: body.joints.map(() => 0) };
    case "crank":
      // With an eye on the scale it ends where the scale says, however far that was.
      if (move.until)
        return {
          ...body,
          mastMm:
            body.mastMm +
            move.after.heightMm -
            boardOf(stand, body).heightMm +
            (move.until.ended === undefined ? 0 : move.until.ended - move.until.shown),
        };
      return { ...body, mastMm: body.mastMm + move.upMm * error };
    // Neither touches the stand itself: a board goes along its rail, a mat is no part of it.
    case "rail":
    case "draw":
      return body;
    // A block of iron is as high as it is; hands have no part in it.
    case "booster":
      return { ...body, mastMm: body.mastMm + move.upMm, booster: move.booster };
  }
}
