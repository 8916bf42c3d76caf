import type { StoredGround } from "@/core/job";
import { sha256 } from "./chain";

/**
 * The digest of the documents a job stands on, without its customer's own data: it stands before
 * the first line of the job's log, so that the sheet or the vehicle behind a proof cannot be
 * changed either.
 */
export const groundDigest = (ground: StoredGround): string =>
  sha256(
    JSON.stringify({
      ...ground,
      intake: { ...ground.intake, customer: null, plate: null, complaint: null },
    }),
  );
