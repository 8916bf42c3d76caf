"use client";

import { nanoid } from "nanoid";
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { planFor, setOutEntries, settlementOf, slipLines, stageStates, type JobEvent, type JobGround, type SlipLine, type StageState, type TabletEvent } from "@/core/job"; // prettier-ignore
import { nextAct, solveSetOut, type Judged } from "@/core/setout";
import { useSettings } from "../settings";
import { fetchEvents, goTogether, loadOutbox, saveOutbox, sendEvents, type Pending } from "./outbox";

export type Me = { id: string; name: string; initials: string; role: "technician" | "lead" | "viewer" };
export type JobHead = { id: string; number: number; simulated: boolean };

export type Connection =
  | { kind: "saved" }
  | { kind: "sending" }
  | { kind: "offline"; message: string }
  /** Others wrote first: theirs is shown, ours waits for a decision. */
  | { kind: "conflict"; theirs: JobEvent[] };

type Store = {
  head: JobHead;
  me: Me;
  ground: JobGround;
  /** Confirmed and pending together: what the screens work on. */
  events: JobEvent[];
  judged: Judged | null;
  /** Why the set-out cannot be judged at all (a sheet whose datum is unknown). */
  problem: string | null;
  stages: StageState[];
  slip: SlipLine[];
  connection: Connection;
  pending: Pending[];
  others: { name: string; initials: string }[];
  /** A refusal to show once. */
  notice: string | null;
  dismissNotice: () => void;
  say: (message: string) => void;
  /** Writes to the log: kept on the tablet at once, sent in the background. */
  write: (...bodies: TabletEvent[]) => void;
  resolveConflict: (keep: boolean) => void;
  /** Takes in events that another call brought (run commands). */
  absorb: (events: JobEvent[]) => void;
  confirmedHead: number;
};

const Context = createContext<Store | null>(null);

export function useJob(): Store {
  const store = useContext(Context);
  if (!store) throw new Error("useJob outside a job");
  return store;
}

const POLL_MS = 2500;
const RETRY_MS = 2000;

const merge = (a: JobEvent[], b: JobEvent[]): JobEvent[] => {
  const known = new Set(a.map((e) => e.id));
  const fresh = b.filter((e) => !known.has(e.id));
  return fresh.length === 0 ? a : [...a, ...fresh].sort((x, y) => x.seq - y.seq);
};

