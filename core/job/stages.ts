import { isByHand } from "@/core/setout";
import { targetsOf } from "@/core/sheet";
import type { StageId } from "./stage-list";
import { itemSettled } from "./item";
import { itemsOf } from "./items";
import { standingDrive } from "./standing-drive";
import { orderProblem } from "@/core/owed";
import { owedLines } from "./owed";
import { viewOf, viewsOf, type CalibrationGround, type JobGround } from "./ground";
import { checksOf, eventsOf, standingHandOver, type JobEvent } from "./job";
import { allProved, calibrationLog, runOf, standingAt } from "./standing";

/**
 * settled: done. loose: begun or wanted. open: not begun. stop: something refuses. none: this job
 * does not ask for it.
 */
export type StageState = {
  id: StageId;
  state: "settled" | "loose" | "open" | "stop" | "none";
  lacks: string | null;
};

/** Where the items of a checklist stand. */
function checksState(
  g: CalibrationGround,
  events: readonly JobEvent[],
  stage: "ready" | "prove",
): StageState {
  const own = calibrationLog(g, events);
  const items = itemsOf(g, stage);
  const done = checksOf(own, stage);
  const left = items.filter((i) => !itemSettled(g, own, stage, i)).length;
  const blocked = items.find((i) => done.get(i.id)?.body.outcome === "blocks");
  if (blocked) return { id: stage, state: "stop", lacks: `Blocked: ${blocked.ask}` };
  const state = left === 0 ? "settled" : left < items.length ? "loose" : "open";
  return {
    id: stage,
    state,
    lacks: left === 0 ? null : `${left} of ${items.length} still to check`,
  };
}

function setOutState(g: CalibrationGround, events: readonly JobEvent[]): StageState {
  const targets = targetsOf(g.sheet);
  if (targets.length === 0)
    return { id: "set-out", state: "none", lacks: "The sheet sets nothing out" };
  if (allProved(g, events)) return { id: "set-out", state: "settled", lacks: null };
  if (drivenInstead(g, events))
    return { id: "set-out", state: "none", lacks: "It was learned on the road instead" };
  const own = calibrationLog(g, events);
  const begun = eventsOf(own, "reading").some((e) => e.body.calibrationId === g.calibrationId);
  const wasSettled = eventsOf(own, "settled").length > 0;
  const left = targets.filter((t) => !standingAt(g, events, t.id)?.settled);
  return {
    id: "set-out",
    state: begun ? "loose" : "open",
    lacks: isByHand(targets[0]!)
      ? `Not proved in place: ${left.map((t) => t.name).join(", ")}`
      : wasSettled
        ? "Disturbed since it was settled"
        : "Board not proved in place",
  };
}

/** Whether what may be done in the bay was learned on the road instead. */
const drivenInstead = (g: CalibrationGround, events: readonly JobEvent[]): boolean =>
  g.sheet.method === "static-or-dynamic" && standingDrive(g, events) !== null;

function runState(g: CalibrationGround, events: readonly JobEvent[]): StageState {
  const { state: run } = runOf(g, events);
  if (run.status === "passed") return { id: "run", state: "settled", lacks: null };
  if (drivenInstead(g, events))
    return { id: "run", state: "none", lacks: "It was learned on the road instead" };
  if (run.status === "failed")
    return { id: "run", state: "stop", lacks: run.message ?? "The vehicle refused" };
  const state = run.status === "not-started" ? "open" : "loose";
  return { id: "run", state, lacks: "Routine not passed" };
}

const DRIVES: string[] = ["drive-leave", "drive-part", "drive-end"];

function driveState(g: CalibrationGround, events: readonly JobEvent[]): StageState {
  const { method } = g.sheet;
  if (method === "static")
    return { id: "drive", state: "none", lacks: "The sheet asks for no drive" };
  if (standingDrive(g, events)) return { id: "drive", state: "settled", lacks: null };
  if (method === "static-or-dynamic" && runOf(g, events).state.status === "passed")
    return { id: "drive", state: "none", lacks: "It has passed in the bay" };
  const own = calibrationLog(g, events);
  const begun = own.some((e) => DRIVES.includes(e.body.kind));
  return {
    id: "drive",
    state: begun ? "loose" : "open",
    lacks: begun
      ? "The vehicle has not learned on a drive yet"
      : method === "dynamic"
        ? "The sheet is learned on a drive"
        : method === "static-or-dynamic"
          ? "It may be learned on a drive instead"
          : "The sheet asks for a drive after the static part",
  };
}

