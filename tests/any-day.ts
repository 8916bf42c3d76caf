import type { Random } from "@/core/math/random";
import type { Day, DayJob, DayTask, Plan } from "@/core/schedule/types";

/** Days as chance has them; a search of all orders; and a day as it is lived. None shares the planner's arithmetic. */

const between = (random: Random, from: number, to: number): number =>
  Math.round(from + random() * (to - from));
const one = <T>(random: Random, of: readonly T[]): T => of[Math.floor(random() * of.length)]!;

export const plainTask = (id: string, minutes: number, more: Partial<DayTask> = {}): DayTask => ({
  id,
  kind: "bay",
  minutes,
  spread: 0.25,
  pace: {},
  stay: null,
  bays: [],
  people: [],
  things: [],
  windows: null,
  begun: null,
  doneMin: null,
  pin: null,
  ...more,
});

/** A small day: up to six jobs, one or two people, one or two bays, a board, a drive with its hours. */
export function smallDay(random: Random): Day {
  const people = ["mara", "oskar"].slice(0, between(random, 1, 2)).map((id) => ({
    id,
    name: id,
    fromMin: 480,
    toMin: 990,
    breaks: random() < 0.5 ? ([[720, 750]] as [number, number][]) : [],
  }));
  const bays = ["b1", "b2"].slice(0, between(random, 1, 2)).map((id) => ({ id, name: id }));
  const everybody = people.map((p) => p.id);
  // Some do some things half as quickly again.
  const pace = (): Record<string, number> =>
    Object.fromEntries(everybody.map((p) => [p, random() < 0.3 ? 1.5 : 1]));
  const who = (): string[] => (random() < 0.6 ? everybody : [one(random, everybody)]);
  // One board, and sometimes one of two stands.
  const things = (share: number): string[][] => [
    ...(random() < share ? [["board"]] : []),
    ...(random() < 0.3 ? [random() < 0.5 ? ["s1", "s2"] : ["s2"]] : []),
  ];
  const stood = new Set<string>();
  const jobs = Array.from({ length: between(random, 2, 6) }, (_, j): DayJob => {
    const tasks: DayTask[] = [];
    const shape = random();
    if (shape < 0.35) {
      // Glass set, cured where it stands, and calibrated in the same bay.
      const stay = 0;
      const able = random() < 0.5 ? bays.map((b) => b.id) : [one(random, bays).id];
      tasks.push(
        plainTask("set", between(random, 3, 9) * 10, {
          stay,
          bays: able,
          people: [who()],
          pace: pace(),
        }),
        plainTask("board", between(random, 2, 8) * 10, {
          stay,
          bays: able,
          people: [who()],
          pace: pace(),
          things: things(0.6),
        }),
      );
    } else if (shape < 0.75)
      tasks.push(
        plainTask("board", between(random, 2, 9) * 10, {
          stay: 0,
          bays: bays.map((b) => b.id),
          people: [who()],
          pace: pace(),
          things: things(0.5),
        }),
      );
    else
      tasks.push(
        plainTask("drive", between(random, 2, 5) * 10, {
          pace: pace(),
          kind: "road",
          people: people.length > 1 && random() < 0.4 ? [everybody, everybody] : [who()],
          windows: random() < 0.5 ? [[540, 1100]] : null,
        }),
      );
    const work = tasks.reduce((s, t) => s + t.minutes, 0);
    // Now and then one stands in a bay already, and nobody is at it yet.
    const [head] = tasks;
    const bay = head!.stay !== null && random() < 0.25 ? one(random, head!.bays) : null;
    const stands = bay !== null && !stood.has(bay);
    if (stands) stood.add(bay);
    const arriveMin = stands ? 480 : 480 + between(random, 0, 12) * 10;
    return {
      ...(stands ? { standsIn: bay } : {}),
      id: `j${j}`,
      name: `Job ${j}`,
      arriveMin,
      promiseMin: random() < 0.85 ? arriveMin + work + between(random, 0, 15) * 10 : null,
      tasks,
    };
  });
  return { nowMin: 480, jobs, people, bays };
}

type Cost = { late: number; rest: number };
const less = (a: Cost, b: Cost): boolean =>
  a.late < b.late || (a.late === b.late && a.rest < b.rest);

/**
 * The least cost of a small day by trying every order of its tasks and every way to staff and to house
 * them: tasks come one after another, each as soon as all it needs has been left by those before it.
 */
