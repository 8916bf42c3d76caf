import { wrap, type Remote } from "comlink";
import { useEffect, useState } from "react";
import type { Proof } from "@/workers/proof/proof.worker";

let worker: Remote<Proof> | null = null;
const proof = (): Remote<Proof> =>
  (worker ??= wrap<Proof>(
    new Worker(new URL("../../workers/proof/proof.worker.ts", import.meta.url), { type: "module" }),
  ));

/**
 * What the worker says, once it has said it; undefined until then. What was said before stays while a
 * new answer is worked out.
 *
 * @param ask must be kept by the caller (useCallback): another one is another question
 */
export function useProof<T>(ask: (proof: Remote<Proof>) => Promise<T>): T | undefined {
  const [answer, setAnswer] = useState<T | undefined>(undefined);
  useEffect(() => {
    let live = true;
    // Without an answer the page lacks a line; nothing that is judged hangs on it.
    ask(proof()).then(
      (a) => live && setAnswer(a),
      () => undefined,
    );
    return () => void (live = false);
  }, [ask]);
  return answer;
}
