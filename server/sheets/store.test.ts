import { beforeAll, describe, expect, it } from "vitest";
import type { Target } from "@/core/sheet";
import { SHEETS } from "@/demo/data/sheets";
import { INES, openTestShop, OSKAR } from "@/tests/shop-database";
import { listSheets } from "../shop/store";
import { BookRefusal } from "../book/book";
import { sheetBook, sheetVersions } from "./store";

const { begin, checkDraft, discardDraft, draftFrom, findDraft, importFile, listDrafts, saveDraft } =
  sheetBook;

beforeAll(() => openTestShop());
const LISSE = SHEETS[0]!;
/** The sheet with other figures of its one target. */
const withTarget = <D extends object>(
  doc: D,
  change: Partial<Record<keyof Target, unknown>>,
): D => {
  const [setup] = LISSE.setups;
  return { ...doc, setups: [{ ...setup!, targets: [{ ...setup!.targets[0]!, ...change }] }] };
};
const { placement: PLACE, tolerance: ALLOWED } = LISSE.setups[0]!.targets[0]!;

describe("the shop's book of sheets", () => {
  it("takes a new version only from a second person, and never changes the old one", () => {
    const key = draftFrom("lisse-forward", INES);
    saveDraft(
      key,
      withTarget(findDraft(key)!.doc, { placement: { ...PLACE, alongMm: 2880 } }),
      INES,
    );
    expect(() => checkDraft(key, INES)).toThrow(/source\.checkedBy.*second person/);
    expect(checkDraft(key, OSKAR)).toMatchObject({
      version: 3,
      setups: [{ targets: [{ placement: { alongMm: 2880 } }] }],
      source: { enteredBy: "Ines Tarbet", checkedBy: "Oskar Veld" },
    });
    expect(sheetVersions("lisse-forward").map((s) => s.version)).toEqual([3, 2]);
    expect(sheetVersions("lisse-forward")[1]).toEqual(LISSE);
    expect(listSheets().find((s) => s.id === "lisse-forward")!.version).toBe(3);
    expect(() => checkDraft(key, OSKAR)).toThrow(/gone/);
  });
  it("keeps a draft with problems, but does not let it be checked", () => {
    const key = draftFrom("tarn-forward", OSKAR);
    const saved = saveDraft(
      key,
      withTarget(findDraft(key)!.doc, { placement: { ...PLACE, alongMm: 1.95 } }),
      OSKAR,
    );
    expect(saved.problems[0]!.field).toBe("setups.0.targets.0.placement.alongMm");
    expect(() => checkDraft(key, INES)).toThrow(/targets\.0\.placement\.alongMm/);
    expect(listDrafts().map((d) => d.key)).toContain(key);
    discardDraft(key);
    expect(findDraft(key)).toBeNull();
    expect(() => saveDraft(key, {}, INES)).toThrow(BookRefusal);
    expect(() => saveDraft(key, null, INES)).toThrow(BookRefusal);
  });
  it("whoever wrote a figure cannot sign; who opened and kept it unchanged wrote none", () => {
    const key = draftFrom("lisse-forward", INES);
    const further = (mm: number) =>
      withTarget(findDraft(key)!.doc, { placement: { ...PLACE, alongMm: mm } });
    saveDraft(key, further(2890), INES);
    // A colleague opens the draft, and the page keeps it as it is: that is no writing.
    const kept = saveDraft(key, findDraft(key)!.doc, OSKAR);
    expect(kept).toMatchObject({
      editedBy: "ines",
      writers: ["ines"],
      doc: { source: { enteredBy: "Ines Tarbet" } },
    });
    expect(() => checkDraft(key, INES)).toThrow(/second person/);
    // Once he writes one, neither may sign what both wrote.
    saveDraft(key, further(2891), OSKAR);
    expect(findDraft(key)).toMatchObject({
      writers: ["ines", "oskar"],
      doc: { source: { enteredBy: "Ines Tarbet, Oskar Veld" } },
    });
    for (const who of [INES, OSKAR]) expect(() => checkDraft(key, who)).toThrow(/second person/);
    discardDraft(key);
  });
  it("of two people on one draft the second is told, and neither is written over", () => {
    const key = draftFrom("lisse-forward", INES);
    const page = findDraft(key)!;
    saveDraft(key, { ...page.doc, title: "Hers" }, INES, page.revision);
    expect(() => saveDraft(key, { ...page.doc, title: "His" }, OSKAR, page.revision)).toThrow(
      /Ines Tarbet wrote to this draft meanwhile/,
    );
    expect(findDraft(key)!.doc.title).toBe("Hers");
    discardDraft(key);
  });
  it.each([
    ["{", /not JSON/],
    ["\ufeff[]", /not a sheet/],
    ["[]", /not a sheet/],
    [JSON.stringify(withTarget(LISSE, { datum: "nose" })), /datum/],
    [JSON.stringify(LISSE), /already in the book, word for word/],
    [
      JSON.stringify(withTarget(LISSE, { tolerance: { ...ALLOWED, alongMm: 40 } })),
      /was checked and never changes, but setups\.first\.targets\.first\.tolerance\.alongMm differs \(10 there, 40 here\)\. Give the file version/,
    ],
  ])("refuses the file %.20s", (text, message) => {
    const before = listDrafts().length;
    expect(() => importFile(text, INES)).toThrow(message);
    expect(listDrafts()).toHaveLength(before);
  });
  it("takes a sheet of another shop as a draft, whole, to be checked here", () => {
    const other = { ...LISSE, id: "lisse-other", version: 1 };
    const key = importFile(JSON.stringify(other), OSKAR);
    expect(findDraft(key)!.doc).toEqual({
      ...other,
      source: { ...other.source, enteredBy: "Oskar Veld" },
    });
    expect(checkDraft(key, INES).version).toBe(1);
  });
  it("begins one from nothing: what is missing is named, and its id comes from its title when it is signed", () => {
    for (const expected of ["tarn-door-camera", "tarn-door-camera-2"]) {
      const key = begin(INES);
      const { doc, problems } = findDraft(key)!;
      expect(problems).toContainEqual({ field: "title", message: "is missing.", missing: true });
      expect(problems.map((p) => p.field)).not.toContain("id");
      const { id: _, ...filled } = { ...LISSE, title: "Tarn, door camera" };
      saveDraft(key, { ...doc, ...filled, id: doc.id }, INES);
      expect(checkDraft(key, OSKAR)).toMatchObject({ id: expected, version: 1 });
    }
  });
});
