"use client";

import { useState } from "react";
import { lastOf, LAMPS, type LampId } from "@/core/job";
import { dashNow } from "@/core/job/road-check";
import { dashWords } from "@/core/job/road-words";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { Answers, FineAnswer } from "../checks/answers";
import { CheckFrame, type CheckPanel } from "../checks/check-frame";
import { Button } from "../primitives/button";

/** The lamps of the dash after the work, against those that were lit when the vehicle came in. */
export function DashCheck({ item, onArm, onNext }: CheckPanel) {
  const { events, me, write } = useJob();
  const before = lastOf(events, "walk")?.body.lamps ?? [];
  const dash = dashNow(events);
  const [lit, setLit] = useState<readonly LampId[]>(dash?.now ?? []);
  const kept =
    dash !== null && dash.now.length === lit.length && dash.now.every((l) => lit.includes(l));
  /** What was dark before and stays dark answers the item: that needs no tap of its own. */
  const keep = (): void => {
    const asBefore = lit.every((l) => before.includes(l));
    write(
      { kind: "lamps-now", lamps: [...lit] },
      ...(asBefore
        ? ([
            { kind: "check", stage: "prove", itemId: item.id, outcome: "fine", reason: null },
          ] as const)
        : []),
    );
    if (asBefore) onNext();
  };
  const writes = me.role !== "viewer";
  return (
    <CheckFrame
      stage="prove"
      currentId={item.id}
      onArm={onArm}
      panel={
        <section aria-label="Lamps" className="bg-sheet p-4">
          <p className="text-base text-soft">
            Engine running, doors shut: tap every lamp that is lit.
          </p>
          <div className="mt-2 flex flex-wrap gap-2">
            {(Object.keys(LAMPS) as LampId[]).map((l) => (
              <button
                key={l}
                type="button"
                aria-pressed={lit.includes(l)}
                disabled={!writes}
                onClick={() => setLit(lit.includes(l) ? lit.filter((x) => x !== l) : [...lit, l])}
                className={`min-h-14 rounded-md border-2 px-4 text-base font-semibold ${lit.includes(l) ? "border-loose bg-wash" : "border-hairline"}`}
              >
                {LAMPS[l]}
                {before.includes(l) && (
                  <span className="block text-sm font-normal text-soft">lit when it came in</span>
                )}
              </button>
            ))}
          </div>
        </section>
      }
      next={
        <NextBar
          tone={dash && dash.came.length > 0 ? "loose" : "act"}
          say={kept && dash ? `Dash: ${dashWords(dash)}.` : item.ask}
          detail={item.why}
        >
          {writes && (
            <Answers stage="prove" itemId={item.id} ask={item.ask} onAnswered={onNext}>
              {!kept ? (
                <Button look="act" size="large" onClick={keep}>
                  {lit.length === 0 ? "No lamp is lit" : `${lit.length} lit`}
                </Button>
              ) : (
                <FineAnswer
                  stage="prove"
                  itemId={item.id}
                  disabled={dash!.came.length > 0}
                  onAnswered={onNext}
                />
              )}
            </Answers>
          )}
        </NextBar>
      }
    />
  );
}
