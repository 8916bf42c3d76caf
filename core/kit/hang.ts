import type { Board } from "./board";

/** The board a sheet asks for. */
export type WantedBoard = { code: string; side?: "left" | "right"; version?: number };

/**
 * What stands against a board: it must not hang (stop), or it may with a reason (ask). Null: it is
 * the right one.
 */
export type BoardFinding = { kind: "stop" | "ask"; say: string } | null;

/**
 * Checks the code on a board's label against the kit and the sheet. Codes are compared without
 * spaces and case.
 */
export function checkBoard(
  typed: string,
  kit: readonly Board[],
  wanted: WantedBoard,
): BoardFinding {
  const code = typed.replace(/\s/g, "").toUpperCase();
  const same = kit.filter((b) => b.code === code);
  const stop = (say: string): BoardFinding => ({ kind: "stop", say });
  if (same.length === 0)
    return stop(
      `${code || "That"} is no board of this shop’s kit. Read the label again, or put it into the kit first.`,
    );
  const board = same[0]!;
  if (code !== wanted.code) {
    const other = kit.find((b) => b.code === wanted.code);
    const twin = other && board.name === other.name && board.side !== other.side;
    return stop(
      twin
        ? `${code} is the one for vehicle ${board.side}; this place takes ${wanted.code}, for vehicle ${other.side}.`
        : `${code} is “${board.name}”; the sheet asks for ${wanted.code}.`,
    );
  }
  if (wanted.side && board.side !== "either" && board.side !== wanted.side)
    return stop(
      `${code} is marked for vehicle ${board.side}; this place is vehicle ${wanted.side}. Sides are the vehicle’s, whoever looks.`,
    );
  if (wanted.version !== undefined && board.version !== wanted.version)
    return stop(
      `${code} is version ${board.version}; the sheet asks for version ${wanted.version}, printed differently.`,
    );
  if (board.condition === "out of use")
    return stop(`${code} is out of use in the kit. Take another, or have the lead look at it.`);
  if (board.condition === "worn")
    return {
      kind: "ask",
      say: `${code} is worn: hang it only if its pattern is whole, and say so.`,
    };
  return null;
}