/** Where one calibration stands: the stages that are its own. */
export const calibrationStages = (
  g: CalibrationGround,
  events: readonly JobEvent[],
): StageState[] => [
  setOutState(g, events),
  runState(g, events),
  driveState(g, events),
  checksState(g, events, "prove"),
];

/** One word for a calibration on the strip: done when nothing of its own is left but the check. */
export type CalibrationState = "done" | "refused" | "begun" | "open";

/** How far a calibration is, from its own stages. */
export function calibrationState(stages: readonly StageState[]): CalibrationState {
  const of = (id: StageId) => stages.find((s) => s.id === id)!.state;
  if (of("run") === "stop") return "refused";
  const over = (id: StageId): boolean => ["settled", "none"].includes(of(id));
  if (over("run") && over("drive")) return "done";
  return stages.some((s) => s.state === "loose" || s.state === "settled") ? "begun" : "open";
}

/** Most pressing first: of several calibrations the stage shows what stops, then what is begun. */
const PRESSING: readonly StageState["state"][] = ["stop", "loose", "open", "settled", "none"];

/** One stage of all calibrations: settled where all are; otherwise the one that presses most. */
function together(views: readonly CalibrationGround[], all: readonly StageState[][]): StageState[] {
  if (views.length === 1) return all[0]!;
  return all[0]!.map(({ id }, i): StageState => {
    const states = all.map((s) => s[i]!);
    const worst = PRESSING.find((p) => states.some((s) => s.state === p))!;
    const at = states.findIndex((s) => s.state === worst);
    // One that is done and one that is not begun are together one that is begun.
    const state = worst === "open" && states.some((s) => s.state === "settled") ? "loose" : worst;
    const { lacks } = states[at]!;
    const name = views[at]!.sheet.title;
    return { id, state, lacks: lacks && state !== "none" ? `${name}: ${lacks}` : lacks };
  });
}

/**
 * Where a job stands, stage by stage, and what each still lacks.
 *
 * @param inHand the calibration whose own stages are meant; all of them together where none is named
 */
export function stageStates(
  events: readonly JobEvent[],
  ground: JobGround,
  inHand: string | null = null,
): StageState[] {
  const views = inHand === null ? viewsOf(ground) : [viewOf(ground, inHand)];
  const own = together(
    views,
    views.map((v) => calibrationStages(v, events)),
  );
  const handed = standingHandOver(events) !== null;
  return [
    { id: "take-in", state: "settled", lacks: null },
    owedState(ground, events),
    checksState(views[0]!, events, "ready"),
    ...own,
    {
      id: "hand-over",
      state: handed ? "settled" : "open",
      lacks: handed ? null : "Not handed over",
    },
  ];
}

/** Owed is settled when every line is on this job's sheet, declined, or said to be done. */
function owedState(ground: JobGround, events: readonly JobEvent[]): StageState {
  const lines = owedLines(ground, events);
  const problem = orderProblem(
    lines.filter((l) => !l.declined),
    ground.ruleBook.orders,
  );
  if (problem) return { id: "owed", state: "stop", lacks: problem.message };
  const open = lines.filter((l) => !l.onSheet && !l.declined && !l.done).length;
  return open === 0
    ? { id: "owed", state: "settled", lacks: null }
    : { id: "owed", state: "loose", lacks: `${open} more owed, not on this job’s sheet` };
}

/** One word for the jobs list. */
export const JOB_STATES = [
  "in-work",
  "refused",
  "blocked",
  "ready-to-hand-over",
  "handed-over",
] as const;
export type JobState = (typeof JOB_STATES)[number];

export function jobState(states: readonly StageState[]): JobState {
  const of = (id: StageId) => states.find((s) => s.id === id)!.state;
  if (of("hand-over") === "settled") return "handed-over";
  if (of("run") === "stop") return "refused";
  if (of("ready") === "stop") return "blocked";
  if (states.every((s) => s.id === "hand-over" || s.state === "settled" || s.state === "none"))
    return "ready-to-hand-over";
  return "in-work";
}
