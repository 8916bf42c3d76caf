import { adjustNetwork, SurveyError } from "@/core/survey";
import type { SetOutSolution } from "./solve";

/** Two readings that fit only when exchanged: typed on the wrong sides. */
export type Swap = { left: string; right: string; names: [string, string] };

/** How surely the readings contradict each other as typed, and agree when exchanged. */
const CONTRADICTED = 1e-3;
const AGREED = 0.02;

/**
 * The slot of the other side, by the naming of slots: left and right differ in exactly the letters
 * l and r.
 */
const mirror = (slotId: string): string =>
  slotId.replace(
    /-(f|r)?([lr])(?=-|$)/g,
    (_, axle: string | undefined, side: string) => `-${axle ?? ""}${side === "l" ? "r" : "l"}`,
  );

/**
 * Finds a left and a right reading that were exchanged: the network contradicts itself as typed and
 * agrees once their figures change places. Null when nothing contradicts, when a single slip
 * explains it as well, or when exchanging makes no difference (then it does no harm either).
 */
export function findSwap(s: SetOutSolution): Swap | null {
  const now = s.adjustment;
  if (!now || now.chiSquare.p > CONTRADICTED) return null;
  const counting = s.readings.filter((r) => r.state === "counts");
  let best: { swap: Swap; p: number } | null = null;
  for (const l of counting) {
    const other = mirror(l.slotId);
    if (other <= l.slotId) continue;
    const r = counting.findLast((x) => x.slotId === other);
    if (!r) continue;
    const value = (id: string): number | undefined => {
      const o = s.network.observations.find((x) => x.id === id);
      return o && "valueMm" in o ? o.valueMm : undefined;
    };
    const [a, b] = [value(l.id), value(r.id)];
    if (a === undefined || b === undefined) continue;
    const observations = s.network.observations.map((o) =>
      !("valueMm" in o)
        ? o
        : o.id === l.id
          ? { ...o, valueMm: b }
          : o.id === r.id
            ? { ...o, valueMm: a }
            : o,
    );
    try {
      const { p } = adjustNetwork({ ...s.network, observations }).chiSquare;
      if (p < AGREED || (best && best.p >= p)) continue;
      const name = (slotId: string): string => s.slots.find((x) => x.id === slotId)!.name;
      best = { swap: { left: l.id, right: r.id, names: [name(l.slotId), name(r.slotId)] }, p };
    } catch (error) {
      if (!(error instanceof SurveyError)) throw error;
    }
  }
  return best?.swap ?? null;
}
