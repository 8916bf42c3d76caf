import type { Cause, Found } from "./cause";
import type { SideId } from "./names";

/** What to do about the likeliest causes. */
export type SeamAct =
  /** No single cause makes such steps: they are read again. */
  | { kind: "again" }
  /** Nothing is off by more than an eye can read. */
  | { kind: "leave" }
  /** A camera sits otherwise than when it learned: seat it, then let the unit learn again. */
  | { kind: "seat"; side: SideId }
  /** A lens shows otherwise than it should: look at it, clean it, compare its part number. */
  | { kind: "lens"; side: SideId }
  /** A mat lay wrong: lay it right, prove it, let the unit learn again. */
  | { kind: "lay"; matId: string }
  /** Camera or mat: reading the mat again tells which. */
  | { kind: "read"; matId: string; side: SideId | null };

/** Causes of a group that weigh less than this share of it are not acted upon. */
const SLIGHT = 0.1;

/**
 * What parts the causes of the likeliest group, or mends the one that is left. A mat is read before a
 * camera is touched: reading costs a minute and disturbs nothing.
 */
export function seamAct({ groups: [first], fits }: Found): SeamAct {
  if (!fits) return { kind: "again" };
  // What cannot be told from nothing is left.
  if (!first || first.causes.some((c) => c.cause.kind === "none")) return { kind: "leave" };
  const heavy = first.causes.filter((c) => c.chance >= SLIGHT * first.chance);
  const of = <K extends Cause["kind"]>(kind: K): Extract<Cause, { kind: K }>[] =>
    heavy.flatMap(({ cause }) =>
      cause.kind === kind ? [cause as Extract<Cause, { kind: K }>] : [],
    );
  const [mat, camera, lens] = [of("mat")[0], of("camera")[0], of("lens")[0]];
  const mats = new Set(of("mat").map((m) => m.matId));
  if (mat && (camera || lens || mats.size > 1))
    return { kind: "read", matId: mat.matId, side: camera?.side ?? lens?.side ?? null };
  if (mat) return { kind: "lay", matId: mat.matId };
  if (camera) return { kind: "seat", side: camera.side };
  return lens ? { kind: "lens", side: lens.side } : { kind: "leave" };
}
