import { z } from "zod";
import type { DrivePolicy } from "./policy";

/** One way to keep a speed. */
export const keepsSchema = z.enum(["cruise", "limiter", "foot"]);

export const drivePolicySchema: z.ZodType<DrivePolicy> = z.object({
  keeps: z.array(keepsSchema).min(1, "Drives: allow one way to keep the speed at least."),
  rain: z.enum(["refused", "with-reason"]),
});
