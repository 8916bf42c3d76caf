import { replayRun } from "@/core/run";
import type { Sheet } from "@/core/sheet";
import { itemSettled } from "./item";
import { itemsOf } from "./items";
import { jobOwed } from "./owed";
import type { JobGround } from "./ground";
import { checksOf, eventsOf, runLogOf, standingHandOver, type JobEvent } from "./job";
import { allProved } from "./standing";

export const STAGES = [
  { n: 1, id: "take-in", name: "Take in" },
  { n: 2, id: "owed", name: "Owed" },
  { n: 3, id: "ready", name: "Ready" },
  { n: 4, id: "set-out", name: "Set out" },
  { n: 5, id: "run", name: "Run" },
  { n: 6, id: "drive", name: "Drive" },
  { n: 7, id: "prove", name: "Prove" },
  { n: 8, id: "hand-over", name: "Hand over" },
] as const;

export type StageId = (typeof STAGES)[number]["id"];

/**
 * settled: done. loose: begun or wanted. open: not begun. stop: something refuses. none: this job
 * does not ask for it.
 */
export type StageState = {
  id: StageId;
  state: "settled" | "loose" | "open" | "stop" | "none";
  lacks: string | null;
};

/** Where a job stands, stage by stage, and what each still lacks. */
export function stageStates(events: readonly JobEvent[], ground: JobGround): StageState[] {
  const { sheet } = ground;
  const checks = (stage: "ready" | "prove", items: Sheet["ready"]): StageState => {
    const done = checksOf(events, stage);
    const left = items.filter((i) => !itemSettled(ground, events, stage, i)).length;
    const blocked = items.find((i) => done.get(i.id)?.body.outcome === "blocks");
    if (blocked) return { id: stage, state: "stop", lacks: `Blocked: ${blocked.ask}` };
    const state = left === 0 ? "settled" : left < items.length ? "loose" : "open";
    return {
      id: stage,
      state,
      lacks: left === 0 ? null : `${left} of ${items.length} still to check`,
    };
  };

  const settled = allProved(ground, events);
  const begun = eventsOf(events, "reading").length > 0;
  const wasSettled = eventsOf(events, "settled").length > 0;
  const setOut: StageState = settled
    ? { id: "set-out", state: "settled", lacks: null }
    : {
        id: "set-out",
        state: begun ? "loose" : "open",
        lacks: wasSettled ? "Disturbed since it was settled" : "Board not proved in place",
      };

  const run = replayRun(runLogOf(events), sheet.run);
  const runStage: StageState =
    run.status === "passed"
      ? { id: "run", state: "settled", lacks: null }
      : run.status === "failed"
        ? { id: "run", state: "stop", lacks: run.message ?? "The vehicle refused" }
        : {
            id: "run",
            state: run.status === "not-started" ? "open" : "loose",
            lacks: "Routine not passed",
          };

  const drive: StageState =
    sheet.method === "static"
      ? { id: "drive", state: "none", lacks: "The sheet asks for no drive" }
      : { id: "drive", state: "open", lacks: "The sheet asks for a drive after the static part" };
  const handed = standingHandOver(events) !== null;
  return [
    { id: "take-in", state: "settled", lacks: null },
    owedState(ground, events),
    checks("ready", itemsOf(ground, "ready")),
    setOut,
    runStage,
    drive,
    checks("prove", itemsOf(ground, "prove")),
    {
      id: "hand-over",
      state: handed ? "settled" : "open",
      lacks: handed ? null : "Not handed over",
    },
  ];
}

/** Owed is settled when every line is on this job's sheet, declined, or said to be done. */
function owedState(ground: JobGround, events: readonly JobEvent[]): StageState {
  const { lines, problem } = jobOwed(ground, events);
  if (problem) return { id: "owed", state: "stop", lacks: problem };
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
