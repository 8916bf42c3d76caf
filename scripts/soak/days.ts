import { randomFrom } from "@/core/math/random";
import { lateBound } from "@/core/schedule/bound";
import { frameOf } from "@/core/schedule/frame";
import { placeInOrder } from "@/core/schedule/insert";
import { faultsOf } from "@/core/schedule/check";
import { outlooksOf } from "@/core/schedule/promise";
import { byPromise, planDay } from "@/core/schedule/solve";
import { leastByTrying, livedDay, onTimeDay, smallDay } from "@/tests/any-day";
import { told } from "./house";

/** Small days beside all their orders; full ones beside earliest promise first; promises beside days that are lived. */
export function days({ small, full, lived }: { small: number; full: number; lived: number }): void {
  let [equal, faults, slowest, over, tight] = [0, 0, 0, 0, 0];
  for (let n = 0; n < small; n++) {
    const day = smallDay(randomFrom(9000 + n));
    const from = performance.now();
    const plan = planDay(day, randomFrom(n));
    slowest = Math.max(slowest, performance.now() - from);
    const least = leastByTrying(day);
    const { lateMin, waitMin, overMin } = plan.cost;
    if (plan.exact && lateMin === least.late && waitMin + 2 * overMin === least.rest) equal++;
    faults += faultsOf(day, plan.placed).length;
    const bound = lateBound(frameOf(day));
    if (bound > least.late + 1e-9) over++;
    tight += least.late > 0 ? bound / least.late / small : 1 / small;
  }
  told(
    `${small} small days beside all their orders`,
    equal === small && faults === 0 && over === 0,
    `${equal} as good as the best of all; ${faults} faults; the bound is above the least on ${over}, and ${(100 * tight).toFixed(0)} % of it in the mean; the slowest took ${slowest.toFixed(0)} ms`,
  );

  let [kept, worse, wrong, longest, most] = [0, 0, 0, 0, 0];
  for (let n = 0; n < full; n++) {
    const day = onTimeDay(randomFrom(500 + n));
    const from = performance.now();
    const plan = planDay(day, randomFrom(n));
    longest = Math.max(longest, performance.now() - from);
    if (plan.cost.lateMin <= 30) kept++;
    most = Math.max(most, plan.cost.lateMin);
    wrong += faultsOf(day, plan.placed).length;
    const f = frameOf(day);
    if (plan.cost.lateMin > placeInOrder(f, byPromise(f))!.cost.lateMin) worse++;
  }
  told(
    `${full} days of 40 jobs that can be kept`,
    kept >= 0.95 * full && worse === 0 && wrong === 0,
    `${kept} with at most 30 minutes of lateness in all, the worst ${most.toFixed(0)}; ${worse} worse than earliest promise first; ${wrong} faults; the longest took ${longest.toFixed(0)} ms`,
  );

  // Promises in bands of ten in a hundred, each beside how often they were kept.
  const bands = Array.from({ length: 10 }, () => ({ said: 0, held: 0, many: 0 }));
  for (let d = 0; d < 8; d++) {
    const day = d < 4 ? onTimeDay(randomFrom(800 + d), 16) : smallDay(randomFrom(820 + d));
    const plan = planDay(day, randomFrom(d));
    const outlooks = outlooksOf(day, plan, randomFrom(50 + d));
    for (let n = 0; n < lived; n++) {
      const ends = livedDay(day, plan, randomFrom(70_000 + 10_000 * d + n));
      for (const { job, chance } of outlooks) {
        if (chance === null) continue;
        const band = bands[Math.min(9, Math.floor(chance * 10))]!;
        band.said += chance;
        band.many++;
        if (ends.get(job)! <= day.jobs.find((j) => j.id === job)!.promiseMin!) band.held++;
      }
    }
  }
  const filled = bands.filter((b) => b.many > lived);
  const off = filled.map((b) => Math.abs(b.said - b.held) / b.many);
  const all = bands.reduce((s, b) => ({
    said: s.said + b.said,
    held: s.held + b.held,
    many: s.many + b.many,
  }));
  told(
    `promises of eight days, each lived ${lived} times`,
    Math.max(...off) < 0.1 && Math.abs(all.said - all.held) / all.many < 0.03,
    `${((100 * all.said) / all.many).toFixed(1)} % said, ${((100 * all.held) / all.many).toFixed(1)} % held; the band that is farthest off ${(100 * Math.max(...off)).toFixed(1)} points`,
  );
}
