import { SYSTEMS } from "@/core/owed";
import { targetsOf } from "@/core/sheet";
import { isAboutVehicle } from "./board-sides";
import { lastAnswer, refusalCauses } from "./causes";
import { jobClock } from "./clock";
import { aimForetold } from "./foretold";
import { viewsOf, type CalibrationGround, type JobGround } from "./ground";
import { eventsOf, lastOf, strikes, type JobEvent } from "./job";
import { judgeTarget } from "./set-out";
import { calibrationLog, runOf, standingAt } from "./standing";
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
  /**
   * By instrument, how far its readings that count lie beside what all of them agree on: the sum of
   * their standardised residuals over the root of their number, 0 and 1 while all is in order.
   */
  residuals: Record<string, number>;
  instruments: string[];
  boards: string[];
  people: string[];
  /** Minutes of work by stage; on the job's first calibration only, so that none counts twice. */
  minutes: Partial<Record<StageId, number>>;
  /** Reasons for what was declined; likewise. */
  declined: string[];
};

/** Of the readings of every target as the vehicle looked at it. */
function residualsOf(
  view: CalibrationGround,
  events: readonly JobEvent[],
): CalibrationNumbers["residuals"] {
  const looked = lastAnswer(view, events)?.seq ?? Infinity;
  const then = events.filter((e) => e.seq <= looked || e.body.kind === "strike");
  const by = new Map(eventsOf(events, "reading").map((e) => [e.id, e.body.instrumentId]));
  const sums = new Map<string, { w: number; n: number }>();
  for (const { id } of targetsOf(view.sheet).filter(isAboutVehicle)) {
    if (!standingAt(view, then, id)?.settled) continue;
    for (const r of judgeTarget(view, then, id).solution.readings) {
      const instrument = by.get(r.id);
      const w = r.state === "counts" ? (r.result?.w ?? null) : null;
      if (instrument === undefined || w === null) continue;
      const sum = sums.get(instrument) ?? { w: 0, n: 0 };
      sums.set(instrument, { w: sum.w + w, n: sum.n + 1 });
    }
  }
  return Object.fromEntries(
    [...sums].map(([id, { w, n }]) => [id, Math.round((1000 * w) / Math.sqrt(n)) / 1000]),
  );
}

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
      residuals: residualsOf(view, events),
      instruments: unique(eventsOf(log, "reading").map((e) => e.body.instrumentId)),
      boards: unique(eventsOf(log, "board").map((e) => e.body.code)),
      people: unique(events.map((e) => e.by.name)),
      minutes: n === 0 ? minutes : {},
      declined: n === 0 ? declined : [],
    };
  });
}
