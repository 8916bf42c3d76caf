import Database from "better-sqlite3";
import { drizzle, type BetterSQLite3Database } from "drizzle-orm/better-sqlite3";
import { migrate } from "drizzle-orm/better-sqlite3/migrator";
import { config } from "../config";
import { sealOldLogs } from "../log/seal-old";
import { checkFile, MIGRATIONS } from "./check-file";
import * as schema from "./schema";

export type Db = BetterSQLite3Database<typeof schema> & { $client: Database.Database };

/**
 * How long a write waits for another program that holds the file (a copy being made). The connection blocks the whole
 * server meanwhile, so it is short: the tablet keeps its lines and sends them again.
 */
const BUSY_MS = 250;

/**
 * Opens a database file: looked at first, WAL, foreign keys on, every commit flushed to disk (a reading that was confirmed
 * must survive a power cut), migrations applied, logs older than the chain sealed.
 *
 * @throws DatabaseRefusal for a file that is damaged, empty, not a shop's, or a newer program's
 */
export function openDatabase(file: string): Db {
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
