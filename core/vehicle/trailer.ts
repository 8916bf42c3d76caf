import type { Vehicle } from "./schema";

/**
 * A trailer by itself, as the arithmetic of a set-out takes any vehicle: the origin under its axle, x
 * toward the hitch. What it has before the axle is the hitch alone, so its front hubs are one point.
 *
 * @throws RangeError where the book has no trailer of this vehicle
 */
export function trailerAlone(v: Vehicle): Vehicle {
  const { trailer: t } = v;
  if (!t)
    throw new RangeError(
      `The sheet measures from the trailer’s hubs, and the book has no trailer of ${v.make} ${v.model}. Enter it under Vehicles.`,
    );
  const end = t.hitchToAxleMm - t.lengthMm;
  const { provisional: _, centreMarks: __, furtherAxles: ___, ...own } = v;
  return {
    ...own,
    wheelbaseMm: t.hitchToAxleMm,
    trackFrontMm: 0,
    trackRearMm: 2 * t.hubHalfMm,
    hubCapOutMm: 0,
    hubHeightMm: t.hubHeightMm,
    hubSigmaMm: t.hubSigmaMm,
    badgeSigmaMm: t.hitchSigmaMm,
    frontOverhangMm: 0,
    lengthMm: t.lengthMm,
    widthMm: 2 * t.hubHalfMm,
    frontBadge: { xMm: t.hitchToAxleMm, yMm: 0, zMm: t.hubHeightMm },
    rearBadge: { xMm: end, yMm: 0, zMm: t.hubHeightMm },
    camera: { xMm: end, yMm: 0, zMm: 0 },
  };
}
