"use client";

import { useEffect, useState } from "react";
import { jobClock } from "@/core/job";
import { ReasonDialog } from "../owed/reason-dialog";
import { useJob } from "./job-store";

const hoursAndMinutes = (seconds: number): string =>
  `${Math.floor(seconds / 3600)}:${String(Math.floor((seconds / 60) % 60)).padStart(2, "0")}`;

/** The job's own stopwatch: it runs by itself; stopping it asks why. */
export function Clock() {
  const { ground, events, write, me } = useJob();
  const [now, setNow] = useState<string | null>(null);
  const [asking, setAsking] = useState(false);
  useEffect(() => {
    // The server's clock drew the page; the tablet's own takes over after the first paint.
    const tick = (): void => setNow(new Date().toISOString());
    tick();
    const timer = setInterval(tick, 10_000);
    return () => clearInterval(timer);
  }, []);
  const clock = jobClock(events, now ?? events.at(-1)!.at);
  const over = events.some((e) => e.body.kind === "hand-over");
  const { promisedAt } = ground.intake;
  const left =
    promisedAt && now && !over
      ? Math.floor((Date.parse(promisedAt) - Date.parse(now)) / 60_000)
      : null;
  return (
    <>
      {/* Of another day the hour says nothing yet. */}
      {left !== null && left < 600 && (
        <span
          className={`figure hidden items-center px-2 font-semibold md:flex ${left < 0 ? "text-stop" : left < 20 ? "text-loose" : "text-soft"}`}
        >
          {left < 0 ? `${-left} min over` : `${left} min left`}
        </span>
      )}
      <button
        type="button"
        disabled={over || me.role === "viewer"}
        onClick={() => (clock.paused ? write({ kind: "resume" }) : setAsking(true))}
        title={
          over
            ? "Time on this job"
            : clock.paused
              ? `Stopped: ${clock.pauses.at(-1)!.reason}`
              : "Stop the clock"
        }
        aria-label={`${hoursAndMinutes(clock.workSeconds)} of work. ${over ? "" : clock.paused ? "Stopped; go on" : "Stop the clock"}`}
        className={`figure hidden min-h-12 items-center rounded-md px-2 font-semibold md:flex ${clock.paused ? "border-2 border-dashed border-loose text-loose" : "hover:bg-wash"}`}
      >
        {hoursAndMinutes(clock.workSeconds)}
        {clock.paused && <span className="pl-1.5 font-sans text-sm">stopped</span>}
      </button>
      {asking && (
        <ReasonDialog
          open
          title="Stop the clock"
          note="It goes on by itself with the next thing you do."
          label="Why the work waits; this goes on the report"
          action="Stop the clock"
          onClose={() => setAsking(false)}
          onReason={(reason) => {
            write({ kind: "pause", reason });
            setAsking(false);
          }}
        />
      )}
    </>
  );
}
