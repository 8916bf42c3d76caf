import { wrap, type Remote } from "comlink";
import { useEffect, useState } from "react";
import type { SurroundWorker } from "@/workers/surround/surround.worker";

let worker: Remote<SurroundWorker> | null = null;
const surround = (): Remote<SurroundWorker> =>
  (worker ??= wrap<SurroundWorker>(
    new Worker(new URL("../../workers/surround/surround.worker.ts", import.meta.url), {
      type: "module",
    }),
  ));

/**
 * What the worker says, once it has said it; undefined until then. What was said before stays while a
 * new answer is worked out.
 *
 * @param ask must be kept by the caller (useCallback): another one is another question; null asks
 *   nothing
 */
export function useSurround<T>(
  ask: ((surround: Remote<SurroundWorker>) => Promise<T>) | null,
): T | undefined {
  const [answer, setAnswer] = useState<T | undefined>(undefined);
  useEffect(() => {
    if (!ask) return;
    let live = true;
    // Without an answer the page lacks a hint; nothing that is judged hangs on it.
    ask(surround()).then(
      (a) => live && setAnswer(a),
      () => undefined,
    );
    return () => void (live = false);
  }, [ask]);
  return answer;
}
