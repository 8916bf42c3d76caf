import { nanoid } from "nanoid";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { EventBody, TabletEvent } from "@/core/job";
import type { Author, Line, LineState } from "./lines";
import { heldBehind } from "./send";
import { changeLines, keepLines, linesInSight, onLines } from "./storage";

export type Written = { send: TabletEvent; show: EventBody };

export type Outbox = {
  /** Everything that is kept here for the job, in order. */
  lines: Line[];
  /** This person's lines that are on their way. */
  mine: Line[];
  /** This person's lines that were refused, and those that wait behind them. */
  stuck: { line: Line; behind: Line | null }[];
  /** Lines of other people, by person; null are those of an older program. */
  foreign: { author: Author | null; lines: Line[] }[];
  keep: (written: readonly Written[], baseSeq: number) => void;
  /** Lets a refused line try again, changed or as it is. */
  mend: (id: string, change?: Written) => void;
  /** Takes a line out for good; it stays readable under what was taken out. */
  strike: (id: string) => void;
  /** Makes lines without an author this person's. */
  claim: () => void;
  /**
   * Throws this person's waiting lines away, or says that they were written in knowledge of the log
   * up to here.
   */
  drop: () => Promise<void>;
  seenUpTo: (seq: number) => Promise<void>;
};

const REREAD_MS = 2000;

const isStuck = (line: Line, all: readonly Line[]): boolean =>
  line.state.kind === "refused" ||
  (line.state.kind === "waiting" && heldBehind(line, all) !== null);

/**
 * The lines of one job that the shop has not confirmed: one queue for all tabs, kept in the
 * tablet's own database.
 */
export function useOutbox(jobId: string, me: Author): Outbox {
  const [lines, setLines] = useState<Line[]>([]);
  /** How often lines were read or written here: what was read before a later writing is old. */
  const turn = useRef(0);

  useEffect(() => {
    const read = async (): Promise<void> => {
      const mine = ++turn.current;
      const kept = await linesInSight(jobId);
      if (mine === turn.current) setLines(kept);
    };
    let timer: ReturnType<typeof setTimeout>;
    // What cannot be read stays in sight as it was, and is read again; that it cannot be sent is
    // said where it is sent.
    const again = (): void => {
      clearTimeout(timer);
      read().catch(() => (timer = setTimeout(again, REREAD_MS)));
    };
    again();
    const stop = onLines((changed) => changed === jobId && again());
    return () => {
      stop();
      clearTimeout(timer);
    };
  }, [jobId]);

  const keep = useCallback(
    (written: readonly Written[], baseSeq: number) => {
      const takenAt = new Date().toISOString();
      const author = { id: me.id, name: me.name, initials: me.initials };
      const state: LineState = { kind: "waiting" };
      const fresh = written.map(({ send, show }) => ({
        id: nanoid(16),
        jobId,
        author,
        takenAt,
        baseSeq,
        send,
        show,
        state,
      }));
      // Drawn at once; the database's own numbers follow.
      turn.current++;
      setLines((old) => [
        ...old,
        ...fresh.map((l, i) => ({ ...l, n: (old.at(-1)?.n ?? 0) + i + 1 })),
      ]);
      void keepLines(fresh);
    },
    [jobId, me.id, me.name, me.initials],
  );

  const change = useCallback(
    (ids: ReadonlySet<string> | null, how: (line: Line) => Line | null) =>
      changeLines(jobId, ids, how),
    [jobId],
  );
  const isMine = useCallback((l: Line) => l.author?.id === me.id, [me.id]);

  return {
    lines,
    mine: useMemo(
      () => lines.filter((l) => isMine(l) && l.state.kind === "waiting" && !isStuck(l, lines)),
      [lines, isMine],
    ),
    stuck: useMemo(
      () =>
        lines
          .filter((l) => isMine(l) && isStuck(l, lines))
          .map((line) => ({
            line,
            behind: line.state.kind === "refused" ? null : heldBehind(line, lines),
          })),
      [lines, isMine],
    ),
    foreign: useMemo(
      () => byAuthor(lines.filter((l) => !isMine(l) && l.state.kind !== "struck")),
      [lines, isMine],
    ),
    keep,
    mend: (id, next) => {
      // What is typed again is taken now; what is only sent again keeps its time.
      const again = next && { ...next, takenAt: new Date().toISOString() };
      change(new Set([id]), (l) => ({ ...l, ...again, state: { kind: "waiting" } }));
    },
    strike: (id) =>
      change(new Set([id]), (l) => ({
        ...l,
        state: { kind: "struck", at: new Date().toISOString() },
      })),
    claim: () =>
      change(null, (l) =>
        l.author === null
          ? { ...l, author: { id: me.id, name: me.name, initials: me.initials } }
          : l,
      ),
    drop: () => change(null, (l) => (isMine(l) && l.state.kind === "waiting" ? null : l)),
    seenUpTo: (seq) =>
      change(null, (l) => (isMine(l) && l.state.kind === "waiting" ? { ...l, baseSeq: seq } : l)),
  };
}

function byAuthor(lines: readonly Line[]): { author: Author | null; lines: Line[] }[] {
  const groups = new Map<string, { author: Author | null; lines: Line[] }>();
  for (const line of lines) {
    const id = line.author?.id ?? "";
    const group = groups.get(id) ?? { author: line.author, lines: [] };
    group.lines.push(line);
    groups.set(id, group);
  }
  return [...groups.values()];
}
