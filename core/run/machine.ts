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
      /** Null where the shop's own tool does not say, and nobody typed it. */
      volts: number | null;
      /** The shop's own tool, which speaks to nobody: what it shows is told by hand. */
      how?: "by-hand";
      /** The aim its camera has stored, before anything is learned, where the tool reads it. */
      stored?: StoredAim;
      /** What somebody changed since the vehicle refused, where no line of the log says it. */
      changed?: string;
    }
  /** `vin`: of the other vehicle the tool is plugged into, where that is why. */
  | { type: "connect-failed"; reason: string; vin?: string }
  | { type: "confirmed"; step: string }
  /** The board stands proved at the place the step names. */
  | { type: "placed"; step: string }
  /** The vehicle says that it waits for the board at its next place: its clock runs. */
  | { type: "clock-started"; step: string }
  /** Its time is over, and nothing was placed. */
  | { type: "clock-missed"; step: string }
  | { type: "ignition"; step: string; to: "on" | "off" | "running" }
  /** The buttons were held, and the vehicle says whether it entered its routine. */
  | { type: "held"; step: string; entered: boolean }
  /** Nobody held them in time. */
  | { type: "hold-missed"; step: string }
  /** What the tool asked to choose. */
  | { type: "chosen"; step: string; option: string }
  | { type: "waited"; step: string }
  /** A value as the tool shows it, and in the sheet's unit. */
  | {
      type: "value";
      step: string;
      value: number;
      shownValue: number;
      shownUnit: string;
      how?: "typed";
    }
  /** A value outside the book's range is let pass, for a reason. */
  | { type: "value-accepted"; step: string; reason: string }
  | { type: "input"; step: string; valueMm: number }
  /** Where the mark stands on the display, in divisions, as somebody read it. */
  | { type: "aim-read"; step: string; right: number; up: number }
  /** How many commands the tool has carried out: pan outward, tilt up. */
  | { type: "aim-turned"; step: string; pan: number; tilt: number }
  | { type: "routine-started"; step: string }
  | { type: "routine-result"; step: string; result: RoutineResult; how?: Told }
  /** The tool lost the vehicle; the vehicle is where it is. */
  | { type: "dropped"; reason: string }
  | {
      type: "reconnected";
      tool: { name: string; serial: string; software: string };
      volts: number;
      /** Whether the vehicle is still in its routine's session; out of it, the run is over. */
      session: "kept" | "lost";
    }
  | { type: "stopped"; reason: string }
);

/**
 * How a result came in that no tool told by itself: typed, typed beside a photo of the tool's screen,
 * or read from the tool's own report by how the shop taught it.
 */
export type Told =
  | { kind: "typed" }
  | { kind: "photo"; photo: string }
  | { kind: "imported"; name: string; sha256: string; taught: string; text: string };

/** How a camera is aimed by its unit, degrees: yaw left, pitch nose down, roll right positive. */
export type StoredAim = { yawDeg: number; pitchDeg: number; rollDeg: number };

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

/**
 * Why a unit refuses, in kinds: what it found, not what is the matter. At "conditions" it has not
 * looked at all: engine, lamps or the way into its routine are not as it wants them.
 */
