"use client";

import { Fragment, useEffect, useMemo, useState } from "react";
import { standingAt, targetInHand } from "@/core/job";
import { prepare } from "@/core/job/prepare";
import type { RunState } from "@/core/run";
import type { SheetStep } from "@/core/sheet";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { WordsBar } from "../bench/words-bar";
import { Button } from "../primitives/button";
import { duration, secondsLeft, useLeft } from "./left";
import type { RunCommand } from "./use-run";

type Of<K extends SheetStep["kind"]> = Extract<SheetStep, { kind: K }>;
type Props = {
  state: RunState;
  busy: string | null;
  command: (c: RunCommand, quiet?: boolean) => Promise<boolean>;
};

/** Buttons of the vehicle are held in the first seconds of its ignition; the time runs large. */
export function HoldStep({ step, state, busy, command }: Props & { step: Of<"hold"> }) {
  const until = new Date(Date.parse(state.ignitionAt!) + step.withinSeconds * 1000).toISOString();
  const left = useLeft(until, () => command({ type: "hold-over", step: step.id }, true));
  return (
    <NextBar
      tone={left > 0 ? "act" : "loose"}
      say={step.say}
      caution={step.caution}
      detail={`Hold them for ${step.forSeconds} s, within ${duration(step.withinSeconds)} of the ignition. Where they are the maker’s information says.`}
      figure={secondsLeft(left)}
    >
      {state.byHand ? (
        <>
          <Button
            look="plain"
            size="large"
            disabled={busy !== null}
            onClick={() => void command({ type: "tell-held", step: step.id, entered: false })}
          >
            It did not
          </Button>
          <Button
            look="act"
            size="large"
            disabled={busy !== null || left <= 0}
            onClick={() => void command({ type: "tell-held", step: step.id, entered: true })}
          >
            It entered
          </Button>
        </>
      ) : (
        <Button
          look="act"
          size="large"
          disabled={busy !== null || left <= 0}
          onClick={() => void command({ type: "held", step: step.id })}
        >
          {busy === "held" ? "Asking" : "They are held"}
        </Button>
      )}
    </NextBar>
  );
}

/** Before the vehicle's clock runs: what is to be done at the next place is laid out. */
export function PreparePlace({ step, state, busy, command }: Props & { step: Of<"position"> }) {
  const { ground, events } = useJob();
  const ahead = useMemo(() => prepare(ground, events, step.to), [ground, events, step.to]);
  const missed = state.missed[step.id] ?? 0;
  return (
    <NextBar
      tone={missed > 0 ? "loose" : "act"}
      say={`Get ready for ${ahead.name}: the vehicle waits ${duration(step.withinSeconds!)} for it.`}
      caution={step.caution}
      detail={
        <div className="flex flex-wrap items-start gap-x-10 gap-y-1">
          {state.message && missed > 0 && (
            <p className="w-full font-semibold text-loose">{state.message}</p>
          )}
          <ul aria-label="What to move" className="text-lg text-ink">
            {ahead.moves.map((m) => (
              <li key={m}>{m}</li>
            ))}
          </ul>
          <dl
            aria-label="Readings there"
            className="grid grid-cols-[auto_auto] items-baseline gap-x-3 text-base lg:grid-cols-[auto_auto_auto_auto]"
          >
            {ahead.readings.map((r) => (
              <Fragment key={r.name}>
                <dt>{r.name}</dt>
                <dd className="figure mr-3 text-right font-semibold text-ink">{r.shows}</dd>
              </Fragment>
            ))}
          </dl>
        </div>
      }
    >
      <Button
        look="act"
        size="large"
        disabled={busy !== null}
        onClick={() => void command({ type: "start-clock", step: step.id })}
      >
        Start its clock
      </Button>
    </NextBar>
  );
}

/** What the tool asks to choose; what the set-out used is offered first. */
export function ChooseStep({ step, busy, command }: Omit<Props, "state"> & { step: Of<"choose"> }) {
  const { ground, events } = useJob();
  const here = standingAt(ground, events, targetInHand(ground, events).id);
  const code = here?.board?.body.code;
  const used = step.options.find(
    (o) =>
      (o.board !== undefined && o.board === code) ||
      (o.stand !== undefined && o.stand === here?.standId),
  );
  return (
    <NextBar
      say={step.say}
      detail={
        used
          ? `By the set-out: ${used.board ? `${used.board} hangs` : `${used.stand} stands there`}.`
          : "The set-out does not say which; look at what stands there."
      }
    >
      {step.options.map((o) => (
        <Button
          key={o.id}
          look={o === used || !used ? "act" : "quiet"}
          size="large"
          disabled={busy !== null}
          onClick={() => void command({ type: "choose", step: step.id, option: o.id })}
        >
          {o.name}
        </Button>
      ))}
    </NextBar>
  );
}

/** A stored value that lies outside the book's range, and is let pass for a reason. */
export function LetPass({
  step,
  busy,
  command,
  onBack,
}: Omit<Props, "state"> & { step: Of<"compare">; onBack: () => void }) {
  return (
    <WordsBar
      say="Why may it go on with this value?"
      detail="The reason stays beside the value on the record."
      label="Reason"
      action="Let it pass"
      busy={busy !== null}
      onBack={onBack}
      onWords={(reason) => void command({ type: "accept-value", step: step.id, reason })}
    />
  );
}

/** Nobody knows here what the vehicle does meanwhile: the tool is asked. */
export function AskVehicle({
  say,
  detail,
  since,
  busy,
  command,
}: Omit<Props, "state"> & { say: string; detail: string; since: string | null }) {
  const { own, me } = useJob();
  const mine = own.findLast((e) => e.body.kind === "run")?.by.id === me.id;
  // A routine that answers takes a moment: only one that should long have answered is asked for.
  const [due, setDue] = useState(since === null);
  useEffect(() => {
    if (since === null) return;
    const wait = Date.parse(since) + 8000 - Date.now();
    const timer = setTimeout(
      () => {
        setDue(true);
        if (mine) void command({ type: "ask-vehicle" }, true);
      },
      Math.max(0, wait),
    );
    return () => clearTimeout(timer);
    // Asked once for each start; the command closes over the log's head.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [since]);
  return (
    <NextBar tone={due ? "loose" : "act"} say={say} detail={detail}>
      {due && (
        <Button
          look="act"
          size="large"
          disabled={busy !== null}
          onClick={() => void command({ type: "ask-vehicle" })}
        >
          {busy === "ask-vehicle" ? "Asking" : "Ask the tool"}
        </Button>
      )}
    </NextBar>
  );
}
