import { z } from "zod";
import { sheet1Schema } from "@/core/sheet";
import { jobParts, lines, moves, owedParts, person, reading, run, time, touches } from "./parts";

const { job, vehicle, checks, cameIn, consent, photos, glass, ...end } = jobParts;

/**
 * Records as they were made while a job held one sheet and one set-out. They are kept and shown as
 * they were made; `upcastRecord` reads them as one of today's where a report is drawn from them.
 */
export const record1Schema = z.object({
  format: z.literal("iridel.record/1"),
  job,
  vehicle,
  owed: z.object({ ...owedParts, reason: z.string(), sheet: sheet1Schema }),
  checks,
  cameIn,
  consent,
  photos,
  glass,
  setOut: z.object({
    stand: z.string(),
    /**
     * How it was set out: the way chosen last, and the lines of the vehicle against the sheet's,
     * where they were known.
     */
    way: z.string(),
    lines,
    readings: z.array(reading),
    moves,
    touches,
    /** Where the sheet wanted the board at the place it stands at. */
    place: z.object({
      name: z.string(),
      alongMm: z.number(),
      acrossMm: z.number(),
      twistDeg: z.number(),
      heightMm: z.number(),
    }),
    /** Places proved before this one, each as it was accepted. */
    earlier: z.array(
      z.object({
        place: z.string(),
        stand: z.string(),
        chance: z.number(),
        alongMm: z.number(),
        acrossMm: z.number(),
        twistRad: z.number(),
        heightMm: z.number(),
        at: time,
        by: person,
      }),
    ),
    /** The accepted position, unless it was disturbed since; errors are actual minus sheet. */
    settled: z
      .object({
        at: time,
        by: person,
        chance: z.number().min(0).max(1),
        alongMm: z.number(),
        acrossMm: z.number(),
        twistRad: z.number(),
        heightMm: z.number(),
        sigma: z.object({
          alongMm: z.number(),
          acrossMm: z.number(),
          twistRad: z.number(),
          heightMm: z.number(),
        }),
      })
      .nullable(),
  }),
  run,
  ...end,
});

export type JobRecord1 = z.infer<typeof record1Schema>;

/** Its published JSON Schema (draft 2020-12). */
export const record1JsonSchema = (): object => z.toJSONSchema(record1Schema);
