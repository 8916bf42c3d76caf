import { z } from "zod";
import { keepsSchema } from "./policy-schema";
import { SPEED_UNITS } from "./speed-units";

/**
 * What a sheet asks of its drive, as data: conditions that all have to hold for a second to count, what
 * a breach of each does to what was gathered, and how much is to be gathered.
 */

/** A breach waits, or what was gathered so far is lost. */
const breach = z.enum(["pauses", "throws-away"]);

/**
 * What every condition has: what its breach does; and, where it throws away, for how long a breach is
 * borne before it does, seconds. Until then it pauses.
 */
const often = {
  breach,
  graceS: z.number().min(0).max(600).default(0),
};

const unit = z.enum(["km/h", "mph"]);

/** What a line of the road has to be to count on its side. */
const line = z.enum(["solid", "broken", "either"]).nullable();

const condition = z.discriminatedUnion("kind", [
  /** Inside a window, its ends included. */
  z.object({
    kind: z.literal("speed"),
    unit,
    min: z.number().min(0).max(250),
    max: z.number().min(1).max(250),
    ...often,
  }),
  /** No two speeds of the last so many seconds differ by more. */
  z.object({
    kind: z.literal("steadiness"),
    unit,
    within: z.number().min(0.5).max(60),
    overS: z.number().min(1).max(120),
    ...often,
  }),
  /** Lines of the lane that the camera sees; null on a side where it needs none. */
  z.object({ kind: z.literal("lines"), left: line, right: line, ...often }),
  /** Straight enough: no curve tighter than this. */
  z.object({ kind: z.literal("curve"), minRadiusM: z.number().min(20).max(10_000), ...often }),
  /** Nobody nearer ahead than this. */
  z.object({ kind: z.literal("gap"), minM: z.number().min(2).max(300), ...often }),
  /** How bright it has to be. */
  z.object({ kind: z.literal("light"), needs: z.enum(["day", "day-or-dusk"]), ...often }),
  /** What may not fall, hang or lie. */
  z.object({
    kind: z.literal("weather"),
    without: z.array(z.enum(["rain", "fog", "snow", "wet-road"])).min(1),
    ...often,
  }),
  /** The sun not within so many degrees of where the camera looks. */
  z.object({ kind: z.literal("sun"), coneDeg: z.number().min(2).max(90), ...often }),
  /** The vehicle rolls: a standstill, as at a red light. */
  z.object({ kind: z.literal("rolling"), ...often }),
  /** The ignition stays on. */
  z.object({ kind: z.literal("key"), ...often }),
]);
export type DriveCondition = z.infer<typeof condition>;
export type DriveConditionKind = DriveCondition["kind"];

/** How a vehicle says how far it is: as a share, as a bar, or by codes, of which some mean that it is done. */
const progress = z.discriminatedUnion("as", [
  z.object({ as: z.literal("percent") }),
  z.object({ as: z.literal("bar"), of: z.number().int().min(2).max(40) }),
  z.object({
    as: z.literal("codes"),
    codes: z
      .array(
        z.object({
          code: z.string().min(1).max(12),
          says: z.string().min(3).max(120),
          done: z.boolean().default(false),
        }),
      )
      .min(2)
      .max(40),
  }),
]);

export const driveRulesSchema = z
  .object({
    conditions: z.array(condition).min(1).max(12),
    /** How much has to count; where both are named, both. */
    enough: z
      .object({
        seconds: z.number().min(5).max(7200).optional(),
        metres: z.number().min(50).max(200_000).optional(),
      })
      .refine((e) => e.seconds !== undefined || e.metres !== undefined, {
        message: "needs seconds, metres, or both",
      }),
    /** How the speed may be kept; as the shop says where the sheet does not. */
    keeps: z.array(keepsSchema).min(1).optional(),
    /** After so long the vehicle gives up, seconds from the start. */
    timeOutS: z
      .number()
      .min(60)
      .max(4 * 3600)
      .optional(),
    progress: progress.default({ as: "percent" }),
  })
  .superRefine(({ conditions, enough, timeOutS, progress: p }, ctx) => {
    const wrong = (path: (string | number)[], message: string): void =>
      ctx.addIssue({ code: "custom", path, message });
    conditions.forEach((c, i) => {
      const at = (field: string): (string | number)[] => ["conditions", i, field];
      if (conditions.findIndex((x) => x.kind === c.kind) !== i)
        wrong(at("kind"), `is named twice: "${c.kind}"`);
      if (c.kind === "speed" && c.min >= c.max) wrong(at("min"), "must be below max");
      // A camera learns at 40 and more: a window below walking pace was meant in another unit.
      if (c.kind === "speed" && c.max * SPEED_UNITS[c.unit] < 3)
        wrong(at("max"), `is less than walking pace: look whether it is meant in ${c.unit}`);
      if (c.kind === "lines" && c.left === null && c.right === null)
        wrong(at("left"), "needs a line on one side at least, or leave the condition out");
      if (c.breach === "pauses" && c.graceS > 0)
        wrong(at("graceS"), "is for what throws away: a pause ends by itself");
    });
    if (timeOutS !== undefined && enough.seconds !== undefined && timeOutS <= enough.seconds)
      wrong(["timeOutS"], "is over before enough seconds can count");
    if (p.as === "codes" && !p.codes.some((c) => c.done))
      wrong(["progress", "codes"], "needs one that means done");
  });
export type DriveRules = z.infer<typeof driveRulesSchema>;
