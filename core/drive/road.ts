import { z } from "zod";

/**
 * Roads as a shop knows them: pieces of way between two junctions, with what a camera finds on them,
 * and the junctions. Distances in metres, places as longitude, latitude (WGS 84, degrees) and height.
 */

const lonDeg = z.number().min(-180).max(180);
const latDeg = z.number().min(-90).max(90);
const heightM = z.number().min(-500).max(9000);
export const roadPlace = z.union([z.tuple([lonDeg, latDeg]), z.tuple([lonDeg, latDeg, heightM])]);
export type RoadPlace = z.infer<typeof roadPlace>;

const share = z.number().min(0).max(1);
const day = z.string().regex(/^\d{4}-\d{2}-\d{2}$/, "must be a day, as 2026-11-03");

/** A line on one side of the lane. */
const roadLine = z.object({
  kind: z.enum(["solid", "broken", "none"]),
  /** On what share of the way a camera finds it. */
  seen: share,
  /** When somebody last looked; null where nobody did. */
  on: day.nullable().default(null),
});
export type RoadLine = z.infer<typeof roadLine>;

/** What is left and right of the lane, in the direction that is driven. */
export const laneLines = z.object({ left: roadLine, right: roadLine });
export type LaneLines = z.infer<typeof laneLines>;

/** How full a road is in each hour of the day: 0 nobody, 1 it stands. */
const byHour = z.array(share).length(24);

export const roadFields = z.object({
  name: z.string().min(1).max(120),
  oneWay: z.boolean().default(false),
  limitKmh: z.number().min(5).max(200),
  lanes: z.number().int().min(1).max(8).default(1),
  surface: z.enum(["asphalt", "concrete", "setts", "gravel"]).default("asphalt"),
  /** As one drives it from its first point to its last. */
  along: laneLines,
  /** As one drives it the other way; as along where it is not said. */
  back: laneLines.optional(),
  traffic: byHour.default(() => Array<number>(24).fill(0.1)),
});

/** A way between two junctions, without one between. */
export type Road = z.infer<typeof roadFields> & { id: string; points: RoadPlace[] };

export const junctionFields = z.object({
  control: z.enum(["none", "give-way", "signals", "roundabout"]).default("none"),
  /** Of signals: on what share of a cycle one has to wait, and how long the red lasts, seconds. */
  redShare: share.default(0.5),
  redS: z.number().min(5).max(300).default(40),
  /** Whether one may turn round here. */
  turnRound: z.boolean().default(false),
});
export type Junction = z.infer<typeof junctionFields> & { at: RoadPlace };

export type Roads = { roads: readonly Road[]; junctions: readonly Junction[] };