export function leastByTrying(day: Day): Cost {
  const tasks = day.jobs.flatMap((job) => job.tasks.map((task, nth) => ({ job, task, nth })));
  let best: Cost = { late: Infinity, rest: Infinity };
  const busy = new Map<string, number>();
  const bayOf = new Map<string, string>();
  const shut = new Map<string, string>();
  for (const { id, standsIn } of day.jobs)
    if (standsIn) {
      bayOf.set(id, standsIn);
      shut.set(standsIn, id);
    }
  const crews = (roles: readonly (readonly string[])[]): string[][] =>
    roles.reduce<string[][]>(
      (all, role) => all.flatMap((c) => role.filter((p) => !c.includes(p)).map((p) => [...c, p])),
      [[]],
    );
  const go = (placed: number[], ends: Map<string, number>, over: number): void => {
    let [late, wait] = [0, 0];
    for (const j of day.jobs) {
      const done = placed.filter((i) => tasks[i]!.job === j).length;
      // What is not over yet is over no sooner than its own work lets it.
      const from = ends.get(j.id) ?? Math.max(day.nowMin, j.arriveMin);
      const end = from + j.tasks.slice(done).reduce((s, t) => s + t.minutes, 0);
      late += Math.max(0, end - (j.promiseMin ?? Infinity));
      wait += end - j.arriveMin;
    }
    const cost = { late, rest: wait + 2 * over };
    if (!less(cost, best)) return;
    if (placed.length === tasks.length) {
      best = cost;
      return;
    }
    tasks.forEach(({ job, task, nth }, i) => {
      if (placed.includes(i)) return;
      if (
        job.tasks
          .slice(0, nth)
          .some((t) => !placed.some((k) => tasks[k]!.task === t && tasks[k]!.job === job))
      )
        return;
      const stays =
        task.stay !== null &&
        (nth === 0 ? job.standsIn !== undefined : job.tasks[nth - 1]?.stay === task.stay);
      const leaves = task.stay !== null && job.tasks[nth + 1]?.stay !== task.stay;
      const houses: (string | null)[] =
        task.stay === null
          ? [null]
          : stays
            ? [bayOf.get(job.id)!]
            : task.bays.filter((b) => !shut.has(b));
      for (const bay of houses)
        for (const [crew, kit] of crews(task.people).flatMap((c) =>
          crews(task.things).map((k) => [c, k] as const),
        )) {
          const keys = [...crew, ...kit, ...(bay && !stays ? [bay] : [])];
          let start = Math.max(
            day.nowMin,
            job.arriveMin,
            ends.get(job.id) ?? 0,
            ...keys.map((k) => busy.get(k) ?? 0),
          );
          const long = crew.reduce((m, id) => Math.max(m, task.minutes * (task.pace[id] ?? 1)), 0);
          let fine = false;
          for (let k = 0; k < 1000 && !fine; k++) {
            const off = crew.some((id) => {
              const p = day.people.find((x) => x.id === id)!;
              return start < p.fromMin || p.breaks.some(([a, b]) => start < b && start + long > a);
            });
            const shutOut =
              task.windows !== null &&
              !task.windows.some(([a, b]) => start >= a && start + long <= b);
            fine = !off && !shutOut;
            if (!fine) start += 5;
          }
          if (!fine) continue;
          const end = start + long;
          const held: [string, number | undefined][] = keys.map((k) => [k, busy.get(k)]);
          const [oldBay, oldShut] = [bayOf.get(job.id), bay ? shut.get(bay) : undefined];
          keys.forEach((k) => busy.set(k, end));
          if (bay) {
            busy.set(bay, end);
            bayOf.set(job.id, bay);
            if (leaves) shut.delete(bay);
            else shut.set(bay, job.id);
          }
          const more = crew.reduce((s, id) => {
            const p = day.people.find((x) => x.id === id)!;
            return s + Math.max(0, end - Math.max(start, p.toMin));
          }, 0);
          const heldBay = bay && stays ? busy.get(bay) : undefined;
          go([...placed, i], new Map(ends).set(job.id, end), over + more);
          if (heldBay !== undefined && bay) busy.set(bay, heldBay);
          for (const [k, v] of held) {
            if (v === undefined) busy.delete(k);
            else busy.set(k, v);
          }
          if (bay) {
            if (oldBay === undefined) bayOf.delete(job.id);
            else bayOf.set(job.id, oldBay);
            if (oldShut === undefined) shut.delete(bay);
            else shut.set(bay, oldShut);
          }
        }
    });
  };
  go([], new Map(), 0);
  return best;
}

/**
 * A full day that can be kept: work is laid out without a gap for six people and four bays, and what was
 * laid out is promised, a little later than it is done.
 */
