import { useEffect, useState } from "react";

/** What is typed is looked for once the fingers rest. */
const REST_MS = 180;

/** The text once it has rested. */
export function useRested(text: string): string {
  const [rested, setRested] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setRested(text), text === "" ? 0 : REST_MS);
    return () => clearTimeout(timer);
  }, [text]);
  return rested;
}
