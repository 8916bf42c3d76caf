import { normalCdfFast } from "@/core/math/distributions";
import type { Look } from "./look";
import { weatherAt, type Forecast, type HourWeather } from "./forecast";
import { isTurnRound, turnInto, type Network, type Way } from "./network";
import type { Junction, RoadLine } from "./road";
import type { DriveCondition, DriveConditionKind, DriveRules } from "./rules";
import { SPEED_UNITS } from "./speed-units";
import { sunAt, sunOffDeg, type SunPlace } from "./sun";

/**
 * What may be expected of driving a way at an hour: how long it takes, what share of its seconds counts,
 * and how often something throws away what was gathered. Everything is an expectation: a share of a
 * second counts, a part of what was gathered is lost. How a single drive strays from that is the
 * rehearsal's matter.
 */

/** What a drive is planned in. */
export type Going = {
  network: Network;
  rules: DriveRules;
  forecast: Forecast;
  /** How the cameras that learn look out of the vehicle. */
  cameras: readonly Look[];
};

/** Vehicles a kilometre of lane carries where it is full: then they stand. */
export const FULL_PER_KM = 25;
/** What a full road takes of the speed it would be driven at. */
export const FULL_SLOWS = 0.6;
/** How a speed wavers about what is meant, as a share: on an empty road, and what a full one adds. */
const WAVERS = { empty: 0.02, full: 0.1 };
/** The share of a speed by which it wavers on a road that is so full. */
export const wavers = (full: number): number => WAVERS.empty + WAVERS.full * full;
/** How long a speed keeps its own counsel, seconds. */
const WAVERS_FOR_S = 8;
/** How long a line stays out of sight, metres, and somebody near ahead, a shower, seconds. */
const OUT_OF_SIGHT_M = 25;
const NEAR_FOR_S = 40;
export const SHOWER_S = 720;
/** What a driver is content with in a curve and at a junction, m/s2. */
const SIDEWAYS = 2.2;
const BRAKES = 1.5;
/** How fast a junction is taken, m/s. */
const TURN_MPS = 6;
const ROUND_MPS = 8;
const TURNS_DEG = 35;
/** To turn round on the spot, seconds. */
const TURN_ROUND_S = 15;
const SURFACE_MPS = { asphalt: 70, concrete: 70, setts: 14, gravel: 14 };

/** Hours are cut so finely that sun and traffic may be taken as one over it, milliseconds. */
export const SLICE_MS = 300_000;
export const sliceOf = (atMs: number): number => Math.floor(atMs / SLICE_MS);

/** A part of a drive on which nothing changes. */
export type Span = {
  seconds: number;
  mps: number;
  /** Share of its seconds that count. */
  rate: number;
  /** How often, a second, everything gathered is thrown away. */
  lossRate: number;
  /** Chance that it is thrown away on entering it. */
  loss: number;
  /** Of the rate: shares of the time that it is dry enough, and that the sun is off the lens; the rest. */
  dry: number;
  shade: number;
  quick: number;
  /** Of the rest, how what counts strays: variance a second, seconds. */
  strays: number;
};

export type WayOutlook = {
  spans: readonly Span[];
  seconds: number;
  /** Of its seconds, by how a speed wavers. */
  variance: number;
  /** What is gathered after it: so much of what was, and so much more. */
  keeps: number;
  addsS: number;
  addsM: number;
  /** The most that can count on it, seconds and metres. */
  mostS: number;
  mostM: number;
  /** Nothing on it counts, for this condition; null where something does. */
  barred: DriveConditionKind | null;
};

/** What lies between two ways. */
export type Passing = {
  seconds: number;
  /** Of its seconds, by whether it is red and for how long. */
  variance: number;
  loss: number;
  takesS: number;
  takesM: number;
};

