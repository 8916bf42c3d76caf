import { nanoid } from "nanoid";
import { z } from "zod";
import {
  eventsOf,
  otherCar,
  gateWords,
  runGate,
  runOf,
  scanLogOf,
  viewOf,
  type CalibrationGround,
  type JobEvent,
} from "@/core/job";
import { changedSince } from "@/core/job/causes";
import { advanceRun, REFUSAL_CODES, RunRefusal, type RunEvent, type RunState } from "@/core/run";
import { scanState } from "@/core/scan";
import type { SheetStep } from "@/core/sheet";
import { fieldsIn, readReport } from "@/core/tool-report";
import { DeviceRefusal, type ScanTool } from "@/devices/scan-tool/scan-tool";
import type { Person } from "../auth/session";
import { scanToolFor } from "./bay";
import { writeOwn, type OwnLine } from "./append";
import { eventsAfter } from "./log";
import { toolMappings } from "../tool-report/store";
import { openJob } from "./open-job";
import { JobRefusal } from "./refusal";
import type { JobRow } from "./store";

const step = z.string().max(64);

const runAct = z.discriminatedUnion("type", [
  z.object({
    type: z.literal("connect"),
    changed: z.string().trim().min(3, "say what was changed").max(200).optional(),
  }),
  z.object({ type: z.literal("confirm"), step }),
  z.object({ type: z.literal("place"), step }),
  z.object({ type: z.literal("ignition"), step, to: z.enum(["on", "off", "running"]) }),
  z.object({ type: z.literal("start-clock"), step }),
  z.object({ type: z.literal("clock-over"), step }),
  z.object({ type: z.literal("held"), step }),
  z.object({ type: z.literal("hold-over"), step }),
  z.object({ type: z.literal("choose"), step, option: z.string().max(64) }),
  z.object({
    type: z.literal("accept-value"),
    step,
    reason: z.string().trim().min(3, "say why in a few words").max(200),
  }),
  z.object({ type: z.literal("ask-vehicle") }),
  z.object({
    type: z.literal("connect-by-hand"),
    tool: z.object({
      name: z.string().trim().min(2, "name the tool").max(60),
      serial: z.string().trim().max(40),
      software: z.string().trim().max(40),
    }),
    volts: z.number().min(0).max(40).nullable(),
    changed: z.string().trim().min(3, "say what was changed").max(200).optional(),
  }),
  z.object({
    type: z.literal("type-value"),
    step,
    value: z.number(),
    unit: z.enum(["mm", "cm", "in", "V", "deg"]),
  }),
  z.object({ type: z.literal("tell-held"), step, entered: z.boolean() }),
  z.object({
    type: z.literal("type-result"),
    step,
    passed: z.boolean(),
    qualityPercent: z.number().min(0).max(100).nullable(),
    yawDeg: z.number().min(-15).max(15).nullable(),
    pitchDeg: z.number().min(-15).max(15).nullable(),
    rollDeg: z.number().min(-15).max(15).nullable(),
    reason: z.string().trim().max(200).nullable(),
    code: z.enum(REFUSAL_CODES).nullable(),
  }),
  z.object({
    type: z.literal("import-result"),
    step,
    name: z.string().trim().min(1).max(120),
    sha256: z.string().regex(/^[0-9a-f]{64}$/),
    text: z.string().min(1).max(16_000),
    mapping: z.string().max(40),
  }),
  z.object({ type: z.literal("waited"), step }),
  z.object({ type: z.literal("read"), step }),
  z.object({ type: z.literal("input"), step, valueMm: z.number() }),
  z.object({
    type: z.literal("aim-read"),
    step,
    right: z.number().min(-90).max(90),
    up: z.number().min(-90).max(90),
  }),
  z.object({
    type: z.literal("aim-turn"),
    step,
    pan: z.int().min(-200).max(200),
    tilt: z.int().min(-200).max(200),
  }),
  z.object({ type: z.literal("start"), step }),
  z.object({ type: z.literal("stop"), reason: z.string().trim().min(3, "say why").max(200) }),
]);
/** What the technician may ask of a run, and of which calibration; the first where none is named. */
export const runCommandSchema = z
  .object({ calibrationId: z.string().max(64).optional() })
  .and(runAct);
