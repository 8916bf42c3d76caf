import { useCallback, useEffect, useState } from "react";

/**
 * State that outlives a reload and a crash: every change is kept on the tablet under `key` until it
 * is let go.
 *
 * @param first what it is before anything was typed; must not change while the key stays
 */
export function useKept<T extends object>(
  key: string,
  first: T,
): [T, (patch: Partial<T>) => void, (to?: T) => void] {
  const [value, setValue] = useState(first);
  useEffect(() => {
    try {
      const left = localStorage.getItem(key);
      // Only the browser knows what an earlier visit left; it is read after the first paint.
      // eslint-disable-next-line react-hooks/set-state-in-effect
      if (left) setValue((v) => ({ ...v, ...(JSON.parse(left) as Partial<T>) }));
    } catch {
      localStorage.removeItem(key);
    }
  }, [key]);
  const change = useCallback(
    (patch: Partial<T>) =>
      setValue((v) => {
        const next = { ...v, ...patch };
        localStorage.setItem(key, JSON.stringify(next));
        return next;
      }),
    [key],
  );
  const letGo = useCallback(
    (to?: T) => {
      localStorage.removeItem(key);
      if (to) setValue(to);
    },
    [key],
  );
  return [value, change, letGo];
}
