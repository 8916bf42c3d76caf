import { beforeAll, describe, expect, it } from "vitest";
import { VEHICLES } from "@/demo/data/vehicles";
import { INES, openTestShop, OSKAR } from "@/tests/shop-database";
import { sheetBook } from "../sheets/store";
import { listVehicles } from "../shop/store";
import { vehicleBook, vehicleVersions } from "./store";

beforeAll(() => openTestShop());
const LISSE = VEHICLES[0]!;

describe("the measuring book", () => {
  it("corrects a dimension as a new version after a second person's check; the old one stays", () => {
    const key = vehicleBook.draftFrom(LISSE.id, INES);
    vehicleBook.saveDraft(key, { ...vehicleBook.findDraft(key)!.doc, wheelbaseMm: 2612 }, INES);
    expect(() => vehicleBook.checkDraft(key, INES)).toThrow(/checked\.checkedBy.*second person/);
    expect(vehicleBook.checkDraft(key, OSKAR)).toMatchObject({ version: 2, wheelbaseMm: 2612 });
    expect(vehicleVersions(LISSE.id).map((v) => [v.version, v.wheelbaseMm])).toEqual([
      [2, 2612],
      [1, 2610],
    ]);
    expect(listVehicles().find((v) => v.id === LISSE.id)!.wheelbaseMm).toBe(2612);
  });
  it("keeps its drafts apart from the sheets'", () => {
    const key = vehicleBook.draftFrom(LISSE.id, INES);
    expect(sheetBook.findDraft(key)).toBeNull();
    sheetBook.discardDraft(key);
    expect(vehicleBook.listDrafts().map((d) => d.key)).toEqual([key]);
  });
  it("a copy gets an id of its own", () => {
    const key = vehicleBook.copyFrom(LISSE.id, INES);
    expect(vehicleBook.findDraft(key)!.doc).toMatchObject({
      id: `${LISSE.id}-2`,
      version: 1,
      make: LISSE.make,
    });
    expect(() => vehicleBook.copyFrom("no-such", INES)).toThrow(/no such vehicle/);
  });
  it("refuses a version that was checked and edited after, naming the field", () => {
    const [newest] = vehicleVersions(LISSE.id);
    const edited = JSON.stringify({ ...newest, hubHeightMm: 330 });
    expect(() => vehicleBook.importFile(edited, OSKAR)).toThrow(
      /never changes, but hubHeightMm differs/,
    );
  });
});
