import { z } from "zod";
import { distanceM, offset } from "./geometry";
import {
  junctionFields,
  roadFields,
  roadPlace,
  type Junction,
  type Road,
  type RoadPlace,
} from "./road";

/**
 * Roads as GeoJSON (RFC 7946): a LineString with properties for each road, a Point for each junction,
 * and one Point that is the shop. Longitude first, WGS 84, heights in metres.
 */

/** Larger files are not roads of one shop. */
export const MOST_BYTES = 40_000_000;
const MOST_ROADS = 100_000;
const MOST_SAID = 20;

/** What is wrong in a file, where, and what to do. */
export type FileProblem = { where: string; say: string };
export type RoadFile =
  | { ok: true; shop: RoadPlace | null; roads: Road[]; junctions: Junction[] }
  | { ok: false; problems: FileProblem[] };

type Feature = { type: "Feature"; id?: string; properties: object; geometry: object };

export function roadsAsGeoJson(
  shop: RoadPlace,
  roads: readonly Road[],
  junctions: readonly Junction[],
): { type: "FeatureCollection"; features: Feature[] } {
  const point = (coordinates: RoadPlace): object => ({ type: "Point", coordinates });
  return {
    type: "FeatureCollection",
    features: [
      { type: "Feature", properties: { iridel: "shop" }, geometry: point(shop) },
      ...junctions.map(({ at, ...properties }): Feature => ({
        type: "Feature",
        properties: { iridel: "junction", ...properties },
        geometry: point(at),
      })),
      ...roads.map(({ id, points, ...properties }): Feature => ({
        type: "Feature",
        id,
        properties: { iridel: "road", ...properties },
        geometry: { type: "LineString", coordinates: points },
      })),
    ],
  };
}

const feature = z.object({
  type: z.literal("Feature"),
  id: z.union([z.string(), z.number()]).optional(),
  properties: z.record(z.string(), z.unknown()).nullable(),
  geometry: z.object({ type: z.string(), coordinates: z.unknown() }).nullable(),
});
const collection = z.object({
  type: z.literal("FeatureCollection"),
  crs: z.unknown().optional(),
  features: z.array(z.unknown()).max(MOST_ROADS * 2),
});
const line = z.array(roadPlace).min(2).max(5000);

const refused = (where: string, say: string): RoadFile => ({
  ok: false,
  problems: [{ where, say }],
});

/**
 * Reads a file of roads: all of it, or nothing with what is wrong.
 *
 * @param near where the shop stands, so that places that lie elsewhere are asked about; null where
 * nobody knows yet
 */
export function roadsFromGeoJson(text: string, near: RoadPlace | null): RoadFile {
  if (text.length > MOST_BYTES)
    return refused("file", "is larger than 40 MB. Cut it to the roads you drive.");
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return refused(
      "file",
      cutOff(text)
        ? "ends in the middle. Fetch or export it again, whole."
        : "is no JSON. Choose a GeoJSON file.",
    );
  }
  const whole = collection.safeParse(json);
  if (!whole.success)
    return refused(
      "file",
      "is no GeoJSON FeatureCollection with at most 200 000 features. Export the roads as one.",
    );
  const datum = otherDatum(whole.data.crs);
  if (datum)
    return refused(
      "crs",
      `names ${datum}. GeoJSON places are longitude and latitude in WGS 84: export the file in EPSG:4326.`,
    );
  const problems: FileProblem[] = [];
  const roads: Road[] = [];
  const junctions: Junction[] = [];
  let shop: RoadPlace | null = null;
  whole.data.features.forEach((raw, i) => {
    const at = `feature ${i + 1}`;
    const wrong = (where: string, say: string): void =>
      void problems.push({ where: `${at}, ${where}`, say });
    const f = feature.safeParse(raw);
    if (!f.success) return wrong("type", "is no Feature with properties and a geometry.");
    const { properties, geometry } = f.data;
    if (!geometry) return wrong("geometry", "is missing.");
    if (geometry.type === "Point") {
      const place = roadPlace.safeParse(geometry.coordinates);
      if (!place.success) return wrong("coordinates", placeProblem(geometry.coordinates));
      if (properties?.iridel === "shop") return void (shop = place.data);
      const fields = junctionFields.safeParse(properties ?? {});
      if (!fields.success) return wrong(...firstOf(fields.error));
      return void junctions.push({ ...fields.data, at: place.data });
    }
    if (geometry.type !== "LineString")
      return wrong("geometry", `is a ${geometry.type}. Roads are LineStrings; split others up.`);
    const points = line.safeParse(geometry.coordinates);
    if (!points.success) return wrong("coordinates", placeProblem(geometry.coordinates));
    const fields = roadFields.safeParse(properties ?? {});
    if (!fields.success) return wrong(...firstOf(fields.error));
    const crossing = crossesItself(points.data);
    if (crossing)
      return wrong(
        "coordinates",
        `“${fields.data.name}” crosses itself between its points ${crossing[0]} and ${crossing[1]}. Split it where it does.`,
      );
    roads.push({ ...fields.data, id: String(f.data.id ?? `road-${i + 1}`), points: points.data });
  });
  if (problems.length === 0 && roads.length === 0) return refused("file", "holds no road.");
  const seen = new Set<string>();
  for (const r of roads) {
    if (seen.has(r.id))
      problems.push({ where: r.id, say: "is the id of two roads. Give each its own." });
    seen.add(r.id);
  }
  const home = near ?? shop;
  if (problems.length === 0 && home) {
    const swapped = swappedAbout(roads, home);
    if (swapped) return refused("coordinates", swapped);
  }
  return problems.length > 0
    ? { ok: false, problems: problems.slice(0, MOST_SAID) }
    : { ok: true, shop, roads, junctions };
}

