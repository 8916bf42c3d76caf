"use client";

import dynamic from "next/dynamic";
import { useEffect, useMemo, useRef, useState } from "react";
import { askedFor, eventsOf, runGate } from "@/core/job";
import type { RunState } from "@/core/run";
import { thingOf } from "@/core/setout";
import { WANTS, placeName, type Sheet, type SheetStep, type Target } from "@/core/sheet";
import { formatNumber, parseQuantity } from "@/core/units";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { NextStage } from "../bench/next-stage";
import { Button } from "../primitives/button";
import { useSettings } from "../settings";
import { secondsLeft, useLeft } from "./left";
import { RunGateBar } from "./run-gate";
import type { RunCommand } from "./use-run";

// A camera is turned on its arm by few vehicles: fetched where it is.
const TIMED = () => import("./timed-steps");
const HoldStep = dynamic(() => TIMED().then((m) => m.HoldStep));
const PreparePlace = dynamic(() => TIMED().then((m) => m.PreparePlace));
const ChooseStep = dynamic(() => TIMED().then((m) => m.ChooseStep));
const LetPass = dynamic(() => TIMED().then((m) => m.LetPass));
const AskVehicle = dynamic(() => TIMED().then((m) => m.AskVehicle));
const OWN_TOOL = () => import("./by-hand");
const ConnectByHand = dynamic(() => OWN_TOOL().then((m) => m.ConnectByHand));
const TypedValue = dynamic(() => OWN_TOOL().then((m) => m.TypedValue));
const ResultByHand = dynamic(() => OWN_TOOL().then((m) => m.ResultByHand));
const RefusedBar = dynamic(() => import("./refused").then((m) => m.RefusedBar));
const AimStep = dynamic(() => import("./aim-step").then((m) => m.AimStep));

const ARCH = "Measure at the highest point of the arch, above the wheel centre.";

const EXHAUST = "Exhaust hose on, or the doors open, before the engine runs indoors.";

const LOOKING = "The vehicle is looking. Nobody moves.";

/** What the vehicle looks at, in a word. */
const noun = (target: Target | null): "board" | "reflector" | "mats" | "marks" =>
  target
    ? ({ board: thingOf(target).thing, mat: "mats", mark: "marks" } as const)[target.kind]
    : "board";

/** Whether there is one of it, on a stand. */
const isOne = (target: Target | null): boolean => !target || target.kind === "board";

/** What has come of a routine that passed. */
const LEARNED: Record<Sheet["appliesTo"]["system"], string> = {
  "forward-camera": "the camera has learned",
  "surround-view": "the surround view has joined its pictures",
  "trailer-camera": "the camera has learned",
  "mirror-camera": "both cameras keep their aim",
  "rear-camera": "the camera has learned",
  "side-camera": "the cameras have learned",
  "front-radar": "the radar has learned",
};

type Props = {
  state: RunState;
  step: SheetStep | null;
  proved: boolean;
  busy: string | null;
  command: (c: RunCommand, quiet?: boolean) => Promise<boolean>;
};

