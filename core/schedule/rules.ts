import { z } from "zod";

const minute = z.number().int().min(0).max(1440);
const length = z.number().int().min(0).max(600);

/** How a shop's days go: its hours, and what belongs to a job besides what its sheets say. */
export const dayRulesSchema = z
  .object({
    fromMin: minute,
    toMin: minute,
    /** When nobody works; null where everybody breaks off when it suits. */
    rest: z.tuple([minute, minute]).nullable(),
    /** Minutes to set a glass, and how long its adhesive cures before the vehicle may be driven. */
    glassMin: length,
    cureMin: length,
    /** Reading the codes again, the report, giving back. */
    proveMin: length,
    /** To a customer's place, one way. */
    travelMin: length,
    /** To stand a vehicle at another place of its bay, where not all of it fits at one. */
    moveMin: length.default(15),
    /** Whether a second person rides along on a drive. */
    secondOnDrive: z.boolean(),
    /** Hours of those who do not keep the shop's; null for who is away. */
    people: z.record(
      z.string(),
      z
        .object({ fromMin: minute, toMin: minute })
        .refine((p) => p.fromMin < p.toMin)
        .nullable(),
    ),
  })
  .refine((r) => r.fromMin < r.toMin, "The day must end after it begins.");
export type DayRules = z.infer<typeof dayRulesSchema>;

export const USUAL_DAY: DayRules = {
  fromMin: 8 * 60,
  toMin: 17 * 60,
  rest: [12 * 60 + 30, 13 * 60],
  glassMin: 50,
  cureMin: 60,
  proveMin: 12,
  travelMin: 25,
  moveMin: 15,
  secondOnDrive: false,
  people: {},
};