export type Outlook = {
  going: Going;
  way: (way: Way, atMs: number) => WayOutlook;
  pass: (a: Way, b: Way, atMs: number) => Passing;
  /** Hour of the day of a moment, 0 to 24, and where the sun stands then. */
  hourOfDay: (atMs: number) => number;
  sunAtShop: (atMs: number) => SunPlace;
};

export type Hour = { sun: SunPlace; weather: HourWeather; hourOfDay: number };

/** The speed a way's piece is driven at where nobody is in the way, m/s. */
export function freeMps(way: Way, radiusM: number, rules: DriveRules): number {
  const free = Math.min(
    way.road.limitKmh / 3.6,
    Math.sqrt(SIDEWAYS * radiusM),
    SURFACE_MPS[way.road.surface],
  );
  const window = rules.conditions.find((c) => c.kind === "speed");
  if (window?.kind !== "speed") return free;
  const unit = SPEED_UNITS[window.unit];
  // Nobody drives along the upper edge of a window.
  const most = (window.max - (window.max - window.min) / 4) * unit;
  return Math.min(free, most);
}

const conditionOf = <K extends DriveConditionKind>(
  rules: DriveRules,
  kind: K,
): Extract<DriveCondition, { kind: K }> | undefined =>
  rules.conditions.find((c): c is Extract<DriveCondition, { kind: K }> => c.kind === kind);

const seenAs = (needs: "solid" | "broken" | "either" | null, line: RoadLine): number =>
  needs === null
    ? 1
    : line.kind === "none" || (needs !== "either" && line.kind !== needs)
      ? 0
      : line.seen;

/**
 * The chance that the speeds of some seconds lie within a range: of as many as may be taken for
 * independent, by the distribution of the range of normal ones.
 */
export function rangeWithin(within: number, sd: number, overS: number): number {
  if (sd <= 0) return 1;
  const n = 1 + overS / WAVERS_FOR_S;
  const w = within / sd;
  let sum = 0;
  const [LOW, STEP, STEPS] = [-5, 0.1, 100];
  for (let i = 0; i <= STEPS; i++) {
    const x = LOW + i * STEP;
    const density = Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI);
    const inside = (normalCdfFast(x + w) - normalCdfFast(x)) ** (n - 1);
    sum += (i === 0 || i === STEPS ? 0.5 : 1) * density * inside * STEP * n;
  }
  return Math.min(1, sum);
}

/** Share of the time a condition holds, and how often it is breached for longer than is borne. */
type Held = { share: number; lossRate: number; awayS: number; sure: boolean };
const always: Held = { share: 1, lossRate: 0, awayS: 0, sure: false };
const surely = (is: boolean): Held => (is ? always : { ...always, share: 0, sure: true });
/** Of what comes and goes: for how long it is away, seconds, and on what share of the time it is there. */
const fleeting = (share: number, awayS: number, graceS: number): Held => ({
  share,
  awayS,
  lossRate: awayS > 0 ? ((1 - share) / awayS) * Math.exp(-graceS / awayS) : 0,
  sure: share === 0,
});

