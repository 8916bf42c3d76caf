import { batteryTrend, judgeMeasure } from "@/core/ready";
import { isMissed, scanState, type ScanEvent } from "@/core/scan";
import type { CheckItem, Measure } from "@/core/sheet";
import { checksOf, eventsOf, measuredOf, scanLogOf, strikes, type JobEvent } from "./job";
import type { JobGround } from "./ground";
import { fittedTo } from "./owed";
import { dashNow, roadLacks, roadTrials } from "./road-check";

type Item = CheckItem;
type Ground = Pick<JobGround, "vehicle" | "calibrations" | "intake">;

/**
 * What is known of an item that is measured: nothing yet, put right since and not read again, or
 * the last figures.
 */
export type ItemReading =
  | { kind: "unread"; say: string }
  | { kind: "put-right"; say: string }
  | { kind: "outside"; say: string }
  /** `clean`: read by the tool, with nothing in it that somebody has to look at. */
  | { kind: "inside"; clean: boolean };

/** When something is measured: only the joined picture has to be there first. */
export const stageOfMeasure = (measure: Measure): "ready" | "prove" =>
  ["seams", "rescan", "road", "dash", "self-test"].includes(measure.kind) ? "prove" : "ready";

/**
 * How a checklist item stands by its measurement; null for one that is only looked at. What can be
 * measured is fine only by its last measurement: nobody can say "put right" to a figure.
 */
export function itemReading(
  ground: Ground,
  events: readonly JobEvent[],
  item: Item,
): ItemReading | null {
  const { measure } = item;
  if (!measure) return null;
  const righted = putRight(events, item.id);
  const last = lastRead(events, item);
  // What changed, and whether every line of it has its word, is judged where it is answered.
  if (measure.kind === "rescan")
    return last === 0
      ? { kind: "unread", say: "Read all control units again, after the routine." }
      : { kind: "inside", clean: false };
  if (measure.kind === "road") {
    const lacks = roadLacks(roadTrials(ground, events));
    return lacks ? { kind: "unread", say: lacks } : { kind: "inside", clean: false };
  }
  if (measure.kind === "self-test") {
    const test = selfTestOf(events, item.id);
    if (!test) return { kind: "unread", say: "Let the unit test itself, after the routine." };
    return test.passed
      ? { kind: "inside", clean: true }
      : { kind: "outside", say: `The unit is not content: ${test.says}` };
  }
  if (measure.kind === "dash") {
    const dash = dashNow(events);
    if (!dash) return { kind: "unread", say: "Look at the dash, and say which lamps are lit." };
    return dash.came.length > 0
      ? {
          kind: "outside",
          say: `${dash.came.length === 1 ? "A lamp is" : "Lamps are"} lit since the work.`,
        }
      : { kind: "inside", clean: false };
  }
  if (measure.kind === "scan") {
    // That a unit has lost its aim is what this job is for.
    const owed = ({ system }: { system: string | null }): boolean =>
      ground.calibrations.some((c) => c.sheet.appliesTo.system === system);
    if (last === 0) return { kind: "unread", say: "Scan all control units first." };
    if (righted > last) return { kind: "put-right", say: "It was put right: scan again." };
    const { last: scan } = scanState(scanLogOf(events), ground.vehicle.gateway);
    const fitted = fittedTo(ground.vehicle, ground.intake.answers).map((f) => f.system);
    return scan!.modules.some((m) => isMissed(m, fitted))
      ? { kind: "outside", say: "A control unit does not answer." }
      : { kind: "inside", clean: scan!.modules.every((m) => m.codes.length === 0 || owed(m)) };
  }
  if (measure.kind === "battery") {
    if (last === 0) return { kind: "unread", say: "Read the supply first." };
    if (righted > last)
      return { kind: "put-right", say: "It was put right: read the supply again." };
    const { voltsLog } = scanState(scanLogOf(events), ground.vehicle.gateway);
    if (voltsLog.at(-1)!.volts < measure.minVolts)
      return {
        kind: "outside",
        say: `The supply is below ${measure.minVolts} V. Put the maintainer on.`,
      };
    // What fell before the maintainer was put on says nothing of what comes.
    const since =
      Date.parse(events.find((e) => e.seq === righted)?.at ?? "1970-01-01T00:00:00.000Z") / 1000;
    const log = voltsLog.filter((v) => v.atS >= since);
    const left = batteryTrend(log, measure.minVolts)?.minutesLeft ?? null;
    return left !== null && left < measure.minMinutes
      ? {
          kind: "outside",
          say: `The supply lasts ${Math.floor(left)} min more; the sheet asks for ${measure.minMinutes}. Put the maintainer on.`,
        }
      : { kind: "inside", clean: true };
  }
  const figures = measuredOf(events, stageOfMeasure(measure)).get(item.id);
  if (!figures) return { kind: "unread", say: "Measure it first." };
  if (righted > last) return { kind: "put-right", say: "It was put right: read it again." };
  const judged = judgeMeasure(measure, figures.body.values, ground.vehicle, figures.body.found);
  return judged.ok
    ? { kind: "inside", clean: false }
    : { kind: "outside", say: `As last read it is outside: ${judged.headline}.` };
}

