import type { Vehicle } from "@/core/vehicle";
import type { Convex, Vec } from "./convex";
import type { Bay } from "./bay";
import { placed, type Pose, type Zone } from "./fit";
import type { Need } from "./places";

/** As high as somebody who walks about with a board, mm. */
const HEAD_MM = 2000;
/** Half of what a stand with its board and who sets it out need across, mm. */
const STAND_HALF_MM = 1000;

const box = (x0: number, y0: number, x1: number, y1: number): Convex => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];

/** The room the shop's book says a calibration needs about the vehicle, metres. */
export type Room = { ahead: number; behind: number; sides: number };

/** The vehicle itself, in its own frame. */
export function vehicleZone(v: Vehicle): Zone {
  const { front, rear, half } = extentOf(v);
  return zone("the vehicle", box(rear, -half, front, half));
}

const extentOf = (v: Vehicle): { front: number; rear: number; half: number } => {
  const front = v.wheelbaseMm + v.frontOverhangMm;
  return { front, rear: front - v.lengthMm, half: v.widthMm / 2 };
};

const zone = (name: string, shape: Convex): Zone => ({ name, shape, fromMm: 0, toMm: HEAD_MM });

/** What a calibration has to have free about a vehicle, in the vehicle's own frame. */
export function needFor(v: Vehicle, name: string, room: Room): Need {
  const { front, rear, half } = extentOf(v);
  const [ahead, behind, sides] = [room.ahead, room.behind, room.sides].map((m) => m * 1000) as [
    number,
    number,
    number,
  ];
  const across = Math.max(half, STAND_HALF_MM);
  const zones: [number, string, Convex][] = [
    [ahead, "ahead", box(front, -across, front + ahead, across)],
    [behind, "behind", box(rear - behind, -across, rear, across)],
    [sides, "at the sides", box(rear, -half - sides, front, half + sides)],
  ];
  return {
    name,
    zones: zones.flatMap(([mm, where, shape]) =>
      mm > 0 ? [zone(`${name}, ${where}`, shape)] : [],
    ),
  };
}

/** Where a wheel stands: how far from two walls, mm. */
export type ParkMark = { wheel: string; from: { wall: number; mm: number }[] };

/** Distance of a place from the line a wall lies on, mm. */
function offLine([x, y]: Vec, [ax, ay]: Vec, [bx, by]: Vec): number {
  const length = Math.hypot(bx - ax, by - ay);
  return Math.abs((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / length;
}

/** Whether the square from a place onto a wall's line meets the wall itself: where a tape can be held. */
function isBeside([x, y]: Vec, [ax, ay]: Vec, [bx, by]: Vec): boolean {
  const t = ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / ((bx - ax) ** 2 + (by - ay) ** 2);
  return t >= 0 && t <= 1;
}

/** Two walls measure a place badly where they run alike: less than this apart, degrees. */
const ACROSS_DEG = 30;

/** The places of two wheels on one side, each from the two nearest walls that do not run alike. */
export function parkMarks(bay: Bay, v: Vehicle, pose: Pose): ParkMark[] {
  const walls = bay.outline.map((a, i) => {
    const b = bay.outline[(i + 1) % bay.outline.length]!;
    return { n: i + 1, a, b, turn: Math.atan2(b[1] - a[1], b[0] - a[0]) };
  });
  const wheels: [string, Vec][] = [
    ["front left wheel", [v.wheelbaseMm, v.trackFrontMm / 2]],
    ["rear left wheel", [0, v.trackRearMm / 2]],
  ];
  return wheels.map(([wheel, place]) => {
    const [at] = placed([place], pose) as [Vec];
    const near = walls
      .filter((w) => isBeside(at, w.a, w.b))
      .map((w) => ({ ...w, mm: offLine(at, w.a, w.b) }))
      .toSorted((p, q) => p.mm - q.mm);
    const [first] = near;
    const second = near.find(
      (w) => Math.abs(Math.sin(w.turn - first!.turn)) > Math.sin((ACROSS_DEG * Math.PI) / 180),
    );
    return {
      wheel,
      from: [first, second].flatMap((w) => (w ? [{ wall: w.n, mm: Math.round(w.mm) }] : [])),
    };
  });
}

/** Which way the vehicle stands: its nose to the nearest door, or away from it; null without a door. */
export function noseOf(bay: Bay, pose: Pose): "out" | "in" | null {
  const at: Vec = [pose.xMm, pose.yMm];
  const middles = bay.doors.map(([a, b]): Vec => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]);
  const [door] = middles.toSorted(
    (p, q) => Math.hypot(p[0] - at[0], p[1] - at[1]) - Math.hypot(q[0] - at[0], q[1] - at[1]),
  );
  if (!door) return null;
  const toward =
    (door[0] - at[0]) * Math.cos(pose.headingRad) + (door[1] - at[1]) * Math.sin(pose.headingRad);
  return toward > 0 ? "out" : "in";
}
