import { gaussian, randomFrom, seedFrom } from "@/core/math/random";
import type { Vehicle } from "@/core/vehicle";
import { marksOn, type MatBody, type MatShape } from "../bench/mat-sim";

/**
 * The stitched picture on the cabin's display, and the four cameras and the unit behind it. Written
 * apart from core/surround, by quaternions and pixels instead of its matrices and rays, so that the
 * two check each other.
 */

/** A quaternion w, x, y, z of unit length. */
type Turn = readonly [number, number, number, number];
type Point3 = readonly [number, number, number];

/** A camera: where it sits, and what carries its own axes (ahead, left, up) into the vehicle's. */
export type Eye = { at: Point3; turn: Turn };
export type EyeId = "front" | "left" | "rear" | "right";
const EYES: readonly EyeId[] = ["front", "left", "rear", "right"];

/** Each camera as it sits and as the unit believes it sits. */
export type CabinView = {
  eyes: Record<EyeId, { truly: Eye; believed: Eye }>;
  /** The car in plan: front, rear, left, right. */
  car: { frontMm: number; rearMm: number; leftMm: number; rightMm: number };
  mats: { body: MatBody; shape: MatShape }[];
};

const times = (a: Turn, b: Turn): Turn => [
  a[0] * b[0] - a[1] * b[1] - a[2] * b[2] - a[3] * b[3],
  a[0] * b[1] + a[1] * b[0] + a[2] * b[3] - a[3] * b[2],
  a[0] * b[2] - a[1] * b[3] + a[2] * b[0] + a[3] * b[1],
  a[0] * b[3] + a[1] * b[2] - a[2] * b[1] + a[3] * b[0],
];
const back = (q: Turn): Turn => [q[0], -q[1], -q[2], -q[3]];
const about = (axis: 1 | 2 | 3, angle: number): Turn => {
  const q: [number, number, number, number] = [Math.cos(angle / 2), 0, 0, 0];
  q[axis] = Math.sin(angle / 2);
  return q;
};
const carry = (q: Turn, p: Point3): Point3 => {
  const r = times(times(q, [0, ...p]), back(q));
  return [r[1], r[2], r[3]];
};
const less = (a: Point3, b: Point3): Point3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];

/** An eye by the angles one would give a bracket: heading to the left, nose down, left side up. */
export const eyeAt = (at: Point3, headingRad: number, downRad: number, rollRad: number): Eye => ({
  at,
  turn: times(times(about(3, headingRad), about(2, downRad)), about(1, rollRad)),
});

/** An eye knocked in its own axes: about its own upright, its own left, and the way it looks. */
export const knocked = (eye: Eye, leftRad: number, downRad: number, rollRad: number): Eye => ({
  ...eye,
  turn: times(times(times(eye.turn, about(3, leftRad)), about(2, downRad)), about(1, rollRad)),
});

/** An eye's turn as the rows of a matrix, own axes to the vehicle's: for many rays at once. */
export const turnRows = ({ turn }: Eye): number[] => {
  const columns = [carry(turn, [1, 0, 0]), carry(turn, [0, 1, 0]), carry(turn, [0, 0, 1])];
  return [0, 1, 2].flatMap((i) => columns.map((c) => c[i]!));
};

/** An angular lens: this many pixels a radian off the axis. */
const PIXELS = 330;

/** The pixel of a place of the vehicle: to the right of the picture's middle, and below it. */
function pixelOf(eye: Eye, p: Point3): [number, number] {
  const [ahead, left, up] = carry(back(eye.turn), less(p, eye.at));
  const side = Math.sqrt(left * left + up * up);
  const angle = Math.atan2(side, ahead);
  if (side === 0) return [0, 0];
  return [(-left / side) * angle * PIXELS, (-up / side) * angle * PIXELS];
}

/** Where on the floor a pixel looks; null over the horizon. */
function floorOf(eye: Eye, [u, v]: readonly [number, number]): [number, number] | null {
  const far = Math.sqrt(u * u + v * v);
  const angle = far / PIXELS;
  const s = far === 0 ? 0 : Math.sin(angle) / far;
  const way = carry(eye.turn, [Math.cos(angle), -u * s, -v * s]);
  if (way[2] >= 0) return null;
  const k = -eye.at[2] / way[2];
  return [eye.at[0] + k * way[0], eye.at[1] + k * way[1]];
}

/** Where the picture shows a floor place that one camera sees; null where it shows it nowhere. */
export const drawnAt = (
  { truly, believed }: { truly: Eye; believed: Eye },
  [x, y]: readonly [number, number],
): [number, number] | null => floorOf(believed, pixelOf(truly, [x, y, 0]));

