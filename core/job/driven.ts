import { DRIVE_START, qualifyAll, type Cause, type DriveProgress } from "@/core/drive/qualify";
import { unpacked, type LoggedSample } from "@/core/drive/log";
import { holds } from "@/core/drive/breach";
import type { DriveConditionKind, DriveRules } from "@/core/drive/rules";
import { eventsOf, strikes, type EventOf, type JobEvent } from "./job";
import type { CalibrationGround } from "./ground";
import { calibrationLog } from "./standing";

/** One drive of a calibration: what was kept of it, and how it ended. */
export type Driven = {
  id: string;
  samples: LoggedSample[];
  /** What of it counted by the sheet's rules; null for a sheet that names none, or without a log. */
  progress: DriveProgress | null;
  /** Conditions of which its log says nothing: whether they held nobody knows, and they are left out. */
  unknown: DriveConditionKind[];
  /** What was said before leaving; null where nobody planned it. */
  leave: EventOf<"drive-leave"> | null;
  /** Null while it is under way. */
  end: EventOf<"drive-end"> | null;
};

/** All drives of a calibration in the order they were begun; an end that was struck is none. */
export function drivesOf(view: CalibrationGround, events: readonly JobEvent[]): Driven[] {
  const own = calibrationLog(view, events);
  const struck = strikes(events);
  const drives = new Map<string, Driven>();
  const at = (id: string): Driven => {
    const had = drives.get(id);
    if (had) return had;
    const fresh: Driven = { id, samples: [], progress: null, unknown: [], leave: null, end: null };
    drives.set(id, fresh);
    return fresh;
  };
  // In the order they were begun, whatever they were begun with.
  for (const { id, body } of own) if ("driveId" in body && !struck.has(id)) at(body.driveId);
  for (const e of eventsOf(own, "drive-leave")) at(e.body.driveId).leave = e;
  for (const { body } of eventsOf(own, "drive-part"))
    at(body.driveId).samples.push(...body.rows.map((r) => unpacked(r, body.startMs)));
  for (const e of eventsOf(own, "drive-end")) if (!struck.has(e.id)) at(e.body.driveId).end = e;
  return [...drives.values()].map((d) => ({ ...d, ...countedOf(view.sheet.drive, d.samples) }));
}

/** What counted of a log by those of the rules it says anything about. */
function countedOf(
  rules: DriveRules | undefined,
  samples: readonly LoggedSample[],
): Pick<Driven, "progress" | "unknown"> {
  if (!rules || samples.length === 0) return { progress: null, unknown: [] };
  const told = rules.conditions.filter((c) =>
    samples.some((s) => holds(c, s, [{ atMs: s.atMs, mps: s.speedMps ?? 0 }]) !== null),
  );
  const unknown = rules.conditions.filter((c) => !told.includes(c)).map((c) => c.kind);
  if (told.length === 0) return { progress: null, unknown };
  return { progress: qualifyAll({ ...rules, conditions: told }, samples, DRIVE_START), unknown };
}

/** How the causes of what did not count are called. */
export const CAUSES: Record<Cause, string> = {
  speed: "speed",
  steadiness: "unsteady speed",
  lines: "lines not seen",
  curve: "curves",
  gap: "somebody close ahead",
  light: "too dark",
  weather: "weather",
  sun: "sun in the lens",
  rolling: "standing",
  key: "ignition off",
  "no-log": "no log",
};

/** What cost most, the dearest first: cause and seconds. */
export const dearest = ({ cost }: Pick<DriveProgress, "cost">): [Cause, number][] =>
  (Object.entries(cost) as [Cause, number][]).toSorted(([, a], [, b]) => b - a);
