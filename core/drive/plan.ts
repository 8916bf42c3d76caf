import { weatherAt, type Forecast, type HourWeather } from "./forecast";
import {
  LEAVING,
  alongWay,
  outlookOn,
  overWays,
  spreadOf,
  throughJunction,
  type Come,
  type Outlook,
} from "./expect";
import { nearestNode, type Network, type Way } from "./network";
import type { Look } from "./look";
import { chanceOf } from "./rehearse";
import type { RoadPlace } from "./road";
import type { DriveConditionKind, DriveRules } from "./rules";
import { legsOf, type RouteLeg } from "./route";
import { leastOf } from "./least";
import { NEAR_S, soonestLoop, type Loop } from "./search";

/** What a drive is planned with. */
export type PlanAsked = {
  network: Network;
  /** Where it begins and ends. */
  shop: RoadPlace;
  rules: DriveRules;
  forecast: Forecast;
  cameras: readonly Look[];
  /** When one may leave, milliseconds since 1970. */
  departs: readonly number[];
  /** What the shop's clock is ahead of UTC by, hours: what traffic goes by. */
  zoneHours: number;
  /** How many truly different drives of each departure are looked for, at most. */
  loops?: number;
};

/** One drive, as it is expected. */
export type DrivePlan = {
  departMs: number;
  /** Expected seconds until the vehicle has learned, and until it is back. */
  doneS: number;
  seconds: number;
  /** No drive that leaves then is back sooner than after so many seconds. */
  leastS: number;
  /** Between these four drives out of five are back, seconds. */
  band: [number, number];
  /** The chance that it has learned when it is back. */
  chance: number;
  metres: number;
  legs: RouteLeg[];
  /** What is expected at the end of each leg: seconds since it left, and all that counted, also after it is enough. */
  expected: Pick<Come, "seconds" | "countS" | "countM">[];
  /** The roads it takes, each name once, in order. */
  names: string[];
  /** Seconds in which nothing can count, by why, the longest first. */
  barred: { kind: DriveConditionKind; seconds: number }[];
  /** On what share of the roads with both lines the sun stands in the lens when it leaves. */
  glare: number;
  /** The weather of the hour it leaves in; null where nobody knows. */
  weather: HourWeather | null;
};

/** Plans, and the departures of which too many drives would have had to be looked at. */
export type Planned = { plans: DrivePlan[]; spent: number[] };

/** So much more than is asked is gathered by plan: most drives are then done when they come back. */
const RESERVE = 1.12;

/** The rules with so many times as much to be gathered. */
function withTimes(rules: DriveRules, times: number): DriveRules {
  const { seconds, metres } = rules.enough;
  return {
    ...rules,
    enough: {
      ...(seconds !== undefined && { seconds: seconds * times }),
      ...(metres !== undefined && { metres: metres * times }),
    },
  };
}
/** So much that no drive is ever done: all that counts on its way is added up. */
const ENDLESS = 1000;

const LABELS = 400_000;
/** A map of more ways than these is a wide one. */
const WIDE = 20_000;
/** A drive that takes longer is none, seconds. */
const LONGEST_S = 7200;
/** Who gathers at half of this pace is slow, m/s. */
const PACE_MPS = 15;

/**
 * Drives are looked for that are back in so many seconds: first those about the shop, the whole map only
 * where none of them does.
 */
function backIn({ enough: { seconds, metres } }: DriveRules): number[] {
  const wantS = Math.max(seconds ?? 0, (metres ?? 0) / PACE_MPS);
  return [Math.min(LONGEST_S, 2 * wantS + 600), LONGEST_S];
}

/** A drive is another one when no more of it than this lies on roads of one before it. */
const SHARED = 0.6;
/** Roads that were taken already are made dearer by this, until another drive is soonest. */
const DEARER = 0.6;