export type RunCommand = z.infer<typeof runCommandSchema>;

/**
 * Carries out one command: asks the tool where one is needed, checks the answer against the state
 * machine, writes the log.
 *
 * @returns all events after `baseSeq`
 * @throws JobRefusal when the machine or the device says no; nothing is written then, except a
 *   refused connection
 */
export async function commandRun(
  jobId: string,
  baseSeq: number,
  command: RunCommand,
  person: Person,
): Promise<JobEvent[]> {
  const job = openJob(jobId);
  const asked = command.calibrationId;
  if (asked !== undefined && !job.ground.calibrations.some((c) => c.id === asked))
    throw new JobRefusal(`calibration: this job has none called “${asked}”. Reload the page.`);
  const view = viewOf(job.ground, asked ?? null);
  const write = (event: RunEvent): void => append(job, view, event, person);
  try {
    await carryOut(job, view, command, write);
  } catch (error) {
    if (error instanceof RunRefusal || error instanceof DeviceRefusal)
      throw new JobRefusal(error.message);
    throw error;
  }
  return eventsAfter(jobId, baseSeq);
}

/** What one of a tool's units is in the unit that sheets count in. */
const IN_SHEETS_UNIT: Partial<Record<string, number>> = { in: 25.4, cm: 10 };

const now = (): string => new Date().toISOString();

/** The boards must stand as the routine wants them. @throws RunRefusal saying what is to be done */
function pass(view: CalibrationGround, events: readonly JobEvent[]): void {
  const gate = runGate(view, events);
  if (gate) throw new RunRefusal(gateWords(gate));
}