/** Where in the log an item was last read; 0 when it never was. */
function lastRead(events: readonly JobEvent[], item: Item): number {
  const kind = item.measure?.kind;
  if (kind === "rescan") {
    const ran = eventsOf(events, "run").findLast((e) => e.body.event.type === "routine-result");
    const last = eventsOf(events, "scan").findLast((e) =>
      ["read", "cleared"].includes(e.body.event.type),
    );
    return ran && last?.body.event.type === "read" && last.seq > ran.seq ? last.seq : 0;
  }
  if (kind === "self-test")
    return eventsOf(events, "scan").findLast((e) => isTestFor(e.body.event, item.id))?.seq ?? 0;
  if (kind !== "scan" && kind !== "battery")
    return item.measure
      ? (measuredOf(events, stageOfMeasure(item.measure)).get(item.id)?.seq ?? 0)
      : 0;
  const wanted = kind === "scan" ? ["read"] : ["read", "volts", "cleared"];
  return eventsOf(events, "scan").findLast((e) => wanted.includes(e.body.event.type))?.seq ?? 0;
}

/** What keeps an item from being called fine, in words; null when nothing does. */
export function itemLacks(ground: Ground, events: readonly JobEvent[], item: Item): string | null {
  const reading = itemReading(ground, events, item);
  return reading && reading.kind !== "inside" ? reading.say : null;
}

/** Where in the log an item was last said to be put right; 0 when it never was. */
export const putRight = (events: readonly JobEvent[], itemId: string): number => {
  const struck = strikes(events);
  return (
    eventsOf(events, "put-right").findLast((e) => e.body.itemId === itemId && !struck.has(e.id))
      ?.seq ?? 0
  );
};

/**
 * Whether an item's answer holds: it was answered, nothing was put right since, and, where it is
 * measured, the last figures bear the answer out. "Accepted" stands by its reason.
 */
export function itemSettled(
  ground: Ground,
  events: readonly JobEvent[],
  stage: "ready" | "prove",
  item: Item,
): boolean {
  const check = checksOf(events, stage).get(item.id);
  if (!check || check.seq < putRight(events, item.id)) return false;
  if (check.body.outcome === "accepted" || check.body.outcome === "blocks") return true;
  // Read again, the codes are another matter.
  if (item.measure?.kind === "rescan") {
    const read = lastRead(events, item);
    return read > 0 && check.seq > read;
  }
  // A scan and the supply were judged when the answer was given; later readings of them belong to
  // other steps.
  const typed = item.measure && item.measure.kind !== "scan" && item.measure.kind !== "battery";
  return !typed || itemLacks(ground, events, item) === null;
}

const isTestFor = (event: ScanEvent, itemId: string): boolean =>
  event.type === "self-test" && event.itemId === itemId;

/** How a unit last tested itself for an item since its routine ran; null while it has not. */
export function selfTestOf(
  events: readonly JobEvent[],
  itemId: string,
): Extract<ScanEvent, { type: "self-test" }> | null {
  const ran = eventsOf(events, "run").findLast((e) => e.body.event.type === "routine-result");
  const test = eventsOf(events, "scan").findLast((e) => isTestFor(e.body.event, itemId));
  if (test?.body.event.type !== "self-test" || (ran && test.seq < ran.seq)) return null;
  return test.body.event;
}
