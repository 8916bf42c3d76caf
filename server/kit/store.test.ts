import { execFileSync } from "node:child_process";
import { beforeAll, describe, expect, it } from "vitest";
import { STANDS } from "@/demo/data/kit";
import { INES, openTestShop, OSKAR } from "@/tests/shop-database";
import { INTAKE } from "@/tests/fixtures";
import { findPastVehicles, pastVehicle } from "../jobs/past";
import { takeIn } from "../jobs/take-in";
import { listCheckedInstruments, listInstruments } from "../shop/store";
import { renderLabels } from "./labels";
import { checkInstrument, checkStand, KitRefusal, lastChecks, listBoards, writeKit } from "./store";

beforeAll(() => openTestShop());
const stand = STANDS[0]!;
const good = {
  scale: 1000,
  rule: 1000 + stand.scaleOffsetMm,
  left: stand.beamHalfMm,
  right: stand.beamHalfMm,
  dot: 1,
};

describe("the kit", () => {
  it("keeps every zero check with its name, the newest one counting", () => {
    expect(checkStand("S-1", good, INES, "2026-11-23T07:10:00.000Z").ok).toBe(true);
    expect(checkStand("S-1", { ...good, dot: 9 }, OSKAR, "2026-11-24T07:05:00.000Z").ok).toBe(
      false,
    );
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
    const pdf = await renderLabels([
      { code: "HQ-14", title: "Board", detail: "version 2" },
      { code: "S-1", title: "Stand", detail: "stand" },
    ]);
    const text = execFileSync("pdftotext", ["-", "-"], { input: pdf, encoding: "utf8" });
    for (const code of ["HQ-14", "version 2", "S-1"]) expect(text).toContain(code);
  });
});

describe("writing the kit down", () => {
  const board = {
    code: "HQ-99",
    name: "Board for the test",
    side: "either",
    version: 1,
    widthMm: 900,
    condition: "good",
  };
  it("a new board is there, a second of the same code is not, and a change says what changed", () => {
    writeKit("board", board, true, INES);
    expect(() => writeKit("board", board, true, OSKAR)).toThrow(
      /Code on the label: HQ-99 is taken/,
    );
    writeKit("board", { ...board, condition: "worn" }, false, OSKAR);
    expect(listBoards().find((b) => b.code === "HQ-99")!.condition).toBe("worn");
    expect(lastChecks().get("HQ-99/description")).toMatchObject({
      words: "condition good to worn",
    });
  });
  it.each([
    ["board", { ...board, code: "hq 99" }, true, /^Code on the label: use capitals/],
    ["board", { ...board, code: "HQ-98" }, false, /no longer in the kit/],
    [
      "instrument",
      {
        id: "T-9",
        name: "Tape 9",
        kind: "tape",
        sigmaMm: 0,
        sigmaMmPerM: 0,
        sigmaRad: 0,
        checkedOn: null,
        everyDays: 90,
      },
      true,
      /^Standard uncertainty: cannot be nothing/,
    ],
    [
      "stand",
      { ...STANDS[0]!, crank: { minMm: 900, maxMm: 800, mmPerTurn: 5 } },
      false,
      /^Crank, highest: must be above/,
    ],
  ] as const)("refuses a %s by the field's own name", (kind, doc, isNew, words) => {
    expect(() => writeKit(kind, doc, isNew, INES)).toThrow(words);
  });
  it("a stand that failed its zero check opens no job until it passes", () => {
    const { dot: _, ...zero } = good;
    checkStand("S-1", { ...zero, dot: 9 }, INES, "2026-11-26T08:00:00.000Z");
    expect(() => takeIn(INTAKE, INES)).toThrow(/Stand: S-1 failed its zero check \(laser square/);
    checkStand("S-1", { ...zero, dot: 0 }, INES, "2026-11-26T08:10:00.000Z");
    expect(takeIn(INTAKE, INES)).toMatch(/^[\w-]{12}$/);
    expect(pastVehicle(INTAKE.vin)).toMatchObject({ customer: "Elin Marsh" });
    expect(findPastVehicles("elin")).toMatchObject([
      {
        vin: INTAKE.vin,
        customer: "Elin Marsh",
        visits: [{ done: "Windshield taken out or replaced" }],
      },
    ]);
  });
});
