import type { ReactNode } from "react";
import { changedAim, changedAimWords } from "@/core/job/changed-aim";
import { aimAdvice, aimFits, type AimForetold } from "@/core/job";
import type { RunState } from "@/core/run";
import type { Sheet } from "@/core/sheet";
import { formatNumber } from "@/core/units";
import { Mark } from "../primitives/marks";

/**
 * What the vehicle answered: learned or refused, the quality against what the sheet asks, the aim
 * it learned.
 */
export function Result({
  state,
  sheet,
  foretold,
  children,
}: {
  state: RunState;
  sheet: Sheet;
  foretold: AimForetold | null;
  /** What is to be said of a refusal. */
  children?: ReactNode;
}) {
  const r = state.result!;
  const routine = sheet.run.find((s) => s.kind === "routine");
  const asked = routine?.kind === "routine" ? routine.minQuality : 0;
  const aims = r.learnedYawDeg !== undefined;
  const passed = state.status !== "failed";
  const changed = changedAim(state);
  const advice = foretold && aimAdvice(foretold);
  const deg = (v: number): string => `${v >= 0 ? "+" : ""}${formatNumber(v, 2)}°`;
  return (
    <section
      aria-label="Result"
      className={`m-3 border-l-8 bg-sheet p-4 lg:m-5 ${passed ? "border-settled" : "border-stop"}`}
    >
      <div className="flex flex-wrap items-center gap-x-8 gap-y-3">
        <p className="flex items-center gap-3 text-3xl font-semibold">
          <Mark state={passed ? "settled" : "stop"} size={24} />{" "}
          {!passed
            ? "The vehicle refused"
            : sheet.appliesTo.system === "surround-view"
              ? "The vehicle joined its pictures"
              : sheet.appliesTo.system === "mirror-camera"
                ? "The vehicle keeps both aims"
                : sheet.appliesTo.system === "front-radar"
                  ? "The radar answers how it was misaligned"
                  : "The vehicle learned its aim"}
        </p>
        <div className="min-w-56 flex-1">
          <p className="flex items-baseline justify-between text-base text-soft">
            <span>Quality</span>
            <span>
              <b className="figure text-3xl font-semibold text-ink" data-quality="">
                {formatNumber(r.qualityPercent)} %
              </b>{" "}
              asked {asked} %
            </span>
          </p>
          <svg viewBox="0 0 100 6" preserveAspectRatio="none" className="h-3 w-full" aria-hidden>
            <rect width={100} height={6} fill="var(--wash)" />
            <rect
              width={Math.min(100, r.qualityPercent)}
              height={6}
              fill={passed ? "var(--settled)" : "var(--stop)"}
            />
            <rect x={asked - 0.4} width={0.8} height={6} fill="var(--ink)" />
          </svg>
        </div>
        {aims && (
          <dl className="flex flex-wrap gap-x-6 gap-y-2">
            {(
              [
                ["Yaw", "yaw", r.learnedYawDeg],
                ["Pitch", "pitch", r.learnedPitchDeg],
                ["Roll", "roll", r.learnedRollDeg],
              ] as const
            ).flatMap(([name, axis, v]) =>
              v === undefined ? (
                []
              ) : (
                <div key={name}>
                  <dt className="text-sm text-soft">{name}</dt>
                  <dd className="figure text-xl font-semibold">{deg(v)}</dd>
                  <Foretold of={foretold?.axes.find((a) => a.axis === axis)} />
                </div>
              ),
            )}
          </dl>
        )}
      </div>
      {advice && (
        <p
          role="note"
          className={`mt-3 border-l-4 pl-3 text-lg ${aimFits(foretold) === "at-odds" ? "border-stop" : "border-loose"}`}
        >
          {advice.say} <span className="text-soft">{advice.todo}</span>
        </p>
      )}
      {state.message && <p className="mt-3 text-xl text-stop">{state.message}</p>}
      {changed && <p className="mt-3 text-lg">{changedAimWords(changed)}</p>}
      {children}
    </section>
  );
}

/** What set-out, glass seat and stance had foretold of one turn, with its standard uncertainty. */
function Foretold({ of }: { of: AimForetold["axes"][number] | undefined }) {
  if (!of) return null;
  const mean = Math.abs(of.meanDeg) < 0.005 ? 0 : of.meanDeg;
  return (
    <dd className="text-sm text-soft">
      foretold{" "}
      <span className="figure">
        {mean >= 0 ? "+" : ""}
        {formatNumber(mean, 2)} ± {formatNumber(of.sigmaDeg, 2)}°
      </span>
    </dd>
  );
}
