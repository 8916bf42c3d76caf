import { useEffect, useState } from "react";
import { secondsToSet, type Judged } from "@/core/setout";

/**
 * How long it is likely to be until the target is set, in words; null where nobody can say. Worked out
 * once the page has drawn what is known: it is no part of the judgement and holds nothing up.
 */
export function useMinutes(judged: Judged | null): string | null {
  const [seconds, setSeconds] = useState<number | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => setSeconds(judged && secondsToSet(judged)), AFTER_MS);
    return () => clearTimeout(timer);
  }, [judged]);
  if (!judged || seconds === null || seconds === 0) return null;
  return seconds < 50 ? "under a minute" : `about ${Math.max(1, Math.round(seconds / 60))} min`;
}

/** Long enough for the drawing, short enough to be there before anybody reads it. */
const AFTER_MS = 60;
