import { z } from "zod";
import { LAST_ACT_IDS } from "./last-act-ids";

const finite = z.number().min(-5000).max(5000);

/**
 * Backlash: how far the adjuster turns over before anything follows; a yaw's is measured at the end
 * of the beam.
 */
const play = z.number().min(0).max(20).optional();

/**
 * A yaw joint turns everything above it about a vertical axis; a slide carries everything above it
 * along x or y.
 */
const joint = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("yaw"),
    xMm: finite,
    yMm: finite,
    limitRad: z.number().positive().max(1),
    playMm: play,
  }),
  z.object({
    kind: z.literal("slide"),
    axis: z.enum(["fore-aft", "cross"]),
    limitMm: z.number().positive().max(1000),
    playMm: play,
  }),
]);

/** A piece set under the mast for high boards. */
const booster = z.object({
  id: z.string().regex(/^[A-Z0-9-]{2,12}$/, "use capitals, figures and dashes"),
  addsMm: z.number().min(20, "is at least 20 mm").max(1500),
});
export type Booster = z.infer<typeof booster>;

/**
 * A stand, described from the floor upward in its own axes: x toward the car, y to the left of
 * that, z up.
 *
 * Every dimension is the shop's own measurement of its own stand.
 */
export const standSchema = z.object({
  id: z.string().min(1),
  name: z.string().min(1),
  /** Half the length of the beam between the hooks that tapes are held to. */
  beamHalfMm: z.number().min(200).max(3000),
  /** Height of those hooks above the floor. */
  hookHeightMm: z.number().min(50).max(2500),
  /** Joints from the floor upward. None at all: the stand only rolls. */
  joints: z.array(joint).max(4),
  /** Centre of the board in the frame above the last joint. */
  boardXMm: finite,
  boardYMm: finite,
  crank: z
    .object({
      minMm: z.number(),
      maxMm: z.number(),
      mmPerTurn: z.number().positive(),
      playMm: play,
    })
    .refine((c) => c.minMm < c.maxMm, { path: ["maxMm"], message: "must be above the lowest" }),
  /** Board-centre height minus the height the stand's own scale shows. */
  scaleOffsetMm: finite,
  /** From the board's face back to the back of the beam, for books that count to it. */
  beamBackMm: z.number().min(0).max(800).optional(),
  /**
   * Whether the laser is clamped beside the board and goes with its crank, sits where the board is
   * hung (so that one of the two is on at a time), or sits on the beam.
   */
  laserOn: z.enum(["board", "hook", "beam"]).optional(),
  /** The stand's own laser above the board's centre, for books that count to it. */
  laserUpMm: finite.optional(),
  /** Levelling feet in base axes; the first is the reference foot and is left alone. */
  feet: z
    .array(z.object({ xMm: finite, yMm: finite }))
    .min(3)
    .max(4),
  footMmPerTurn: z.number().positive(),
  boosters: z.array(booster).max(4).optional(),
  /** What is done to it last, in this order, before its board can be called set. */
  lastActs: z.array(z.enum(LAST_ACT_IDS)).max(6).optional(),
});
