"use client";

import { lastOf } from "@/core/job";
import { Stage } from "../bench/bench";
import { useJob } from "../bench/job-store";
import { NextStage } from "../bench/next-stage";
import { Paper } from "../primitives/paper";

/**
 * Says whether the sheet asks for a drive; the drive itself is not guided yet, and the record says
 * so.
 */
export function Drive() {
  const { ground, events } = useJob();
  const consent = lastOf(events, "consent");
  const asked = ground.sheet.method !== "static";
  return (
    <Stage
      title="Drive"
      next={
        <NextStage
          after="drive"
          say={asked ? "The drive stays open on the record." : "No drive is asked for."}
        />
      }
    >
      <Paper title={asked ? "A drive is owed after the static part" : "No drive owed"}>
        <p className="max-w-[60ch] text-xl leading-snug">
          {asked
            ? "Iridel does not guide the drive yet. Do it by the maker’s instructions: one person drives, another watches the tool. The record lists it as still open, so that nobody takes it for done."
            : `The sheet “${ground.sheet.title}” is static only.`}
        </p>
        {asked && (
          <p className={`mt-4 text-lg ${consent ? "text-settled" : "font-semibold text-loose"}`}>
            {consent
              ? `${consent.body.name} has signed for the drive.`
              : "Nobody has signed for a drive yet: the field for it is on Take in."}
          </p>
        )}
      </Paper>
    </Stage>
  );
}
