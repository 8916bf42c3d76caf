import type { Stand } from "@/core/setout";
import { currentStep, replayRun } from "@/core/run";
import { firstTarget, targetOf, type Target } from "@/core/sheet";
import type { JobGround } from "./ground";
import { runLogOf, standingBoard, type JobEvent } from "./job";
import {
  allProved,
  boardsStanding,
  freeStands,
  standsBeside,
  targetNow,
  targetWanted,
} from "./standing";

/** What has to be done with the boards before the routine may go on. */
export type RunGate =
  /**
   * Another target is to be set out. first: the routine begins with it. next: the routine asks for
   * it. loose: it is no longer proved. back: the routine looks at it next.
   */
  | { kind: "turn-to"; target: Target; why: "first" | "next" | "loose" | "back" }
  /** The same, on a stand of its own: these are free. */
  | { kind: "choose-stand"; target: Target; free: Stand[] }
  /** The target that is set out now is not proved in place. */
  | { kind: "prove"; target: Target }
  /** The board that hangs was not checked. */
  | { kind: "check-board" };

/**
 * What stands between a job and the next step of its routine, as far as boards are concerned; null
 * where nothing does. The tablet shows it, the shop refuses by it.
 */
export function runGate(ground: JobGround, events: readonly JobEvent[]): RunGate | null {
  const { sheet } = ground;
  const state = replayRun(runLogOf(events), sheet.run);
  const step = currentStep(state, sheet.run);
  const now = targetNow(ground, events);
  const unchecked = ground.boards !== undefined && !standingBoard(events);
  if (!step) {
    const first = firstTarget(sheet);
    if (now.id !== first.id) return { kind: "turn-to", target: first, why: "first" };
    return unchecked ? { kind: "check-board" } : null;
  }
  if (step.kind === "position") {
    const target = targetOf(sheet, step.to);
    if (now.id !== target.id)
      return standsBeside(ground, target.id)
        ? { kind: "choose-stand", target, free: freeStands(ground, events, target.id) }
        : { kind: "turn-to", target, why: "next" };
    const loose = boardsStanding(ground, events).find((b) => !b.settled)?.target;
    if (loose)
      return loose.id === target.id
        ? { kind: "prove", target }
        : { kind: "turn-to", target: loose, why: "loose" };
    return unchecked ? { kind: "check-board" } : null;
  }
  if (step.kind !== "routine") return null;
  const wanted = targetWanted(ground, state.stepIndex);
  if (now.id !== wanted.id)
    return allProved(ground, events)
      ? { kind: "turn-to", target: wanted, why: "back" }
      : { kind: "prove", target: now };
  const loose = boardsStanding(ground, events).find((b) => !b.settled && b.target.id !== now.id);
  return loose ? { kind: "turn-to", target: loose.target, why: "loose" } : null;
}

/** The same in words, as a refusal. */
export function gateWords(gate: RunGate): string {
  switch (gate.kind) {
    case "check-board":
      return "Check which board hangs first: scan or type its code.";
    case "choose-stand":
    case "prove":
      return `Set the board out at ${gate.target.name} first.`;
    case "turn-to":
      if (gate.why === "first")
        return "The routine begins with the board at its first place: bring it back and set it out there.";
      return gate.why === "back"
        ? `The board belongs at ${gate.target.name} now: set it out there first.`
        : `Set the board out at ${gate.target.name} first.`;
  }
}
