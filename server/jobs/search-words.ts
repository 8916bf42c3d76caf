import type { JobGround } from "@/core/job";
import { happeningName } from "@/core/owed";

/** Everything a job is looked for by, as one text. */
export function searchWords(number: number, ground: JobGround): string {
  const { intake, vehicle, calibrations } = ground;
  return [
    number,
    intake.vin,
    intake.plate,
    // A plate is typed with and without its gaps.
    intake.plate.replace(/\s/g, ""),
    intake.customer,
    intake.order,
    vehicle.make,
    vehicle.model,
    vehicle.variant,
    ...calibrations.map((c) => c.sheet.title),
    ...intake.happenings.map(happeningName),
  ].join("\n");
}