export function onTimeDay(random: Random, many = 40): Day {
  const people = ["a", "b", "c", "d", "e", "f"].map((id) => ({
    id,
    name: id,
    fromMin: 420,
    toMin: 1080,
    breaks: [] as [number, number][],
  }));
  const bays = ["b1", "b2", "b3", "b4"].map((id) => ({ id, name: id }));
  const bayEnd = bays.map(() => 420);
  const personEnd = people.map(() => 420);
  const thingEnd: Record<string, number> = {};
  const least = (of: readonly number[]): number => of.indexOf(Math.min(...of));
  const jobs = Array.from({ length: many }, (_, j): DayJob => {
    const roadOnly = random() < 0.15;
    const skilled = people.filter(() => random() < 0.6).map((p) => p.id);
    const able = skilled.length > 0 ? skilled : people.map((p) => p.id);
    const soonest = able.map((id) => people.findIndex((p) => p.id === id));
    const who = soonest[least(soonest.map((i) => personEnd[i]!))]!;
    if (roadOnly) {
      const minutes = between(random, 20, 45);
      const start = personEnd[who]!;
      personEnd[who] = start + minutes;
      return {
        id: `j${j}`,
        name: `Job ${j}`,
        arriveMin: Math.max(420, start - between(random, 0, 60)),
        promiseMin: start + minutes + between(random, 0, 30),
        tasks: [plainTask("drive", minutes, { kind: "road", people: [able] })],
      };
    }
    const bay = least(bayEnd);
    const things = random() < 0.5 ? [one(random, ["board", "mats", "tower"])] : [];
    const start = Math.max(bayEnd[bay]!, personEnd[who]!, ...things.map((x) => thingEnd[x] ?? 0));
    const first = between(random, 15, 45);
    const cures = random() < 0.4;
    const second = cures ? between(random, 15, 40) : 0;
    const cure = cures ? 30 : 0;
    const end = start + first + cure + second;
    bayEnd[bay] = end;
    personEnd[who] = end;
    for (const x of things) thingEnd[x] = end;
    const roles = things.map((x) => [x]);
    const own = { stay: 0, bays: bays.map((b) => b.id) };
    const tasks = [
      plainTask("first", first, { ...own, people: [able], things: roles }),
      ...(cures
        ? [
            plainTask("cure", cure, { ...own, kind: "cure" }),
            plainTask("second", second, { ...own, people: [able], things: roles }),
          ]
        : []),
    ];
    return {
      id: `j${j}`,
      name: `Job ${j}`,
      arriveMin: Math.max(420, start - between(random, 0, 90)),
      promiseMin: end + between(random, 0, 30),
      tasks,
    };
  });
  return { nowMin: 420, jobs, people, bays };
}

/** Finer than anybody looks at a clock: what waits for the next look adds up from task to task. */
const STEP_MIN = 0.1;

/**
 * A day as it is lived, minute by minute: whoever and whatever is free takes what the plan has next for
 * it. Work takes a gamma share of what was expected, not the planner's law.
 *
 * @returns when each job was over
 */
export function livedDay(day: Day, plan: Plan, random: Random): Map<string, number> {
  const gamma = (mean: number, cv: number): number => {
    // Of shape k the sum of k exponentials; good enough for whole shapes.
    const k = Math.max(1, Math.round(1 / (cv * cv)));
    let sum = 0;
    for (let i = 0; i < k; i++) sum -= Math.log(1 - random());
    return (mean * sum) / k;
  };
  const tasks = plan.placed.map((p) => {
    const job = day.jobs.find((j) => j.id === p.job)!;
    const nth = job.tasks.findIndex((t) => t.id === p.task);
    const task = job.tasks[nth]!;
    return {
      p,
      job,
      nth,
      task,
      takes: gamma(p.endMin - p.startMin, task.spread),
      from: -1,
      to: Infinity,
    };
  });
  const rank = (t: (typeof tasks)[number]): number => tasks.indexOf(t);
  for (let now = day.nowMin; now < 3000 && tasks.some((t) => t.to === Infinity); now += STEP_MIN)
    for (const t of tasks) {
      if (t.from >= 0 || now < t.job.arriveMin) continue;
      const before = tasks.filter((o) => o.job === t.job && o.nth < t.nth);
      if (before.some((o) => o.to > now)) continue;
      const shares = (o: typeof t): boolean =>
        o.p.people.some((x) => t.p.people.includes(x)) ||
        o.p.things.some((x) => t.p.things.includes(x));
      if (tasks.some((o) => o !== t && rank(o) < rank(t) && shares(o) && o.to > now)) continue;
      if (t.p.bay !== null) {
        const others = tasks.filter(
          (o) => o.job !== t.job && o.p.bay === t.p.bay && rank(o) < rank(t),
        );
        // Whoever was to be in the bay before has to be out of it, with all of its stay.
        const left = others.every((o) =>
          tasks
            .filter((x) => x.job === o.job && x.task.stay === o.task.stay)
            .every((x) => x.to <= now),
        );
        if (!left) continue;
      }
      const crew = t.p.people.map((id) => day.people.find((x) => x.id === id)!);
      if (
        crew.some((c) => now < c.fromMin || c.breaks.some(([a, b]) => now < b && now + t.takes > a))
      )
        continue;
      t.from = now;
      t.to = now + t.takes;
    }
  return new Map(
    day.jobs.map((j) => [j.id, Math.max(...tasks.filter((t) => t.job === j).map((t) => t.to))]),
  );
}
