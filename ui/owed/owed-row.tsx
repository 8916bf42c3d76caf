import type { JobOwedLine } from "@/core/job";
import {
  happeningName,
  lineName,
  minutesWords,
  SYSTEMS,
  type PlanStep,
  type SystemId,
} from "@/core/owed";
import { Button } from "../primitives/button";
import { Mark, type MarkState } from "../primitives/marks";
import { useTimes } from "../settings";

type Props = {
  n: number | null;
  line: JobOwedLine;
  step: PlanStep | null;
  onDecline: (() => void) | null;
  onDone: (() => void) | null;
  onUndo: (eventId: string) => void;
};

function stateOf(line: JobOwedLine): { mark: MarkState; words: string } {
  if (line.declined) return { mark: "struck", words: "declined" };
  if (line.done) return { mark: "settled", words: "done" };
  if (line.onSheet) return { mark: "settled", words: "on this job’s sheet" };
  return { mark: "loose", words: "open" };
}

/** Owed lines by the names of their systems: "the front radar and the surround-view cameras". */
const named = (ids: readonly string[]): string =>
  ids
    .map((id) => SYSTEMS[id.split("/")[0] as SystemId])
    .map((name) => `the ${name.charAt(0).toLowerCase()}${name.slice(1)}`)
    .join(" and ");

/** One owed calibration: why, by which rule, what comes before it, what became of it. */
export function OwedRow({ n, line, step, onDecline, onDone, onUndo }: Props) {
  const { clockTime } = useTimes();
  const state = stateOf(line);
  const said = line.declined ?? line.done;
  return (
    <li
      className={`grid grid-cols-[36px_1fr] gap-x-3 border-l-4 bg-sheet px-4 py-3 lg:grid-cols-[36px_1fr_210px] ${state.mark === "loose" ? "border-loose" : "border-settled"}`}
    >
      <span className="figure text-2xl text-soft">{n ?? "–"}</span>
      <div className="min-w-0">
        <p
          className={`flex flex-wrap items-center gap-x-3 text-xl font-semibold leading-tight ${line.declined ? "text-soft line-through" : ""}`}
        >
          {lineName(line)}
          {step?.effort && (
            <span className="figure text-base font-normal text-soft">
              {minutesWords(step.effort.bayMinutes + step.effort.roadMinutes)}
            </span>
          )}
        </p>
        {line.because.map((b) => (
          <p
            key={`${b.rule.id}${b.happening.event}${b.happening.place}`}
            className="mt-1 text-base leading-snug"
          >
            {b.rule.reason}{" "}
            <span className="text-sm text-soft">
              {happeningName(b.happening)}. {b.rule.source}.
              {b.rule.cancelledBy && ` Not owed only if: ${b.rule.cancelledBy.toLowerCase()}.`}
            </span>
          </p>
        ))}
        {line.added && (
          <p className="mt-1 text-base">
            {line.added.body.reason}{" "}
            <span className="text-sm text-soft">Added by {line.added.by.name}.</span>
          </p>
        )}
        {step && step.after.length > 0 && (
          <p className="mt-1 text-sm text-soft">
            After:{" "}
            {step.after
              .map((a) => a.why)
              .filter((w, i, all) => all.indexOf(w) === i)
              .join(" ")}
          </p>
        )}
        {step && (step.turn || step.clears.length > 0) && (
          <p className="mt-1 text-base font-semibold">
            {[
              step.turn && `Turn the vehicle first: nose ${step.turn}.`,
              step.clears.length > 0 &&
                `Clear away before it: what stands for ${named(step.clears)}.`,
            ]
              .filter(Boolean)
              .join(" ")}
          </p>
        )}
        {step && step.stay.length > 0 && (
          <p className="text-sm text-soft">What stands for {named(step.stay)} may stay.</p>
        )}
        {step && step.shares.length > 0 && (
          <p className="text-sm text-soft">Shares its set-up with {named(step.shares)}.</p>
        )}
      </div>
      <div className="col-start-2 mt-2 flex flex-col gap-1 lg:col-start-auto lg:mt-0 lg:items-end">
        <span className="flex items-center gap-2 text-base font-semibold">
          {state.words} <Mark state={state.mark} size={16} />
        </span>
        {said ? (
          <span className="text-sm text-soft lg:text-right">
            {said.body.kind === "owed-done" ? said.body.note : said.body.reason} ({said.by.initials}{" "}
            {clockTime(said.at)}){" "}
            <button
              type="button"
              className="min-h-8 font-semibold text-act underline"
              onClick={() => onUndo(said.id)}
            >
              Take back
            </button>
          </span>
        ) : (
          <span className="flex gap-1">
            {onDone && (
              <Button look="quiet" onClick={onDone}>
                Done
              </Button>
            )}
            {onDecline && (
              <Button look="faint" onClick={onDecline}>
                Decline
              </Button>
            )}
          </span>
        )}
      </div>
    </li>
  );
}
