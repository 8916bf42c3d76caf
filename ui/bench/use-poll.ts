import { useEffect, useEffectEvent, useState } from "react";

/**
 * Asks again and again while it is wanted and the page is in sight; one question at a time, and a
 * page that comes back into sight asks at once. A question that fails is asked again in its turn.
 *
 * @param everyMs from one answer to the next question, ms
 * @param nudge asks at once whenever it changes
 * @returns what was answered last; undefined before the first answer
 */
export function usePoll<T>(
  ask: () => Promise<T>,
  { everyMs, wanted, nudge }: { everyMs: number; wanted: boolean; nudge: number },
): T | undefined {
  const [answer, setAnswer] = useState<T>();
  const question = useEffectEvent(ask);
  useEffect(() => {
    if (!wanted) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let asking = false;
    let over = false;
    const next = async (): Promise<void> => {
      clearTimeout(timer);
      if (asking || over || document.visibilityState === "hidden") return;
      asking = true;
      try {
        const got = await question();
        if (!over) setAnswer(got);
      } catch {
        // A silent shop is told by what cannot be sent; the next question follows anyway.
      } finally {
        asking = false;
      }
      if (!over) timer = setTimeout(() => void next(), everyMs);
    };
    const seen = (): void => void next();
    void next();
    document.addEventListener("visibilitychange", seen);
    return () => {
      over = true;
      clearTimeout(timer);
      document.removeEventListener("visibilitychange", seen);
    };
  }, [everyMs, wanted, nudge]);
  return answer;
}
