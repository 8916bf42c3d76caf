import type { JobGround } from "./ground";
import { eventsOf, strikes, type EventBody, type EventOf, type JobEvent } from "./job";
import { heldBy } from "./held";
import { ANYONE_RELEASES, type ReleaseRule } from "./release-rule";

export type ReleaseState = {
  rule: ReleaseRule;
  /** Somebody holds the vehicle back, and why; null where nobody does. */
  held: EventOf<"hold"> | null;
  /** Who signed that the work is as the record says; null where nobody has, or worked since. */
  signed: EventOf<"sign-off"> | null;
};

/** What may come after a signature without making it void: none of it is work on the vehicle. */
const NO_WORK: ReadonlySet<EventBody["kind"]> = new Set([
  "sign-off",
  "hold",
  "hold-lifted",
  "hand-over",
  "pause",
  "resume",
  "photo",
]);

/** Whether the vehicle may go, as the log has left it. */
export function releaseOf(
  g: Pick<JobGround, "release">,
  events: readonly JobEvent[],
): ReleaseState {
  const struck = strikes(events);
  const signed = eventsOf(events, "sign-off").findLast((e) => !struck.has(e.id)) ?? null;
  const worked = signed && events.some((e) => e.seq > signed.seq && !NO_WORK.has(e.body.kind));
  return {
    rule: g.release ?? ANYONE_RELEASES,
    held: heldBy(events),
    signed: worked ? null : signed,
  };
}

/** What keeps a person from giving the vehicle back, in words with the remedy; null where nothing does. */
export function releaseProblem(
  { rule, held, signed }: ReleaseState,
  person: { id: string; role: string },
): string | null {
  if (held) return `Held back by ${held.by.name}: ${held.body.reason}. Lift the hold first.`;
  if (rule.by === "lead" && person.role !== "lead")
    return "In this shop the lead gives vehicles back. Ask the lead to sign in and hand it over.";
  if (!rule.second) return null;
  if (!signed)
    return "In this shop a second person signs first: have a colleague look the record through.";
  return signed.by.id === person.id
    ? `${signed.by.name} signed it: somebody else hands it over.`
    : null;
}
