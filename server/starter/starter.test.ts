import { readFileSync } from "node:fs";
import { beforeAll, describe, expect, it } from "vitest";
import { EVENTS, SYSTEMS } from "@/core/owed";
import { EXAMPLES } from "@/demo/data/examples";
import { openEmptyShop, INES } from "@/tests/shop-database";
import { importKit, kitFile } from "../kit/file";
import { KitRefusal } from "../kit/store";
import { listSheets, listVehicles, ruleBook } from "../shop/store";
import { takeStarterSet } from "./starter";
import { firstSteps } from "./steps";

beforeAll(() => openEmptyShop());
const undone = (): string[] => firstSteps()!.flatMap((s) => (s.done ? [] : [s.id]));

describe("a new shop", () => {
  it("lacks everything, and begins with the starter set in one press", () => {
    expect(undone()).toEqual([
      "clock",
      "rules",
      "people",
      "kit",
      "zero",
      "vehicle",
      "sheet",
      "job",
    ]);
    takeStarterSet(INES);
    expect(undone()).toEqual(["clock", "people", "zero", "job"]);
    expect(listVehicles().map((v) => v.make)).toEqual(["Example"]);
    expect(listSheets()[0]!.title).toMatch(/^EXAMPLE/);
  });
  it("has rules for every event and every system of the trade then, each marked as general", () => {
    const { rules } = ruleBook();
    expect(new Set(rules.flatMap((r) => r.when))).toEqual(new Set(Object.keys(EVENTS)));
    expect(new Set(rules.map((r) => r.system))).toEqual(new Set(Object.keys(SYSTEMS)));
    expect(rules.filter((r) => !/to be checked against your source/.test(r.source))).toEqual([]);
  });
  it("is not given it twice, and keeps what it has", () => {
    const before = JSON.stringify([kitFile(), ruleBook()]);
    expect(() => takeStarterSet(INES)).toThrow(/has a rule book already/);
    expect(JSON.stringify([kitFile(), ruleBook()])).toBe(before);
  });
});

describe("kit from a file", () => {
  const file = (): ReturnType<typeof kitFile> => structuredClone(kitFile());
  it("comes back as it went out; what is there already is left alone", () => {
    expect(importKit(JSON.stringify(kitFile()), INES)).toBe(0);
    const more = file();
    more.boards.push({ ...more.boards[0]!, code: "EX-99" });
    expect(importKit(`\ufeff${JSON.stringify(more)}`, INES)).toBe(1);
    const byCode = (f: ReturnType<typeof kitFile>) => f.boards.map((b) => b.code).sort();
    expect(byCode(kitFile())).toEqual(byCode(more));
  });
  it.each([
    ["no JSON", () => "{", /not JSON/],
    ["another document", () => "{}", /format: must be "iridel\.kit\/1"/],
    [
      "a board without a width",
      () => {
        const f = file();
        return JSON.stringify({
          ...f,
          boards: [{ ...f.boards[0], code: "EX-1", widthMm: undefined }],
        });
      },
      /^board EX-1, widthMm: /,
    ],
    [
      "another piece of the same number",
      () => {
        const f = file();
        return JSON.stringify({ ...f, stands: [{ ...f.stands[0], beamHalfMm: 1100 }] });
      },
      /^stand S-1: the kit has one of this number, but beamHalfMm differs/,
    ],
  ])("refuses %s by name, and keeps nothing of the file", (_, text, problem) => {
    const before = kitFile();
    expect(() => importKit(text(), INES)).toThrow(KitRefusal);
    expect(() => importKit(text(), INES)).toThrow(problem);
    expect(kitFile()).toEqual(before);
  });
});

it("the example files are what the script makes of them", () => {
  for (const [name, doc] of Object.entries(EXAMPLES))
    expect(JSON.parse(readFileSync(`public/examples/${name}.json`, "utf8"))).toEqual(
      JSON.parse(JSON.stringify(doc)),
    );
});
