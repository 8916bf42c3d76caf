/**
 * Dense symmetric linear algebra for networks of a few dozen unknowns.
 *
 * Matrices are row-major `Float64Array`s of size n*n. Nothing here allocates inside a loop over
 * observations.
 */

/**
 * Cholesky factorisation A = L L^T, in place: the lower triangle of `a` becomes L.
 *
 * @param a symmetric matrix, n*n, only the lower triangle is read
 * @param n order
 * @param pivotFloor smallest pivot (before the root) that still counts as positive
 * @returns -1 when the factorisation succeeded, otherwise the index of the first pivot at or below
 *   the floor; rows before it then hold the valid leading factor
 */
export function choleskyInPlace(a: Float64Array, n: number, pivotFloor: number): number {
  for (let j = 0; j < n; j++) {
    const jn = j * n;
    let pivot = a[jn + j]!;
    for (let k = 0; k < j; k++) pivot -= a[jn + k]! * a[jn + k]!;
    if (!(pivot > pivotFloor)) return j;
    const root = Math.sqrt(pivot);
    a[jn + j] = root;
    for (let i = j + 1; i < n; i++) {
      const iN = i * n;
      let s = a[iN + j]!;
      for (let k = 0; k < j; k++) s -= a[iN + k]! * a[jn + k]!;
      a[iN + j] = s / root;
    }
  }
  return -1;
}

/**
 * Solves L L^T x = b in place, given the factor of {@link choleskyInPlace}. `order` may be a
 * leading part.
 */
export function choleskySolve(l: Float64Array, n: number, b: Float64Array, order = n): void {
  for (let i = 0; i < order; i++) {
    let s = b[i]!;
    for (let k = 0; k < i; k++) s -= l[i * n + k]! * b[k]!;
    b[i] = s / l[i * n + i]!;
  }
  for (let i = order - 1; i >= 0; i--) {
    let s = b[i]!;
    for (let k = i + 1; k < order; k++) s -= l[k * n + i]! * b[k]!;
    b[i] = s / l[i * n + i]!;
  }
}

/** The full inverse (L L^T)^-1 as a new symmetric matrix. */
export function choleskyInverse(l: Float64Array, n: number): Float64Array {
  // Invert L into a lower triangle M, then form M^T M.
  const m = new Float64Array(n * n);
  for (let j = 0; j < n; j++) {
    m[j * n + j] = 1 / l[j * n + j]!;
    for (let i = j + 1; i < n; i++) {
      let s = 0;
      for (let k = j; k < i; k++) s -= l[i * n + k]! * m[k * n + j]!;
      m[i * n + j] = s / l[i * n + i]!;
    }
  }
  const inverse = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) {
      let s = 0;
      for (let k = i; k < n; k++) s += m[k * n + i]! * m[k * n + j]!;
      inverse[i * n + j] = s;
      inverse[j * n + i] = s;
    }
  }
  return inverse;
}

/**
 * Inverse of a small symmetric positive definite matrix given as rows; null when it is not positive
 * definite.
 */
export function invertSpd(rows: readonly (readonly number[])[]): number[][] | null {
  const n = rows.length;
  const a = Float64Array.from(rows.flat());
  if (a.length !== n * n || a.some((v) => !Number.isFinite(v))) return null;
  // Scale to a unit diagonal first: mm^2 and rad^2 differ by six orders of magnitude.
  const scale = rows.map((row, i) => 1 / Math.sqrt(row[i]!));
  if (scale.some((s) => !Number.isFinite(s))) return null;
  for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) a[i * n + j]! *= scale[i]! * scale[j]!;
  for (let i = 0; i < n; i++)
    for (let j = 0; j < i; j++) if (Math.abs(a[i * n + j]! - a[j * n + i]!) > 1e-9) return null;
  if (choleskyInPlace(a, n, 1e-14) >= 0) return null;
  const inverse = choleskyInverse(a, n);
  return rows.map((_, i) => rows.map((_, j) => inverse[i * n + j]! * scale[i]! * scale[j]!));
}

/** Eigenvalues (descending) and the direction of the larger one, of a symmetric 2x2 matrix. */
export function eigen2(
  xx: number,
  xy: number,
  yy: number,
): { large: number; small: number; angleRad: number } {
  const mean = (xx + yy) / 2;
  const radius = Math.hypot((xx - yy) / 2, xy);
  return {
    large: mean + radius,
    small: Math.max(0, mean - radius),
    angleRad: 0.5 * Math.atan2(2 * xy, xx - yy),
  };
}

/** Wraps an angle to (-pi, pi]. */
export function wrapAngle(rad: number): number {
  const turned = rad % (2 * Math.PI);
  if (turned > Math.PI) return turned - 2 * Math.PI;
  if (turned <= -Math.PI) return turned + 2 * Math.PI;
  return turned;
}
