import type { Random } from "@/core/math/random";
import { faultsOf } from "./check";
import { planDay } from "./solve";
import { DayError, type Day, type DayTask, type Placed, type Plan } from "./types";

/** What keeps a job from being done in time. */
export type Cause =
  | { kind: "bay" | "person" | "thing"; name: string; heldBy: string; untilMin: number }
  /** Its own work does not go into the time there is. */
  | { kind: "work" }
  /** Nobody has begun it, though it could have been since then. */
  | { kind: "idle"; sinceMin: number }
  /** It waits for the hours that suit. */
  | { kind: "hours"; fromMin: number };

/** A job that breaks its promise. */
export type Broken = { job: string; lateMin: number; endMin: number; cause: Cause };

/** How a broken promise can be kept or made good, the cheapest first. */
export type WayOut = {
  kind: "call" | "call-other" | "another-thing" | "another-person" | "another-bay" | "earlier";
  /** Whom to call, what there is to be another of. */
  name: string;
  /** By how much a promise moves, or somebody comes earlier, minutes. */
  minutes: number;
  /** Lateness of all of the day that is left then. */
  leftMin: number;
};

/** Ways out are weighed quickly: the plan itself is searched for longer. */
const EFFORT = 0.15;

const endOf = (plan: Plan, job: string): number =>
  Math.max(...plan.placed.filter((p) => p.job === job).map((p) => p.endMin));

/** What a task waited for longest beyond its own job. */
function waitsFor(day: Day, plan: Plan, p: Placed): { minutes: number; cause: Cause } | null {
  const job = day.jobs.find((j) => j.id === p.job)!;
  const nth = job.tasks.findIndex((t) => t.id === p.task);
  if (job.tasks[nth]!.begun) return null;
  const before = plan.placed.filter(
    (o) => o.job === p.job && job.tasks.findIndex((t) => t.id === o.task) < nth,
  );
  const ready = Math.max(job.arriveMin, ...before.map((o) => o.endMin));
  const minutes = p.startMin - ready;
  if (minutes <= 0) return null;
  // What ends just when it begins is what it waited for.
  const touching = plan.placed.filter((o) => o !== p && Math.abs(o.endMin - p.startMin) < 1e-6);
  const named = (o: Placed, kind: "bay" | "person" | "thing", name: string): Cause => ({
    kind,
    name,
    heldBy: o.job,
    untilMin: o.endMin,
  });
  for (const o of touching) {
    const thing = o.things.find((x) => p.things.includes(x));
    if (thing) return { minutes, cause: named(o, "thing", thing) };
    if (p.bay !== null && o.bay === p.bay)
      return {
        minutes,
        cause: named(o, "bay", day.bays.find((b) => b.id === p.bay)?.name ?? p.bay),
      };
    const who = o.people.find((x) => p.people.includes(x));
    if (who)
      return {
        minutes,
        cause: named(o, "person", day.people.find((x) => x.id === who)?.name ?? who),
      };
  }
  return {
    minutes,
    cause:
      p.startMin <= day.nowMin
        ? { kind: "idle", sinceMin: ready }
        : { kind: "hours", fromMin: p.startMin },
  };
}

/** The promises a plan breaks, each with what it waits for longest. */
export function brokenOf(day: Day, plan: Plan): Broken[] {
  return day.jobs.flatMap((job): Broken[] => {
    const own = plan.placed.filter((p) => p.job === job.id);
    if (own.length === 0 || job.promiseMin === null) return [];
    const endMin = endOf(plan, job.id);
    const lateMin = endMin - job.promiseMin;
    if (lateMin <= 0) return [];
    const waits = own.flatMap((p) => waitsFor(day, plan, p) ?? []);
    const longest = waits.toSorted((a, b) => b.minutes - a.minutes)[0];
    return [{ job: job.id, lateMin, endMin, cause: longest?.cause ?? { kind: "work" } }];
  });
}

/** The day with one job changed. */
const withJob = (day: Day, id: string, patch: Partial<Day["jobs"][number]>): Day => ({
  ...day,
  jobs: day.jobs.map((j) => (j.id === id ? { ...j, ...patch } : j)),
});

