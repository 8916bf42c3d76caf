import { gaussian, type Random } from "@/core/math/random";
import { personFrom, windowFrom } from "./calendar";
import { minutesFor, type Day, type DayTask, type Plan } from "./types";

/** What becomes of a job on days that go as days go. */
export type Outlook = {
  job: string;
  /** Share of the days on which it is done when it was promised; null where nothing was. */
  chance: number | null;
  /** When it is done on the middle day, and on nine of ten. */
  middleMin: number;
  ninetyMin: number;
  /** When it is done on the earliest of the days, and so on to the latest, twentieth by twentieth. */
  spreadMin: number[];
};

/** Share of the days on which it is done by a time. */
export function holdsBy({ spreadMin }: Outlook, atMin: number): number {
  const n = spreadMin.length - 1;
  const i = spreadMin.findIndex((t) => t > atMin);
  if (i < 0) return 1;
  if (i === 0) return 0;
  const [a, b] = [spreadMin[i - 1]!, spreadMin[i]!];
  return (i - 1 + (b > a ? (atMin - a) / (b - a) : 1)) / n;
}

/** Days that are gone through. */
export const DAYS = 600;

/**
 * Minutes a task takes on some day: its logarithm is normal, and its mean what is expected. What has
 * begun takes longer than it has taken.
 */
function takes(t: DayTask, who: readonly string[], nowMin: number, random: Random): number {
  const usual = minutesFor(t, who);
  const draw = (): number =>
    usual * Math.exp(t.spread * gaussian(random) - (t.spread * t.spread) / 2);
  if (!t.begun) return draw();
  const gone = Math.max(0, nowMin - t.begun.startMin);
  for (let k = 0; k < 40; k++) {
    const is = draw();
    if (is >= gone) return is;
  }
  return gone + 0.1 * usual;
}

/**
 * Goes through many days of a plan: who comes before whom stays as planned, and everything begins as soon
 * as what it waits for is over.
 */
export function outlooksOf(day: Day, plan: Plan, random: Random, days = DAYS): Outlook[] {
  const jobs = day.jobs.filter((j) => j.tasks.some((t) => t.doneMin === null));
  const ends = new Map(jobs.map((j) => [j.id, new Float64Array(days)]));
  const steps = plan.placed.map((p) => {
    const job = day.jobs.find((j) => j.id === p.job)!;
    const at = job.tasks.findIndex((t) => t.id === p.task);
    const task = job.tasks[at]!;
    const last = task.stay !== null && job.tasks[at + 1]?.stay !== task.stay;
    const firstIn = task.stay !== null && job.tasks[at - 1]?.stay !== task.stay;
    return {
      p,
      job,
      task,
      last,
      firstIn,
      crew: p.people.map((id) => day.people.find((x) => x.id === id)!),
    };
  });
  for (let n = 0; n < days; n++) {
    const free = new Map<string, number>();
    const at = (key: string): number => free.get(key) ?? -Infinity;
    for (const { p, job, task, last, firstIn, crew } of steps) {
      const minutes = takes(task, p.people, day.nowMin, random);
      const things = p.things.map((x) => `t/${x}`);
      const people = p.people.map((x) => `p/${x}`);
      let start: number;
      if (task.begun) start = task.begun.startMin;
      else {
        start = Math.max(day.nowMin, job.arriveMin, at(`j/${job.id}`), task.pin?.startMin ?? 0);
        for (const key of [...things, ...people]) start = Math.max(start, at(key));
        if (p.bay !== null && firstIn) start = Math.max(start, at(`b/${p.bay}`));
        for (let round = 0; round < 20 && start < Infinity; round++) {
          const before = start;
          start = windowFrom(task.windows, start, Math.min(minutes, p.endMin - p.startMin));
          for (const c of crew) start = personFrom(c, start, minutes);
          if (start === before) break;
        }
      }
      const end = start + minutes;
      for (const key of [...things, ...people, `j/${job.id}`]) free.set(key, end);
      if (p.bay !== null && last) free.set(`b/${p.bay}`, end);
      ends.get(job.id)![n] = end;
    }
  }
  return jobs.map((j) => {
    const sorted = ends.get(j.id)!.toSorted();
    const holds = sorted.filter((e) => e <= (j.promiseMin ?? Infinity)).length;
    return {
      job: j.id,
      chance: j.promiseMin === null ? null : holds / days,
      middleMin: sorted[Math.floor(days / 2)]!,
      ninetyMin: sorted[Math.floor(days * 0.9)]!,
      spreadMin: Array.from(
        { length: 21 },
        (_, i) => sorted[Math.min(days - 1, Math.floor((days * i) / 20))]!,
      ),
    };
  });
}
