import { z } from "zod";
import { eventIdSchema, placeIdSchema } from "@/core/owed/schema";

const minute = z.number().int().min(0).max(1440);

/** A vehicle that is expected: what it is, what was or will be done to it, and when it comes and goes. */
export const bookingSchema = z
  .object({
    customer: z.string().trim().min(1, "name the customer").max(120),
    plate: z.string().trim().max(20),
    vehicleId: z.string().min(1, "choose the vehicle").max(64),
    happenings: z
      .array(z.object({ event: eventIdSchema, place: placeIdSchema.nullable() }))
      .min(1, "say what is to be done")
      .max(12),
    place: z.enum(["shop", "van"]),
    arriveMin: minute,
    promiseMin: minute.nullable(),
    /** What its keeper said before it came, by question; it counts as said, not as seen. */
    said: z.record(z.string().max(40), z.string().trim().max(200)).default({}),
  })
  .refine((b) => b.promiseMin === null || b.promiseMin > b.arriveMin, {
    path: ["promiseMin"],
    message: "must be after it arrives",
  });
export type Booking = z.infer<typeof bookingSchema>;

/** What is known of a vehicle since it was booked. */
export type Booked = {
  id: string;
  customer: string;
  plate: string;
  vehicleId: string;
  happenings: Booking["happenings"];
  /** In words. */
  done: string;
  /** By the shop's clock; empty where nothing was promised. */
  promised: string;
  said: Record<string, string>;
};
