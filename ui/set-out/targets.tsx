"use client";

import { standAt, standingAt, standingNow } from "@/core/job";
import { targetsOf } from "@/core/sheet";
import { useJob } from "../bench/job-store";
import { useTogether } from "./together";
import { Mark, type MarkState } from "../primitives/marks";

/** Which target is set out, where a sheet has several; those that lie there together by tap. */
export function Targets() {
  const { ground, events, target, turnTo } = useJob();
  const together = useTogether();
  const targets = targetsOf(ground.sheet);
  if (!target || targets.length < 2) return null;
  if (together.length > 1)
    return (
      <nav
        aria-label="Targets"
        className="flex items-center gap-1 overflow-x-auto border-b border-hairline bg-sheet px-2"
      >
        {together.map((t) => {
          const standing = standingAt(ground, events, t.id);
          const state: MarkState = standing?.settled
            ? "settled"
            : standing?.begun
              ? "loose"
              : "open";
          const here = t.id === target.id;
          return (
            <button
              key={t.id}
              type="button"
              aria-current={here ? "true" : undefined}
              onClick={() => turnTo(ground.calibrationId, t.id)}
              className={`flex min-h-12 shrink-0 items-center gap-2 rounded-md px-3 text-lg whitespace-nowrap ${here ? "font-semibold" : "text-soft hover:bg-wash"}`}
            >
              <Mark state={state} size={12} />
              {t.name}
            </button>
          );
        })}
        <kbd className="figure ml-auto hidden pr-1 text-xs text-soft md:inline">X</kbd>
      </nav>
    );
  const beside = standingNow(ground, events, target.id).filter((s) => s.target.id !== target.id);
  return (
    <p className="border-b border-hairline bg-sheet px-3 py-1.5 text-base">
      <span className="text-soft">
        Place {targets.indexOf(target) + 1} of {targets.length}:
      </span>{" "}
      <b className="font-semibold">{target.name}</b>
      {beside.length > 0 && (
        <span className="text-soft">
          , on {standAt(ground, events, target.id).id};{" "}
          {beside
            .map((b) => `${b.target.name} stays on ${b.standId}${b.settled ? "" : ", in doubt"}`)
            .join("; ")}
        </span>
      )}
    </p>
  );
}
