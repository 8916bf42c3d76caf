import { useEffect, useRef, useState } from "react";
import type { JobEvent } from "@/core/job";

/** A line that says nothing for this long is not believed. */
const STALE_MS = 10_000;

export type Live = { kind: "live" } | { kind: "stale"; since: number };

/**
 * Follows a job's log as it is written, over one server-sent stream that reconnects by itself.
 * After a while in the dark (a locked screen, a lost network) it asks anew at once.
 */
export function useLive(
  jobId: string,
  confirmedHead: number,
  absorb: (events: JobEvent[]) => void,
): Live {
  const latest = useRef({ confirmedHead, absorb });
  useEffect(() => {
    latest.current = { confirmedHead, absorb };
  });
  const [live, setLive] = useState<Live>({ kind: "live" });
  useEffect(() => {
    let heard = Date.now();
    let source: EventSource | null = null;
    const hear = (): void => {
      heard = Date.now();
      setLive((l) => (l.kind === "live" ? l : { kind: "live" }));
    };
    const open = (): void => {
      source?.close();
      source = new EventSource(`/api/jobs/${jobId}/live?after=${latest.current.confirmedHead}`);
      source.onmessage = (e) => {
        hear();
        latest.current.absorb((JSON.parse(String(e.data)) as { events: JobEvent[] }).events);
      };
      source.addEventListener("beat", hear);
    };
    open();
    const timer = setInterval(() => {
      if (Date.now() - heard <= STALE_MS) return;
      setLive((l) => (l.kind === "stale" ? l : { kind: "stale", since: heard }));
      if (source?.readyState === EventSource.CLOSED) open();
    }, 1000);
    const wake = (): void => {
      if (!document.hidden && Date.now() - heard > 5000) open();
    };
    document.addEventListener("visibilitychange", wake);
    window.addEventListener("online", open);
    return () => {
      source?.close();
      clearInterval(timer);
      document.removeEventListener("visibilitychange", wake);
      window.removeEventListener("online", open);
    };
  }, [jobId]);
  return live;
}