function held(
  c: DriveCondition,
  way: Way,
  piece: { headingDeg: number; slopeDeg: number; radiusM: number },
  mps: number,
  full: number,
  { sun, weather }: Hour,
  cameras: readonly Look[],
): Held {
  const sd = mps * wavers(full);
  switch (c.kind) {
    case "speed": {
      const [min, max] = [c.min * SPEED_UNITS[c.unit], c.max * SPEED_UNITS[c.unit]];
      const share = normalCdfFast((max - mps) / sd) - normalCdfFast((min - mps) / sd);
      return fleeting(share < 0.02 ? 0 : share, WAVERS_FOR_S, c.graceS);
    }
    case "steadiness":
      return fleeting(rangeWithin(c.within * SPEED_UNITS[c.unit], sd, c.overS), c.overS, c.graceS);
    case "lines": {
      const awayS = OUT_OF_SIGHT_M / mps;
      const share = seenAs(c.left, way.lines.left) * seenAs(c.right, way.lines.right);
      return fleeting(share, awayS, c.graceS);
    }
    case "curve":
      return surely(piece.radiusM >= c.minRadiusM);
    case "gap":
      return fleeting(Math.exp((-c.minM * FULL_PER_KM * full) / 1000), NEAR_FOR_S, c.graceS);
    case "light":
      return surely(
        sun.altitudeDeg > -0.833 || (c.needs === "day-or-dusk" && sun.altitudeDeg > -6),
      );
    case "weather": {
      const names = { rain: "rain", fog: "fog", snow: "snow", "wet-road": "wet" } as const;
      // What is wet is wet because it rains, or did: the likeliest of them stands for all.
      const worst = Math.max(...c.without.map((w) => weather[names[w]]));
      return fleeting(1 - worst, SHOWER_S, c.graceS);
    }
    case "sun": {
      // One that is blinded keeps all of them from learning.
      if (cameras.every((look) => sunOffDeg(sun, { ...piece, ...look }) > c.coneDeg)) return always;
      // A cloud comes and goes as a shower does.
      return { ...fleeting(weather.cloud, SHOWER_S, c.graceS), sure: weather.cloud < 0.5 };
    }
    case "rolling":
    case "key":
      return always;
  }
}

/** Share of the time a condition holds on a piece of a way, driven at a speed, so full, at an hour. */
export const shareOf = (...of: Parameters<typeof held>): number => held(...of).share;

/** The weather of a moment; fair where nothing is forecast. */
export const hourOf = (forecast: Forecast, atMs: number): HourWeather =>
  weatherAt(forecast, atMs) ?? { fromMs: atMs, rain: 0, fog: 0, snow: 0, wet: 0, cloud: 0 };

const mix = (a: number, b: number, part: number): number => a + (b - a) * part;
/** How full a road is at a moment, between the middles of its hours. @param hour 0 to 24 */
const fullAt = (traffic: readonly number[], hour: number): number => {
  const at = (hour + 23.5) % 24;
  return mix(traffic[Math.floor(at)]!, traffic[(Math.floor(at) + 1) % 24]!, at % 1);
};

/**
 * The outlook of ways and of what lies between them, each worked out once for a slice of time.
 *
 * @param hourOfDay of a moment in the shop's own zone, 0 to 24: what traffic goes by
 */
export function outlookOn(going: Going, hourOfDay: (atMs: number) => number): Outlook {
  const { network, rules, forecast, cameras } = going;
  const [lonDeg, latDeg] = network.nodes[0]?.at ?? [0, 0];
  const sunAtShop = (atMs: number): SunPlace => sunAt(atMs, latDeg, lonDeg);
  const hours = new Map<number, Hour>();
  const known = new Map<number, Map<number, WayOutlook>>();
  const hourAt = (slice: number): Hour => {
    const had = hours.get(slice);
    if (had) return had;
    const atMs = (slice + 0.5) * SLICE_MS;
    const fresh = {
      sun: sunAtShop(atMs),
      weather: hourOf(forecast, atMs),
      hourOfDay: hourOfDay(atMs),
    };
    hours.set(slice, fresh);
    return fresh;
  };
  const way = (w: Way, atMs: number): WayOutlook => {
    const slice = sliceOf(atMs);
    let here = known.get(slice);
    if (!here) known.set(slice, (here = new Map()));
    let is = here.get(w.index);
    if (!is) here.set(w.index, (is = wayOutlook(w, rules, hourAt(slice), cameras)));
    return is;
  };
  const passed = new Map<number, Map<number, Passing>>();
  const pass = (a: Way, b: Way, atMs: number): Passing => {
    const slice = sliceOf(atMs);
    let here = passed.get(slice);
    if (!here) passed.set(slice, (here = new Map()));
    const key = a.index * network.ways.length + b.index;
    let is = here.get(key);
    if (!is) {
      const [last, first] = [way(a, atMs).spans.at(-1)!, way(b, atMs).spans[0]!];
      here.set(key, (is = passing(network, rules, a, b, last, first)));
    }
    return is;
  };
  return { going, way, pass, hourOfDay, sunAtShop };
}

