import Database from "better-sqlite3";
import { closeSync, existsSync, openSync, readFileSync, readSync, statSync } from "node:fs";
import path from "node:path";

/**
 * The file cannot be the shop's book. The message says why and what to do; the file was not written
 * to.
 */
export class DatabaseRefusal extends Error {
  override readonly name = "DatabaseRefusal";
}

export const MIGRATIONS = path.join(/* turbopackIgnore: true */ process.cwd(), "drizzle");
const MAGIC = "SQLite format 3\0";
/** Beyond this the pages are not all read at every start; a copy is always checked whole. */
const CHECK_UP_TO_BYTES = 1_000_000_000;

/**
 * When the newest migration this program knows was made; a file that has a later one is a newer
 * program's.
 */
function newestMigration(): number {
  const journal = JSON.parse(readFileSync(path.join(MIGRATIONS, "meta/_journal.json"), "utf8")) as {
    entries: { when: number }[];
  };
  return Math.max(...journal.entries.map((e) => e.when));
}

function firstBytes(file: string): string {
  const bytes = Buffer.alloc(MAGIC.length);
  const handle = openSync(file, "r");
  try {
    readSync(handle, bytes, 0, MAGIC.length, 0);
  } finally {
    closeSync(handle);
  }
  return bytes.toString("latin1");
}

/**
 * Looks at a file before it is opened as the shop's book: it must be whole, a shop's, and of no
 * newer program. A file that is not there is a new shop and passes.
 *
 * @param whole reads every page whatever the size (for copies)
 * @throws DatabaseRefusal
 */
export function checkFile(file: string, whole = false): void {
  if (!existsSync(file)) return;
  const remedy = "Restore a copy with: npm run restore -- FILE";
  if (statSync(file).size === 0)
    throw new DatabaseRefusal(
      `${file} is empty: it was cut off or made by hand. ${remedy}. For a new shop remove the file first.`,
    );
  if (firstBytes(file) !== MAGIC)
    throw new DatabaseRefusal(`${file} is no database, or its beginning is damaged. ${remedy}.`);
  let connection: Database.Database | undefined;
  try {
    connection = new Database(file, { readonly: true, fileMustExist: true });
    const tables = connection
      .prepare("SELECT name FROM sqlite_master WHERE type = 'table'")
      .pluck()
      .all() as string[];
    if (!tables.includes("__drizzle_migrations") || !tables.includes("job_events"))
      throw new DatabaseRefusal(
        `${file} is a database, but not a shop of Iridel. Name another file in IRIDEL_DB.`,
      );
    const made = connection
      .prepare("SELECT max(created_at) FROM __drizzle_migrations")
      .pluck()
      .get() as number;
    if (Number(made) > newestMigration())
      throw new DatabaseRefusal(
        `${file} was written by a newer Iridel than this one. Start the newer program; this one would damage it.`,
      );
    if (whole || statSync(file).size <= CHECK_UP_TO_BYTES) {
      const pragma = whole ? "integrity_check(1)" : "quick_check(1)";
      const found = connection.pragma(pragma, { simple: true });
      if (found !== "ok")
        throw new DatabaseRefusal(`${file} is damaged (${String(found)}). ${remedy}.`);
    }
  } catch (error) {
    if (error instanceof DatabaseRefusal) throw error;
    const code = (error as { code?: string }).code ?? "";
    if (code.startsWith("SQLITE_BUSY"))
      throw new DatabaseRefusal(`${file} is held by another program. Close it and start again.`);
    throw new DatabaseRefusal(`${file} cannot be read (${(error as Error).message}). ${remedy}.`);
  } finally {
    connection?.close();
  }
}
