import { z } from "zod";
import { sheetSchema } from "@/core/sheet";
import {
  jobParts,
  lines,
  moves,
  owedParts,
  person,
  reading,
  result,
  run,
  time,
  touches,
} from "./parts";

const codeState = z.enum(["stored", "pending", "history"]).nullable();

/** Two readings of the control units against each other, and the word that was said of what matters. */
const codes = z.object({
  /** Null where nobody read before the routine. */
  before: time.nullable(),
  /** Null while nobody read again after the routine. */
  after: time.nullable(),
  /** Whether codes were cleared between the routine and the last reading. */
  cleared: z.boolean(),
  units: z.array(
    z.object({
      name: z.string(),
      change: z.enum(["answers", "lost", "found", "silent", "not-fitted"]),
      word: z.string().nullable(),
      codes: z.array(
        z.object({
          code: z.string(),
          text: z.string(),
          change: z.enum(["gone", "stayed", "new", "unread"]),
          before: codeState,
          after: codeState,
          word: z.string().nullable(),
        }),
      ),
    }),
  ),
});

/** One number with limits, as it was accepted: error is actual minus wanted. */
const quantity = z.object({
  id: z.string(),
  /** The name of the other target, where it is what two have to be to each other. */
  to: z.string().optional(),
  unit: z.enum(["mm", "rad"]),
  error: z.number(),
  /** Standard uncertainty; null where an older record does not say it. */
  sigma: z.number().nullable(),
  lower: z.number(),
  upper: z.number(),
});

/** x forward, y to vehicle left, mm. */
const spot = z.tuple([z.number(), z.number()]);

/** A target of a setup: how it was set out, everything read of it, and what was accepted. */
const target = z.object({
  id: z.string(),
  name: z.string(),
  setup: z.string(),
  /** What carried it; null where nothing did yet. */
  stand: z.string().nullable(),
  /** The way chosen last. */
  way: z.string(),
  lines,
  /** What hung or lay there by its label; the reason is given for a worn one. */
  check: z
    .object({ code: z.string(), reason: z.string().nullable(), at: time, by: person })
    .nullable()
    .optional(),
  readings: z.array(reading),
  moves,
  touches,
  /** The accepted position, unless it was disturbed since. */
  settled: z
    .object({
      at: time,
      by: person,
      chance: z.number().min(0).max(1),
      /** What was taken as right because nothing in the kit would have shown otherwise. */
      assumes: z.array(z.string()).optional(),
      /** Two halves of the readings, taken apart; null where no two fix the target. */
      halves: z
        .object({
          of: z.tuple([z.array(z.string()), z.array(z.string())]),
          mm: z.number(),
          sigmaMm: z.number(),
          turnRad: z.number(),
          sigmaRad: z.number(),
          p: z.number().min(0).max(1),
        })
        .nullable()
        .optional(),
      quantities: z.array(quantity),
    })
    .nullable(),
  /** As it was accepted, on the floor: vehicle axes, mm; absent where nothing was, and in older records. */
  drawing: z
    .object({
      marks: z.array(z.object({ name: z.string(), at: spot })),
      lines: z.array(
        z.object({ layer: z.enum(["vehicle", "board", "line"]), from: spot, to: spot }),
      ),
      /** Where each reading that counts runs. */
      readings: z.array(z.object({ id: z.string(), from: spot, to: spot })),
    })
    .optional(),
  /** What was read again after the vehicle had learned, before anything was touched. */
  witness: z
    .object({
      readings: z.number().int().min(1),
      share: z.number().min(0).max(1),
      p: z.number().min(0).max(1),
      stood: z.boolean(),
      chance: z.number().min(0).max(1),
    })
    .nullable()
    .optional(),
});

