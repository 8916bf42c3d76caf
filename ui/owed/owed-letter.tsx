"use client";

import { EMPTY_MEMORY } from "@/core/owed";
import type { JobRecord } from "@/core/record";
import { Button } from "../primitives/button";
import { useTimes } from "../settings";

const OUTCOMES = {
  "this-record": "Done in this job; its measurements are on the report.",
  done: "Done.",
  open: "Still to be done.",
  declined: "Not done.",
} as const;

/** A letter in plain words: what was done to the car, what that makes necessary, and why. */
export function OwedLetter({ record }: { record: JobRecord }) {
  const { dateAndTime } = useTimes();
  const { vehicle, job, owed } = record;
  return (
    <main className="mx-auto max-w-[780px] bg-sheet p-8 print:p-0">
      <div className="no-print mb-6 flex justify-end">
        <Button look="act" onClick={() => window.print()}>
          Print
        </Button>
      </div>
      <h1 className="text-3xl font-semibold">Why your car’s cameras are calibrated</h1>
      <p className="mt-2 text-lg text-soft">
        {vehicle.make} {vehicle.model}, {vehicle.plate || "no plate"}, VIN {vehicle.vin}. Job{" "}
        {job.number} for {job.customer}, taken in {dateAndTime(job.takenInAt)}.
      </p>
      <h2 className="mt-6 text-xl font-semibold">What was done to the car</h2>
      <p className="text-lg">{owed.done.join(", ")}.</p>
      <h2 className="mt-6 text-xl font-semibold">What that makes necessary</h2>
      {owed.lines.length === 0 && <p className="text-lg">Nothing, by the shop’s rules.</p>}
      <ol className="mt-1 flex flex-col gap-4">
        {owed.lines.map((l, i) => (
          <li key={l.name} className="break-inside-avoid border-t border-hairline pt-2">
            <p className="text-lg font-semibold">
              {i + 1}. {l.name}
            </p>
            {l.reasons.map((r) => (
              <p key={r.because + r.source} className="text-lg leading-snug">
                {r.reason} <span className="text-base text-soft">({r.source})</span>
              </p>
            ))}
            <p className="mt-1 text-base">
              {OUTCOMES[l.outcome]}
              {l.done && ` ${l.done.note} (${l.done.by.name}).`}
              {l.declined &&
                ` ${l.declined.reason} (${l.declined.by.name}, ${dateAndTime(l.declined.at)}).`}
            </p>
          </li>
        ))}
      </ol>
      <p className="mt-6 text-base">{EMPTY_MEMORY}</p>
      <p className="mt-4 text-sm text-soft">{record.notice}</p>
    </main>
  );
}
