"use client";

import {
  createContext,
  useCallback,
  use,
  useContext,
  useMemo,
  useRef,
  useState,
  type ReactNode,
} from "react";
import {
  calibrationInHand,
  calibrationLog,
  judgeTarget,
  movesVehicle,
  SCOPES,
  scopedLog,
  settlementOf,
  slipLines,
  stageStates,
  targetFor,
  viewOf,
  type CalibrationGround,
  type JobEvent,
  type JobGround,
  type SlipLine,
  type StageState,
  type TabletEvent,
} from "@/core/job";
import { isByHand, type Judged } from "@/core/setout";
import { targetsOf, type Target } from "@/core/sheet";
import type { Line } from "../outbox/lines";
import { useOutbox, type Outbox } from "../outbox/use-outbox";
import { useKept } from "../primitives/use-kept";
import { useSettings, useTimes } from "../settings";
import { useSync, type Connection } from "./use-sync";

export type Me = {
  id: string;
  name: string;
  initials: string;
  role: "technician" | "lead" | "viewer";
};
export type JobHead = { id: string; number: number; simulated: boolean };

type Answer<T> = Promise<({ ok: true } & T) | { ok: false; message: string }>;

/** What the page hands to the bench of what only the shop can do. */
export type JobActions = {
  handOn: (jobId: string, personId: string, pin: string) => Answer<{ token: string }>;
  keepFloor: (jobId: string, bay: string) => Answer<object>;
};

type Store = {
  head: JobHead;
  me: Me;
  /** The job's documents as the calibration in hand sees them. */
  ground: CalibrationGround;
  actions: JobActions;
  /** Confirmed and pending together, of the whole job. */
  events: JobEvent[];
  /** The same as far as it concerns the calibration in hand. */
  own: JobEvent[];
  /** The target this tablet works on; null where the sheet sets nothing out. */
  target: Target | null;
  /** Turns this tablet to another calibration, or another target; other tablets stay where they are. */
  turnTo: (calibrationId: string, targetId?: string | null) => void;
  judged: Judged | null;
  /** Why the set-out cannot be judged at all (a sheet whose datum is unknown). */
  problem: string | null;
  stages: StageState[];
  slip: SlipLine[];
  connection: Connection;
  /** This person's lines that are on their way to the shop. */
  pending: Line[];
  outbox: Outbox;
  others: { name: string; initials: string }[];
  /** A refusal to show once. */
  notice: string | null;
  dismissNotice: () => void;
  say: (message: string) => void;
  /** Writes to the log: kept on the tablet at once, sent in the background. */
  write: (...bodies: TabletEvent[]) => void;
  resolveConflict: (keep: boolean) => void;
  /**
   * Sends another person's lines, that person's PIN in hand. Answers with what went wrong, or null.
   */
  sendFor: (personId: string, pin: string) => Promise<string | null>;
  /** Takes in events that another call brought (run commands). */
  absorb: (events: JobEvent[]) => void;
  confirmedHead: number;
};

const NOTHING_OUT = "This sheet sets nothing out.";

const Context = createContext<Store | null>(null);

export function useJob(): Store {
  const store = useContext(Context);
  if (!store) throw new Error("useJob outside a job");
  return store;
}

const merge = (a: JobEvent[], b: readonly JobEvent[]): JobEvent[] => {
  const known = new Set(a.map((e) => e.id));
  const fresh = b.filter((e) => !known.has(e.id));
  return fresh.length === 0 ? a : [...a, ...fresh].sort((x, y) => x.seq - y.seq);
};

/** What this tablet has turned to; null where it follows the work. */
type InHand = { calibrationId: string | null; targetId: string | null };
const FOLLOWS: InHand = { calibrationId: null, targetId: null };

/** A line with what it is of, where its kind is of anything and it does not say. */
function named(body: TabletEvent, calibrationId: string, targetId: string | null): TabletEvent {
  const scope = movesVehicle(body) ? "job" : SCOPES[body.kind];
  const ofCalibration = scope !== "job" || ("stage" in body && body.stage === "prove");
  return {
    ...(ofCalibration ? { calibrationId } : {}),
    ...(scope === "target" && targetId !== null ? { targetId } : {}),
    ...body,
  };
}

/** The log as the screens see it: what the shop confirmed, and behind it what is on its way. */
function withPending(confirmed: JobEvent[], pending: readonly Line[], me: Me): JobEvent[] {
  if (pending.length === 0) return confirmed;
  const known = new Set(confirmed.map((e) => e.id));
  const head = confirmed.at(-1)?.seq ?? 0;
  return [
    ...confirmed,
    ...pending
      .filter((p) => !known.has(p.id))
      .map((p, i): JobEvent => ({
        id: p.id,
        seq: head + 1 + i,
        at: p.takenAt,
        by: me,
        body: p.show,
      })),
  ];
}

