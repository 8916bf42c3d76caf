import { holds, type Breach } from "./breach";
import type { DriveConditionKind, DriveRules } from "./rules";
import type { DriveSample } from "./sample";

/**
 * What of a drive counts, as it is driven: one sample after another goes in, and what was gathered, what
 * pauses it and what was lost comes out. The same samples give the same, live or replayed, in one piece
 * or many; a state is plain data and may be kept and taken up again.
 *
 * A sample holds from its own time to the next one's. Where the next is more than {@link GAP_S} away
 * nothing is known of the time between, and none of it counts; where it is not later, a clock was set,
 * and there is no time between at all.
 */
export const GAP_S = 3;

/** Why time does not count: a condition, or that there was no log. */
export type Cause = DriveConditionKind | "no-log";

/** What was gathered, and was lost again. */
export type Loss = { atMs: number; kind: DriveConditionKind; seconds: number; metres: number };

export type DriveProgress = {
  status: "not-started" | "counts" | "paused" | "done" | "timed-out";
  /** Of what counts now. */
  seconds: number;
  metres: number;
  /** Why it does not count at this moment. */
  breaches: Breach[];
  losses: Loss[];
  /** Seconds that did not count, by the first condition of the sheet that kept them from it. */
  cost: Partial<Record<Cause, number>>;
  /** How often a clock went back. */
  clockJumps: number;
  startMs: number | null;
  doneMs: number | null;
  /** What has to be remembered; nobody else's matter. */
  memory: {
    last: DriveSample | null;
    recent: { atMs: number; mps: number }[];
    /** Since when each condition is breached without a break. */
    since: Partial<Record<DriveConditionKind, number>>;
  };
};

export const DRIVE_START: DriveProgress = {
  status: "not-started",
  seconds: 0,
  metres: 0,
  breaches: [],
  losses: [],
  cost: {},
  clockJumps: 0,
  startMs: null,
  doneMs: null,
  memory: { last: null, recent: [], since: {} },
};

/** Takes one sample. */
export function qualify(rules: DriveRules, state: DriveProgress, s: DriveSample): DriveProgress {
  if (state.status === "done" || state.status === "timed-out") return state;
  const { last } = state.memory;
  const passed = last ? (s.atMs - last.atMs) / 1000 : 0;
  if (last && passed <= 0)
    // Set back, or the same moment twice: the newer sample stands for it from now on.
    return at(rules, { ...state, clockJumps: state.clockJumps + (passed < 0 ? 1 : 0) }, s, true);
  const gathered = last ? gather(rules, state, last, passed) : { ...state, startMs: s.atMs };
  if (gathered.status === "done") return gathered;
  const out = rules.timeOutS;
  if (out !== undefined && (s.atMs - gathered.startMs!) / 1000 > out)
    return { ...gathered, status: "timed-out" };
  return at(rules, gathered, s, passed > GAP_S);
}

/** The time since the last sample, which held all through it. */
function gather(
  rules: DriveRules,
  state: DriveProgress,
  last: DriveSample,
  passed: number,
): DriveProgress {
  const charge = (cause: Cause, seconds: number): DriveProgress["cost"] => ({
    ...state.cost,
    [cause]: (state.cost[cause] ?? 0) + seconds,
  });
  if (passed > GAP_S) return { ...state, cost: charge("no-log", passed) };
  const [first] = state.breaches;
  if (first) return { ...state, cost: charge(first.kind, passed) };
  const speed = last.speedMps ?? 0;
  const { seconds: needS = 0, metres: needM = 0 } = rules.enough;
  const [seconds, metres] = [state.seconds + passed, state.metres + speed * passed];
  if (seconds < needS || metres < needM) return { ...state, seconds, metres };
  // Enough was reached inside that time: when the later of both was.
  const wait = Math.max(0, needS - state.seconds, speed > 0 ? (needM - state.metres) / speed : 0);
  return {
    ...state,
    seconds,
    metres,
    status: "done",
    doneMs: last.atMs + wait * 1000,
    breaches: [],
  };
}

/** What holds at a sample, and what of it throws away. @param anew nothing is known of the time before */
function at(rules: DriveRules, state: DriveProgress, s: DriveSample, anew: boolean): DriveProgress {
  const recent = remembered(rules, anew ? [] : state.memory.recent, s);
  const breaches: Breach[] = [];
  const since: DriveProgress["memory"]["since"] = {};
  let { seconds, metres } = state;
  const losses = [...state.losses];
  for (const c of rules.conditions) {
    const is = holds(c, s, recent);
    if (is === true) continue;
    breaches.push({ kind: c.kind, known: is === false });
    const from = anew ? s.atMs : (state.memory.since[c.kind] ?? s.atMs);
    // What is not known pauses and throws nothing away.
    if (is === null) continue;
    since[c.kind] = from;
    const over = (s.atMs - from) / 1000 >= c.graceS;
    if (c.breach !== "throws-away" || !over) continue;
    // Nothing is gathered while it lasts: it throws away once.
    if (seconds > 0 || metres > 0) losses.push({ atMs: s.atMs, kind: c.kind, seconds, metres });
    [seconds, metres] = [0, 0];
  }
  return {
    ...state,
    status: breaches.length > 0 ? "paused" : "counts",
    seconds,
    metres,
    breaches,
    losses,
    memory: { last: s, recent, since },
  };
}

/** The speeds that steadiness still looks back on. */
function remembered(
  rules: DriveRules,
  recent: readonly { atMs: number; mps: number }[],
  s: DriveSample,
): { atMs: number; mps: number }[] {
  const steady = rules.conditions.find((c) => c.kind === "steadiness");
  if (steady?.kind !== "steadiness") return [];
  const from = s.atMs - steady.overS * 1000;
  const kept = recent.filter((r) => r.atMs >= from);
  return s.speedMps === null ? kept : [...kept, { atMs: s.atMs, mps: s.speedMps }];
}

/** A whole log. */
export const qualifyAll = (
  rules: DriveRules,
  samples: readonly DriveSample[],
  from: DriveProgress = DRIVE_START,
): DriveProgress => samples.reduce((state, s) => qualify(rules, state, s), from);
