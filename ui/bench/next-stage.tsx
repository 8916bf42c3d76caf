"use client";

import type { ReactNode } from "react";
import {
  calibrationStages,
  STAGES,
  viewsOf,
  type CalibrationGround,
  type JobEvent,
  type StageId,
  type StageState,
} from "@/core/job";
import { SYSTEMS } from "@/core/owed";
import { ButtonLink } from "../primitives/button";
import { useJob } from "./job-store";
import { NextBar } from "./next-bar";

/** A stage of a calibration that still lacks something. */
type Lacking = { view: CalibrationGround; state: StageState };

const lacks = (s: StageState): boolean => s.state !== "settled" && s.state !== "none";

/** How late a stage of another calibration comes: all of them learn before any is proved. */
const PROVED = new Set<StageId>(["prove"]);

/**
 * The first thing after a stage that still lacks something: of the job, of the calibration in hand,
 * then of the others in their order; what is proved after the work comes when all of it is done.
 */
function lackingAfter(
  after: StageId,
  stages: readonly StageState[],
  ground: CalibrationGround,
  events: readonly JobEvent[],
): Lacking | undefined {
  const from = STAGES.findIndex((s) => s.id === after);
  const mine = stages
    .slice(from + 1)
    .filter(lacks)
    .map((state): Lacking => ({ view: ground, state }));
  const others = viewsOf(ground)
    .filter((v) => v.calibrationId !== ground.calibrationId)
    .flatMap((view) =>
      calibrationStages(view, events)
        .filter(lacks)
        .map((state): Lacking => ({ view, state })),
    );
  const before = mine.filter((l) => !PROVED.has(l.state.id) && l.state.id !== "hand-over");
  const work = others.filter((l) => !PROVED.has(l.state.id));
  const proofs = [...mine, ...others].filter((l) => PROVED.has(l.state.id));
  return [...before, ...work, ...proofs, ...mine][0];
}

/** The Next bar of a stage that is done: on to the first later stage that still lacks something. */
export function NextStage({
  after,
  say,
  tone = "settled",
  to,
  detail,
  children,
}: {
  after: StageId;
  say: string;
  tone?: "settled" | "loose";
  /** The stage to go to, where it is not simply the next that lacks something. */
  to?: StageId;
  detail?: ReactNode;
  children?: ReactNode;
}) {
  const { stages, head, ground, events, turnTo } = useJob();
  const lacking = lackingAfter(after, stages, ground, events);
  const next = STAGES.find((s) => s.id === (to ?? lacking?.state.id ?? "hand-over"))!;
  const other = !to && lacking?.view.calibrationId !== ground.calibrationId ? lacking?.view : null;
  return (
    <NextBar
      tone={tone}
      say={say}
      detail={
        detail ??
        (to
          ? undefined
          : lacking
            ? `${other ? `${SYSTEMS[other.sheet.appliesTo.system]}, ` : ""}${next.name}: ${lacking.state.lacks ?? "next"}.`
            : "Everything is settled.")
      }
    >
      {children}
      {(next.id !== after || other) && (
        <ButtonLink
          href={`/jobs/${head.id}/${next.id}`}
          look="act"
          size="large"
          onClick={() => other && turnTo(other.calibrationId)}
        >
          {next.n} {next.name}
        </ButtonLink>
      )}
    </NextBar>
  );
}
