import type { Observation, Reading, SurveyNetwork, Tie } from "@/core/survey";

/**
 * A second, unrelated way to the same answer, for tests: models written out as plain geometry,
 * derivatives by Richardson-extrapolated differences, the linear problem by Householder QR of the
 * whitened design (never forming normal equations).
 */
export type Truth = Record<string, number[]>;

function locate(ref: string, network: SurveyNetwork, at: Truth): [number, number] {
  const [bodyId, pointId] = ref.split(".");
  const body = network.bodies.find((b) => b.id === bodyId);
  if (!body || !pointId) {
    const p = network.points.find((q) => q.id === ref)!;
    const [x, y] = at[ref] ?? [p.xMm, p.yMm];
    return [x!, y!];
  }
  const p = body.points.find((q) => q.id === pointId)!;
  const [ownX, ownY] = at[ref] ?? [p.xMm, p.yMm];
  const leaning = (axis: "xMm" | "yMm"): number =>
    (p.by ?? []).reduce((sum, s) => sum + s[axis] * at[s.cause]![0]!, 0);
  const [px, py] = [ownX! + leaning("xMm"), ownY! + leaning("yMm")];
  const [x, y, t] = at[bodyId!] ?? [body.xMm, body.yMm, body.headingRad];
  return [x! + px * Math.cos(t!) - py * Math.sin(t!), y! + px * Math.sin(t!) + py * Math.cos(t!)];
}

/** What a perfect instrument would read, with what it shares with others of its kind. */
export function observe(o: Reading, network: SurveyNetwork, at: Truth): number {
  const scale = "scale" in o && o.scale ? at[o.scale]![0]! : 0;
  const causes = "causes" in o ? (o.causes ?? []) : [];
  return causes.reduce(
    (sum, { cause, per }) => sum + per * at[cause]![0]!,
    (1 + scale) * measured(o, network, at),
  );
}

/** A reading with the figure somebody read. */
export const withValue = (o: Reading, value: number): Reading =>
  o.kind === "heading"
    ? { ...o, valueRad: value }
    : o.kind === "cause"
      ? { ...o, value }
      : { ...o, valueMm: value };

/** The figure of a reading. */
export const valueOf = (o: Reading): number =>
  o.kind === "heading" ? o.valueRad : o.kind === "cause" ? o.value : o.valueMm;

