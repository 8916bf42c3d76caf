import {
  DayError,
  minutesFor,
  minutesGiven,
  type Day,
  type DayJob,
  type DayPerson,
  type DayTask,
} from "./types";

/** A task with everything numbered, as the searches use it. */
export type FrameTask = {
  index: number;
  job: number;
  /** Its place among the tasks of its job that are not over. */
  nth: number;
  /** Minutes with the quickest who may. */
  minutes: number;
  stay: number;
  lastOfStay: boolean;
  bays: number[];
  /** All ways to staff it, and what it takes them. */
  crews: { people: number[]; minutes: number }[];
  /** All ways to equip it. */
  kits: number[][];
  windows: DayTask["windows"];
  begun: { start: number; end: number; bay: number; crew: number[]; kit: number[] } | null;
  fromMin: number;
  pinned: boolean;
  source: DayTask;
};

export type FrameJob = {
  index: number;
  arriveMin: number;
  promiseMin: number;
  tasks: FrameTask[];
  /** Minutes from each task on to the end of all. */
  left: number[];
  /** The bay it stands in now, if its stay has begun; -1 in none. */
  inBay: number;
  source: DayJob;
};

/** A day with its resources numbered, and what is over left out. */
export type Frame = {
  nowMin: number;
  jobs: FrameJob[];
  tasks: FrameTask[];
  people: readonly DayPerson[];
  bays: readonly { id: string; name: string }[];
  things: string[];
};

/** For each role those who may, numbered: all ways to fill every one, each with another. */
const waysToFill = (roles: readonly (readonly number[])[]): number[][] => {
  let crews: number[][] = [[]];
  for (const able of roles)
    crews = crews.flatMap((c) => able.filter((p) => !c.includes(p)).map((p) => [...c, p]));
  // Two who do the same are one crew, whoever is named first.
  const seen = new Set<string>();
  return crews.filter((c) => {
    const key = c.toSorted((a, b) => a - b).join();
    return !seen.has(key) && seen.add(key);
  });
};

/**
 * Numbers a day. What has begun ends when it was to, or at once where it should be over.
 *
 * @throws DayError naming the task nobody or no bay serves
 */
export function frameOf(day: Day): Frame {
  const person = new Map(day.people.map((p, i) => [p.id, i]));
  const bay = new Map(day.bays.map((b, i) => [b.id, i]));
  const things = [
    ...new Set(
      day.jobs.flatMap((j) =>
        j.tasks.flatMap((t) => [...t.things.flat(), ...(t.begun?.things ?? [])]),
      ),
    ),
  ];
  const tasks: FrameTask[] = [];
  const jobs = day.jobs.map((job, j): FrameJob => {
    const open = job.tasks.filter((t) => t.doneMin === null);
    const firstOpen = job.tasks.indexOf(open[0]!);
    const before = job.tasks.slice(0, Math.max(0, firstOpen)).at(-1);
    const own = open.map((t, nth): FrameTask => {
      const bays = t.bays.flatMap((b) => bay.get(b) ?? []);
      if (t.stay !== null && bays.length === 0)
        throw new DayError(
          `${job.name}: no bay of the day serves it. Plan it for another.`,
          job.id,
        );
      const who = t.people.map((able) =>
        (t.pin?.person && able.includes(t.pin.person) ? [t.pin.person] : able).flatMap(
          (p) => person.get(p) ?? [],
        ),
      );
      const crews = waysToFill(who).map((people) => ({
        people,
        minutes: minutesFor(
          t,
          people.map((p) => day.people[p]!.id),
        ),
      }));
      if (crews.length === 0)
        throw new DayError(
          `${job.name}: nobody who is there today may do “${t.id}”. Call somebody in, or plan it for another day.`,
          job.id,
        );
      const kits = waysToFill(t.things.map((any) => any.map((x) => things.indexOf(x))));
      if (kits.length === 0)
        throw new DayError(
          `${job.name}: the shop has not all that “${t.id}” takes. See to the kit, or plan it for another day.`,
          job.id,
        );
      const begunMin = t.begun
        ? Math.round(
            minutesGiven(
              minutesFor(t, t.begun.people),
              t.spread,
              Math.max(0, day.nowMin - t.begun.startMin),
            ),
          )
        : 0;
      const chosen = t.pin?.bay === undefined ? undefined : bay.get(t.pin.bay);
      return {
        index: 0,
        job: j,
        nth,
        minutes: t.begun ? begunMin : Math.min(...crews.map((c) => c.minutes)),
        stay: t.stay ?? -1,
        lastOfStay: t.stay !== null && open[nth + 1]?.stay !== t.stay,
        bays: chosen !== undefined && bays.includes(chosen) ? [chosen] : bays,
        crews,
        kits,
        windows: t.windows,
        begun: t.begun && {
          start: t.begun.startMin,
          end: t.begun.startMin + begunMin,
          bay: t.begun.bay === null ? -1 : (bay.get(t.begun.bay) ?? -1),
          crew: t.begun.people.flatMap((p) => person.get(p) ?? []),
          kit: t.begun.things.map((x) => things.indexOf(x)),
        },
        fromMin: t.pin?.startMin ?? 0,
        pinned: t.pin?.startMin !== undefined,
        source: t,
      };
    });
    own.forEach((t) => (t.index = tasks.push(t) - 1));
    const left = new Array<number>(own.length + 1).fill(0);
    for (let k = own.length - 1; k >= 0; k--) left[k] = left[k + 1]! + own[k]!.minutes;
    // A stay that is half over keeps its bay.
    const half =
      before?.stay !== null && before?.stay === open[0]?.stay ? before?.begun?.bay : null;
    const waits = open[0] && open[0].stay !== null && !open[0].begun ? job.standsIn : null;
    const stands = half ?? waits;
    return {
      index: j,
      arriveMin: Math.max(job.arriveMin, before?.doneMin ?? 0),
      promiseMin: job.promiseMin ?? Infinity,
      tasks: own,
      left,
      inBay: stands ? (bay.get(stands) ?? -1) : -1,
      source: job,
    };
  });
  return { nowMin: day.nowMin, jobs, tasks, people: day.people, bays: day.bays, things };
}
