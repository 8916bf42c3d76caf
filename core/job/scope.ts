import type { TabletEvent } from "./events";

/** What a line is about: the stand that is set out, or the job as a whole. */
export type LineScope = "stand" | "job";

const OF_THE_STAND = new Set<TabletEvent["kind"]>([
  "reading",
  "touch",
  "move",
  "position",
  "settle",
  "school",
  "rear-toe",
  "board",
  "bump",
]);

export const scopeOf = (body: TabletEvent): LineScope =>
  OF_THE_STAND.has(body.kind) ? "stand" : "job";

/**
 * What a line leaves open when it is refused: after a touch, a move or a change of place nobody
 * knows what later readings of that stand were taken of; after a moved vehicle nobody knows it of
 * anything in the job.
 */
export function disturbedBy(body: TabletEvent): LineScope | null {
  if (body.kind === "touch") return body.touch === "moved-car" ? "job" : "stand";
  if (body.kind === "rear-toe" && body.how === "rolled") return "job";
  return body.kind === "move" || body.kind === "position" ? "stand" : null;
}

/** Whether a line has to wait behind a refused one. */
export function isHeldBy(body: TabletEvent, refused: TabletEvent): boolean {
  const disturbed = disturbedBy(refused);
  return disturbed === "job" || (disturbed === "stand" && scopeOf(body) === "stand");
}
