"use client";

import { useState } from "react";
import { checksOf, STAGES } from "@/core/job";
import { clockTime } from "@/core/units";
import { Stage } from "../bench/bench";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { NextStage } from "../bench/next-stage";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";
import { Mark } from "../primitives/marks";

const OUTCOMES = { fine: "Fine", fixed: "Fixed now", accepted: "Accepted" } as const;
type Outcome = keyof typeof OUTCOMES;

/** Ready and Prove: what the sheet asks to be checked, each with its reason and one answer. */
export function Checks({ stage }: { stage: "ready" | "prove" }) {
  const { ground, events, write, me } = useJob();
  const [armed, setArmed] = useState<string | null>(null);
  const [accepting, setAccepting] = useState<string | null>(null);
  const [reason, setReason] = useState("");
  const items = ground.sheet[stage];
  const done = checksOf(events, stage);
  const viewer = me.role === "viewer";
  const left = items.filter((i) => !done.has(i.id));
  const current = items.find((i) => i.id === armed) ?? left[0];
  const name = STAGES.find((s) => s.id === stage)!.name;

  const answer = (itemId: string, outcome: Outcome, why: string | null): void => {
    write({ kind: "check", stage, itemId, outcome, reason: why });
    setArmed(null);
    setAccepting(null);
    setReason("");
  };

  const next = current ? (
    <NextBar
      say={current.ask}
      detail={current.why}
      caution={
        stage === "ready"
          ? ground.sheet.cautions[0]
          : "Test assistance functions only where no one else is put at risk."
      }
    >
      {!viewer && (
        <>
          <Button look="quiet" size="large" onClick={() => setAccepting(current.id)}>
            Accept as it is
          </Button>
          <Button look="plain" size="large" onClick={() => answer(current.id, "fixed", null)}>
            Fixed now
          </Button>
          <Button look="act" size="large" className="min-w-36" onClick={() => answer(current.id, "fine", null)}>
            Fine
          </Button>
        </>
      )}
    </NextBar>
  ) : (
    <NextStage after={stage} say={`${name}: all ${items.length} checked.`} />
  );

  return (
    <Stage title={name} next={next}>
      <ol className="m-3 flex flex-col gap-2 lg:m-5">
        {items.map((item, i) => {
          const e = done.get(item.id);
          const here = current?.id === item.id;
          return (
            <li key={item.id}>
              <button
                type="button"
                onClick={() => setArmed(item.id)}
                aria-current={here ? "step" : undefined}
                className={`grid w-full grid-cols-[36px_1fr_auto] items-center gap-3 border-l-4 bg-sheet px-4 py-3 text-left ${here ? "border-act" : "border-transparent hover:border-hairline"}`}
              >
                <span className="figure text-2xl text-soft">{i + 1}</span>
                <span>
                  <span className={`block text-xl leading-tight ${here ? "font-semibold" : ""}`}>{item.ask}</span>
                  {e?.body.reason && <span className="block text-base text-loose">Accepted: {e.body.reason}</span>}
                </span>
                <span className="flex items-center gap-3 text-right text-base">
                  {e && (
                    <span>
                      <span className="block font-semibold">{OUTCOMES[e.body.outcome]}</span>
                      <span className="text-sm text-soft">
                        {clockTime(e.at)} {e.by.initials}
                      </span>
                    </span>
                  )}
                  <Mark state={e ? (e.body.outcome === "accepted" ? "loose" : "settled") : "open"} size={18} />
                </span>
              </button>
            </li>
          );
        })}
      </ol>
      <Dialog open={accepting !== null} onClose={() => setAccepting(null)} title="Accept as it is">
        <form
          className="flex flex-col gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            if (accepting && reason.trim().length >= 3) answer(accepting, "accepted", reason.trim());
          }}
        >
          <p className="text-lg">{items.find((i) => i.id === accepting)?.ask}</p>
          <label htmlFor="accept-reason" className="text-sm font-semibold text-soft">
            Why it may stay so; this goes on the report
          </label>
          <input id="accept-reason" autoFocus value={reason} maxLength={400} onChange={(e) => setReason(e.target.value)} className="min-h-14 border-b-2 border-ink bg-transparent px-1 text-lg outline-none focus:border-act" />
          <Button type="submit" look="act" size="large" disabled={reason.trim().length < 3}>
            Accept with this reason
          </Button>
        </form>
      </Dialog>
    </Stage>
  ); // prettier-ignore
}
