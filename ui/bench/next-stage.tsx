"use client";

import type { ReactNode } from "react";
import { STAGES, type StageId } from "@/core/job";
import { ButtonLink } from "../primitives/button";
import { useJob } from "./job-store";
import { NextBar } from "./next-bar";

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
  const { stages, head } = useJob();
  const from = STAGES.findIndex((s) => s.id === after);
  const lacking = stages.slice(from + 1).find((s) => s.state !== "settled" && s.state !== "none");
  const next = STAGES.find((s) => s.id === (to ?? lacking?.id ?? "hand-over"))!;
  return (
    <NextBar
      tone={tone}
      say={say}
      detail={
        detail ??
        (to
          ? undefined
          : lacking
            ? `${next.name}: ${lacking.lacks ?? "next"}.`
            : "Everything is settled.")
      }
    >
      {children}
      {next.id !== after && (
        <ButtonLink href={`/jobs/${head.id}/${next.id}`} look="act" size="large">
          {next.n} {next.name}
        </ButtonLink>
      )}
    </NextBar>
  );
}
