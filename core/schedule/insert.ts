import { freeFrom, overtime, personFrom, take, windowFrom, type Taken } from "./calendar";
import type { Frame, FrameJob, FrameTask } from "./frame";
import type { Cost } from "./types";

/** Where a task of a frame was placed. */
export type Slot = {
  task: number;
  start: number;
  end: number;
  bay: number;
  crew: number[];
  kit: number[];
};

type Calendars = { people: Taken[]; bays: Taken[]; things: Taken[] };

const emptyOf = (f: Frame): Calendars => ({
  people: f.people.map(() => []),
  bays: f.bays.map(() => []),
  things: f.things.map(() => []),
});

/** The first time a task can run from `at` on, and who does it: those who can soonest. */
function soonest(
  f: Frame,
  c: Calendars,
  t: FrameTask,
  at: number,
): { start: number; end: number; crew: number[]; kit: number[] } | null {
  let best: { start: number; end: number; crew: number[]; kit: number[]; over: number } | null =
    null;
  for (const { people: crew, minutes } of t.crews)
    for (const kit of t.kits) {
      let start = at;
      for (let round = 0; round < 60; round++) {
        const before = start;
        start = windowFrom(t.windows, start, minutes);
        if (start === Infinity) break;
        for (const p of crew) {
          start = personFrom(f.people[p]!, start, minutes);
          start = freeFrom(c.people[p]!, start, minutes);
        }
        for (const x of kit) start = freeFrom(c.things[x]!, start, minutes);
        if (start === before) break;
      }
      if (start === Infinity) continue;
      const end = start + minutes;
      const over = crew.reduce((s, p) => s + overtime(f.people[p]!, start, end), 0);
      // Who is done first, not who begins first: the slow one may be free the sooner.
      if (!best || end < best.end || (end === best.end && over < best.over))
        best = { start, end, crew, kit, over };
    }
  return best && { start: best.start, end: best.end, crew: best.crew, kit: best.kit };
}

/** Tasks of a job that hold one bay, or a single one outside. */
function* runsOf(job: FrameJob): Generator<FrameTask[]> {
  for (let i = 0; i < job.tasks.length;) {
    let to = i + 1;
    while (
      to < job.tasks.length &&
      job.tasks[i]!.stay >= 0 &&
      job.tasks[to]!.stay === job.tasks[i]!.stay
    )
      to++;
    yield job.tasks.slice(i, to);
    i = to;
  }
}

/** A stay in one bay, from a time on: its slots, or when it is worth to try next. */
function stayIn(
  f: Frame,
  c: Calendars,
  run: readonly FrameTask[],
  bay: number,
  at: number,
): Slot[] | null {
  let from = at;
  for (let round = 0; round < 200; round++) {
    if (bay >= 0) from = freeFrom(c.bays[bay]!, from, 1);
    const slots: Slot[] = [];
    let ready = from;
    for (const t of run) {
      const is = soonest(f, c, t, Math.max(ready, t.fromMin));
      if (!is) return null;
      slots.push({ task: t.index, bay, ...is });
      ready = is.end;
    }
    if (bay < 0) return slots;
    // The bay is taken up from the first start on; before it somebody else may still be in it.
    const start = slots[0]!.start;
    const free = freeFrom(c.bays[bay]!, start, ready - start);
    if (free === start) return slots;
    from = Math.max(free, from + 1);
  }
  return null;
}

function book(c: Calendars, slots: readonly Slot[]): void {
  for (const s of slots) {
    for (const p of s.crew) take(c.people[p]!, s.start, s.end);
    for (const x of s.kit) take(c.things[x]!, s.start, s.end);
  }
  const [first] = slots;
  if (first && first.bay >= 0) take(c.bays[first.bay]!, first.start, slots.at(-1)!.end);
}

/**
 * Places job after job in an order, each as early as what is placed already leaves it room: into gaps as
 * well. What has begun and what is pinned come before everything else.
 *
 * @returns null where a job cannot be had at all, such as a drive whose window is over
 */
