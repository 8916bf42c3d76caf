import type { Frame } from "./frame";

/**
 * Minutes of lateness that no plan can be without.
 *
 * Alone each job ends no sooner than its own work lets it. Together: however the work is shared, the
 * k-th vehicle that is ready takes the k least works over all who share it, and of all ways to pair
 * those times with promises the order of the promises is the least late (both sorted; the cost
 * max(0, C - d) is convex in C - d).
 */
export function lateBound(f: Frame): number {
  const jobs = f.jobs.filter((j) => j.tasks.length > 0);
  const from = (j: (typeof jobs)[number]): number => Math.max(f.nowMin, j.arriveMin);
  let alone = 0;
  for (const j of jobs) {
    const begun = j.tasks[0]!.begun;
    const end = (begun ? begun.start : from(j)) + j.left[0]!;
    alone += Math.max(0, end - j.promiseMin);
  }
  const shared = (workOf: (j: (typeof jobs)[number]) => number, many: number): number => {
    const those = jobs.filter((j) => workOf(j) > 0);
    if (those.length === 0 || many === 0) return 0;
    const begin = Math.min(...those.map(from));
    const works = those.map(workOf).toSorted((a, b) => a - b);
    const promises = those.map((j) => j.promiseMin).toSorted((a, b) => a - b);
    let [done, late] = [begin, 0];
    works.forEach((w, k) => {
      done += w / many;
      late += Math.max(0, done - promises[k]!);
    });
    return late;
  };
  // What has begun is partly done: it counts for nothing here.
  const open = (t: Frame["tasks"][number]): number => (t.begun ? 0 : t.minutes);
  const sum = (j: (typeof jobs)[number], part: (t: Frame["tasks"][number]) => number): number =>
    j.tasks.reduce((s, t) => s + part(t), 0);
  const bounds = [
    alone,
    shared((j) => sum(j, (t) => open(t) * (t.crews[0]?.people.length ?? 0)), f.people.length),
    shared((j) => sum(j, (t) => (t.stay >= 0 ? open(t) : 0)), f.bays.length),
    ...f.things.map((_, x) =>
      // Only what nothing else serves for has to wait for it.
      shared((j) => sum(j, (t) => (t.kits.every((k) => k.includes(x)) ? open(t) : 0)), 1),
    ),
  ];
  return Math.max(...bounds);
}
