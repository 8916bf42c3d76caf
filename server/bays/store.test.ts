import { beforeAll, describe, expect, it } from "vitest";
import { BAYS } from "@/demo/data/bays";
import { INES, openTestShop } from "@/tests/shop-database";
import { baysFile, shopBays, takeBays } from "./store";

beforeAll(() => openTestShop());

describe("the shop's bays", () => {
  it("come in from a file whole, go out the same, and stay when another file is refused", () => {
    const file = { format: "iridel.bays/1", bays: BAYS };
    expect(takeBays(`\ufeff${JSON.stringify(file)}`, INES)).toBe(BAYS.length);
    expect(JSON.parse(baysFile())).toEqual(file);
    const [first] = BAYS;
    const wrong: [string, RegExp][] = [
      ["{", /is no JSON/],
      [JSON.stringify({ ...file, format: "other" }), /^format: /],
      [JSON.stringify({ ...file, bays: [first, first] }), /one id is used twice/],
      [
        JSON.stringify({
          ...file,
          bays: [
            {
              ...first,
              outline: [
                [0, 0],
                [9, 9],
                [9, 0],
                [0, 9],
              ],
            },
          ],
        }),
        /bays\.0\.outline: .*cross itself/,
      ],
    ];
    for (const [text, words] of wrong) expect(() => takeBays(text, INES)).toThrow(words);
    expect(shopBays()).toEqual(BAYS);
  });
});
