import { execFileSync } from "node:child_process";
import { beforeAll, describe, expect, it } from "vitest";
import { STANDS } from "@/demo/data/kit";
import { INES, openTestShop, OSKAR } from "@/tests/shop-database";
import { listCheckedInstruments, listInstruments } from "../shop/store";
import { renderLabels } from "./labels";
import { checkInstrument, checkStand, KitRefusal, lastChecks } from "./store";

beforeAll(() => openTestShop());
const stand = STANDS[0]!;
const good = { scale: 1000, rule: 1000 + stand.scaleOffsetMm, left: stand.beamHalfMm, right: stand.beamHalfMm, dot: 1 };

describe("the kit", () => {
  it("keeps every zero check with its name, the newest one counting", () => {
    expect(checkStand("S-1", good, INES, "2026-11-23T07:10:00.000Z").ok).toBe(true);
    expect(checkStand("S-1", { ...good, dot: 9 }, OSKAR, "2026-11-24T07:05:00.000Z").ok).toBe(false);
    expect(lastChecks().get("S-1")).toMatchObject({
      ok: false,
      by: "Oskar Veld",
      words: "laser square to the beam off by 9.0 mm",
    });
    expect(lastChecks().get("S-2")).toBeUndefined();
  });
  it("refuses a reading that is missing or absurd by its name, and keeps nothing", () => {
    const before = lastChecks().get("S-1");
    const { left: _, ...lacking } = good;
    expect(() => checkStand("S-1", lacking, INES)).toThrow(/tape, board centre to the left hook/);
    expect(() => checkStand("S-1", { ...good, rule: 1e9 }, INES)).toThrow(KitRefusal);
    expect(() => checkStand("S-9", good, INES)).toThrow(/no such stand/);
    expect(lastChecks().get("S-1")).toEqual(before);
  });
  it("believes an overdue instrument less until it is checked again", () => {
    const late = "2030-01-01T00:00:00.000Z";
    const tape = (now: string) => listInstruments(now).find((i) => i.id === "T-3")!;
    expect(tape(late).sigmaMm).toBeCloseTo(1.5, 9);
    expect(() => checkInstrument("T-3", " ", INES)).toThrow(/checked against/);
    checkInstrument("T-3", "the shop's reference bar", INES, late);
    expect(tape(late).sigmaMm).toBeCloseTo(1, 9);
    expect(listCheckedInstruments().find((i) => i.id === "T-3")!.checkedOn).toBe("2030-01-01");
    expect(lastChecks().get("T-3")!.words).toBe("checked against the shop's reference bar");
  });
  it("prints labels with each code in text", async () => {
    const pdf = await renderLabels([{ code: "HQ-14", title: "Board", detail: "version 2" }, { code: "S-1", title: "Stand", detail: "stand" }]); // prettier-ignore
    const text = execFileSync("pdftotext", ["-", "-"], { input: pdf, encoding: "utf8" });
    for (const code of ["HQ-14", "version 2", "S-1"]) expect(text).toContain(code);
  });
});
