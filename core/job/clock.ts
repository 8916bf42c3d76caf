import { standingHandOver, type EventBody, type JobEvent } from "./job";
import type { StageId } from "./stage-list";

/** The stopwatch of a job, read off its log: nobody has to start it. */
export type JobClock = {
  /** Working seconds by stage. */
  stages: Partial<Record<StageId, number>>;
  workSeconds: number;
  /** Times the technician stopped the clock, with the reason; `to` is null while it is stopped. */
  pauses: { from: string; to: string | null; reason: string; seconds: number }[];
  /** Seconds in which nobody wrote for so long that nobody can have been at work. */
  awaySeconds: number;
  paused: boolean;
};

/** A gap longer than this, without a pause, is not counted as work. */
const AWAY_AFTER_S = 3600;

const STAGE_OF: Record<EventBody["kind"], StageId | null> = {
  "taken-in": "take-in",
  glass: "take-in",
  walk: "take-in",
  photo: null,
  "code-word": "prove",
  "road-check": "prove",
  "lamps-now": "prove",
  parked: null,
  "drive-leave": "drive",
  "drive-part": "drive",
  "drive-end": "drive",
  hold: null,
  "hold-lifted": null,
  "sign-off": null,
  "second-look": null,
  instrument: "set-out",
  kept: "set-out",
  consent: "take-in",
  "owed-decline": "owed",
  "owed-done": "owed",
  "owed-add": "owed",
  measured: "ready",
  "put-right": "ready",
  check: null,
  scan: null,
  reading: "set-out",
  move: "set-out",
  touch: "set-out",
  school: "set-out",
  board: "run",
  position: "run",
  "rear-toe": "set-out",
  settled: "set-out",
  strike: null,
  bump: null,
  run: "run",
  "hand-over": "hand-over",
  reopen: "hand-over",
  document: "hand-over",
  pause: null,
  resume: null,
};

/**
 * Time by stage: what passed before an event went into the stage that the event belongs to. An
 * event without a stage of its own (a strike, a scan) belongs to the stage before it.
 *
 * @param events the log, in order
 * @param now ISO time up to which a job still in work counts; ignored once it is handed over
 */
export function jobClock(events: readonly JobEvent[], now: string): JobClock {
  const clock: JobClock = { stages: {}, workSeconds: 0, pauses: [], awaySeconds: 0, paused: false };
  let at = Date.parse(events[0]?.at ?? now);
  let stage: StageId = "take-in";
  const spend = (until: number): void => {
    const seconds = Math.max(0, (until - at) / 1000);
    at = Math.max(at, until);
    const open = clock.pauses.at(-1);
    if (clock.paused && open) open.seconds += seconds;
    else if (seconds > AWAY_AFTER_S) clock.awaySeconds += seconds;
    else {
      clock.stages[stage] = (clock.stages[stage] ?? 0) + seconds;
      clock.workSeconds += seconds;
    }
  };
  for (const e of events) {
    const b = e.body;
    stage = ("stage" in b ? b.stage : undefined) ?? STAGE_OF[b.kind] ?? stage;
    spend(Date.parse(e.at));
    if (b.kind === "pause" && !clock.paused) {
      clock.pauses.push({ from: e.at, to: null, reason: b.reason, seconds: 0 });
      clock.paused = true;
    } else if (clock.paused && b.kind !== "pause") {
      // Any work starts the clock again: nobody has to remember to.
      clock.pauses.at(-1)!.to = e.at;
      clock.paused = false;
    }
  }
  if (!standingHandOver(events)) spend(Date.parse(now));
  return clock;
}