/** Whether a text that is no JSON only lacks its end. */
const cutOff = (text: string): boolean =>
  /^\s*[{[]/.test(text) && !/[}\]]\s*$/.test(text.slice(-50));

function otherDatum(crs: unknown): string | null {
  if (crs === undefined || crs === null) return null;
  const name = (crs as { properties?: { name?: unknown } }).properties?.name;
  if (typeof name !== "string") return "a system that is not said";
  return /CRS84|EPSG:+4326$/i.test(name) ? null : `“${name.slice(0, 60)}”`;
}

const firstOf = (error: z.ZodError): [string, string] => {
  const { path, message } = error.issues[0]!;
  return [path.join("."), `${message}.`];
};

/** What is wrong with places that are none. */
function placeProblem(coordinates: unknown): string {
  const flat = (Array.isArray(coordinates) ? coordinates.flat(2) : []) as unknown[];
  const far = flat.some((v) => typeof v === "number" && Math.abs(v) > 180);
  return far
    ? "lie beyond 180 degrees: they are metres of a map projection. Export the file in EPSG:4326."
    : "need two places at least, each longitude and latitude in degrees.";
}

const FAR_M = 300_000;

/** Roads that lie where their numbers would not put them, but their numbers the other way round would. */
function swappedAbout(roads: readonly Road[], home: RoadPlace): string | null {
  const far = roads.filter((r) => distanceM(home, r.points[0]!) > FAR_M);
  if (far.length === 0) return null;
  const back = far.filter(({ points: [p] }) => {
    const turned: RoadPlace = [p![1], p![0]];
    return Math.abs(p![0]) <= 90 && distanceM(home, turned) < FAR_M;
  });
  return back.length === far.length
    ? `lie the other way round: ${far.length} roads would be near the shop with latitude and longitude changed. GeoJSON puts longitude first.`
    : `lie more than 300 km from the shop (“${far[0]!.name}”). Choose the file of this place.`;
}

/** Numbers of two points after which a line crosses itself; null where it does not. */
function crossesItself(points: readonly RoadPlace[]): [number, number] | null {
  const flat = points.map((p) => offset(points[0]!, p));
  const side = (a: number[], b: number[], c: number[]): number =>
    Math.sign((b[0]! - a[0]!) * (c[1]! - a[1]!) - (b[1]! - a[1]!) * (c[0]! - a[0]!));
  for (let i = 0; i + 1 < flat.length; i++)
    for (let k = i + 2; k + 1 < flat.length; k++) {
      const [a, b, c, d] = [flat[i]!, flat[i + 1]!, flat[k]!, flat[k + 1]!];
      if (side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0)
        return [i + 1, k + 1];
    }
  return null;
}
