import type { SystemId } from "@/core/owed";
import { isMissed, type FaultCode, type ModuleReading, type ScanEvent } from "./scan";

type Read = Extract<ScanEvent, { type: "read" }>;

/** What became of a code between two readings of its control unit; "unread": nobody read before. */
export type CodeChange = "gone" | "stayed" | "new" | "unread";
/**
 * What became of a control unit: it answers, it fell silent, it was silent and answers now, it was
 * silent both times, or it is not there because the vehicle was not built with its system.
 */
export type UnitChange = "answers" | "lost" | "found" | "silent" | "not-fitted";

export type CodeRow = {
  code: string;
  text: string;
  change: CodeChange;
  /** Its state in each reading; null where it was not there. */
  before: FaultCode["state"] | null;
  after: FaultCode["state"] | null;
};

/** One control unit before and after. */
export type UnitRow = {
  id: string;
  name: string;
  system: SystemId | null;
  change: UnitChange;
  codes: CodeRow[];
};

function unitChange(
  before: ModuleReading | undefined,
  after: ModuleReading | undefined,
  fitted: readonly SystemId[],
): UnitChange {
  const [was, is] = [before?.answers ?? false, after?.answers ?? false];
  if (is) return was ? "answers" : "found";
  if (was) return "lost";
  return isMissed((after ?? before)!, fitted) ? "silent" : "not-fitted";
}

function codeRows(
  before: ModuleReading | undefined,
  after: ModuleReading | undefined,
  unread: boolean,
): CodeRow[] {
  const [was, is] = [before?.codes ?? [], after?.codes ?? []];
  const names = [...new Set([...is, ...was].map((c) => c.code))];
  // A unit that does not answer says nothing of what it has stored.
  const silent = after !== undefined && !after.answers;
  return names.flatMap((code): CodeRow[] => {
    const [old, now] = [was.find((c) => c.code === code), is.find((c) => c.code === code)];
    if (!now && silent) return [];
    const change = unread ? "unread" : now ? (old ? "stayed" : "new") : "gone";
    const { text } = (now ?? old)!;
    return [{ code, text, change, before: old?.state ?? null, after: now?.state ?? null }];
  });
}

/**
 * Two readings of a vehicle's control units against each other, unit by unit, in the order of the
 * later one; a unit that only the earlier one knew comes last.
 *
 * @param before null where nobody read before the work: nothing can be told from what came with it
 * @param fitted systems this very vehicle has: a unit of another one that never answers is not missed
 */
export function compareScans(
  before: Read | null,
  after: Read,
  fitted: readonly SystemId[],
): UnitRow[] {
  const ids = [...new Set([...after.modules, ...(before?.modules ?? [])].map((m) => m.id))];
  return ids.map((id): UnitRow => {
    const [was, is] = [before, after].map((r) => r?.modules.find((m) => m.id === id));
    const { name, system } = (is ?? was)!;
    return {
      id,
      name,
      system,
      change: unitChange(was ?? (before ? undefined : is), is, fitted),
      codes: codeRows(was, is, before === null),
    };
  });
}

/** What somebody has to say a word about: a unit, or one of its codes. */
export type Asked = { unit: string; code: string | null };

/**
 * What of a unit needs a word before the vehicle goes: that it does not answer, each code that came
 * while it was here, and each that stayed, or that nobody saw before, and is more than history.
 */
export function askedOf(row: UnitRow): Asked[] {
  const silent = row.change === "lost" || row.change === "silent";
  return [
    ...(silent ? [{ unit: row.id, code: null }] : []),
    ...row.codes
      .filter((c) => c.change === "new" || (c.change !== "gone" && c.after !== "history"))
      .map((c) => ({ unit: row.id, code: c.code })),
  ];
}