const DEG = Math.PI / 180;

/** Where the maker puts the four cameras, as the book has them or as is usual of its body. */
export function bookEyes(v: Vehicle): Record<EyeId, Eye> {
  const front = v.wheelbaseMm + v.frontOverhangMm;
  const usual: Record<EyeId, Eye> = {
    front: eyeAt([front - 20, 0, 640], 0, 32 * DEG, 0),
    left: eyeAt([v.wheelbaseMm - 520, v.widthMm / 2 + 110, 1010], 90 * DEG, 55 * DEG, 0),
    rear: eyeAt([front - v.lengthMm + 30, 0, 920], 180 * DEG, 40 * DEG, 0),
    right: eyeAt([v.wheelbaseMm - 520, -v.widthMm / 2 - 110, 1010], -90 * DEG, 55 * DEG, 0),
  };
  for (const s of v.sensors ?? [])
    if (s.system === "surround-view")
      usual[s.looks] = eyeAt(
        [s.xMm, s.yMm, s.zMm],
        s.headingDeg * DEG,
        s.downDeg * DEG,
        s.rollDeg * DEG,
      );
  return usual;
}

const carOf = (v: Vehicle): CabinView["car"] => ({
  frontMm: v.wheelbaseMm + v.frontOverhangMm,
  rearMm: v.wheelbaseMm + v.frontOverhangMm - v.lengthMm,
  leftMm: v.widthMm / 2,
  rightMm: -v.widthMm / 2,
});

/** Past its own bumper or door, and not too far off to be made out. */
function inView(id: EyeId, eye: Eye, car: CabinView["car"], [x, y]: readonly number[]): boolean {
  const past = {
    front: x! > car.frontMm,
    rear: x! < car.rearMm,
    left: y! > car.leftMm,
    right: y! < car.rightMm,
  }[id];
  return past && Math.sqrt((x! - eye.at[0]) ** 2 + (y! - eye.at[1]) ** 2) <= 6500;
}

/**
 * What the unit makes of one camera: it moves and turns its idea of it, part by part, until the
 * marks it knows come out where the picture has them. Damped, so that what few marks leave open stays
 * near the maker's figure.
 */
function learnedEye(book: Eye, seen: { pixel: readonly number[]; known: Point3 }[]): Eye {
  /** A tenth of a degree and a millimetre and a half are one step of doubt. */
  const loose = [2 * DEG, 2 * DEG, 2 * DEG, 25, 25, 25];
  const at = (part: readonly number[]): Eye => ({
    ...knocked(book, part[0]!, part[1]!, part[2]!),
    at: [book.at[0] + part[3]!, book.at[1] + part[4]!, book.at[2] + part[5]!],
  });
  const misses = (part: readonly number[]): number[] => {
    const eye = at(part);
    return [
      ...seen.flatMap(({ pixel, known }) => {
        const p = pixelOf(eye, known);
        return [(p[0] - pixel[0]!) / MARK_PIXELS, (p[1] - pixel[1]!) / MARK_PIXELS];
      }),
      ...part.map((x, i) => x / loose[i]!),
    ];
  };
  let part = [0, 0, 0, 0, 0, 0];
  for (let round = 0; round < 10; round++) {
    const now = misses(part);
    const slopes = part.map((_, i) => {
      const h = loose[i]! * 1e-4;
      const up = misses(part.map((x, k) => (k === i ? x + h : x)));
      const down = misses(part.map((x, k) => (k === i ? x - h : x)));
      return now.map((_, k) => (up[k]! - down[k]!) / (2 * h));
    });
    const step = solved(
      slopes.map((a) => slopes.map((b) => a.reduce((s, x, k) => s + x * b[k]!, 0))),
      slopes.map((a) => -a.reduce((s, x, k) => s + x * now[k]!, 0)),
    );
    part = part.map((x, i) => x + step[i]!);
  }
  return at(part);
}

/** Gauss-Jordan with pivots: six equations. */
function solved(rows: number[][], right: number[]): number[] {
  const m = rows.map((r, i) => [...r, right[i]!]);
  for (let i = 0; i < m.length; i++) {
    let best = i;
    for (let k = i + 1; k < m.length; k++)
      if (Math.abs(m[k]![i]!) > Math.abs(m[best]![i]!)) best = k;
    [m[i], m[best]] = [m[best]!, m[i]!];
    for (let k = 0; k < m.length; k++) {
      if (k === i) continue;
      const f = m[k]![i]! / m[i]![i]!;
      for (let j = i; j < m[k]!.length; j++) m[k]![j]! -= f * m[i]![j]!;
    }
  }
  return m.map((r, i) => r[m.length]! / r[i]!);
}

