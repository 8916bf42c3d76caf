import { z } from "zod";

/** What records of every format hold alike. */
export const person = z.object({ name: z.string(), initials: z.string() });
export const time = z.iso.datetime();

export const reading = z.object({
  id: z.string(),
  slot: z.string(),
  name: z.string(),
  typed: z.string(),
  value: z.number(),
  unit: z.enum(["mm", "rad"]),
  /** For a reading with a side: what positive and negative values mean. */
  sides: z.object({ positive: z.string(), negative: z.string() }).nullable(),
  at: time,
  by: person,
  instrument: z.object({ id: z.string(), name: z.string() }),
  sigma: z.number(),
  /**
   * counts: part of the proof. doubt: taken before something moved. struck: withdrawn, with its
   * reason.
   */
  state: z.enum(["counts", "doubt", "struck"]),
  struckReason: z.string().nullable(),
  /** Adjusted minus observed, same unit; null unless the reading counts. */
  residual: z.number().nullable(),
  redundancy: z.number().nullable(),
  w: z.number().nullable(),
});

/** What belongs to the job as a whole. */
export const jobParts = {
  job: z.object({
    number: z.number().int(),
    takenInAt: time,
    takenInBy: person,
    customer: z.string(),
    order: z.string(),
    promisedAt: time.nullable(),
  }),
  vehicle: z.object({
    make: z.string(),
    model: z.string(),
    variant: z.string(),
    vin: z.string(),
    vinKeptBecause: z.string().nullable(),
    plate: z.string(),
  }),
  checks: z.array(
    z.object({
      stage: z.enum(["ready", "prove"]),
      ask: z.string(),
      outcome: z.enum(["fine", "fixed", "accepted", "blocks"]),
      /** What was measured for it, in words, newest last. */
      measured: z.array(z.object({ name: z.string(), value: z.string(), ok: z.boolean() })),
      reason: z.string().nullable(),
      at: time,
      by: person,
    }),
  ),
  /** The vehicle as it came in; null when nobody walked round it. */
  cameIn: z
    .object({
      odometerKm: z.number(),
      odometerTyped: z.string(),
      lamps: z.array(z.string()),
      /** The customer's own settings as found. */
      settings: z.array(z.object({ name: z.string(), found: z.string() })),
      at: time,
      by: person,
    })
    .nullable(),
  /** The customer's consent to a drive; strokes in thousandths of the field's width. */
  consent: z
    .object({
      name: z.string(),
      words: z.string(),
      strokes: z.array(z.array(z.tuple([z.number(), z.number()]))),
      at: time,
      by: person,
    })
    .nullable(),
  /** Photos by the SHA-256 of their bytes; `takenAt` by the camera's own clock. */
  photos: z.array(
    z.object({
      sha256: z.string(),
      shows: z.string(),
      takenAt: time.nullable(),
      keptAt: time,
      by: person,
    }),
  ),
  /** The fitted glass and how it sits; null when nobody measured it. */
  glass: z
    .object({
      part: z.string(),
      fitter: z.string(),
      partReason: z.string().nullable(),
      depthsMm: z.record(z.string(), z.number()),
      turnDeg: z.object({ yaw: z.number(), pitch: z.number(), roll: z.number() }).nullable(),
      limitDeg: z.number(),
      inside: z.boolean().nullable(),
      mount: z.array(z.object({ name: z.string(), right: z.boolean() })),
      at: time,
      by: person,
    })
    .nullable(),
  /** Working minutes by stage, read off the log, and the times the clock was stopped. */
  time: z.object({
    stages: z.array(z.object({ stage: z.string(), minutes: z.number() })),
    workMinutes: z.number(),
    pauses: z.array(
      z.object({ from: time, to: time.nullable(), reason: z.string(), minutes: z.number() }),
    ),
    awayMinutes: z.number(),
  }),
  open: z.array(z.string()),
  handedOver: z.object({ at: time, by: person }).nullable(),
  /**
   * The place of the log it was made from: how many lines, the hash of the last, the program, and
   * which version it is.
   */
  seal: z
    .object({
      lines: z.number().int(),
      head: z.string(),
      program: z.string(),
      version: z.number().int(),
    })
    .optional(),
  notice: z.string(),
};

export const owedParts = {
  done: z.array(z.string()),
  /** Every calibration owed, in the plan's order, with what became of it. */
  lines: z.array(
    z.object({
      name: z.string(),
      reasons: z.array(z.object({ because: z.string(), reason: z.string(), source: z.string() })),
      outcome: z.enum(["this-record", "done", "open", "declined"]),
      /** How it was done outside this record's sheet. */
      done: z.object({ note: z.string(), by: person, at: time }).nullable(),
      declined: z.object({ reason: z.string(), by: person, at: time }).nullable(),
    }),
  ),
};

/** What the vehicle answered. */
export const result = z.object({
  passed: z.boolean(),
  qualityPercent: z.number(),
  learnedYawDeg: z.number(),
  learnedPitchDeg: z.number(),
  learnedRollDeg: z.number(),
  reason: z.string().nullable(),
});

/** The routine as the scan tool ran it. */
export const run = z.object({
  status: z.enum(["not-started", "connected", "waiting", "routine", "passed", "failed", "stopped"]),
  /** The board that was checked before it ran; the reason is given for a worn one. */
  board: z
    .object({ code: z.string(), reason: z.string().nullable(), at: time, by: person })
    .nullable(),
  attempts: z.number().int(),
  tool: z.object({ name: z.string(), serial: z.string(), software: z.string() }).nullable(),
  simulated: z.boolean(),
  result: result.nullable(),
  log: z.array(z.object({ at: time, by: person, label: z.string(), value: z.string() })),
});

/** The lines of the vehicle against the one the sheet means, where they were known. */
export const lines = z.array(
  z.object({
    name: z.string(),
    isSheets: z.boolean(),
    turnDeg: z.number().nullable(),
    atBoardMm: z.number().nullable(),
    seen: z.boolean(),
  }),
);

export const moves = z.array(z.object({ say: z.string(), at: time, by: person }));
export const touches = z.array(z.object({ what: z.string(), at: time, by: person }));
