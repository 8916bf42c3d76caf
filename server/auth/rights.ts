import type { Role } from "./session";

/**
 * What may be done outside a job's log; the kinds of lines in it have a table of their own
 * (`server/jobs/policy.ts`).
 */
export type Act =
  | "look"
  | "take-in"
  | "command-devices"
  | "keep-photo"
  | "write-drafts"
  | "check-kit"
  | "rate-roads"
  | "write-kit"
  | "write-rules"
  | "write-people"
  | "give-feed-token"
  | "erase"
  | "bring-in"
  | "read-shop-log"
  | "own-pin";

const ALL: readonly Role[] = ["technician", "lead", "viewer"];
const WORK: readonly Role[] = ["technician", "lead"];
const LEAD: readonly Role[] = ["lead"];

/** Role by act, in one table. A phone at the stand may do none of these but look at its own job. */
export const RIGHTS: Record<Act, readonly Role[]> = {
  look: ALL,
  "own-pin": ALL,
  "take-in": WORK,
  "command-devices": WORK,
  "keep-photo": WORK,
  "write-drafts": WORK,
  "check-kit": WORK,
  "rate-roads": WORK,
  "write-kit": WORK,
  "give-feed-token": WORK,
  "write-rules": LEAD,
  "write-people": LEAD,
  erase: LEAD,
  "bring-in": LEAD,
  "read-shop-log": LEAD,
};
