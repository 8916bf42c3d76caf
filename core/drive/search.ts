import { alongWay, LEAVING, throughJunction, type Come, type Going, type Outlook } from "./expect";
import { Heap } from "@/core/math/heap";
import { leastOf } from "./least";
import { onward, type Way } from "./network";

/**
 * The drive that gathers what a sheet asks for and is back soonest. Labels (where, when, with how much)
 * are settled in the order of the least time they can still end in; one that is later and has no more
 * than another at the same place is left out.
 */
export type Loop = {
  ways: Way[];
  departMs: number;
  /** Expected seconds until it is done, and until it is back. */
  doneS: number;
  seconds: number;
};

export type SearchLimits = {
  /** Labels that may be looked at before it has to do with the best so far. */
  labels: number;
  /** Leaves nothing out that a change of the hour could make the soonest: for few roads. */
  careful?: boolean;
  /** Drives that differ by less than this are one, seconds; {@link NEAR_S} where it is not said. */
  nearS?: number;
  /** A drive longer than this is none, seconds. */
  longestS: number;
  /** What each second of a way is made dearer by, so that another loop is found; by way index. */
  dearer?: ReadonlyMap<number, number>;
};

/** Drives that differ by less than this are one, where not every one can be looked at. */
export const NEAR_S = 6;

/** Nobody gathers metres faster. */
const FASTEST_MPS = 40;

type Label = {
  way: Way;
  come: Come;
  /** Time with what was made dearer. */
  cost: number;
  before: Label | null;
};

/**
 * The soonest drive that leaves at a moment; "none" where none gathers enough in time, "spent" where too
 * many had to be looked at to tell.
 *
 * @param home node of the shop
 */
export function soonestLoop(
  outlook: Outlook,
  home: number,
  departMs: number,
  { labels, longestS, dearer, nearS = NEAR_S, careful = false }: SearchLimits,
  least = leastOf(outlook, home, departMs, longestS),
): Loop | "none" | "spent" {
  const { network } = outlook.going;
  const settled = new Map<number, Front>();
  const share = shareOf(outlook.going);
  const heap = new Heap<Label>();
  const push = (way: Way, come: Come, cost: number, before: Label | null): void => {
    const rest = least.rest(way, come);
    if (come.seconds + rest > longestS) return;
    // What would be left out when it is looked at need not wait for that.
    if (settled.get(way.index)?.outdone(come)) return;
    heap.push({ way, come, cost, before }, cost + rest);
  };
  const extra = (way: Way, seconds: number): number =>
    seconds * (1 + (dearer?.get(way.index) ?? 0));
  for (const way of network.nodes[home]!.out) {
    const come = alongWay(outlook, LEAVING, way, departMs);
    push(way, come, extra(way, come.seconds), null);
  }
  let seen = 0;
  for (let at = heap.pop(); at; at = heap.pop()) {
    if (at.way.to === home && at.come.doneS !== null)
      return {
        ways: waysOf(at),
        departMs,
        doneS: at.come.doneS,
        seconds: at.come.seconds,
      };
    if (++seen > labels) return "spent";
    let there = settled.get(at.way.index);
    if (there?.outdone(at.come)) continue;
    if (!there) {
      there = careful ? new CarefulFront() : new QuickFront(share, nearS);
      settled.set(at.way.index, there);
    }
    there.add(at.come);
    for (const way of onward(network, at.way)) {
      const mid = throughJunction(outlook, at.come, at.way, way, departMs);
      const come = alongWay(outlook, mid, way, departMs);
      push(way, come, at.cost + extra(way, come.seconds - at.come.seconds), at);
    }
  }
  return "none";
}

function waysOf(label: Label): Way[] {
  const ways: Way[] = [];
  for (let l: Label | null = label; l; l = l.before) ways.push(l.way);
  return ways.reverse();
}

/** What has come to a place so far: who comes later is held against it. */
interface Front {
  /** Whether one who comes with this need not go on: another was here no later and with no less. */
  outdone(come: Come): boolean;
  add(come: Come): void;
}

/**
 * Leaves out nothing that could still be the soonest: who comes later may find the sun gone or the rain
 * over for as long as he is later, and is only left out where that could not make up for what he lacks.
 */
class CarefulFront implements Front {
  private readonly all: Come[] = [];

  outdone(b: Come): boolean {
    return this.all.some((a) => {
      if (a.seconds > b.seconds || (a.doneS === null && b.doneS !== null)) return false;
      if (a.doneS !== null) return true;
      const spare = b.seconds - a.seconds;
      return a.countS >= b.countS + spare && a.countM >= b.countM + spare * FASTEST_MPS;
    });
  }

  add(come: Come): void {
    this.all.push(come);
  }
}

/**
 * For many roads: of those that came, only the ones that were earlier or had more, by time; who differs
 * from one of them by a few seconds is the same.
 */
class QuickFront implements Front {
  private readonly at: number[] = [];
  private readonly has: number[] = [];

  /** @param of what counts of somebody who came, in seconds of what is wanted */
  constructor(
    private readonly of: (come: Come) => number,
    private readonly nearS: number,
  ) {}

  /** How many of those kept came up to a time. */
  private upTo(seconds: number): number {
    let [low, high] = [0, this.at.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.at[middle]! <= seconds) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  outdone(come: Come): boolean {
    // Later ones that are kept have more: the last in time has the most.
    const n = this.upTo(come.seconds + this.nearS);
    return n > 0 && this.has[n - 1]! >= this.of(come) - this.nearS;
  }

  add(come: Come): void {
    const has = this.of(come);
    const from = this.upTo(come.seconds);
    if (from > 0 && this.has[from - 1]! >= has) return;
    let to = from;
    while (to < this.has.length && this.has[to]! <= has) to++;
    this.at.splice(from, to - from, come.seconds);
    this.has.splice(from, to - from, has);
  }
}

/** Of seconds and metres what is behind the other, in seconds of what is wanted; done is more than any. */
function shareOf({ rules }: Going): (come: Come) => number {
  const { seconds: wantS, metres: wantM } = rules.enough;
  const whole = wantS ?? wantM! / 20;
  return ({ countS, countM, doneS }) =>
    doneS !== null
      ? Infinity
      : whole * Math.min(wantS ? countS / wantS : 1, wantM ? countM / wantM : 1);
}
