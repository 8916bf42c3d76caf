import { splitPair } from "@/core/units";
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

/**
 * Reads a text as the figures of two slots, left then right, as `splitPair` has it.
 *
 * @returns what the two show, in mm or rad, and what was typed of each
 */
export function readPair(
  text: string,
  slots: readonly [Slot, Slot],
  lengths: "mm" | "in",
): { values: [number, number]; typed: [string, string] } | null {
  const at = (slot: Slot) => (part: string) => {
    const caught = readCaught(part, slot, 0, lengths);
    return caught.kind === "value" ? caught.shown : null;
  };
  return splitPair(text, [at(slots[0]), at(slots[1])]);
}
