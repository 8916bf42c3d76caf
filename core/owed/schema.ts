import { z } from "zod";
import { EVENTS, PLACES, SYSTEMS, type EventId, type PlaceId, type SystemId } from "./names";

export const eventIdSchema = z.enum(Object.keys(EVENTS) as [EventId, ...EventId[]]);

export const placeIdSchema = z.enum(Object.keys(PLACES) as [PlaceId, ...PlaceId[]]);

export const systemIdSchema = z.enum(Object.keys(SYSTEMS) as [SystemId, ...SystemId[]]);

/** A system as it is fitted to one vehicle: where its parts sit. */
export const fittedSchema = z.object({
  system: systemIdSchema,
  places: z.array(placeIdSchema).min(1),
});
export type Fitted = z.infer<typeof fittedSchema>;

const id = z.string().regex(/^[a-z0-9-]+$/, "use lower-case letters, figures and dashes");
const say = z.string().min(3).max(240);

/**
 * One rule: this event makes that system owe something. The reason is one sentence a customer
 * understands.
 */
export const ruleSchema = z.object({
  id,
  /** Any of these events, at one of `at` when that is given. */
  when: z.array(eventIdSchema).min(1),
  at: z.array(placeIdSchema).min(1).optional(),
  system: systemIdSchema,
  /** Only where the event touches a place the system sits at. */
  near: z.boolean(),
  kind: z.enum(["static", "dynamic", "both", "learn"]),
  reason: say,
  /** The shop's own sheet or book reference. */
  source: say,
  /** What would cancel it, in words; an empty fault memory never does. */
  cancelledBy: say.nullable(),
});
export type Rule = z.infer<typeof ruleSchema>;

const subject = z.object({
  system: systemIdSchema.optional(),
  kind: z.enum(["static", "dynamic", "learn", "alignment"]).optional(),
});
/** An order: whatever fits `first` comes before whatever fits `then`. */
export const orderSchema = z.object({
  id,
  first: subject,
  then: subject,
  sameSystem: z.boolean(),
  why: say,
});
export type Order = z.infer<typeof orderSchema>;

const sideSchema = z.enum(["ahead", "behind", "left", "right"]);

/**
 * What one calibration takes: minutes in the bay and on the road, what must be set up, how much
 * room.
 */
export const effortSchema = z.object({
  system: systemIdSchema,
  kind: z.enum(["static", "dynamic", "learn"]),
  bayMinutes: z.number().min(0).max(480),
  roadMinutes: z.number().min(0).max(240),
  boards: z.array(z.string()),
  /** Clear room ahead, behind and each side of the vehicle, metres. */
  roomM: z.object({ ahead: z.number(), behind: z.number(), sides: z.number() }),
  /** How the vehicle has to be for it, where that matters. */
  needs: z.object({
    bonnet: z.enum(["open", "shut"]).optional(),
    lights: z.enum(["on", "off"]).optional(),
    engine: z.enum(["running", "off"]).optional(),
    doors: z.enum(["open", "shut"]).optional(),
  }),
  /** Calibrations with the same set-up share one placing of stands or mats. */
  setUp: z.string().nullable(),
  /** Of the minutes in the bay those for fetching, walking and setting up. */
  setUpMinutes: z.number().min(0).max(240).optional(),
  /** Where about the vehicle its things stand afterwards, and what taking them away takes. */
  stands: z.array(sideSchema).optional(),
  clearMinutes: z.number().min(0).max(60).optional(),
  /** Where about the vehicle nothing else may stand while it looks. */
  clear: z.array(sideSchema).optional(),
  /** Which way the vehicle must stand in the bay, where that matters. */
  nose: z.enum(["in", "out"]).optional(),
});
export type Effort = z.infer<typeof effortSchema>;

/** Everything the shop says about what is owed. */
export const ruleBookSchema = z
  .object({
    rules: z.array(ruleSchema),
    orders: z.array(orderSchema),
    efforts: z.array(effortSchema),
    /** What turning a vehicle round in the bay takes, minutes; a quarter of an hour where it is not said. */
    turnMinutes: z.number().min(0).max(120).optional(),
  })
  .superRefine((book, ctx) => {
    for (const list of ["rules", "orders"] as const) {
      const seen = new Set<string>();
      book[list].forEach((r, i) => {
        if (seen.has(r.id))
          ctx.addIssue({
            code: "custom",
            path: [list, i, "id"],
            message: `is used twice: "${r.id}"`,
          });
        seen.add(r.id);
      });
    }
  });
export type RuleBook = z.infer<typeof ruleBookSchema>;
