"use client";

import { useState } from "react";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { KeptLines } from "./kept-lines";
import { countLines } from "./lines";

/**
 * What waits on this tablet and does not go by itself: refused lines, lines of other people.
 * Nothing of it is lost.
 */
export function KeptHere() {
  const { outbox, connection } = useJob();
  const [open, setOpen] = useState(false);
  // What the shop says of itself (a full disk) needs somebody; a silence heals by itself and stands
  // in the top bar alone.
  const trouble = connection.kind === "offline" ? connection.message : null;
  const refused = outbox.stuck.filter((s) => s.behind === null).length;
  const held = outbox.stuck.length - refused;
  const others = outbox.foreign.reduce((n, f) => n + f.lines.length, 0);
  const words = [
    trouble,
    refused > 0 &&
      `${countLines(refused)} refused by the shop${held > 0 ? `, ${countLines(held)} held behind` : ""}.`,
    others > 0 &&
      `${countLines(others)} of ${outbox.foreign.map((f) => f.author?.name ?? "somebody").join(" and ")} ${others === 1 ? "waits" : "wait"} here.`,
  ];
  return (
    <>
      <section
        role="alert"
        aria-label="Kept on this tablet"
        className="flex items-center justify-between gap-4 border-t-4 border-dashed border-loose bg-sheet px-4 py-2 text-lg"
      >
        <span>
          <b className="font-semibold">{words.filter(Boolean).join(" ")}</b>
          {!trouble && " Kept on this tablet."}
        </span>
        {(refused > 0 || others > 0) && (
          <Button look="plain" onClick={() => setOpen(true)}>
            Look
          </Button>
        )}
      </section>
      {open && <KeptLines onClose={() => setOpen(false)} />}
    </>
  );
}