/** The bare geometry. */
function measured(o: Reading, network: SurveyNetwork, at: Truth): number {
  const where = (ref: string) => locate(ref, network, at);
  switch (o.kind) {
    case "distance": {
      const [a, b] = [where(o.from), where(o.to)];
      return Math.sqrt((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2);
    }
    case "offset":
    case "station": {
      const [p, a, b] = [where(o.point), where(o.lineFrom), where(o.lineTo)];
      const bearing = Math.atan2(b[1] - a[1], b[0] - a[0]);
      const away = Math.atan2(p[1] - a[1], p[0] - a[0]) - bearing;
      const far = Math.hypot(p[0] - a[0], p[1] - a[1]);
      // A station from beside the line is the difference of two stations.
      if (o.kind === "station" && o.origin)
        return (
          measured({ ...o, origin: undefined }, network, at) -
          measured({ ...o, origin: undefined, point: o.origin }, network, at)
        );
      return far * (o.kind === "offset" ? Math.sin(away) : Math.cos(away));
    }
    case "range": {
      const [f, c] = [where(o.from), where(o.panelPoint)];
      const on = network.bodies.find((b) => b.id === o.from.split(".")[0])!;
      const heading = at[on.id]?.[2] ?? on.headingRad;
      // Perpendicular distance to the panel over the cosine of the incidence.
      const gap =
        (c[0] - f[0]) * Math.cos(o.panelHeadingRad) + (c[1] - f[1]) * Math.sin(o.panelHeadingRad);
      return gap / Math.cos(heading + o.directionRad - o.panelHeadingRad);
    }
    case "returned": {
      // The light comes back as if from the image of its source behind the mirror.
      const [f, c] = [where(o.from), where(o.panelPoint)];
      const on = network.bodies.find((b) => b.id === o.from.split(".")[0])!;
      const out = (at[on.id]?.[2] ?? on.headingRad) + o.directionRad;
      const n = [Math.cos(o.panelHeadingRad), Math.sin(o.panelHeadingRad)] as const;
      const behind = (f[0] - c[0]) * n[0] + (f[1] - c[1]) * n[1];
      const image = [f[0] - 2 * behind * n[0] - f[0], f[1] - 2 * behind * n[1] - f[1]] as const;
      const far = -behind / (Math.cos(out) * n[0] + Math.sin(out) * n[1]);
      const met = [far * Math.cos(out), far * Math.sin(out)] as const;
      // In the beam's own axes, ahead and to its right: where the line from the image through where
      // it met the mirror comes back abreast of the source.
      const ahead = (p: readonly [number, number]) => p[0] * Math.cos(out) + p[1] * Math.sin(out);
      const right = (p: readonly [number, number]) => p[0] * Math.sin(out) - p[1] * Math.cos(out);
      const share = ahead(image) / (ahead(image) - ahead(met));
      return right(image) + share * (right(met) - right(image));
    }
    case "heading":
      return at[o.body]![2]!;
    case "cause":
      return at[o.of]![0]! - (o.minus === undefined ? 0 : at[o.minus]![0]!);
  }
}

/**
 * How far a tie is from holding, each part over its own sigma. A carried body is worked out in
 * complex numbers: z' = (z + by e^(i t) + also - d) e^(-i f).
 */
function loose(o: Tie, network: SurveyNetwork, at: Truth): number[] {
  if (o.kind === "coincide") {
    const [a, b] = [locate(o.a, network, at), locate(o.b, network, at)];
    return [(b[0] - a[0]) / o.sigma, (b[1] - a[1]) / o.sigma];
  }
  const [x, y, t] = at[o.from] as [number, number, number];
  const [dx, dy, f] = (o.motion ? at[o.motion] : [0, 0, 0]) as [number, number, number];
  const far = Math.hypot(o.by.xMm, o.by.yMm);
  const way = Math.atan2(o.by.yMm, o.by.xMm) + t;
  const re = x + far * Math.cos(way) + (o.alsoMm?.xMm ?? 0) - dx;
  const im = y + far * Math.sin(way) + (o.alsoMm?.yMm ?? 0) - dy;
  const [radius, angle] = [Math.hypot(re, im), Math.atan2(im, re) - f];
  const is = at[o.to] as [number, number, number];
  const turn = is[2] - (t + o.by.headingRad - f);
  return [
    (is[0] - radius * Math.cos(angle)) / o.sigma,
    (is[1] - radius * Math.sin(angle)) / o.sigma,
    Math.atan2(Math.sin(turn), Math.cos(turn)) / o.sigmaRad,
  ];
}

const isTie = (o: Observation): o is Tie => o.kind === "coincide" || o.kind === "carried";

type Column = { id: string; k: number; step: number };

/** Least squares by QR Gauss-Newton on whitened residuals, priors as extra rows. */
export function independentSolution(network: SurveyNetwork): Truth {
  const at: Truth = {};
  const columns: Column[] = [];
  for (const p of network.points) {
    at[p.id] = [p.xMm, p.yMm];
    if (!p.fixed) columns.push({ id: p.id, k: 0, step: 0.5 }, { id: p.id, k: 1, step: 0.5 });
  }
  for (const b of network.bodies) {
    at[b.id] = [b.xMm, b.yMm, b.headingRad];
    columns.push(
      { id: b.id, k: 0, step: 0.5 },
      { id: b.id, k: 1, step: 0.5 },
      { id: b.id, k: 2, step: 1e-3 },
    );
    for (const p of b.points) {
      if (p.sigmaMm === undefined) continue;
      const id = `${b.id}.${p.id}`;
      at[id] = [p.xMm, p.yMm];
      columns.push({ id, k: 0, step: 0.5 }, { id, k: 1, step: 0.5 });
    }
  }
  for (const n of network.nuisances ?? []) {
    at[n.id] = [n.value];
    columns.push({ id: n.id, k: 0, step: n.unit === "mm" ? 0.5 : 1e-3 });
  }
  const start = structuredClone(at);
  const together = new Set(network.priors?.flatMap((p) => p.ids));
  const apart = (id: string): number[] => at[id]!.map((v, i) => v - start[id]![i]!);
  const residuals = (): number[] => {
    const r = network.observations.flatMap((o) => {
      if (isTie(o)) return loose(o, network, at);
      const d = observe(o, network, at) - valueOf(o);
      return (o.kind === "heading" ? Math.atan2(Math.sin(d), Math.cos(d)) : d) / o.sigma;
    });
    const alone = (id: string, sigma: number | undefined): void => {
      if (sigma !== undefined && !together.has(id))
        r.push(...at[id]!.map((v, i) => (v - start[id]![i]!) / sigma));
    };
    for (const p of network.points) if (!p.fixed) alone(p.id, p.sigmaMm);
    for (const n of network.nuisances ?? []) alone(n.id, n.sigma);
    for (const b of network.bodies) {
      for (const p of b.points) alone(`${b.id}.${p.id}`, p.sigmaMm);
      if (b.priorCovariance && !together.has(b.id))
        r.push(...whiten(b.priorCovariance, apart(b.id)));
    }
    for (const { covariance, ids } of network.priors ?? [])
      r.push(...whiten(covariance, ids.flatMap(apart)));
    return r;
  };
  const slope = (c: Column, h: number): number[] => {
    const v = at[c.id]!;
    const x = v[c.k]!;
    v[c.k] = x + h;
    const plus = residuals();
    v[c.k] = x - h;
    const minus = residuals();
    v[c.k] = x;
    return plus.map((p, i) => (p - minus[i]!) / (2 * h));
  };
  for (let round = 0; round < 25; round++) {
    const jacobian = columns.map((c) => {
      const [coarse, fine] = [slope(c, c.step), slope(c, c.step / 2)];
      return fine.map((f, i) => (4 * f - coarse[i]!) / 3);
    });
    const step = leastSquaresByQr(
      jacobian,
      residuals().map((r) => -r),
    );
    columns.forEach((c, i) => (at[c.id]![c.k]! += step[i]!));
  }
  return at;
}

/** L^-1 d with L L^T = covariance, by forward substitution. */
function whiten(covariance: number[][], d: number[]): number[] {
  const l: number[][] = [];
  const out: number[] = [];
  covariance.forEach((row, i) => {
    l.push([]);
    for (let j = 0; j <= i; j++) {
      let s = row[j]!;
      for (let k = 0; k < j; k++) s -= l[i]![k]! * l[j]![k]!;
      l[i]!.push(i === j ? Math.sqrt(s) : s / l[j]![j]!);
    }
    out.push((d[i]! - out.reduce((s, v, k) => s + v * l[i]![k]!, 0)) / l[i]![i]!);
  });
  return out;
}

/** Minimises |J x - b| by Householder reflections; `columns` are the columns of J. */
export function leastSquaresByQr(columns: number[][], b: number[]): number[] {
  const a = columns.map((c) => [...c]);
  const y = [...b];
  const n = a.length;
  for (let k = 0; k < n; k++) {
    const norm = Math.hypot(...a[k]!.slice(k)) * (a[k]![k]! > 0 ? -1 : 1);
    const v = a[k]!.map((x, i) => (i < k ? 0 : i === k ? x - norm : x));
    const vv = v.reduce((s, x) => s + x * x, 0);
    for (const target of [...a.slice(k), y]) {
      const f = (2 * v.reduce((s, x, i) => s + x * target[i]!, 0)) / vv;
      v.forEach((x, i) => (target[i]! -= f * x));
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--) {
    let s = y[i]!;
    for (let k = i + 1; k < n; k++) s -= a[k]![i]! * x[k]!;
    x[i] = s / a[i]![i]!;
  }
  return x;
}
