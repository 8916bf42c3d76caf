"use client";

import { TOUCHES } from "@/core/setout";
import { Button } from "../primitives/button";
import { useJob } from "./job-store";
import type { EventBody, JobEvent } from "@/core/job";

/** Two tablets wrote at once: both are shown, nothing is overwritten, the second writer decides. */
export function Conflict() {
  const { connection, pending, judged, resolveConflict } = useJob();
  if (connection.kind !== "conflict") return null;
  const name = (slotId: string): string => judged?.solution.slots.find((s) => s.id === slotId)?.name ?? slotId;
  const words = (b: EventBody): string => {
    switch (b.kind) {
      case "reading":
        return `${name(b.slotId)}: ${b.typed}`;
      case "touch":
        return `touched: ${TOUCHES[b.touch].name}`;
      case "strike":
        return `struck a line: ${b.reason}`;
      case "move":
        return "moved the stand";
      case "check":
        return `checked ${b.itemId}`;
      default:
        return b.kind.replace("-", " ");
    }
  };
  const who = [...new Set(connection.theirs.map((e: JobEvent) => e.by.name))].join(" and ");
  return (
    <section role="alert" aria-label="Two tablets wrote" className="border-t-4 border-stop bg-sheet p-4">
      <h2 className="text-xl font-semibold">{who} wrote to this job first. Yours is kept here and not written yet.</h2>
      <div className="my-3 grid gap-4 sm:grid-cols-2">
        <div>
          <h3 className="text-sm font-semibold text-soft">Theirs, already written</h3>
          <ul>
            {connection.theirs.map((e) => (
              <li key={e.id}>
                {words(e.body)} <span className="text-soft">({e.by.initials})</span>
              </li>
            ))}
          </ul>
        </div>
        <div>
          <h3 className="text-sm font-semibold text-soft">Yours, waiting</h3>
          <ul>
            {pending.map((p) => (
              <li key={p.id}>{words(p.show)}</li>
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
