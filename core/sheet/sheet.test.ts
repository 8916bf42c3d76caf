import { Ajv2020 } from "ajv/dist/2020";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { SHEETS } from "@/demo/data/sheets";
import { readSheet, sheetJsonSchema, sheetSchema } from ".";

type Loose = Record<string, Record<string, unknown>>;
const first = (s: Loose): Loose =>
  (s as unknown as { setups: { targets: Loose[] }[] }).setups[0]!.targets[0]!;

describe("a sheet", () => {
  it("of the demo shop is valid, also by the published JSON Schema, and survives export and import", () => {
    const validate = new Ajv2020({ strict: false, formats: { date: /^\d{4}-\d\d-\d\d$/ } }).compile(
      sheetJsonSchema(),
    );
    for (const sheet of SHEETS) {
      expect(validate(sheet)).toBe(true);
      expect(sheetSchema.parse(JSON.parse(JSON.stringify(sheet)))).toEqual(sheet);
    }
  });
  it.each<[string, (s: Loose) => void, RegExp]>([
    [
      "metres for millimetres",
      (s) => Object.assign(first(s).placement!, { alongMm: 2.86 }),
      /placement\.alongMm/,
    ],
    ["no datum", (s) => void delete (first(s) as Record<string, unknown>).datum, /datum/],
    ["no tolerance", (s) => void delete first(s).tolerance!.acrossMm, /tolerance\.acrossMm/],
    [
      "one person entering and checking",
      (s) => Object.assign(s.source!, { checkedBy: "Ines Tarbet" }),
      /source\.checkedBy.*second person/,
    ],
    [
      "a step used twice",
      (s) => void (s.run as unknown as object[]).push({ ...SHEETS[0]!.run[0] }),
      /run\.\d+\.id/,
    ],
  ])("with %s is refused by field", (_, change, field) => {
    const copy = structuredClone(SHEETS[0]!) as unknown as Loose;
    change(copy);
    const r = readSheet(copy);
    expect(r.ok).toBe(false);
    expect(!r.ok && r.problems.join("; ")).toMatch(field);
  });
  it("never throws on anything at all", () => {
    fc.assert(fc.property(fc.jsonValue(), (json) => !readSheet(json).ok));
  });
});