/** The one thing the routine waits for. */
export function NextRun({ state, step, proved, busy, command }: Props) {
  const { me, ground, events, own, target } = useJob();
  const [byHand, setByHand] = useState(false);
  const [passing, setPassing] = useState<string | null>(null);
  const gate = useMemo(() => runGate(ground, events, target?.id), [ground, events, target]);
  useSelfRead(state, step, gate === null, command);
  if (me.role === "viewer") return <NextBar say="You may look; a technician runs the routine." />;
  const big = (words: string, c: RunCommand, wait = words) => (
    <Button
      look="act"
      size="large"
      className="min-w-40"
      disabled={busy !== null}
      onClick={() => void command(c)}
    >
      {busy === c.type ? wait : words}
    </Button>
  );

  if (state.status === "passed")
    return (
      <NextStage
        after="run"
        say={
          ground.sheet.method === "dynamic"
            ? "The vehicle is ready to learn on the road."
            : `The routine is done: ${LEARNED[ground.sheet.appliesTo.system]}.`
        }
      />
    );
  if (state.dropped)
    return (
      <AskVehicle
        say="The tool has lost the vehicle."
        detail={`${state.message ?? ""} The tool is asked where the vehicle really is.`}
        since={null}
        busy={busy}
        command={command}
      />
    );
  if (step?.kind === "position" && step.withinSeconds !== undefined && !state.clockUntil)
    return <PreparePlace step={step} state={state} busy={busy} command={command} />;
  const resting = state.status === "waiting" && state.waitUntil !== null;
  if (gate && !resting) return <RunGateBar gate={gate} state={state} step={step} />;
  if (state.status === "failed")
    return (
      <RefusedBar what={{ noun: noun(target), one: isOne(target) }} busy={busy} command={command} />
    );
  if (!step && byHand)
    return <ConnectByHand busy={busy} command={command} onBack={() => setByHand(false)} />;
  if (!step)
    return (
      <NextBar
        tone={state.message ? "loose" : "act"}
        say={state.message ?? "Plug in the scan tool and connect."}
        detail={
          state.status === "stopped"
            ? "The run was stopped; connecting begins the next attempt."
            : undefined
        }
      >
        <Button look="quiet" size="large" onClick={() => setByHand(true)}>
          By hand
        </Button>
        {big(
          state.status === "not-started" ? "Connect" : "Connect again",
          { type: "connect" },
          "Connecting",
        )}
      </NextBar>
    );

  const caution = "caution" in step ? step.caution : undefined;
  if (state.status === "waiting" && state.waitUntil)
    return <Wait key={state.waitUntil} until={state.waitUntil} step={step} command={command} />;
  switch (step.kind) {
    case "prompt":
      return (
        <NextBar
          tone={state.message ? "loose" : "act"}
          say={step.say}
          caution={caution}
          detail={state.message ?? (step.wants && `${WANTS[step.wants]}.`)}
        >
          {big("Done", { type: "confirm", step: step.id })}
        </NextBar>
      );
    case "position":
      return (
        <NextBar say={`The board stands at ${placeName(ground.sheet, step.to)}.`}>
          {big("It stands there", { type: "place", step: step.id })}
        </NextBar>
      );
    case "ignition":
      return (
        <NextBar
          tone={state.message ? "loose" : "act"}
          say={step.say}
          caution={caution ?? (step.to === "running" ? EXHAUST : undefined)}
          detail={
            state.message ??
            (step.waitSeconds > 0 ? `Then ${step.waitSeconds} s of rest.` : undefined)
          }
        >
          {big(step.to === "running" ? "It runs" : `It is ${step.to}`, {
            type: "ignition",
            step: step.id,
            to: step.to,
          })}
        </NextBar>
      );
    case "hold":
      return state.ignitionAt ? (
        <HoldStep key={state.ignitionAt} step={step} state={state} busy={busy} command={command} />
      ) : null;
    case "choose":
      return <ChooseStep step={step} busy={busy} command={command} />;
    case "compare": {
      const v = state.values[step.id];
      if (v && passing === step.id)
        return (
          <LetPass step={step} busy={busy} command={command} onBack={() => setPassing(null)} />
        );
      if (state.byHand)
        return (
          <TypedValue
            key={step.id}
            step={step}
            state={state}
            busy={busy}
            command={command}
            onPass={() => setPassing(step.id)}
          />
        );
      return (
        <NextBar
          tone={v ? "loose" : "act"}
          say={step.say}
          figure={
            v ? `${formatNumber(v.value, step.unit === "V" ? 2 : 0)} ${step.unit}` : undefined
          }
          detail={
            v
              ? state.message
              : `The book allows ${formatNumber(step.min, step.unit === "V" ? 1 : 0)} to ${formatNumber(step.max, step.unit === "V" ? 1 : 0)} ${step.unit}. The tool may show another unit; it is converted.`
          }
        >
          <Stop command={command} busy={busy} />
          {v && (
            <Button look="quiet" size="large" onClick={() => setPassing(step.id)}>
              Let it pass
            </Button>
          )}
          {big(v ? "Read again" : "Read it", { type: "read", step: step.id }, "Reading")}
        </NextBar>
      );
    }
    case "input":
      return <InputStep key={step.id} step={step} busy={busy} command={command} />;
    case "aim":
      return (
        <AimStep
          key={step.id}
          step={step}
          aim={state.aims[step.id]}
          busy={busy}
          command={command}
        />
      );
    case "routine":
      if (state.status === "routine" && state.byHand)
        return <ResultByHand key={state.attempt} step={step} busy={busy} command={command} />;
      if (state.status === "routine" && busy !== "start")
        return (
          <AskVehicle
            say={LOOKING}
            detail="If it says nothing, the tool is asked what became of it."
            since={eventsOf(own, "run").at(-1)?.at ?? null}
            busy={busy}
            command={command}
          />
        );
      return (
        <NextBar
          tone={proved || !target ? "act" : "loose"}
          say={state.status === "routine" ? LOOKING : step.say}
          caution={caution}
          detail={
            !target
              ? undefined
              : proved
                ? `The ${noun(target)} ${isOne(target) ? "is" : "are"} proved in place.`
                : "The board is not proved in place; the vehicle will say what it sees."
          }
        >
          <Stop command={command} busy={busy} />
          {big("Start the routine", { type: "start", step: step.id }, "Looking")}
        </NextBar>
      );
  }
}

