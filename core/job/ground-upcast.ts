import { upcastSheet, type Sheet } from "@/core/sheet";
import type { Calibration, JobGround } from "./ground";

/** How a ground was frozen when a job had one sheet and one stand. */
type OneSheet = Omit<JobGround, "calibrations"> & Omit<Calibration, "id">;

/** A ground as it lies in the database: of today, or of an older program. */
export type StoredGround = JobGround | OneSheet;

/**
 * The documents a job stands on, frozen when it was taken in, as today's program reads them. What is
 * stored stays as it was: the job's log is sealed over it.
 */
export function upcastGround(stored: StoredGround): JobGround {
  if ("calibrations" in stored)
    return {
      ...stored,
      calibrations: stored.calibrations.map((c) => ({
        ...c,
        sheet: upcastSheet(c.sheet) as Sheet,
      })),
    };
  const { sheet, stand, ...shared } = stored;
  const now = upcastSheet(sheet) as Sheet;
  return { ...shared, calibrations: [{ id: now.id, sheet: now, stand }] };
}
