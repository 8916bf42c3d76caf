import { chiSquareUpperTail } from "@/core/math/distributions";
import { choleskyInPlace, choleskyInverse, choleskySolve } from "@/core/math/linear";
import { SurveyError } from "./errors";
import {
  compileObservation,
  misclosure,
  newDesignRow,
  ROW_ROOM,
  type CompiledObservation,
  type DesignRow,
} from "./model";
import type { Adjustment, ObservationResult, SurveyNetwork } from "./types";
import { layOutUnknowns, type Unknowns } from "./unknowns";

/** |w| above this names a suspect: two-sided normal test at alpha = 0.1 % (Baarda 1968). */
const CRITICAL_W = 3.29;
/**
 * Non-centrality for alpha 0.1 % and power 80 % (Baarda 1968): a slip of so many sigma of a reading's
 * residual is found out four times of five.
 */
export const DETECTABLE = 4.13;
/**
 * Allowing for a slip in reading i lowers chi-square by w_i^2 (Baarda 1968), so two readings whose
 * w^2 differ by less than 2 ln 20 explain a contradiction with a likelihood ratio below 20: both
 * stay under suspicion.
 */
const SUSPICION_SPAN = 2 * Math.log(20);
/**
 * Beyond this |w| the contradiction is gross: the network is bent by it, and the residuals at the
 * bent solution no longer say whose it is. Each reading is then left out in turn, and what the rest
 * has to say without it decides.
 */
const GROSS_W = 12;
/**
 * Below this redundancy nothing checks the reading; w would be rounding noise over rounding noise.
 */
const UNCHECKED = 1e-9;

const MAX_ITERATIONS = 60;
/** A kept factor serves while each correction is at most this share of the one before. */
const CHORD_WHILE = 0.35;
/** A correction shorter than this ends the iteration. */
const STEP_DONE_MM = 1e-9;
/** A correction shorter than this that no longer shrinks has met the floor of the arithmetic. */
const STEP_FLOOR_MM = 1e-6;
/** Smallest pivot of the unit-diagonal normal matrix that still counts as determined. */
const PIVOT_FLOOR = 1e-12;

/**
 * Weighted non-linear least-squares adjustment of a planar network of points and rigid bodies.
 *
 * Gauss-Newton with step control; the normal matrix is scaled to a unit diagonal before its
 * Cholesky factorisation, so millimetres and radians mix without loss. The variance factor is taken
 * as known (1): sigmas are those of the instruments. Statistics follow Baarda (1968): redundancy
 * numbers, standardised residuals, data snooping, smallest detectable slip.
 *
 * @param network points, bodies and observations in mm and rad, vehicle axes
 * @returns adjusted coordinates with covariance (mm^2, mm rad, rad^2), statistics per reading,
 *   global test
 * @throws SurveyError naming the input at fault or the unknown the readings leave loose
 */
export function adjustNetwork(network: SurveyNetwork): Adjustment {
  const unknowns = layOutUnknowns(network);
  const observations: CompiledObservation[] = [];
  for (const o of network.observations) compileObservation(o, unknowns, observations);
  const ids = new Set<string>();
  for (const o of observations) {
    if (ids.has(o.id))
      throw new SurveyError("bad-input", o.id, `Two readings are called "${o.id}"; rename one.`);
    ids.add(o.id);
  }

  const { u, iterations, factor, scale } = solve(unknowns, observations);
  const covariance = unscale(choleskyInverse(factor, unknowns.order), scale, unknowns.order);
  const causes = causeResults(network, unknowns, u, covariance);
  const slips = causes.filter((_, i) => network.nuisances![i]!.maySlip);
  const statistics = judge(unknowns, observations, u, covariance, slips);
  if (statistics.residuals.some((r) => Math.abs(r.w) > GROSS_W))
    nameGross(unknowns, observations, statistics);

  const block = (row: number, size: number): number[][] =>
    Array.from({ length: size }, (_, i) =>
      Array.from({ length: size }, (_, j) => covariance[(row + i) * unknowns.order + row + j]!),
    );
  return {
    converged: true,
    iterations,
    points: network.points.map((p) => {
      const row = unknowns.index[p.id];
      if (row === undefined)
        return {
          id: p.id,
          xMm: p.xMm,
          yMm: p.yMm,
          covariance: [
            [0, 0],
            [0, 0],
          ],
        };
      return { id: p.id, xMm: u[row]!, yMm: u[row + 1]!, covariance: block(row, 2) };
    }),
    bodies: network.bodies.map((b) => {
      const row = unknowns.index[b.id]!;
      return {
        id: b.id,
        xMm: u[row]!,
        yMm: u[row + 1]!,
        headingRad: u[row + 2]!,
        covariance: block(row, 3),
      };
    }),
    nuisances: (network.nuisances ?? []).map(({ id }, i) => {
      const row = unknowns.index[id]!;
      const variance = covariance[row * unknowns.order + row]!;
      return { id, value: u[row]!, sigma: Math.sqrt(variance), result: causes[i]! };
    }),
    ...statistics,
    joint: { index: unknowns.index, order: unknowns.order, values: u, covariance },
  };
}

