import { nanoid } from "nanoid";
import { planFor, setOutEntries, type JobEvent, type TabletEvent } from "@/core/job";
import { replayRun, type RunEvent } from "@/core/run";
import { currentStep } from "@/core/run";
import { runLogOf } from "@/core/job";
import { nextAct, solveSetOut, type Judged } from "@/core/setout";
import type { Person } from "@/server/auth/session";
import { holdInstrument, scanToolFor } from "@/server/jobs/bay";
import { appendEvents, eventsAfter, findJob, takeIn, type JobRow } from "@/server/jobs/store";

/**
 * A made-up technician who works on a job by the product's own advice, in the simulated bay, at made-up times.
 *
 * @param person who writes
 * @param startAt ISO time of the first act; each act then takes its own time
 */
export function technician(person: Person, startAt: string) {
  let clock = Date.parse(startAt);
  let jobId = "";
  const tick = (seconds: number): string => new Date((clock += seconds * 1000)).toISOString();
  const events = (): JobEvent[] => eventsAfter(jobId);
  const job = (): JobRow => findJob(jobId)!;
  const judge = (): Judged => nextAct(solveSetOut(planFor(job().ground), setOutEntries(events())));

  const write = (body: TabletEvent | { kind: "run"; event: RunEvent }, seconds: number): void => {
    const result = appendEvents(jobId, job().head, [{ id: nanoid(16), takenAt: tick(seconds), body }], person);
    if (!result.ok) throw new Error("Nobody else writes while the demo is made.");
  };

  /** One reading with the simulated instrument, typed to the millimetre; `slipMm` is a misread tape. */
  const read = (slotId: string, slipMm = 0): void => {
    const { candidates, solution } = judge();
    const { slot, instrument, sigma } = candidates.find((c) => c.slot.id === slotId)!;
    const raw = holdInstrument(job(), events(), slotId);
    const angle = slot.quantity.dimension === "angle";
    const shown = angle ? Math.round(raw * 1e4) / 1e4 : Math.round(raw) + slipMm;
    const typed = angle
      ? `${((shown * 180) / Math.PI).toFixed(2)}`
      : slot.sides
        ? `${Math.abs(shown)} ${shown >= 0 ? "L" : "R"}`
        : `${shown}`;
    const taken = solution.readings.filter((r) => r.slotId === slotId).length;
    write({ kind: "reading", slotId, typed, shown, sigma, instrumentId: instrument.id }, slot.seconds + 8 * taken);
  };

  return {
    get jobId() {
      return jobId;
    },
    open(intake: object, seed: string): void {
      jobId = takeIn(intake, person, { seed, at: tick(0) });
    },
    read,
    write: (body: TabletEvent, seconds = 20): void => write(body, seconds),
    check(stage: "ready" | "prove", accepted: Record<string, string> = {}): void {
      for (const item of job().ground.sheet[stage]) {
        const reason = accepted[item.id] ?? null;
        write({ kind: "check", stage, itemId: item.id, outcome: reason ? "accepted" : "fine", reason }, 70);
      }
    },
    /** Does what the Next bar says until `enough`, at most 60 acts. */
    follow(enough: (j: Judged) => boolean): Judged {
      for (let n = 0; n < 60; n++) {
        const judged = judge();
        const { next } = judged;
        if (enough(judged)) return judged;
        if (next.kind === "settle") write({ kind: "settle" }, 15);
        else if (next.kind === "stuck") throw new Error(next.message);
        else if (next.kind === "read") {
          if (next.again)
            write({ kind: "strike", target: next.again, reason: "Read again: it did not agree with the others" }, 5);
          read(next.candidate.slot.id);
        } else {
          const { predicted: _, ...move } = next.move;
          write({ kind: "move", move, rest: next.rest.map(({ predicted: __, ...m }) => m) }, 40);
        }
      }
      throw new Error("The advice does not come to an end.");
    },
    /** Drives the sheet's routine through the simulated scan tool, once. */
    async run(): Promise<void> {
      const { sheet } = job().ground;
      const log = (event: RunEvent): void => write({ kind: "run", event }, 0);
      for (let n = 0; n < 40; n++) {
        const state = replayRun(runLogOf(events()), sheet.run);
        const tool = scanToolFor(job(), events(), 0);
        const step = currentStep(state, sheet.run);
        if (!step) {
          if (state.attempt > 0) return;
          try {
            const { volts } = await tool.connect();
            log({ at: tick(30), type: "connected", tool: tool.identity, volts });
          } catch (error) {
            log({
              at: tick(20),
              type: "connect-failed",
              reason: error instanceof Error ? error.message : String(error),
            });
          }
          continue;
        }
        if (state.status === "waiting") {
          const rest = step.kind === "ignition" ? step.waitSeconds : 0;
          log({ at: tick(rest + 1), type: "waited", step: step.id });
        } else if (step.kind === "prompt") log({ at: tick(15), type: "confirmed", step: step.id });
        else if (step.kind === "ignition") log({ at: tick(10), type: "ignition", step: step.id, to: step.to });
        else if (step.kind === "input")
          log({ at: tick(45), type: "input", step: step.id, valueMm: Math.round((step.minMm + step.maxMm) / 2) });
        else if (step.kind === "compare") {
          const { value, unit } = await tool.readValue(step.value);
          log({
            at: tick(8),
            type: "value",
            step: step.id,
            value: unit === "in" ? value * 25.4 : value,
            shownValue: value,
            shownUnit: unit,
          });
        } else {
          log({ at: tick(5), type: "routine-started", step: step.id });
          const result = await tool.runRoutine(step.routine);
          log({ at: tick(20), type: "routine-result", step: step.id, result });
        }
      }
    },
  };
}
