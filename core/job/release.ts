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

/** Why a vehicle does not go, in a few words, and what to do about it. */
export type ReleaseProblem = { say: string; remedy: string };

/** What keeps a person from giving the vehicle back; null where nothing does. */
export function releaseProblem(
  { rule, held, signed }: ReleaseState,
  person: { id: string; role: string },
): ReleaseProblem | null {
  if (held)
    return {
      say: `Held back: ${held.body.reason}.`,
      remedy: `${held.by.name} held it. Lift the hold first, with what has changed.`,
    };
  if (rule.by === "lead" && person.role !== "lead")
    return {
      say: "In this shop the lead gives vehicles back.",
      remedy: "Ask the lead to sign in and hand it over.",
    };
  if (!rule.second) return null;
  if (!signed)
    return {
      say: "In this shop a second person signs first.",
      remedy: "Have a colleague look the record through and sign it.",
    };
  return signed.by.id === person.id
    ? { say: `${signed.by.name} signed it.`, remedy: "Somebody else hands it over." }
    : null;
}
