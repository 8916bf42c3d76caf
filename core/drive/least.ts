import { normalCdfFast } from "@/core/math/distributions";
import {
  FULL_SLOWS,
  freeMps,
  hourOf,
  passingS,
  slowestMps,
  rangeWithin,
  shareOf,
  SLICE_MS,
  wavers,
  type Come,
  type Hour,
  type Outlook,
} from "./expect";
import { Heap } from "@/core/math/heap";
import { eachOnward, type Network, type Way } from "./network";
import { SPEED_UNITS } from "./speed-units";
import type { DriveCondition } from "./rules";

/**
 * What the rest of a drive takes at the least: no drive is sooner, whatever the hour brings. Every second
 * that does not count is dear, one that counts is free but for what it gathers; what has to be gathered
 * takes its time on the best road there is, and what leads to that road and home again comes on top.
 */
export type Least = {
  /** Least seconds that a drive still takes that is at the end of a way with so much. */
  rest: (way: Way, come: Come) => number;
  /** Least seconds of a whole drive. */
  wholeS: number;
};

/** The least and the most that the hours of a drive bring. */
type Window = {
  kindest: Hour;
  /** How full a road is at the least and at the most. */
  full: (way: Way) => { least: number; most: number };
};

function windowOf(
  { going, hourOfDay, sunAtShop }: Outlook,
  departMs: number,
  longestS: number,
): Window {
  const from = Math.floor(departMs / SLICE_MS);
  const to = Math.floor((departMs + longestS * 1000) / SLICE_MS);
  const slices = Array.from({ length: to - from + 1 }, (_, i) => (from + i + 0.5) * SLICE_MS);
  const weathers = slices.map((atMs) => hourOf(going.forecast, atMs));
  const least = (of: (w: (typeof weathers)[number]) => number): number =>
    weathers.reduce((m, w) => Math.min(m, of(w)), Infinity);
  // Traffic lies between the middles of two hours: both have their say.
  const hours = [
    ...new Set(
      slices.flatMap((atMs) => {
        const at = Math.floor((hourOfDay(atMs) + 23.5) % 24);
        return [at, (at + 1) % 24];
      }),
    ),
  ];
  return {
    kindest: {
      sun: {
        azimuthDeg: 0,
        altitudeDeg: slices.reduce((m, atMs) => Math.max(m, sunAtShop(atMs).altitudeDeg), -90),
      },
      weather: {
        fromMs: departMs,
        rain: least((w) => w.rain),
        fog: least((w) => w.fog),
        snow: least((w) => w.snow),
        wet: least((w) => w.wet),
        cloud: 1,
      },
      hourOfDay: 0,
    },
    full: ({ road }) => {
      let [low, high] = [1, 0];
      for (const h of hours) {
        low = Math.min(low, road.traffic[h]!);
        high = Math.max(high, road.traffic[h]!);
      }
      return { least: low, most: high };
    },
  };
}

/** Speeds by which a share is known are taken so coarsely, m/s: downwards, where it is larger. */
const COARSE_MPS = 0.02;

/** The largest share of a piece's seconds on which a condition holds in any hour of a window. */
function mostOf(
  c: DriveCondition,
  way: Way,
  piece: Way["pieces"][number],
  mps: number,
  { least, most }: { least: number; most: number },
  outlook: Outlook,
  window: Window,
  ranges: Map<number, number>,
): number {
  switch (c.kind) {
    case "speed": {
      const [min, max] = [c.min * SPEED_UNITS[c.unit], c.max * SPEED_UNITS[c.unit]];
      // Below the window only straying brings it in; inside, nothing is better than its middle.
      if (mps < min) return normalCdfFast((mps - min) / (mps * wavers(most)));
      return Math.max(0.5, 2 * normalCdfFast((max - min) / (2 * min * wavers(least))) - 1);
    }
    case "steadiness": {
      const slowed = (full: number): number => mps * (1 - FULL_SLOWS * full ** 2) * wavers(full);
      const sd = Math.floor(Math.min(slowed(least), slowed(most)) / COARSE_MPS);
      let is = ranges.get(sd);
      if (is === undefined)
        ranges.set(
          sd,
          (is = rangeWithin(c.within * SPEED_UNITS[c.unit], sd * COARSE_MPS, c.overS)),
        );
      return is;
    }
    case "sun":
      return 1;
    default:
      return shareOf(c, way, piece, mps, least, window.kindest, outlook.going.cameras);
  }
}

/** Reaches that were asked for, by home and seconds: they are the same at every hour. */
const reaches = new WeakMap<Network, Map<string, Uint8Array>>();

/** From where one can be home in so many seconds, as fast as the road allows at all; by node. */
function reachOf(network: Network, home: number, within: number): Uint8Array {
  const key = `${home} ${within}`;
  let here = reaches.get(network);
  if (!here) reaches.set(network, (here = new Map()));
  let is = here.get(key);
  // A reach for each of the seconds that drives were found to take would only fill the memory.
  if (here.size > 8) here.clear();
  if (!is) here.set(key, (is = reached(network, home, within)));
  return is;
}

function reached({ nodes }: Network, home: number, within: number): Uint8Array {
  const best = new Float64Array(nodes.length).fill(Infinity);
  const there = new Uint8Array(nodes.length);
  const heap = new Heap<number>();
  best[home] = 0;
  heap.push(home, 0);
  for (let at = heap.pop(); at !== undefined; at = heap.pop()) {
    if (there[at]) continue;
    there[at] = 1;
    for (const w of nodes[at]!.into) {
      const t = best[at]! + w.lengthM / (w.road.limitKmh / 3.6);
      if (t >= best[w.from]! || t > within) continue;
      best[w.from] = t;
      heap.push(w.from, t);
    }
  }
  return there;
}

