import { z } from "zod";
import { fittedSchema, systemIdSchema } from "@/core/owed/schema";

const mm = (min: number, max: number) => z.number().min(min).max(max);
const axle = z.object({ front: mm(120, 900), rear: mm(120, 900) });
const place = z.object({ xMm: mm(-3000, 9000), yMm: mm(-2000, 2000), zMm: mm(0, 4000) });

/**
 * A vehicle as the shop knows it: real dimensions in vehicle axes (x forward, y left, z up; origin
 * under the centre of the rear axle), from the shop's own source.
 */
export const vehicleSchema = z.object({
  id: z.string().regex(/^[a-z0-9-]+$/),
  make: z.string().min(1),
  model: z.string().min(1),
  variant: z.string(),
  /**
   * How the VINs of this kind begin, as the shop has seen them: picks the vehicle once a VIN is
   * read.
   */
  vinStart: z.string().regex(/^[A-HJ-NPR-Z0-9]{3,8}$/),
  /** Body style, for the plan drawing only. */
  body: z.enum(["car", "coupe", "van", "camper", "truck"]),
  driverSide: z.enum(["left", "right"]),
  wheelbaseMm: mm(1500, 7000),
  trackFrontMm: mm(1000, 2600),
  trackRearMm: mm(1000, 2600),
  /** How far the hub cap, where a tape is held, stands out from the track line. */
  hubCapOutMm: mm(0, 300),
  hubHeightMm: mm(200, 700),
  /**
   * Axles besides front and rear: how far each lies ahead of the rear one (negative behind it), and its
   * hubs from the middle out to the caps, where a tape is held.
   */
  furtherAxles: z
    .array(
      z.object({
        id: z.string().regex(/^[a-z0-9]{1,12}$/, "use small letters and figures"),
        name: z.string().min(3).max(40),
        aheadMm: mm(-9000, 6500),
        hubHalfMm: mm(500, 1400),
      }),
    )
    .max(3)
    .refine((all) => new Set(all.map((a) => a.id)).size === all.length, {
      message: "has two axles of one id",
    })
    .optional(),
  lengthMm: mm(2500, 16000),
  widthMm: mm(1300, 2700),
  frontOverhangMm: mm(300, 2500),
  frontBadge: place,
  rearBadge: place,
  camera: place,
  /**
   * Further marks near the middle of the front that a laser can be read at, each with its own place
   * (also beside the middle) and standard uncertainty on one vehicle of this kind.
   */
  centreMarks: z
    .array(
      place.extend({
        id: z.string().regex(/^[a-z0-9-]{1,24}$/, "use small letters, figures and dashes"),
        name: z.string().min(3).max(40),
        sigmaMm: mm(0.1, 20),
      }),
    )
    .max(6)
    .refine((all) => new Set(all.map((m) => m.id)).size === all.length, {
      message: "has two marks of one id",
    })
    .optional(),
  /**
   * Standard uncertainty of hub and badge places on one vehicle of this kind against these
   * dimensions.
   */
  hubSigmaMm: mm(0.1, 20),
  badgeSigmaMm: mm(0.1, 20),
  /** What is fitted when nothing was left out, and where its parts sit. */
  fitted: z.array(fittedSchema),
  /**
   * Cameras and radars with their places and the way they look: heading counter-clockwise from
   * ahead, down below the horizon, roll clockwise as it looks.
   */
  sensors: z
    .array(
      place.extend({
        id: z.string().regex(/^[a-z0-9-]{1,24}$/, "use small letters, figures and dashes"),
        system: systemIdSchema,
        name: z.string().min(3).max(40),
        looks: z.enum(["front", "left", "rear", "right"]),
        headingDeg: z.number().min(-180).max(180),
        downDeg: z.number().min(-90).max(90),
        rollDeg: z.number().min(-90).max(90),
      }),
    )
    .max(16)
    .refine((all) => new Set(all.map((s) => s.id)).size === all.length, {
      message: "has two sensors of one id",
    })
    .optional(),
  /**
   * The trailer it tows, tied at the hitch: how far the hitch lies behind the rear hubs, hitch to the
   * trailer's axle (the middle one of three) and to its end, its hubs as a tape is held to them.
   */
  trailer: z
    .object({
      name: z.string().min(3).max(60),
      hitchBehindMm: mm(0, 3000),
      hitchToAxleMm: mm(1500, 12000),
      lengthMm: mm(2000, 16000),
      hubHalfMm: mm(500, 1400),
      hubHeightMm: mm(150, 700),
      /** Its camera above the floor, where somebody has measured it once. */
      cameraHeightMm: mm(300, 4000).optional(),
      /** Standard uncertainties of hubs and hitch on one trailer of this kind. */
      hubSigmaMm: mm(0.1, 20),
      hitchSigmaMm: mm(0.1, 20),
    })
    .optional(),
  /** What the VIN cannot say; a choice may leave systems out. */
  questions: z.array(
    z.object({
      id: z.string(),
      ask: z.string(),
      choices: z
        .array(z.object({ id: z.string(), name: z.string(), without: z.array(systemIdSchema) }))
        .min(2),
    }),
  ),
  /** Arch heights above the floor of a vehicle as it should stand. */
  archMm: z.object({ FL: mm(300, 1600), FR: mm(300, 1600), RL: mm(300, 1600), RR: mm(300, 1600) }),
  /** Limits of the rear axle, degrees: thrust to either side, toe-in of each wheel. */
  alignment: z
    .object({
      thrustDeg: z.number().min(0.02).max(1),
      toeMinDeg: z.number().min(-2).max(2),
      toeMaxDeg: z.number().min(-2).max(2),
    })
    .refine((a) => a.toeMinDeg < a.toeMaxDeg, {
      path: ["toeMinDeg"],
      message: "must be below the greatest toe",
    })
    .optional(),
  /** Tyre pressures on the placard, kPa: half load and full load, front and rear. */
  placardKPa: z.object({ half: axle, full: axle }),
  tyres: z.object({ front: z.string(), rear: z.string() }),
  /** Whether a security gateway locks writing behind a sign-in over the network. */
  gateway: z.boolean(),
  /** None where it is driven by electricity alone. */
  tankLitres: mm(0, 400),
  glass: z.object({
    widthMm: mm(800, 2500),
    heightMm: mm(400, 1600),
    rakeDeg: z.number().min(15).max(90),
    bracketAcrossMm: mm(-600, 600),
    bracketUpMm: mm(-800, 800),
    /** The maker's own part, and parts the shop accepts as equivalent. */
    makerPart: z.string(),
    equivalentParts: z.array(z.string()),
    /** How far the seat of the glass may turn the bracket, degrees. */
    limitDeg: z.number().min(0.05).max(2),
  }),
  source: z.string().min(1),
  /** Counts up with every checked change. */
  version: z.number().int().min(1).optional(),
  /** Who wrote these figures down, and the second person who compared them with the source. */
  checked: z
    .object({ enteredBy: z.string().min(1), checkedBy: z.string().min(1), checkedOn: z.iso.date() })
    .refine((c) => c.checkedBy !== c.enteredBy, {
      path: ["checkedBy"],
      message: "must be a second person, not the one who entered the figures",
    })
    .optional(),
  /**
   * Typed on the spot for one job and in no book: what was taped is as good as it was taped, the
   * rest is assumed of its body.
   */
  provisional: z
    .object({
      enteredBy: z.string().min(1),
      wheelbaseSigmaMm: mm(0.5, 40),
      trackSigmaMm: mm(0.5, 40),
    })
    .optional(),
});

export type Vehicle = z.infer<typeof vehicleSchema>;