/** Sum of squared standardised misclosures and prior departures at `u`. */
function objective(
  unknowns: Unknowns,
  observations: CompiledObservation[],
  u: Float64Array,
): number {
  let sum = 0;
  for (const o of observations) sum += (misclosure(o, u, null) / o.sigma) ** 2;
  const { alone } = unknowns;
  for (let i = 0; i < alone.rows.length; i++)
    sum += alone.weight[i]! * (u[alone.rows[i]!]! - alone.start[i]!) ** 2;
  for (const { rows, start, weight } of unknowns.priors)
    for (let i = 0, k = 0; i < rows.length; i++)
      for (let j = 0; j < rows.length; j++, k++)
        sum += weight[k]! * (u[rows[i]!]! - start[i]!) * (u[rows[j]!]! - start[j]!);
  return sum;
}

/** The design matrix at one state, kept sparse: up to {@link ROW_ROOM} entries per reading. */
type Design = { counts: Int32Array; rows: Int32Array; values: Float64Array };

/**
 * g = -A^T P l at `u`, with the priors' share. The misclosures l are those at `u`; the derivatives
 * A are those kept in `design`, or, when `fresh`, those at `u`, which then replace the kept ones.
 */
function gradientAt(
  unknowns: Unknowns,
  observations: CompiledObservation[],
  design: Design,
  u: Float64Array,
  g: Float64Array,
  fresh: DesignRow | null,
): void {
  g.fill(0);
  for (let k = 0; k < observations.length; k++) {
    const o = observations[k]!;
    const wl = misclosure(o, u, fresh) / (o.sigma * o.sigma);
    if (fresh) keepRow(design, k, fresh);
    for (let a = k * ROW_ROOM; a < k * ROW_ROOM + design.counts[k]!; a++)
      g[design.rows[a]!]! -= design.values[a]! * wl;
  }
  const { alone } = unknowns;
  for (let i = 0; i < alone.rows.length; i++) {
    const r = alone.rows[i]!;
    g[r]! -= alone.weight[i]! * (u[r]! - alone.start[i]!);
  }
  for (const { rows, start, weight } of unknowns.priors)
    for (let i = 0, k = 0; i < rows.length; i++)
      for (let j = 0; j < rows.length; j++, k++)
        g[rows[i]!]! -= weight[k]! * (u[rows[j]!]! - start[j]!);
}

function keepRow(design: Design, k: number, row: DesignRow): void {
  design.counts[k] = row.count;
  for (let a = 0; a < row.count; a++) {
    design.rows[k * ROW_ROOM + a] = row.rows[a]!;
    design.values[k * ROW_ROOM + a] = row.values[a]!;
  }
}

