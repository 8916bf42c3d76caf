import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { SHEETS } from "@/demo/data/sheets";
import { getAt, setAt } from "./paths";

const doc = SHEETS[0] as unknown as Record<string, unknown>;

describe("paths into a draft", () => {
  it("set what is then found, and touch nothing else", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("title", "placement.alongMm", "run.1.say", "new.deep.field"),
        fc.jsonValue(),
        (path, value) => {
          const before = JSON.stringify(doc);
          const after = setAt(doc, path, value);
          expect(getAt(after, path)).toEqual(value);
          expect(JSON.stringify(doc)).toBe(before);
          expect(getAt(after, "source.name")).toBe(getAt(doc, "source.name"));
        },
      ),
    );
  });
  it("take a field out with undefined, keep lists as lists, and lead nowhere quietly", () => {
    expect("title" in setAt(doc, "title", undefined)).toBe(false);
    expect(Array.isArray(setAt(doc, "run.0.say", "x").run)).toBe(true);
    expect(getAt(doc, "run.99.say")).toBeUndefined();
    expect(getAt(doc, "title.length.of")).toBeUndefined();
  });
});
