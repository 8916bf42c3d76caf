import type { Sheet } from "./schema";

type Method = Sheet["method"];

/** Whether what a sheet does in the bay has to be done before its drive. */
export const bayFirst = (method: Method): boolean =>
  method === "static-then-dynamic" || method === "dynamic";

/**
 * Whether a calibration is done: by what its sheet does in the bay, by a drive, by both, or by the one
 * or the other.
 */
export function isDone(method: Method, { bay, road }: { bay: boolean; road: boolean }): boolean {
  switch (method) {
    case "static":
      return bay;
    case "static-or-dynamic":
      return bay || road;
    case "static-then-dynamic":
    case "dynamic":
      return bay && road;
  }
}
