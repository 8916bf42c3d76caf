import { compileObservation, misclosure, newDesignRow } from "./model";
import type { Adjustment, Reading, SurveyNetwork } from "./types";
import { layoutOf } from "./unknowns";

/** A reading not yet taken: what it would show, and how it hangs on the unknowns. */
export type Prediction = {
  /** mm, or rad for a heading; of a cause its own unit. */
  value: number;
  /** Derivatives by the unknowns, in the order of `adjustment.joint`. */
  gradient: Float64Array;
};

/**
 * What readings would show at an adjusted state.
 *
 * A network is taken as it was when it was first asked: it must not be changed in place.
 *
 * @param network the network that was adjusted (points and bodies; its observations are not used)
 * @param at adjusted coordinates: an {@link Adjustment}, or any state with the same ids; what it
 *   does not name stays where the network starts it, or where `joint.values` has it
 * @param readings to predict; their values are ignored
 * @throws SurveyError for unknown names or degenerate readings
 */
export function predictReadings(
  network: SurveyNetwork,
  at: Pick<Adjustment, "points" | "bodies"> & {
    nuisances?: readonly { id: string; value: number }[];
    joint?: Pick<Adjustment["joint"], "values">;
  },
  readings: Reading[],
): Prediction[] {
  const unknowns = layoutOf(network);
  const u = new Float64Array(at.joint?.values ?? unknowns.start);
  for (const p of at.points) {
    const row = unknowns.index[p.id];
    if (row !== undefined) u.set([p.xMm, p.yMm], row);
  }
  for (const b of at.bodies) {
    const row = unknowns.index[b.id];
    if (row !== undefined) u.set([b.xMm, b.yMm, b.headingRad], row);
  }
  for (const n of at.nuisances ?? []) {
    const row = unknowns.index[n.id];
    if (row !== undefined) u[row] = n.value;
  }
  const row = newDesignRow();
  return readings.map((o) => {
    const compiled = compileObservation(o, unknowns, [])[0]!;
    const value = misclosure(compiled, u, row) + compiled.value;
    const gradient = new Float64Array(unknowns.order);
    for (let k = 0; k < row.count; k++) gradient[row.rows[k]!] = row.values[k]!;
    return { value, gradient };
  });
}
