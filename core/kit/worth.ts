import {
  misses,
  schoolOf,
  SCHOOLS,
  schoolsFor,
  type Instrument,
  type SchoolId,
  type SetOutPlan,
} from "@/core/setout";

/**
 * What an instrument would be worth: set-outs of the shop gone through again with a kit that has it, in
 * the same simulated world with the same hands, and the seconds compared.
 */
export type Change =
  /** The same instrument, half as uncertain. */
  | { kind: "finer"; instrumentId: string; name: string }
  /** Another way with what the kit has already. */
  | { kind: "way"; school: SchoolId }
  /** Instruments the kit has not, and the way they open. */
  | { kind: "another"; school: SchoolId; lacks: Instrument["kind"][] };

/** How fine such instruments usually are: standard uncertainties in mm, mm for each metre, radians. */
const USUAL: Partial<Record<Instrument["kind"], readonly [number, number, number]>> = {
  laser: [1, 0.2, 0],
  plumb: [1.2, 0.3, 0],
  range: [1, 0.1, 0],
  "wheel-laser": [1, 0, 3.5e-4],
  "beam-laser": [0.8, 0.1, 5e-4],
  mirror: [0.8, 0.1, 5e-4],
  rig: [0.9, 0.25, 0],
  "floor-laser": [1, 0.2, 0],
};

const bought = (kind: Instrument["kind"]): Instrument => {
  const [sigmaMm, sigmaMmPerM, sigmaRad] = USUAL[kind]!;
  return { id: `new-${kind}`, name: kind, kind, sigmaMm, sigmaMmPerM, sigmaRad };
};

const HALF = 0.5;
const finer = (i: Instrument): Instrument => ({
  ...i,
  sigmaMm: HALF * i.sigmaMm,
  sigmaMmPerM: HALF * i.sigmaMmPerM,
  sigmaRad: HALF * i.sigmaRad,
});

/** The changes that are worth asking about for set-outs as a shop does them. */
export function changesFor(plans: readonly SetOutPlan[]): Change[] {
  const all = plans.flatMap((p) => p.instruments);
  const kit = [...new Map(all.map((i) => [i.id, i])).values()];
  const have = new Set(kit.map((i) => i.kind));
  const used = new Set(plans.map(schoolOf));
  const ways = (Object.keys(SCHOOLS) as SchoolId[]).filter(
    (id) => id !== "free" && !SCHOOLS[id].walls && plans.some((p) => !misses(id, p.target)),
  );
  return [
    ...kit.map((i): Change => ({ kind: "finer", instrumentId: i.id, name: i.name })),
    ...ways.flatMap((school): Change[] => {
      const lacks = SCHOOLS[school].needs.filter((k) => !have.has(k));
      if (lacks.length > 0)
        return lacks.every((k) => USUAL[k]) ? [{ kind: "another", school, lacks }] : [];
      const able = plans.some((p) => schoolsFor(p).includes(school));
      return able && !(used.size === 1 && used.has(school)) ? [{ kind: "way", school }] : [];
    }),
  ];
}

/** The plan as it would have been; null where the change does not reach it. */
export function changed(plan: SetOutPlan, change: Change): SetOutPlan | null {
  if (change.kind === "finer") {
    const { instrumentId } = change;
    if (!plan.instruments.some((i) => i.id === instrumentId)) return null;
    const instruments = plan.instruments.map((i) => (i.id === instrumentId ? finer(i) : i));
    return { ...plan, instruments };
  }
  const { school } = change;
  if (misses(school, plan.target) || schoolOf(plan) === school) return null;
  const instruments =
    change.kind === "another"
      ? [...plan.instruments, ...change.lacks.map(bought)]
      : plan.instruments;
  const other = { ...plan, instruments, school };
  return schoolsFor(other).includes(school) ? other : null;
}

/** Seconds of set-outs before and after a change, run by run; null where a run was not set. */
export type Runs = { before: (number | null)[]; after: (number | null)[] };

export type Worth = {
  /** Minutes saved for each set-out in the mean, and its standard error. */
  minutes: number;
  errorMin: number;
};

const meanOf = (list: readonly number[]): number => list.reduce((s, v) => s + v, 0) / list.length;

/**
 * What a change saves. A shop takes to another way only where that is the quicker: half of the runs of a
 * set-out say whether it is, and the other half by how much, so that luck is not counted as worth. A run
 * that ends without the board set counts as none.
 *
 * @param setOuts of each set-out its runs; null where the change does not reach it
 */
export function worthOf(setOuts: readonly (Runs | null)[], mayKeepOld: boolean): Worth {
  const saved = setOuts.map((runs) => {
    if (!runs) return 0;
    const pairs = runs.before.flatMap((b, i) => {
      const a = runs.after[i];
      return b === null || a === null || a === undefined ? [] : [b - a];
    });
    if (pairs.length === 0) return 0;
    const [choose, count] = [
      pairs.filter((_, i) => i % 2 === 0),
      pairs.filter((_, i) => i % 2 === 1),
    ];
    if (mayKeepOld && meanOf(choose) <= 0) return 0;
    return meanOf(mayKeepOld && count.length > 0 ? count : pairs) / 60;
  });
  const mean = saved.length > 0 ? meanOf(saved) : 0;
  const squares = saved.reduce((s, v) => s + (v - mean) ** 2, 0);
  const n = saved.length;
  return { minutes: mean, errorMin: n > 1 ? Math.sqrt(squares / (n - 1) / n) : Infinity };
}
