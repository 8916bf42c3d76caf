"use client";

import dynamic from "next/dynamic";
import { useEffect, useRef, useState } from "react";
import { adviceOn, type Advice } from "@/core/drive/advice";
import type { GatewayWatch } from "@/core/drive/gateway";
import type { DriveRules } from "@/core/drive/rules";
import { SPEED_UNITS } from "@/core/drive/speed-units";
import { CONDITION_NAMES, REMEDY, vehicleShows } from "@/core/drive/words";
import { CAUSES } from "@/core/job/driven";
import { formatNumber } from "@/core/units";
import { Stage } from "../bench/bench";
import { NextBar } from "../bench/next-bar";
import type { Crew } from "../checks/crew";
import { Button } from "../primitives/button";
import { Mark } from "../primitives/marks";
import type { SaidOnTheWay } from "@/devices/road/located";
import { useTimes } from "../settings";
import type { Plans } from "./use-plans";
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

/** What to try instead of going on: the next hour that is better, by name. */
function insteadOf(
  advice: Advice,
  plans: Plans,
  nowMs: number,
  clock: (ms: number) => string,
): string {
  const why = advice.dearest ? `Most went to ${CAUSES[advice.dearest]}.` : "";
  if (plans.kind !== "found") return why;
  const later = plans.hours
    .filter((h) => h.departMs > nowMs && h.plans.length > 0)
    .map((h) => h.plans[0]!)
    .find((p) => p.seconds < advice.restS && p.chance >= 0.7);
  return later
    ? `${why} At ${clock(later.departMs)} a whole drive is expected to take ${Math.round(later.seconds / 60)} min.`
    : `${why} No hour of the coming day is better: ask whether it can be learned in the bay.`;
}

/** What of the gateway and the network is to be said. */
function gatewayWords({ session }: GatewayWatch, online: boolean | null, gateway: boolean): string {
  if (gateway && session.is === "ended")
    return "The gateway’s session has ended: the network was away for too long.";
  if (online !== false) return gateway ? "Network there, the gateway holds." : "Network there.";
  const kept = "No network: all is kept here and goes later.";
  return gateway && session.is === "holding"
    ? `${kept} The gateway holds for another ${Math.round(session.leftS)} s: look at the hotspot.`
    : kept;
}

/** The drive under way: figures for who watches, a calm screen for who drives. */
export function OnTheRoad({
  trip,
  plans,
  rules,
  crew,
  gateway,
  onSay,
  onEnd,
}: {
  trip: Trip;
  plans: Plans;
  rules: DriveRules;
  crew: Crew;
  gateway: boolean;
  onSay: (said: SaidOnTheWay) => void;
  onEnd: () => void;
}) {
  const { progress: p, last, plan } = trip;
  const { clockTime } = useTimes();
  const alone = crew.watched.trim() === "";
  const [role, setRole] = useState<"drives" | "watches">(alone ? "drives" : "watches");
  const speed = last?.sample.speedMps ?? 0;
  const done = p.status === "done";
  const ended = !done && gateway && trip.gateway.session.is === "ended";
  const lost = p.status === "timed-out" || ended;
  const first = p.breaches[0];
  const advice = plan && !lost && !done ? adviceOn(plan, rules, p, trip.seconds) : null;
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
  // A code is large, what it means stands under it.
  const { shown, meaning } = vehicleShows(rules, p);
  const giveUp = (
    <Button look="stop" size="large" onClick={onEnd}>
      Give up
    </Button>
  );
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
                : ended
                  ? "The gateway’s session has ended, and what was gathered with it."
                  : lost
                    ? "The vehicle gave up: its time was over."
                    : trip.trouble === "refused"
                      ? "This tablet may not tell where it is: allow it in the browser’s settings."
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
        ) : advice?.giveUp ? (
          <NextBar
            tone="stop"
            say={
              advice.giveUp === "time-out"
                ? "Give it up: the vehicle’s time will be over before it has enough."
                : "Give it up: the rest would take too long."
            }
            figure={`${Math.round(advice.restS / 60)} min`}
            detail={insteadOf(advice, plans, last?.sample.atMs ?? 0, (ms) =>
              clockTime(new Date(ms).toISOString()),
            )}
          >
            <Button look="quiet" size="large" onClick={() => setRole("drives")}>
              Hand to the driver
            </Button>
            {giveUp}
          </NextBar>
        ) : (
          <NextBar
            tone={first ? "loose" : "act"}
            say={first ? REMEDY[first.kind] : "It counts. Keep on like this."}
            figure={needS > 0 ? clock(rest) : `${formatNumber((needM - p.metres) / 1000, 1)} km`}
            detail={
              first
                ? `Waits: ${CAUSES[first.kind]}${first.known ? "" : ", not known"}.`
                : advice && advice.lacksS > 30
                  ? `Still to gather. The way home will not be enough: ${clock(advice.lacksS)} will be lacking, stay on the good road.`
                  : "still to gather"
            }
          >
            <Button look="quiet" size="large" onClick={() => setRole("drives")}>
              Hand to the driver
            </Button>
            {giveUp}
          </NextBar>
        )
      }
    >
      <div className="m-3 grid gap-4 bg-sheet p-4 lg:m-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.4fr)]">
        <section aria-label="Progress">
          <p className="text-base text-soft">
            {trip.source === "made-up" ? "The vehicle shows" : "By our count"}
          </p>
          <p className="figure text-5xl font-semibold leading-none">{shown}</p>
          {meaning && <p className="mt-1 text-xl leading-tight">{meaning}</p>}
          <dl className="mt-4 grid grid-cols-2 gap-x-6 gap-y-3">
            <Figure
              name="In the bank"
              value={needS > 0 ? clock(p.seconds) : `${formatNumber(p.metres / 1000, 1)} km`}
            />
            <Figure name="On the way" value={clock(trip.seconds)} />
            <Figure name="Speed" value={speedWords(rules, speed)} />
            <Figure
              name="Thrown away"
              value={
                p.losses.length === 0
                  ? "nothing"
                  : `${p.losses.length}×, ${CAUSES[p.losses.at(-1)!.kind]}`
              }
            />
            {advice && (
              <Figure name="Still to drive" value={`${Math.round(advice.restS / 60)} min`} />
            )}
          </dl>
          <p className="mt-4 flex items-center gap-2 text-lg">
            <Mark state={ended ? "stop" : last?.online === false ? "loose" : "settled"} size={16} />
            {gatewayWords(trip.gateway, last?.online ?? null, gateway)}
          </p>
          {trip.source === "tablet" && (
            <OnTheWay said={trip.said} untold={trip.untold} trouble={trip.trouble} onSay={onSay} />
          )}
        </section>
        <DriveMap
          legs={plan?.legs}
          others={plans.kind === "found" ? plans.roads : undefined}
          at={trip.track.at(-1) ?? null}
          tall
        />
      </div>
    </Stage>
  );
}