/** Of every way those it may be come to from, one after another, and how fast that may be done, m/s. */
type Joins = { start: Int32Array; way: Int32Array; slow: Float64Array };

/** They are the same at every hour: kept as long as their network. */
const known = new WeakMap<Network, Joins>();

export function joinsOf(network: Network): Joins {
  const had = known.get(network);
  if (had) return had;
  const { ways } = network;
  const start = new Int32Array(ways.length + 1);
  const count = (b: Way): void => void start[b.index + 1]!++;
  for (const a of ways) eachOnward(network, a, count);
  for (let i = 0; i < ways.length; i++) start[i + 1]! += start[i]!;
  const next = start.slice();
  const [way, slow] = [new Int32Array(start.at(-1)!), new Float64Array(start.at(-1)!)];
  let from = ways[0]!;
  const join = (b: Way): void => {
    const at = next[b.index]!++;
    way[at] = from.index;
    slow[at] = slowestMps(network, from, b);
  };
  for (const a of ways) {
    from = a;
    eachOnward(network, a, join);
  }
  const fresh = { start, way, slow };
  known.set(network, fresh);
  return fresh;
}

/**
 * The least that drives take which leave at a moment and are back in time.
 *
 * @param home node of the shop
 */
export function leastOf(outlook: Outlook, home: number, departMs: number, longestS: number): Least {
  const { network, rules } = outlook.going;
  const window = windowOf(outlook, departMs, longestS);
  const ranges = new Map<number, number>();
  const near = reachOf(network, home, longestS / 2);
  const { ways, nodes } = network;
  /** Of each way: its least seconds, and the most that counts on them, seconds and metres. */
  const seconds = new Float64Array(ways.length).fill(Infinity);
  const [countS, countM] = [new Float64Array(ways.length), new Float64Array(ways.length)];
  /** The slowest it is entered and left at, m/s: who is slow loses least at a junction. */
  const [inMps, outMps] = [new Float64Array(ways.length), new Float64Array(ways.length)];
  for (const way of ways) {
    if (!near[way.to]) continue;
    const i = way.index;
    const full = window.full(way);
    const quick = 1 - FULL_SLOWS * full.least ** 2;
    const slow = 1 - FULL_SLOWS * full.most ** 2;
    let [sumS, sumCountS, sumCountM] = [0, 0, 0];
    for (const piece of way.pieces) {
      const mps = freeMps(way, piece.radiusM, rules) * quick;
      const s = piece.lengthM / mps;
      let rate = 1;
      for (const c of rules.conditions) {
        if (rate === 0) break;
        rate *= mostOf(c, way, piece, mps, full, outlook, window, ranges);
      }
      sumS += s;
      sumCountS += s * rate;
      sumCountM += piece.lengthM * rate;
    }
    [seconds[i], countS[i], countM[i]] = [sumS, sumCountS, sumCountM];
    inMps[i] = freeMps(way, way.pieces[0]!.radiusM, rules) * slow;
    outMps[i] = freeMps(way, way.pieces[way.pieces.length - 1]!.radiusM, rules) * slow;
  }
  const joins = joinsOf(network);
  /** Least cost from the end of each way home, of ways at what each costs. */
  const homeBy = (cost: (way: number) => number, within: number): Float64Array => {
    const rest = new Float64Array(ways.length).fill(Infinity);
    const settled = new Uint8Array(ways.length);
    const heap = new Heap<number>();
    for (const w of nodes[home]!.into) {
      rest[w.index] = 0;
      heap.push(w.index, 0);
    }
    for (let at = heap.pop(); at !== undefined; at = heap.pop()) {
      if (settled[at]) continue;
      settled[at] = 1;
      const from = rest[at]! + cost(at);
      if (from > within) continue;
      const { junction } = nodes[ways[at]!.from]!;
      for (let k = joins.start[at]!; k < joins.start[at + 1]!; k++) {
        const w = joins.way[k]!;
        if (settled[w]) continue;
        const t = from + passingS(junction, joins.slow[k]!, outMps[w]!, inMps[at]!);
        if (t >= rest[w]!) continue;
        rest[w] = t;
        heap.push(w, t);
      }
    }
    return rest;
  };
  // Nobody goes farther than from where there is still time to come home.
  const timeHome = homeBy((w) => seconds[w]!, longestS / 2);
  const { seconds: wantS, metres: wantM } = rules.enough;
  /** Of what is gathered: the least seconds a unit of it takes, and what is dearer than that. */
  const gathering = (of: Float64Array): { each: number; home: Float64Array } => {
    let each = Infinity;
    for (let i = 0; i < ways.length; i++)
      if (of[i]! > 0 && timeHome[i]! * 2 < longestS) each = Math.min(each, seconds[i]! / of[i]!);
    const dearer = (w: number): number =>
      of[w]! > 0 ? Math.max(0, seconds[w]! - each * of[w]!) : seconds[w]!;
    return { each, home: homeBy(dearer, longestS) };
  };
  const byS = wantS === undefined ? null : gathering(countS);
  const byM = wantM === undefined ? null : gathering(countM);
  const rest = (way: Way, come: Come): number => {
    const straight = timeHome[way.index]!;
    if (come.doneS !== null) return straight;
    const s = byS ? (wantS! - come.countS) * byS.each + byS.home[way.index]! : 0;
    const m = byM ? (wantM! - come.countM) * byM.each + byM.home[way.index]! : 0;
    return Math.max(straight, s, m);
  };
  let wholeS = Infinity;
  for (const w of nodes[home]!.out) {
    const i = w.index;
    const come = { seconds: seconds[i]!, countS: countS[i]!, countM: countM[i]!, doneS: null };
    wholeS = Math.min(wholeS, come.seconds + rest(w, come));
  }
  return { rest, wholeS };
}
