import { existsSync, readFileSync } from "node:fs";

/** Beside a database stands which server has it open. */
export const serverMark = (file: string): string => `${file}.server`;

/** The number of the process that serves from a database, or null where none does. */
export function servingProcess(file: string): number | null {
  const mark = serverMark(file);
  if (!existsSync(mark)) return null;
  try {
    const { pid } = JSON.parse(readFileSync(mark, "utf8")) as { pid: number };
    process.kill(pid, 0);
    return pid;
  } catch {
    return null;
  }
}
