import { happeningName } from "@/core/owed";
import { eventsOf, type JobEvent } from "./job";
import { isByHand } from "@/core/setout";
import { viewOf, viewsOf, type JobGround } from "./ground";
import { heldBy } from "./held";
import { judgeTarget } from "./set-out";
import { allProved, targetInHand } from "./standing";
import { jobState, stageStates, type JobState, type StageState } from "./stages";

/** A job as the list shows it. */
export type JobTicket = {
  id: string;
  number: number;
  vehicle: string;
  vin: string;
  plate: string;
  customer: string;
  order: string;
  done: string;
  sheet: string;
  state: JobState;
  stages: StageState[];
  /** What the first unsettled stage lacks, in words. */
  lacks: { stage: StageState["id"]; words: string } | null;
  takenInAt: string;
  /** When the customer was told it would be done, or null. */
  promisedAt: string | null;
  last: { at: string; name: string };
  /** Who has it open now. */
  on: { name: string; initials: string }[];
};

/**
 * How the set-out stands, in a few words; it costs one solution, so it is asked only of jobs that
 * are there.
 */
function setOutWords(ground: JobGround, events: readonly JobEvent[]): string {
  const view = viewsOf(ground).find((v) => !allProved(v, events)) ?? viewOf(ground, null);
  const target = targetInHand(view, events);
  const { verdict, next, solution } = judgeTarget(view, events, target.id);
  if (verdict.why === "suspect") return "A reading does not fit";
  if (next.kind === "move")
    return isByHand(target) ? `${target.name} has to be drawn` : "The board has to be moved";
  if (next.kind === "finish") return "Nearly in place: the stand is to be finished";
  if (next.kind === "settle") return "In place, not yet printed";
  const read = solution.readings.filter((r) => r.state === "counts").length;
  return `${read} reading${read === 1 ? "" : "s"} so far`;
}

/** The ticket of a job from its log. @param events at least the taken-in event, in order */
export function ticketOf(
  job: { id: string; number: number },
  ground: JobGround,
  events: readonly JobEvent[],
  on: JobTicket["on"],
): JobTicket {
  const { intake, vehicle } = ground;
  const stages = stageStates(events, ground);
  const open =
    stages.find((s) => s.state === "stop") ??
    stages.find((s) => s.lacks !== null && s.state !== "none");
  const last = events.at(-1)!;
  const state = jobState(stages);
  // What somebody holds back does not go, whatever else is done.
  const held = state === "handed-over" ? null : heldBy(events);
  return {
    id: job.id,
    number: job.number,
    vehicle: `${vehicle.make} ${vehicle.model}`,
    vin: intake.vin,
    plate: intake.plate,
    customer: intake.customer,
    order: intake.order,
    done: intake.happenings.map(happeningName).join(", "),
    sheet: ground.calibrations.map((c) => c.sheet.title).join(", "),
    state: held ? "blocked" : state,
    stages,
    lacks: held
      ? { stage: "hand-over", words: `Held back: ${held.body.reason}` }
      : open?.lacks
        ? {
            stage: open.id,
            words:
              open.id === "set-out" && open.state === "loose"
                ? setOutWords(ground, events)
                : open.lacks,
          }
        : null,
    takenInAt: eventsOf(events, "taken-in")[0]!.at,
    promisedAt: intake.promisedAt ?? null,
    last: { at: last.at, name: last.by.name },
    on,
  };
}
