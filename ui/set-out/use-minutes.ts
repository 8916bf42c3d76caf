import { useEffect, useState } from "react";
import { secondsToSet, type Judged } from "@/core/setout";

/**
 * How long it is likely to be until the target is set, in words; null where nobody can say. Worked out
 * once the page has drawn what is known: it is no part of the judgement and holds nothing up.
 */
export function useMinutes(judged: Judged | null): string | null {
  const [known, setKnown] = useState<{ of: Judged; seconds: number | null } | null>(null);
  useEffect(() => {
    if (!judged) return;
    const timer = setTimeout(
      () => setKnown({ of: judged, seconds: secondsToSet(judged) }),
      AFTER_MS,
    );
    return () => clearTimeout(timer);
  }, [judged]);
  const seconds = judged ? (known?.seconds ?? null) : null;
  if (seconds === null || seconds === 0) return null;
  return seconds < 50 ? "under a minute" : `about ${Math.max(1, Math.round(seconds / 60))} min`;
}

/** Long enough for the drawing, short enough to be there before anybody reads it. */
const AFTER_MS = 60;
