import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { Wedge } from "./wedge";

/** Types a text with so many milliseconds between keys, then Enter; what the last key told. */
function type(wedge: Wedge, text: string, gap: number, from = 0): ReturnType<Wedge["key"]> {
  [...text].forEach((k, i) => wedge.key(k, from + i * gap));
  return wedge.key("Enter", from + text.length * gap);
}

describe("a scanner among the keys", () => {
  it("is told from fingers at any realistic pace", () => {
    const text = fc.stringMatching(/^[A-Z0-9-]{6,30}$/);
    fc.assert(
      fc.property(
        text,
        fc.integer({ min: 1, max: 30 }),
        fc.integer({ min: 60, max: 280 }),
        (t, fast, slow) => {
          expect(type(new Wedge(), t, fast)).toEqual({ code: t });
          expect(type(new Wedge(), t, slow)).toBeNull();
        },
      ),
    );
  });
  it("is not looked for in a short word, nor across a pause", () => {
    expect(type(new Wedge(), "12345", 5)).toBeNull();
    const wedge = new Wedge();
    wedge.key("M", 0); // someone typed this one
    expect(type(wedge, "FC-5-2026", 8, 900)).toEqual({ code: "FC-5-2026" });
  });
  it("says when a burst may begin, once, and is not put off by shift keys", () => {
    const wedge = new Wedge();
    const told = ["Shift", "B", "Shift", "K", "1", "2", "3", "4"].map((k, i) =>
      wedge.key(k, i * 5),
    );
    expect(told.filter((t) => t === "began")).toHaveLength(1);
    expect(wedge.key("Enter", 40)).toEqual({ code: "BK1234" });
  });
});
