import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import type { Line } from "./lines";

interface Outbox extends DBSchema {
  lines: { key: number; value: Line; indexes: { job: string; id: string } };
  /** Which tab sends for a job, and until when it may. */
  leases: { key: string; value: { jobId: string; tab: string; until: number } };
}

const opened: { db?: Promise<IDBPDatabase<Outbox> | null> } = {};

/**
 * The tablet's own database; null where a browser keeps none (a private window): lines then live as
 * long as the page.
 */
const database = (): Promise<IDBPDatabase<Outbox> | null> =>
  (opened.db ??= (
    typeof indexedDB === "undefined"
      ? Promise.reject(new Error("no database"))
      : openDB<Outbox>("iridel-outbox", 1, {
          upgrade(db) {
            const lines = db.createObjectStore("lines", { keyPath: "n", autoIncrement: true });
            lines.createIndex("job", "jobId");
            lines.createIndex("id", "id", { unique: true });
            db.createObjectStore("leases", { keyPath: "jobId" });
          },
        })
  ).catch(() => null));

const inPage: Line[] = [];

/**
 * Ahead of the database stands plain storage, which is written before the call returns: a page that
 * dies in the same moment has lost nothing. What is found there at the next start is moved over.
 */
const AHEAD = "iridel:outbox-ahead:";
type Fresh = Omit<Line, "n">;

function noteAhead(line: Fresh): void {
  try {
    localStorage.setItem(AHEAD + line.id, JSON.stringify(line));
  } catch {
    // Full or not there: the database alone has to do.
  }
}

function aheadLines(): Fresh[] {
  const lines: Fresh[] = [];
  for (let i = 0; i < localStorage.length; i++) {
    const key = localStorage.key(i)!;
    if (!key.startsWith(AHEAD)) continue;
    try {
      lines.push(JSON.parse(localStorage.getItem(key)!) as Fresh);
    } catch {
      localStorage.removeItem(key);
    }
  }
  return lines.sort((a, b) => (a.takenAt < b.takenAt ? -1 : 1));
}

/** Other tabs hear of every change. */
const channel =
  typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel("iridel-outbox");
const listeners = new Set<(jobId: string) => void>();
channel?.addEventListener("message", (e: MessageEvent<{ jobId: string }>) => {
  for (const listen of listeners) listen(e.data.jobId);
});
function tell(jobId: string): void {
  channel?.postMessage({ jobId });
  for (const listen of listeners) listen(jobId);
}

/** Calls back when a job's lines change, in this tab or another. @returns how to stop */
export function onLines(listen: (jobId: string) => void): () => void {
  listeners.add(listen);
  return () => void listeners.delete(listen);
}

async function insert(db: IDBPDatabase<Outbox>, lines: readonly Fresh[]): Promise<void> {
  const tx = db.transaction("lines", "readwrite", { durability: "strict" });
  for (const line of lines)
    // Another tab may have moved the same line over meanwhile: it is there once.
    if ((await tx.store.index("id").getKey(line.id)) === undefined)
      await tx.store.add(line as Line);
  await tx.done;
  for (const line of lines) localStorage.removeItem(AHEAD + line.id);
}

/** Keeps lines, in their order, behind all that wait. */
export async function keepLines(lines: readonly Fresh[]): Promise<void> {
  for (const line of lines) noteAhead(line);
  const db = await database();
  if (db) await insert(db, lines);
  else inPage.push(...lines.map((l, i) => ({ ...l, n: Date.now() * 100 + i })));
  for (const jobId of new Set(lines.map((l) => l.jobId))) tell(jobId);
}

/** Lines of the outbox this program had before: one string for each job, without authors. */
function olderLines(jobId: string): Fresh[] {
  const key = `iridel:outbox:${jobId}`;
  const text = localStorage.getItem(key);
  if (!text) return [];
  try {
    const old = JSON.parse(text) as Omit<Fresh, "jobId" | "author" | "state">[];
    return old.map((l) => ({ ...l, jobId, author: null, state: { kind: "waiting" } }));
  } catch {
    return [];
  }
}

/** All lines of a job that are kept here, in the order they were written. */
export async function linesOf(jobId: string): Promise<Line[]> {
  const db = await database();
  if (!db) return inPage.filter((l) => l.jobId === jobId);
  const left = [...olderLines(jobId), ...aheadLines().filter((l) => l.jobId === jobId)];
  if (left.length > 0) await insert(db, left);
  localStorage.removeItem(`iridel:outbox:${jobId}`);
  const lines = await db.getAllFromIndex("lines", "job", jobId);
  return lines.sort((a, b) => a.n - b.n);
}

