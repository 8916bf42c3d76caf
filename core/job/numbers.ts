import { SYSTEMS } from "@/core/owed";
import { refusalCauses } from "./causes";
import { jobClock } from "./clock";
import { aimForetold } from "./foretold";
import { viewsOf, type JobGround } from "./ground";
import { eventsOf, lastOf, strikes, type JobEvent } from "./job";
import { calibrationLog, runOf } from "./standing";
import type { StageId } from "./stage-list";

/** What one calibration of a handed-over job adds to the shop's numbers. */
export type CalibrationNumbers = {
  calibrationId: string;
  system: string;
  sheet: string;
  model: string;
  stand: string;
  fitter: string;
  school: string;
  attempts: number;
  passed: boolean;
  /** The likeliest cause of each refusal, by its id; "unranked" where none could be ranked. */
  causes: string[];
  /** Learned less foretold yaw, degrees, and how well that was foretold; null where it was not. */
  yaw: { off: number; sigma: number } | null;
  instruments: string[];
  boards: string[];
  people: string[];
  /** Minutes of work by stage; on the job's first calibration only, so that none counts twice. */
  minutes: Partial<Record<StageId, number>>;
  /** Reasons for what was declined; likewise. */
  declined: string[];
};

const unique = (list: readonly string[]): string[] => [...new Set(list)].sort();

/** @param now ISO time its clock is read at */
export function numbersOf(
  ground: JobGround,
  events: readonly JobEvent[],
  now: string,
): CalibrationNumbers[] {
  const clock = jobClock(events, now);
  const struck = strikes(events);
  const declined = eventsOf(events, "owed-decline")
    .filter((e) => !struck.has(e.id))
    .map((e) => e.body.reason);
  const minutes = Object.fromEntries(
    Object.entries(clock.stages).map(([stage, s]) => [stage, Math.round(s / 6) / 10]),
  );
  const fitter = lastOf(events, "glass")?.body.fitter ?? "";
  return viewsOf(ground).map((view, n) => {
    const log = calibrationLog(view, events);
    const { state } = runOf(view, events);
    const refused = eventsOf(log, "run").filter(
      (e) => e.body.event.type === "routine-result" && !e.body.event.result.passed,
    );
    const yaw = aimForetold(view, events)?.axes.find((a) => a.axis === "yaw");
    const { vehicle, sheet } = view;
    return {
      calibrationId: view.calibrationId,
      system: SYSTEMS[sheet.appliesTo.system],
      sheet: `${sheet.id} v${sheet.version}`,
      model: `${vehicle.make} ${vehicle.model}`,
      stand: view.stand.id,
      fitter,
      school: eventsOf(log, "school").at(-1)?.body.school ?? "",
      attempts: state.attempt,
      passed: state.status === "passed",
      causes: refused.map(
        (e) =>
          refusalCauses(
            view,
            events.filter((x) => x.seq <= e.seq || x.body.kind === "strike"),
          )?.[0]?.cause ?? "unranked",
      ),
      yaw: yaw ? { off: yaw.learnedDeg - yaw.meanDeg, sigma: yaw.sigmaDeg } : null,
      instruments: unique(eventsOf(log, "reading").map((e) => e.body.instrumentId)),
      boards: unique(eventsOf(log, "board").map((e) => e.body.code)),
      people: unique(events.map((e) => e.by.name)),
      minutes: n === 0 ? minutes : {},
      declined: n === 0 ? declined : [],
    };
  });
}
