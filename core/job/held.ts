import { strikes, type EventOf, type JobEvent } from "./job";

/** Who holds the vehicle back, and why; null where nobody does. */
export function heldBy(events: readonly JobEvent[]): EventOf<"hold"> | null {
  const struck = strikes(events);
  const last = events.findLast(
    (e) => (e.body.kind === "hold" || e.body.kind === "hold-lifted") && !struck.has(e.id),
  );
  return last?.body.kind === "hold" ? (last as EventOf<"hold">) : null;
}
