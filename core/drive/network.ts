import { backwards, piecesOf, turnDeg, type Piece } from "./geometry";
import type { Junction, LaneLines, Road, RoadPlace, Roads } from "./road";

/** One way of driving a road, from junction to junction. */
export type Way = {
  /** Its place in {@link Network.ways}. */
  index: number;
  road: Road;
  back: boolean;
  /** Nodes it leads from and to. */
  from: number;
  to: number;
  lengthM: number;
  pieces: readonly Piece[];
  lines: LaneLines;
};

export type Node = { at: RoadPlace; junction: Junction; out: Way[]; into: Way[] };
export type Network = { nodes: Node[]; ways: Way[] };

const PLAIN: Omit<Junction, "at"> = { control: "none", redShare: 0, redS: 40, turnRound: false };

/** Places nearer than about a tenth of a metre are one. */
const keyOf = ([lon, lat]: RoadPlace): string => `${lon.toFixed(6)} ${lat.toFixed(6)}`;

/**
 * Roads joined where their ends meet. A road without length is left out; a place where ends meet that
 * no junction describes is a plain one.
 */
export function networkOf({ roads, junctions }: Roads): Network {
  const nodes: Node[] = [];
  const ways: Way[] = [];
  const byPlace = new Map<string, number>();
  const known = new Map(junctions.map((j) => [keyOf(j.at), j]));
  const nodeAt = (at: RoadPlace): number => {
    const key = keyOf(at);
    const had = byPlace.get(key);
    if (had !== undefined) return had;
    byPlace.set(key, nodes.length);
    nodes.push({ at, junction: known.get(key) ?? { ...PLAIN, at }, out: [], into: [] });
    return nodes.length - 1;
  };
  const add = (way: Omit<Way, "index">): void => {
    const whole = { ...way, index: ways.length };
    ways.push(whole);
    nodes[way.from]!.out.push(whole);
    nodes[way.to]!.into.push(whole);
  };
  for (const road of roads) {
    const pieces = piecesOf(road.points);
    if (pieces.length === 0) continue;
    const lengthM = pieces.reduce((s, p) => s + p.lengthM, 0);
    const [from, to] = [nodeAt(road.points[0]!), nodeAt(road.points.at(-1)!)];
    add({ road, back: false, from, to, lengthM, pieces, lines: road.along });
    if (!road.oneWay)
      add({
        road,
        back: true,
        from: to,
        to: from,
        lengthM,
        pieces: backwards(pieces),
        lines: road.back ?? road.along,
      });
  }
  return { nodes, ways };
}

/** Whether one way is the other driven back: that is to turn round. */
export const isTurnRound = (a: Way, b: Way): boolean => a.road === b.road && a.back !== b.back;

/**
 * Where one may go on at the end of a way. Turning round is for places that allow it; at the end of a
 * road that leads nowhere else there is no other way.
 */
export function onward(network: Network, way: Way): Way[] {
  const on: Way[] = [];
  eachOnward(network, way, (w) => on.push(w));
  return on;
}

/** The same without a list. */
export function eachOnward({ nodes }: Network, way: Way, visit: (next: Way) => void): void {
  const { out, junction } = nodes[way.to]!;
  let others = 0;
  for (const w of out)
    if (!isTurnRound(way, w)) {
      others++;
      visit(w);
    }
  for (const w of out) if (isTurnRound(way, w) && (junction.turnRound || others === 0)) visit(w);
}

/** How far one turns from a way into the next, to the right positive, degrees. */
export const turnInto = (a: Way, b: Way): number =>
  turnDeg(a.pieces.at(-1)!.headingDeg, b.pieces[0]!.headingDeg);

/** The node nearest to a place. @throws RangeError for a network without one */
export function nearestNode({ nodes }: Network, [lon, lat]: RoadPlace): number {
  let best = -1;
  let least = Infinity;
  const shrink = Math.cos((lat * Math.PI) / 180);
  nodes.forEach(({ at }, i) => {
    const d = Math.hypot((at[0] - lon) * shrink, at[1] - lat);
    if (d < least) [best, least] = [i, d];
  });
  if (best < 0) throw new RangeError("roads: there are none.");
  return best;
}
