"use client";

import { useRouter } from "next/navigation";
import { useEffect } from "react";
import { STAGES } from "@/core/job";

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
