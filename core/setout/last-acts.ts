import type { Move } from "./moves";
import type { LastActId } from "./last-act-ids";

/** How each last act is asked for, and what makes it be done again. */
export const LAST_ACTS: Record<
  LastActId,
  { say: string; undoneBy: readonly Move["kind"][]; seconds: number }
> = {
  locked: { say: "Lock the castors", undoneBy: ["roll"], seconds: 8 },
  "feet-down": { say: "Screw the feet down until they bear", undoneBy: ["roll"], seconds: 25 },
  "laser-off": { say: "Take the laser off", undoneBy: [], seconds: 10 },
  hung: { say: "Hang the board", undoneBy: ["booster"], seconds: 20 },
  tethered: { say: "Hook the tether on", undoneBy: ["roll", "booster"], seconds: 8 },
  covered: { say: "Take the covers off the board", undoneBy: ["booster"], seconds: 8 },
};

/** The last acts that still stand after a move. */
export const afterMove = (done: readonly LastActId[], move: Move): LastActId[] =>
  done.filter((id) => !LAST_ACTS[id].undoneBy.includes(move.kind));

/** The last acts that still stand after a laser was put where the board hangs. */
export const afterLaser = (done: readonly LastActId[]): LastActId[] =>
  done.filter((id) => id === "locked" || id === "feet-down");
