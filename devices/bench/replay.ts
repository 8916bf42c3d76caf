import {
  LAST_ACTS,
  nextAct,
  readingSigma,
  solveSetOut,
  type SetOutEntry,
  type SetOutPlan,
  type Slot,
} from "@/core/setout";
import { MOVE_SECONDS, SEAT_SECONDS } from "@/core/setout/ahead";
import { act, measure, openBay } from "./world";

/** How a set-out went that was gone through once more. */
export type Replay = {
  /** Whether the board was set in the end; not where nothing that can be read would do it. */
  set: boolean;
  seconds: number;
  readings: number;
  moves: number;
};

/** An advice that goes on for longer than this is given up. */
const MOST_ACTS = 70;

/** What an eye reads off an instrument: a tenth of a division, a hundredth of a degree, a millimetre. */
export function asRead(slot: Slot, truth: number): number {
  const step = slot.step
    ? slot.step.rad / (slot.step.unit === "mm" ? 1 : 10)
    : slot.quantity.dimension === "angle"
      ? 1e-4
      : 1;
  return Math.round(truth / step) * step;
}

/**
 * Goes through a set-out in the simulated bay from the stand rolled in by eye to the board set, doing what
 * the advice says: the same seed is the same vehicle, the same stand and the same hands, whatever is read
 * with.
 */
export function replaySetOut(plan: SetOutPlan, seed: string): Replay {
  let world = openBay(seed, plan);
  let entries: SetOutEntry[] = [];
  const went = { seconds: 0, readings: 0, moves: 0 };
  const times = new Map<string, number>();
  const seatings = new Map<string, number>();
  for (let n = 0; n < MOST_ACTS; n++) {
    const judged = nextAct(solveSetOut(plan, entries));
    const { next } = judged;
    const id = `a${n}`;
    if (next.kind === "settle") return { set: true, ...went };
    if (next.kind === "stuck") return { set: false, ...went };
    if (next.kind === "read") {
      const struck = [next.again, ...(next.decides ?? [])];
      entries = entries.filter((e) => !struck.includes(e.id));
      const { slot, instrument, anew } = next.candidate;
      const nth = times.get(slot.id) ?? 0;
      const seat = slot.seat?.id;
      if (seat && anew) seatings.set(seat, (seatings.get(seat) ?? 0) + 1);
      const shown = asRead(
        slot,
        measure(world, slot.id, nth, null, seat ? (seatings.get(seat) ?? 0) : 0),
      );
      times.set(slot.id, nth + 1);
      const sigma = readingSigma(instrument, slot, shown);
      const how = anew ? ({ anew: true } as const) : {};
      entries.push({ kind: "reading", id, slotId: slot.id, shown, sigma, ...how });
      went.readings++;
      went.seconds += slot.seconds + (anew ? SEAT_SECONDS : 0);
    } else if (next.kind === "finish")
      next.acts.forEach((touch, k) => {
        entries.push({ kind: "touch", id: `${id}/${k}`, touch });
        world = act(world, { id: `${id}/${k}`, kind: "touch", touch });
        went.seconds += LAST_ACTS[touch].seconds;
      });
    else {
      const { predicted: _, ...move } = next.move;
      entries.push({
        kind: "move",
        id,
        move,
        rest: next.rest.map(({ predicted: __, ...m }) => m),
      });
      world = act(world, { id, kind: "move", move });
      went.moves++;
      went.seconds += MOVE_SECONDS;
    }
  }
  return { set: false, ...went };
}
