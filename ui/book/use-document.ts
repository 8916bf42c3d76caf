"use client";

import { useCallback, useEffect, useRef, useState } from "react";

/** How many changes can be taken back. */
const DEEP = 100;
/** What is typed at one field without a longer rest is one change. */
const REST_MS = 1500;

type State<T> = { doc: T; past: T[] };

/**
 * A document that is being written: its last changes can be taken back, and with a `key` it is kept
 * on this tablet until it is let go, so that a reload in the middle loses nothing.
 *
 * @param first what it is before anything was changed
 */
export function useDocument<T extends object>(key: string | null, first: T) {
  const [{ doc, past }, setState] = useState<State<T>>({ doc: first, past: [] });
  const [restored, setRestored] = useState(false);
  const last = useRef({ at: 0, where: "" });
  const untouched = useRef(first);
  useEffect(() => {
    if (!key) return;
    try {
      const left = localStorage.getItem(key);
      if (!left) return;
      const found = JSON.parse(left) as T;
      // Only the browser knows what an earlier visit left; it is read after the first paint.
      // eslint-disable-next-line react-hooks/set-state-in-effect
      setState((s) => ({ doc: found, past: [s.doc] }));
      setRestored(true);
    } catch {
      localStorage.removeItem(key);
    }
  }, [key]);
  useEffect(() => {
    if (key && doc !== untouched.current) localStorage.setItem(key, JSON.stringify(doc));
  }, [key, doc]);

  /** @param where the field; what goes on at the same one is taken back in one step */
  const change = useCallback((where: string, make: (doc: T) => T): void => {
    const now = Date.now();
    // A choice is a change of its own, however quickly the next one follows.
    const typing = document.activeElement instanceof HTMLInputElement;
    const goesOn = typing && where === last.current.where && now - last.current.at < REST_MS;
    last.current = { at: now, where };
    setState((s) => ({
      doc: make(s.doc),
      past: goesOn && s.past.length > 0 ? s.past : [...s.past.slice(1 - DEEP), s.doc],
    }));
  }, []);
  const undo = useCallback((): void => {
    last.current = { at: 0, where: "" };
    setState((s) => (s.past.length > 0 ? { doc: s.past.at(-1)!, past: s.past.slice(0, -1) } : s));
  }, []);
  /** It was written down, or is not wanted any more. */
  const letGo = useCallback((): void => {
    untouched.current = doc;
    if (key) localStorage.removeItem(key);
  }, [key, doc]);
  return { doc, change, undo, canUndo: past.length > 0, restored, letGo };
}
