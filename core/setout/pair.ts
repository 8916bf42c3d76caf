import type { Candidate } from "./next";
import { readCaught } from "./reading";
import type { Slot } from "./slot";
import type { SetOutSolution } from "./solve";

/** Readings that are taken in one walk, left and right: their figures may be typed as one entry. */
const PAIRS: readonly (readonly [string, string])[] = [
  ["tape-fl-l", "tape-fr-r"],
  ["tape-fl-r", "tape-fr-l"],
  ["tape-rl-l", "tape-rr-r"],
  ["panel-rl", "panel-rr"],
  ["scale-rl", "scale-rr"],
  ["box-hub-l", "box-hub-r"],
  ["box-end-l", "box-end-r"],
  ["box-diag-l", "box-diag-r"],
];

/**
 * The reading that goes with another one, left first: null where it has none, where the other side
 * was read more often already, or where one of them says a side with its figure.
 */
export function pairOf(
  s: Pick<SetOutSolution, "readings">,
  candidates: readonly Candidate[],
  candidate: Candidate,
): [Candidate, Candidate] | null {
  const pair = PAIRS.find((p) => p.includes(candidate.slot.id));
  if (!pair || candidate.anew) return null;
  const both = pair.map((id) =>
    id === candidate.slot.id
      ? candidate
      : candidates.find(
          (c) => c.slot.id === id && !c.anew && c.instrument.id === candidate.instrument.id,
        ),
  );
  const [left, right] = both;
  if (!left || !right || left.slot.sides || right.slot.sides) return null;
  const times = (c: Candidate): number =>
    s.readings.filter((r) => r.slotId === c.slot.id && r.state === "counts").length;
  const other = left === candidate ? right : left;
  return times(other) > times(candidate) ? null : [left, right];
}

export type CaughtPair = { shown: [number, number]; typed: [string, string] };

/**
 * Reads a text as the figures of two slots, left then right: "4812 4796", "4 812 4 796", or without
 * a space, as keypads have none, "48124796". Null where it is one figure, or could be taken apart in
 * more ways than one that both slots can be true of.
 */
export function readPair(
  text: string,
  [left, right]: readonly [Slot, Slot],
  lengths: "mm" | "in",
): CaughtPair | null {
  const value = (part: string, slot: Slot): number | null => {
    const caught = readCaught(part, slot, 0, lengths);
    return caught.kind === "value" ? caught.shown : null;
  };
  const whole = text.trim();
  if (whole === "" || value(whole, left) !== null || value(whole, right) !== null) return null;
  const words = whole.split(/[\s;/]+/);
  const cuts: [string, string][] =
    words.length > 1
      ? words
          .slice(1)
          .map((_, i) => [words.slice(0, i + 1).join(" "), words.slice(i + 1).join(" ")])
      : /^\d+$/.test(whole)
        ? // Left and right are about as long: their figures have as many digits, or one more.
          [...new Set([Math.floor(whole.length / 2), Math.ceil(whole.length / 2)])].map((at) => [
            whole.slice(0, at),
            whole.slice(at),
          ])
        : [];
  const found = cuts.flatMap(([a, b]): CaughtPair[] => {
    const [l, r] = [value(a, left), value(b, right)];
    return l !== null && r !== null && !b.startsWith("0") ? [{ shown: [l, r], typed: [a, b] }] : [];
  });
  return found.length === 1 ? found[0]! : null;
}