/** Fills the lower triangle of N = A^T P A from the kept design, with the priors' weights. */
function formNormals(
  unknowns: Unknowns,
  observations: CompiledObservation[],
  design: Design,
  normal: Float64Array,
): void {
  const n = unknowns.order;
  normal.fill(0);
  for (let k = 0; k < observations.length; k++) {
    const weight = 1 / (observations[k]!.sigma * observations[k]!.sigma);
    const [from, to] = [k * ROW_ROOM, k * ROW_ROOM + design.counts[k]!];
    for (let a = from; a < to; a++) {
      const i = design.rows[a]!;
      const wi = design.values[a]! * weight;
      for (let b = from; b < to; b++) {
        const j = design.rows[b]!;
        if (j <= i) normal[i * n + j]! += wi * design.values[b]!;
      }
    }
  }
  const { alone } = unknowns;
  for (let i = 0; i < alone.rows.length; i++) normal[alone.rows[i]! * (n + 1)]! += alone.weight[i]!;
  for (const { rows, weight } of unknowns.priors)
    for (let i = 0, k = 0; i < rows.length; i++)
      for (let j = 0; j < rows.length; j++, k++)
        if (rows[j]! <= rows[i]!) normal[rows[i]! * n + rows[j]!]! += weight[k]!;
}

/**
 * Gauss-Newton with the natural monotonicity test (Deuflhard 1974): a fraction of the step is taken
 * when the correction that the same factor would give next is shorter than this one. Unlike a test
 * on the objective it walks along the narrow curved valleys that a tight reading cuts into a wide
 * prior, instead of creeping.
 *
 * After a full step the factor still serves: while corrections with fresh derivatives shrink fast
 * under it they are taken one after the other (chord steps, Ortega & Rheinboldt 1970), each a
 * fraction of the cost of a new one.
 */
function solve(unknowns: Unknowns, observations: CompiledObservation[]) {
  const n = unknowns.order;
  let u = unknowns.start.slice();
  let trial = new Float64Array(n);
  const normal = new Float64Array(n * n);
  const step = new Float64Array(n);
  const next = new Float64Array(n);
  const scale = new Float64Array(n);
  const row = newDesignRow();
  const design: Design = {
    counts: new Int32Array(observations.length),
    rows: new Int32Array(observations.length * ROW_ROOM),
    values: new Float64Array(observations.length * ROW_ROOM),
  };
  const gradient = new Float64Array(n);
  const arm = unknowns.arms;

  /**
   * Solves for the correction that belongs to `gradient` under the present factor, into `out`; its
   * length in mm.
   */
  const correction = (out: Float64Array): number => {
    for (let i = 0; i < n; i++) out[i] = gradient[i]! * scale[i]!;
    choleskySolve(normal, n, out);
    let square = 0;
    for (let i = 0; i < n; i++) {
      out[i]! *= scale[i]!;
      square += (out[i]! * arm[i]!) ** 2;
    }
    return Math.sqrt(square);
  };

  for (let iteration = 1; iteration <= MAX_ITERATIONS; iteration++) {
    gradientAt(unknowns, observations, design, u, gradient, row);
    formNormals(unknowns, observations, design, normal);
    for (let i = 0; i < n; i++) {
      const d = normal[i * n + i]!;
      if (!(d > 0)) throw loose(unknowns, i, observations.length);
      scale[i] = 1 / Math.sqrt(d);
    }
    for (let i = 0; i < n; i++)
      for (let j = 0; j <= i; j++) normal[i * n + j]! *= scale[i]! * scale[j]!;
    const failed = choleskyInPlace(normal, n, PIVOT_FLOOR);
    if (failed >= 0) throw loose(unknowns, loosest(normal, n, failed), observations.length);
    let length = correction(step);
    if (!Number.isFinite(length)) break;

    let fraction = 1;
    for (; fraction > 1e-5; fraction /= 2) {
      for (let i = 0; i < n; i++) trial[i] = u[i]! + fraction * step[i]!;
      if (length < STEP_DONE_MM) break;
      gradientAt(unknowns, observations, design, trial, gradient, null);
      if (correction(next) <= (1 - fraction / 4) * length) break;
      if (length < STEP_FLOOR_MM) return { u, iterations: iteration, factor: normal, scale };
    }
    if (fraction <= 1e-5) break;
    [u, trial] = [trial, u];
    if (length < STEP_DONE_MM) return { u, iterations: iteration, factor: normal, scale };

    // Chord steps, only after a full step.
    while (fraction === 1) {
      gradientAt(unknowns, observations, design, u, gradient, row);
      const shorter = correction(next);
      if (!(shorter < CHORD_WHILE * length)) break;
      for (let i = 0; i < n; i++) u[i]! += next[i]!;
      length = shorter;
      if (length < STEP_DONE_MM) break;
    }
  }
  // A gross slip bends the problem so far that Gauss-Newton steps away from the solution: go on
  // with the whole Hessian.
  const kept: Kept = { design, normal, scale, gradient, row, arm };
  const far = newton(unknowns, observations, unknowns.start.slice(), kept);
  if (far) return far;
  const worst = worstReading(observations, u);
  throw new SurveyError(
    "no-convergence",
    worst,
    `The readings do not settle on one position; check reading "${worst}" first, then the start.`,
  );
}

