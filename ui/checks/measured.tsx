"use client";

import dynamic from "next/dynamic";
import { useState } from "react";
import { knownToes, measuredOf, putRight } from "@/core/job";
import { asTyped, judgeMeasure, readFields } from "@/core/ready";
import type { CheckItem, Measure } from "@/core/sheet";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { Button } from "../primitives/button";
import { BayFloors } from "../ready/bay-floor";
import { MeasurePanel } from "../ready/measure-panel";
import { useMeasure } from "../ready/use-measure";
import { Answers } from "./answers";
import { cautionOf } from "./caution";
import { CheckFrame } from "./check-frame";

// Only a surround view has seams.
const SeamsPanel = dynamic(() => import("../surround/seams-panel").then((m) => m.SeamsPanel));

type Item = CheckItem & { measure: Measure };

/**
 * An item that is measured, before the work or after it: the figures, what follows from them, and
 * what to do if they are off.
 */
export function MeasuredCheck({
  stage,
  item,
  onArm,
  onNext,
}: {
  stage: "ready" | "prove";
  item: Item;
  onArm: (itemId: string) => void;
  onNext: () => void;
}) {
  const { ground, events: all, own, head, write, say, me } = useJob();
  // What is measured before the work is of the vehicle; after it, of one calibration.
  const events = stage === "prove" ? own : all;
  const after = stage === "prove" ? ({ stage } as const) : {};
  const before = measuredOf(events, stage).get(item.id);
  const state = useMeasure(
    head.id,
    stage === "prove" ? `${ground.calibrationId}:${item.id}` : item.id,
    item.measure,
    ground.vehicle,
    before?.body.typed ?? {},
  );
  const viewer = me.role === "viewer";
  const [advice, setAdvice] = useState<string | null>(null);

  const typed = Object.fromEntries(
    state.typed.filter((t) => t.text.trim() !== "").map((t) => [t.field.id, t.text]),
  );
  // A floor that was taken from its bay has figures that nobody typed here.
  const taken = before?.body.bay !== undefined && Object.keys(typed).length === 0;
  const judged = taken
    ? judgeMeasure(item.measure, before!.body.values, ground.vehicle)
    : state.judged;
  const figures = {
    kind: "measured",
    ...after,
    itemId: item.id,
    values: state.values,
    typed,
    ...(state.found ? { found: state.found } : {}),
  } as const;
  const righted = putRight(events, item.id) > 0;
  const keep = (): void => {
    const outcome = righted ? "fixed" : "fine";
    const check = {
      kind: "check",
      stage,
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
    write(figures, { kind: "put-right", ...after, itemId: item.id });
    state.clear();
  };
  const hold = async (): Promise<void> => {
    const response = await fetch(
      `/api/jobs/${head.id}/bay?item=${encodeURIComponent(item.id)}&calibration=${encodeURIComponent(ground.calibrationId)}`,
      { cache: "no-store" },
    ).catch(() => null);
    const body = (await response?.json().catch(() => null)) as {
      values?: Record<string, number>;
      error?: string;
    } | null;
    if (!body?.values)
      return say(body?.error ?? "The instruments do not answer. Read them by eye and type.");
    const { values } = body;
    state.change(
      Object.fromEntries(
        state.typed
          .filter((t) => t.field.id in values || !t.field.optional)
          .map((t) => [t.field.id, asTyped(t.field, values[t.field.id] ?? 0)]),
      ),
    );
  };

  const detail =
    judged.ok === false
      ? (advice ??
        (judged.act ? sentence(judged.headline) : null) ??
        "Put it right and read again, or accept it with a reason.")
      : item.why;
  return (
    <CheckFrame
      stage={stage}
      currentId={item.id}
      wide={item.measure.kind === "seams"}
      onArm={onArm}
      panel={
        <>
          {item.measure.kind === "seams" ? (
            <SeamsPanel state={state} readOnly={viewer} onAct={setAdvice} />
          ) : (
            <MeasurePanel vehicle={ground.vehicle} state={state} readOnly={viewer} />
          )}
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
          say={judged.act ?? sentence(judged.headline)}
          detail={detail}
          caution={
            stage === "ready" ? cautionOf(ground, events, item, judged.ok === false) : undefined
          }
        >
          {!viewer && (
            <Answers
              stage={stage}
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

const sentence = (words: string): string => `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;

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
