import { piecesOf } from "./geometry";
import { isTurnRound, turnInto, type Network, type Way } from "./network";
import type { RoadPlace } from "./road";
import type { LineSeen } from "./sample";

/** One road of a route, as it is driven: all that whoever drives it, or stands in for him, has to know. */
export type RouteLeg = {
  name: string;
  points: readonly RoadPlace[];
  limitMps: number;
  lines: Record<"left" | "right", { kind: LineSeen; seen: number }>;
  /** How full it is in each hour of the day. */
  traffic: readonly number[];
  /** What stands at its end, and how far one turns there, to the right positive, degrees. */
  end: { control: string; redShare: number; redS: number; turnDeg: number; round: boolean };
};

/** The legs of ways that follow each other. */
export const legsOf = ({ nodes }: Network, ways: readonly Way[]): RouteLeg[] =>
  ways.map((w, i) => {
    const next = ways[i + 1];
    const { control, redShare, redS } = nodes[w.to]!.junction;
    const { road, lines } = w;
    // Where no other road leaves, a bend is a bend of the road.
    const joins = nodes[w.to]!.out.length > 2;
    return {
      name: road.name,
      points: w.back ? road.points.toReversed() : road.points,
      limitMps: road.limitKmh / 3.6,
      lines: { left: lines.left, right: lines.right },
      traffic: road.traffic,
      end: {
        control,
        redShare,
        redS,
        turnDeg: next && joins ? turnInto(w, next) : 0,
        round: next !== undefined && isTurnRound(w, next),
      },
    };
  });

/** One line of a turn sheet: how to turn, into what, and how far it then goes. */
export type Turn = {
  turn: "leave" | "on" | "left" | "right" | "round";
  name: string;
  metres: number;
  /** What stands where one turns. */
  control: string;
};

/** How far one may bend and still go straight on, degrees. */
const STRAIGHT_ON = 35;

/** The turns of a drive: roads of one name that follow each other are one. */
export function turnsOf(legs: readonly RouteLeg[]): Turn[] {
  const turns: Turn[] = [];
  legs.forEach((leg, i) => {
    const name = leg.name.replace(/,? \d+$/, "");
    const metres = piecesOf(leg.points).reduce((s, p) => s + p.lengthM, 0);
    const end = legs[i - 1]?.end;
    const last = turns.at(-1);
    const bends = end !== undefined && (end.round || Math.abs(end.turnDeg) > STRAIGHT_ON);
    if (last?.name === name && !bends) last.metres += metres;
    else
      turns.push({
        turn: !end
          ? "leave"
          : end.round
            ? "round"
            : !bends
              ? "on"
              : end.turnDeg > 0
                ? "right"
                : "left",
        name,
        metres,
        control: end?.control ?? "none",
      });
  });
  return turns;
}
