import { PROVING, type Judged } from "./act";
import { lookAhead, LONG } from "./ahead";
import type { Slot } from "./slot";

/**
 * The fewest readings that are likely to prove where the board stands, in the order of their worth,
 * and how long they take; null where reading alone does not do it.
 */
export function readingsToSet({
  solution: s,
  candidates,
}: Judged): { slots: Slot[]; seconds: number } | null {
  if (!s.adjustment || !s.plane) return null;
  const slots = candidates.filter((c) => !c.anew);
  const ahead = lookAhead(
    s,
    slots.map((c) => c.play),
    [],
    PROVING,
  );
  if (ahead.first !== "read" || !ahead.path || ahead.seconds >= LONG) return null;
  const named = ahead.path.flatMap((id) => slots.find((c) => c.slot.id === id)?.slot ?? []);
  return { slots: named, seconds: ahead.seconds };
}