function wayOutlook(
  way: Way,
  rules: DriveRules,
  hour: Hour,
  cameras: readonly Look[],
  full = fullAt(way.road.traffic, hour.hourOfDay),
): WayOutlook {
  const slowed = 1 - FULL_SLOWS * full * full;
  const spans: Span[] = [];
  const steady = conditionOf(rules, "steadiness");
  let barred: DriveConditionKind | null = null;
  for (const piece of way.pieces) {
    const mps = freeMps(way, piece.radiusM, rules) * slowed;
    const seconds = piece.lengthM / mps;
    let [dry, shade, quick, strays, lossRate, loss] = [1, 1, 1, 0, 0, 0];
    for (const c of rules.conditions) {
      const is = held(c, way, piece, mps, full, hour, cameras);
      if (c.kind === "weather") dry = is.share;
      else if (c.kind === "sun") shade = is.share;
      else quick *= is.share;
      // Of something that comes and goes: how far its share of a long time strays.
      if (c.kind !== "weather" && c.kind !== "sun") strays += 2 * (1 - is.share) * is.awayS;
      if (is.share === 0) barred ??= c.kind;
      if (c.breach !== "throws-away") continue;
      lossRate += is.lossRate;
      if (is.sure && seconds > c.graceS) loss = Math.max(loss, 1 - is.share);
    }
    const rate = dry * shade * quick;
    strays *= quick ** 2;
    const before = spans.at(-1);
    const same =
      before &&
      Math.abs(before.mps - mps) < 1e-9 &&
      Math.abs(before.rate - rate) < 1e-9 &&
      Math.abs(before.shade - shade) < 1e-9 &&
      Math.abs(before.lossRate - lossRate) < 1e-12 &&
      loss === before.loss;
    if (same) before.seconds += seconds;
    else {
      // While a speed changes it is not steady, and for as long as one looks back on it.
      const jump =
        before && steady && Math.abs(before.mps - mps) > steady.within * SPEED_UNITS[steady.unit];
      const unsteadyS = jump ? Math.min(seconds, steady.overS) : 0;
      const is = { mps, lossRate, loss, dry, shade };
      if (unsteadyS > 0) spans.push({ ...is, seconds: unsteadyS, rate: 0, quick: 0, strays: 0 });
      if (seconds > unsteadyS)
        spans.push({ ...is, seconds: seconds - unsteadyS, rate, quick, strays });
    }
  }
  let [keeps, addsS, addsM, seconds] = [1, 0, 0, 0];
  for (const s of spans) {
    const kept = (1 - s.loss) * Math.exp(-s.lossRate * s.seconds);
    const added = countedIn(s, s.seconds);
    [addsS, addsM] = [addsS * kept + added, addsM * kept + added * s.mps];
    keeps *= kept;
    seconds += s.seconds;
  }
  const counts = spans.some((s) => s.rate > 0);
  // A speed that wavers for some seconds is averaged over as many as there are of them.
  const variance = 2 * wavers(full) ** 2 * WAVERS_FOR_S * seconds;
  const mostS = spans.reduce((sum, s) => sum + s.rate * s.seconds, 0);
  const mostM = spans.reduce((sum, s) => sum + s.rate * s.seconds * s.mps, 0);
  return {
    spans,
    seconds,
    variance,
    keeps,
    addsS,
    addsM,
    mostS,
    mostM,
    barred: counts ? null : barred,
  };
}

/** What a span has added to what is gathered after some of its seconds. */
const countedIn = ({ rate, lossRate }: Span, seconds: number): number =>
  lossRate > 0 ? (rate / lossRate) * -Math.expm1(-lossRate * seconds) : rate * seconds;

