import { z } from "zod";
import { onTheSpotSchema } from "./on-the-spot";
import { eventIdSchema, placeIdSchema, systemIdSchema } from "@/core/owed/schema";

import type { BayWalls } from "@/core/setout/walls";
import type { Halves } from "@/core/setout/halves";
import type { Quantity } from "@/core/setout/quantities";
import { driveRow } from "@/core/drive/log-row";
import { keepsSchema } from "@/core/drive/policy-schema";
import { LAST_ACT_IDS } from "@/core/setout/last-act-ids";
import { SCHOOLS, type SchoolId } from "@/core/setout/schools";
import {
  FUNCTIONS,
  LAMPS,
  MOUNT_PARTS,
  PHOTO_SUBJECTS,
  type FunctionId,
  type LampId,
  type MountPart,
  type PhotoSubject,
} from "./walk";

/** The keys of a dictionary as an enum. */
const keysOf = <K extends string>(of: Record<K, unknown>) => z.enum(Object.keys(of) as [K, ...K[]]);

const id = z.string().min(1).max(64);
const finite = z.number().refine(Number.isFinite, "must be a number");
const reason = z.string().trim().min(3, "say why in a few words").max(400);

/**
 * What a line is of: a calibration of the job, and a target of its sheet. Lines of an older program
 * say neither; there a job had one calibration, and the target was the one last gone to.
 */
const ofCalibration = { calibrationId: id.optional() };
const ofTarget = { ...ofCalibration, targetId: id.optional() };

/** Said of what is read after the routine; what is read before it says nothing. */
const afterwards = z.literal("prove").optional();

const ruled = z.object({ xMm: finite, yMm: finite, ruleMm: finite });
const bayFloorSchema = z.object({
  bay: z.string().min(1).max(60),
  readAt: z.string().min(10).max(40),
  tyres: z.array(ruled).length(4),
  stand: z.array(ruled).max(8),
});

const wallPlace = z.tuple([finite, finite]).readonly();
const bayWallsSchema = z.object({
  bay: z.string().min(1).max(60),
  name: z.string().min(1).max(60),
  sigmaMm: z.number().min(0.1).max(1000),
  walls: z
    .array(
      z.object({
        id: z.string().min(1).max(12),
        n: z.number().int().min(1).max(400),
        from: wallPlace,
        to: wallPlace,
      }),
    )
    .max(400),
  things: z
    .array(z.object({ outline: z.array(wallPlace).min(3).max(40), fromMm: finite, toMm: finite }))
    .max(100),
}) satisfies z.ZodType<BayWalls>;

const pose = z.object({ xMm: finite, yMm: finite, headingRad: finite });
const after = z.object({ pose, heightMm: finite, pitchRad: finite, rollRad: finite });
const move = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("roll"), awayMm: finite, leftMm: finite, turnRad: finite, after }),
  z.object({
    kind: z.literal("level"),
    foot: z.number().int(),
    raiseMm: finite,
    turns: finite,
    last: z.boolean().optional(),
    after,
  }),
  z.object({
    kind: z.literal("yaw"),
    joint: z.number().int(),
    turnRad: finite,
    leftEndMm: finite,
    playMm: finite.optional(),
    after,
  }),
  z.object({
    kind: z.literal("slide"),
    joint: z.number().int(),
    axis: z.enum(["fore-aft", "cross"]),
    byMm: finite,
    awayMm: finite,
    leftMm: finite,
    playMm: finite.optional(),
    after,
  }),
  z.object({
    kind: z.literal("crank"),
    upMm: finite,
    turns: finite,
    playMm: finite.optional(),
    until: z.object({ slotId: id, shown: finite, ended: finite.optional() }).optional(),
    after,
  }),
  z.object({ kind: z.literal("rail"), leftMm: finite, after }),
  z.object({
    kind: z.literal("draw"),
    end: z.enum(["whole", "front", "rear", "left", "right", "mark"]),
    aheadMm: finite,
    leftMm: finite,
    turnRad: finite,
    pivotMm: finite,
    after,
  }),
  z.object({
    kind: z.literal("booster"),
    booster: z.string().max(12).nullable(),
    upMm: finite,
    after,
  }),
  z.object({
    kind: z.literal("zero"),
    adjusters: z.array(z.enum(["turn", "cross", "fore-aft"])).max(12),
    after,
  }),
]);

/** Jobs had one sheet and one stand. */
const oneSheet = (intake: unknown): unknown => {
  if (typeof intake !== "object" || intake === null || !("sheetId" in intake)) return intake;
  const { sheetId, sheetVersion, standId, ...rest } = intake as Record<string, unknown>;
  return { ...rest, sheets: [{ sheetId, sheetVersion, standId }] };
};

