"use client";

import { blindTo, type Judged } from "@/core/setout";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";

/** Where the way of setting out cannot see the sheet's line: which reading would. */
export function BlindNote({ judged, onArm }: { judged: Judged; onArm: (slotId: string) => void }) {
  const { write, me } = useJob();
  const blind = blindTo(judged.solution);
  if (!blind) return null;
  const { say, slotId } = blind;
  return (
    <p
      role="note"
      className="flex flex-wrap items-center gap-x-4 border-b-2 border-dashed border-loose bg-sheet px-3 py-1.5 text-base"
    >
      <span className="min-w-0 flex-1">{say}</span>
      {slotId && me.role !== "viewer" && (
        <Button
          look="plain"
          onClick={() => {
            write({ kind: "school", school: "free" });
            onArm(slotId);
          }}
        >
          Read it
        </Button>
      )}
    </p>
  );
}
