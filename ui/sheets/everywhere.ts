import type { Draft } from "@/core/book";
import { setAt } from "../book/paths";

/**
 * A draft in which every target has a value: what the page asks once holds for all places of the
 * board.
 *
 * @param field path within a target, such as "datum"; undefined takes the field away
 */
export function everywhere(doc: Draft, field: string, value: unknown): unknown {
  const setups = Array.isArray(doc.setups) ? (doc.setups as { targets?: unknown }[]) : [];
  return setups.map((setup) => ({
    ...setup,
    targets: (Array.isArray(setup.targets) ? (setup.targets as Draft[]) : []).map((target) =>
      setAt(target, field, value),
    ),
  }));
}
