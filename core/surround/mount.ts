import { apply, multiply, rotation, type Pose } from "@/core/camera";
import type { SensorMount } from "@/core/vehicle/sensors";

/** Where a camera sits and how it looks, as the vehicle's book has it. */
export type Mount = SensorMount;

/** A place on the floor in vehicle axes, mm: x ahead, y to vehicle left. */
export type FloorPoint = readonly [xMm: number, yMm: number];

/**
 * The pose of a mount: from vehicle axes to the camera's own (x right, y down, z forward). Its rows
 * are the camera's axes as the vehicle sees them, rolled about the last.
 */
export function poseOf(m: Mount): Pose {
  const [ch, sh, cd, sd] = [
    Math.cos(m.headingRad),
    Math.sin(m.headingRad),
    Math.cos(m.downRad),
    Math.sin(m.downRad),
  ];
  const level = [sh, -ch, 0, -ch * sd, -sh * sd, -cd, ch * cd, sh * cd, -sd];
  const r = multiply(rotation([0, 0, -m.rollRad]), level);
  return placed(r, [m.xMm, m.yMm, m.zMm]);
}

/** The pose of a camera with these axes whose centre lies at a place of the vehicle. */
function placed(r: readonly number[], at: readonly [number, number, number]): Pose {
  const t = apply({ r, t: [0, 0, 0] }, at);
  return { r, t: [-t[0], -t[1], -t[2]] };
}

/** Where the camera's centre lies in vehicle axes: -R^T t. */
export const centreOf = ({ r, t }: Pose): [number, number, number] => [
  -(r[0]! * t[0] + r[3]! * t[1] + r[6]! * t[2]),
  -(r[1]! * t[0] + r[4]! * t[1] + r[7]! * t[2]),
  -(r[2]! * t[0] + r[5]! * t[1] + r[8]! * t[2]),
];

/** A turn of a camera where it sits: to its own left, its nose down, clockwise as it looks. */
export type Turned = { leftRad: number; downRad: number; rollRad: number };

/** The pose of a camera that was turned where it sits, about its own axes. */
export function turnedBy({ r, t }: Pose, by: Partial<Turned>): Pose {
  // What is seen turns the other way; left is about the axis that points up, which is minus y.
  const turn = rotation([by.downRad ?? 0, by.leftRad ?? 0, -(by.rollRad ?? 0)]);
  return { r: multiply(turn, r), t: apply({ r: turn, t: [0, 0, 0] }, t) };
}
