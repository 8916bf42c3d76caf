import Link from "next/link";
import { memo } from "react";
import type { JobState, JobTicket } from "@/core/job";
import { STAGES } from "@/core/job/stage-list";
import { Mark, type MarkState } from "../primitives/marks";
import { useTimes } from "../settings";

const STATES: Record<JobState, { words: string; mark: MarkState; tone: string }> = {
  "in-work": { words: "In work", mark: "loose", tone: "text-loose" },
  refused: { words: "Vehicle refused", mark: "stop", tone: "text-stop" },
  blocked: { words: "Blocked", mark: "stop", tone: "text-stop" },
  "ready-to-hand-over": { words: "Ready to hand over", mark: "settled", tone: "text-settled" },
  "handed-over": { words: "Handed over", mark: "settled", tone: "text-soft" },
};

type Props = { ticket: Omit<JobTicket, "on">; on: JobTicket["on"]; waiting: number; now: string };

/** One job on the list: what it is, how far it is, what it lacks, who has it open. */
export const Ticket = memo(function Ticket({ ticket: t, on, waiting, now }: Props) {
  const { dateAndTime } = useTimes();
  const state = STATES[t.state];
  const stage = t.lacks && STAGES.find((s) => s.id === t.lacks!.stage);
  return (
    <li className="border-b border-hairline">
      <Link
        href={`/jobs/${t.id}`}
        className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 px-2 py-3 hover:bg-sheet lg:grid-cols-[70px_1.25fr_1fr_1.35fr_130px] lg:items-center"
      >
        <span className="figure pt-0.5 text-xl font-semibold lg:pt-0">{t.number}</span>
        <span className="min-w-0">
          <span className="block truncate text-xl font-semibold leading-tight">{t.vehicle}</span>
          <span className="line-clamp-2 text-base text-soft">
            {t.plate || "no plate"} · {t.customer}
          </span>
        </span>
        <span className="col-start-2 min-w-0 lg:col-start-auto">
          <span className="line-clamp-2 text-base leading-tight">{t.done}</span>
          <span className="line-clamp-2 text-sm leading-tight text-soft">{t.sheet}</span>
        </span>
        <span className="col-start-2 min-w-0 lg:col-start-auto">
          <span className={`flex items-center gap-2 text-base font-semibold ${state.tone}`}>
            <Mark state={state.mark} size={12} /> {state.words}
          </span>
          <span className="line-clamp-3 text-sm leading-tight text-soft">
            {t.state === "handed-over" || !stage
              ? `Last written ${dateAndTime(t.last.at)}`
              : `${stage.n} ${stage.name}: ${t.lacks!.words}`}
          </span>
          {t.promisedAt && t.state !== "handed-over" && (
            <span
              className={`block truncate text-sm ${t.promisedAt < now ? "font-semibold text-loose" : "text-soft"}`}
            >
              {`Promised for ${dateAndTime(t.promisedAt)}${t.promisedAt < now ? ": late" : ""}`}
            </span>
          )}
        </span>
        <span className="col-start-2 flex items-center gap-3 lg:col-start-auto lg:flex-col lg:items-end lg:gap-1">
          <span className="flex gap-1" aria-hidden>
            {t.stages.map((s) => (
              <Mark key={s.id} state={s.state} size={11} />
            ))}
          </span>
          <span className="truncate text-sm text-soft">
            {waiting > 0 ? (
              <b className="font-semibold text-loose">{`${waiting} kept here, not sent`}</b>
            ) : on.length > 0 ? (
              <b className="font-semibold text-act">{on.map((p) => p.name).join(", ")} on it</b>
            ) : (
              `by ${t.last.name}`
            )}
          </span>
        </span>
      </Link>
    </li>
  );
});
