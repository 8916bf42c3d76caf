import type { Random } from "@/core/math/random";
import {
  advanceRun,
  currentStep,
  RUN_START,
  RunRefusal,
  type RunEvent,
  type RunState,
} from "@/core/run";
import type { SheetStep } from "@/core/sheet";

/** Routines and logs by chance: what any hand, tool or vehicle may do at any time, sensible or not. */
const one = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

/** Steps of every kind in any order that a sheet allows. */
export function randomSteps(random: Random): SheetStep[] {
  const many = 2 + Math.floor(random() * 9);
  const steps: SheetStep[] = [];
  for (let n = 0; n < many; n++) {
    const id = `s${n}`;
    const turned = steps.findLast((s) => s.kind === "ignition");
    const isOn = turned?.kind === "ignition" && turned.to !== "off";
    const kinds = [
      "prompt",
      "ignition",
      "position",
      "compare",
      "input",
      "routine",
      "choose",
    ] as const;
    const kind = one(random, isOn ? ([...kinds, "hold"] as const) : kinds);
    const wait = random() < 0.5 ? 0 : 5;
    if (kind === "prompt") steps.push({ id, kind, say: "Do it." });
    else if (kind === "ignition")
      steps.push({
        id,
        kind,
        say: "Turn it.",
        to: one(random, ["on", "off", "running"] as const),
        waitSeconds: wait,
      });
    else if (kind === "position")
      steps.push({
        id,
        kind,
        say: "Go there.",
        to: "far",
        ...(random() < 0.6 ? { withinSeconds: 60 } : {}),
      });
    else if (kind === "compare")
      steps.push({
        id,
        kind,
        say: "Compare.",
        value: "battery-voltage",
        unit: "V",
        min: 12,
        max: 15,
      });
    else if (kind === "input")
      steps.push({ id, kind, say: "Type it.", name: "Height", minMm: 600, maxMm: 700 });
    else if (kind === "hold")
      steps.push({ id, kind, say: "Hold.", withinSeconds: 8, forSeconds: 2 });
    else if (kind === "choose")
      steps.push({
        id,
        kind,
        say: "Choose.",
        options: [
          { id: "a", name: "One" },
          { id: "b", name: "Other" },
        ],
      });
    else steps.push({ id, kind, say: "Look.", routine: "forward-camera-static", minQuality: 75 });
  }
  steps.push({
    id: "last",
    kind: "routine",
    say: "Look.",
    routine: "forward-camera-static",
    minQuality: 75,
  });
  return steps;
}

const TOOL = { name: "Tool", serial: "1", software: "1" };

/** An event: mostly one that fits the step the run waits at, else any. */
function randomEvent(
  random: Random,
  state: RunState,
  steps: readonly SheetStep[],
  at: string,
): RunEvent {
  const step = currentStep(state, steps);
  const id = step && random() < 0.93 ? step.id : one(random, steps).id;
  const fits = random() < 0.8 ? step?.kind : one(random, steps).kind;
  if (!step || random() < 0.03)
    return random() < 0.85
      ? { at, type: "connected", tool: TOOL, volts: 12 + random() }
      : { at, type: "connect-failed", reason: "No answer." };
  if (state.dropped || random() < 0.02)
    return one<RunEvent>(random, [
      { at, type: "dropped", reason: "Lost." },
      {
        at,
        type: "reconnected",
        tool: TOOL,
        volts: 12.6,
        session: random() < 0.7 ? "kept" : "lost",
      },
    ]);
  if (random() < 0.015) return { at, type: "stopped", reason: "Enough." };
  switch (fits) {
    case "ignition":
      return state.status === "waiting"
        ? { at, type: "waited", step: id }
        : {
            at,
            type: "ignition",
            step: id,
            to: step.kind === "ignition" && random() < 0.9 ? step.to : "on",
          };
    case "position":
      return one<RunEvent>(random, [
        { at, type: "placed", step: id },
        { at, type: "clock-started", step: id },
        { at, type: "clock-missed", step: id },
      ]);
    case "compare":
      return random() < 0.8
        ? { at, type: "value", step: id, value: 10 + 5 * random(), shownValue: 12, shownUnit: "V" }
        : { at, type: "value-accepted", step: id, reason: "Known." };
    case "input":
      return { at, type: "input", step: id, valueMm: 550 + 200 * random() };
    case "hold":
      return random() < 0.6
        ? { at, type: "held", step: id, entered: random() < 0.7 }
        : { at, type: "hold-missed", step: id };
    case "choose":
      return { at, type: "chosen", step: id, option: one(random, ["a", "b", "c"]) };
    case "routine":
      return state.status === "routine"
        ? {
            at,
            type: "routine-result",
            step: id,
            result: { passed: random() < 0.85, qualityPercent: 60 + 40 * random(), reason: null },
          }
        : { at, type: "routine-started", step: id };
    default:
      return { at, type: "confirmed", step: id };
  }
}

/** Events in time, those that the machine took, and the state after each of them. */
export function randomRun(
  random: Random,
  steps: readonly SheetStep[],
  tries: number,
): { log: RunEvent[]; states: RunState[]; refused: number } {
  let state = RUN_START;
  let ms = Date.UTC(2026, 10, 3, 9, 0, 0);
  let refused = 0;
  const log: RunEvent[] = [];
  const states: RunState[] = [];
  for (let n = 0; n < tries; n++) {
    ms += random() < 0.1 ? 90_000 * random() : 6000 * random();
    const event = randomEvent(random, state, steps, new Date(ms).toISOString());
    try {
      state = advanceRun(state, event, steps);
    } catch (error) {
      if (!(error instanceof RunRefusal)) throw error;
      refused++;
      continue;
    }
    log.push(event);
    states.push(state);
  }
  return { log, states, refused };
}
