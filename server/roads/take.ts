import { MOST_BYTES, roadsAsGeoJson, roadsFromGeoJson } from "@/core/drive/geojson";
import { Refusal } from "../auth/as-writer";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { noteShop } from "../log/shop";
import { keepRoads, shopRoads } from "./store";

export { MOST_BYTES };

/** A file of roads that cannot be taken. The message names each place and its remedy. */
export class RoadsRefusal extends Refusal {
  override readonly name = "RoadsRefusal";
}

/**
 * Takes a file of roads in the place of those that were there: all of it, or nothing. The place of the
 * shop stays where a file names none.
 *
 * @returns how many roads there are now @throws RoadsRefusal
 */
export function takeRoads(text: string, person: Person): number {
  const had = shopRoads();
  const read = roadsFromGeoJson(text, had?.shop ?? null);
  if (!read.ok) throw new RoadsRefusal(read.problems.map((p) => `${p.where}: ${p.say}`).join("\n"));
  const shop = read.shop ?? had?.shop;
  if (!shop)
    throw new RoadsRefusal(
      "shop: the file does not say where the shop stands. Add a Point with the property iridel: shop.",
    );
  db().transaction(() => {
    keepRoads({ shop, roads: read.roads, junctions: read.junctions });
    noteShop(person, { kind: "kit", item: "roads", what: `${read.roads.length} from a file` });
  });
  return read.roads.length;
}

/** The shop's roads as a file; null where it has none. */
export function roadsFile(): string | null {
  const had = shopRoads();
  return had && `${JSON.stringify(roadsAsGeoJson(had.shop, had.roads, had.junctions))}\n`;
}
