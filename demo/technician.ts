import { nanoid } from "nanoid";
import { aimTaskOf } from "@/core/job/aim-of";
import {
  askedFor,
  boardUnchecked,
  itemLacks,
  itemsOf,
  judgeTarget,
  movesVehicle,
  runOf,
  SCOPES,
  standingNow,
  targetInHand,
  viewOf,
  type CalibrationGround,
  type JobEvent,
  type TabletEvent,
  codesAfter,
  lastOf,
} from "@/core/job";
import { roadTrials } from "@/core/job/road-check";
import type { RunEvent } from "@/core/run";
import { asTyped, fieldsFor, judgeFully, readFields } from "@/core/ready";
import type { ScanEvent } from "@/core/scan";
import { isLabelled, LAST_ACTS, plainFigure, typedFigure, type Judged } from "@/core/setout";
import { adviseAim } from "@/core/mirror";
import { targetOf, type CheckItem, type SheetStep } from "@/core/sheet";
import type { Person } from "@/server/auth/session";
import { asRead } from "@/devices/bench/replay";
import type { Spot } from "@/devices/vehicle/mirror-camera";
import { bayOf, holdInstrument, holdReadiness, scanToolFor } from "@/server/jobs/bay";
import { scanBody, scanOnce, type ScanCommand } from "@/server/jobs/scan";
import { displayOf } from "@/server/jobs/mirror-bay";
import { writeLines, writeOwn } from "@/server/jobs/append";
import { eventsAfter } from "@/server/jobs/log";
import { findJob, type JobRow } from "@/server/jobs/store";
import { takeIn } from "@/server/jobs/take-in";

type AimStep = Extract<SheetStep, { kind: "aim" }>;

/** What the demo's people say of what is left after a clearing. */
const saidOf = (code: string | null): string =>
  code === null
    ? "Silent before the work too; the customer knows"
    : code === "ST-058"
      ? "Learned by itself on the first turns of the drive"
      : code.endsWith("-047")
        ? "Proves itself on the first drive; the customer was told"
        : "Known to the customer, not of this work";

