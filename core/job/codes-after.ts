import { askedOf, compareScans, type Asked, type ScanEvent, type UnitRow } from "@/core/scan";
import type { JobGround } from "./ground";
import { eventsOf, strikes, type EventOf, type JobEvent } from "./job";
import { fittedTo } from "./owed";

type Read = Extract<ScanEvent, { type: "read" }>;
type Word = JobEvent & { body: EventOf<"code-word">["body"] };

/** What the control units say after the routine against what they said before. */
export type CodesAfter = {
  /** The first reading before the routine; null where nobody read then. */
  before: Read | null;
  /** The last reading after the routine; null where nobody has read again. */
  after: Read | null;
  /** Whether codes were cleared between the routine and that reading, or at all since the routine. */
  cleared: boolean;
  /** Unit by unit; while nobody has read again, what the first reading says. */
  units: UnitRow[];
  /** The word that was said of a unit or a code, by {@link wordKey}. */
  words: ReadonlyMap<string, Word>;
  /** What still needs one. */
  missing: Asked[];
};

export const wordKey = ({ unit, code }: Asked): string => `${unit}/${code ?? ""}`;

/**
 * The comparison of a job, or of one of its calibrations by its own part of the log; null while the
 * vehicle was never read at all.
 */
export function codesAfter(
  g: Pick<JobGround, "vehicle" | "intake">,
  events: readonly JobEvent[],
): CodesAfter | null {
  const scans = eventsOf(events, "scan").filter((e) => e.body.event.type === "read");
  if (scans.length === 0) return null;
  const runs = eventsOf(events, "run").filter((e) => e.body.event.type === "routine-result");
  const [first, ran] = [runs[0], runs.at(-1)];
  // What is read after a routine says nothing of what was there before it.
  const before = scans.find((e) => !first || e.seq < first.seq)?.body.event;
  const baseline = before?.type === "read" ? before : null;
  const since = eventsOf(events, "scan").filter((e) => e.seq > (ran?.seq ?? 0));
  // What was read before the last clearing says nothing of what came back after it.
  const last = since.findLast((e) => ["read", "cleared"].includes(e.body.event.type))?.body.event;
  const after = ran && last?.type === "read" ? last : null;
  const fitted = fittedTo(g.vehicle, g.intake.answers).map((f) => f.system);
  const now = after ?? baseline;
  const units = now ? compareScans(baseline, now, fitted) : [];
  const struck = strikes(events);
  const words = new Map(
    eventsOf(events, "code-word")
      .filter((e) => !struck.has(e.id))
      .map((e): [string, Word] => [wordKey(e.body), e]),
  );
  return {
    before: baseline,
    after,
    cleared: since.some((e) => e.body.event.type === "cleared"),
    units,
    words,
    missing: (after ? units.flatMap(askedOf) : []).filter((a) => !words.has(wordKey(a))),
  };
}