export function JobProvider({
  head,
  me,
  ground,
  initial,
  children,
}: {
  head: JobHead;
  me: Me;
  ground: JobGround;
  initial: JobEvent[];
  children: ReactNode;
}) {
  const { lengths } = useSettings();
  const [confirmed, setConfirmed] = useState(initial);
  const [pending, setPending] = useState<Pending[]>([]);
  const [connection, setConnection] = useState<Connection>({ kind: "saved" });
  const [others, setOthers] = useState<{ name: string; initials: string }[]>([]);
  const [notice, setNotice] = useState<string | null>(null);
  const sending = useRef(false);
  // The end of the log as this tablet's own writing has left it, known before the page is drawn anew: what is written in
  // between is written in knowledge of it.
  const ownHead = useRef(0);

  const setOutbox = useCallback(
    (change: (p: Pending[]) => Pending[]) => {
      setPending((now) => {
        const next = change(now);
        saveOutbox(head.id, next);
        return next;
      });
    },
    [head.id],
  );

  // What an earlier visit left unsent comes back first. It can only be read in the browser, after the first paint.
  useEffect(() => {
    const left = loadOutbox(head.id);
    // eslint-disable-next-line react-hooks/set-state-in-effect
    if (left.length > 0) setPending((now) => (now.length > 0 ? now : left));
  }, [head.id]);

  const confirmedHead = confirmed.at(-1)?.seq ?? 0;
  const latest = useRef({ confirmedHead, pending, connection });
  useEffect(() => {
    latest.current = { confirmedHead, pending, connection };
  });

  const flush = useCallback(async () => {
    const { pending: batch, connection: now } = latest.current;
    if (sending.current || batch.length === 0 || now.kind === "conflict") return;
    sending.current = true;
    setConnection({ kind: "sending" });
    const result = await sendEvents(head.id, batch);
    sending.current = false;
    const sent = new Set(batch.map((p) => p.id));
    // What was written meanwhile was written in knowledge of this batch.
    const forget = (seen = 0): void =>
      setOutbox((p) => p.filter((x) => !sent.has(x.id)).map((x) => ({ ...x, baseSeq: Math.max(x.baseSeq, seen) })));
    switch (result.kind) {
      case "written":
        ownHead.current = result.events.at(-1)?.seq ?? ownHead.current;
        setConfirmed((c) => merge(c, result.events));
        forget(result.events.at(-1)?.seq);
        return setConnection({ kind: "saved" });
      case "conflict":
        setConfirmed((c) => merge(c, result.missing));
        // The same person's other hand (a phone at the stand) read something meanwhile: readings do not contradict.
        if (goTogether(batch, result.missing, me.id)) {
          const seen = result.missing.at(-1)!.seq;
          setOutbox((p) => p.map((x) => ({ ...x, baseSeq: Math.max(x.baseSeq, seen) })));
          return setConnection({ kind: "saved" });
        }
        return setConnection({ kind: "conflict", theirs: result.missing });
      case "refused":
        forget();
        setNotice(result.message);
        return setConnection({ kind: "saved" });
      case "unreachable":
        return setConnection({ kind: "offline", message: result.message });
    }
  }, [head.id, setOutbox, me.id]);

  // Send as soon as there is something; while the shop is not reached, try again and again.
  useEffect(() => {
    if (pending.length === 0 || connection.kind === "conflict" || connection.kind === "sending") return;
    const timer = setTimeout(() => void flush(), connection.kind === "offline" ? RETRY_MS : 0);
    return () => clearTimeout(timer);
  }, [pending, connection, flush]);

  useEffect(() => {
    const poll = async (): Promise<void> => {
      if (latest.current.pending.length > 0 || document.hidden) return;
      const got = await fetchEvents(head.id, latest.current.confirmedHead);
      if (!got || latest.current.pending.length > 0) return;
      setOthers(got.others);
      if (got.events.length > 0) setConfirmed((c) => merge(c, got.events));
    };
    void poll();
    const timer = setInterval(() => void poll(), POLL_MS);
    return () => clearInterval(timer);
  }, [head.id]);

  const inConflict = connection.kind === "conflict";
  const events = useMemo(() => {
    if (inConflict || pending.length === 0) return confirmed;
    const known = new Set(confirmed.map((e) => e.id));
    const shown = pending.filter((p) => !known.has(p.id));
    return [
      ...confirmed,
      ...shown.map((p, i): JobEvent => ({ id: p.id, seq: confirmedHead + 1 + i, at: p.takenAt, by: me, body: p.show })),
    ];
  }, [confirmed, pending, inConflict, confirmedHead, me]);

  const plan = useMemo(() => planFor(ground, events), [ground, events]);
  const entries = useMemo(() => setOutEntries(events), [events]);
  const { judged, problem } = useMemo(() => {
    try {
      return { judged: nextAct(solveSetOut(plan, entries)), problem: null };
    } catch (error) {
      return { judged: null, problem: error instanceof Error ? error.message : String(error) };
    }
  }, [plan, entries]);

  const write = useCallback(
    (...bodies: TabletEvent[]) => {
      const fresh = bodies.flatMap((send): Pending[] => {
        const show = send.kind === "settle" ? judged && settlementOf(judged) : send;
        const baseSeq = Math.max(latest.current.confirmedHead, ownHead.current);
        return show ? [{ id: nanoid(16), takenAt: new Date().toISOString(), baseSeq, send, show }] : [];
      });
      setOutbox((p) => [...p, ...fresh]);
    },
    [judged, setOutbox],
  );

  const resolveConflict = useCallback(
    (keep: boolean) => {
      // Keeping means: written in knowledge of theirs.
      setOutbox((p) => (keep ? p.map((x) => ({ ...x, baseSeq: latest.current.confirmedHead })) : []));
      setConnection({ kind: "saved" });
    },
    [setOutbox],
  );

  const store: Store = {
    head,
    me,
    ground,
    events,
    judged,
    problem,
    stages: useMemo(() => stageStates(events, ground), [events, ground]),
    slip: useMemo(() => slipLines(events, ground, judged, lengths), [events, ground, judged, lengths]),
    connection,
    pending,
    others,
    notice,
    dismissNotice: () => setNotice(null),
    say: setNotice,
    write,
    resolveConflict,
    absorb: (fresh) => setConfirmed((c) => merge(c, fresh)),
    confirmedHead,
  };
  return <Context.Provider value={store}>{children}</Context.Provider>;
}
