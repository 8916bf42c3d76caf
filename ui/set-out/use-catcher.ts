import { useCallback, useEffect, useRef, useState } from "react";
import { parseShown, sideKeys, type Slot } from "@/core/setout";

/** What the typed text amounts to. */
export type Caught =
  | { kind: "empty" }
  | { kind: "value"; shown: number }
  | { kind: "problem"; message: string; guess?: { value: number; text: string } };

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

/** Reads the text as this slot's quantity. A signed slot takes a side: "12 L", "12 R" or the side buttons. */
export function readCaught(text: string, slot: Slot, side: 1 | -1 | 0, lengths: "mm" | "in"): Caught {
  if (text.trim() === "") return { kind: "empty" };
  const sided = slot.sides && sideKeys(slot)[0] === "L" ? /^(.*?)\s*([lr])\s*$/i.exec(text) : null;
  const parsed = parseShown(sided ? sided[1]! : text, slot, lengths);
  const sign = sided ? (sided[2]!.toLowerCase() === "l" ? 1 : -1) : side;
  const signed = (v: number): number => (slot.sides && sign !== 0 ? sign * Math.abs(v) : v);
  if (!parsed.ok)
    return {
      kind: "problem",
      message: parsed.problem,
      ...(parsed.guess && { guess: { value: signed(parsed.guess.value), text: parsed.guess.text } }),
    };
  if (slot.sides && sign === 0 && parsed.value > 0 && !/^\s*\+/.test(text))
    return { kind: "problem", message: `Say which side: ${slot.sides.positive} or ${slot.sides.negative}.` };
  return { kind: "value", shown: signed(parsed.value) };
}

/** A measurement begins with a figure, a sign or a point; what begins with letters and goes on with figures is a code. */
const LOOKS_LIKE_CODE = /^[a-z]{1,6}[- ]?\d/i;

/**
 * Tells a code from a measurement: by its look, or because it came in a burst. A scanner types much faster than
 * fingers: four or more keys, on average less than 40 ms apart.
 */
export function useBurst(): { note: () => void; isCode: (text: string) => boolean; clear: () => void } {
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
