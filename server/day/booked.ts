import { happeningName } from "@/core/owed";
import type { Booked } from "@/core/schedule/booking";
import { clockOf } from "@/core/units/minute";
import { findBooking } from "./store";

/** What take-in knows of a booking; null where there is none, or it is taken in already. */
export function bookedFor(id: string | null): Booked | null {
  const had = id === null ? null : findBooking(id);
  if (!had || had.jobId !== null) return null;
  const { customer, plate, vehicleId, happenings, promiseMin, said } = had.doc;
  return {
    id: had.id,
    customer,
    plate,
    vehicleId,
    happenings,
    done: happenings.map(happeningName).join(", "),
    promised: promiseMin === null ? "" : `${had.day}T${clockOf(promiseMin)}`,
    said,
  };
}
