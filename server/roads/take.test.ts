import { beforeAll, describe, expect, it } from "vitest";
import { island, SHOP_PLACE } from "@/demo/data/island";
import { roadsAsGeoJson } from "@/core/drive/geojson";
import { INES, openTestShop } from "@/tests/shop-database";
import { shopRoads } from "./store";
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
});