/** Seconds until a span has brought what is gathered to what is wanted; Infinity where it never does. */
function until({ rate, lossRate }: Span, has: number, wants: number): number {
  if (has >= wants) return 0;
  if (rate <= 0) return Infinity;
  if (lossRate <= 0) return (wants - has) / rate;
  const limit = rate / lossRate;
  return limit <= wants ? Infinity : Math.log((limit - has) / (limit - wants)) / lossRate;
}

/** How fast the end of a way is taken into another, m/s; Infinity where nothing slows. */
export function slowestMps({ nodes }: Network, a: Way, b: Way): number {
  const { junction, out } = nodes[a.to]!;
  if (isTurnRound(a, b)) return 0;
  if (junction.control === "roundabout") return ROUND_MPS;
  // Where there is but one way on, its curve has slowed one already.
  if (out.length <= 2 || a.to !== b.from) return Infinity;
  return Math.abs(turnInto(a, b)) > TURNS_DEG ? TURN_MPS : Infinity;
}

/** Expected seconds that lie between two ways at a junction that is taken so fast, come to and left at some speeds, m/s. */
export function passingS(
  { control, redShare, redS }: Junction,
  slow: number,
  beforeMps: number,
  afterMps: number,
): number {
  const through = slowedS(beforeMps, afterMps, slow, slow === 0 ? TURN_ROUND_S : 0);
  if (control !== "signals") return through;
  return mix(through, slowedS(beforeMps, afterMps, 0, redS / 2), redShare);
}

/** Seconds that are lost by braking to a speed, standing if one has to, and speeding up again. */
const slowedS = (before: number, after: number, slow: number, standS: number): number =>
  slow >= Math.min(before, after)
    ? 0
    : ((before - slow) ** 2 / before + (after - slow) ** 2 / after) / (2 * BRAKES) + standS;

function passing(
  network: Network,
  rules: DriveRules,
  a: Way,
  b: Way,
  last: Span,
  first: Span,
): Passing {
  const { control, redShare, redS } = network.nodes[a.to]!.junction;
  const slow = slowestMps(network, a, b);
  const round = isTurnRound(a, b);
  const red = control === "signals" ? redShare : 0;
  const through = phases(rules, last.mps, first.mps, slow, round ? TURN_ROUND_S : 0);
  const stopped = phases(rules, last.mps, first.mps, 0, redS / 2);
  const rolling = conditionOf(rules, "rolling");
  const losesRolling =
    rolling?.breach === "throws-away" && red > 0
      ? red * Math.max(0, 1 - rolling.graceS / redS)
      : rolling?.breach === "throws-away" && round && TURN_ROUND_S > rolling.graceS
        ? 1
        : 0;
  const losesBySpeed = (p: { outS: number }): number => {
    const speed = conditionOf(rules, "speed");
    return speed?.breach === "throws-away" && p.outS > speed.graceS ? 1 : 0;
  };
  const loses =
    1 - (1 - losesRolling) * (1 - mix(losesBySpeed(through), losesBySpeed(stopped), red));
  const falselyS = mix(through.overlapS, stopped.overlapS, red);
  return {
    seconds: mix(through.seconds, stopped.seconds, red),
    variance: red * (redS ** 2 / 12) + red * (1 - red) * (stopped.seconds - through.seconds) ** 2,
    loss: loses,
    takesS: falselyS * (last.rate / 2 + first.rate / 2),
    takesM: falselyS * ((last.rate * last.mps) / 2 + (first.rate * first.mps) / 2),
  };
}

/**
 * Braking to a speed, some seconds of it, and up again: what it costs, how long the window is left, and
 * how much of the time that was reckoned as driven through counts falsely.
 */
