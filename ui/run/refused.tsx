"use client";

import { useMemo, useState } from "react";
import { runOf } from "@/core/job";
import { CAUSE_WORDS, causeOdds, CHANGE_WORDS, worthNaming } from "@/core/job/cause-words";
import { changedSince, limitingCauses, refusalCauses } from "@/core/job/causes";
import type { RankedCause } from "@/core/guide";
import { formatNumber } from "@/core/units";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { WordsBar } from "../bench/words-bar";
import { Button, ButtonLink } from "../primitives/button";
import type { RunCommand } from "./use-run";

const STAGE = { ready: "3 Ready", "set-out": "4 Set out" } as const;

function useCauses(): RankedCause[] | null {
  const { ground, events } = useJob();
  return useMemo(() => refusalCauses(ground, events), [ground, events]);
}

/** What most likely made the vehicle refuse, with its share and what settles it. */
export function Causes() {
  const all = useCauses();
  if (!all) return null;
  const ranked = worthNaming(all);
  return (
    <section aria-label="Likely causes" className="mt-4 border-t border-hairline pt-3">
      <h3 className="text-base text-soft">Likely causes, by this job’s own readings and checks</h3>
      <ol className="mt-1">
        {ranked.map((r, i) => {
          const { name, todo } = CAUSE_WORDS[r.cause];
          return (
            <li
              key={r.cause}
              className="grid grid-cols-[5rem_1fr] items-baseline gap-x-4 border-b border-dashed border-hairline py-2 last:border-0"
            >
              <span
                className={`figure text-right ${i === 0 ? "text-3xl" : "text-xl"} font-semibold`}
              >
                {r.share < 0.01 ? "< 1" : formatNumber(100 * Math.min(r.share, 0.99))} %
              </span>
              <span>
                <b
                  className={`block font-semibold first-letter:uppercase ${i === 0 ? "text-2xl" : "text-lg"}`}
                >
                  {name}
                </b>
                <span className="block text-base text-soft">{todo}</span>
              </span>
            </li>
          );
        })}
      </ol>
    </section>
  );
}

/** Of an answer that passed and only just: what most likely limits it; nothing where it passed well. */
export function Limits() {
  const { ground, events } = useJob();
  const ranked = useMemo(() => limitingCauses(ground, events), [ground, events]);
  const first = ranked?.[0] && CAUSE_WORDS[ranked[0].cause];
  if (!first) return null;
  return (
    <p role="note" className="mt-3 border-l-4 border-loose pl-3 text-lg">
      It passed, and only just. What most likely limits it: {first.name}.{" "}
      <span className="text-soft">{first.todo}</span>
    </p>
  );
}

/** The next act after a refusal: to its likeliest cause; again only with what was changed since. */
export function RefusedBar({
  what,
  busy,
  command,
}: {
  /** What the vehicle looks at: "board", "mats". */
  what: { noun: string; one: boolean };
  busy: string | null;
  command: (c: RunCommand) => Promise<boolean>;
}) {
  const { head, ground, events } = useJob();
  const causes = useCauses();
  const changed = changedSince(ground, events);
  const [telling, setTelling] = useState(false);
  const first = causes?.[0] && CAUSE_WORDS[causes[0].cause];
  const stage = first?.stage ?? "set-out";
  const { byHand, tool } = runOf(ground, events).state;
  const again = (changed?: string): void =>
    void command({
      ...(byHand && tool ? { type: "connect-by-hand", tool, volts: null } : { type: "connect" }),
      ...(changed ? { changed } : {}),
    });
  const isAgain = changed.length > 0;
  if (telling)
    return (
      <WordsBar
        say="What was changed since the vehicle refused?"
        detail="It goes on the record beside the next attempt."
        label="What was changed"
        action={busy?.startsWith("connect") ? "Connecting" : "Connect again"}
        busy={busy !== null}
        onBack={() => setTelling(false)}
        onWords={again}
      />
    );
  return (
    <NextBar
      tone={isAgain ? "loose" : "stop"}
      say={
        isAgain
          ? "Something was changed since the vehicle refused: try again."
          : (first?.todo ?? `Check the ${what.noun} again before the routine is repeated.`)
      }
      detail={
        isAgain
          ? `Changed: ${changed.map((c) => CHANGE_WORDS[c]).join(", ")}.`
          : causes
            ? causeOdds(causes)
            : `The vehicle judges where the ${what.noun} truly ${what.one ? "stands" : "lie"}. If someone may have touched it, say so in Set out and re-read.`
      }
    >
      {isAgain ? (
        <>
          <ButtonLink href={`/jobs/${head.id}/${stage}`} look="plain" size="large">
            {STAGE[stage]}
          </ButtonLink>
          <Button look="act" size="large" disabled={busy !== null} onClick={() => again()}>
            {busy?.startsWith("connect") ? "Connecting" : "Connect again"}
          </Button>
        </>
      ) : (
        <>
          <Button look="quiet" size="large" onClick={() => setTelling(true)}>
            Changed elsewhere
          </Button>
          <ButtonLink href={`/jobs/${head.id}/${stage}`} look="act" size="large">
            {STAGE[stage]}
          </ButtonLink>
        </>
      )}
    </NextBar>
  );
}
