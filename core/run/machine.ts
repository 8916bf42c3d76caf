import type { SheetStep } from "@/core/sheet";

/**
 * A run of a sheet's routine: a state machine over the sheet's steps, driven by events and
 * replayable from its log.
 *
 * The machine has no clock: every event carries its own time, and a wait is over when an event says
 * so late enough.
 */
export type RunEvent = { at: string } & (
  | {
      type: "connected";
      tool: { name: string; serial: string; software: string };
      volts: number;
      /** What somebody changed since the vehicle refused, where no line of the log says it. */
      changed?: string;
    }
  /** `vin`: of the other vehicle the tool is plugged into, where that is why. */
  | { type: "connect-failed"; reason: string; vin?: string }
  | { type: "confirmed"; step: string }
  /** The board stands proved at the place the step names. */
  | { type: "placed"; step: string }
  | { type: "ignition"; step: string; to: "on" | "off" }
  | { type: "waited"; step: string }
  /** A value as the tool shows it, and in the sheet's unit. */
  | { type: "value"; step: string; value: number; shownValue: number; shownUnit: string }
  | { type: "input"; step: string; valueMm: number }
  /** Where the mark stands on the display, in divisions, as somebody read it. */
  | { type: "aim-read"; step: string; right: number; up: number }
  /** How many commands the tool has carried out: pan outward, tilt up. */
  | { type: "aim-turned"; step: string; pan: number; tilt: number }
  | { type: "routine-started"; step: string }
  | { type: "routine-result"; step: string; result: RoutineResult }
  | { type: "stopped"; reason: string }
);

/**
 * What the vehicle answered. Angles in degrees, as the tool reports them; only a camera that looks
 * one way learns any.
 */
export type RoutineResult = {
  passed: boolean;
  qualityPercent: number;
  learnedYawDeg?: number | undefined;
  learnedPitchDeg?: number | undefined;
  learnedRollDeg?: number | undefined;
  /** The vehicle's own reason, when it refused. */
  reason: string | null;
  /** The same as its unit codes it. */
  refused?: RefusalCode | undefined;
  /** How much too large it saw its target, where it says. */
  sizePercent?: number | undefined;
};

/** Why a unit refuses, in kinds: what it found, not what is the matter. */
export const REFUSAL_CODES = [
  "not-found",
  "shape",
  "too-small",
  "too-large",
  "aim-side",
  "aim-height",
  "aim-roll",
] as const;
export type RefusalCode = (typeof REFUSAL_CODES)[number];

/** A camera while it is aimed. `fresh`: it was not turned since it was read. */
export type AimState = {
  right: number;
  up: number;
  inside: boolean;
  fresh: boolean;
  turns: number;
};

export type RunStatus =
  "not-started" | "connected" | "waiting" | "routine" | "passed" | "failed" | "stopped";

export type RunState = {
  status: RunStatus;
  /** 1 for the first attempt; a new connection after an end begins the next. */
  attempt: number;
  tool: { name: string; serial: string; software: string } | null;
  volts: number | null;
  stepIndex: number;
  /** End of a wait in progress, ISO time. */
  waitUntil: string | null;
  values: Record<string, { value: number; shownValue: number; shownUnit: string; inside: boolean }>;
  inputsMm: Record<string, number>;
  /** What was last read of each camera that is aimed, and how often it was turned. */
  aims: Record<string, AimState>;
  result: RoutineResult | null;
  /** Why the run is where it is, when it did not go on. */
  message: string | null;
};

export const RUN_START: RunState = {
  status: "not-started",
  attempt: 0,
  tool: null,
  volts: null,
  stepIndex: 0,
  waitUntil: null,
  values: {},
  inputsMm: {},
  aims: {},
  result: null,
  message: null,
};

/**
 * An event that the machine cannot take in its present state. The message says what it waits for.
 */
export class RunRefusal extends Error {
  override readonly name = "RunRefusal";
}

const ended = (s: RunState): boolean =>
  s.status === "passed" || s.status === "failed" || s.status === "stopped";

/** Whether the machine takes a new connection: at the start, and again after an end. */
export const mayConnect = (s: RunState): boolean => s.status === "not-started" || ended(s);

/** The step the machine waits at, or null when it is not under way. */
export const currentStep = (s: RunState, steps: readonly SheetStep[]): SheetStep | null =>
  s.status === "not-started" || ended(s) ? null : (steps[s.stepIndex] ?? null);

/**
 * Takes one event.
 *
 * @param steps the sheet's steps
 * @throws RunRefusal when the event does not fit the state: wrong step, wait not over, run not
 *   connected
 */
