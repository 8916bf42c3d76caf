import type { Forecast } from "./forecast";
import { outlookOn, overWays, spreadOf, type Outlook } from "./expect";
import { nearestNode, networkOf, type Way } from "./network";
import type { RoadPlace, Roads } from "./road";
import type { DriveRules } from "./rules";
import { legsOf, type RouteLeg } from "./route";
import { homeTimes, soonestLoop, type Loop } from "./search";

/** What a drive is planned with. */
export type PlanAsked = {
  roads: Roads;
  /** Where it begins and ends. */
  shop: RoadPlace;
  rules: DriveRules;
  forecast: Forecast;
  camera: { turnDeg: number; downDeg: number };
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
  /** Between these four drives out of five are back, seconds. */
  band: [number, number];
  metres: number;
  legs: RouteLeg[];
  /** The roads it takes, each name once, in order. */
  names: string[];
  /** Seconds in which nothing can count, by why, the longest first. */
  barred: { kind: string; seconds: number }[];
  /** The chance of rain at the hour it leaves. */
  rain: number;
};

/** So much more than is asked is gathered by plan: most drives are then done when they come back. */
const RESERVE = 1.12;

/** The rules with the reserve on what is enough. */
export const withReserve = (rules: DriveRules): DriveRules => {
  const { seconds, metres } = rules.enough;
  return {
    ...rules,
    enough: {
      ...(seconds !== undefined && { seconds: seconds * RESERVE }),
      ...(metres !== undefined && { metres: metres * RESERVE }),
    },
  };
};

const LIMITS = { labels: 400_000, longestS: 2 * 3600 };

/** A drive is another one when no more of it than this lies on roads of one before it. */
const SHARED = 0.6;
/** Roads that were taken already are made dearer by this, until another drive is soonest. */
const DEARER = 0.6;

/** The soonest drives of every departure, the soonest first; a departure that has none is left out. */
export function plansFor(asked: PlanAsked): DrivePlan[] {
  const { roads, shop, rules, forecast, camera, departs, zoneHours, loops = 1 } = asked;
  const network = networkOf(roads);
  const home = nearestNode(network, shop);
  const homeS = homeTimes(network, home);
  const hourOfDay = (atMs: number): number => (((atMs / 3_600_000 + zoneHours) % 24) + 24) % 24;
  const asks = outlookOn({ network, rules, forecast, camera }, hourOfDay);
  const outlook = outlookOn({ network, rules: withReserve(rules), forecast, camera }, hourOfDay);
  const planOf = ({ ways, doneS, seconds, departMs }: Loop): DrivePlan => ({
    departMs,
    doneS: overWays(asks, ways, departMs).doneS ?? doneS,
    seconds,
    band: bandOf(seconds, spreadOf(outlook, ways, departMs)),
    metres: lengthOf(ways),
    legs: legsOf(network, ways),
    names: namesOf(ways),
    barred: barredOn(outlook, ways, departMs),
    rain: forecast.find((h) => departMs >= h.fromMs && departMs < h.fromMs + 3_600_000)?.rain ?? 0,
  });
  return departs.flatMap((departMs) => {
    const found: Loop[] = [];
    const dearer = new Map<number, number>();
    // A few more tries than drives: one that takes the same roads is no other one.
    for (let n = 0; n < 2 * loops - 1 && found.length < loops; n++) {
      const loop = soonestLoop(outlook, home, departMs, { ...LIMITS, dearer }, homeS);
      if (!loop) break;
      if (found.every((f) => sharedOf(loop.ways, f.ways) <= SHARED)) found.push(loop);
      for (const w of new Set(loop.ways)) dearer.set(w.index, (dearer.get(w.index) ?? 0) + DEARER);
    }
    return found.toSorted((a, b) => a.seconds - b.seconds).map(planOf);
  });
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
  const seconds = new Map<string, number>();
  ways.forEach((w, i) => {
    const at = departMs + overWays(outlook, ways.slice(0, i), departMs).seconds * 1000;
    const is = outlook.way(w, at);
    if (is.barred) seconds.set(is.barred, (seconds.get(is.barred) ?? 0) + is.seconds);
  });
  return [...seconds]
    .map(([kind, s]) => ({ kind, seconds: s }))
    .sort((a, b) => b.seconds - a.seconds);
}
