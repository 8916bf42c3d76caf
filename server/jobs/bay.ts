import {
  boardsStanding,
  checksOf,
  eventsOf,
  itemOf,
  itemsOf,
  targetNow,
  putRight,
  planFor,
  runLogOf,
  scanLogOf,
  strikes,
  type JobEvent,
} from "@/core/job";
import { replayRun } from "@/core/run";
import { scanState } from "@/core/scan";
import { readReadiness } from "@/devices/bench/readiness";
import type { NetworkState } from "@/devices/vehicle/network";
import { act, measure, openBay, type BenchWorld } from "@/devices/bench/world";
import { simulatedScanTool, type BesideWorld, type Cabin } from "@/devices/scan-tool/simulated";
import type { ScanTool } from "@/devices/scan-tool/scan-tool";
import type { JobRow } from "./store";

/** The simulated bay a job lives in, as its log has left it. A struck act was never done. */
export function bayOf(job: JobRow, events: readonly JobEvent[]): BenchWorld {
  const struck = strikes(events);
  return events.reduce(
    (world, e) => {
      // Rolled to another place by eye: the same vehicle and floor, the stand about there.
      // What is under its mast comes along.
      if (e.body.kind === "position") {
        const before = (x: JobEvent): boolean => x.seq <= e.seq && !struck.has(x.id);
        return openBay(
          job.seed,
          planFor(
            job.ground,
            events.filter((x) => before(x) && ["position", "move"].includes(x.body.kind)),
          ),
        );
      }
      if (e.body.kind === "rear-toe" && e.body.how === "rolled")
        return act(world, { id: e.id, kind: "touch", touch: "moved-car" });
      if (struck.has(e.id)) return world;
      if (e.body.kind === "move") return act(world, { id: e.id, kind: "move", move: e.body.move });
      if (e.body.kind === "touch")
        return act(world, { id: e.id, kind: "touch", touch: e.body.touch });
      if (e.body.kind === "bump") return act(world, { id: e.id, kind: "bump" });
      return world;
    },
    openBay(job.seed, planFor(job.ground)),
  );
}

/** What the simulated instrument at a slot shows next. */
export function holdInstrument(job: JobRow, events: readonly JobEvent[], slotId: string): number {
  const before = eventsOf(events, "reading").filter((e) => e.body.slotId === slotId).length;
  return measure(bayOf(job, events), slotId, before);
}

/** The scan tool plugged into this job's vehicle. `pace` scales its delays. */
export function scanToolFor(job: JobRow, events: readonly JobEvent[], pace = 1): ScanTool {
  const run = eventsOf(events, "run").map((e) => e.body.event);
  const turns = run.filter((e) => e.type === "ignition");
  const supply = itemsOf(job.ground, "ready").find((i) => i.measure?.kind === "battery")?.id ?? "";
  const maintainer = checksOf(events, "ready").get(supply);
  let on = 0;
  turns.forEach((t, i) => {
    if (t.to === "on")
      on += (Date.parse(turns[i + 1]?.at ?? new Date().toISOString()) - Date.parse(t.at)) / 1000;
  });
  const cabin: Cabin = {
    ignition: turns.at(-1)?.to ?? "off",
    maintained:
      putRight(events, supply) > 0 ||
      (maintainer !== undefined && maintainer.body.outcome !== "accepted"),
    ignitionOnSeconds: on,
    connectionsBefore: run.filter((e) => e.type === "connected" || e.type === "connect-failed")
      .length,
    looksBefore: run.filter((e) => e.type === "routine-result").length,
  };
  return simulatedScanTool(boardsNow(job, events), cabin, pace);
}

/** The bay as the vehicle sees it: once for each board that stands, the present one last. */
function boardsNow(job: JobRow, events: readonly JobEvent[]): [...BesideWorld[], BesideWorld] {
  const standing = boardsStanding(job.ground, events).filter((b) => b.events.length > 0);
  const beside = standing.slice(0, -1).map((b): BesideWorld => {
    const own = new Set(b.events.map((e) => e.id));
    const until = Math.max(...b.events.map((e) => e.seq));
    const begun = events.findLast(
      (e) => e.body.kind === "position" && e.body.to === b.target.id && e.seq < until,
    );
    return {
      name: b.target.name,
      world: bayOf(
        job,
        events.filter((e) => e.seq <= (begun?.seq ?? 0) || own.has(e.id)),
      ),
    };
  });
  return [...beside, { name: targetNow(job.ground, events).name, world: bayOf(job, events) }];
}

/** What the simulated instruments show for a measured readiness item. */
export function holdReadiness(
  job: JobRow,
  events: readonly JobEvent[],
  itemId: string,
): Record<string, number> | null {
  const measure = itemOf(job.ground, "ready", itemId)?.measure;
  if (!measure) return null;
  const checks = eventsOf(events, "check").filter((e) => e.body.itemId === itemId);
  const fixed = putRight(events, itemId) > 0 || checks.some((e) => e.body.outcome === "fixed");
  const before = eventsOf(events, "measured").filter((e) => e.body.itemId === itemId).length;
  return readReadiness(bayOf(job, events), itemId, measure, fixed, before);
}

/** The vehicle's network as the log has left it. */
export function networkOf(job: JobRow, events: readonly JobEvent[], volts: number): NetworkState {
  const log = scanLogOf(events);
  const learned = replayRun(runLogOf(events), job.ground.sheet.run).status === "passed";
  const { gateway } = scanState(log, job.ground.vehicle.gateway);
  const clearedAt = log.findLast((e) => e.type === "cleared")?.at;
  const learnedAt = runLogOf(events).findLast((e) => e.type === "routine-result")?.at;
  const cleared = clearedAt !== undefined && (!learned || clearedAt > (learnedAt ?? ""));
  return { volts, open: gateway !== "locked", learned, cleared };
}
