import { overtime, personFrom, windowFrom } from "./calendar";
import type { Frame, FrameTask } from "./frame";
import { costOf, type Slot } from "./insert";
import { weigh, type Cost } from "./types";

/**
 * The best plan there is, for a day of few jobs. Once it is said who comes before whom on everything
 * that exists once, the earliest times are the best, for nothing asked for is better when it is later. So
 * all orders are gone through, each once: tasks are placed in the order of their starts, each after all
 * that was placed before on what it needs. A branch is left when it can not be better than the best so
 * far, or when another with the same tasks placed has everything free no later for no more.
 */
type State = {
  next: number[];
  ready: number[];
  people: number[];
  bays: number[];
  /** The job that stands in each bay; -1 none. */
  stands: number[];
  inBay: number[];
  things: number[];
  lastStart: number;
  lastTask: number;
  over: number;
  slots: Slot[];
};

/** So many states are remembered for a set of placed tasks. */
const KEPT = 24;

/** The soonest a task can start in a bay with a crew; Infinity where its windows are over. */
function startOf(
  f: Frame,
  s: State,
  t: FrameTask,
  bay: number,
  { people: crew, minutes }: FrameTask["crews"][number],
  kit: readonly number[],
): number {
  const job = f.jobs[t.job]!;
  let start = Math.max(s.ready[t.job]!, job.arriveMin, f.nowMin, t.fromMin);
  if (bay >= 0 && s.inBay[t.job]! < 0) start = Math.max(start, s.bays[bay]!);
  for (const p of crew) start = Math.max(start, s.people[p]!);
  for (const x of kit) start = Math.max(start, s.things[x]!);
  for (;;) {
    let later = windowFrom(t.windows, start, minutes);
    if (later === Infinity) return Infinity;
    for (const p of crew) later = personFrom(f.people[p]!, later, minutes);
    if (later === start) return start;
    start = later;
  }
}

/** The state with a task placed. */
function after(f: Frame, s: State, t: FrameTask, slot: Slot): State {
  const put = <T>(list: readonly T[], i: number, v: T): T[] => {
    const copy = list.slice();
    copy[i] = v;
    return copy;
  };
  const people = s.people.slice();
  for (const p of slot.crew) people[p] = slot.end;
  const things = s.things.slice();
  for (const x of slot.kit) things[x] = slot.end;
  const holds = slot.bay >= 0 && !t.lastOfStay;
  return {
    next: put(s.next, t.job, s.next[t.job]! + 1),
    ready: put(s.ready, t.job, slot.end),
    people,
    things,
    bays: slot.bay >= 0 && t.lastOfStay ? put(s.bays, slot.bay, slot.end) : s.bays,
    stands: slot.bay >= 0 ? put(s.stands, slot.bay, holds ? t.job : -1) : s.stands,
    inBay: put(s.inBay, t.job, holds ? slot.bay : -1),
    lastStart: Math.max(s.lastStart, slot.start),
    lastTask: t.index,
    over: s.over + slot.crew.reduce((o, p) => o + overtime(f.people[p]!, slot.start, slot.end), 0),
    slots: [...s.slots, slot],
  };
}

/** No way to go on from a state costs less. */
function least(f: Frame, s: State): number {
  let [lateMin, waitMin] = [0, 0];
  for (const j of f.jobs) {
    if (j.tasks.length === 0) continue;
    const next = s.next[j.index]!;
    const open = next < j.tasks.length;
    const from = open ? Math.max(s.ready[j.index]!, s.lastStart, j.arriveMin) : s.ready[j.index]!;
    const end = from + j.left[next]!;
    lateMin += Math.max(0, end - j.promiseMin);
    waitMin += end - j.arriveMin;
  }
  return weigh({ lateMin, waitMin, overMin: s.over });
}

/** What is free when, as far as it still matters. */
function vectorOf(f: Frame, s: State): number[] {
  const now = (v: number): number => Math.max(v, s.lastStart);
  const ready = f.jobs.map((j) => {
    const open = s.next[j.index]! < j.tasks.length;
    // The lateness of what is over is in the cost already.
    return open ? Math.max(now(s.ready[j.index]!), j.arriveMin) : 0;
  });
  return [...ready, ...s.people.map(now), ...s.bays.map(now), ...s.things.map(now)];
}

