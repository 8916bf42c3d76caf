import { describe, expect, it } from "vitest";
import { island, SHOP_PLACE } from "@/demo/data/island";
import { MOST_BYTES, roadsAsGeoJson, roadsFromGeoJson, type RoadFile } from "./geojson";

const { roads, junctions } = island();
const LINES = {
  left: { kind: "solid", seen: 0.9 },
  right: { kind: "broken", seen: 0.8 },
};
const road = (coordinates: unknown, more: object = {}) => ({
  type: "Feature",
  properties: { name: "Kelp Street", limitKmh: 50, along: LINES, ...more },
  geometry: { type: "LineString", coordinates },
});
const file = (features: unknown[], more: object = {}): string =>
  JSON.stringify({ type: "FeatureCollection", ...more, features });
const STRAIGHT = [
  [1.9, 56.4],
  [1.91, 56.4],
];
const said = (f: RoadFile): string =>
  f.ok ? "taken" : f.problems.map((p) => `${p.where} ${p.say}`).join(" | ");
const read = (text: string, near = SHOP_PLACE): string => said(roadsFromGeoJson(text, near));

describe("roads as GeoJSON", () => {
  it("give back every road and junction of the island as they went out", () => {
    const back = roadsFromGeoJson(
      JSON.stringify(roadsAsGeoJson(SHOP_PLACE, roads, junctions)),
      null,
    );
    expect(back).toEqual({ ok: true, shop: SHOP_PLACE, roads, junctions });
  });

  it.each([
    ["a sound road", file([road(STRAIGHT)]), "taken"],
    ["one cut off", file([road(STRAIGHT)]).slice(0, -30), "ends in the middle"],
    ["no JSON", "roads of the island", "is no JSON"],
    ["one feature alone", JSON.stringify(road(STRAIGHT)), "no GeoJSON FeatureCollection"],
    ["none in it", file([]), "holds no road"],
    [
      "another datum",
      file([road(STRAIGHT)], {
        crs: { type: "name", properties: { name: "urn:ogc:def:crs:EPSG::27700" } },
      }),
      "EPSG::27700",
    ],
    [
      "a projection",
      file([
        road([
          [401_000, 655_000],
          [402_000, 655_000],
        ]),
      ]),
      "metres of a map projection",
    ],
    ["turned round", file([road(STRAIGHT.map(([x, y]) => [y, x]))]), "longitude first"],
    [
      "another country",
      file([
        road([
          [20, 40],
          [20.1, 40],
        ]),
      ]),
      "more than 300 km from the shop",
    ],
    [
      "one that crosses itself",
      file([
        road([
          [1.9, 56.4],
          [1.91, 56.41],
          [1.91, 56.4],
          [1.9, 56.41],
        ]),
      ]),
      "feature 1, coordinates “Kelp Street” crosses itself between its points 1 and 3",
    ],
    ["one point", file([road([[1.9, 56.4]])]), "two places at least"],
    [
      "an area",
      file([{ ...road(STRAIGHT), geometry: { type: "Polygon", coordinates: [] } }]),
      "is a Polygon",
    ],
    [
      "no limit",
      file([road(STRAIGHT), road(STRAIGHT, { limitKmh: undefined })]),
      "feature 2, limitKmh",
    ],
    [
      "a share of 90",
      file([road(STRAIGHT, { along: { ...LINES, left: { kind: "solid", seen: 90 } } })]),
      "along.left.seen",
    ],
    [
      "one id twice",
      file([
        { ...road(STRAIGHT), id: "a" },
        { ...road(STRAIGHT), id: "a" },
      ]),
      "a is the id of two roads",
    ],
    ["a huge one", " ".repeat(MOST_BYTES + 1), "larger than 40 MB"],
  ])("answers %s", (_, text, words) => {
    expect(read(text)).toContain(words);
  });
});
