import { isByHand, isLabelled, type Stand } from "@/core/setout";
import { firstTarget, targetOf, targetsOf, type CheckItem, type Target } from "@/core/sheet";
import type { CalibrationGround } from "./ground";
import { itemSettled } from "./item";
import { itemsOf } from "./items";
import type { JobEvent } from "./job";
import { freeStands, runOf, standingAt, standsBeside, targetInHand, wantedNow } from "./standing";

/** What has to be done with the targets before the routine may go on. */
export type RunGate =
  /**
   * Another target is to be set out. first: the routine begins with it. next: the routine asks for
   * it. loose: it is not proved, or no longer. back: the routine looks at it next. `brought`: it
   * stands there already, nothing has to be sent.
   */
  | {
      kind: "turn-to";
      target: Target;
      why: "first" | "next" | "loose" | "back";
      brought: boolean;
    }
  /** The same, on a stand of its own: these are free. */
  | { kind: "choose-stand"; target: Target; free: Stand[] }
  /** The target in hand is not proved in place. */
  | { kind: "prove"; target: Target }
  /** Something that was measured before the work keeps the routine from being right: read it again. */
  | { kind: "check-first"; item: CheckItem }
  /** What hangs or lies there was not checked. */
  | { kind: "check-board"; target: Target };

/**
 * What stands between a calibration and the next step of its routine, as far as its targets are
 * concerned; null where nothing does. The tablet shows it, the shop refuses by it.
 *
 * @param inHand the target this tablet works on; the one last worked on where it does not say
 */
export function runGate(
  g: CalibrationGround,
  events: readonly JobEvent[],
  inHand = targetsOf(g.sheet).length > 0 ? targetInHand(g, events).id : "",
): RunGate | null {
  const { state, step } = runOf(g, events);
  if (!step || step.kind === "routine" || step.kind === "aim") {
    const item = firstToMeasure(g, events, step === null);
    if (item) return { kind: "check-first", item };
  }
  if (targetsOf(g.sheet).length === 0) return null;
  const brought = (id: string): boolean => standingAt(g, events, id) !== null;
  const unchecked = (targets: readonly Target[]): RunGate | null => {
    if (g.boards === undefined) return null;
    const target = targets.find(
      (t) => isLabelled(t) && standingAt(g, events, t.id)?.board === null,
    );
    return target ? { kind: "check-board", target } : null;
  };
  const turnTo = (target: Target, why: "first" | "next" | "loose" | "back"): RunGate => ({
    kind: "turn-to",
    target,
    why,
    brought: brought(target.id),
  });
  if (!step) {
    const first = firstTarget(g.sheet);
    if (!brought(first.id)) return turnTo(first, "first");
    const wanted = wantedNow(g, events, 0);
    const open = wanted.find((w) => mustBeProved(w.target) && !w.standing?.settled)?.target;
    if (open) return open.id === inHand ? { kind: "prove", target: open } : turnTo(open, "loose");
    return unchecked(wanted.map((w) => w.target));
  }
  if (step.kind === "position") {
    const target = targetOf(g.sheet, step.to);
    if (!brought(target.id))
      return standsBeside(g, target.id)
        ? { kind: "choose-stand", target, free: freeStands(g, events, target.id) }
        : turnTo(target, "next");
    const wanted = wantedNow(g, events, state.stepIndex + 1);
    const loose = wanted.find((w) => !w.standing?.settled)?.target;
    if (loose)
      return loose.id === inHand ? { kind: "prove", target: loose } : turnTo(loose, "loose");
    return unchecked(wanted.map((w) => w.target));
  }
  if (step.kind !== "routine" && step.kind !== "aim") return null;
  const wanted = wantedNow(g, events, state.stepIndex);
  const away = wanted.find((w) => w.standing === null)?.target;
  if (away) {
    const here = standingAt(g, events, inHand);
    return here && !here.settled ? { kind: "prove", target: here.target } : turnTo(away, "back");
  }
  // One board alone may be shown unproved: the vehicle says what it sees. Several never.
  const loose =
    wanted.length > 1 || wanted.some((w) => isByHand(w.target) || mustBeProved(w.target))
      ? wanted.find((w) => !w.standing?.settled)?.target
      : undefined;
  if (loose && loose.id !== inHand) return turnTo(loose, "loose");
  if (loose && (isByHand(loose) || mustBeProved(loose))) return { kind: "prove", target: loose };
  return null;
}

/**
 * What is proved before anything is begun: a mark has no code that would show that it was drawn, and a
 * radar answers to a reflector at the wrong height as if it were right.
 */
const mustBeProved = (target: Target): boolean =>
  !isLabelled(target) || target.object.is === "reflector";

/**
 * What was measured before the work, is not right, and would be learned as if it were: a trailer that
 * does not stand in line as a crooked camera; a folded arm before anything is begun.
 */
function firstToMeasure(
  g: CalibrationGround,
  events: readonly JobEvent[],
  atStart: boolean,
): CheckItem | null {
  const kinds: string[] = atStart ? ["camera-places"] : ["camera-places", "articulation"];
  const asked: string[] = g.sheet.ready.flatMap((i) =>
    i.measure && kinds.includes(i.measure.kind) ? [i.measure.kind] : [],
  );
  if (asked.length === 0) return null;
  const items = itemsOf(g, "ready").filter((i) => i.measure && asked.includes(i.measure.kind));
  return items.find((item) => !itemSettled(g, events, "ready", item)) ?? null;
}

/** The same in words, as a refusal. */
export function gateWords(gate: RunGate): string {
  switch (gate.kind) {
    case "check-first":
      return `Under Ready first: ${gate.item.ask}.`;
    case "check-board":
      return isByHand(gate.target)
        ? `Check which mat lies at ${gate.target.name} first: scan or type its code.`
        : "Check which board hangs first: scan or type its code.";
    case "choose-stand":
    case "prove":
      return settingOut(gate.target);
    case "turn-to":
      if (gate.why === "first")
        return "The routine begins with the board at its first place: bring it back and set it out there.";
      return gate.why === "back"
        ? `The board belongs at ${gate.target.name} now: set it out there first.`
        : settingOut(gate.target);
  }
}

const settingOut = (target: Target): string =>
  isByHand(target) || target.object.is === "reflector"
    ? `Set out ${target.name} first.`
    : `Set the board out at ${target.name} first.`;
