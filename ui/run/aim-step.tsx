"use client";

import { useMemo, useState } from "react";
import { stepsWords } from "@/core/job";
import { aimTaskOf } from "@/core/job/aim-of";
import { adviseAim, AimError, type AimAdvice } from "@/core/mirror";
import type { AimState } from "@/core/run";
import type { SheetStep } from "@/core/sheet";
import { formatNumber, radToDeg } from "@/core/units";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { Button } from "../primitives/button";
import { middleOf, useCabinDisplay } from "./cabin-display";
import type { RunCommand } from "./use-run";

type AimStepOf = Extract<SheetStep, { kind: "aim" }>;

/** What is to be done about where the mark was read; why nothing can be said, where nothing can. */
export function useAimAdvice(
  step: AimStepOf,
  read: AimState | undefined,
): AimAdvice | { problem: string } | null {
  const { ground, events } = useJob();
  return useMemo(() => {
    if (!read?.fresh) return null;
    const aim = aimTaskOf(ground, events, step);
    if (!aim)
      return {
        problem: `The vehicle’s book has no camera on vehicle ${step.side}: enter it under Vehicles.`,
      };
    try {
      return adviseAim(aim.task, read, aim.sigma);
    } catch (error) {
      if (error instanceof AimError) return { problem: error.message };
      throw error;
    }
  }, [ground, events, step, read]);
}

/** A figure of the display, or null: "2.5", "2,5". */
const figureOf = (text: string): number | null => {
  const t = text.trim().replace(",", ".");
  return /^\d*\.?\d+$|^\d+\.$/.test(t) ? Number(t) : null;
};

const deg = (rad: number): string => `${formatNumber(Math.abs(radToDeg(rad)), 2)}°`;

/** One camera is turned until its mark stands where it belongs: read, turn, read again. */
export function AimStep({
  step,
  aim,
  busy,
  command,
}: {
  step: AimStepOf;
  aim: AimState | undefined;
  busy: string | null;
  command: (c: RunCommand) => Promise<boolean>;
}) {
  const advice = useAimAdvice(step, aim);
  const [again, setAgain] = useState(false);
  if (aim?.fresh && advice && !again) {
    if ("problem" in advice)
      return (
        <NextBar tone="stop" say="This reading fits no aim." detail={advice.problem}>
          <Button look="act" size="large" onClick={() => setAgain(true)}>
            Read again
          </Button>
        </NextBar>
      );
    const { steps, left, sigma } = advice;
    const none = steps.pan === 0 && steps.tilt === 0;
    if (none)
      return (
        <NextBar
          tone="loose"
          say="One step more would only carry the mark past its place."
          detail={`It is off by less than a step, and the sheet allows less than that: ${deg(left.pan)} across and ${deg(left.tilt)} up. Read it again.`}
        >
          <Button look="act" size="large" onClick={() => setAgain(true)}>
            Read again
          </Button>
        </NextBar>
      );
    return (
      <NextBar
        say={`Turn the ${step.side} camera by ${stepsWords(steps)}.`}
        caution={step.caution}
        detail={`Outward is away from the vehicle. ${advice.reaches ? "" : "Its steps are too coarse to bring the mark inside at once. "}Left over then: ${deg(left.pan)} across, ${deg(left.tilt)} up; the aim is known to ±\u00a0${deg(1.96 * Math.max(sigma.pan, sigma.tilt))}.`}
      >
        <Button look="quiet" size="large" onClick={() => setAgain(true)}>
          Correct it
        </Button>
        <Button
          look="act"
          size="large"
          disabled={busy !== null}
          onClick={() => void command({ type: "aim-turn", step: step.id, ...steps })}
        >
          {busy === "aim-turn" ? "Turning" : "Send"}
        </Button>
      </NextBar>
    );
  }
  return (
    <ReadMark
      step={step}
      aim={aim}
      busy={busy}
      onRead={async (right, up) => {
        if (await command({ type: "aim-read", step: step.id, right, up })) setAgain(false);
      }}
    />
  );
}

