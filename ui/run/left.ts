import { useEffect, useState } from "react";

/** Milliseconds until a time, counted down; `over` is told once it has come, until it is taken. */
export function useLeft(until: string, over: () => Promise<boolean>): number {
  const [left, setLeft] = useState(() => Date.parse(until) - Date.now());
  useEffect(() => {
    const timer = setInterval(() => setLeft(Date.parse(until) - Date.now()), 200);
    return () => clearInterval(timer);
  }, [until]);
  const isOver = left <= 0;
  useEffect(() => {
    if (!isOver) return;
    // The tablet's clock may run ahead of the shop's: a refused "over" is simply said again.
    let stopped = false;
    const tell = async (): Promise<void> => {
      if (!stopped && !(await over()) && !stopped) setTimeout(() => void tell(), 800);
    };
    void tell();
    return () => {
      stopped = true;
    };
    // The command closes over the log's head; it must not restart the telling.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [isOver, until]);
  return left;
}

/** "3 min 05 s", "12 s": what is left of a time. */
export function secondsLeft(ms: number): string {
  const s = Math.max(0, Math.ceil(ms / 1000));
  return s < 60 ? `${s} s` : `${Math.floor(s / 60)}:${String(s % 60).padStart(2, "0")}`;
}

/** A time that was set: "45 s", "10 min". */
export const duration = (s: number): string =>
  s < 120 ? `${s} s` : `${Math.floor(s / 60)} min${s % 60 ? ` ${s % 60} s` : ""}`;
