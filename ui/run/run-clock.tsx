"use client";

import { useRouter } from "next/navigation";
import { runOf } from "@/core/job";
import { placeName } from "@/core/sheet";
import { useJob } from "../bench/job-store";
import { useCommand } from "../bench/use-command";
import { Button } from "../primitives/button";
import { secondsLeft, useLeft } from "./left";
import type { RunCommand } from "./use-run";

/** The vehicle's own clock, on whatever stage somebody is: read from two metres. */
export function RunClock({ onRun }: { onRun: boolean }) {
  const { ground, events } = useJob();
  const { state, step } = runOf(ground, events);
  if (!state.clockUntil || step?.kind !== "position") return null;
  return (
    <Running
      key={state.clockUntil}
      until={state.clockUntil}
      stepId={step.id}
      place={placeName(ground.sheet, step.to)}
      within={step.withinSeconds ?? 60}
      onRun={onRun}
    />
  );
}

function Running({
  until,
  stepId,
  place,
  within,
  onRun,
}: {
  until: string;
  stepId: string;
  place: string;
  within: number;
  onRun: boolean;
}) {
  const { head, ground, me } = useJob();
  const router = useRouter();
  const { command } = useCommand<RunCommand>("run");
  const left = useLeft(until, () =>
    me.role === "viewer"
      ? Promise.resolve(true)
      : command({ type: "clock-over", step: stepId, calibrationId: ground.calibrationId }, true),
  );
  const late = left < 30_000;
  return (
    <section
      aria-label="The vehicle waits"
      className={`flex items-center gap-4 border-t-4 bg-sheet px-4 py-1 ${late ? "border-stop" : "border-act"}`}
    >
      <p className="flex-1 text-lg">The vehicle waits for the board at {place}.</p>
      <svg
        viewBox="0 0 100 4"
        preserveAspectRatio="none"
        className="hidden h-2 w-40 md:block"
        aria-hidden
      >
        <rect width={100} height={4} fill="var(--wash)" />
        <rect
          width={Math.max(0, Math.min(100, left / within / 10))}
          height={4}
          fill={late ? "var(--stop)" : "var(--act)"}
        />
      </svg>
      <p
        role="timer"
        className={`figure text-5xl font-semibold leading-none tracking-tighter ${late ? "text-stop" : ""}`}
      >
        {secondsLeft(left)}
      </p>
      {!onRun && (
        <Button look="quiet" onClick={() => router.push(`/jobs/${head.id}/run`)}>
          5 Run
        </Button>
      )}
    </section>
  );
}
