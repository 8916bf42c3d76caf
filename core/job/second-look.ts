import type { JobGround } from "./ground";
import { eventsOf, strikes, type JobEvent } from "./job";

type Signature = Pick<JobEvent, "by" | "at">;

/** Figures no book has: who typed them, and the second person who compared them, if there was one. */
type TypedFigures = { typed: Signature; compared: Signature | null };

/** What a job's figures stand on where somebody typed them on the spot; null where a book had them. */
export function typedFigures(
  ground: Pick<JobGround, "intake">,
  events: readonly JobEvent[],
): TypedFigures | null {
  if (!ground.intake.onTheSpot) return null;
  const struck = strikes(events);
  const compared = eventsOf(events, "second-look").findLast((e) => !struck.has(e.id));
  return { typed: events[0]!, compared: compared ?? null };
}
