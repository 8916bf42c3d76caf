import { upcastSheet, type Sheet } from "@/core/sheet";
import type { JobGround } from "./ground";

/**
 * The documents a job stands on, frozen when it was taken in, as today's program reads them. What is
 * stored stays as it was: the job's log is sealed over it.
 */
export const upcastGround = (stored: JobGround): JobGround => ({
  ...stored,
  sheet: upcastSheet(stored.sheet) as Sheet,
});