/** Room that the two iterations share. */
type Kept = {
  design: Design;
  normal: Float64Array;
  scale: Float64Array;
  gradient: Float64Array;
  row: DesignRow;
  arm: Float64Array;
};

const MOST_NEWTON = 200;
/** Step of the differences that give the Hessian: 1e-3 mm, or as much on the one-metre arm. */
const HESSIAN_STEP_MM = 1e-3;

/**
 * Damped Newton steps on the objective itself, for readings so wrong that their residuals bend it:
 * Gauss-Newton leaves out the sum of residual times curvature, which then outweighs what it keeps.
 * The Hessian is taken from differences of the exact gradient; where it is not positive, or a step
 * does not lower the objective, it is damped (Levenberg 1944, Marquardt 1963) and tried again.
 *
 * @returns null when there is no minimum to be reached; on success the normal matrix at the
 *   solution, factored and scaled
 */
function newton(
  unknowns: Unknowns,
  observations: CompiledObservation[],
  start: Float64Array,
  kept: Kept,
) {
  const { design, normal, scale, gradient, row, arm } = kept;
  const n = unknowns.order;
  let u = start;
  let value = objective(unknowns, observations, u);
  const [plus, minus] = [new Float64Array(n), new Float64Array(n)];
  const hessian = new Float64Array(n * n);
  const damped = new Float64Array(n * n);
  const step = new Float64Array(n);
  let damping = 1e-3;
  for (let iteration = 1; iteration <= MOST_NEWTON; iteration++) {
    for (let j = 0; j < n; j++) {
      const h = HESSIAN_STEP_MM / arm[j]!;
      const moved = u.slice();
      moved[j] = u[j]! + h;
      gradientAt(unknowns, observations, design, moved, plus, row);
      moved[j] = u[j]! - h;
      gradientAt(unknowns, observations, design, moved, minus, row);
      // The gradient kept here points downhill: its slope is the Hessian's negative.
      for (let i = 0; i < n; i++) hessian[i * n + j] = (minus[i]! - plus[i]!) / (2 * h);
    }
    gradientAt(unknowns, observations, design, u, gradient, row);
    formNormals(unknowns, observations, design, normal);
    let lower = false;
    for (; damping < 1e12; damping *= 8) {
      for (let i = 0; i < n; i++)
        for (let j = 0; j <= i; j++)
          damped[i * n + j] =
            (hessian[i * n + j]! + hessian[j * n + i]!) / 2 +
            (i === j ? damping * normal[i * n + i]! : 0);
      for (let i = 0; i < n; i++) scale[i] = 1 / Math.sqrt(normal[i * n + i]!);
      for (let i = 0; i < n; i++)
        for (let j = 0; j <= i; j++) damped[i * n + j]! *= scale[i]! * scale[j]!;
      if (choleskyInPlace(damped, n, PIVOT_FLOOR) >= 0) continue;
      for (let i = 0; i < n; i++) step[i] = gradient[i]! * scale[i]!;
      choleskySolve(damped, n, step);
      const next = u.slice();
      for (let i = 0; i < next.length; i++) next[i]! += step[i]! * scale[i]!;
      const nextValue = objective(unknowns, observations, next);
      if (!(nextValue <= value)) continue;
      const length = Math.hypot(...Array.from(step, (s, i) => s * scale[i]! * arm[i]!));
      [u, value] = [next, nextValue];
      lower = true;
      damping = Math.max(damping / 32, 1e-14);
      if (length < STEP_FLOOR_MM) return factorAt(unknowns, observations, u, iteration, kept);
      break;
    }
    // No step lowers it any more: that is the floor of the arithmetic, if the last steps were
    // small.
    if (!lower)
      return smallGradient(gradient, normal, n)
        ? factorAt(unknowns, observations, u, iteration, kept)
        : null;
  }
  return null;
}

