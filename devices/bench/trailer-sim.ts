import { gaussian, type Random } from "@/core/math/random";

/**
 * A trailer behind a vehicle as things on the floor: the hitch drags its front, its wheels keep it
 * from slipping sideways. Written apart from core/trailer, by small steps of points instead of the
 * angle's own equation.
 */
export type TrainBody = {
  /** Rear axle of the tow vehicle, and the way it looks. */
  x: number;
  y: number;
  way: number;
  /** Middle of the trailer's axle. */
  axle: [number, number];
};

export type TrainShape = { wheelbase: number; behind: number; bar: number };

const hitchOf = (b: TrainBody, shape: TrainShape): [number, number] => [
  b.x - shape.behind * Math.cos(b.way),
  b.y - shape.behind * Math.sin(b.way),
];

/** A trailer that stands at an angle behind a vehicle that looks along x. */
export function coupled(shape: TrainShape, angle: number): TrainBody {
  const b: TrainBody = { x: 0, y: 0, way: 0, axle: [0, 0] };
  const [hx, hy] = hitchOf(b, shape);
  b.axle = [hx - shape.bar * Math.cos(angle), hy - shape.bar * Math.sin(angle)];
  return b;
}

/** How the trailer stands to the vehicle: its way minus the vehicle's. */
export function angleOf(b: TrainBody, shape: TrainShape): number {
  const [hx, hy] = hitchOf(b, shape);
  const way = Math.atan2(hy - b.axle[1], hx - b.axle[0]);
  return Math.atan2(Math.sin(way - b.way), Math.cos(way - b.way));
}

/** Pulls it forward with the wheels held, by steps of half a millimetre. */
export function pulled(b: TrainBody, shape: TrainShape, steer: number, far: number): TrainBody {
  const steps = Math.max(1, Math.round(far / 0.5));
  const step = far / steps;
  let { x, y, way } = b;
  let axle: [number, number] = [...b.axle];
  const bend = Math.tan(steer) / shape.wheelbase;
  for (let i = 0; i < steps; i++) {
    // The vehicle on its arc, exactly; then the bar is drawn after the hitch, twice as finely.
    const middle = way + (bend * step) / 2;
    x += step * Math.cos(middle);
    y += step * Math.sin(middle);
    const [hx0, hy0] = hitchOf(
      {
        x: x - (step / 2) * Math.cos(middle),
        y: y - (step / 2) * Math.sin(middle),
        way: middle,
        axle,
      },
      shape,
    );
    way += bend * step;
    for (const [hx, hy] of [[hx0, hy0], hitchOf({ x, y, way, axle }, shape)]) {
      // The axle rolls along the bar until the bar is as long as it is.
      const [dx, dy] = [hx! - axle[0], hy! - axle[1]];
      const roll = 1 - shape.bar / Math.sqrt(dx * dx + dy * dy);
      axle = [axle[0] + dx * roll, axle[1] + dy * roll];
    }
  }
  return { x, y, way, axle };
}

/** How trailers come to stand in a bay: by a few degrees to either side, never by design. */
export function cameToStand(random: Random): number {
  const deg = 1.5 + 6 * random();
  return ((random() < 0.5 ? -1 : 1) * deg * Math.PI) / 180;
}

/** A driver's hands: the wheels never stand quite as they were told to. */
export const steeredBy = (random: Random, steer: number): number =>
  steer * (1 + 0.1 * gaussian(random));

/** A tape from a hub of the vehicle to one of the trailer, through the air between them. */
export function tapeBetween(
  b: TrainBody,
  shape: TrainShape,
  from: { side: 1 | -1; half: number; high: number },
  to: { side: 1 | -1; half: number; high: number },
): number {
  const [hx, hy] = hitchOf(b, shape);
  const bar = Math.atan2(hy - b.axle[1], hx - b.axle[0]);
  const p = [
    b.x - from.side * from.half * Math.sin(b.way),
    b.y + from.side * from.half * Math.cos(b.way),
  ];
  const q = [
    b.axle[0] - to.side * to.half * Math.sin(bar),
    b.axle[1] + to.side * to.half * Math.cos(bar),
  ];
  return Math.sqrt((p[0]! - q[0]!) ** 2 + (p[1]! - q[1]!) ** 2 + (from.high - to.high) ** 2);
}
