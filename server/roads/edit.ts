import { z } from "zod";
import { plainly, problemsIn } from "@/core/book";
import { withRatings } from "@/core/drive/rate";
import {
  junctionFields,
  laneLines,
  roadFields,
  roadPlace,
  type RoadPlace,
} from "@/core/drive/road";
import type { Person } from "../auth/session";
import { db } from "../db/client";
import { noteShop } from "../log/shop";
import { keepRoads, shopRoads, type ShopRoads } from "./store";
import { RoadsRefusal } from "./take";

const editSchema = z.object({
  id: z.string().min(1).max(40),
  road: roadFields,
  /** What stands at its ends. */
  ends: z.array(junctionFields.extend({ at: roadPlace })).max(2),
});

const ratingsSchema = z.object({
  ratings: z
    .array(z.object({ roadId: z.string().min(1).max(40), back: z.boolean(), is: laneLines }))
    .min(1)
    .max(5000),
});

const read = <T>(schema: z.ZodType<T>, json: unknown, whole: string): T => {
  const is = schema.safeParse(json, plainly);
  if (!is.success)
    throw new RoadsRefusal(
      problemsIn(is.error, whole)
        .map((p) => `${p.field}: ${p.message}`)
        .join("\n"),
    );
  return is.data;
};

function known(): ShopRoads {
  const roads = shopRoads();
  if (!roads) throw new RoadsRefusal("Roads: the shop has none yet. Import a GeoJSON file.");
  return roads;
}

const same = (a: RoadPlace, b: RoadPlace): boolean => a[0] === b[0] && a[1] === b[1];

/** Writes what is known of one road and of what stands at its ends. @throws RoadsRefusal */
export function editRoad(json: unknown, person: Person): void {
  const { id, road, ends } = read(editSchema, json, "road");
  db().transaction(() => {
    const had = known();
    const old = had.roads.find((r) => r.id === id);
    if (!old) throw new RoadsRefusal("Roads: this one is no longer there. Look at the list again.");
    const edges = [old.points[0]!, old.points.at(-1)!];
    const stray = ends.find((e) => !edges.some((p) => same(p, e.at)));
    if (stray) throw new RoadsRefusal("ends: a junction stands at an end of its road.");
    const { points } = old;
    keepRoads({
      ...had,
      roads: had.roads.map((r) => (r.id === id ? { ...road, id, points } : r)),
      junctions: [...had.junctions.filter((j) => !ends.some((e) => same(e.at, j.at))), ...ends],
    });
    noteShop(person, { kind: "kit", item: "roads", what: `${road.name} changed` });
  });
}

/** Takes over what a drive told of its roads. @returns how many were known anew @throws RoadsRefusal */
export function rateRoads(json: unknown, person: Person): number {
  const { ratings } = read(ratingsSchema, json, "ratings");
  return db().transaction(() => {
    const had = known();
    const roads = withRatings(had.roads, ratings);
    const anew = roads.filter((r, i) => r !== had.roads[i]).length;
    if (anew === 0)
      throw new RoadsRefusal("Roads: none of these is there any longer. Nothing was changed.");
    keepRoads({ ...had, roads });
    noteShop(person, { kind: "kit", item: "roads", what: `${anew} rated by a drive` });
    return anew;
  });
}