async function carryOut(
  job: JobRow,
  view: CalibrationGround,
  command: RunCommand,
  write: (event: RunEvent) => void,
): Promise<void> {
  const events = eventsAfter(job.id);
  const { state, step } = runOf(view, events);
  const tool = scanToolFor(job, view, events);
  switch (command.type) {
    case "connect":
      pass(view, events);
      mayRepeat(view, state, events, command.changed);
      try {
        const { volts } = await tool.connect();
        const vin = await tool.readVin();
        const other = otherCar(view, events, vin);
        if (other) return write({ at: now(), type: "connect-failed", reason: other, vin });
        const { changed } = command;
        const stored =
          view.sheet.appliesTo.system === "forward-camera" ? await tool.storedAim() : null;
        return write({
          at: now(),
          type: "connected",
          tool: tool.identity,
          volts,
          ...(stored && { stored }),
          ...(changed && { changed }),
        });
      } catch (error) {
        if (!(error instanceof DeviceRefusal)) throw error;
        return write({ at: now(), type: "connect-failed", reason: error.message });
      }
    case "place": {
      if (step?.kind !== "position") throw new RunRefusal("The board is not to be moved now.");
      pass(view, events);
      return write({ at: now(), type: "placed", step: command.step });
    }
    case "confirm":
      return write({ at: now(), type: "confirmed", step: command.step });
    case "ignition":
      return write({ at: now(), type: "ignition", step: command.step, to: command.to });
    case "waited":
      return write({ at: now(), type: "waited", step: command.step });
    case "start-clock":
      if (step?.kind !== "position") throw new RunRefusal("The vehicle sets no time here.");
      return write({ at: now(), type: "clock-started", step: command.step });
    case "clock-over":
      return write({ at: now(), type: "clock-missed", step: command.step });
    case "hold-over":
      return write({ at: now(), type: "hold-missed", step: command.step });
    case "held": {
      if (step?.kind !== "hold" || !state.ignitionAt)
        throw new RunRefusal("No buttons are to be held now.");
      const at = now();
      const afterSeconds = (Date.parse(at) - Date.parse(state.ignitionAt)) / 1000;
      const entered = await tool.entered({ afterSeconds, withinSeconds: step.withinSeconds });
      return write({ at, type: "held", step: command.step, entered });
    }
    case "choose":
      return write({ at: now(), type: "chosen", step: command.step, option: command.option });
    case "accept-value":
      return write({
        at: now(),
        type: "value-accepted",
        step: command.step,
        reason: command.reason,
      });
    case "connect-by-hand": {
      pass(view, events);
      mayRepeat(view, state, events, command.changed);
      const { changed } = command;
      return write({
        at: now(),
        type: "connected",
        how: "by-hand",
        tool: command.tool,
        volts: command.volts,
        ...(changed && { changed }),
      });
    }
    case "type-value":
      onlyByHand(state);
      return write({
        at: now(),
        type: "value",
        step: command.step,
        value: command.value * (IN_SHEETS_UNIT[command.unit] ?? 1),
        shownValue: command.value,
        shownUnit: command.unit,
        how: "typed",
      });
    case "tell-held":
      onlyByHand(state);
      return write({ at: now(), type: "held", step: command.step, entered: command.entered });
    case "type-result": {
      onlyByHand(state);
      const { passed, code, yawDeg, pitchDeg, rollDeg } = command;
      const screen = photoSinceStart(events);
      return write({
        at: now(),
        type: "routine-result",
        step: command.step,
        how: screen ? { kind: "photo", photo: screen } : { kind: "typed" },
        result: {
          passed,
          qualityPercent: command.qualityPercent ?? (passed ? 100 : 0),
          ...(yawDeg !== null && { learnedYawDeg: yawDeg }),
          ...(pitchDeg !== null && { learnedPitchDeg: pitchDeg }),
          ...(rollDeg !== null && { learnedRollDeg: rollDeg }),
          reason: passed ? null : command.reason || "No reason given.",
          ...(!passed && code && { refused: code }),
        },
      });
    }
    case "import-result": {
      onlyByHand(state);
      const mapping = toolMappings().find((m) => m.id === command.mapping);
      if (!mapping) throw new RunRefusal("The shop has not taught how that report is read.");
      const read = readReport(fieldsIn(command.text), mapping);
      if (!read.ok) throw new RunRefusal(read.problem);
      if (read.vin && otherCar(view, events, read.vin))
        throw new RunRefusal(
          `The report is of VIN ${read.vin}; this job is of ${view.intake.vin}. Bring in this vehicle’s own.`,
        );
      const { name, sha256, text } = command;
      return write({
        at: now(),
        type: "routine-result",
        step: command.step,
        how: { kind: "imported", name, sha256, taught: mapping.name, text },
        result: read.result,
      });
    }
    case "ask-vehicle":
      if (state.byHand)
        throw new RunRefusal(
          "The shop’s own tool speaks to nobody: look at it, and type what it says.",
        );
      return askVehicle(view, state, step, tool, write);
    case "input":
      return write({ at: now(), type: "input", step: command.step, valueMm: command.valueMm });
    case "stop":
      return write({ at: now(), type: "stopped", reason: command.reason });
    case "read": {
      if (step?.kind !== "compare") throw new RunRefusal("No value is asked for now.");
      if (await isLost(tool, write)) return;
      const { value, unit } = await tool.readValue(step.value);
      return write({
        at: now(),
        type: "value",
        step: command.step,
        value: value * (IN_SHEETS_UNIT[unit] ?? 1),
        shownValue: value,
        shownUnit: unit,
      });
    }
    case "aim-read":
      if (step?.kind === "aim") pass(view, events);
      return write({
        at: now(),
        type: "aim-read",
        step: command.step,
        right: command.right,
        up: command.up,
      });
    case "aim-turn": {
      if (step?.kind !== "aim") throw new RunRefusal("No camera is aimed now.");
      // What the machine would not take is not sent to the vehicle either.
      const asked = { at: now(), type: "aim-turned", step: command.step } as const;
      advanceRun(
        runOf(view, events).state,
        { ...asked, pan: command.pan, tilt: command.tilt },
        view.sheet.run,
      );
      if (await isLost(tool, write)) return;
      const done = await tool.turnCamera(step.side, { pan: command.pan, tilt: command.tilt });
      return write({ ...asked, ...done });
    }
    case "start": {
      if (scanState(scanLogOf(events), job.ground.vehicle.gateway).gateway === "locked")
        throw new DeviceRefusal(
          "The gateway refuses the routine: sign in under Ready, Scan, then start again.",
        );
      // Before it is connected the routine itself says so.
      if (step) pass(view, events);
      if (step?.kind === "routine" && !state.byHand && (await isLost(tool, write))) return;
      write({ at: now(), type: "routine-started", step: command.step });
      // The machine has taken it: the step is the routine. What an own tool finds is told later.
      if (step?.kind !== "routine" || state.byHand) return;
      const result = await tool.runRoutine(step.routine);
      return write({ at: now(), type: "routine-result", step: command.step, result });
    }
  }
}

