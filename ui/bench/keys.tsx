"use client";

import { useRouter } from "next/navigation";
import { useEffect } from "react";
import { STAGES } from "@/core/job";
import { Dialog } from "../primitives/dialog";

export type KeyActs = Partial<Record<"t" | "n" | "u" | "s" | "w" | "x" | "k" | "?", () => void>>;

const inField = (e: KeyboardEvent): boolean =>
  e.target instanceof HTMLElement &&
  (e.target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(e.target.tagName));

/**
 * The bench's keys. Letters act even while the reading catcher has the focus (a reading has no such
 * letters: T, N, U, S, W, X and K are in no unit it takes); digits go to the catcher then, and to the
 * stages otherwise. Alt with a digit always means a stage.
 */
export function useKeys(jobId: string, acts: KeyActs): void {
  const router = useRouter();
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      if (e.ctrlKey || e.metaKey || document.querySelector('[role="dialog"]')) return;
      const field = inField(e);
      const catcher = field && (e.target as HTMLElement).dataset.catcher !== undefined;
      const stage =
        /^Digit([1-8])$/.exec(e.code)?.[1] ?? (/^[1-8]$/.test(e.key) ? e.key : undefined);
      if (stage && (e.altKey || !field)) {
        e.preventDefault();
        router.push(`/jobs/${jobId}/${STAGES[Number(stage) - 1]!.id}`);
        return;
      }
      if (e.altKey || (field && !catcher)) return;
      if (e.key === "/" && !field) {
        e.preventDefault();
        router.push("/?find");
        return;
      }
      const act = acts[e.key.toLowerCase() as keyof KeyActs];
      if (!act) return;
      e.preventDefault();
      act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [acts, jobId, router]);
}

const KEYS: [string, string][] = [
  ["1 – 8", "Stage (with Alt while a reading is being typed)"],
  ["Figures, Enter", "The armed reading"],
  ["T", "Touched something"],
  ["N", "Another reading"],
  ["W", "The way of setting out"],
  ["X", "The other target that lies there too"],
  ["K", "The next calibration of the job"],
  ["U", "Undo the last thing at the stand"],
  ["S", "Slip"],
  ["/", "Find a job"],
  ["?", "These keys"],
  ["Escape", "Put a sheet away"],
];

export function KeySheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title="Keys">
      <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-2 text-lg">
        {KEYS.map(([key, what]) => (
          <div key={key} className="contents">
            <dt className="figure font-semibold">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-4 text-soft">
        A code scanner types fast and ends with Enter: such a burst is taken as a code, not as a
        measurement.
      </p>
    </Dialog>
  );
}