/** Where the mark stands: two figures of the scale, each with its way. */
function ReadMark({
  step,
  aim,
  busy,
  onRead,
}: {
  step: AimStepOf;
  aim: AimState | undefined;
  busy: string | null;
  onRead: (right: number, up: number) => Promise<void>;
}) {
  const { head } = useJob();
  const shown = useCabinDisplay(step);
  const cross = shown?.crosses.find((c) => c.id === step.mark);
  const stands = cross ? middleOf(cross.strokes) : null;
  const [across, setAcross] = useState("");
  const [high, setHigh] = useState("");
  const [toRight, setToRight] = useState(true);
  const [isUp, setIsUp] = useState(true);
  const [problem, setProblem] = useState<string | null>(null);
  const submit = (): void => {
    const [a, h] = [figureOf(across), figureOf(high)];
    if (a === null || h === null)
      return setProblem("Type both figures in divisions of the scale, such as 2.5 and 1.");
    if (a > 4 * step.scale.most || h > 4 * step.scale.most)
      return setProblem(
        `The scale ends at ${formatNumber(step.scale.most)} divisions: turn the camera until the mark is on it.`,
      );
    setProblem(null);
    void onRead(toRight ? a : -a, isUp ? h : -h).then(() => {
      setAcross("");
      setHigh("");
    });
  };
  /** A simulated display is read as an eye reads it: to a tenth of a division. */
  const readOff = (): void => {
    if (!stands) return;
    setAcross(Math.abs(stands.right).toFixed(1));
    setHigh(Math.abs(stands.up).toFixed(1));
    setToRight(stands.right >= 0);
    setIsUp(stands.up >= 0);
    setProblem(null);
  };
  const way = (on: boolean, yes: string, no: string, flip: () => void) => (
    <button
      type="button"
      onClick={flip}
      className="min-h-16 min-w-16 border-2 border-ink px-3 text-xl font-semibold"
      aria-label={`Way: ${on ? yes : no}; change it`}
    >
      {on ? yes : no}
    </button>
  );
  const field = (label: string, value: string, set: (v: string) => void, first: boolean) => (
    <label className="flex items-baseline border-b-4 border-act px-1">
      <span className="sr-only">{label}</span>
      <input
        autoFocus={first}
        data-catcher=""
        value={value}
        inputMode="decimal"
        autoComplete="off"
        placeholder="–"
        onChange={(e) => {
          setProblem(null);
          set(e.target.value);
        }}
        className="figure min-h-16 w-16 bg-transparent text-3xl font-semibold outline-none placeholder:text-chalk md:w-24 md:text-4xl"
      />
    </label>
  );
  return (
    <NextBar
      tone={aim && !aim.fresh ? "loose" : "act"}
      say={aim && !aim.fresh ? "Turned. Read where the mark stands now." : step.say}
      caution={aim ? undefined : step.caution}
      detail={
        problem ? (
          <span className="text-stop">{problem}</span>
        ) : (
          "Read the middle of the cross in divisions from the middle of the scale."
        )
      }
    >
      <form
        className="flex flex-col items-start gap-1"
        onSubmit={(e) => {
          e.preventDefault();
          submit();
        }}
      >
        <div className="flex flex-wrap items-stretch gap-2">
          {field("Divisions across", across, setAcross, true)}
          {way(toRight, "right", "left", () => setToRight((v) => !v))}
          {field("Divisions up or down", high, setHigh, false)}
          {way(isUp, "up", "down", () => setIsUp((v) => !v))}
          <Button type="submit" look="act" size="large" disabled={busy !== null}>
            Enter
          </Button>
        </div>
        {head.simulated && (
          <button
            type="button"
            disabled={!stands}
            onClick={readOff}
            className="min-h-12 rounded-md px-2 text-base font-semibold text-act underline decoration-dotted underline-offset-4 hover:bg-wash"
          >
            Read it off (simulated)
          </button>
        )}
      </form>
    </NextBar>
  );
}
