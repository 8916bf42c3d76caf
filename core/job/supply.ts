import { batteryTrend } from "@/core/ready/battery";
import { viewsOf, type CalibrationGround } from "./ground";
import { putRight } from "./item";
import { itemsOf } from "./items";
import { eventsOf, type JobEvent } from "./job";
import { calibrationLog, runOf } from "./standing";

/** The supply while no maintainer holds it. */
export type Unmaintained = {
  /** When it was taken off, and when the supply is spent, ISO times. */
  since: string;
  until: string;
  /** The minutes from one to the other, and whether they were read off its fall or stand on the sheet. */
  minutes: number;
  from: "its fall" | "sheet";
};

/**
 * How long the supply lasts since the maintainer was taken off to shut the bonnet: by its own fall
 * where that was read often enough, else by what the sheet counts on.
 *
 * @returns null while a maintainer is on, and once the run it was taken off for is over
 */
export function unmaintained(
  ground: CalibrationGround,
  events: readonly JobEvent[],
): Unmaintained | null {
  for (const view of viewsOf(ground)) {
    const supply = itemsOf(view, "ready").find((i) => i.measure?.kind === "battery");
    if (supply?.measure?.kind !== "battery") continue;
    const own = calibrationLog(view, events);
    const off = eventsOf(own, "run").findLast(({ body: { event } }) => {
      const step = event.type === "confirmed" && view.sheet.run.find((s) => s.id === event.step);
      return step && step.kind === "prompt" && step.wants === "maintainer-off";
    });
    const begun = eventsOf(own, "run").findLast((e) => e.body.event.type === "connected");
    if (!off || (begun && begun.seq > off.seq) || !runOf(view, own).step) continue;
    if (putRight(events, supply.id) > off.seq) continue;
    const { minVolts, minMinutes } = supply.measure;
    const start = Date.parse(off.body.event.at);
    const read = eventsOf(events, "scan").flatMap(({ seq, body: { event } }) =>
      seq > off.seq && "volts" in event
        ? [{ atS: (Date.parse(event.at) - start) / 1000, volts: event.volts }]
        : [],
    );
    const trend = batteryTrend(read, minVolts);
    const left = trend?.minutesLeft ?? null;
    const minutes = left === null ? minMinutes : read.at(-1)!.atS / 60 + left;
    return {
      since: off.body.event.at,
      until: new Date(start + minutes * 60_000).toISOString(),
      minutes,
      from: left === null ? "sheet" : "its fall",
    };
  }
  return null;
}
