import { useCallback, useEffect, useRef, useState } from "react";
import type { Target } from "@/core/sheet";

/** Where what is typed is kept: mats are read with the same slots, each by itself. */
export const draftPlace = (jobId: string, target: Pick<Target, "id" | "kind"> | null): string =>
  target && target.kind !== "board" ? `${jobId}/${target.id}` : jobId;

const draftKey = (jobId: string, slotId: string): string => `iridel:draft:${jobId}:${slotId}`;
const armedKey = (jobId: string): string => `iridel:armed:${jobId}`;

/** Which slot is armed by hand, remembered over a reload. Null: the one the ranking names. */
export function useArmed(jobId: string): [string | null, (slotId: string | null) => void] {
  const [armed, setArmed] = useState<string | null>(null);
  // Only the browser knows what an earlier visit left; it is read after the first paint.
  // eslint-disable-next-line react-hooks/set-state-in-effect
  useEffect(() => setArmed(sessionStorage.getItem(armedKey(jobId))), [jobId]);
  const arm = useCallback(
    (slotId: string | null) => {
      if (slotId) sessionStorage.setItem(armedKey(jobId), slotId);
      else sessionStorage.removeItem(armedKey(jobId));
      setArmed(slotId);
    },
    [jobId],
  );
  return [armed, arm];
}

/** The typed text of one slot; every keystroke is kept, so a reload or a crash loses nothing. */
export function useDraft(jobId: string, slotId: string): [string, (text: string) => void] {
  const [draft, setDraft] = useState("");
  // eslint-disable-next-line react-hooks/set-state-in-effect
  useEffect(() => setDraft(localStorage.getItem(draftKey(jobId, slotId)) ?? ""), [jobId, slotId]);
  const change = useCallback(
    (text: string) => {
      if (text) localStorage.setItem(draftKey(jobId, slotId), text);
      else localStorage.removeItem(draftKey(jobId, slotId));
      setDraft(text);
    },
    [jobId, slotId],
  );
  return [draft, change];
}

/**
 * A measurement begins with a figure, a sign or a point; what begins with letters and goes on with
 * figures is a code.
 */
const LOOKS_LIKE_CODE = /^[a-z]{1,6}[- ]?\d/i;

/**
 * Tells a code from a measurement: by its look, or because it came in a burst. A scanner types much
 * faster than fingers: four or more keys, on average less than 40 ms apart.
 */
export function useBurst(): {
  note: () => void;
  isCode: (text: string) => boolean;
  clear: () => void;
} {
  const times = useRef<number[]>([]);
  return {
    note: () => {
      times.current.push(performance.now());
    },
    isCode: (text) => {
      if (LOOKS_LIKE_CODE.test(text.trim())) return true;
      const t = times.current;
      return t.length >= 4 && t.length >= text.length && (t.at(-1)! - t[0]!) / (t.length - 1) < 40;
    },
    clear: () => {
      times.current = [];
    },
  };
}
