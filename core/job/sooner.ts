import { targetsOf } from "@/core/sheet";
import type { CalibrationGround } from "./ground";
import { checksOf, type JobEvent } from "./job";
import { calibrationLog } from "./standing";

/** One way to do what may be done in the bay or on the road. */
export type Way = {
  /** Minutes until it can begin, and those it takes. */
  waitMin: number;
  minutes: number;
  /** The chance that it is done then. */
  chance: number;
};

/** How often a first attempt passed, of so many. */
export type Tried = { ran: number; first: number };

/** Before anybody has tried, a first attempt passes four times of five; as many trials stand for that. */
const BEFORE = { ran: 5, first: 4 };
/** Where the shop has not entered what a set-up takes, minutes. */
const UNKNOWN_MIN = 45;

/** What the bay offers today: its way, or what keeps it from that. */
export function wayInBay(
  g: CalibrationGround,
  events: readonly JobEvent[],
  tried: Tried,
): Way | { lacks: string } {
  const blocked = [...checksOf(calibrationLog(g, events), "ready").values()].find(
    (c) => c.body.outcome === "blocks",
  );
  if (blocked) return { lacks: "Ready names something that blocks the bay." };
  const missing = targetsOf(g.sheet).find(
    (t) =>
      t.kind === "board" &&
      g.boards &&
      g.boards.length > 0 &&
      !g.boards.some((b) => b.code === t.object.code),
  );
  if (missing) return { lacks: `The shop has no board for ${missing.name}.` };
  const { system } = g.sheet.appliesTo;
  const effort = g.ruleBook.efforts.find((e) => e.system === system && e.kind === "static");
  return {
    waitMin: 0,
    minutes: effort?.bayMinutes ?? UNKNOWN_MIN,
    chance: (tried.first + BEFORE.first) / (tried.ran + BEFORE.ran),
  };
}

/** Minutes until it is done as a rule: what is not done at once is done again. */
export const untilDone = ({ waitMin, minutes, chance }: Way): number =>
  chance > 0 ? waitMin + minutes / chance : Infinity;

/** Which way is likelier to be done sooner, and by how many minutes; null where neither goes. */
export function soonerOf(
  bay: Way | { lacks: string },
  road: Way | { lacks: string },
): { is: "bay" | "road"; byMin: number | null } | null {
  const [b, r] = [bay, road].map((w) => ("lacks" in w ? Infinity : untilDone(w))) as [
    number,
    number,
  ];
  if (!Number.isFinite(b) && !Number.isFinite(r)) return null;
  const byMin = Math.abs(b - r);
  return { is: b <= r ? "bay" : "road", byMin: Number.isFinite(byMin) ? byMin : null };
}
