import { beforeAll, describe, expect, it } from "vitest";
import { SHEETS } from "@/demo/data/sheets";
import { INES, openTestShop, OSKAR } from "@/tests/shop-database";
import { listSheets } from "../shop/store";
import { BookRefusal } from "../book/book";
import { sheetBook, sheetVersions } from "./store";

const { begin, checkDraft, discardDraft, draftFrom, findDraft, importFile, listDrafts, saveDraft } = sheetBook;

beforeAll(() => openTestShop());
const LISSE = SHEETS[0]!;

describe("the shop's book of sheets", () => {
  it("takes a new version only from a second person, and never changes the old one", () => {
    const key = draftFrom("lisse-forward", INES);
    saveDraft(key, { ...findDraft(key)!.doc, placement: { ...LISSE.placement, alongMm: 2880 } }, INES);
    expect(() => checkDraft(key, INES)).toThrow(/source\.checkedBy.*second person/);
    expect(checkDraft(key, OSKAR)).toMatchObject({ version: 3, placement: { alongMm: 2880 }, source: { enteredBy: "Ines Tarbet", checkedBy: "Oskar Veld" } }); // prettier-ignore
    expect(sheetVersions("lisse-forward").map((s) => s.version)).toEqual([3, 2]);
    expect(sheetVersions("lisse-forward")[1]).toEqual(LISSE);
    expect(listSheets().find((s) => s.id === "lisse-forward")!.version).toBe(3);
    expect(() => checkDraft(key, OSKAR)).toThrow(/gone/);
  });
  it("keeps a draft with problems, but does not let it be checked; the writer of a last touch is the writer", () => {
    const key = draftFrom("tarn-forward", INES);
    const saved = saveDraft(key, { ...findDraft(key)!.doc, placement: { alongMm: 1.95, acrossMm: 0, twistDeg: 0, heightMm: 1310 } }, OSKAR); // prettier-ignore
    expect(saved.problems[0]!.field).toBe("placement.alongMm");
    expect(() => checkDraft(key, INES)).toThrow(/placement\.alongMm/);
    expect(listDrafts().map((d) => d.key)).toContain(key);
    discardDraft(key);
    expect(findDraft(key)).toBeNull();
    expect(() => saveDraft(key, {}, INES)).toThrow(BookRefusal);
  });
  it.each([
    ["{", /not JSON/],
    ["[]", /not a sheet/],
    [JSON.stringify({ ...LISSE, datum: "nose" }), /datum/],
    [JSON.stringify(LISSE), /already in the book, word for word/],
    [JSON.stringify({ ...LISSE, tolerance: { ...LISSE.tolerance, alongMm: 40 } }), /was checked and never changes, but tolerance\.alongMm differs \(10 there, 40 here\)\. Give the file version/], // prettier-ignore
  ])("refuses the file %.20s", (text, message) => {
    const before = listDrafts().length;
    expect(() => importFile(text, INES)).toThrow(message);
    expect(listDrafts()).toHaveLength(before);
  });
  it("takes a sheet of another shop as a draft, whole, to be checked here", () => {
    const other = { ...LISSE, id: "lisse-other", version: 1 };
    const key = importFile(JSON.stringify(other), OSKAR);
    expect(findDraft(key)!.doc).toEqual({ ...other, source: { ...other.source, enteredBy: "Oskar Veld" } });
    expect(checkDraft(key, INES).version).toBe(1);
  });
  it("begins one from nothing: what is missing is named, and its id comes from its title when it is signed", () => {
    for (const expected of ["tarn-door-camera", "tarn-door-camera-2"]) {
      const key = begin(INES);
      const { doc, problems } = findDraft(key)!;
      expect(problems).toContainEqual({ field: "title", message: "is missing." });
      expect(problems.map((p) => p.field)).not.toContain("id");
      const { id: _, ...filled } = { ...LISSE, title: "Tarn, door camera" };
      saveDraft(key, { ...doc, ...filled, id: doc.id }, INES);
      expect(checkDraft(key, OSKAR)).toMatchObject({ id: expected, version: 1 });
    }
  });
});