const intake = z.object({
  vin: z.string().max(40),
  /** Why a VIN that fails its check was kept. */
  vinReason: reason.nullable(),
  vehicleId: id,
  /** What was done to the vehicle or happened to it, and where. */
  happenings: z
    .array(z.object({ event: eventIdSchema, place: placeIdSchema.nullable() }))
    .min(1, "pick what was done"),
  /** Answers to what the VIN cannot say: question id to choice id. */
  answers: z.record(id, id),
  /** What the customer complains of, in their words. */
  complaint: z.string().trim().max(400),
  /** The sheets that are carried out, in order; a stand where the sheet needs one. */
  sheets: z
    .array(z.object({ sheetId: id, sheetVersion: z.number().int(), standId: id.nullable() }))
    .min(1, "choose at least one sheet")
    .max(12),
  customer: z.string().trim().min(1, "name the customer").max(120),
  plate: z.string().trim().max(20),
  order: z.string().trim().max(40),
  /**
   * When the customer was told it would be done; null where nothing was promised, absent on older
   * jobs.
   */
  promisedAt: z.iso.datetime().nullable().optional(),
  /**
   * Degrees, toe-in positive, from the alignment printout; needed where the sheet names the thrust
   * line.
   */
  rearToeDeg: z.object({ left: finite.min(-3).max(3), right: finite.min(-3).max(3) }).nullable(),
  /** The booking it came by, and what its keeper said before it came: said, not seen. */
  booked: z.object({ id, said: z.record(z.string().max(40), z.string().max(200)) }).optional(),
  /** What was typed of a vehicle and its sheet where no book of the shop has them. */
  onTheSpot: onTheSpotSchema.optional(),
});
export type Intake = z.infer<typeof intake>;

/** What was settled when the job was taken in. */
export const intakeSchema = z.preprocess(oneSheet, intake);

const touchKind = z.enum(["cranked", "knocked", "moved-car", ...LAST_ACT_IDS]);

/** Which line of which job a stand was left at. */
const keptOf = z.object({
  jobId: id,
  seq: z.number().int().positive(),
  at: z.iso.datetime(),
  /** Its plate, or its number in the shop. */
  called: z.string().max(40),
});

const keptNumber = z.object({ value: finite, sigma: finite.positive() });
const keptStanding = z.object({
  pose: z.object({ xMm: finite, yMm: finite, headingRad: finite }),
  covariance: z.array(z.array(finite).length(3)).length(3),
  height: keptNumber,
  pitch: keptNumber,
  roll: keptNumber,
  adjusters: z.array(finite).max(4),
  finished: z.array(z.enum(LAST_ACT_IDS)).max(6),
});

