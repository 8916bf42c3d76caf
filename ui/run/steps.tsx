import type { RunState } from "@/core/run";
import type { Sheet, SheetStep } from "@/core/sheet";
import { shownWords } from "@/core/job";
import { formatNumber, formatQuantity } from "@/core/units";
import { Pictures } from "../photos/pictures";
import { duration } from "./left";
import { Mark, type MarkState } from "../primitives/marks";

const UNIT = { mm: "mm", V: "V", deg: "°" } as const;

/** What a step gave, in words. */
function outcome(step: SheetStep, state: RunState): string | null {
  if (step.kind === "compare") {
    const v = state.values[step.id];
    if (!v)
      return `book: ${formatNumber(step.min, step.unit === "mm" ? 0 : 1)} to ${formatNumber(step.max, step.unit === "mm" ? 0 : 1)} ${UNIT[step.unit]}`;
    if (v.shownUnit === step.unit)
      return `${formatNumber(v.value, step.unit === "mm" ? 0 : 2)} ${UNIT[step.unit]}`;
    return `tool ${formatNumber(v.shownValue, 1)} ${v.shownUnit} = ${formatNumber(v.value)} ${step.unit}`;
  }
  if (step.kind === "input") {
    const v = state.inputsMm[step.id];
    return v === undefined ? null : formatQuantity(v, "mm");
  }
  if (step.kind === "aim") {
    const aim = state.aims[step.id];
    return aim ? `${shownWords(aim)}${aim.inside ? "" : ", not there yet"}` : null;
  }
  if (step.kind === "choose")
    return step.options.find((o) => o.id === state.choices[step.id])?.name ?? null;
  const missed = state.missed[step.id] ?? 0;
  const tries = missed > 0 ? `; missed ${missed === 1 ? "once" : `${missed} times`}` : "";
  if (step.kind === "hold") return `within ${step.withinSeconds} s${tries}`;
  if (step.kind === "position" && step.withinSeconds !== undefined)
    return `the vehicle waits ${duration(step.withinSeconds)}${tries}`;
  if (step.kind === "ignition" && step.waitSeconds > 0) return `rest ${step.waitSeconds} s`;
  return null;
}

/** The sheet's steps: done, here, to come. */
export function Steps({
  state,
  sheet,
  current,
}: {
  state: RunState;
  sheet: Sheet;
  current: SheetStep | null;
}) {
  const over = state.status === "passed";
  return (
    <ol className="m-3 flex flex-col lg:m-5" aria-label="Steps">
      {sheet.run.map((step, i) => {
        const here = current?.id === step.id;
        const done = over || (state.status !== "not-started" && i < state.stepIndex);
        const refusedHere = state.status === "failed" && i === state.stepIndex;
        const outside = step.kind === "compare" && state.values[step.id]?.inside === false;
        const mark: MarkState = refusedHere
          ? "stop"
          : outside
            ? "loose"
            : done
              ? "settled"
              : "open";
        return (
          <li
            key={step.id}
            aria-current={here ? "step" : undefined}
            className={`grid grid-cols-[32px_1fr_auto] items-center gap-3 border-b border-dashed border-hairline border-l-4 px-3 py-2.5 ${here ? "border-l-act bg-sheet" : "border-l-transparent"}`}
          >
            <span className="figure text-xl text-soft">{i + 1}</span>
            <span
              className={`text-lg leading-tight ${here ? "font-semibold" : done ? "" : "text-soft"}`}
            >
              {step.say}
              {state.values[step.id]?.accepted && (
                <span className="block text-base font-normal text-loose">
                  Let pass: {state.values[step.id]!.accepted}
                </span>
              )}
              <Pictures pictures={step.pictures} />
            </span>
            <span className="flex items-center gap-3 text-right">
              <span className="figure whitespace-normal text-base text-soft">
                {outcome(step, state)}
              </span>
              <Mark state={mark} size={16} />
            </span>
          </li>
        );
      })}
    </ol>
  );
}