/** Noise of a mark in the picture, pixels. */
const MARK_PIXELS = 0.12;

/** What the unit shows once it has learned from mats as they lay, with cameras as they sit. */
export function learnView(
  vehicle: Vehicle,
  eyes: Record<EyeId, Eye>,
  mats: readonly { body: MatBody; shape: MatShape; wanted: MatBody }[],
  seed: string,
): CabinView {
  const random = randomFrom(seedFrom(`${seed}/view`));
  const book = bookEyes(vehicle);
  const car = carOf(vehicle);
  const marks = mats.flatMap(({ body, shape, wanted }) => {
    const lie = marksOn(body, shape);
    return marksOn(wanted, shape).map((w, i) => ({ lies: lie[i]!, known: w }));
  });
  const noise = (): number => MARK_PIXELS * gaussian(random);
  const learn = (id: EyeId): { truly: Eye; believed: Eye } => {
    const seen = marks
      .filter((m) => inView(id, book[id], car, m.known))
      .map(({ lies, known }) => {
        const p = pixelOf(eyes[id], [lies[0], lies[1], 0]);
        return { pixel: [p[0] + noise(), p[1] + noise()], known: [known[0], known[1], 0] as const };
      });
    return { truly: eyes[id], believed: seen.length > 0 ? learnedEye(book[id], seen) : book[id] };
  };
  return {
    eyes: Object.fromEntries(EYES.map((id) => [id, learn(id)])) as CabinView["eyes"],
    car,
    mats: mats.map(({ body, shape }) => ({ body, shape })),
  };
}

/** Cameras as one car of the kind has them: each a little off where the maker draws it. */
export function eyesOf(vehicle: Vehicle, seed: string): Record<EyeId, Eye> {
  const random = randomFrom(seedFrom(`${seed}/eyes`));
  const book = bookEyes(vehicle);
  const off = (): number => 0.35 * DEG * gaussian(random);
  return Object.fromEntries(
    EYES.map((id) => {
      const eye = knocked(book[id], off(), off(), off());
      const at = eye.at.map((v) => v + 3 * gaussian(random)) as unknown as Point3;
      return [id, { ...eye, at }];
    }),
  ) as Record<EyeId, Eye>;
}

/** One car in five is leaned on at a mirror, or has a bumper clip come loose, after it has learned. */
const LEANED_ON = 0.2;

/** What somebody did to a camera after the unit had learned, and said nothing. */
export function leanedOn(eyes: Record<EyeId, Eye>, seed: string): Record<EyeId, Eye> {
  const random = randomFrom(seedFrom(`${seed}/leaned-on`));
  if (random() >= LEANED_ON) return eyes;
  const id = EYES[Math.floor(random() * EYES.length)]!;
  const by = (0.5 + random()) * DEG * (random() < 0.5 ? -1 : 1);
  const part = Math.floor(random() * 3);
  const [left, down, roll] = [0, 1, 2].map((k) => (k === part ? by : 0)) as [
    number,
    number,
    number,
  ];
  return { ...eyes, [id]: knocked(eyes[id], left, down, roll) };
}

/** What an eye reads off the steps: to a millimetre, and no better than three. */
export function readSteps(view: CabinView, seed: string): Record<string, number> {
  const random = randomFrom(seedFrom(`${seed}/steps`));
  return Object.fromEntries(
    Object.entries(trueSteps(view)).flatMap(([corner, [along, across]]) => [
      [`${corner}-along`, Math.round(along + 3 * gaussian(random))],
      [`${corner}-across`, Math.round(across + 3 * gaussian(random))],
    ]),
  );
}

/** How far out of a corner of the car, both ways, steps are read, mm. */
const OUT_MM = 900;

/**
 * The steps at the four corners, exactly: how far the side camera's part lies from the end camera's,
 * forward and to the left, mm.
 */
export function trueSteps({ eyes, car }: CabinView): Record<string, [number, number]> {
  const ends = { front: car.frontMm + OUT_MM, rear: car.rearMm - OUT_MM };
  const sides = { left: car.leftMm + OUT_MM, right: car.rightMm - OUT_MM };
  return Object.fromEntries(
    (["front", "rear"] as const).flatMap((end) =>
      (["left", "right"] as const).map((side) => {
        const [a, b] = [eyes[end], eyes[side]].map((e) => drawnAt(e, [ends[end], sides[side]])!);
        return [`${end}-${side}`, [b![0] - a![0], b![1] - a![1]]];
      }),
    ),
  ) as Record<string, [number, number]>;
}
