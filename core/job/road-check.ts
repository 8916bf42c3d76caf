import type { SystemId } from "@/core/owed";
import type { CalibrationGround, JobGround } from "./ground";
import { eventsOf, lastOf, strikes, type EventOf, type JobEvent } from "./job";
import { fittedNow } from "./owed";
import { FUNCTIONS, type FunctionId, type LampId } from "./walk";

/** One function to be tried. */
export type RoadTrial = {
  id: FunctionId;
  name: string;
  /** What of it was calibrated in this job; it is tried for the others' sake where nothing was. */
  because: SystemId[];
  /** How the customer has it; null where nobody wrote it down. */
  found: string | null;
  said: EventOf<"road-check"> | null;
};

/** The functions of this very vehicle that hang on what the job calibrated, with what was found. */
export function roadTrials(
  ground: Pick<JobGround, "vehicle" | "intake"> & Pick<CalibrationGround, "calibrations">,
  events: readonly JobEvent[],
): RoadTrial[] {
  const fitted = fittedNow(ground, events).map((f) => f.system);
  const calibrated = ground.calibrations.map((c) => c.sheet.appliesTo.system);
  const settings = lastOf(events, "walk")?.body.settings ?? {};
  const struck = strikes(events);
  const said = eventsOf(events, "road-check").filter((e) => !struck.has(e.id));
  return (Object.keys(FUNCTIONS) as FunctionId[]).flatMap((id) => {
    const on: readonly SystemId[] = FUNCTIONS[id].on;
    const because = on.filter((s) => calibrated.includes(s as never));
    if (because.length === 0 || !on.some((s) => fitted.includes(s))) return [];
    return [
      {
        id,
        name: FUNCTIONS[id].name,
        because,
        found: settings[id] ?? null,
        said: said.findLast((e) => e.body.functionId === id) ?? null,
      },
    ];
  });
}

/** What keeps the road check from being called fine; null when nothing does. */
export function roadLacks(trials: readonly RoadTrial[]): string | null {
  const open = trials.filter((t) => t.said === null);
  if (open.length > 0)
    return open.length === 1
      ? `${open[0]!.name} is not tried yet.`
      : `${open.length} functions are not tried yet.`;
  const fails = trials.find((t) => t.said?.body.result === "fails");
  if (fails) return `${fails.name} does not work: the vehicle is not proved.`;
  const away = trials.find((t) => t.found !== null && t.said?.body.putBack === false);
  return away ? `${away.name}: put the customer’s own setting back.` : null;
}

/** The lamps of the dash, now against when the vehicle came in. */
export type DashNow = { now: LampId[]; came: LampId[]; went: LampId[]; stayed: LampId[] };

/** @returns null while nobody has looked after the work */
export function dashNow(events: readonly JobEvent[]): DashNow | null {
  const looked = lastOf(events, "lamps-now");
  if (!looked) return null;
  const before = lastOf(events, "walk")?.body.lamps ?? [];
  const now = looked.body.lamps;
  return {
    now,
    came: now.filter((l) => !before.includes(l)),
    went: before.filter((l) => !now.includes(l)),
    stayed: now.filter((l) => before.includes(l)),
  };
}
