import type { ReadingState, SetOutSolution } from "./solve";
import type { Slot } from "./slot";

/**
 * Two readings of one slot differ by more than both can be right: 3.29 sigma of their difference
 * (0.1 %).
 */
const APART = 3.29;

/** Whether two readings of one slot can both be right, each with its own standard uncertainty. */
export const agree = (a: number, sigmaA: number, b: number, sigmaB: number): boolean =>
  Math.abs(a - b) <= APART * Math.hypot(sigmaA, sigmaB);

const counting = (s: SetOutSolution, slotId: string): ReadingState[] =>
  s.readings.filter((r) => r.slotId === slotId && r.state === "counts");

/** Two readings of one slot that contradict each other, one of them under suspicion. */
export function disagreeing(
  s: SetOutSolution,
  suspects: readonly string[],
): [ReadingState, ReadingState] | null {
  for (const id of suspects) {
    const slotId = s.readings.find((r) => r.id === id)!.slotId;
    const [a, b, ...more] = counting(s, slotId);
    if (a && b && more.length === 0 && !agree(a.shown, a.sigma, b.shown, b.sigma)) return [a, b];
  }
  return null;
}

export type Decision = { strike: string; stands: boolean };

/**
 * What a third reading of one slot, taken after what is seated was seated anew, decides between two
 * that disagree. The one it contradicts is struck; the one it agrees with gives its place to it,
 * since the same hook, eye and panel read it again and no independent check was added. Where it
 * agrees with neither, neither stands.
 */
export const decideByThird = (
  pair: readonly [ReadingState, ReadingState],
  shown: number,
  sigma: number,
): [Decision, Decision] => {
  const of = (r: ReadingState): Decision => ({
    strike: r.id,
    stands: agree(r.shown, r.sigma, shown, sigma),
  });
  return [of(pair[0]), of(pair[1])];
};

/**
 * What may be wrong where a reading stands by itself against all others, by what it is read from.
 */
export function likelyCause(slot: Slot): string {
  switch (slot.instrument) {
    case "tape":
      return "a hub cap that is not the maker’s or sits askew, or the tape not on the beam’s hook";
    case "range":
      return "a panel that does not sit square on its wheel, or a beam that meets something before it";
    case "wheel-laser":
      return "a wheel laser that does not sit square on its rim";
    case "beam-laser":
      return "a laser that does not shine square from the beam, or a scale that does not count from the hub";
    case "mirror":
      return "a mirror that does not sit square on its wheel";
    case "plumb":
      return "a floor mark that was moved, or a badge that is not on the centreline";
    case "laser":
      return "a badge that is not on the centreline, or a laser out of its mount";
    case "rig":
      return "a wheel target that does not sit square on its rim";
    case "scale":
      return "a scale that does not count from where the kit says, or a booster nobody named";
    case "rule":
      return "a floor that is not the one that was measured, or a rule not on the board’s centre";
    case "floor-laser":
      return slot.id === "laser-behind"
        ? "a laser behind the car that does not run over both badges, or a badge that is not on the centreline"
        : "a floor laser that is not over both hub marks, or a mark that was moved";
    case "inclinometer":
    case "bubble":
      return "an instrument that does not lie on the board’s true edge";
  }
}
