import type { Placed, Plan } from "@/core/schedule/types";
import type { ShopDay } from "@/core/schedule/shop";

/** By what the board has its lanes. */
export const LANES = { bay: "Bays", person: "People", thing: "Kit" } as const;
export type LaneKind = keyof typeof LANES;

/** `note`: what it is called besides. */
export type Lane = { id: string; name: string; note?: string; blocks: Placed[] };

/** The lanes of a board and what lies in each; what is done in none of them has a lane of its own. */
export function lanesOf(shop: ShopDay, plan: Plan, kind: LaneKind): Lane[] {
  const { placed } = plan;
  if (kind === "person")
    return shop.people.map((p) => ({
      ...p,
      blocks: placed.filter((x) => x.people.includes(p.id)),
    }));
  if (kind === "thing") {
    const things = [...new Set(placed.flatMap((x) => x.things))].toSorted();
    return things.map((t) => ({
      id: t,
      name: t,
      ...(shop.kit[t] ? { note: shop.kit[t].replace(`${t} `, "") } : {}),
      blocks: placed.filter((x) => x.things.includes(t)),
    }));
  }
  const unsaid = placed.filter(
    (x) =>
      x.bay === null &&
      x.task === "bay" &&
      shop.cards.find((c) => c.id === x.job)?.place === "shop",
  );
  return [
    ...shop.bays.map((b) => ({ ...b, blocks: placed.filter((x) => x.bay === b.id) })),
    // What has begun in a bay that nobody named.
    ...(unsaid.length > 0 ? [{ id: "unsaid", name: "Bay not said", blocks: unsaid }] : []),
    {
      id: "out",
      name: "Road and desk",
      blocks: placed.filter((x) => x.bay === null && !unsaid.includes(x)),
    },
  ];
}

/** Blocks that lie over each other in a lane are set one under another. @returns row of each, and how many */
export function rowsOf(blocks: readonly Placed[]): { row: number[]; rows: number } {
  const ends: number[] = [];
  const row = blocks.map((b) => {
    let i = ends.findIndex((e) => e <= b.startMin);
    if (i < 0) i = ends.length;
    ends[i] = b.endMin;
    return i;
  });
  return { row, rows: Math.max(1, ends.length) };
}

/** The hours a board shows: the shop's, and as much more as anything takes. */
export function hoursOf(shop: ShopDay, plan: Plan): [number, number] {
  const from = Math.min(shop.rules.fromMin, ...plan.placed.map((p) => p.startMin));
  const to = Math.max(shop.rules.toMin, ...plan.placed.map((p) => p.endMin));
  return [Math.floor(from / 60) * 60, Math.min(24 * 60, Math.ceil(to / 60) * 60)];
}