/** What a tablet may add to a job's log. */
export const tabletEventSchema = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("reading"),
    ...ofTarget,
    slotId: id,
    /** Exactly as typed. */
    typed: z.string().max(60),
    /** The meaning that was chosen where the typed text could not be taken as it stood. */
    meant: z.string().max(60).optional(),
    /** The unit of bare lengths on the tablet that typed it; millimetres when it is not said. */
    lengths: z.enum(["mm", "in"]).optional(),
    /**
     * What the instrument showed, mm or rad. The shop reads it from the text itself; a tablet's
     * figure only shows meanwhile.
     */
    shown: finite,
    sigma: finite.positive(),
    instrumentId: id,
    /** What it goes through (a clamped panel) was seated anew before it. */
    anew: z.boolean().optional(),
  }),
  /**
   * Nobody touched the stand since another job's vehicle of the same model left: it stands here as it
   * was proved there. The figures are that job's.
   */
  z.object({ kind: z.literal("kept"), ...ofTarget, from: keptOf, standing: keptStanding }),
  /** From here on this one of its kind is in hand: another tape, another laser. */
  z.object({ kind: z.literal("instrument"), instrumentId: id }),
  z.object({ kind: z.literal("strike"), target: id, reason }),
  z.object({ kind: z.literal("touch"), ...ofTarget, touch: touchKind }),
  z.object({ kind: z.literal("move"), ...ofTarget, move, rest: z.array(move).max(12) }),
  /** The way of setting out from here on; readings of other ways count all the same. */
  z.object({ kind: z.literal("school"), ...ofCalibration, school: keysOf<SchoolId>(SCHOOLS) }),
  /**
   * Rear toe of this very vehicle, toe-in positive, degrees: from a printout, or from rolling it
   * under the rig.
   */
  z.object({
    kind: z.literal("rear-toe"),
    leftDeg: finite.min(-3).max(3),
    rightDeg: finite.min(-3).max(3),
    how: z.enum(["printout", "rolled"]),
  }),
  /**
   * A stand is on its way to another place of the sheet; what was read where it stood stays with
   * that. A board beside others needs a stand of its own.
   */
  z.object({
    kind: z.literal("position"),
    ...ofCalibration,
    to: id,
    standId: id.optional(),
    /** It was brought there anew, though it stood there: what was known of its place is gone. */
    anew: z.literal(true).optional(),
  }),
  /**
   * The board that hangs was checked: the right one, the right way up. The reason is given for a
   * worn one.
   */
  z.object({
    kind: z.literal("board"),
    ...ofTarget,
    code: z.string().max(16),
    reason: reason.nullable(),
  }),
  z.object({ kind: z.literal("settle"), ...ofTarget }),
  z.object({
    kind: z.literal("check"),
    /** Whose item it is, under Prove; what is checked before belongs to the job. */
    ...ofCalibration,
    stage: z.enum(["ready", "prove"]),
    itemId: id,
    outcome: z.enum(["fine", "fixed", "accepted", "blocks"]),
    reason: reason.nullable(),
  }),
  /**
   * A readiness item that was found outside was put right; it stays open until it is measured
   * again.
   */
  z.object({ kind: z.literal("put-right"), ...ofCalibration, stage: afterwards, itemId: id }),
  /** Simulated bay only: somebody walks into the stand and says nothing. */
  z.object({ kind: z.literal("bump"), ...ofTarget }),
  /** Measured values of a readiness item, as typed and in base units (mm, rad, kPa, share, V). */
  z.object({
    kind: z.literal("measured"),
    ...ofCalibration,
    stage: afterwards,
    itemId: id,
    values: z.record(id, finite),
    typed: z.record(id, z.string().max(40)),
    /**
     * A floor that was not read on this job but kept of its bay: which, and how many days old it
     * was.
     */
    bay: z.object({ name: id, days: finite.min(0).max(90) }).optional(),
    /** What was found, where that is judged apart; the shop works it out itself. */
    found: z.object({ ok: z.boolean(), headline: z.string().max(300) }).optional(),
  }),
  /** Seating depths of the glass, mm, and the part that was fitted. */
  z.object({
    kind: z.literal("glass"),
    part: z.string().trim().max(60),
    fitter: z.string().trim().max(80),
    partReason: reason.nullable(),
    depths: z.record(id, finite),
    /** Whether each part of the mount is right; one that was not looked at is absent. */
    mount: z.partialRecord(keysOf<MountPart>(MOUNT_PARTS), z.boolean()).optional(),
  }),
  /**
   * The vehicle as it came in. The odometer in km as typed means it; lamps that are lit; settings
   * as found.
   */
  z.object({
    kind: z.literal("walk"),
    odometerKm: finite.min(0, "cannot be negative").max(3_000_000, "is more than a vehicle runs"),
    odometerTyped: z.string().max(40),
    lamps: z.array(keysOf<LampId>(LAMPS)),
    settings: z.partialRecord(keysOf<FunctionId>(FUNCTIONS), z.string().trim().min(1).max(80)),
  }),
  /** A photo kept under its hash, and what it shows. */
  z.object({
    kind: z.literal("photo"),
    photo: z.string().regex(/^[0-9a-f]{64}$/),
    subject: keysOf<PhotoSubject>(PHOTO_SUBJECTS),
    takenAt: z.iso.datetime().nullable(),
  }),
  /**
   * The customer's consent to a drive: the words, the name, and the strokes of the pen in
   * thousandths of its field's width.
   */
  z.object({
    kind: z.literal("consent"),
    name: z.string().trim().min(2, "name who signs").max(120),
    words: z.string().max(400),
    strokes: z
      .array(z.array(z.tuple([z.number().int(), z.number().int()])).max(600))
      .min(1, "is not signed")
      .max(60),
  }),
  /** The technician takes a line off what is owed, or puts one on; the record names who and why. */
  z.object({ kind: z.literal("owed-decline"), line: id, reason }),
  /** A line this job's sheet does not do was done all the same; the note says how and with what. */
  z.object({ kind: z.literal("owed-done"), line: id, note: reason }),
  z.object({
    kind: z.literal("owed-add"),
    system: systemIdSchema,
    method: z.enum(["static", "dynamic", "learn"]),
    reason,
  }),
  /** The clock stops, with a reason; it goes on by itself with the next work, or by hand. */
  z.object({ kind: z.literal("pause"), reason }),
  z.object({ kind: z.literal("resume") }),
  /** What is said of a code, or of a unit that does not answer, before the vehicle goes. */
  z.object({
    kind: z.literal("code-word"),
    unit: z.string().trim().min(1).max(60),
    /** What the unit is called; the shop fills it in from the reading. */
    name: z.string().trim().max(80).optional(),
    code: z.string().trim().min(1).max(40).nullable(),
    word: reason,
  }),
  /** How a function did on the road, who drove and who watched, and whether its setting is as it was. */
  z.object({
    kind: z.literal("road-check"),
    functionId: keysOf<FunctionId>(FUNCTIONS),
    result: z.enum(["works", "fails", "untried"]),
    remark: z.string().trim().max(400),
    drove: z.string().trim().max(80),
    watched: z.string().trim().max(80),
    putBack: z.boolean(),
  }),
  /** The lamps that are lit on the dash after the work. */
  z.object({ kind: z.literal("lamps-now"), lamps: z.array(keysOf<LampId>(LAMPS)) }),
  /** Where in a bay the vehicle stands: its own frame in the bay's. */
  z.object({
    kind: z.literal("parked"),
    /** The bay's id, and its name when it stood there. */
    bay: z.string().min(1).max(60),
    name: z.string().min(1).max(60),
    xMm: z.number().min(-1e5).max(1e5),
    yMm: z.number().min(-1e5).max(1e5),
    headingRad: z.number().min(-10).max(10),
    /** The bay's surveyed floor there, as the shop found it; null where it is not surveyed. */
    floor: bayFloorSchema.nullable().optional(),
    /** The bay's walls about the vehicle there, as the shop found them. */
    walls: bayWallsSchema.nullable().optional(),
  }),
  /** A drive begins: what was planned of it, and what was said before leaving. */
  z.object({
    kind: z.literal("drive-leave"),
    ...ofCalibration,
    driveId: id,
    /** Where its seconds come from: the made-up road, or this tablet's own receiver. */
    source: z.enum(["made-up", "tablet"]),
    departMs: z.number().int().positive(),
    /** Null where it is driven without a plan. */
    planned: z
      .object({
        seconds: z.number().int().min(1).max(86_400),
        from: z.number().int().min(0).max(86_400),
        to: z.number().int().min(0).max(86_400),
        chance: z.number().min(0).max(1),
      })
      .nullable(),
    keeps: keepsSchema,
    hotspot: z.boolean(),
    rains: z.boolean(),
    rainReason: z.string().trim().max(200),
    drove: z.string().trim().max(80),
    watched: z.string().trim().max(80),
  }),
  /** Seconds of a drive as they were kept, in whole numbers; a drive is written in parts. */
  z.object({
    kind: z.literal("drive-part"),
    ...ofCalibration,
    driveId: id,
    startMs: z.number().int().positive(),
    rows: z.array(driveRow).min(1).max(120),
  }),
  /** A drive is over: what the vehicle said, or why it was given up. */
  z.object({
    kind: z.literal("drive-end"),
    ...ofCalibration,
    driveId: id,
    outcome: z.enum(["learned", "timed-out", "given-up"]),
    /** What the vehicle showed, as it was read. */
    says: z.string().trim().max(120),
    remark: z.string().trim().max(400),
    drove: z.string().trim().max(80),
    watched: z.string().trim().max(80),
  }),
  /** A second person compared what was typed on the spot with its source, figure by figure. */
  z.object({ kind: z.literal("second-look") }),
  /** The vehicle does not go yet; where the work has to go back to, if to anywhere. */
  z.object({
    kind: z.literal("hold"),
    reason,
    stage: z.enum(["owed", "ready", "set-out", "run", "prove"]).nullable(),
  }),
  z.object({ kind: z.literal("hold-lifted"), reason }),
  /** A second person has looked the record through and signs for it. */
  z.object({ kind: z.literal("sign-off") }),
  z.object({ kind: z.literal("hand-over") }),
  /**
   * A handed-over job is opened again for a revision; the next hand-over makes the next version of
   * its record.
   */
  z.object({ kind: z.literal("reopen"), reason }),
]);
export type TabletEvent = z.infer<typeof tabletEventSchema>;

/** The set-out as the server itself computed it at the moment it was settled. */
export type Settlement = {
  kind: "settled";
  chance: number;
  readingIds: string[];
  calibrationId?: string | undefined;
  targetId?: string | undefined;
} & (
  | {
      quantities: Quantity[];
      /** Readings in which a slip could hide that nothing in the kit would show, by their names. */
      assumes?: string[];
      /** Two halves of the readings, taken apart, by their names; null where there are no two. */
      halves?: Halves | null;
    }
  /** Before a target had a list of them: four figures, actual minus sheet. */
  | {
      alongMm: number;
      acrossMm: number;
      twistRad: number;
      heightMm: number;
      sigma: { alongMm: number; acrossMm: number; twistRad: number; heightMm: number };
    }
);
