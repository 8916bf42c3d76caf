import { randomFrom } from "@/core/math/random";
import { frameOf } from "@/core/schedule/frame";
import { placeInOrder } from "@/core/schedule/insert";
import { byPromise, planDay } from "@/core/schedule/solve";
import { onTimeDay } from "@/tests/any-day";

/** Full days of 40 jobs: how late, beside earliest promise first, and how long it takes. */
export function days(many: number): void {
  let [ours, theirs, bound] = [0, 0, 0];
  const times: number[] = [];
  for (let n = 0; n < many; n++) {
    const day = onTimeDay(randomFrom(500 + n));
    const from = performance.now();
    const plan = planDay(day, randomFrom(n));
    times.push(performance.now() - from);
    const f = frameOf(day);
    ours += plan.cost.lateMin;
    bound += plan.boundMin;
    theirs += placeInOrder(f, byPromise(f))!.cost.lateMin;
  }
  times.sort((a, b) => a - b);
  console.log(`days of 40 jobs, 6 people, 4 bays, ${many} of them`);
  console.log(
    `  late in all ${(ours / many).toFixed(1)} min, by earliest promise first ${(theirs / many).toFixed(1)} min; no plan is less late than ${(bound / many).toFixed(1)} min`,
  );
  console.log(
    `  ${times[times.length >> 1]!.toFixed(0)} ms (median), slowest ${times.at(-1)!.toFixed(0)} ms`,
  );
}
