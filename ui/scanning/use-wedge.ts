import { useEffect, useRef } from "react";
import { Wedge } from "./wedge";

/**
 * Listens for a scanner wherever the cursor stands.
 *
 * @param onBegin a burst may begin: remember what its characters are about to overwrite
 * @param onCode a code was scanned; answer true if it was of use, and its Enter goes no further
 */
export function useWedge(onBegin: () => void, onCode: (code: string) => boolean): void {
  const latest = useRef({ onBegin, onCode });
  useEffect(() => {
    latest.current = { onBegin, onCode };
  });
  useEffect(() => {
    const wedge = new Wedge();
    const onKey = (e: KeyboardEvent): void => {
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      const told = wedge.key(e.key, e.timeStamp);
      if (told === "began") latest.current.onBegin();
      else if (told && latest.current.onCode(told.code)) {
        e.preventDefault();
        e.stopPropagation();
      }
    };
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  }, []);
}
