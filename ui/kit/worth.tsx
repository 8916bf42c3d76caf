"use client";

import { wrap } from "comlink";
import { useEffect, useRef, useState } from "react";
import { changesFor, type Change, type Worth } from "@/core/kit/worth";
import { SCHOOLS, type SetOutPlan } from "@/core/setout";
import { LACKED_WORDS } from "@/core/setout/school-words";
import { dayInWords, formatNumber } from "@/core/units";
import type { WorthWorker } from "@/workers/worth/worth.worker";
import { Button } from "../primitives/button";

type Sample = { setOuts: number; since: string; plans: SetOutPlan[] };
type Found = { change: Change; worth: Worth };

type State =
  | { kind: "idle" }
  | { kind: "busy"; done: number; of: number }
  | { kind: "told"; sample: Sample; minutes: number; found: Found[] }
  | { kind: "nothing"; words: string };

/** What a change is, in a few words. */
function changeWords(change: Change): string {
  if (change.kind === "finer") return `${change.name}, half as uncertain`;
  const way = `set out by “${SCHOOLS[change.school].name}”`;
  if (change.kind === "way") return `Nothing new: ${way}`;
  const lacks = change.lacks.map((k) => LACKED_WORDS[k] ?? k).join(" and ");
  return `${lacks.charAt(0).toUpperCase()}${lacks.slice(1)}, ${way}`;
}

/** Less than this for each set-out is told from nothing by nobody, minutes. */
const LEAST_MIN = 0.1;
const isTold = ({ worth }: Found): boolean =>
  worth.minutes >= LEAST_MIN && worth.minutes > 2 * worth.errorMin;

/**
 * Minutes that other instruments would have saved in the last quarter: its set-outs are gone through again
 * in the simulated bay, beside the page.
 */
export function InstrumentWorth() {
  const [state, setState] = useState<State>({ kind: "idle" });
  const worker = useRef<Worker | null>(null);
  useEffect(() => () => worker.current?.terminate(), []);

  const stop = (): void => {
    worker.current?.terminate();
    worker.current = null;
    setState({ kind: "idle" });
  };
  const work = async (): Promise<void> => {
    setState({ kind: "busy", done: 0, of: 1 });
    const answer = await fetch("/api/kit/worth").catch(() => null);
    if (!answer?.ok)
      return setState({ kind: "nothing", words: "The shop does not answer. Try again." });
    const sample = (await answer.json()) as Sample;
    if (sample.plans.length === 0)
      return setState({
        kind: "nothing",
        words: "No board was set out in the last quarter: there is nothing to go through yet.",
      });
    worker.current?.terminate();
    const own = new Worker(new URL("../../workers/worth/worth.worker.ts", import.meta.url), {
      type: "module",
    });
    worker.current = own;
    const remote = wrap<WorthWorker>(own);
    const changes = changesFor(sample.plans);
    const of = changes.length + 1;
    setState({ kind: "busy", done: 0, of });
    const was = await remote.asTheyWere(sample.plans);
    const found: Found[] = [];
    for (const [i, change] of changes.entries()) {
      if (worker.current !== own) return;
      setState({ kind: "busy", done: i + 1, of });
      found.push({ change, worth: await remote.with(change) });
    }
    own.terminate();
    if (worker.current !== own) return;
    worker.current = null;
    const set = was.filter((m) => Number.isFinite(m));
    setState({
      kind: "told",
      sample,
      minutes: set.reduce((s, m) => s + m, 0) / Math.max(1, set.length),
      found: found.toSorted((a, b) => b.worth.minutes - a.worth.minutes),
    });
  };
  return (
    <section aria-label="Worth of an instrument" className="mt-5 bg-sheet px-4 py-3">
      <h2 className="border-b-2 border-ink pb-1 text-2xl font-semibold">Worth of an instrument</h2>
      <p className="mt-2 max-w-[68ch] text-base text-soft">
        What a finer one, another kind, or another way would have saved: the boards set out in the
        last quarter are gone through again in a simulated bay, each with the same vehicle and the
        same hands.
      </p>
      {state.kind === "busy" ? (
        <p className="mt-2 flex flex-wrap items-center gap-4 text-lg">
          <progress value={state.done} max={state.of} className="h-3 w-56 accent-[var(--act)]" />
          <span role="status">
            {state.done} of {state.of} gone through
          </span>
          <Button look="quiet" onClick={stop}>
            Stop
          </Button>
        </p>
      ) : (
        <Button className="mt-2" onClick={() => void work()}>
          {state.kind === "told" ? "Go through it again" : "Go through the last quarter"}
        </Button>
      )}
      {state.kind === "nothing" && (
        <p role="status" className="mt-2 text-lg text-loose">
          {state.words}
        </p>
      )}
      {state.kind === "told" && <Told {...state} />}
    </section>
  );
}

function Told({
  sample,
  minutes,
  found,
}: {
  sample: Sample;
  minutes: number;
  found: readonly Found[];
}) {
  const told = found.filter(isTold);
  const silent = found.filter((f) => !isTold(f));
  return (
    <>
      <p role="status" className="mt-3 text-lg">
        {sample.setOuts === 1 ? "One board" : `${sample.setOuts} boards`} set out since{" "}
        {dayInWords(sample.since.slice(0, 10))}
        {sample.plans.length < sample.setOuts
          ? `, the newest ${sample.plans.length} of them`
          : ""}: {formatNumber(minutes, 1)} min each in the mean, by the acts as the advice counts
        them.
      </p>
      <ul className="mt-1">
        {told.map(({ change, worth }) => (
          <li
            key={changeWords(change)}
            className="flex flex-wrap items-baseline gap-x-4 border-b border-hairline py-2 text-lg"
          >
            <span className="min-w-64 flex-1 font-semibold">{changeWords(change)}</span>
            <span className="figure w-60 text-right max-sm:text-left">
              {formatNumber(worth.minutes, 1)} ± {formatNumber(2 * worth.errorMin, 1)} min a board
            </span>
            <span className="figure w-56 text-right font-semibold max-sm:text-left">
              {formatNumber(worth.minutes * sample.setOuts)} min in the quarter
            </span>
          </li>
        ))}
        {told.length === 0 && (
          <li className="py-2 text-lg">Nothing that can be told from chance.</li>
        )}
      </ul>
      {silent.length > 0 && (
        <p className="mt-2 text-base text-soft">
          No difference that can be told: {silent.map((f) => changeWords(f.change)).join("; ")}.
        </p>
      )}
    </>
  );
}
