import {
  accessSync,
  chmodSync,
  constants,
  copyFileSync,
  existsSync,
  mkdtempSync,
  rmSync,
} from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import Database from "better-sqlite3";
import { drizzle, type BetterSQLite3Database } from "drizzle-orm/better-sqlite3";
import { migrate } from "drizzle-orm/better-sqlite3/migrator";
import { config } from "../config";
import { sealOldLogs } from "../log/seal-old";
import { checkFile, MIGRATIONS } from "./check-file";
import * as schema from "./schema";

export type Db = BetterSQLite3Database<typeof schema> & { $client: Database.Database };

/**
 * How long a write waits for another program that holds the file (a copy being made). The
 * connection blocks the whole server meanwhile, so it is short: the tablet keeps its lines and
 * sends them again.
 */
const BUSY_MS = 250;

/**
 * Opens a database file: looked at first, WAL, foreign keys on, every commit flushed to disk (a
 * reading that was confirmed must survive a power cut), migrations applied, logs older than the
 * chain sealed.
 *
 * @throws DatabaseRefusal for a file that is damaged, empty, not a shop's, or a newer program's
 */
export function openDatabase(file: string): Db {
  if (!writable(file)) return openForReading(file);
  checkFile(file);
  const connection = new Database(file, { timeout: BUSY_MS });
  connection.pragma("journal_mode = WAL");
  connection.pragma("synchronous = FULL");
  connection.pragma("foreign_keys = ON");
  const db = drizzle(connection, { schema });
  migrate(db, { migrationsFolder: MIGRATIONS });
  sealOldLogs(connection);
  return db;
}

function writable(file: string): boolean {
  try {
    // Beside the file SQLite writes its journal: both the folder and the file must take it.
    accessSync(existsSync(file) ? file : path.dirname(file), constants.W_OK);
    if (existsSync(path.dirname(file))) accessSync(path.dirname(file), constants.W_OK);
    return true;
  } catch {
    return !existsSync(file);
  }
}

/**
 * A shop on a disk that takes nothing can still be read: from a copy that is brought up to this
 * program elsewhere, and then opened so that every write is refused.
 */
function openForReading(file: string): Db {
  const folder = mkdtempSync(path.join(tmpdir(), "iridel-reading-"));
  const copy = path.join(folder, "shop.sqlite");
  for (const end of ["", "-wal"]) if (existsSync(file + end)) copyFileSync(file + end, copy + end);
  chmodSync(copy, 0o600);
  checkFile(copy);
  openDatabase(copy).$client.close();
  console.warn(
    `${file} cannot be written: the shop can be read, and keeps nothing new until it is started again.`,
  );
  const db = drizzle(new Database(copy, { readonly: true, timeout: BUSY_MS }), { schema });
  // Nothing of the shop is left lying about.
  process.once("exit", () => rmSync(folder, { recursive: true, force: true }));
  return db;
}

// One connection per process; the development server reloads modules, so it is kept on globalThis.
const holder = globalThis as typeof globalThis & { iridelDb?: Db | undefined };

/** The shop's database. */
export const db = (): Db => (holder.iridelDb ??= openDatabase(config.databaseFile));

/** Writes what is only in the -wal file into the database itself and lets the file go. */
export function closeDatabase(): void {
  const open = holder.iridelDb;
  holder.iridelDb = undefined;
  open?.$client.close();
}