export function advanceRun(
  state: RunState,
  event: RunEvent,
  steps: readonly SheetStep[],
): RunState {
  if (event.type === "connect-failed") {
    if (!mayConnect(state))
      throw new RunRefusal("A run is under way; stop it before connecting again.");
    return { ...state, message: event.reason };
  }
  if (event.type === "connected") {
    if (!mayConnect(state))
      throw new RunRefusal("A run is under way; stop it before connecting again.");
    return {
      ...RUN_START,
      status: "connected",
      attempt: state.attempt + 1,
      tool: event.tool,
      volts: event.volts,
    };
  }
  const step = currentStep(state, steps);
  if (!step) throw new RunRefusal("The scan tool is not connected. Connect it first.");
  if (event.type === "stopped")
    return { ...state, status: "stopped", waitUntil: null, message: event.reason };
  if (event.step !== step.id)
    throw new RunRefusal(`The run is at "${step.say}", not there. Reload to see where it is.`);

  const next = (change: Partial<RunState> = {}): RunState => {
    const after = {
      ...state,
      ...change,
      message: null,
      stepIndex: state.stepIndex + 1,
      waitUntil: null,
    };
    // A sheet may end on a prompt or an ignition cycle: the run is over when its steps are.
    const done = after.stepIndex >= steps.length;
    return { ...after, status: done ? (after.result?.passed ? "passed" : "failed") : "connected" };
  };

  switch (event.type) {
    case "confirmed":
      if (step.kind !== "prompt")
        throw new RunRefusal(`"${step.say}" needs more than a confirmation.`);
      return next();
    case "placed":
      if (step.kind !== "position") throw new RunRefusal("The board is not to be moved now.");
      return next();
    case "ignition": {
      if (step.kind !== "ignition" || state.status === "waiting")
        throw new RunRefusal("No ignition change is asked for now.");
      if (step.to !== event.to)
        throw new RunRefusal(`The ignition is ${event.to}; this step needs it ${step.to}.`);
      if (step.waitSeconds === 0) return next();
      const waitUntil = new Date(Date.parse(event.at) + step.waitSeconds * 1000).toISOString();
      return { ...state, status: "waiting", waitUntil, message: null };
    }
    case "waited":
      if (state.status !== "waiting" || !state.waitUntil)
        throw new RunRefusal("Nothing is being waited for.");
      if (Date.parse(event.at) < Date.parse(state.waitUntil))
        throw new RunRefusal("The wait is not over yet.");
      return next();
    case "value": {
      if (step.kind !== "compare") throw new RunRefusal("No value is asked for now.");
      const inside = event.value >= step.min && event.value <= step.max;
      const { value, shownValue, shownUnit } = event;
      const values = { ...state.values, [step.id]: { value, shownValue, shownUnit, inside } };
      if (inside) return next({ values });
      return {
        ...state,
        values,
        message: `Outside the book's range. Find out why before going on, then read it again.`,
      };
    }
    case "input":
      if (step.kind !== "input") throw new RunRefusal("No number is asked for now.");
      if (event.valueMm < step.minMm || event.valueMm > step.maxMm)
        throw new RunRefusal(`${step.name} must lie between ${step.minMm} and ${step.maxMm} mm.`);
      return next({ inputsMm: { ...state.inputsMm, [step.id]: event.valueMm } });
    case "aim-read": {
      if (step.kind !== "aim") throw new RunRefusal("No camera is aimed now.");
      const { right, up } = event;
      const { at, within } = step;
      const inside = Math.abs(right - at.right) <= within && Math.abs(up - at.up) <= within;
      const turns = state.aims[step.id]?.turns ?? 0;
      const aims = { ...state.aims, [step.id]: { right, up, inside, fresh: true, turns } };
      return inside ? next({ aims }) : { ...state, aims, message: null };
    }
    case "aim-turned": {
      const aim = step.kind === "aim" ? state.aims[step.id] : undefined;
      if (!aim?.fresh)
        throw new RunRefusal("Read where the mark stands before the camera is turned.");
      const aims = { ...state.aims, [step.id]: { ...aim, fresh: false, turns: aim.turns + 1 } };
      return { ...state, aims, message: null };
    }
    case "routine-started":
      if (step.kind !== "routine" || state.status === "routine")
        throw new RunRefusal("The routine is not next.");
      return { ...state, status: "routine", message: null };
    case "routine-result": {
      if (step.kind !== "routine" || state.status !== "routine")
        throw new RunRefusal("No routine is running.");
      const { result } = event;
      if (!result.passed) return { ...state, status: "failed", result, message: result.reason };
      if (result.qualityPercent < step.minQuality)
        return {
          ...state,
          status: "failed",
          result,
          message: `Quality ${result.qualityPercent.toFixed(0)} % is below the ${step.minQuality} % the sheet asks for.`,
        };
      return next({ result });
    }
  }
}

/** The state after a whole log. @throws RunRefusal at the first event that does not fit */
export const replayRun = (log: readonly RunEvent[], steps: readonly SheetStep[]): RunState =>
  log.reduce((state, event) => advanceRun(state, event, steps), RUN_START);
