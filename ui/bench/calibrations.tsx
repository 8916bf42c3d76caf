"use client";

import {
  calibrationStages,
  calibrationState,
  standingNow,
  viewsOf,
  type CalibrationState,
} from "@/core/job";
import { SYSTEMS } from "@/core/owed";
import { isByHand } from "@/core/setout";
import { targetsOf } from "@/core/sheet";
import { Mark, type MarkState } from "../primitives/marks";
import { useJob } from "./job-store";

const MARKS: Record<CalibrationState, MarkState> = {
  done: "settled",
  refused: "stop",
  begun: "loose",
  open: "open",
};

/**
 * The job's calibrations in order, over the stages that are each one's own: which is in hand, how far
 * each is, and what may stay on the floor meanwhile.
 */
export function Calibrations() {
  const { ground, events, turnTo } = useJob();
  const views = viewsOf(ground);
  if (views.length < 2) return null;
  return (
    <nav
      aria-label="Calibrations"
      className="flex shrink-0 items-stretch gap-1 overflow-x-auto border-b border-hairline px-2"
    >
      {views.map((view, i) => {
        const mark = MARKS[calibrationState(calibrationStages(view, events))];
        const here = view.calibrationId === ground.calibrationId;
        const name = SYSTEMS[view.sheet.appliesTo.system];
        return (
          <button
            key={view.calibrationId}
            type="button"
            aria-current={here ? "true" : undefined}
            title={view.sheet.title}
            onClick={() => turnTo(view.calibrationId)}
            className={`flex min-h-12 shrink-0 items-center gap-2 border-b-4 px-1.5 pt-1 text-sm md:px-3 md:text-base ${here ? "border-act font-semibold" : "border-transparent text-soft hover:bg-wash"}`}
          >
            <span className="figure">{i + 1}</span>
            <Mark state={mark} size={12} />
            {name}
          </button>
        );
      })}
      <span className="ml-auto hidden items-center gap-3 whitespace-nowrap pl-3 text-sm text-soft md:flex">
        {stays(ground, events)}
        <kbd className="figure text-xs">K</kbd>
      </span>
    </nav>
  );
}

/** What of the other calibrations stands or lies there and need not be taken away. */
function stays(
  ground: ReturnType<typeof useJob>["ground"],
  events: ReturnType<typeof useJob>["events"],
): string {
  const others = viewsOf(ground).filter(
    (v) => v.calibrationId !== ground.calibrationId && targetsOf(v.sheet).length > 0,
  );
  return others
    .flatMap((v) => {
      const standing = standingNow(v, events, targetsOf(v.sheet)[0]!.id).filter((s) => s.begun);
      if (standing.length === 0) return [];
      return isByHand(standing[0]!.target)
        ? [standing[0]!.target.kind === "mark" ? "The floor marks may stay." : "The mats may stay."]
        : [`${standing[0]!.standId} may stay while nothing else needs it.`];
    })
    .join(" ");
}