/**
 * A board the routine needs is in doubt, or is not where the routine left it: it is set out there
 * again.
 */
const Stop = ({ command, busy }: Pick<Props, "command" | "busy">) => (
  <Button
    look="quiet"
    size="large"
    disabled={busy !== null}
    onClick={() => void command({ type: "stop", reason: "Stopped by the technician" })}
  >
    Stop the run
  </Button>
);

/** Counts the rest down and goes on by itself. */
function Wait({
  until,
  step,
  command,
}: {
  until: string;
  step: SheetStep;
  command: Props["command"];
}) {
  const left = useLeft(until, () => command({ type: "waited", step: step.id }, true));
  return <NextBar say="Leave it to rest." detail={step.say} figure={secondsLeft(left)} />;
}

/**
 * A value the tool only has to be asked for is read by itself, once, on the tablet whose person drives
 * the run; a mismatch waits for somebody to look at it.
 */
function useSelfRead(
  state: RunState,
  step: SheetStep | null,
  free: boolean,
  command: Props["command"],
): void {
  const { own, me } = useJob();
  const asked = useRef<string | null>(null);
  const last = eventsOf(own, "run").at(-1);
  const due =
    free &&
    step?.kind === "compare" &&
    !state.byHand &&
    state.status === "connected" &&
    !state.values[step.id] &&
    last?.by.id === me.id &&
    me.role !== "viewer"
      ? `${step.id}/${state.attempt}`
      : null;
  useEffect(() => {
    if (!due || asked.current === due) return;
    asked.current = due;
    void command({ type: "read", step: due.slice(0, due.lastIndexOf("/")) }, true);
  }, [due, command]);
}

/** A length as it would be typed on this tablet. */
const inUnit = (mm: number, lengths: "mm" | "in"): string =>
  lengths === "mm" ? String(Math.round(mm)) : String(Math.round((mm / 25.4) * 100) / 100);

function InputStep({
  step,
  busy,
  command,
}: { step: Extract<SheetStep, { kind: "input" }> } & Pick<Props, "busy" | "command">) {
  const { lengths } = useSettings();
  const { ground, events } = useJob();
  const known = askedFor(ground, events, step);
  const [typed, setText] = useState<string | null>(null);
  const text = typed ?? (known ? inUnit(known.mm, lengths) : "");
  const [tried, setTried] = useState(false);
  const parsed = parseQuantity(
    text,
    { name: step.name, dimension: "length", min: step.minMm, max: step.maxMm },
    lengths,
  );
  return (
    <NextBar
      say={step.say}
      detail={
        tried && !parsed.ok ? (
          <span className="text-stop">{parsed.problem}</span>
        ) : (
          (known?.from ?? (step.takes?.startsWith("arch") ? ARCH : undefined))
        )
      }
    >
      <form
        className="flex items-stretch gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          setTried(true);
          if (parsed.ok) void command({ type: "input", step: step.id, valueMm: parsed.value });
        }}
      >
        <label className="flex items-baseline border-b-4 border-act px-2">
          <span className="sr-only">{step.name}</span>
          <input
            autoFocus
            data-catcher=""
            value={text}
            inputMode="decimal"
            autoComplete="off"
            placeholder="–"
            onChange={(e) => {
              setTried(false);
              setText(e.target.value);
            }}
            className="figure min-h-16 w-36 bg-transparent text-5xl font-semibold outline-none placeholder:text-chalk"
          />
          <span className="text-2xl text-soft">{lengths}</span>
        </label>
        <Button
          type="submit"
          look="act"
          size="large"
          disabled={busy !== null || text.trim() === ""}
        >
          Enter
        </Button>
      </form>
    </NextBar>
  );
}
