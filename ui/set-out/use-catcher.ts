import { useCallback, useEffect, useRef, useState } from "react";
import { parseShown, sideKeys, type Slot } from "@/core/setout";
import type { Parsed } from "@/core/units";

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
  const [, typed, figure] = /^\s*([+\-−]?)\s*(.*)$/.exec(sided ? sided[1]! : text)!;
  const pressed = sided ? (sided[2]!.toLowerCase() === "l" ? 1 : -1) : side;
  const sign = !slot.sides ? 0 : pressed !== 0 ? pressed : typed === "" ? 0 : typed === "+" ? 1 : -1;
  if (slot.sides && sign === 0) {
    // The figure alone says nothing yet; on either side it must be one that can be true.
    const [plus, minus] = [parseShown(figure!, slot, lengths), parseShown(`-${figure}`, slot, lengths)];
    if (plus.ok && plus.value === 0) return { kind: "value", shown: 0 };
    if (plus.ok || minus.ok)
      return { kind: "problem", message: `Say which side: ${slot.sides.positive} or ${slot.sides.negative}.` };
    return refused(plus);
  }
  const parsed = parseShown(slot.sides ? (sign < 0 ? "-" : "") + figure! : text, slot, lengths);
  return parsed.ok ? { kind: "value", shown: parsed.value === 0 ? 0 : parsed.value } : refused(parsed);
}

const refused = (parsed: Extract<Parsed, { ok: false }>): Caught => ({
  kind: "problem",
  message: parsed.problem,
  // The side stands on its button; the meaning is told without a sign.
  ...(parsed.guess && { guess: { ...parsed.guess, text: parsed.guess.text.replace(/^-/, "") } }),
});

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