/** The day with more of what a promise waits for. */
function withAnother(day: Day, cause: Cause): { day: Day; kind: WayOut["kind"] } | null {
  const tasks = (change: (t: DayTask) => DayTask): Day["jobs"] =>
    day.jobs.map((j) => ({ ...j, tasks: j.tasks.map(change) }));
  if (cause.kind === "thing") {
    // With a second one nobody waits for it: two at once are rare enough.
    const jobs = tasks((t) => ({
      ...t,
      things: t.things.filter((any) => !any.includes(cause.name)),
    }));
    return { day: { ...day, jobs }, kind: "another-thing" };
  }
  if (cause.kind === "bay") {
    const id = "another bay";
    const jobs = tasks((t) => (t.bays.length > 0 ? { ...t, bays: [...t.bays, id] } : t));
    return { day: { ...day, jobs, bays: [...day.bays, { id, name: id }] }, kind: "another-bay" };
  }
  if (cause.kind === "person") {
    const id = "another person";
    const jobs = tasks((t) => ({ ...t, people: t.people.map((who) => [...who, id]) }));
    const hours = { fromMin: day.nowMin, toMin: Math.max(...day.people.map((p) => p.toMin)) };
    const person = { id, name: id, ...hours, breaks: [] };
    return { day: { ...day, jobs, people: [...day.people, person] }, kind: "another-person" };
  }
  return null;
}

/**
 * Ways to keep or to make good a broken promise, from what costs least: each is planned anew, and what
 * it leaves late in all is said.
 */
export function waysOut(day: Day, plan: Plan, broken: Broken, random: Random): WayOut[] {
  const ways: WayOut[] = [];
  const late = (of: Day): number | null => {
    try {
      return planDay(of, random, EFFORT).cost.lateMin;
    } catch (error) {
      if (error instanceof DayError) return null;
      throw error;
    }
  };
  const put = (kind: WayOut["kind"], name: string, minutes: number, of: Day): void => {
    const leftMin = late(of);
    if (leftMin !== null && leftMin < plan.cost.lateMin)
      ways.push({ kind, name, minutes, leftMin });
  };
  const { job, lateMin, endMin, cause } = broken;
  put("call", job, lateMin, withJob(day, job, { promiseMin: endMin }));
  if ("heldBy" in cause) {
    // The one before it gives way: as much later as it takes with this one before it.
    const other = day.jobs.find((j) => j.id === cause.heldBy)!;
    if (other.promiseMin !== null && other.id !== job) {
      const free = withJob(day, other.id, { promiseMin: null });
      const is = planOrNull(free, random);
      const otherEnd = is ? endOf(is, other.id) : Infinity;
      const minutes = otherEnd - other.promiseMin;
      if (is && is.cost.lateMin < plan.cost.lateMin && minutes > 0 && minutes < Infinity)
        put("call-other", other.id, minutes, withJob(day, other.id, { promiseMin: otherEnd }));
    }
    const more = withAnother(day, cause);
    if (more) put(more.kind, cause.name, 0, more.day);
  }
  const arrives = day.jobs.find((j) => j.id === job)!.arriveMin;
  if (arrives > day.nowMin) {
    const earlier = Math.min(lateMin, arrives - day.nowMin);
    put("earlier", job, earlier, withJob(day, job, { arriveMin: arrives - earlier }));
  }
  const price: Record<WayOut["kind"], number> = {
    call: 1,
    "call-other": 1.2,
    earlier: 1.5,
    "another-thing": 40,
    "another-person": 90,
    "another-bay": 400,
  };
  const costs = (w: WayOut): number => price[w.kind] * Math.max(1, w.minutes) + w.leftMin;
  return ways.toSorted((a, b) => costs(a) - costs(b));
}

function planOrNull(day: Day, random: Random): Plan | null {
  try {
    const plan = planDay(day, random, EFFORT);
    return faultsOf(day, plan.placed).length === 0 ? plan : null;
  } catch (error) {
    if (error instanceof DayError) return null;
    throw error;
  }
}
