import { useCallback, useEffect, useEffectEvent, useRef, useState } from "react";
import type { JobEvent } from "@/core/job";
import { flush, type Flushed } from "../outbox/flush";
import { fetchEvents, SILENT } from "../outbox/send";
import type { Outbox } from "../outbox/use-outbox";
import { usePoll } from "./use-poll";

export type Connection =
  | { kind: "saved" }
  | { kind: "sending" }
  /**
   * The message is what the shop itself says; null where it does not answer, which heals by itself.
   */
  | { kind: "offline"; message: string | null }
  /** Others wrote first: theirs is shown, ours waits for a decision. */
  | { kind: "conflict"; theirs: JobEvent[] };

const POLL_MS = 2500;
const RETRY_MS = 2000;
/** A tablet's clock that is off by more than this is told so. */
const CLOCK_OFF_S = 60;

type Answer<T> = Promise<({ ok: true } & T) | { ok: false; message: string }>;
type Sync = {
  jobId: string;
  me: { id: string };
  outbox: Outbox;
  confirmedHead: number;
  absorb: (events: readonly JobEvent[]) => void;
  /** The same for what came of this tablet's own writing. */
  absorbOwn: (events: readonly JobEvent[]) => void;
  say: (message: string) => void;
  handOn: (jobId: string, personId: string, pin: string) => Answer<{ token: string }>;
};

const clockWords = (offS: number): string =>
  `This tablet’s clock is ${Math.round(Math.abs(offS) / 60)} min ${offS > 0 ? "behind" : "ahead of"} the shop’s. Times are kept by the shop’s clock; set the tablet right.`;

/**
 * Keeps a job's log and this tablet in step: sends what waits, asks what others wrote, says how it
 * stands.
 */
export function useSync({
  jobId,
  me,
  outbox,
  confirmedHead,
  absorb,
  absorbOwn,
  say,
  handOn,
}: Sync) {
  const [conflict, setConflict] = useState<JobEvent[] | null>(null);
  const [offline, setOffline] = useState<{ message: string | null } | null>(null);
  /** Nothing could be sent just now: not reached, or another tab is at it. */
  const [later, setLater] = useState(false);
  /** How often sending came to an end, however it did: each end is a reason to look again. */
  const [sent, setSent] = useState(0);
  const told = useRef(false);
  // One post at a time: the hook hears of a post it has begun only a moment later, and a second one
  // would bring back a question that was just answered.
  const posting = useRef(false);
  const waiting = outbox.mine.length;

  const after = useCallback(
    (result: Flushed): void => {
      setOffline(result.kind === "offline" ? { message: result.message } : null);
      setLater(result.kind === "offline" || result.kind === "elsewhere");
      if (result.kind === "conflict") setConflict(result.theirs);
      if (result.kind !== "done" || Math.abs(result.clockOffS) <= CLOCK_OFF_S || told.current)
        return;
      told.current = true;
      say(clockWords(result.clockOffS));
    },
    [say],
  );
  const send = useCallback(
    async (by: { authorId: string; handedOn: string | null }): Promise<Flushed> => {
      try {
        const result = await flush({ jobId, ...by, absorb: absorbOwn, unsettled: say });
        after(result);
        return result;
      } catch (error) {
        setOffline({
          message:
            "The tablet cannot read what it keeps. Close other programs and reload the page.",
        });
        throw error;
      } finally {
        posting.current = false;
        setSent((n) => n + 1);
      }
    },
    [jobId, absorbOwn, say, after],
  );
  const post = useEffectEvent((): void => {
    if (posting.current) return;
    posting.current = true;
    // What goes wrong is said in the top bar.
    void send({ authorId: me.id, handedOn: null }).catch(() => {});
  });

  // Send as soon as there is something; while the shop is not reached, try again and again.
  useEffect(() => {
    if (waiting === 0 || conflict) return;
    const timer = setTimeout(() => post(), later ? RETRY_MS : 0);
    return () => clearTimeout(timer);
  }, [waiting, outbox.mine, conflict, sent, later, me.id]);

  // With the last waiting line gone, sent from here or by another tab, it asks at once: the log has
  // grown.
  const others = usePoll(
    async () => {
      const got = await fetchEvents(jobId, confirmedHead);
      absorb(got.events);
      return got.others;
    },
    { everyMs: POLL_MS, wanted: waiting === 0, nudge: sent },
  );

  const sendFor = useCallback(
    async (personId: string, pin: string): Promise<string | null> => {
      const answer = await handOn(jobId, personId, pin).catch(() => ({
        ok: false as const,
        message: "The shop does not answer. The lines are kept here; try again when it is back.",
      }));
      if (!answer.ok) return answer.message;
      posting.current = true;
      const result = await send({ authorId: personId, handedOn: answer.token });
      if (result.kind === "conflict")
        return "Others wrote to this job meanwhile. Have their author sign in and decide.";
      return result.kind === "offline" ? (result.message ?? SILENT) : null;
    },
    [handOn, jobId, send],
  );

  const connection: Connection = conflict
    ? { kind: "conflict", theirs: conflict }
    : offline !== null
      ? { kind: "offline", message: offline.message }
      : // From the touch on, not from the first post on: nothing that waits here is kept yet.
        waiting > 0
        ? { kind: "sending" }
        : { kind: "saved" };
  return { connection, others: others ?? [], decided: () => setConflict(null), sendFor };
}