/**
 * Whether what is left of the gradient moves no unknown by more than a thousandth of its own
 * uncertainty.
 */
function smallGradient(gradient: Float64Array, normal: Float64Array, n: number): boolean {
  for (let i = 0; i < n; i++)
    if (Math.abs(gradient[i]!) > 1e-3 * Math.sqrt(normal[i * n + i]!)) return false;
  return true;
}

/**
 * The normal matrix at a solution, scaled and factored, as the statistics want it; null where it is
 * singular.
 */
function factorAt(
  unknowns: Unknowns,
  observations: CompiledObservation[],
  u: Float64Array,
  iterations: number,
  { design, normal, scale, gradient, row }: Kept,
) {
  const n = unknowns.order;
  gradientAt(unknowns, observations, design, u, gradient, row);
  formNormals(unknowns, observations, design, normal);
  for (let i = 0; i < n; i++) scale[i] = 1 / Math.sqrt(normal[i * n + i]!);
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) normal[i * n + j]! *= scale[i]! * scale[j]!;
  return choleskyInPlace(normal, n, PIVOT_FLOOR) >= 0
    ? null
    : { u, iterations, factor: normal, scale };
}

/**
 * After a failed pivot: the null vector of the leading block tells which unknowns move together;
 * name the largest.
 */
function loosest(factor: Float64Array, n: number, failed: number): number {
  const v = new Float64Array(n);
  // Row `failed` already holds L21; the null vector is (-L11^-T L21, 1).
  for (let i = failed - 1; i >= 0; i--) {
    let s = -factor[failed * n + i]!;
    for (let k = i + 1; k < failed; k++) s -= factor[k * n + i]! * v[k]!;
    v[i] = s / factor[i * n + i]!;
  }
  let best = failed;
  let largest = 1 + 1e-6; // the failed unknown itself has component 1
  for (let i = 0; i < failed; i++)
    if (Math.abs(v[i]!) > largest) [best, largest] = [i, Math.abs(v[i]!)];
  return best;
}

function loose(unknowns: Unknowns, i: number, readings: number): SurveyError {
  const name = unknowns.names[i]!;
  return new SurveyError(
    "loose",
    name,
    `${readings} reading${readings === 1 ? "" : "s"} leave "${name}" loose; add a reading that fixes it.`,
  );
}

function worstReading(observations: CompiledObservation[], u: Float64Array): string {
  let worst = "";
  let largest = -1;
  for (const o of observations) {
    const size = Math.abs(misclosure(o, u, null) / o.sigma);
    if (size > largest) [worst, largest] = [o.id, size];
  }
  return worst;
}

function unscale(inverse: Float64Array, scale: Float64Array, n: number): Float64Array {
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) inverse[i * n + j]! *= scale[i]! * scale[j]!;
  return inverse;
}

/**
 * Names the suspects of a gross contradiction by leaving out one reading after the other: what
 * remains of chi-square is the exact test whose linear form is w^2 (the likelihood ratio of a slip
 * in that reading), whatever the slip has bent.
 */