function phases(
  rules: DriveRules,
  before: number,
  after: number,
  slow: number,
  standS: number,
): { seconds: number; outS: number; overlapS: number } {
  if (slow >= Math.min(before, after)) return { seconds: 0, outS: 0, overlapS: 0 };
  const seconds = slowedS(before, after, slow, standS);
  const speed = conditionOf(rules, "speed");
  const min = speed ? speed.min * SPEED_UNITS[speed.unit] : 0;
  const below = (from: number): number => Math.max(0, Math.min(from, min) - slow) / BRAKES;
  const outS = min > slow ? below(before) + below(after) + standS : standS;
  const steady = conditionOf(rules, "steadiness");
  const unsteadyS = steady ? (before + after - 2 * slow) / BRAKES + standS + steady.overS : 0;
  return { seconds, outS, overlapS: Math.max(0, Math.max(outS, unsteadyS) - seconds) };
}

/** How far a drive has come: seconds since it left, and what it gathered. */
export type Come = { seconds: number; countS: number; countM: number; doneS: number | null };
export const LEAVING: Come = { seconds: 0, countS: 0, countM: 0, doneS: null };

/** Drives on over a way. */
export function alongWay(outlook: Outlook, come: Come, way: Way, departMs: number): Come {
  const is = outlook.way(way, departMs + come.seconds * 1000);
  const seconds = come.seconds + is.seconds;
  if (come.doneS !== null) return { ...come, seconds };
  const { seconds: wantS = 0, metres: wantM = 0 } = outlook.going.rules.enough;
  if (come.countS + is.mostS < wantS || come.countM + is.mostM < wantM)
    return {
      seconds,
      countS: come.countS * is.keeps + is.addsS,
      countM: come.countM * is.keeps + is.addsM,
      doneS: null,
    };
  let { countS, countM } = come;
  let passed = come.seconds;
  for (const s of is.spans) {
    [countS, countM] = [countS * (1 - s.loss), countM * (1 - s.loss)];
    const wait = Math.max(
      until(s, countS, wantS),
      until({ ...s, rate: s.rate * s.mps }, countM, wantM),
    );
    if (wait <= s.seconds) return { seconds, countS: wantS, countM: wantM, doneS: passed + wait };
    const kept = Math.exp(-s.lossRate * s.seconds);
    const added = countedIn(s, s.seconds);
    [countS, countM] = [countS * kept + added, countM * kept + added * s.mps];
    passed += s.seconds;
  }
  return { seconds, countS, countM, doneS: null };
}

/** Goes from one way into the next. */
export function throughJunction(
  outlook: Outlook,
  come: Come,
  a: Way,
  b: Way,
  departMs: number,
): Come {
  const p = outlook.pass(a, b, departMs + come.seconds * 1000);
  const seconds = come.seconds + p.seconds;
  if (come.doneS !== null) return { ...come, seconds };
  const left = 1 - p.loss;
  return {
    seconds,
    countS: Math.max(0, come.countS - p.takesS) * left,
    countM: Math.max(0, come.countM - p.takesM) * left,
    doneS: null,
  };
}

/** A whole drive over ways that follow each other. */
export function overWays(outlook: Outlook, ways: readonly Way[], departMs: number): Come {
  let come = LEAVING;
  ways.forEach((w, i) => {
    if (i > 0) come = throughJunction(outlook, come, ways[i - 1]!, w, departMs);
    come = alongWay(outlook, come, w, departMs);
  });
  return come;
}

/** The standard deviation of the seconds a whole drive takes: of ways and junctions, each by itself. */
export function spreadOf(outlook: Outlook, ways: readonly Way[], departMs: number): number {
  let [come, variance] = [LEAVING, 0];
  ways.forEach((w, i) => {
    const before = ways[i - 1];
    if (before) {
      variance += outlook.pass(before, w, departMs + come.seconds * 1000).variance;
      come = throughJunction(outlook, come, before, w, departMs);
    }
    variance += outlook.way(w, departMs + come.seconds * 1000).variance;
    come = alongWay(outlook, come, w, departMs);
  });
  return Math.sqrt(variance);
}
