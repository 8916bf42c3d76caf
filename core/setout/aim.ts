import { wrapAngle } from "@/core/math/linear";
import type { Adjustment } from "@/core/survey";
import { degToRad } from "@/core/units";
import type { VehiclePointId } from "@/core/vehicle";
import { datumLine, facing, type DatumFrame } from "./plan";
import type { Target } from "@/core/sheet";

/** Aim error in the plan: actual minus sheet, in the datum's own axes. */
export type PlanAim = {
  /** Positive: too far from the car. */
  alongMm: number;
  /** Positive: too far to vehicle left. */
  acrossMm: number;
  /** Positive: turned counter-clockwise seen from above. */
  twistRad: number;
  /** 3x3 on (along, across, twist). */
  covariance: number[][];
  /** Derivatives of the three by all unknowns of the adjustment, for propagating further. */
  jacobian: Float64Array[];
};

/**
 * Aim error of the board against the sheet, with its covariance, by linear propagation from the
 * adjusted network.
 *
 * With u the unit vector of the datum, n its left normal, C the board, F the distance origin, A a
 * point of the line and phi its heading, fixed by the points P, Q a distance L apart:
 *   along = u.(C - F), across = n.(C - A), twist = theta - phi - pi,
 *   d along = u.(dC - dF) + n.(C - F) dphi, d across = n.(dC - dA) - u.(C - A) dphi, dphi = m.(dQ - dP) / L,
 * where m is the normal of P -> Q.
 *
 * @param adjustment an adjusted set-out network with the vehicle's points
 * @param target its placement in mm and degrees
 * @param frame the sheet's datum on this vehicle
 * @param body the body whose origin is the centre of the board, projected to the floor; of a beam
 *   that carries several boards its middle
 * @param rail how far to vehicle left of the beam's middle the board hangs: d C = -l d r, with l the
 *   body's own left, which is vehicle right
 */
export function aim(
  adjustment: Adjustment,
  target: Target,
  frame: DatumFrame,
  body: string,
  rail: { mm: number; variance: number } | null = null,
): PlanAim {
  const { index, order, covariance } = adjustment.joint;
  const carrier = adjustment.bodies.find((b) => b.id === body)!;
  const reach = -(rail?.mm ?? 0);
  const [lx, ly] = [-Math.sin(carrier.headingRad), Math.cos(carrier.headingRad)];
  const board = { xMm: carrier.xMm + lx * reach, yMm: carrier.yMm + ly * reach };
  const line = datumLine(frame, adjustment.points, adjustment.nuisances);
  const [ux, uy] = [Math.cos(line.headingRad), Math.sin(line.headingRad)];

  const fromOrigin = [board.xMm - line.originXMm, board.yMm - line.originYMm] as const;
  const fromLine = [board.xMm - line.xMm, board.yMm - line.yMm] as const;
  const along = ux * fromOrigin[0] + uy * fromOrigin[1];
  const across = -uy * fromLine[0] + ux * fromLine[1];
  const twist = wrapAngle(carrier.headingRad - line.headingRad - facing(target));

  const jacobian = [new Float64Array(order), new Float64Array(order), new Float64Array(order)];
  const [jAlong, jAcross, jTwist] = jacobian as [Float64Array, Float64Array, Float64Array];
  const add = (j: Float64Array, id: string, gx: number, gy: number): void => {
    const row = index[id];
    if (row === undefined) return; // an exact point contributes no uncertainty
    j[row]! += gx;
    j[row + 1]! += gy;
  };
  add(jAlong, body, ux, uy);
  add(jAcross, body, -uy, ux);
  const turn = index[body]! + 2;
  jTwist[turn]! += 1;
  // A board beside the middle of its beam swings with the beam: d C = J (C - B) d theta.
  const [sx, sy] = [-ly * reach, lx * reach];
  jAlong[turn]! += ux * sx + uy * sy;
  jAcross[turn]! += -uy * sx + ux * sy;
  for (const [id, w] of frame.distanceFrom) add(jAlong, id, -w * ux, -w * uy);
  for (const [id, w] of frame.through) add(jAcross, id, w * uy, -w * ux);

  const place = (id: VehiclePointId) => adjustment.points.find((p) => p.id === id)!;
  const p = place(frame.directionFrom);
  const q = place(frame.directionTo);
  const square = (q.xMm - p.xMm) ** 2 + (q.yMm - p.yMm) ** 2;
  const [mx, my] = [-(q.yMm - p.yMm) / square, (q.xMm - p.xMm) / square];
  // The origin of a bumper or camera distance also swings with the line: its lever is the offset
  // itself, along u, so it adds offset * n.u = 0 to the distance.
  const throughAlong = -uy * fromOrigin[0] + ux * fromOrigin[1];
  const throughAcross = -(ux * fromLine[0] + uy * fromLine[1]);
  for (const [j, k] of [
    [jAlong, throughAlong],
    [jAcross, throughAcross],
    [jTwist, -1],
  ] as const) {
    for (const [cause, weight] of frame.turnBy ?? []) {
      const row = index[cause];
      if (row !== undefined) j[row]! += k * weight;
    }
    add(j, frame.directionTo, k * mx, k * my);
    add(j, frame.directionFrom, -k * mx, -k * my);
  }

  const cov = jacobian.map((a) =>
    jacobian.map((b) => {
      let sum = 0;
      for (let i = 0; i < order; i++) {
        if (a[i] === 0) continue;
        for (let k = 0; k < order; k++)
          if (b[k] !== 0) sum += a[i]! * b[k]! * covariance[i * order + k]!;
      }
      return sum;
    }),
  );
  if (rail) {
    const by = [-(ux * lx + uy * ly), uy * lx - ux * ly, 0];
    cov.forEach((row, i) => row.forEach((_, k) => (row[k]! += by[i]! * by[k]! * rail.variance)));
  }
  return {
    alongMm: along - target.placement.alongMm,
    acrossMm: across - target.placement.acrossMm,
    twistRad: wrapAngle(twist - degToRad(target.placement.twistDeg)),
    covariance: cov,
    jacobian,
  };
}