function nameGross(
  unknowns: Unknowns,
  observations: CompiledObservation[],
  statistics: { suspect: string | null; suspectGroup: string[]; chiSquare: { value: number } },
): void {
  const left = observations.flatMap((o, k) => {
    const others = observations.filter((_, i) => i !== k);
    try {
      const { u } = solve(unknowns, others);
      return [{ id: o.id, value: objective(unknowns, others, u) }];
    } catch (error) {
      // Without it the rest does not hold together: it cannot be told whether it is wrong.
      if (error instanceof SurveyError) return [];
      throw error;
    }
  });
  const best = Math.min(...left.map((l) => l.value));
  // Where leaving none out helps, more than one reading is wrong: the residuals' own word stands.
  if (left.length === 0 || best > statistics.chiSquare.value / 2) return;
  const group = left
    .filter((l) => l.value - best < SUSPICION_SPAN)
    .sort((a, b) => a.value - b.value);
  statistics.suspect = group[0]!.id;
  statistics.suspectGroup = group.map((l) => l.id);
}

/** What Baarda's theory says of one figure, from its residual, its sigma and its redundancy. */
function resultOf(id: string, residual: number, sigma: number, share: number): ObservationResult {
  const redundancy = Math.min(1, Math.max(0, share));
  const checked = redundancy > UNCHECKED;
  const root = sigma * Math.sqrt(redundancy);
  return {
    id,
    residual,
    redundancy,
    w: checked ? residual / root : 0,
    smallestDetectable: checked ? (DETECTABLE * sigma * sigma) / root : Infinity,
  };
}

/**
 * The same for causes whose prior stands alone: each as if it had been read to be where its prior
 * has it. Null where nothing was known of it, or only together with others.
 */
function causeResults(
  network: SurveyNetwork,
  unknowns: Unknowns,
  u: Float64Array,
  covariance: Float64Array,
): (ObservationResult | null)[] {
  const joint = new Set(network.priors?.flatMap((p) => p.ids));
  return (network.nuisances ?? []).map(({ id, value, sigma }) => {
    if (sigma === undefined || joint.has(id)) return null;
    const row = unknowns.index[id]!;
    const share = 1 - covariance[row * unknowns.order + row]! / (sigma * sigma);
    return resultOf(id, u[row]! - value, sigma, share);
  });
}

/**
 * Redundancy, standardised residuals, the global test and the suspect.
 *
 * @param causes what may slip beside the readings
 */
function judge(
  unknowns: Unknowns,
  observations: CompiledObservation[],
  u: Float64Array,
  covariance: Float64Array,
  causes: readonly (ObservationResult | null)[],
) {
  const n = unknowns.order;
  const row = newDesignRow();
  const residuals: ObservationResult[] = [];
  let suspect: string | null = null;
  let largest = CRITICAL_W;

  for (const o of observations) {
    const residual = misclosure(o, u, row);
    // r = 1 - a Q a^T / sigma^2 : the diagonal of Q_vv P
    let aQa = 0;
    for (let a = 0; a < row.count; a++)
      for (let b = 0; b < row.count; b++)
        aQa += row.values[a]! * row.values[b]! * covariance[row.rows[a]! * n + row.rows[b]!]!;
    const result = resultOf(o.id, residual, o.sigma, 1 - aQa / (o.sigma * o.sigma));
    residuals.push(result);
    if (Math.abs(result.w) > largest) [suspect, largest] = [o.id, Math.abs(result.w)];
  }
  const named = [...residuals];
  for (const c of causes) {
    if (!c) continue;
    named.push(c);
    if (Math.abs(c.w) > largest) [suspect, largest] = [c.id, Math.abs(c.w)];
  }

  const value = objective(unknowns, observations, u);
  const priorRows =
    unknowns.priors.reduce((sum, p) => sum + p.rows.length, 0) + unknowns.alone.rows.length;
  const degreesOfFreedom = Math.max(0, observations.length + priorRows - n);
  return {
    residuals,
    chiSquare: { value, degreesOfFreedom, p: chiSquareUpperTail(value, degreesOfFreedom) },
    suspect,
    suspectGroup: suspect
      ? named
          .filter((r) => largest ** 2 - r.w ** 2 < SUSPICION_SPAN)
          .sort((a, b) => Math.abs(b.w) - Math.abs(a.w))
          .map((r) => r.id)
      : [],
  };
}