/** The soonest drives of every departure, the soonest first; a departure that has none is left out. */
export function plansFor(asked: PlanAsked): Planned {
  const { network, shop, rules, forecast, cameras, departs, zoneHours, loops = 1 } = asked;
  const home = nearestNode(network, shop);
  const wide = network.ways.length > WIDE;
  const hourOfDay = (atMs: number): number => (((atMs / 3_600_000 + zoneHours) % 24) + 24) % 24;
  const asks = outlookOn({ network, rules, forecast, cameras }, hourOfDay);
  const outlook = outlookOn(
    { network, rules: withTimes(rules, RESERVE), forecast, cameras },
    hourOfDay,
  );
  const endless = outlookOn(
    { network, rules: withTimes(rules, ENDLESS), forecast, cameras },
    hourOfDay,
  );
  const planOf = ({ ways, doneS, seconds, departMs }: Loop, leastS: number): DrivePlan => ({
    departMs,
    doneS: overWays(asks, ways, departMs).doneS ?? doneS,
    seconds,
    leastS,
    band: bandOf(seconds, spreadOf(outlook, ways, departMs)),
    chance: chanceOf(asks, ways, departMs, departMs / 1000),
    metres: lengthOf(ways),
    legs: legsOf(network, ways),
    expected: alongTheWay(endless, ways, departMs),
    names: namesOf(ways),
    barred: barredOn(outlook, ways, departMs),
    glare: glareOn(asks, departMs),
    weather: weatherAt(forecast, departMs),
  });
  const soonest = (departMs: number): { found: Loop[]; leastS: number } | "spent" => {
    for (const longestS of backIn(outlook.going.rules)) {
      const least = leastOf(outlook, home, departMs, longestS);
      const found: Loop[] = [];
      const dearer = new Map<number, number>();
      // A few more tries than drives: one that takes the same roads is no other one.
      for (let n = 0; n < 2 * loops - 1 && found.length < loops; n++) {
        const limits = { labels: LABELS, longestS, dearer, nearS: wide ? 2 * NEAR_S : NEAR_S };
        const loop = soonestLoop(outlook, home, departMs, limits, least);
        if (loop === "spent" && found.length === 0) return "spent";
        if (typeof loop === "string") break;
        if (found.every((f) => sharedOf(loop.ways, f.ways) <= SHARED)) found.push(loop);
        for (const w of new Set(loop.ways))
          dearer.set(w.index, (dearer.get(w.index) ?? 0) + DEARER);
      }
      if (found.length > 0) return { found, leastS: least.wholeS };
    }
    return { found: [], leastS: 0 };
  };
  const spent: number[] = [];
  const plans = departs.flatMap((departMs) => {
    const is = soonest(departMs);
    if (is === "spent") {
      spent.push(departMs);
      return [];
    }
    const sorted = is.found.toSorted((a, b) => a.seconds - b.seconds);
    if (!sorted[0]) return [];
    // Of drives that are back no later than the soonest one that was found no hour after counts: a
    // closer bound, where it is quick to have.
    const leastS = wide ? is.leastS : leastOf(outlook, home, departMs, sorted[0].seconds).wholeS;
    return sorted.map((loop) => planOf(loop, leastS));
  });
  return { plans, spent };
}

/** What is expected at the end of every way of a drive. */
function alongTheWay(
  outlook: Outlook,
  ways: readonly Way[],
  departMs: number,
): DrivePlan["expected"] {
  let come = LEAVING;
  return ways.map((w, i) => {
    if (i > 0) come = throughJunction(outlook, come, ways[i - 1]!, w, departMs);
    come = alongWay(outlook, come, w, departMs);
    return { seconds: come.seconds, countS: come.countS, countM: come.countM };
  });
}

/** So many ways stand for all of them. */
const SAMPLE = 1500;

/** On what share of the length of ways with both lines the sun stands in the lens. */
function glareOn(outlook: Outlook, atMs: number): number {
  const { ways } = outlook.going.network;
  const every = Math.ceil(ways.length / SAMPLE);
  let [all, glared] = [0, 0];
  for (let i = 0; i < ways.length; i += every) {
    const { lines, lengthM } = ways[i]!;
    if (lines.left.kind === "none" || lines.right.kind === "none") continue;
    const { spans, seconds } = outlook.way(ways[i]!, atMs);
    all += lengthM;
    glared += spans.reduce((s, x) => (x.shade < 1 ? s + (lengthM * x.seconds) / seconds : s), 0);
  }
  return all > 0 ? glared / all : 0;
}

const lengthOf = (ways: readonly Way[]): number => ways.reduce((s, w) => s + w.lengthM, 0);

/** How much of a drive lies on roads of another one, either way. */
function sharedOf(ways: readonly Way[], others: readonly Way[]): number {
  const roads = new Set(others.map((w) => w.road));
  return lengthOf(ways.filter((w) => roads.has(w.road))) / lengthOf(ways);
}

/** Of a normal distribution four fifths lie so many deviations about the middle. */
const FOUR_FIFTHS = 1.2816;
export const bandOf = (mean: number, sd: number): [number, number] => [
  mean - FOUR_FIFTHS * sd,
  mean + FOUR_FIFTHS * sd,
];

/** A road is named once, without the number of its part. */
function namesOf(ways: readonly Way[]): string[] {
  const names = ways.map((w) => w.road.name.replace(/,? \d+$/, ""));
  return names.filter((n, i) => n !== names[i - 1]).filter((n, i, all) => all.indexOf(n) === i);
}

function barredOn(outlook: Outlook, ways: readonly Way[], departMs: number): DrivePlan["barred"] {
  const seconds = new Map<DriveConditionKind, number>();
  const along = alongTheWay(outlook, ways, departMs);
  ways.forEach((w, i) => {
    const is = outlook.way(w, departMs + (along[i - 1]?.seconds ?? 0) * 1000);
    if (is.barred) seconds.set(is.barred, (seconds.get(is.barred) ?? 0) + is.seconds);
  });
  return [...seconds]
    .map(([kind, s]) => ({ kind, seconds: s }))
    .sort((a, b) => b.seconds - a.seconds);
}
