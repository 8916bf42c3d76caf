"use client";

import { Button } from "../primitives/button";
import { useJob } from "./job-store";
import type { JobEvent } from "@/core/job";
import { useLineWords } from "../outbox/line-words";

/** Two tablets wrote at once: both are shown, nothing is overwritten, the second writer decides. */
export function Conflict() {
  const { connection, pending, resolveConflict } = useJob();
  const lineWords = useLineWords();
  if (connection.kind !== "conflict") return null;
  const who = [...new Set(connection.theirs.map((e: JobEvent) => e.by.name))].join(" and ");
  return (
    <section
      role="alert"
      aria-label="Two tablets wrote"
      className="border-t-4 border-stop bg-sheet p-4"
    >
      <h2 className="text-xl font-semibold">
        {who} wrote to this job first. Yours is kept here and not written yet.
      </h2>
      <div className="my-3 grid gap-4 sm:grid-cols-2">
        <div>
          <h3 className="text-sm font-semibold text-soft">Theirs, already written</h3>
          <ul>
            {connection.theirs.map((e) => (
              <li key={e.id}>
                {lineWords(e.body)} <span className="text-soft">({e.by.initials})</span>
              </li>
            ))}
          </ul>
        </div>
        <div>
          <h3 className="text-sm font-semibold text-soft">Yours, waiting</h3>
          <ul>
            {pending.map((p) => (
              <li key={p.id}>{lineWords(p.show)}</li>
            ))}
          </ul>
        </div>
      </div>
      <div className="flex flex-wrap gap-3">
        <Button look="act" size="large" onClick={() => resolveConflict(true)}>
          Add mine after theirs
        </Button>
        <Button look="plain" size="large" onClick={() => resolveConflict(false)}>
          Drop mine
        </Button>
      </div>
    </section>
  );
}
