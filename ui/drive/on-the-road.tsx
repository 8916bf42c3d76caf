"use client";

import dynamic from "next/dynamic";
import { useEffect, useRef, useState } from "react";
import type { Road } from "@/core/drive/road";
import type { DriveRules } from "@/core/drive/rules";
import { REMEDY, vehicleSays } from "@/core/drive/words";
import { CAUSES } from "@/core/job/driven";
import { formatNumber } from "@/core/units";
import { Stage } from "../bench/bench";
import { NextBar } from "../bench/next-bar";
import type { Crew } from "../checks/crew";
import { Button } from "../primitives/button";
import { Mark } from "../primitives/marks";
import type { Trip } from "./use-trip";

const DriveMap = dynamic(() => import("./drive-map").then((m) => m.DriveMap), { ssr: false });

/** Faster than this nobody who drives may read or touch anything, m/s. */
const WALKING_MPS = 1.4;

const clock = (s: number): string =>
  `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, "0")}`;

/** A cue for who drives, through the tablet's own voice where it has one. */
function useSpoken(words: string): void {
  const said = useRef("");
  useEffect(() => {
    if (said.current === words || typeof speechSynthesis === "undefined") return;
    said.current = words;
    speechSynthesis.cancel();
    speechSynthesis.speak(new SpeechSynthesisUtterance(words));
  }, [words]);
}

/** The drive under way: figures for who watches, a calm screen for who drives. */
export function OnTheRoad({
  trip,
  others,
  rules,
  crew,
  gateway,
  onEnd,
}: {
  trip: Trip;
  others: readonly Road[] | undefined;
  rules: DriveRules;
  crew: Crew;
  gateway: boolean;
  onEnd: () => void;
}) {
  const { progress: p, last } = trip;
  const alone = crew.watched.trim() === "";
  const [role, setRole] = useState<"drives" | "watches">(alone ? "drives" : "watches");
  const speed = last?.sample.speedMps ?? 0;
  const done = p.status === "done";
  const lost = p.status === "timed-out";
  const first = p.breaches[0];
  const calm = done
    ? "Done. Drive back."
    : lost
      ? "It gave up. Drive back."
      : first
        ? "Waits"
        : "Counts";
  useSpoken(done || lost ? calm : first ? `It waits: ${CAUSES[first.kind]}.` : "It counts.");
  if (role === "drives")
    return (
      <DriverScreen
        words={calm}
        counts={!first}
        done={done || lost}
        rolls={!trip.over && speed > WALKING_MPS}
        alone={alone}
        onWatch={() => setRole("watches")}
      />
    );
  const { seconds: needS = 0, metres: needM = 0 } = rules.enough;
  const rest = Math.max(0, needS - p.seconds);
  return (
    <Stage
      title="Drive"
      next={
        done || lost || trip.over ? (
          <NextBar
            tone={done ? "settled" : "loose"}
            say={
              done
                ? "The vehicle says it has learned."
                : lost
                  ? "The vehicle gave up: its time was over."
                  : "Back at the shop, and not learned."
            }
            detail={
              trip.over
                ? "Stand, then write down what it showed."
                : "Drive on to the shop; stand before you touch anything."
            }
          >
            <Button look="act" size="large" onClick={onEnd}>
              We stand: write it down
            </Button>
          </NextBar>
        ) : (
          <NextBar
            tone={first ? "loose" : "act"}
            say={first ? REMEDY[first.kind] : "It counts. Keep on like this."}
            figure={needS > 0 ? clock(rest) : `${formatNumber((needM - p.metres) / 1000, 1)} km`}
            detail={
              first
                ? `Waits: ${CAUSES[first.kind]}${first.known ? "" : ", not known"}.`
                : "still to gather"
            }
          >
            <Button look="quiet" size="large" onClick={() => setRole("drives")}>
              Hand to the driver
            </Button>
            <Button look="stop" size="large" onClick={onEnd}>
              Give up
            </Button>
          </NextBar>
        )
      }
    >
      <div className="m-3 grid gap-4 bg-sheet p-4 lg:m-5 lg:grid-cols-[1fr_1.4fr]">
        <section aria-label="Progress">
          <p className="text-base text-soft">The vehicle shows</p>
          <p className="figure text-5xl font-semibold leading-none">{vehicleSays(rules, p)}</p>
          <dl className="mt-4 grid grid-cols-2 gap-x-6 gap-y-3">
            <Figure
              name="In the bank"
              value={needS > 0 ? clock(p.seconds) : `${formatNumber(p.metres / 1000, 1)} km`}
            />
            <Figure name="On the way" value={clock(trip.seconds)} />
            <Figure name="Speed" value={`${formatNumber(speed * 3.6, 0)} km/h`} />
            <Figure
              name="Thrown away"
              value={p.losses.length === 0 ? "nothing" : `${p.losses.length}×`}
            />
          </dl>
          <p className="mt-4 flex items-center gap-2 text-lg">
            <Mark state={last?.online === false ? "loose" : "settled"} size={16} />
            {last?.online === false
              ? `No network: all is kept here and goes later.${gateway ? " This vehicle’s gateway hangs on it: look at the hotspot." : ""}`
              : "Network there."}
          </p>
        </section>
        <DriveMap legs={trip.plan.legs} others={others} at={trip.track.at(-1) ?? null} />
      </div>
    </Stage>
  );
}

function Figure({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <dt className="text-base text-soft">{name}</dt>
      <dd className="figure text-2xl font-semibold">{value}</dd>
    </div>
  );
}

/** Nothing to read, nothing to touch while it rolls: one shape and one word. */
function DriverScreen({
  words,
  counts,
  done,
  rolls,
  alone,
  onWatch,
}: {
  words: string;
  counts: boolean;
  done: boolean;
  rolls: boolean;
  alone: boolean;
  onWatch: () => void;
}) {
  return (
    <div
      role="dialog"
      aria-modal="true"
      aria-label="Driver"
      className="fixed inset-0 z-50 flex flex-col items-center justify-center gap-10 bg-paper"
    >
      <Mark state={done || counts ? "settled" : "loose"} size={220} />
      <p className="text-6xl font-semibold" role="status">
        {words}
      </p>
      {alone && (
        <p className="px-6 text-center text-2xl text-soft">
          Alone in the car: stop before you touch anything.
        </p>
      )}
      {!rolls && (
        <Button look="plain" size="large" onClick={onWatch}>
          We stand: show the figures
        </Button>
      )}
    </div>
  );
}