/** What is over has cost so much. */
function spent(f: Frame, s: State): number {
  let [lateMin, waitMin] = [0, 0];
  for (const j of f.jobs) {
    if (j.tasks.length === 0 || s.next[j.index]! < j.tasks.length) continue;
    lateMin += Math.max(0, s.ready[j.index]! - j.promiseMin);
    waitMin += s.ready[j.index]! - j.arriveMin;
  }
  return weigh({ lateMin, waitMin, overMin: s.over });
}

function firstState(f: Frame): State {
  let s: State = {
    next: f.jobs.map(() => 0),
    ready: f.jobs.map((j) => Math.max(j.arriveMin, f.nowMin)),
    people: f.people.map(() => -Infinity),
    bays: f.bays.map(() => -Infinity),
    stands: f.bays.map((_, b) => f.jobs.findIndex((j) => j.inBay === b)),
    inBay: f.jobs.map((j) => j.inBay),
    things: f.things.map(() => -Infinity),
    lastStart: -Infinity,
    lastTask: -1,
    over: 0,
    slots: [],
  };
  for (const t of f.tasks)
    if (t.begun) {
      s = after(f, s, t, { task: t.index, ...t.begun });
    }
  return { ...s, lastStart: f.nowMin, lastTask: -1 };
}

export type Exact = {
  /** Null where none is better than was asked. */
  best: { slots: Slot[]; cost: Cost } | null;
  /** Whether all were gone through. */
  complete: boolean;
};

/**
 * The best plan, or the best of as many states as may be looked at.
 *
 * @param atMost only plans that weigh less than this are wanted
 */
export function exactPlan(f: Frame, atMost: number, looks: number): Exact {
  let [best, bound, left]: [Slot[] | null, number, number] = [null, atMost, looks];
  const known = new Map<string, { vector: number[]; cost: number; lastStart: number }[]>();
  /** Whether another state with the same tasks placed is nowhere behind this one. */
  const isBehind = (s: State): boolean => {
    const key = `${s.next.join()};${s.inBay.join()}`;
    const [vector, cost] = [vectorOf(f, s), spent(f, s)];
    const those = known.get(key) ?? [];
    if (
      those.some(
        (o) =>
          o.cost <= cost && o.lastStart <= s.lastStart && o.vector.every((v, i) => v <= vector[i]!),
      )
    )
      return true;
    known.set(key, [{ vector, cost, lastStart: s.lastStart }, ...those].slice(0, KEPT));
    return false;
  };
  const go = (s: State): void => {
    if (left-- <= 0) return;
    if (s.next.every((n, j) => n >= f.jobs[j]!.tasks.length)) {
      const cost = weigh(costOf(f, s.slots));
      if (cost < bound) [best, bound] = [s.slots, cost];
      return;
    }
    const choices: { t: FrameTask; slot: Slot }[] = [];
    for (const j of f.jobs) {
      const t = j.tasks[s.next[j.index]!];
      if (!t) continue;
      const mine = s.inBay[j.index]!;
      const bays = t.stay < 0 ? [-1] : mine >= 0 ? [mine] : t.bays.filter((b) => s.stands[b]! < 0);
      for (const bay of bays)
        for (const [crew, kit] of t.crews.flatMap((c) => t.kits.map((k) => [c, k] as const))) {
          const start = startOf(f, s, t, bay, crew, kit);
          // In the order of the starts every plan comes up once.
          if (start === Infinity || start < s.lastStart) continue;
          if (start === s.lastStart && t.index < s.lastTask) continue;
          if (t.pinned && start > Math.max(t.fromMin, s.ready[j.index]!)) continue;
          const end = start + crew.minutes;
          choices.push({ t, slot: { task: t.index, start, end, bay, crew: crew.people, kit } });
        }
    }
    // Nothing starts after something else could be over that holds nobody up: that would have come before.
    const soonestEnd = Math.min(
      ...choices.map(({ t, slot }) => (slot.bay >= 0 && !t.lastOfStay ? Infinity : slot.end)),
    );
    const next = choices
      .filter(({ slot }) => slot.start < soonestEnd)
      .map(({ t, slot }) => after(f, s, t, slot))
      .map((state) => ({ state, least: least(f, state) }))
      .toSorted((a, b) => a.least - b.least);
    for (const { state, least } of next) {
      if (least >= bound) break;
      if (!isBehind(state)) go(state);
    }
  };
  const first = firstState(f);
  if (least(f, first) < bound) go(first);
  return { best: best && { slots: best, cost: costOf(f, best) }, complete: left > 0 };
}
