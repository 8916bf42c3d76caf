"use client";

import { useRouter } from "next/navigation";
import { useEffect } from "react";
import { STAGES } from "@/core/job";
import { inField } from "../primitives/in-field";

export type KeyActs = Partial<
  Record<"t" | "n" | "u" | "s" | "w" | "x" | "k" | "/" | "?", () => void>
>;

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
      // A fraction of an inch has a slash too; a reading never begins with one.
      if (e.key === "/" && catcher && (e.target as HTMLInputElement).value !== "") return;
      const act = acts[e.key.toLowerCase() as keyof KeyActs];
      if (!act) return;
      e.preventDefault();
      act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [acts, jobId, router]);
}
