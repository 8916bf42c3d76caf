import { viewsOf, type JobGround } from "./ground";
import { itemsOf } from "./items";

/** The strictest floor any sheet of a job asks for; null where none asks. */
export function floorAsked(ground: JobGround): { slopeDeg: number; twistMm: number } | null {
  const asked = viewsOf(ground).flatMap((v) =>
    itemsOf(v, "ready").flatMap(({ measure }) => (measure?.kind === "floor" ? [measure] : [])),
  );
  if (asked.length === 0) return null;
  return {
    slopeDeg: Math.min(...asked.map((m) => m.slopeDeg)),
    twistMm: Math.min(...asked.map((m) => m.twistMm)),
  };
}
