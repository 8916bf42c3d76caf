import { isOver, toolEnds, type ShopTool } from "@/core/kit";
import type { OwedPlan } from "@/core/owed";
import { standsFor, type Stand } from "@/core/setout";
import type { Card } from "@/core/schedule/shop";
import type { Sheet } from "@/core/sheet";
import type { Vehicle } from "@/core/vehicle";
import { listBoards, listTools } from "../kit/store";
import { listSheets, listStands } from "../shop/store";

/** What a shop has that exists once, and the sheets that say what takes it. */
export type ShopKit = { day: string; sheets: Sheet[]; stands: Stand[]; tools: ShopTool[] };

export const shopKit = (day: string): ShopKit => ({
  day,
  sheets: listSheets(),
  stands: listStands(),
  tools: listTools(),
});

/** Every thing of the kit that a day may take up, by what it goes by, with its name. */
export const kitNames = ({ stands, tools }: ShopKit): Record<string, string> =>
  Object.fromEntries([
    ...listBoards().map((b) => [b.code, `${b.code} ${b.name}`]),
    ...stands.map((s) => [s.id, `${s.id} ${s.name}`]),
    ...tools.map((t) => [t.id, `${t.id} ${t.name}`]),
  ]);

/** What a card takes along, each with those of the kit that serve. */
export function pickedFor(day: string, card: Card): { code: string; name: string }[][] {
  const kit = shopKit(day);
  const names = new Map([
    ...listBoards().map((b) => [b.code, b.name] as const),
    ...[...kit.stands, ...kit.tools].map((x) => [x.id, x.name] as const),
  ]);
  return once([...(card.bay?.things ?? []), ...(card.road?.things ?? [])]).map((any) =>
    any.map((code) => ({ code, name: names.get(code) ?? "Board" })),
  );
}

/** The same needs are one: what is done one after another uses one stand. */
function once(needs: readonly string[][]): string[][] {
  const seen = new Set<string>();
  return needs.filter((any) => {
    const key = any.toSorted().join();
    return any.length > 0 && !seen.has(key) && seen.add(key);
  });
}

/** The newest sheet that a line of a plan would be done by. */
export const sheetOf = (
  { sheets }: ShopKit,
  vehicle: Vehicle,
  { system }: OwedPlan["steps"][number]["line"],
): Sheet | undefined =>
  sheets.find((s) => s.appliesTo.vehicles.includes(vehicle.id) && s.appliesTo.system === system);

/**
 * What the kit has to give for a vehicle's calibrations: its boards, for each sheet one of the stands that
 * carry it, and in the bay and on the road a scan tool that serves that day. A shop that has written down
 * none that does waits for none.
 *
 * @param chosen stands that a job was taken in with, in place of any that serve
 */
export function kitFor(
  kit: ShopKit,
  vehicle: Vehicle,
  plan: OwedPlan,
  chosen: readonly string[] | null = null,
): { bay: string[][]; road: string[][] } {
  const serve = kit.tools.filter((t) => !toolEnds(t, kit.day, vehicle.gateway).some(isOver));
  const tools = once([serve.map((t) => t.id)]);
  const stands = chosen
    ? chosen.map((id) => [id])
    : plan.steps.flatMap(({ line }) => {
        const sheet = line.kind === "static" ? sheetOf(kit, vehicle, line) : undefined;
        const able = sheet && standsFor(sheet, kit.stands);
        return able ? [able.map((s) => s.id)] : [];
      });
  return { bay: once([...plan.boards.map((code) => [code]), ...stands, ...tools]), road: tools };
}
