import type { Random } from "@/core/math/random";
import { lateBound } from "./bound";
import { exactPlan } from "./exact";
import { frameOf, type Frame } from "./frame";
import { placeInOrder, type Slot } from "./insert";
import { DayError, weigh, type Cost, type Day, type Plan } from "./types";

/**
 * Days of so many open tasks are solved exactly, as far as so many states reach; of more than a dozen
 * hardly one is gone through whole, and the search of orders has the better use of the time.
 */
const FEW_TASKS = 26;
const LOOKS = 60_000;
const DOZEN = 12;
const LOOKS_BEYOND = 10_000;
/** Orders that are tried on a large day: so many tasks are placed in all. */
const PLACINGS = 400_000;
/** Where nothing is late any more, and so many orders have brought nothing, it is good enough. */
const NO_GAIN = 3000;

type Found = { order: number[]; slots: Slot[]; cost: Cost };

/** Jobs in the order of what they were promised for; what was promised nothing comes last. */
export const byPromise = (f: Frame): number[] =>
  f.jobs
    .map((j) => j.index)
    .toSorted(
      (a, b) =>
        f.jobs[a]!.promiseMin - f.jobs[b]!.promiseMin ||
        f.jobs[a]!.arriveMin - f.jobs[b]!.arriveMin,
    );

/** Orders to begin with, each by a plain rule. */
function rules(f: Frame): number[][] {
  const by = (key: (j: Frame["jobs"][number]) => number): number[] =>
    byPromise(f).toSorted((a, b) => key(f.jobs[a]!) - key(f.jobs[b]!));
  return [
    byPromise(f),
    by((j) => j.promiseMin - j.left[0]!),
    by((j) => j.arriveMin),
    by((j) => j.left[0]!),
    // What has to be over by some hour, before all that has not.
    by((j) => Math.min(...j.tasks.map((t) => t.windows?.at(-1)?.[1] ?? Infinity))),
  ];
}

/**
 * Goes from order to order by moving one job, a late one rather than another, and by exchanging two; now
 * and then to a worse one, less and less, as metal cools.
 */
function better(f: Frame, from: Found, random: Random, effort: number): Found {
  const n = f.jobs.length;
  const rounds = Math.floor((effort * PLACINGS) / Math.max(1, f.tasks.length));
  let [best, at] = [from, from];
  let gained = 0;
  const pick = (): number => Math.floor(random() * n);
  for (let k = 0; k < rounds && n > 1; k++) {
    const order = at.order.slice();
    const late = lateJobs(f, at);
    const who =
      late.length > 0 && random() < 0.6
        ? late[Math.floor(random() * late.length)]!
        : order[pick()]!;
    const i = order.indexOf(who);
    if (random() < 0.6) {
      order.splice(i, 1);
      const to = random() < 0.7 ? Math.floor(random() * (i + 1)) : pick();
      order.splice(to, 0, who);
    } else {
      const j = pick();
      [order[i], order[j]] = [order[j]!, order[i]!];
    }
    const is = placeInOrder(f, order);
    if (!is) continue;
    const heat = 40 * (1 - k / rounds) ** 2;
    const worse =
      is.cost.lateMin - at.cost.lateMin + (weighRest(is.cost) - weighRest(at.cost)) / 200;
    if (worse <= 0 || (heat > 0 && random() < Math.exp(-worse / heat))) at = { order, ...is };
    if (weigh(is.cost) < weigh(best.cost)) [best, gained] = [{ order, ...is }, k];
    if (best.cost.lateMin === 0 && k - gained > NO_GAIN) break;
    // Back to the best now and then: far from it little is found.
    if (k % 400 === 399) at = best;
  }
  return best;
}

const weighRest = (c: Cost): number => weigh({ ...c, lateMin: 0 });

/** Jobs that end after their promise. */
function lateJobs(f: Frame, { slots }: Found): number[] {
  const late = new Set<number>();
  for (const s of slots) {
    const { job } = f.tasks[s.task]!;
    if (s.end > f.jobs[job]!.promiseMin) late.add(job);
  }
  return [...late];
}

/** Slots as they are told to the shop, in the order of their starts. */
function placedOf(f: Frame, slots: readonly Slot[]): Plan["placed"] {
  return slots
    .toSorted((a, b) => a.start - b.start || a.task - b.task)
    .map(({ task, start, end, bay, crew, kit }) => {
      const t = f.tasks[task]!;
      return {
        job: f.jobs[t.job]!.source.id,
        task: t.source.id,
        startMin: start,
        endMin: end,
        bay: bay < 0 ? null : f.bays[bay]!.id,
        people: crew.map((p) => f.people[p]!.id),
        things: kit.map((x) => f.things[x]!),
      };
    });
}

/**
 * Plans a day: the least lateness, then the least waiting and overtime. Small days exactly.
 *
 * @param random where a large day's search turns to
 * @param effort share of the usual search: less where many plans are weighed against each other
 * @throws DayError naming what lacks: nobody who may, no bay that serves, a window that is over
 */
export function planDay(day: Day, random: Random, effort = 1): Plan {
  const f = frameOf(day);
  let first: Found | null = null;
  for (const order of rules(f)) {
    const is = placeInOrder(f, order);
    if (is && (!first || weigh(is.cost) < weigh(first.cost))) first = { order, ...is };
  }
  if (!first) throw impossible(f);
  if (f.tasks.length <= FEW_TASKS) {
    const looks = f.tasks.length <= DOZEN ? LOOKS : LOOKS_BEYOND;
    const { best, complete } = exactPlan(f, weigh(first.cost), effort * looks);
    const { slots, cost } = best ?? first;
    if (complete) return { placed: placedOf(f, slots), cost, boundMin: cost.lateMin, exact: true };
    first = { ...first, slots, cost };
  }
  const best = better(f, first, random, effort);
  const boundMin = Math.min(best.cost.lateMin, lateBound(f));
  return { placed: placedOf(f, best.slots), cost: best.cost, boundMin, exact: false };
}

/** Names the job that cannot be had even alone. */
function impossible(f: Frame): DayError {
  const alone = f.jobs.find((j) => {
    const others = f.jobs.map((o) => (o === j ? o : { ...o, tasks: [] }));
    return j.tasks.length > 0 && !placeInOrder({ ...f, jobs: others }, [j.index]);
  });
  return alone
    ? new DayError(
        `${alone.source.name}: its hours are over for today, or are too short for it. Plan it for another day.`,
        alone.source.id,
      )
    : tooMuch(f);
}

/** Each could be had alone, and not all: the one that was promised nothing, or came last, has to wait. */
function tooMuch(f: Frame): DayError {
  const [least] = f.jobs
    .filter((j) => j.tasks.some((t) => t.windows))
    .toSorted((a, b) => b.promiseMin - a.promiseMin || b.arriveMin - a.arriveMin);
  return least
    ? new DayError(
        `${least.source.name}: with all else that is to be done its hours are over for today. Plan it for another day.`,
        least.source.id,
      )
    : new DayError("This day cannot be planned: more is set by hand than goes together.");
}
