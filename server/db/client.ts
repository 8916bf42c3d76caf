import Database from "better-sqlite3";
import { drizzle, type BetterSQLite3Database } from "drizzle-orm/better-sqlite3";
import { migrate } from "drizzle-orm/better-sqlite3/migrator";
import path from "node:path";
import { config } from "../config";
import * as schema from "./schema";

export type Db = BetterSQLite3Database<typeof schema>;

/**
 * Opens a database file: WAL, foreign keys on, every commit flushed to disk (a reading that was confirmed must
 * survive a power cut), migrations applied.
 */
export function openDatabase(file: string): Db {
  const connection = new Database(file);
  connection.pragma("journal_mode = WAL");
  connection.pragma("synchronous = FULL");
  connection.pragma("foreign_keys = ON");
  connection.pragma("busy_timeout = 4000");
  const db = drizzle(connection, { schema });
  migrate(db, { migrationsFolder: path.join(process.cwd(), "drizzle") });
  return db;
}

// One connection per process; the development server reloads modules, so it is kept on globalThis.
const holder = globalThis as typeof globalThis & { iridelDb?: Db };

/** The shop's database. */
export const db = (): Db => (holder.iridelDb ??= openDatabase(config.databaseFile));
