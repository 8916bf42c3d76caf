import { distanceM, headingDeg, offset, turnDeg } from "./geometry";
import type { LoggedSample } from "./log";
import type { LaneLines, Road, RoadLine, RoadPlace } from "./road";
import type { LineSeen } from "./sample";

/**
 * What a drive tells of the roads it went over: on what share of its seconds a camera found the lines of
 * each, in the direction that was driven.
 */
export type RoadRating = {
  roadId: string;
  name: string;
  /** Driven from its last point to its first. */
  back: boolean;
  /** Seconds on it of which the lines are known. */
  seconds: number;
  /** What was known, and what is with this drive. */
  was: LaneLines;
  is: LaneLines;
};

/** A place belongs to a road that is so near, metres, and leads so much the same way, degrees. */
const NEAR_M = 25;
const ALONG_DEG = 40;
/** A road that was driven for less than this is not rated, seconds. */
const LEAST_S = 6;
/** What was known before counts as so many seconds: more where somebody has looked. */
const KNOWN_S = { looked: 60, guessed: 15 };
/** Of the seconds a line is seen it has to be of another kind on so many to be called that. */
const OTHER_KIND = 0.8;
/** Cells of the index, degrees of latitude: some 220 m. */
const CELL = 0.002;
/** A heading is taken from places so far apart, metres. */
const APART_M = 8;
/** A camera's word counts for so much of a second at most: gaps in a log are nobody's. */
const MOST_S = 3;

type Segment = { road: Road; a: RoadPlace; b: RoadPlace; headingDeg: number };

const cellOf = ([lon, lat]: RoadPlace): [number, number] => [
  Math.floor(lon / (CELL * 2)),
  Math.floor(lat / CELL),
];

/** Every piece of road by the cells it may be near to. */
function indexOf(roads: readonly Road[]): Map<string, Segment[]> {
  const cells = new Map<string, Segment[]>();
  for (const road of roads)
    road.points.slice(1).forEach((b, i) => {
      const a = road.points[i]!;
      const segment = { road, a, b, headingDeg: headingDeg(a, b) };
      const [[x1, y1], [x2, y2]] = [cellOf(a), cellOf(b)];
      for (let x = Math.min(x1, x2) - 1; x <= Math.max(x1, x2) + 1; x++)
        for (let y = Math.min(y1, y2) - 1; y <= Math.max(y1, y2) + 1; y++) {
          const key = `${x} ${y}`;
          const here = cells.get(key);
          if (here) here.push(segment);
          else cells.set(key, [segment]);
        }
    });
  return cells;
}

/** How far a place is from a piece of road, metres. */
function awayM(place: RoadPlace, { a, b }: Segment): number {
  const [x, y] = offset(a, place);
  const [u, v] = offset(a, b);
  const length = u * u + v * v;
  const t = length > 0 ? Math.min(1, Math.max(0, (x * u + y * v) / length)) : 0;
  return Math.hypot(x - t * u, y - t * v);
}

type Seen = Record<LineSeen, number>;
type Tally = { road: Road; back: boolean; seconds: number; left: Seen; right: Seen };
const nothing = (): Seen => ({ solid: 0, broken: 0, none: 0 });

/** What was known of a line, and what was seen of it since. */
function rated(was: RoadLine, seen: Seen, day: string): RoadLine {
  const found = seen.solid + seen.broken;
  const all = found + seen.none;
  const weight = was.on === null ? KNOWN_S.guessed : KNOWN_S.looked;
  const prior = was.kind === "none" ? 0 : was.seen;
  const share = Number(((prior * weight + found) / (weight + all)).toFixed(2));
  const now = seen.solid >= seen.broken ? "solid" : "broken";
  const other = was.kind === "none" ? found > all / 2 : seen[now] > OTHER_KIND * found && found > 0;
  return {
    kind: other ? now : was.kind,
    seen: was.kind === "none" && !other ? was.seen : share,
    on: day,
  };
}

/**
 * The roads of a drive with what it tells of their lines, the longest driven first.
 *
 * @param dayOf a moment's day in the shop's own zone, as 2026-11-03
 */
export function ratingsFrom(
  roads: readonly Road[],
  samples: readonly LoggedSample[],
  dayOf: (atMs: number) => string,
): RoadRating[] {
  const index = indexOf(roads);
  const tallies = new Map<string, Tally>();
  let day = "";
  let from: RoadPlace | null = null;
  let heading: number | null = null;
  samples.forEach((s, i) => {
    const { place, lines } = s;
    if (!place) return;
    if (from === null) from = place;
    else if (distanceM(from, place) >= APART_M) [heading, from] = [headingDeg(from, place), place];
    if (!lines || heading === null) return;
    const next = samples[i + 1];
    const seconds = next ? Math.min(MOST_S, Math.max(0, (next.atMs - s.atMs) / 1000)) : 0;
    if (seconds === 0) return;
    let best: { segment: Segment; back: boolean; m: number } | null = null;
    for (const segment of index.get(cellOf(place).join(" ")) ?? []) {
      const turn = Math.abs(turnDeg(segment.headingDeg, heading));
      const back = turn > 180 - ALONG_DEG;
      if (!back && turn > ALONG_DEG) continue;
      const m = awayM(place, segment);
      if (m <= NEAR_M && (!best || m < best.m)) best = { segment, back, m };
    }
    if (!best) return;
    const { road } = best.segment;
    const key = `${road.id} ${best.back}`;
    const tally = tallies.get(key) ?? {
      road,
      back: best.back,
      seconds: 0,
      left: nothing(),
      right: nothing(),
    };
    tallies.set(key, tally);
    tally.seconds += seconds;
    tally.left[lines.left] += seconds;
    tally.right[lines.right] += seconds;
    day = dayOf(s.atMs);
  });
  return [...tallies.values()]
    .filter((t) => t.seconds >= LEAST_S && !(t.back && t.road.oneWay))
    .map(({ road, back, seconds, left, right }): RoadRating => {
      const was = back ? (road.back ?? road.along) : road.along;
      const is = { left: rated(was.left, left, day), right: rated(was.right, right, day) };
      return { roadId: road.id, name: road.name, back, seconds, was, is };
    })
    .toSorted((a, b) => b.seconds - a.seconds);
}

/** The roads as they are known after some ratings; one of a road that is not there is passed over. */
export function withRatings(
  roads: readonly Road[],
  ratings: readonly Pick<RoadRating, "roadId" | "back" | "is">[],
): Road[] {
  return roads.map((road) => {
    const of = (back: boolean) => ratings.find((r) => r.roadId === road.id && r.back === back)?.is;
    const [along, back] = [of(false), road.oneWay ? undefined : of(true)];
    if (!along && !back) return road;
    // What is known of the other direction stays as it was.
    const other = back ?? road.back ?? (along && !road.oneWay ? road.along : undefined);
    return { ...road, along: along ?? road.along, ...(other && { back: other }) };
  });
}