/** The readings of all but boards ahead, fetched once, where a job has such targets. */
let onFloor: Promise<void> | null = null;
const fetchOnFloor = (): Promise<void> =>
  (onFloor ??= import("@/core/setout/floor-slots").then((m) => m.installFloorSlots()));

type JobProps = {
  head: JobHead;
  me: Me;
  ground: JobGround;
  initial: JobEvent[];
  actions: JobActions;
  children: ReactNode;
};

/** Everything of one job for the pages inside: its log, its outbox, the judgement of what is in hand. */
export function JobProvider(props: JobProps) {
  const around = props.ground.calibrations.some((c) =>
    c.sheet.setups.some((s) => s.relations || s.targets.some((t) => isByHand(t) || t.stands)),
  );
  if (around) use(fetchOnFloor());
  return <Provider {...props} />;
}

function Provider({ head, me, ground: job, initial, actions, children }: JobProps) {
  const { lengths } = useSettings();
  const times = useTimes();
  const [confirmed, setConfirmed] = useState(initial);
  const [notice, setNotice] = useState<string | null>(null);
  // The end of the log as this tablet's own writing has left it, known before the page is drawn
  // anew: what is written in between is written in knowledge of it.
  const ownHead = useRef(initial.at(-1)?.seq ?? 0);
  const absorb = useCallback(
    (fresh: readonly JobEvent[]) => setConfirmed((c) => merge(c, fresh)),
    [],
  );
  const absorbOwn = useCallback(
    (fresh: readonly JobEvent[]) => {
      ownHead.current = Math.max(ownHead.current, fresh.at(-1)?.seq ?? 0);
      absorb(fresh);
    },
    [absorb],
  );
  const confirmedHead = confirmed.at(-1)?.seq ?? 0;
  const outbox = useOutbox(head.id, me);
  const sync = useSync({
    jobId: head.id,
    me,
    outbox,
    confirmedHead,
    absorb,
    absorbOwn,
    say: setNotice,
    handOn: actions.handOn,
  });
  const { connection } = sync;

  const inConflict = connection.kind === "conflict";
  const events = useMemo(
    () => scopedLog(job, inConflict ? confirmed : withPending(confirmed, outbox.mine, me)),
    [job, confirmed, outbox.mine, inConflict, me],
  );
  const [inHand, setInHand] = useKept<InHand>(`iridel:in-hand:${head.id}`, FOLLOWS);
  const follows = inHand.calibrationId === null;
  const calibrationId = follows
    ? calibrationInHand(job, events, me.id).calibrationId
    : inHand.calibrationId;
  const ground = useMemo(() => viewOf(job, calibrationId), [job, calibrationId]);
  const target = useMemo(() => {
    const targets = targetsOf(ground.sheet);
    if (targets.length === 0) return null;
    return targets.find((t) => t.id === inHand.targetId) ?? targetFor(ground, events, me.id);
  }, [ground, events, inHand.targetId, me.id]);
  const { judged, problem } = useMemo(() => {
    if (!target) return { judged: null, problem: NOTHING_OUT };
    try {
      return { judged: judgeTarget(ground, events, target.id), problem: null };
    } catch (error) {
      return { judged: null, problem: error instanceof Error ? error.message : String(error) };
    }
  }, [ground, events, target]);

  const { keep, seenUpTo, drop } = outbox;
  const write = useCallback(
    (...bodies: TabletEvent[]) => {
      const written = bodies.flatMap((bare) => {
        const of = { calibrationId: ground.calibrationId, targetId: target?.id ?? "" };
        const send = named(bare, of.calibrationId, target?.id ?? null);
        const show = send.kind === "settle" ? judged && settlementOf(judged, of) : send;
        return show ? [{ send, show }] : [];
      });
      if (written.length > 0) keep(written, Math.max(confirmedHead, ownHead.current));
    },
    [judged, keep, confirmedHead, ground.calibrationId, target],
  );

  const store: Store = {
    head,
    me,
    ground,
    actions,
    events,
    own: useMemo(() => calibrationLog(ground, events), [ground, events]),
    target,
    turnTo: (of, targetId = null) => setInHand({ calibrationId: of, targetId }),
    judged,
    problem,
    stages: useMemo(() => stageStates(events, ground, ground.calibrationId), [events, ground]),
    slip: useMemo(
      () => slipLines(events, ground, judged, lengths, times),
      [events, ground, judged, lengths, times],
    ),
    connection,
    pending: outbox.mine,
    outbox,
    others: sync.others,
    notice,
    dismissNotice: () => setNotice(null),
    say: setNotice,
    write,
    resolveConflict: (keepMine) => {
      // Keeping means: written in knowledge of theirs. Sending goes on once the tablet has noted
      // that, or the same question would be asked again.
      void (keepMine ? seenUpTo(confirmedHead) : drop()).then(sync.decided);
    },
    sendFor: sync.sendFor,
    absorb,
    confirmedHead,
  };
  return <Context.Provider value={store}>{children}</Context.Provider>;
}
