import { beforeAll, describe, expect, it } from "vitest";
import { BAYS } from "@/demo/data/bays";
import { INES, openTestShop } from "@/tests/shop-database";
import { editBay } from "./edit";
import { addQuickBay, dropBay } from "./quick";
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
  it("are added from their tapes and taken out; tapes that cannot be are named", () => {
    const yard = { name: "Yard, back", sides: [6000, 9000, 6000, 9000], diagonalMm: null, door: 2 };
    expect(addQuickBay(yard, INES)).toMatchObject({
      id: "yard-back",
      outline: [
        [0, 0],
        [6000, 0],
        [6000, 9000],
        [0, 9000],
      ],
      doors: [
        [
          [6000, 0],
          [6000, 9000],
        ],
      ],
    });
    const before = shopBays();
    const wrong: [object, RegExp][] = [
      [yard, /has a bay “Yard, back” already/],
      [{ ...yard, name: "B", sides: [6000, 90, 6000, 9000] }, /^wall 2: must be at least 1\.5 m/],
      [{ ...yard, name: "B", sides: [6000, 9000, 30_000, 9000] }, /do not close/],
      [{ ...yard, name: "" }, /^name: is needed/],
    ];
    for (const [bay, words] of wrong) expect(() => addQuickBay(bay, INES)).toThrow(words);
    expect(shopBays()).toEqual(before);
    dropBay("yard-back", INES);
    expect(shopBays()).toEqual(BAYS);
    expect(() => dropBay("yard-back", INES)).toThrow(/gone already/);
  });
  it("are kept as drawn, but not over what somebody else has drawn meanwhile, nor half", () => {
    const [was] = shopBays() as [(typeof BAYS)[number]];
    const bay = { ...was, usualLux: 612, doors: [] };
    expect(editBay({ bay, was }, INES)).toEqual(bay);
    const before = shopBays();
    expect(before[0]).toEqual(bay);
    const wrong: [object, RegExp][] = [
      [{ bay: { ...was, name: "Bay one" }, was }, /Somebody has changed this bay/],
      [{ bay: { ...bay, name: "Bay 2" }, was: bay }, /has a bay “Bay 2” already/],
      [{ bay: { ...bay, id: "gone" }, was: bay }, /taken out meanwhile/],
      [
        { bay: { ...bay, obstacles: [{ ...bay.obstacles[0], name: "" }] }, was: bay },
        /^obstacles\.0\.name: /,
      ],
    ];
    for (const [edit, words] of wrong) expect(() => editBay(edit, INES)).toThrow(words);
    expect(shopBays()).toEqual(before);
    editBay({ bay: was, was: bay }, INES);
  });
});
