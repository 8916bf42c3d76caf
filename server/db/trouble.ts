/**
 * What an error of the database means to whoever asked: how to answer, and in words what is kept
 * where.
 */
export type Trouble = {
  kind: "busy" | "full" | "unwritable" | "damaged";
  status: number;
  message: string;
};

const KEPT = "All is kept on this tablet and sent by itself when the shop can write again.";

/** Says what is wrong when a database could not do what was asked; null for any other error. */
export function troubleOf(error: unknown): Trouble | null {
  const code = (error as { code?: unknown } | null)?.code;
  if (typeof code !== "string" || !code.startsWith("SQLITE_")) return null;
  if (code.startsWith("SQLITE_BUSY") || code.startsWith("SQLITE_LOCKED"))
    return { kind: "busy", status: 503, message: `The shop’s book is busy. ${KEPT}` };
  if (code === "SQLITE_FULL")
    return {
      kind: "full",
      status: 507,
      message: `The shop’s disk is full: make room on it. ${KEPT}`,
    };
  if (
    code.startsWith("SQLITE_READONLY") ||
    code.startsWith("SQLITE_IOERR") ||
    code === "SQLITE_CANTOPEN"
  )
    return {
      kind: "unwritable",
      status: 507,
      message: `The shop’s disk cannot be written. ${KEPT}`,
    };
  if (code.startsWith("SQLITE_CORRUPT") || code === "SQLITE_NOTADB")
    return {
      kind: "damaged",
      status: 500,
      message: "The shop’s book is damaged. Stop, and restore the last copy.",
    };
  return null;
}

/**
 * Writes what may be lost (a mark, a cache); a database that cannot be written now is no reason to
 * fail.
 */
export function ifWritable(write: () => void, otherwise: () => void = () => undefined): void {
  try {
    write();
  } catch (error) {
    if (!troubleOf(error)) throw error;
    otherwise();
  }
}
