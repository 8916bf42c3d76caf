import { degToRad } from "@/core/units";
import type { Vehicle } from "./schema";

export type Sensor = NonNullable<Vehicle["sensors"]>[number];
type Looks = Sensor["looks"];

/**
 * Where a sensor sits and how it looks, in vehicle axes (ISO 8855: x forward, y left, z up; origin
 * under the rear axle). Heading counter-clockwise from ahead, down below the horizon, roll clockwise
 * as the sensor itself looks.
 */
export type SensorMount = {
  xMm: number;
  yMm: number;
  zMm: number;
  headingRad: number;
  downRad: number;
  rollRad: number;
};

/** A sensor of the book as a mount: its angles in radians. */
export const sensorMount = (s: Sensor): SensorMount => ({
  xMm: s.xMm,
  yMm: s.yMm,
  zMm: s.zMm,
  headingRad: degToRad(s.headingDeg),
  downRad: degToRad(s.downDeg),
  rollRad: degToRad(s.rollDeg),
});

/**
 * The four cameras of a surround view: as the book has them, or, where it says nothing, where such
 * cameras usually sit on a body of these dimensions. What a seam tells of its cause hangs little on
 * a few centimetres of place.
 */
export function surroundMounts(v: Vehicle): {
  mounts: Record<Looks, SensorMount>;
  /** Which of them the book does not have. */
  assumed: Looks[];
} {
  const front = v.wheelbaseMm + v.frontOverhangMm;
  const at = (
    xMm: number,
    yMm: number,
    zMm: number,
    headingDeg: number,
    downDeg: number,
  ): SensorMount => ({
    xMm,
    yMm,
    zMm,
    headingRad: degToRad(headingDeg),
    downRad: degToRad(downDeg),
    rollRad: 0,
  });
  const mounts: Record<Looks, SensorMount> = {
    front: at(front - 20, 0, 640, 0, 32),
    left: at(v.wheelbaseMm - 520, v.widthMm / 2 + 110, 1010, 90, 55),
    rear: at(front - v.lengthMm + 30, 0, 920, 180, 40),
    right: at(v.wheelbaseMm - 520, -v.widthMm / 2 - 110, 1010, -90, 55),
  };
  const entered = (v.sensors ?? []).filter((s) => s.system === "surround-view");
  for (const s of entered) mounts[s.looks] = sensorMount(s);
  const assumed = (Object.keys(mounts) as Looks[]).filter(
    (looks) => !entered.some((s) => s.looks === looks),
  );
  return { mounts, assumed };
}

/**
 * The cameras that sit at the vehicle's two sides, on arms or in mirrors: for each how far out it sits
 * from the front hub of its side, mm (less than nothing: nearer to the middle). Mirror cameras go
 * before those of a surround view.
 */
export function sideCameras(
  v: Vehicle,
): { side: "left" | "right"; sensor: Sensor; outMm: number }[] {
  const order = ["mirror-camera", "side-camera", "surround-view"];
  const hubMm = v.trackFrontMm / 2 + v.hubCapOutMm;
  return (["left", "right"] as const).flatMap((side) => {
    const sensor = (v.sensors ?? [])
      .filter(
        (s) =>
          order.includes(s.system) &&
          Math.abs(s.yMm) > v.widthMm / 3 &&
          s.yMm > 0 === (side === "left"),
      )
      .sort((a, b) => order.indexOf(a.system) - order.indexOf(b.system))[0];
    return sensor ? [{ side, sensor, outMm: Math.abs(sensor.yMm) - hubMm }] : [];
  });
}
