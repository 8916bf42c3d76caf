import { useEffect } from "react";

const LATER_MS = 4000;

/**
 * Fetches parts of the page once it has come to rest, so that they are there when the shop is out
 * of reach; what fails is tried again when opened.
 */
export function useLater(parts: Readonly<Record<string, () => Promise<unknown>>>): void {
  useEffect(() => {
    const timer = setTimeout(
      () => void Promise.allSettled(Object.values(parts).map((load) => load())),
      LATER_MS,
    );
    return () => clearTimeout(timer);
  }, [parts]);
}