export function placeInOrder(
  f: Frame,
  order: readonly number[],
): { slots: Slot[]; cost: Cost } | null {
  const c = emptyOf(f);
  const slots: Slot[] = [];
  const begun = (j: FrameJob): boolean => j.tasks.some((t) => t.begun);
  // What has begun takes up its people first, whatever else there is; then the rest of those jobs.
  for (const t of f.tasks)
    if (t.begun) {
      for (const p of t.begun.crew) take(c.people[p]!, t.begun.start, t.begun.end);
      for (const x of t.begun.kit) take(c.things[x]!, t.begun.start, t.begun.end);
    }
  const first = (j: number): number =>
    begun(f.jobs[j]!) ? 0 : f.jobs[j]!.tasks.some((t) => t.pinned) ? 1 : 2;
  const all = order.toSorted((a, b) => first(a) - first(b));
  // A bay in which a vehicle stands is nobody else's before that one is placed.
  const waiting = new Map(
    f.jobs.flatMap((j) => (j.inBay >= 0 ? [[j.inBay, j.index] as const] : [])),
  );
  const done = new Set<number>();
  const queue = [...all];
  for (let j = queue.shift(); j !== undefined; j = queue.shift()) {
    if (done.has(j)) continue;
    const job = f.jobs[j]!;
    const blocked = blockerOf(job, waiting);
    if (blocked !== null) {
      queue.unshift(blocked, j);
      continue;
    }
    done.add(j);
    if (job.inBay >= 0) waiting.delete(job.inBay);
    let ready = Math.max(job.arriveMin, f.nowMin);
    let inBay = job.inBay;
    for (const run of runsOf(job)) {
      const [head] = run as [FrameTask];
      let own: Slot[] | null = null;
      if (head.begun) {
        const { bay } = head.begun;
        const done: Slot = { task: head.index, ...head.begun };
        const rest = run.slice(1);
        const more =
          rest.length > 0
            ? stayIn(f, { ...c, bays: c.bays.map(() => []) }, rest, bay, done.end)
            : [];
        if (!more) return null;
        own = [done, ...more];
        // Its people and things were booked before all others.
        book({ ...c, people: c.people.map(() => []), things: c.things.map(() => []) }, [done]);
        for (const s of more) {
          for (const p of s.crew) take(c.people[p]!, s.start, s.end);
          for (const x of s.kit) take(c.things[x]!, s.start, s.end);
        }
        if (bay >= 0 && more.length > 0) take(c.bays[bay]!, done.end, more.at(-1)!.end);
      } else {
        const free = head.bays.filter((b) => !waiting.has(b));
        const choices = head.stay < 0 ? [-1] : inBay >= 0 ? [inBay] : free;
        for (const bay of choices) {
          const is = stayIn(f, c, run, bay, ready);
          if (is && (!own || is.at(-1)!.end < own.at(-1)!.end)) own = is;
        }
        if (!own) return null;
        book(c, own);
        // It stood there before its first task of today as well.
        if (inBay >= 0) take(c.bays[inBay]!, f.nowMin, own[0]!.start);
      }
      inBay = -1;
      slots.push(...own);
      ready = own.at(-1)!.end;
    }
  }
  return { slots, cost: costOf(f, slots) };
}

/**
 * The job whose vehicle stands in the only bays that serve another one: it has to be placed before; null
 * where there is none.
 */
function blockerOf(job: FrameJob, waiting: ReadonlyMap<number, number>): number | null {
  for (const t of job.tasks) {
    if (t.stay < 0 || t.begun || (t === job.tasks[0] && job.inBay >= 0)) continue;
    const holders = t.bays.map((b) => waiting.get(b));
    const others = holders.filter((h) => h !== undefined && h !== job.index);
    if (others.length > 0 && others.length === holders.length) return others[0]!;
  }
  return null;
}

/** What slots cost in all. */
export function costOf(f: Frame, slots: readonly Slot[]): Cost {
  const ends = new Array<number>(f.jobs.length).fill(-Infinity);
  let overMin = 0;
  for (const s of slots) {
    const { job } = f.tasks[s.task]!;
    ends[job] = Math.max(ends[job]!, s.end);
    for (const p of s.crew) overMin += overtime(f.people[p]!, s.start, s.end);
  }
  let [lateMin, waitMin] = [0, 0];
  f.jobs.forEach((j, i) => {
    if (j.tasks.length === 0) return;
    lateMin += Math.max(0, ends[i]! - j.promiseMin);
    waitMin += ends[i]! - j.arriveMin;
  });
  return { lateMin, waitMin, overMin };
}
