import { useEffect, useState } from "react";

const LATER_MS = 4000;

/**
 * Fetches parts of the page once it has come to rest, so that they are there when the shop is out
 * of reach; each is asked for until the shop answers, by whoever fetches it patiently.
 *
 * @returns whether they were fetched: what nobody needs at first is drawn then
 */
export function useLater(parts: Readonly<Record<string, () => Promise<unknown>>>): boolean {
  const [there, setThere] = useState(false);
  useEffect(() => {
    const timer = setTimeout(
      () =>
        void Promise.allSettled(Object.values(parts).map((load) => load())).then(() =>
          setThere(true),
        ),
      LATER_MS,
    );
    return () => clearTimeout(timer);
  }, [parts]);
  return there;
}