/**
 * A made-up technician who works on a job by the product's own advice, in the simulated bay, at
 * made-up times.
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
  /** What is worked on; the target last worked on where nothing is said. */
  let at: { calibrationId: string | null; targetId: string | null } = {
    calibrationId: null,
    targetId: null,
  };
  const view = (): CalibrationGround => viewOf(job().ground, at.calibrationId);
  const target = (): string => at.targetId ?? targetInHand(view(), events()).id;
  const judge = (): Judged => judgeTarget(view(), events(), target());

  const write = (
    body: TabletEvent | { kind: "run"; event: RunEvent } | { kind: "scan"; event: ScanEvent },
    seconds: number,
  ): void => {
    const [id, when] = [nanoid(16), tick(seconds)];
    const { calibrationId } = view();
    if (body.kind === "run" || body.kind === "scan") {
      const own = body.kind === "run" ? { ...body, calibrationId } : body;
      return void writeOwn(jobId, () => [{ id, at: when, body: own }], person);
    }
    const scope = movesVehicle(body) ? "job" : SCOPES[body.kind];
    const named = {
      ...(scope !== "job" || "stage" in body ? { calibrationId } : {}),
      ...(scope === "target" && at.targetId ? { targetId: at.targetId } : {}),
    };
    const result = writeLines(
      jobId,
      eventsAfter(jobId).length,
      [{ id, takenAt: when, body: { ...named, ...body } }],
      person,
      { now: new Date(when) },
    );
    const why = result.ok ? result.outcomes.find((o) => o.outcome === "refused") : undefined;
    if (!result.ok || why)
      throw new Error(`The demo writes what the shop refuses: ${JSON.stringify([body, why])}`);
  };

  /**
   * One reading with the simulated instrument, typed to the millimetre; `slipMm` is a misread tape.
   */
  const read = (slotId: string, slipMm = 0): void => {
    const { candidates, solution, next } = judge();
    const asked = next.kind === "read" && next.candidate.slot.id === slotId ? next.candidate : null;
    const { slot, instrument, sigma, anew } =
      asked ?? candidates.find((c) => c.slot.id === slotId && !c.anew)!;
    const raw = holdInstrument(job(), view(), events(), target(), slotId, anew);
    const shown = asRead(slot, raw) + slipMm;
    const figure = plainFigure(slot, slot.sides ? Math.abs(shown) : shown, "mm");
    const typed = typedFigure(slot, figure, shown >= 0 ? 1 : -1);
    const taken = solution.readings.filter((r) => r.slotId === slotId).length;
    write(
      {
        kind: "reading",
        slotId,
        typed,
        shown,
        sigma,
        instrumentId: instrument.id,
        ...(anew ? { anew } : {}),
      },
      slot.seconds + 8 * taken,
    );
  };

  /** Where a mark stands on its display, read to a tenth of a division. */
  const markOn = (step: AimStep): { right: number; up: number } => {
    const bay = (id: string) => bayOf(job(), view(), events(), id);
    const shown = displayOf(job(), view(), events(), bay, step.id)!;
    const [[a, b]] = shown.crosses.find((c) => c.id === step.mark)!.strokes as [[Spot, Spot]];
    const tenth = (x: number, y: number): number => Math.round(5 * (x + y)) / 10;
    return { right: tenth(a.right, b.right), up: tenth(a.up, b.up) };
  };

  /** Scan-tool commands with made-up times. */
  const scan = async (commands: ScanCommand[]): Promise<void> => {
    for (const command of commands) {
      const event = await scanOnce(job(), events(), command, 0);
      write(scanBody(command, { ...event, at: tick(25) }), 0);
    }
  };

  /** Lets the unit in hand test itself, and again where it was not content. */
  const selfTest = async (itemId: string): Promise<void> => {
    const { calibrationId } = view();
    const ask = { type: "self-test", calibrationId, itemId } as const;
    for (let n = 0; n < 2; n++) {
      const event = await scanOnce(job(), events(), ask, 0);
      write(scanBody(ask, { ...event, at: tick(40) }), 0);
      if (event.type === "self-test" && event.passed) return;
    }
  };

  /** Hangs the board of the target in hand, or lays its mat, and checks its code. */
  const hang = (): void => {
    const { code } = targetOf(view().sheet, target()).object;
    const worn = job().ground.boards?.find((b) => b.code === code)?.condition === "worn";
    write({ kind: "board", code, reason: worn ? "Pattern whole, edge scuffed" : null }, 20);
  };

  /** Asks for what is proved to be called set, the board's code having been looked at. */
  const settle = (): void => {
    if (boardUnchecked(view(), events(), target())) hang();
    write({ kind: "settle" }, 15);
  };

  return {
    settle,
    get jobId() {
      return jobId;
    },
    open(intake: object, seed: string): void {
      jobId = takeIn(intake, person, { seed, at: tick(0) });
    },
    read,
    scan,
    /** Turns to another calibration, or another target of it. */
    turnTo(calibrationId: string, targetId: string | null = null): void {
      at = { calibrationId, targetId };
    },
    write: (body: TabletEvent, seconds = 20): void => write(body, seconds),
    /**
     * Answers every check; what is measured is measured, put right where it is off, and measured
     * again.
     */
    async check(
      stage: "ready" | "prove",
      accepted: Record<string, string> = {},
      unanswered: readonly string[] = [],
    ): Promise<void> {
      const { vehicle } = job().ground;
      const items: CheckItem[] = itemsOf(view(), stage).filter((i) => !unanswered.includes(i.id));
      const afterwards = stage === "prove" ? ({ stage } as const) : {};
      for (const item of items) {
        const answer = (outcome: "fine" | "fixed" | "accepted", reason: string | null): void =>
          write({ kind: "check", stage, itemId: item.id, outcome, reason }, 30);
        const { measure } = item;
        if (measure?.kind === "scan") await scan(["read"]);
        if (measure?.kind === "rescan") {
          await scan(["clear", "read"]);
          for (const asked of codesAfter(view(), events())?.missing ?? [])
            write({ kind: "code-word", ...asked, word: saidOf(asked.code) }, 45);
        }
        let outcome: "fine" | "fixed" = "fine";
        if (measure?.kind === "battery") {
          await scan(["volts"]);
          if (itemLacks(job().ground, events(), item)) {
            outcome = "fixed";
            write({ kind: "put-right", itemId: item.id }, 120);
            await scan(["volts"]);
          }
        }
        if (measure?.kind === "self-test") await selfTest(item.id);
        if (measure?.kind === "dash")
          write(
            { kind: "lamps-now", lamps: [...(lastOf(events(), "walk")?.body.lamps ?? [])] },
            20,
          );
        if (measure?.kind === "road" && !accepted[item.id])
          for (const trial of roadTrials(view(), events()))
            write(
              {
                kind: "road-check",
                functionId: trial.id,
                result: "works",
                remark: "",
                drove: person.name,
                watched: person.id === "oskar" ? "Ines Tarbet" : "Oskar Veld",
                putBack: true,
              },
              150,
            );
        if (
          measure &&
          !["scan", "rescan", "battery", "dash", "road", "self-test"].includes(measure.kind)
        ) {
          for (let n = 0; n < 3; n++) {
            const values = holdReadiness(job(), view(), events(), item.id)!;
            const typed = Object.fromEntries(
              fieldsFor(measure, vehicle).flatMap((f) =>
                f.id in values ? [[f.id, asTyped(f, values[f.id]!)]] : [],
              ),
            );
            write({ kind: "measured", ...afterwards, itemId: item.id, values, typed }, 90);
            const read = readFields(fieldsFor(measure, vehicle), typed);
            if (read.ok && judgeFully(measure, read.values, vehicle).ok) break;
            outcome = "fixed";
            write({ kind: "put-right", ...afterwards, itemId: item.id }, 240);
          }
        }
        // A unit that slept may answer at the second asking; one that stays silent was silent
        // before.
        if (measure?.kind === "scan" && itemLacks(job().ground, events(), item))
          await scan(["read"]);
        const silent = measure?.kind === "scan" && itemLacks(job().ground, events(), item) !== null;
        const reason =
          accepted[item.id] ?? (silent ? "Silent before the repair too, the customer knows" : null);
        answer(reason ? "accepted" : outcome, reason);
      }
    },
    /** Turns the stand where it is, to the left as seen from above, and reads nothing after it. */
    turn(turnRad: number): void {
      const { board } = judge().solution;
      const { pose, heightMm, pitchRad, rollRad } = board;
      const turned = { ...pose, headingRad: pose.headingRad + turnRad };
      const after = { pose: turned, heightMm, pitchRad, rollRad };
      write(
        { kind: "move", move: { kind: "roll", awayMm: 0, leftMm: 0, turnRad, after }, rest: [] },
        30,
      );
    },
    /** Measures one item and leaves it as it was found. */
    measure(stage: "ready" | "prove", itemId: string): void {
      const { vehicle } = job().ground;
      const { measure } = itemsOf(view(), stage).find((i) => i.id === itemId)!;
      const values = holdReadiness(job(), view(), events(), itemId)!;
      const typed = Object.fromEntries(
        fieldsFor(measure!, vehicle).flatMap((f) =>
          f.id in values ? [[f.id, asTyped(f, values[f.id]!)]] : [],
        ),
      );
      const after = stage === "prove" ? ({ stage } as const) : {};
      write({ kind: "measured", ...after, itemId, values, typed }, 90);
    },
    /** Does what the Next bar says until `enough`, at most 60 acts. */
    follow(enough: (j: Judged) => boolean): Judged {
      for (let n = 0; n < 60; n++) {
        const judged = judge();
        const { next } = judged;
        if (enough(judged)) return judged;
        if (next.kind === "settle") settle();
        else if (next.kind === "stuck") throw new Error(next.message);
        else if (next.kind === "read") {
          for (const target of [next.again, ...(next.decides ?? [])])
            if (target)
              write(
                { kind: "strike", target, reason: "Read again: it did not agree with the others" },
                5,
              );
          read(next.candidate.slot.id);
        } else if (next.kind === "finish") {
          for (const touch of next.acts) write({ kind: "touch", touch }, LAST_ACTS[touch].seconds);
          if (next.acts.includes("hung")) hang();
        } else {
          const { predicted: _, ...move } = next.move;
          write({ kind: "move", move, rest: next.rest.map(({ predicted: __, ...m }) => m) }, 40);
        }
      }
      throw new Error("The advice does not come to an end.");
    },
    /** Drives the sheet's routine through the simulated scan tool, once; up to a step, where one is named. */
    async run(until?: string): Promise<void> {
      const kept = at;
      for (const s of standingNow(view(), events(), targetInHand(view(), events()).id)) {
        at = { ...kept, targetId: s.target.id };
        if (!s.board && isLabelled(s.target)) hang();
      }
      at = kept;
      const log = (event: RunEvent): void => write({ kind: "run", event }, 0);
      for (let n = 0; n < 40; n++) {
        const { state, step } = runOf(view(), events());
        const tool = scanToolFor(job(), view(), events(), 0);
        if (!step) {
          if (state.attempt > 0) return;
          try {
            const { volts } = await tool.connect();
            const forward = view().sheet.appliesTo.system === "forward-camera";
            const stored = forward ? await tool.storedAim() : null;
            log({
              at: tick(30),
              type: "connected",
              tool: tool.identity,
              volts,
              ...(stored && { stored }),
            });
          } catch (error) {
            log({
              at: tick(20),
              type: "connect-failed",
              reason: error instanceof Error ? error.message : String(error),
            });
          }
          continue;
        }
        // What was read of it is left as it is.
        if (step.id === until && (step.kind !== "aim" || state.aims[step.id]?.fresh)) return;
        if (state.status === "waiting") {
          const rest = step.kind === "ignition" ? step.waitSeconds : 0;
          log({ at: tick(rest + 1), type: "waited", step: step.id });
        } else if (step.kind === "position")
          throw new Error("The made-up technician works at one place only.");
        else if (step.kind === "prompt") log({ at: tick(15), type: "confirmed", step: step.id });
        else if (step.kind === "ignition")
          log({ at: tick(10), type: "ignition", step: step.id, to: step.to });
        else if (step.kind === "input")
          log({
            at: tick(45),
            type: "input",
            step: step.id,
            valueMm:
              askedFor(view(), events(), step)?.mm ?? Math.round((step.minMm + step.maxMm) / 2),
          });
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
        } else if (step.kind === "hold") {
          const entered = await tool.entered({
            afterSeconds: 3,
            withinSeconds: step.withinSeconds,
          });
          log({ at: tick(step.forSeconds + 1), type: "held", step: step.id, entered });
        } else if (step.kind === "aim") {
          const aim = state.aims[step.id];
          if (aim?.fresh) {
            const { task, sigma } = aimTaskOf(view(), events(), step)!;
            const done = await tool.turnCamera(step.side, adviseAim(task, aim, sigma).steps);
            log({ at: tick(12), type: "aim-turned", step: step.id, ...done });
          } else {
            const { right, up } = markOn(step);
            log({ at: tick(25), type: "aim-read", step: step.id, right, up });
          }
        } else if (step.kind === "routine") {
          log({ at: tick(5), type: "routine-started", step: step.id });
          const result = await tool.runRoutine(step.routine);
          log({ at: tick(20), type: "routine-result", step: step.id, result });
        }
      }
    },
  };
}
