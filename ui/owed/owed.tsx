"use client";

import dynamic from "next/dynamic";
import { useState } from "react";
import { jobOwed, jobRedoneBy, unnamedSystems } from "@/core/job";
import {
  EMPTY_MEMORY,
  EVENT_PLACES,
  EVENTS,
  happeningName,
  lineName,
  minutesWords,
  needConflicts,
  SYSTEMS,
  type EventId,
} from "@/core/owed";
import { formatNumber } from "@/core/units";
import { Stage } from "../bench/bench";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { NextStage } from "../bench/next-stage";
import { Button } from "../primitives/button";
import { AddLine } from "./add-line";
import { OwedRow } from "./owed-row";
import { ReasonDialog } from "./reason-dialog";

const RoomInBays = dynamic(() => import("../bays/room-in-bays").then((m) => m.RoomInBays), {
  ssr: false,
});

type Asking = { line: string; kind: "owed-decline" | "owed-done" };

/**
 * What this job owes and in which order: each line with its reasons, what comes first, what became
 * of it.
 */
export function Owed() {
  const { ground, events, head, write, me } = useJob();
  const [asking, setAsking] = useState<Asking | null>(null);
  const [adding, setAdding] = useState(false);
  const [later, setLater] = useState<EventId>("alignment");
  const { lines, plan, problem } = jobOwed(ground, events);
  const unnamed = unnamedSystems(ground, events);
  const writes = me.role !== "viewer";
  const steps = plan?.steps ?? [];
  const ordered = [
    ...steps.map((s) => lines.find((l) => l.id === s.line.id)!),
    ...lines.filter((l) => l.declined || !plan),
  ].filter((l, i, all) => all.indexOf(l) === i);
  const open = ordered.filter((l) => !l.onSheet && !l.declined && !l.done);
  const again = EVENT_PLACES[later].length === 0 ? [null] : EVENT_PLACES[later];
  const redone = [
    ...new Set(again.flatMap((place) => jobRedoneBy(ground, lines, { event: later, place }))),
  ];

  const next = problem ? (
    <NextBar tone="stop" say="The shop’s orders contradict each other." detail={problem} />
  ) : lines.length === 0 ? (
    <NextStage
      after="owed"
      say="Nothing is owed by the shop’s rules."
      detail="If the maker’s information says otherwise, add it here, then have the rule book renewed."
    />
  ) : open.length > 0 && writes ? (
    <NextBar
      tone="loose"
      say={`${lineName(open[0]!)} is owed too, and no sheet of this job does it.`}
      detail={`${open.length > 1 ? `${open.length - 1} more after it. ` : ""}Say that it is done, decline it with a reason, or leave it open: the report says so.`}
    >
      <Button
        look="quiet"
        size="large"
        onClick={() => setAsking({ line: open[0]!.id, kind: "owed-decline" })}
      >
        Decline
      </Button>
      <Button
        look="plain"
        size="large"
        onClick={() => setAsking({ line: open[0]!.id, kind: "owed-done" })}
      >
        It is done
      </Button>
      <Onward />
    </NextBar>
  ) : (
    <NextStage
      after="owed"
      say={`${lines.length} calibration${lines.length === 1 ? "" : "s"} owed, each with its reason.`}
    />
  );

  return (
    <Stage title="Owed" next={next}>
      <div className="m-3 flex flex-col gap-3 lg:m-5">
        <header className="flex flex-wrap items-end justify-between gap-x-8 gap-y-2 border-b-2 border-ink pb-3">
          <div>
            <p className="text-base text-soft">Because of</p>
            <p className="text-2xl font-semibold leading-tight">
              {ground.intake.happenings.map(happeningName).join(", ")}
            </p>
          </div>
          {plan && lines.length > 0 && (
            <dl className="flex flex-wrap gap-x-6 gap-y-2">
              <Figure name="In the bay" value={minutesWords(plan.bayMinutes)} />
              {plan.setUpMinutes + plan.clearMinutes + plan.turnMinutes > 0 && (
                <Figure
                  name="Of it walking and setting up"
                  value={minutesWords(plan.setUpMinutes + plan.clearMinutes + plan.turnMinutes)}
                />
              )}
              {plan.roadMinutes > 0 && (
                <Figure name="On the road" value={minutesWords(plan.roadMinutes)} />
              )}
              <Figure name="Room ahead" value={`${formatNumber(plan.roomM.ahead, 1)} m`} />
            </dl>
          )}
        </header>
        {unnamed.length > 0 && (
          <p
            role="note"
            className="border-l-4 border-dashed border-loose bg-sheet px-4 py-2 text-base"
          >
            {unnamed.length === 1
              ? `A unit for ${SYSTEMS[unnamed[0]!].toLowerCase()} answers, and was not named at take-in.`
              : `Units for ${unnamed.map((s) => SYSTEMS[s].toLowerCase()).join(" and ")} answer, and were not named at take-in.`}{" "}
            The vehicle has it: what it owes is on the list. If the unit lies, decline the line with
            that as the reason.
          </p>
        )}
        {plan &&
          needConflicts(plan).map((c) => (
            <p
              key={c.need + c.first + c.then}
              className="border-l-4 border-dashed border-loose bg-sheet px-4 py-2 text-base"
            >
              {c.words}
            </p>
          ))}
        <ol className="flex flex-col gap-2">
          {ordered.map((line, i) => (
            <OwedRow
              key={line.id}
              n={line.declined ? null : i + 1}
              line={line}
              step={steps.find((s) => s.line.id === line.id) ?? null}
              onDecline={writes ? () => setAsking({ line: line.id, kind: "owed-decline" }) : null}
              onDone={
                writes && !line.onSheet
                  ? () => setAsking({ line: line.id, kind: "owed-done" })
                  : null
              }
              onUndo={(eventId) => write({ kind: "strike", target: eventId, reason: "Taken back" })}
            />
          ))}
        </ol>
        {plan && lines.length > 0 && <RoomInBays plan={plan} />}
        <div className="flex flex-wrap items-center gap-3">
          {writes && (
            <Button look="plain" onClick={() => setAdding(true)}>
              Add a calibration
            </Button>
          )}
          <a
            href={`/jobs/${head.id}/owed-letter`}
            target="_blank"
            rel="noreferrer"
            className="inline-flex min-h-12 items-center rounded-md border-2 border-ink bg-sheet px-5 font-semibold hover:bg-wash"
          >
            Letter for the customer
          </a>
          <p className="text-base text-soft">{EMPTY_MEMORY}</p>
        </div>
        <section className="flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-hairline pt-3">
          <label htmlFor="later" className="text-base text-soft">
            If this happens afterwards
          </label>
          <select
            id="later"
            value={later}
            onChange={(e) => setLater(e.target.value as EventId)}
            className="min-h-12 rounded-md border border-hairline bg-sheet px-3 text-base"
          >
            {(Object.keys(EVENTS) as EventId[]).map((e) => (
              <option key={e} value={e}>
                {EVENTS[e]}
              </option>
            ))}
          </select>
          <p className="text-base">
            {redone.length === 0 ? (
              "nothing of the above has to be done again."
            ) : (
              <b className="font-semibold">{`again: ${redone.map((id) => lineName(lines.find((l) => l.id === id)!)).join("; ")}.`}</b>
            )}
          </p>
        </section>
      </div>
      <ReasonDialog
        open={asking !== null}
        title={asking?.kind === "owed-done" ? "How was it done?" : "Decline this calibration"}
        label={
          asking?.kind === "owed-done"
            ? "With what, and what it said; this goes on the report"
            : "Why, and on whose word; this goes on the report"
        }
        action={asking?.kind === "owed-done" ? "It is done" : "Decline it"}
        note={asking ? lineName(lines.find((l) => l.id === asking.line)!) : ""}
        onClose={() => setAsking(null)}
        onReason={(reason) => {
          if (asking)
            write(
              asking.kind === "owed-done"
                ? { kind: "owed-done", line: asking.line, note: reason }
                : { kind: "owed-decline", line: asking.line, reason },
            );
          setAsking(null);
        }}
      />
      <AddLine
        open={adding}
        onClose={() => setAdding(false)}
        onAdd={(system, method, reason) => write({ kind: "owed-add", system, method, reason })}
      />
    </Stage>
  );
}

const Figure = ({ name, value }: { name: string; value: string }) => (
  <div>
    <dt className="text-sm text-soft">{name}</dt>
    <dd className="figure text-2xl font-semibold">{value}</dd>
  </div>
);

function Onward() {
  const { head, stages } = useJob();
  const ready = stages.find((s) => s.id === "ready")!.state === "settled";
  return (
    <a
      href={`/jobs/${head.id}/${ready ? "set-out" : "ready"}`}
      className="inline-flex min-h-16 items-center rounded-md bg-act px-5 text-xl font-semibold text-on-act"
    >
      {ready ? "4 Set out" : "3 Ready"}
    </a>
  );
}
