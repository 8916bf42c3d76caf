"use client";

import { knownToes, measuredOf, putRight } from "@/core/job";
import { asTyped, judgeMeasure, readFields } from "@/core/ready";
import type { Measure, Sheet } from "@/core/sheet";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { Button } from "../primitives/button";
import { BayFloors } from "../ready/bay-floor";
import { MeasurePanel } from "../ready/measure-panel";
import { useMeasure } from "../ready/use-measure";
import { Answers } from "./answers";
import { cautionOf } from "./caution";
import { CheckFrame } from "./check-frame";

type Item = Sheet["ready"][number] & { measure: Measure };

/**
 * A readiness item that is measured: the figures, what follows from them, and what to do if they
 * are off.
 */
export function MeasuredCheck({
  item,
  onArm,
  onNext,
}: {
  item: Item;
  onArm: (itemId: string) => void;
  onNext: () => void;
}) {
  const { ground, events, head, write, say, me } = useJob();
  const before = measuredOf(events).get(item.id);
  const state = useMeasure(
    head.id,
    item.id,
    item.measure,
    ground.vehicle,
    before?.body.typed ?? {},
  );
  const viewer = me.role === "viewer";

  const typed = Object.fromEntries(
    state.typed.filter((t) => t.text.trim() !== "").map((t) => [t.field.id, t.text]),
  );
  // A floor that was taken from its bay has figures that nobody typed here.
  const taken = before?.body.bay !== undefined && Object.keys(typed).length === 0;
  const judged = taken
    ? judgeMeasure(item.measure, before!.body.values, ground.vehicle)
    : state.judged;
  const figures = { kind: "measured", itemId: item.id, values: state.values, typed } as const;
  const righted = putRight(events, item.id) > 0;
  const keep = (): void => {
    const outcome = righted ? "fixed" : "fine";
    const check = {
      kind: "check",
      stage: "ready",
      itemId: item.id,
      outcome,
      reason: null,
    } as const;
    write(...(taken ? [check] : [figures, check]));
    state.settle();
  };
  /** All four bear the marking the maker names: one look round, one touch. */
  const allMakers = (): void => {
    const own = Object.fromEntries(state.typed.map((t) => [t.field.id, t.field.markings![0]!]));
    const read = readFields(
      state.typed.map((t) => t.field),
      own,
    );
    if (!read.ok) return say("The vehicle’s book has no tyre size that could be taken: type them.");
    write(
      { kind: "measured", itemId: item.id, values: read.values, typed: own },
      { kind: "check", stage: "ready", itemId: item.id, outcome: "fine", reason: null },
    );
    state.settle();
    onNext();
  };
  /** What was read stays in the log, and the item stays open until it is read again. */
  const rightIt = (): void => {
    write(figures, { kind: "put-right", itemId: item.id });
    state.clear();
  };
  const hold = async (): Promise<void> => {
    const response = await fetch(`/api/jobs/${head.id}/bay?item=${encodeURIComponent(item.id)}`, {
      cache: "no-store",
    }).catch(() => null);
    const body = (await response?.json().catch(() => null)) as {
      values?: Record<string, number>;
      error?: string;
    } | null;
    if (!body?.values)
      return say(body?.error ?? "The instruments do not answer. Read them by eye and type.");
    const { values } = body;
    state.change(
      Object.fromEntries(
        state.typed.map((t) => [t.field.id, asTyped(t.field, values[t.field.id] ?? 0)]),
      ),
    );
  };

  const detail =
    judged.ok === false ? "Put it right and read again, or accept it with a reason." : item.why;
  return (
    <CheckFrame
      stage="ready"
      currentId={item.id}
      onArm={onArm}
      panel={
        <>
          <MeasurePanel vehicle={ground.vehicle} state={state} readOnly={viewer} />
          {item.measure.kind === "floor" && (
            <BayFloors itemId={item.id} measure={item.measure} onTaken={onNext} />
          )}
          {item.measure.kind === "alignment" && !viewer && <KnownToes onTake={state.change} />}
          {head.simulated && !viewer && (
            <button
              type="button"
              onClick={() => void hold()}
              className="mt-3 min-h-12 rounded-md px-2 text-base font-semibold text-act underline decoration-dotted underline-offset-4 hover:bg-wash"
            >
              Read all of it (simulated)
            </button>
          )}
        </>
      }
      next={
        <NextBar
          tone={judged.ok === false ? "loose" : judged.ok ? "settled" : "act"}
          say={`${judged.headline.charAt(0).toUpperCase()}${judged.headline.slice(1)}.`}
          detail={detail}
          caution={cautionOf(ground, events, item)}
        >
          {!viewer && (
            <Answers
              stage="ready"
              itemId={item.id}
              ask={item.ask}
              also={judged.ok === null || taken ? [] : [figures]}
              onAnswered={onNext}
            >
              {judged.ok === false && (
                <Button look="act" size="large" onClick={rightIt}>
                  Put right, read again
                </Button>
              )}
              {item.measure.kind === "tyres" && Object.keys(typed).length === 0 && (
                <Button look="act" size="large" onClick={allMakers}>
                  All the maker’s size
                </Button>
              )}
              {judged.ok && (
                <Button
                  look="act"
                  size="large"
                  className="min-w-36"
                  onClick={() => {
                    keep();
                    onNext();
                  }}
                >
                  Keep: fine
                </Button>
              )}
            </Answers>
          )}
        </NextBar>
      }
    />
  );
}

const TOE_FROM = {
  printed: "As printed",
  rolled: "As the car rolled",
  read: "As its wheels were read",
};

/** The rear toe as this job knows it already: taken over, not typed again. */
function KnownToes({ onTake }: { onTake: (typed: Record<string, string>) => void }) {
  const { ground, events, judged } = useJob();
  return (
    <p className="mt-3 flex flex-wrap gap-2">
      {knownToes(ground, events, judged?.solution ?? null).map(({ how, typed }) => (
        <Button key={how} look="plain" onClick={() => onTake({ sigma: "", ...typed })}>
          {TOE_FROM[how]}: {typed.left}° and {typed.right}°
        </Button>
      ))}
    </p>
  );
}
