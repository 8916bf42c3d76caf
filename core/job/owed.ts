import { owedFor, redoneBy, type Fitted, type OwedLine, type SystemId } from "@/core/owed";
import type { Sheet } from "@/core/sheet";
import type { Intake } from "./events";
import { eventsOf, strikes, type EventBody, type JobEvent } from "./job";
import type { JobGround } from "./ground";

type Of<K extends EventBody["kind"]> = Omit<JobEvent, "body"> & {
  body: Extract<EventBody, { kind: K }>;
};

/** One owed line of a job: what came of it. */
export type JobOwedLine = OwedLine & {
  /** Put on by hand: by whom and why. */
  added: Of<"owed-add"> | null;
  declined: Of<"owed-decline"> | null;
  /** Done outside this job's sheet, as the technician says. */
  done: Of<"owed-done"> | null;
  /** The calibrations of this job that do it. */
  onSheet: boolean;
};

/** What is fitted to this very vehicle: its kind's systems without those an answer leaves out. */
export function fittedTo(vehicle: JobGround["vehicle"], answers: Intake["answers"]): Fitted[] {
  const without = new Set(
    vehicle.questions.flatMap((q) => q.choices.find((c) => c.id === answers[q.id])?.without ?? []),
  );
  return vehicle.fitted.filter((f) => !without.has(f.system));
}

/**
 * Systems whose control unit answered when the units were last read, though an answer at take-in leaves
 * them out: the vehicle has them, whoever answered what.
 */
export function unnamedSystems(
  ground: Pick<JobGround, "vehicle" | "intake">,
  events: readonly JobEvent[],
): SystemId[] {
  const read = eventsOf(events, "scan").findLast((e) => e.body.event.type === "read")?.body.event;
  if (read?.type !== "read") return [];
  const named = fittedTo(ground.vehicle, ground.intake.answers).map((f) => f.system);
  return ground.vehicle.fitted.flatMap(({ system }) =>
    !named.includes(system) && read.modules.some((m) => m.system === system && m.answers)
      ? [system]
      : [],
  );
}

/** What is fitted by the answers at take-in, and by what the vehicle itself has answered since. */
export function fittedNow(
  ground: Pick<JobGround, "vehicle" | "intake">,
  events: readonly JobEvent[],
): Fitted[] {
  const unnamed = unnamedSystems(ground, events);
  const named = fittedTo(ground.vehicle, ground.intake.answers);
  return unnamed.length === 0
    ? named
    : ground.vehicle.fitted.filter((f) => named.includes(f) || unnamed.includes(f.system));
}

/** Whether a sheet does an owed line: its system, in the bay, on the road, or both ways. */
export const doesLine = (
  sheet: Pick<Sheet, "appliesTo" | "method">,
  line: Pick<OwedLine, "system" | "kind">,
): boolean =>
  sheet.appliesTo.system === line.system &&
  (sheet.method === "static-then-dynamic" || sheet.method === "static-or-dynamic"
    ? line.kind === "static" || line.kind === "dynamic"
    : line.kind === sheet.method);

/** A calibration a job could take: its sheet, and others of the same system to take instead. */
export type SheetChoice = { sheet: Sheet; instead: Sheet[] };

/**
 * The sheets that do what is owed, one for each system in the bay and on the road. Where the rule
 * book names none that the shop has a sheet for, the sheets that say themselves that they are owed.
 *
 * @param owed in the order they are to be done
 * @param sheets the shop's own, newest versions
 */
export function sheetsFor(
  vehicleId: string,
  happenings: Intake["happenings"],
  owed: readonly Pick<OwedLine, "system" | "kind">[],
  sheets: readonly Sheet[],
): SheetChoice[] {
  const fits = sheets.filter(
    (s) =>
      s.status === "checked" &&
      s.appliesTo.vehicles.includes(vehicleId) &&
      happenings.some((h) => s.appliesTo.after.includes(h.event)),
  );
  const named: SheetChoice[] = [];
  for (const line of owed) {
    // One sheet may do two lines, in the bay and then on the road.
    if (named.some((n) => doesLine(n.sheet, line))) continue;
    const [sheet, ...instead] = fits.filter((s) => doesLine(s, line));
    if (sheet) named.push({ sheet, instead });
  }
  if (named.length > 0) return named;
  return fits.slice(0, 1).map((sheet) => ({ sheet, instead: fits.slice(1) }));
}

/**
 * What the job owes: by the rule book, plus what was added, with what was declined marked. Pure,
 * from the log.
 */
export function owedLines(ground: JobGround, events: readonly JobEvent[]): JobOwedLine[] {
  const struck = strikes(events);
  const standing = <K extends "owed-add" | "owed-decline" | "owed-done">(kind: K) =>
    eventsOf(events, kind).filter((e) => !struck.has(e.id));
  const added = standing("owed-add");
  const declined = standing("owed-decline");
  const done = standing("owed-done");
  const ruled = owedFor(
    ground.intake.happenings,
    fittedNow(ground, events),
    ground.ruleBook.rules,
    ground.calibrations.map(({ sheet }) => ({
      system: sheet.appliesTo.system,
      kind: sheet.method,
    })),
  );
  const extra = added
    .map(({ body }): OwedLine => ({
      id: `${body.system}/${body.method}`,
      system: body.system,
      kind: body.method,
      places: [],
      because: [],
    }))
    .filter(
      (l, i, all) => !ruled.some((r) => r.id === l.id) && all.findIndex((x) => x.id === l.id) === i,
    );
  return [...ruled, ...extra].map((l): JobOwedLine => ({
    ...l,
    added: added.find((e) => `${e.body.system}/${e.body.method}` === l.id) ?? null,
    declined: declined.find((e) => e.body.line === l.id) ?? null,
    done: done.find((e) => e.body.line === l.id) ?? null,
    onSheet: ground.calibrations.some(({ sheet }) => doesLine(sheet, l)),
  }));
}

/** Lines that would have to be done again if something were touched later. */
export const jobRedoneBy = (
  ground: JobGround,
  lines: readonly OwedLine[],
  later: Intake["happenings"][number],
): string[] =>
  redoneBy(later, lines, fittedTo(ground.vehicle, ground.intake.answers), ground.ruleBook.rules);
