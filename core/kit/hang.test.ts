import { describe, expect, it } from "vitest";
import type { Board } from "./board";
import { checkBoard } from "./hang";

const board = (code: string, change: Partial<Board> = {}): Board => ({
  code,
  name: "Floor mat",
  side: "either",
  version: 1,
  widthMm: 1400,
  condition: "good",
  ...change,
});
const kit = [
  board("HQ-14", { name: "Forward camera board, dots", version: 2 }),
  board("HQ-M1", { side: "left" }),
  board("HQ-M2", { side: "right" }),
  board("HQ-22", { name: "Forward camera board, large", condition: "worn" }),
  board("HQ-30", { name: "Old board", condition: "out of use" }),
];

describe("a board before it is looked at", () => {
  it("is the right one, however its code is typed", () => {
    for (const typed of ["HQ-14", "hq-14", " HQ -14 "])
      expect(checkBoard(typed, kit, { code: "HQ-14", version: 2 })).toBeNull();
  });
  it.each([
    ["not in the kit", "FC-9", { code: "HQ-14" }, /FC-9 is no board of this shop/],
    [
      "another board",
      "HQ-22",
      { code: "HQ-14" },
      /HQ-22 is “Forward camera board, large”; the sheet asks for HQ-14/,
    ],
    [
      "the other side's",
      "HQ-M2",
      { code: "HQ-M1", side: "left" as const },
      /one for vehicle right; this place takes HQ-M1, for vehicle left/,
    ],
    [
      "a place of the other side",
      "HQ-M1",
      { code: "HQ-M1", side: "right" as const },
      /marked for vehicle left; this place is vehicle right/,
    ],
    [
      "another version",
      "HQ-14",
      { code: "HQ-14", version: 3 },
      /version 2; the sheet asks for version 3/,
    ],
    ["out of use", "HQ-30", { code: "HQ-30" }, /out of use/],
    ["nothing", "", { code: "HQ-14" }, /no board of this shop/],
  ])("is stopped when it is %s", (_, typed, wanted, words) => {
    expect(checkBoard(typed, kit, wanted)).toMatchObject({
      kind: "stop",
      say: expect.stringMatching(words) as string,
    });
  });
  it("may hang worn, with a reason", () =>
    expect(checkBoard("HQ-22", kit, { code: "HQ-22" })?.kind).toBe("ask"));
});