/** A speed in the unit of the sheet's window. */
function speedWords({ conditions }: DriveRules, mps: number): string {
  const window = conditions.find((c) => c.kind === "speed");
  const unit = window?.kind === "speed" ? window.unit : "km/h";
  return `${formatNumber(mps / SPEED_UNITS[unit], 0)} ${unit}`;
}

const LINES = [
  { name: "Both lines", lines: { left: "solid", right: "solid" } },
  { name: "Left only", lines: { left: "solid", right: "none" } },
  { name: "Right only", lines: { left: "none", right: "solid" } },
  { name: "No lines", lines: { left: "none", right: "none" } },
] as const;
const SKIES = [
  { name: "Sun", sky: "sun" },
  { name: "Overcast", sky: "overcast" },
  { name: "Rain", sky: "rain" },
] as const;

/** What a tablet's receiver cannot tell, said by who watches. */
function OnTheWay({
  said,
  untold,
  trouble,
  onSay,
}: {
  said: SaidOnTheWay;
  untold: Trip["untold"];
  trouble: Trip["trouble"];
  onSay: (said: SaidOnTheWay) => void;
}) {
  const chip = (on: boolean): string =>
    `min-h-14 rounded-md border-2 px-3 text-lg ${on ? "border-act font-semibold" : "border-hairline"}`;
  const isSaid = (lines: (typeof LINES)[number]["lines"]): boolean =>
    said.lines?.left === lines.left && said.lines.right === lines.right;
  return (
    <div className="mt-4 flex flex-col gap-2">
      {trouble === "no-place" && (
        <p role="alert" className="text-lg text-loose">
          The tablet does not know where it is: hold it where it sees the sky.
        </p>
      )}
      <div className="flex flex-wrap gap-2" role="group" aria-label="Lines on the road">
        {LINES.map(({ name, lines }) => (
          <button
            key={name}
            type="button"
            aria-pressed={isSaid(lines)}
            onClick={() => onSay({ ...said, lines })}
            className={chip(isSaid(lines))}
          >
            {name}
          </button>
        ))}
      </div>
      <div className="flex flex-wrap gap-2" role="group" aria-label="Sky">
        {SKIES.map(({ name, sky }) => (
          <button
            key={name}
            type="button"
            aria-pressed={said.sky === sky}
            onClick={() => onSay({ ...said, sky })}
            className={chip(said.sky === sky)}
          >
            {name}
          </button>
        ))}
      </div>
      <p className="text-base text-soft">
        Not watched: {untold.map((k) => CONDITION_NAMES[k]).join(", ")}. The vehicle’s own word
        decides.
      </p>
    </div>
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