/** One sheet carried out: what it asked for, its targets in the sheet's order, its routine. */
const calibration = z.object({
  id: z.string(),
  reason: z.string(),
  sheet: sheetSchema,
  targets: z.array(target),
  run: run.extend({
    // Only a camera that looks one way learns angles.
    result: result
      .partial({ learnedYawDeg: true, learnedPitchDeg: true, learnedRollDeg: true })
      .nullable(),
    /** What set-out and glass seat had foretold of the learned aim; absent where nothing did. */
    foretold: z
      .object({
        axes: z.array(
          z.object({
            axis: z.enum(["yaw", "pitch", "roll"]),
            learnedDeg: z.number(),
            meanDeg: z.number(),
            sigmaDeg: z.number(),
            w: z.number(),
          }),
        ),
        p: z.number().min(0).max(1),
        glass: z.boolean(),
        /** Whether the body's stance was measured; absent in older records. */
        stance: z.boolean().optional(),
      })
      .optional(),
    /** What the routine changed of the aim that was stored before; absent where it was not read. */
    changedAim: z
      .object({
        yawDeg: z.number(),
        pitchDeg: z.number(),
        rollDeg: z.number(),
        leftAt60Mm: z.number(),
      })
      .optional(),
    /** Every refusal, with what it most likely came from by what was known then; absent without any. */
    refusals: z
      .array(
        z.object({
          at: time,
          reason: z.string(),
          causes: z.array(z.object({ name: z.string(), share: z.number().min(0).max(1) })),
        }),
      )
      .optional(),
  }),
  /** Every drive it was to learn on; absent where the sheet asks for none. */
  drives: z
    .array(
      z.object({
        at: time,
        by: person,
        outcome: z.enum(["learned", "timed-out", "given-up"]),
        says: z.string(),
        remark: z.string(),
        drove: z.string(),
        watched: z.string(),
        /** What was planned of it and said before leaving; absent where nobody left by a plan. */
        leave: z
          .object({
            at: time,
            /** Seconds, and between which four drives of five are back. */
            planned: z
              .object({
                seconds: z.number(),
                from: z.number(),
                to: z.number(),
                chance: z.number(),
              })
              .nullable(),
            keeps: z.string(),
            hotspot: z.boolean(),
            /** Why it was driven in rain; null where it was dry. */
            inRain: z.string().nullable(),
            /** The seconds come from a simulated stand-in. */
            simulated: z.boolean(),
          })
          .optional(),
        /** What was logged of it by the sheet's rules; null where nothing was. */
        counted: z
          .object({
            seconds: z.number(),
            ofSeconds: z.number(),
            metres: z.number(),
            /** How often everything gathered was thrown away. */
            losses: z.number().int(),
            /** Conditions of which the log said nothing; absent where it said of all. */
            unknown: z.array(z.string()).optional(),
            /** Seconds that did not count, by why, the dearest first. */
            cost: z.array(z.object({ name: z.string(), seconds: z.number() })),
          })
          .nullable(),
      }),
    )
    .optional(),
});

const { job, vehicle, checks, cameIn, consent, photos, glass, ...end } = jobParts;

/** The record of a job as it is handed over: one self-contained JSON document. */
export const recordSchema = z.object({
  format: z.literal("iridel.record/2"),
  job: job.extend({
    /** The shop's time zone when it was made: its times are written in it. */
    zone: z.string().optional(),
    /** Whose record it is, as it stands at the head of the report. */
    shop: z.object({ name: z.string(), address: z.string() }).optional(),
  }),
  vehicle,
  owed: z.object(owedParts),
  checks,
  /** The control units before the work and after it; absent where nobody read them. */
  codes: codes.optional(),
  /** How each function did on the road after the work; absent where none was tried. */
  road: z
    .array(
      z.object({
        name: z.string(),
        result: z.enum(["works", "fails", "untried"]),
        remark: z.string(),
        drove: z.string(),
        watched: z.string(),
        /** As the customer had it, and whether it is so again; null where nobody wrote it down. */
        found: z.string().nullable(),
        putBack: z.boolean(),
        at: time,
        by: person,
      }),
    )
    .optional(),
  /** The lamps after the work against those that were lit before it, in words. */
  lampsNow: z.object({ words: z.string(), at: time, by: person }).optional(),
  cameIn,
  consent,
  photos,
  glass,
  /** Every calibration of the job, in the order they were carried out. */
  calibrations: z.array(calibration),
  /** Who looked the record through before it was handed over; absent where nobody signed. */
  signed: z.object({ by: person, at: time }).optional(),
  /**
   * Vehicle and sheet stood in no book of the shop: who typed their figures, and the second person
   * who compared them with the source; absent where a book had them.
   */
  typedFigures: z
    .object({
      by: person,
      at: time,
      source: z.string(),
      tapedSigmaMm: z.number(),
      compared: z.object({ by: person, at: time }).nullable(),
    })
    .optional(),
  ...end,
});

export type JobRecord = z.infer<typeof recordSchema>;
export type CalibrationRecord = JobRecord["calibrations"][number];
export type TargetRecord = CalibrationRecord["targets"][number];

/** The record's published JSON Schema (draft 2020-12). */
export const recordJsonSchema = (): object => z.toJSONSchema(recordSchema);
