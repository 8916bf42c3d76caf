import { spreadOf, watch } from "./ewma";
import { partsOf, type Parts } from "./mixed";

/** One handed-over calibration, as the shop's numbers see it. */
export type Handed = {
  at: string;
  attempts: number;
  passed: boolean;
  causes: readonly string[];
  declined: readonly string[];
  minutes: Readonly<Partial<Record<string, number>>>;
  school: string;
  model: string;
  stand: string;
  fitter: string;
  yaw: { off: number; sigma: number } | null;
  /** Standardised residuals by instrument; not of what an older program kept. */
  residuals?: Readonly<Record<string, number>>;
};

/**
 * What of a stand is watched: the yaw its jobs learned less the one foretold, and of its zero check how
 * far its scale and its laser are from their own. Of an instrument: its standardised residuals.
 */
export type Watched = "yaw" | "scale" | "dot" | "residual";

/** A row of figures of one thing, under watch. */
export type Drift = {
  id: string;
  /** What of it is watched. */
  what: Watched;
  unit: "°" | "mm" | "σ";
  points: { at: string; value: number; mean: number; lower: number; upper: number; out: boolean }[];
  /** When it first went out and did not come back; null while it is in order. */
  since: string | null;
  /** Too few figures for limits. */
  few: boolean;
};

export type ShopNumbers = {
  calibrations: number;
  /** By month: how many, and how many of them passed at the first attempt. */
  months: { month: string; count: number; first: number }[];
  /** Mean minutes of work by stage, over jobs of one way of setting out. */
  minutes: { school: string; jobs: number; stages: Record<string, number> }[];
  /** What refusals came from most likely, and how often. */
  causes: { cause: string; count: number }[];
  declined: { reason: string; count: number }[];
  drifts: Drift[];
  parts: Parts | null;
};

/** How many of the last figures of a thing are shown. */
const SHOWN = 120;
/** Jobs further back say little of how a shop works today. */
const PARTS_OF_LAST = 2500;

/** Counts of words, the most frequent first. */
function counted(list: readonly string[]): { name: string; count: number }[] {
  const by = new Map<string, number>();
  for (const x of list) by.set(x, (by.get(x) ?? 0) + 1);
  return [...by]
    .map(([name, count]) => ({ name, count }))
    .sort((a, b) => b.count - a.count || a.name.localeCompare(b.name));
}

/** So many first figures say how a thing was when it was taken over. */
const FIRST = 20;

/**
 * What was foretold should be learned; scale, laser and residuals should stay as they were, not be
 * nothing: how they were is known no better than the mean of so few.
 */
function middleOf(
  what: Watched,
  values: readonly number[],
  sigma: number,
): [middle: number, sigma: number, how: undefined, more: { middleSigma: number }] {
  const first = values.slice(0, FIRST);
  return what === "yaw"
    ? [0, sigma, undefined, { middleSigma: 0 }]
    : [mean(first), sigma, undefined, { middleSigma: sigma / Math.sqrt(first.length) }];
}

const mean = (list: readonly number[]): number => list.reduce((s, x) => s + x, 0) / list.length;

/** As many digits as a chart can show. */
const short = (x: number): number => Math.round(x * 1e4) / 1e4;

/** A thing's figures under watch, about the middle they should have. */
export function driftOf(
  of: Pick<Drift, "id" | "what" | "unit">,
  rows: readonly { at: string; value: number }[],
): Drift {
  const values = rows.map((r) => r.value);
  const sigma = spreadOf(values);
  if (sigma === null)
    return {
      ...of,
      few: true,
      since: null,
      points: rows
        .slice(-SHOWN)
        .map(({ at, value }) => ({ at, value, mean: value, lower: 0, upper: 0, out: false })),
    };
  const points = watch(values, ...middleOf(of.what, values, sigma));
  const lastIn = points.findLastIndex((p) => !p.out);
  const since = lastIn < points.length - 1 ? rows[lastIn + 1]!.at : null;
  const from = Math.max(0, points.length - SHOWN);
  return {
    ...of,
    few: false,
    since,
    points: points.slice(from).map((p, i) => ({
      at: rows[from + i]!.at,
      value: short(rows[from + i]!.value),
      mean: short(p.mean),
      lower: short(p.lower),
      upper: short(p.upper),
      out: p.out,
    })),
  };
}

