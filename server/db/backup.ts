import Database from "better-sqlite3";
import { existsSync, mkdirSync, renameSync, rmSync, statfsSync, statSync } from "node:fs";
import path from "node:path";
import { checkFile, DatabaseRefusal } from "./check-file";
import { servingProcess } from "./server-mark";

/** Tables whose rows are counted when a copy is compared with its source; those that only grow. */
const COUNTED = [
  "jobs",
  "job_events",
  "photos",
  "sheets",
  "vehicle_versions",
  "people",
  "shop_events",
  "job_documents",
];

type Counts = Record<string, number>;
export type Copy = { file: string; bytes: number; jobs: number; lines: number; photos: number };

function countRows(connection: Database.Database): Counts {
  const tables = new Set(
    connection.prepare("SELECT name FROM sqlite_master WHERE type = 'table'").pluck().all(),
  );
  return Object.fromEntries(
    COUNTED.filter((t) => tables.has(t)).map((t) => [
      t,
      connection.prepare(`SELECT count(*) FROM ${t}`).pluck().get() as number,
    ]),
  );
}

/** Older copies move one place on: FILE, FILE.1, FILE.2 ...; the oldest goes. */
function rotate(file: string, keep: number): void {
  const nth = (n: number): string => (n === 0 ? file : `${file}.${n}`);
  rmSync(nth(keep - 1), { force: true });
  for (let n = keep - 2; n >= 0; n--) if (existsSync(nth(n))) renameSync(nth(n), nth(n + 1));
}

/**
 * Copies the shop while it is open, photos included, by SQLite's own online backup. The copy is
 * checked whole and its rows are counted before it takes the place of an older one; a copy that
 * does not pass is thrown away.
 *
 * @param source the database that may be in use
 * @param file where the copy goes
 * @param keep how many copies are kept
 * @throws DatabaseRefusal when there is nothing to copy, no room, or the copy is not whole
 */
export async function backUp(source: string, file: string, keep = 1): Promise<Copy> {
  if (!existsSync(source))
    throw new DatabaseRefusal(`There is no shop in ${source}. Name its file in IRIDEL_DB.`);
  if (path.resolve(source) === path.resolve(file))
    throw new DatabaseRefusal("The copy cannot lie where the shop itself lies. Name another file.");
  mkdirSync(path.dirname(path.resolve(file)), { recursive: true });
  checkRoom(source, file);
  const fresh = `${file}.part`;
  rmSync(fresh, { force: true });
  const connection = new Database(source, { readonly: true, fileMustExist: true });
  try {
    const before = countRows(connection);
    await connection.backup(fresh);
    const after = countRows(connection);
    const copied = checkCopy(fresh, before, after);
    rotate(file, Math.max(1, keep));
    renameSync(fresh, file);
    const { jobs = 0, job_events: lines = 0, photos = 0 } = copied;
    return { file, bytes: statSync(file).size, jobs, lines, photos };
  } catch (error) {
    for (const end of ["", "-wal", "-shm", "-journal"]) rmSync(fresh + end, { force: true });
    if ((error as { code?: string }).code === "SQLITE_FULL")
      throw new DatabaseRefusal(
        `The disk of ${file} is full; no copy was made, older ones are untouched. Make room.`,
      );
    throw error;
  } finally {
    connection.close();
  }
}

function checkRoom(source: string, file: string): void {
  const { bavail, bsize } = statfsSync(path.dirname(path.resolve(file)));
  if (bavail * bsize < statSync(source).size)
    throw new DatabaseRefusal(
      `The disk of ${file} has too little room for a copy; older ones are untouched. Make room.`,
    );
}

/**
 * One file that needs no other beside it, whole, with no row fewer than the source had when the
 * copy began.
 */
function checkCopy(file: string, before: Counts, after: Counts): Counts {
  const copy = new Database(file, { fileMustExist: true });
  copy.pragma("journal_mode = DELETE");
  const copied = countRows(copy);
  copy.close();
  checkFile(file, true);
  for (const [table, n] of Object.entries(copied))
    if (n < before[table]! || n > after[table]!)
      throw new DatabaseRefusal(
        `The copy has ${n} rows of ${table} where the shop has ${before[table]} to ${after[table]}; it was thrown away.`,
      );
  return copied;
}

/**
 * Puts a copy in the place of the shop. What was there is kept beside it under a name of its own,
 * with everything that belongs to it.
 *
 * @returns where the file that was there is kept, or null where there was none
 * @throws DatabaseRefusal while a server has the shop open, for a copy that is damaged or a newer
 *   program's
 */
export async function restore(
  copy: string,
  target: string,
  now = new Date(),
): Promise<string | null> {
  if (!existsSync(copy)) throw new DatabaseRefusal(`There is no copy in ${copy}.`);
  checkFile(copy, true);
  const pid = servingProcess(target);
  if (pid !== null)
    throw new DatabaseRefusal(
      `A server (process ${pid}) has the shop open. Stop it, then restore.`,
    );
  refuseWhileOpen(target);
  const fresh = `${target}.part`;
  rmSync(fresh, { force: true });
  const connection = new Database(copy, { readonly: true, fileMustExist: true });
  try {
    await connection.backup(fresh);
  } finally {
    connection.close();
  }
  checkFile(fresh, true);
  const kept = existsSync(target)
    ? `${target}.before-${now.toISOString().replace(/[:.]/g, "-")}`
    : null;
  // A -wal file of the old shop beside the new one would be taken for its own: it moves with what
  // it belongs to.
  for (const end of ["", "-wal", "-shm"])
    if (existsSync(target + end)) renameSync(target + end, (kept ?? `${target}.left`) + end);
  renameSync(fresh, target);
  return kept;
}

/** Another program that has the database open holds a lock that this asks for. */
function refuseWhileOpen(file: string): void {
  if (!existsSync(file)) return;
  let connection: Database.Database | undefined;
  try {
    connection = new Database(file, { timeout: 0 });
    // Leaving the write-ahead mode needs the file alone, and writes what is only in the -wal file
    // into it.
    connection.pragma("journal_mode = DELETE");
  } catch (error) {
    if ((error as { code?: string }).code?.startsWith("SQLITE_BUSY"))
      throw new DatabaseRefusal(`Another program has ${file} open. Stop it, then restore.`);
    // A damaged file is what one restores for: it is moved away as it is.
  } finally {
    connection?.close();
  }
}
