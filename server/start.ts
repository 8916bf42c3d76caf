import { rmSync, writeFileSync } from "node:fs";
import { config } from "./config";
import { backUp } from "./db/backup";
import { DatabaseRefusal } from "./db/check-file";
import { closeDatabase, db } from "./db/client";
import { ifWritable } from "./db/trouble";
import { serverMark } from "./db/server-mark";
import { ticketsLater } from "./jobs/tickets";

const HOUR_MS = 3_600_000;
/**
 * Open pages keep their streams; a server that is told to stop waits for them no longer than this.
 */
const LEAVE_MS = 2500;

/**
 * Opens the shop's book or says why not and ends; sees to it that it is whole on disk when the
 * server ends.
 */
export function startServer(): void {
  const file = config.databaseFile;
  try {
    db();
  } catch (error) {
    if (!(error instanceof DatabaseRefusal)) throw error;
    console.error(`\nIridel does not start: ${error.message}\n`);
    process.exit(1);
  }
  try {
    writeFileSync(
      serverMark(file),
      JSON.stringify({ pid: process.pid, startedAt: new Date().toISOString() }),
    );
  } catch (error) {
    // A disk that is full or shut is no reason not to show what stands there.
    console.warn(
      `No mark of this server could be left beside ${file}: ${(error as Error).message}`,
    );
  }
  ticketsLater();
  closeWhenEnded(file);
  backUpRegularly(file);
}

/** What is only in the -wal file is written into the database itself before the process is gone. */
function closeWhenEnded(file: string): void {
  process.on("exit", () => {
    closeDatabase();
    rmSync(serverMark(file), { force: true });
  });
  for (const signal of ["SIGTERM", "SIGINT"] as const)
    process.on(signal, () => {
      ifWritable(() => db().$client.pragma("wal_checkpoint(TRUNCATE)"));
      setTimeout(() => process.exit(0), LEAVE_MS).unref();
    });
}

function backUpRegularly(file: string): void {
  const wanted = config.backup;
  if (!wanted) return;
  const run = (): void => {
    backUp(file, wanted.file, wanted.keep).then(
      (done) =>
        console.log(`Copy of the shop kept: ${done.file}, ${done.jobs} jobs, ${done.lines} lines.`),
      (error: unknown) =>
        console.error(
          `No copy was made: ${error instanceof Error ? error.message : String(error)}`,
        ),
    );
  };
  setTimeout(run, 60_000).unref();
  setInterval(run, wanted.hours * HOUR_MS).unref();
}