/** Of an instrument that is read many times a day, what lies further back says nothing of today. */
const OF_INSTRUMENT = 600;

/** The residuals of every instrument that was read in these jobs, under watch. */
function instrumentDrifts(handed: readonly Handed[]): Drift[] {
  const rows = new Map<string, { at: string; value: number }[]>();
  // From the newest back, as far as is wanted of each.
  for (let i = handed.length - 1; i >= 0; i--) {
    const { at, residuals } = handed[i]!;
    for (const id in residuals) {
      const own = rows.get(id);
      if (!own) rows.set(id, [{ at, value: residuals[id]! }]);
      else if (own.length < OF_INSTRUMENT) own.push({ at, value: residuals[id]! });
    }
  }
  return [...rows]
    .sort(([a], [b]) => a.localeCompare(b))
    .map(([id, own]) => driftOf({ id, what: "residual", unit: "σ" }, own.reverse()));
}

/**
 * The shop's numbers of what was handed over, in order of time.
 *
 * @param zeros what each stand's zero checks found, mm beside its own, in order
 * @param monthOf the shop's month of a time
 */
export function shopNumbers(
  handed: readonly Handed[],
  zeros: readonly { stand: string; what: Watched; at: string; value: number }[],
  monthOf: (at: string) => string,
): ShopNumbers {
  const months = new Map<string, { count: number; first: number }>();
  for (const h of handed) {
    if (h.attempts === 0) continue;
    const month = monthOf(h.at);
    const m = months.get(month) ?? { count: 0, first: 0 };
    months.set(month, {
      count: m.count + 1,
      first: m.first + (h.passed && h.attempts === 1 ? 1 : 0),
    });
  }
  const bySchool = new Map<string, { jobs: number; stages: Record<string, number> }>();
  for (const h of handed) {
    const entries = Object.entries(h.minutes);
    if (entries.length === 0) continue;
    const s = bySchool.get(h.school) ?? { jobs: 0, stages: {} };
    s.jobs++;
    for (const [stage, min] of entries) s.stages[stage] = (s.stages[stage] ?? 0) + (min ?? 0);
    bySchool.set(h.school, s);
  }
  const seen = handed.flatMap(({ at, model, stand, fitter, yaw }) =>
    yaw ? [{ at, model, stand, fitter, value: yaw.off }] : [],
  );
  const stands = [...new Set([...seen.map((h) => h.stand), ...zeros.map((z) => z.stand)])].sort();
  return {
    calibrations: handed.length,
    months: [...months]
      .map(([month, m]) => ({ month, ...m }))
      .sort((a, b) => (a.month < b.month ? -1 : 1)),
    minutes: [...bySchool]
      .map(([school, { jobs, stages }]) => ({
        school,
        jobs,
        stages: Object.fromEntries(Object.entries(stages).map(([k, v]) => [k, v / jobs])),
      }))
      .sort((a, b) => b.jobs - a.jobs),
    causes: counted(handed.flatMap((h) => h.causes)).map(({ name, count }) => ({
      cause: name,
      count,
    })),
    declined: counted(handed.flatMap((h) => h.declined))
      .slice(0, 8)
      .map(({ name, count }) => ({ reason: name, count })),
    drifts: stands
      .flatMap((id) => [
        driftOf(
          { id, what: "yaw", unit: "°" },
          seen.filter((h) => h.stand === id),
        ),
        ...(["scale", "dot"] as const).map((what) =>
          driftOf(
            { id, what, unit: "mm" },
            zeros.filter((z) => z.stand === id && z.what === what),
          ),
        ),
      ])
      .concat(instrumentDrifts(handed))
      .filter((d) => d.points.length > 0),
    parts: partsOf(
      seen.slice(-PARTS_OF_LAST).map(({ value, model, stand, fitter }) => ({
        value,
        model,
        stand,
        fitter: fitter || "not named",
      })),
    ),
  };
}
