import type { Day, Plan } from "./types";

/** What is wrong with a plan, in typed words: which task, and what of it. */
export type Fault = {
  job: string;
  task: string;
  kind:
    | "missing"
    | "twice"
    | "length"
    | "before-now"
    | "before-arrival"
    | "order"
    | "moved"
    | "bay"
    | "bay-left"
    | "bay-taken"
    | "crew"
    | "busy"
    | "away"
    | "kit"
    | "thing-taken"
    | "window"
    | "pin";
  /** The other task it gets in the way of, where there is one. */
  other?: { job: string; task: string };
};

/**
 * Goes over a plan with nothing but the day in hand: it knows no frame, no calendar and no search, so
 * that what those get wrong comes out here.
 */
export function faultsOf(day: Day, placed: Plan["placed"]): Fault[] {
  const faults: Fault[] = [];
  const open = day.jobs.flatMap((job) =>
    job.tasks.filter((t) => t.doneMin === null).map((task) => ({ job, task })),
  );
  const add = (
    of: { job: string; task: string },
    kind: Fault["kind"],
    other?: { job: string; task: string },
  ): void => {
    faults.push({ job: of.job, task: of.task, kind, ...(other ? { other } : {}) });
  };
  for (const { job, task } of open) {
    const those = placed.filter((p) => p.job === job.id && p.task === task.id);
    const of = { job: job.id, task: task.id };
    if (those.length !== 1) {
      add(of, those.length === 0 ? "missing" : "twice");
      continue;
    }
    const [p] = those as [(typeof those)[number]];
    let slowest = 0;
    for (const who of p.people) slowest = Math.max(slowest, task.pace[who] ?? 1);
    const usual = p.people.length > 0 ? Math.round(task.minutes * slowest) : task.minutes;
    // What has begun is over when it is over, but not before now, nor before its time.
    if (task.begun) {
      const least = Math.max(usual, day.nowMin - task.begun.startMin);
      if (p.endMin - p.startMin < least - 1) add(of, "length");
    } else if (Math.abs(p.endMin - p.startMin - usual) > 1e-6) add(of, "length");
    if (task.begun) {
      const same = p.startMin === task.begun.startMin && p.bay === task.begun.bay;
      const those = [...p.people, ...p.things].join();
      if (!same || those !== [...task.begun.people, ...task.begun.things].join()) add(of, "moved");
    } else {
      if (p.startMin < day.nowMin) add(of, "before-now");
      if (p.startMin < job.arriveMin) add(of, "before-arrival");
      if (task.pin?.bay !== undefined && task.bays.includes(task.pin.bay) && p.bay !== task.pin.bay)
        add(of, "pin");
      if (task.pin?.startMin !== undefined && p.startMin < task.pin.startMin) add(of, "pin");
      if (task.windows && !task.windows.some(([from, to]) => p.startMin >= from && p.endMin <= to))
        add(of, "window");
      if ((task.stay === null) !== (p.bay === null)) add(of, "bay");
      else if (p.bay !== null && !task.bays.includes(p.bay)) add(of, "bay");
      // A vehicle that stands in a bay stays in it for what is done first.
      const [firstOpen] = job.tasks.filter((t) => t.doneMin === null);
      if (job.standsIn && task === firstOpen && p.bay !== null && p.bay !== job.standsIn)
        add(of, "moved");
      if (p.people.length !== task.people.length || new Set(p.people).size !== p.people.length)
        add(of, "crew");
      else if (!canStaff(task.people, p.people)) add(of, "crew");
      if (p.things.length !== task.things.length || !canStaff(task.things, p.things))
        add(of, "kit");
      for (const id of p.people) {
        const person = day.people.find((x) => x.id === id);
        if (!person || p.startMin < person.fromMin) add(of, "away");
        else if (person.breaks.some(([from, to]) => p.startMin < to && p.endMin > from))
          add(of, "away");
      }
    }
  }
  // One after another within a job, and in one bay within a stay.
  for (const job of day.jobs) {
    const own = job.tasks.flatMap((task) => {
      const p = placed.find((x) => x.job === job.id && x.task === task.id);
      return p ? [{ task, p }] : [];
    });
    own.slice(1).forEach(({ task, p }, i) => {
      const before = own[i]!;
      if (p.startMin < before.p.endMin) add(p, "order", before.p);
      if (task.stay !== null && task.stay === before.task.stay && p.bay !== before.p.bay)
        add(p, "bay-left", before.p);
    });
  }
  // Nobody and nothing is at two places at once.
  placed.forEach((a, i) =>
    placed.slice(i + 1).forEach((b) => {
      if (a.startMin >= b.endMin || b.startMin >= a.endMin) return;
      if (a.people.some((x) => b.people.includes(x))) add(a, "busy", b);
      if (a.things.some((x) => b.things.includes(x))) add(a, "thing-taken", b);
    }),
  );
  // A bay is taken up from the first to the end of the last of a stay.
  const stays = day.jobs.flatMap((job) =>
    [...new Set(job.tasks.flatMap((t) => (t.stay === null ? [] : [t.stay])))].flatMap((stay) => {
      const ids = job.tasks.filter((t) => t.stay === stay).map((t) => t.id);
      const own = placed.filter((p) => p.job === job.id && ids.includes(p.task));
      if (own.length === 0) return [];
      const [firstOpen] = job.tasks.filter((t) => t.doneMin === null);
      const half =
        job.tasks.some((t) => t.stay === stay && t.doneMin !== null) ||
        (job.standsIn !== undefined && firstOpen?.stay === stay);
      const from = half ? day.nowMin : Math.min(...own.map((p) => p.startMin));
      return [{ from, to: Math.max(...own.map((p) => p.endMin)), at: own[0]! }];
    }),
  );
  stays.forEach((a, i) =>
    stays.slice(i + 1).forEach((b) => {
      if (a.at.bay === b.at.bay && a.from < b.to && b.from < a.to) add(a.at, "bay-taken", b.at);
    }),
  );
  return faults;
}

/** Whether each of several roles has one of those who are there. */
function canStaff(roles: readonly (readonly string[])[], there: readonly string[]): boolean {
  const [role, ...others] = roles;
  if (!role) return true;
  return there.some(
    (p) =>
      role.includes(p) &&
      canStaff(
        others,
        there.filter((x) => x !== p),
      ),
  );
}
