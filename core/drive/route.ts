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
