import { beforeAll, describe, expect, it } from "vitest";
import { island, SHOP_PLACE } from "@/demo/data/island";
import { roadsAsGeoJson } from "@/core/drive/geojson";
import { INES, openTestShop } from "@/tests/shop-database";
import { shopRoads } from "./store";
import { editRoad, rateRoads } from "./edit";
import { roadsFile, takeRoads } from "./take";

beforeAll(() => openTestShop());

describe("the shop's roads", () => {
  it("come in from a file whole, go out the same, and stay when another file is refused", () => {
    const { roads, junctions } = island();
    const some = JSON.stringify(
      roadsAsGeoJson(SHOP_PLACE, roads.slice(0, 5), junctions.slice(0, 3)),
    );
    expect(takeRoads(some, INES)).toBe(5);
    expect(JSON.parse(roadsFile()!)).toEqual(JSON.parse(some));
    const broken = some.replace('"limitKmh":30', '"limitKmh":-30');
    expect(() => takeRoads(broken, INES)).toThrow(/feature \d+, limitKmh/);
    expect(() => takeRoads(some.slice(0, -50), INES)).toThrow(/ends in the middle/);
    expect(shopRoads()!.roads).toHaveLength(5);
  });
  it("are rated and written one by one; what cannot be is named and changes nothing", () => {
    const before = shopRoads()!;
    const [road, other] = before.roads as [(typeof before.roads)[0], (typeof before.roads)[0]];
    const line = { kind: "solid", seen: 0.42, on: "2026-11-29" };
    const is = { left: line, right: line };
    expect(rateRoads({ ratings: [{ roadId: road.id, back: false, is }] }, INES)).toBe(1);
    expect(shopRoads()!.roads[0]!.along.left.seen).toBe(0.42);
    expect(shopRoads()!.roads[1]).toEqual(other);
    const { id, points, ...fields } = shopRoads()!.roads[0]!;
    const end = { at: points[0]!, control: "signals", redShare: 0.7, redS: 60, turnRound: true };
    editRoad({ id, road: { ...fields, limitKmh: 70 }, ends: [end] }, INES);
    const kept = shopRoads()!;
    expect(kept.roads[0]).toEqual({ ...fields, id, points, limitKmh: 70 });
    expect(
      kept.junctions.find((j) => j.at[0] === points[0]![0] && j.at[1] === points[0]![1]),
    ).toEqual(end);
    const wrong: [unknown, RegExp][] = [
      [{ id, road: { ...fields, limitKmh: 900 }, ends: [] }, /road\.limitKmh/],
      [{ id: "gone", road: fields, ends: [] }, /no longer there/],
      [{ id, road: fields, ends: [{ ...end, at: [0, 0] }] }, /ends: a junction stands/],
    ];
    for (const [edit, words] of wrong) expect(() => editRoad(edit, INES)).toThrow(words);
    expect(() => rateRoads({ ratings: [{ roadId: "gone", back: false, is }] }, INES)).toThrow(
      /none of these/,
    );
    expect(() =>
      rateRoads(
        { ratings: [{ roadId: id, back: false, is: { ...is, left: { ...line, seen: 2 } } }] },
        INES,
      ),
    ).toThrow(/ratings\.0\.is\.left\.seen/);
    expect(shopRoads()).toEqual(kept);
  });
});