/**
 * The same with what was written while they were being read: a line that is on its way into the
 * database would vanish from the page for as long as the disk takes.
 */
export async function linesInSight(jobId: string): Promise<Line[]> {
  const lines = await linesOf(jobId);
  if (!(await database())) return lines;
  const known = new Set(lines.map((l) => l.id));
  const last = lines.at(-1)?.n ?? 0;
  const ahead = aheadLines().filter((l) => l.jobId === jobId && !known.has(l.id));
  return [...lines, ...ahead.map((l, i) => ({ ...l, n: last + 1 + i }))];
}

/** How many lines wait here, by job. */
export async function waitingByJob(): Promise<Map<string, number>> {
  const db = await database();
  const all = db ? await db.getAll("lines") : inPage;
  const count = new Map<string, number>();
  for (const l of all)
    if (l.state.kind !== "struck") count.set(l.jobId, (count.get(l.jobId) ?? 0) + 1);
  return count;
}

/** Changes lines of a job in one step. `null` takes a line out. */
export async function changeLines(
  jobId: string,
  ids: ReadonlySet<string> | null,
  change: (line: Line) => Line | null,
): Promise<void> {
  const wanted = (l: Line): boolean => l.jobId === jobId && (ids === null || ids.has(l.id));
  const db = await database();
  if (!db) {
    for (const line of inPage.filter(wanted)) {
      const next = change(line);
      inPage.splice(inPage.indexOf(line), 1, ...(next ? [next] : []));
    }
    return tell(jobId);
  }
  const tx = db.transaction("lines", "readwrite", { durability: "strict" });
  for (let at = await tx.store.index("job").openCursor(jobId); at; at = await at.continue()) {
    if (!wanted(at.value)) continue;
    const next = change(at.value);
    if (next) await at.update(next);
    else await at.delete();
  }
  await tx.done;
  tell(jobId);
}

const SEEN = "iridel:seen";
const SEEN_JOBS = 20;

function seenHere(): [string, number][] {
  try {
    return JSON.parse(localStorage.getItem(SEEN) ?? "[]") as [string, number][];
  } catch {
    return [];
  }
}

/**
 * Notes up to where this tablet's own posts have left a job's log. A line that was written
 * meanwhile may reach the queue only after the answer, even on the next page: it would be taken for
 * one that had not seen its writer's own line before it.
 */
export function noteSeen(jobId: string, authorId: string, seq: number): void {
  const name = `${jobId}/${authorId}`;
  const others = seenHere().filter(([n]) => n !== name);
  const next = [...others, [name, Math.max(seq, seenBy(jobId, authorId))]].slice(-SEEN_JOBS);
  try {
    localStorage.setItem(SEEN, JSON.stringify(next));
  } catch {
    // Without it a person is asked once more; nothing is lost.
  }
}

export const seenBy = (jobId: string, authorId: string): number =>
  seenHere().find(([n]) => n === `${jobId}/${authorId}`)?.[1] ?? 0;

/** A tab keeps its name over a reload, so that it goes on where it was in the middle of sending. */
function tabName(): string {
  try {
    const name = sessionStorage.getItem("iridel:tab") ?? Math.random().toString(36).slice(2);
    sessionStorage.setItem("iridel:tab", name);
    return name;
  } catch {
    return "tab";
  }
}
const LEASE_MS = 8000;

/**
 * Takes the right to send for a job, unless another tab has it. It runs out by itself when a tab
 * dies.
 */
export async function takeLease(jobId: string, now = Date.now()): Promise<boolean> {
  const db = await database();
  if (!db) return true;
  const tab = tabName();
  const tx = db.transaction("leases", "readwrite");
  const held = await tx.store.get(jobId);
  const free = !held || held.tab === tab || held.until <= now;
  if (free) await tx.store.put({ jobId, tab, until: now + LEASE_MS });
  await tx.done;
  return free;
}

/** Gives the right to send back. */
export async function giveLease(jobId: string): Promise<void> {
  const db = await database();
  if (!db) return;
  const tx = db.transaction("leases", "readwrite");
  if ((await tx.store.get(jobId))?.tab === tabName()) await tx.store.delete(jobId);
  await tx.done;
}