/** Nothing is repeated as it was. @throws RunRefusal */
function mayRepeat(
  view: CalibrationGround,
  state: RunState,
  events: readonly JobEvent[],
  changed: string | undefined,
): void {
  if (state.status === "failed" && !changed && changedSince(view, events).length === 0)
    throw new RunRefusal(
      "Nothing was changed since the vehicle refused. Find the cause first, or say what was changed.",
    );
}

/** What a tool tells by itself is not typed. @throws RunRefusal */
function onlyByHand(state: RunState): void {
  if (!state.byHand)
    throw new RunRefusal(
      "The tool that is connected tells this itself. Stop the run to go on by hand.",
    );
}

/** The photo of the tool's screen that was taken since its routine was started. */
function photoSinceStart(events: readonly JobEvent[]): string | null {
  const from = events.findLast(
    (e) => e.body.kind === "run" && e.body.event.type === "routine-started",
  );
  const taken = eventsOf(events, "photo").findLast(
    (e) => e.body.subject === "tool" && e.seq > (from?.seq ?? Infinity),
  );
  return taken?.body.photo ?? null;
}

/** A session that died while nobody spoke is noticed before anything is sent into it. */
async function isLost(tool: ScanTool, write: (event: RunEvent) => void): Promise<boolean> {
  if ((await tool.session()) === "kept") return false;
  write({ at: now(), type: "dropped", reason: "The vehicle let the tool go meanwhile." });
  return true;
}

/**
 * Where the vehicle really is: nobody believes a page that was closed, or a shop that was away. What
 * the routine found meanwhile is taken; a session that died ends the run.
 */
async function askVehicle(
  view: CalibrationGround,
  state: RunState,
  step: SheetStep | null,
  tool: ScanTool,
  write: (event: RunEvent) => void,
): Promise<void> {
  if (!step) throw new RunRefusal("No run is under way.");
  const session = await tool.session();
  if (session === "lost" || state.dropped) {
    if (!state.dropped) await isLost(tool, write);
    const { volts } = await tool.connect();
    return write({ at: now(), type: "reconnected", tool: tool.identity, volts, session });
  }
  if (state.status !== "routine" || step.kind !== "routine") return;
  const result = await tool.runRoutine(step.routine);
  return write({ at: now(), type: "routine-result", step: step.id, result });
}

/** Appends one run event at the head, after checking it against the log as it is at that moment. */
function append(job: JobRow, view: CalibrationGround, event: RunEvent, person: Person): void {
  const { calibrationId, sheet } = view;
  const make = (events: readonly JobEvent[]): OwnLine[] => {
    advanceRun(runOf(view, events).state, event, sheet.run);
    return [{ id: nanoid(16), at: event.at, body: { kind: "run", event, calibrationId } }];
  };
  writeOwn(job.id, make, person);
}