export const REFUSAL_CODES = [
  "conditions",
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

/** A value as the tool showed it; `accepted` where it was let pass outside the book's range. */
export type ValueRead = {
  value: number;
  shownValue: number;
  shownUnit: string;
  inside: boolean;
  accepted?: string;
};

export type RunState = {
  status: RunStatus;
  /** 1 for the first attempt; a new connection after an end begins the next. */
  attempt: number;
  tool: { name: string; serial: string; software: string } | null;
  volts: number | null;
  /** Whether the tool is the shop's own, and told by hand. */
  byHand: boolean;
  /** How the last result came in, where no tool told it. */
  told: Told | null;
  /** The aim that was stored when the tool first spoke with the vehicle. */
  stored: StoredAim | null;
  stepIndex: number;
  /** End of a wait in progress, ISO time. */
  waitUntil: string | null;
  values: Record<string, ValueRead>;
  choices: Record<string, string>;
  /** When the ignition was last turned on, ISO time: held buttons count from it. */
  ignitionAt: string | null;
  /** End of the time the vehicle waits for the board at its next place, ISO time. */
  clockUntil: string | null;
  /** How often each step ran out of its time: a place, or buttons. */
  missed: Record<string, number>;
  /** The tool has lost the vehicle, and has not found it again. */
  dropped: boolean;
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
  byHand: false,
  told: null,
  stored: null,
  stepIndex: 0,
  waitUntil: null,
  values: {},
  choices: {},
  ignitionAt: null,
  clockUntil: null,
  missed: {},
  dropped: false,
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

const SESSION_LOST = "The vehicle has left its routine: begin again.";

/** Nothing is waited for any more. */
const halted = (s: RunState): RunState => ({
  ...s,
  waitUntil: null,
  clockUntil: null,
  dropped: false,
});

/** A vehicle that was not entered starts over from its ignition: off where the sheet turns it off. */
function entryAgain(steps: readonly SheetStep[], at: number): number {
  const before = steps.slice(0, at);
  const on = before.findLastIndex((s) => s.kind === "ignition" && s.to !== "off");
  const off = before.slice(0, on).findLastIndex((s) => s.kind === "ignition");
  const isOff = off >= 0 && (steps[off] as { to?: string }).to === "off";
  return isOff ? off : on;
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
      byHand: event.how === "by-hand",
      // What was stored first: a later attempt may read what an earlier one has learned.
      stored: state.stored ?? event.stored ?? null,
    };
  }
  const step = currentStep(state, steps);
  if (!step) throw new RunRefusal("The scan tool is not connected. Connect it first.");
  if (event.type === "stopped")
    return { ...halted(state), status: "stopped", message: event.reason };
  if (event.type === "dropped") {
    if (state.dropped) throw new RunRefusal("The tool has lost the vehicle already.");
    return { ...state, dropped: true, message: event.reason };
  }
  if (event.type === "reconnected") {
    if (!state.dropped) throw new RunRefusal("The tool has not lost the vehicle.");
    const { tool, volts } = event;
    return event.session === "kept"
      ? { ...state, dropped: false, tool, volts, message: null }
      : { ...halted(state), status: "stopped", tool, volts, message: SESSION_LOST };
  }
  if (state.dropped)
    throw new RunRefusal("The tool has lost the vehicle. Connect it again, then go on.");
  if (event.step !== step.id)
    throw new RunRefusal(`The run is at "${step.say}", not there. Reload to see where it is.`);

  const next = (change: Partial<RunState> = {}): RunState => {
    const after = {
      ...state,
      ...change,
      message: null,
      stepIndex: state.stepIndex + 1,
      waitUntil: null,
      clockUntil: null,
    };
    // A sheet may end on a prompt or an ignition cycle: the run is over when its steps are.
    const done = after.stepIndex >= steps.length;
    // What is learned on the road has no routine here: its steps are all there is.
    const passed = after.result?.passed ?? !steps.some((s) => s.kind === "routine");
    return { ...after, status: done ? (passed ? "passed" : "failed") : "connected" };
  };

  switch (event.type) {
    case "confirmed":
      if (step.kind !== "prompt")
        throw new RunRefusal(`"${step.say}" needs more than a confirmation.`);
      return next();
    case "placed":
      if (step.kind !== "position") throw new RunRefusal("The board is not to be moved now.");
      if (step.withinSeconds !== undefined) {
        if (!state.clockUntil) throw new RunRefusal("The vehicle does not wait for it yet.");
        if (Date.parse(event.at) > Date.parse(state.clockUntil))
          throw new RunRefusal("The vehicle’s time for this place is over.");
      }
      return next();
    case "clock-started":
      if (step.kind !== "position" || step.withinSeconds === undefined)
        throw new RunRefusal("The vehicle sets no time here.");
      if (state.clockUntil) throw new RunRefusal("The vehicle’s clock runs already.");
      return { ...state, clockUntil: later(event.at, step.withinSeconds), message: null };
    case "clock-missed":
      if (!state.clockUntil) throw new RunRefusal("No clock of the vehicle runs.");
      if (Date.parse(event.at) <= Date.parse(state.clockUntil))
        throw new RunRefusal("The vehicle’s time is not over yet.");
      return {
        ...state,
        clockUntil: null,
        missed: counted(state.missed, step.id),
        message:
          "The vehicle did not wait any longer. It begins this place anew when you are ready.",
      };
    case "held":
    case "hold-missed": {
      if (step.kind !== "hold" || !state.ignitionAt)
        throw new RunRefusal("No buttons are to be held now.");
      const over = Date.parse(event.at) > Date.parse(later(state.ignitionAt, step.withinSeconds));
      if (event.type === "hold-missed" && !over)
        throw new RunRefusal("There is time left to hold them.");
      if (event.type === "held" && event.entered && !over) return next();
      return {
        ...state,
        stepIndex: entryAgain(steps, state.stepIndex),
        status: "connected",
        ignitionAt: null,
        missed: counted(state.missed, step.id),
        message: over
          ? "Too late: the vehicle had started as usual. Turn it off and try once more."
          : "The vehicle did not take it. Turn it off, then hold again, long enough and together.",
      };
    }
    case "chosen":
      if (step.kind !== "choose" || !step.options.some((o) => o.id === event.option))
        throw new RunRefusal("Nothing of that name is to be chosen now.");
      return next({ choices: { ...state.choices, [step.id]: event.option } });
    case "ignition": {
      if (step.kind !== "ignition" || state.status === "waiting")
        throw new RunRefusal("No ignition change is asked for now.");
      if (step.to !== event.to)
        throw new RunRefusal(`The ignition is ${event.to}; this step needs it ${step.to}.`);
      const ignitionAt = event.to === "off" ? null : event.at;
      if (step.waitSeconds === 0) return next({ ignitionAt });
      const waitUntil = later(event.at, step.waitSeconds);
      return { ...state, status: "waiting", waitUntil, ignitionAt, message: null };
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
    case "value-accepted": {
      const read = step.kind === "compare" ? state.values[step.id] : undefined;
      if (!read || read.inside)
        throw new RunRefusal("Only a value that lies outside the book’s range is let pass.");
      return next({ values: { ...state.values, [step.id]: { ...read, accepted: event.reason } } });
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
      const told = event.how ?? null;
      if (!result.passed)
        return { ...state, status: "failed", result, told, message: result.reason };
      if (result.qualityPercent < step.minQuality)
        return {
          ...state,
          status: "failed",
          result,
          told,
          message: `Quality ${result.qualityPercent.toFixed(0)} % is below the ${step.minQuality} % the sheet asks for.`,
        };
      return next({ result, told });
    }
  }
}

const later = (at: string, seconds: number): string =>
  new Date(Date.parse(at) + seconds * 1000).toISOString();

const counted = (of: Record<string, number>, id: string): Record<string, number> => ({
  ...of,
  [id]: (of[id] ?? 0) + 1,
});

/** The state after a whole log. @throws RunRefusal at the first event that does not fit */
export const replayRun = (log: readonly RunEvent[], steps: readonly SheetStep[]): RunState =>
  log.reduce((state, event) => advanceRun(state, event, steps), RUN_START);
