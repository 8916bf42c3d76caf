import { describe, expect, it } from "vitest";
import { BOARDS, STANDS } from "@/demo/data/kit";
import { RULES } from "@/demo/data/rules";
import { SHEETS } from "@/demo/data/sheets";
import { madeUpVin, VEHICLES } from "@/demo/data/vehicles";
import { EMPTY_SPOT } from "./spot-draft";
import { readIntake, type IntakeDraft, type Shop } from "./use-intake";

const LISSE = madeUpVin("0NVLS2DA7R100417");
const TARN = madeUpVin("0BRTRN5B2T220903");
const full: IntakeDraft = {
  vin: LISSE,
  vinReason: "",
  vehicleId: null,
  happenings: [{ event: "glass-out", place: "windshield" }],
  answers: {},
  complaint: "",
  standId: null,
  instead: {},
  customer: "Elin Marsh",
  plate: " HQ 41 ",
  promised: "",
  booked: null,
  order: "",
  toeLeft: "",
  toeRight: "",
  spot: null,
};
const SHOP: Shop = {
  vehicles: VEHICLES,
  sheets: SHEETS,
  stands: STANDS,
  boards: BOARDS,
  book: RULES,
  me: "Ines Tarbet",
  lengths: "mm",
  zone: "Pacific/Auckland",
};
const read = (change: Partial<IntakeDraft>) => readIntake({ ...full, ...change }, SHOP);

describe("reading the intake", () => {
  it.each([
    [{ vin: "" }, "vin", /Type or scan/],
    [{ vin: LISSE.slice(0, 16) }, "vin", /Correct the VIN/],
    [{ vin: madeUpVin("0ZZZZZZA7R100417") }, "vehicle", /choose the vehicle/],
    [{ happenings: [] }, "done", /what was done/],
    [{ vin: madeUpVin("0TMHAU2A7R100417") }, null, /no sheet for the Hauler 12/],
    [
      { happenings: [{ event: "suspension", place: "chassis" }] },
      null,
      /no sheet for the Lisse after this work/,
    ],
    [{ vin: TARN }, "toe", /thrust line/],
    [{ vin: TARN, toeLeft: "12", toeRight: "0.1" }, "toe", /Rear toe cannot be 12.00°/],
    [{ customer: "  " }, "customer", /Name the customer/],
  ] as const)("%j lacks %s", (change, field, say) => {
    const r = read(change as Partial<IntakeDraft>);
    expect(r.lack).toMatchObject({ field });
    expect(r.lack!.say).toMatch(say);
    expect(r.intake).toBeNull();
  });
  it("picks the vehicle by its VIN, the sheet by both, and trims what is typed", () => {
    const r = read({});
    expect(r.byVin).toBe(true);
    expect(r.intake).toMatchObject({
      vehicleId: "norvane-lisse",
      sheets: [{ sheetId: "lisse-forward", sheetVersion: 2, standId: "S-1" }],
      plate: "HQ 41",
      vinReason: null,
      rearToeDeg: null,
    });
  });
  it("takes every calibration that is owed and has a checked sheet, in the plan's order; another sheet of a system instead", () => {
    const around = {
      vin: TARN,
      toeLeft: "0.1",
      toeRight: "0.1",
      happenings: [
        { event: "mirror-touched" as const, place: "left" as const },
        { event: "glass-out" as const, place: "windshield" as const },
        { event: "bumper-touched" as const, place: "rear" as const },
      ],
      answers: { trim: "high" },
    };
    const r = read(around);
    // The corner radars are owed too; the shop has no sheet for them.
    expect(r.intake!.sheets).toEqual([
      { sheetId: "tarn-forward", sheetVersion: 3, standId: "S-1" },
      { sheetId: "tarn-surround", sheetVersion: 1, standId: null },
    ]);
    expect(read({ ...around, answers: { trim: "base" } }).sheets.map((s) => s.id)).toEqual([
      "tarn-forward",
    ]);
    const surround = SHEETS.find((s) => s.id === "tarn-surround")!;
    const other = { ...surround, id: "tarn-surround-long", title: "Tarn, longer mats" };
    const draft = { ...surround, id: "tarn-surround-draft", status: "provisional" as const };
    const of = (instead: Record<string, string>) =>
      readIntake({ ...full, ...around, instead }, { ...SHOP, sheets: [...SHEETS, other, draft] });
    // What nobody has checked is not offered.
    expect(of({}).choices[1]!.instead.map((s) => s.id)).toEqual(["tarn-surround-long"]);
    expect(of({ "tarn-surround": "tarn-surround-long" }).intake!.sheets[1]).toMatchObject({
      sheetId: "tarn-surround-long",
    });
  });
  it("asks only what changes what is owed, and where it was done", () => {
    expect(read({}).questions).toEqual([]);
    const bumper = read({
      happenings: [
        { event: "glass-out", place: "windshield" },
        { event: "bumper-touched", place: "rear" },
      ],
    });
    expect(bumper.questions.map((q) => q.id)).toEqual(["rear-camera"]);
    expect(bumper.lack).toMatchObject({
      field: "questions",
      say: "Has it a rear camera above the plate?",
    });
    const nowhere = read({
      happenings: [
        { event: "glass-out", place: "windshield" },
        { event: "bumper-touched", place: null },
      ],
    });
    expect(nowhere.lack).toMatchObject({
      field: "done",
      say: expect.stringMatching(/where on the vehicle/) as string,
    });
  });
  it("takes in a car no book has by what was typed of it, and names the first figure that lacks or cannot be", () => {
    const spot = {
      ...EMPTY_SPOT,
      make: "Ostrin",
      model: "Vale",
      wheelbase: "2 704",
      frontCaps: "1.672 m",
      rearCaps: "1668",
      hubHeight: "334",
      source: "Maker's information, sheet 7",
      boardCode: "HQ-14",
      along: "2900",
      height: "1200",
      tolAlong: "10",
      tolAcross: "10",
      tolHeight: "6",
      tolTwist: "0.35",
    };
    const of = (change: Partial<typeof spot>) =>
      read({ vin: madeUpVin("0ZZZZZZA7R100417"), spot: { ...spot, ...change } });
    const { intake, sheets } = of({});
    expect(intake).toMatchObject({
      vehicleId: "on-the-spot",
      sheets: [{ sheetId: "on-the-spot", sheetVersion: 1, standId: "S-1" }],
      onTheSpot: { wheelbaseMm: 2704, frontCapsMm: 1672, tapedSigmaMm: 4 },
    });
    expect(intake!.onTheSpot!.tolerance.twistDeg).toBeCloseTo(0.35, 9);
    expect(sheets[0]!.status).toBe("provisional");
    expect(of({ rearCaps: "" }).lack).toEqual({
      field: "spot-rearCaps",
      say: "Type the rear hub caps.",
    });
    const wrong = of({ wheelbase: "270.4" });
    expect(wrong.lack!.field).toBe("spot-wheelbase");
    expect(wrong.spot!.problems.wheelbase).toContain("Meant as 270.4 centimetres?");
  });
  it("takes toe in degrees or arc minutes, signed", () => {
    expect(read({ vin: TARN, toeLeft: "6'", toeRight: "-0.05" }).intake!.rearToeDeg).toEqual({
      left: expect.closeTo(0.1, 9) as number,
      right: expect.closeTo(-0.05, 9) as number,
    });
  });
  it("keeps a VIN that fails its check once there is a reason", () => {
    const wrong = LISSE.slice(0, 16) + (LISSE.endsWith("7") ? "8" : "7");
    expect(read({ vin: wrong, vinReason: "stamped so" }).intake).toMatchObject({
      vin: wrong,
      vinReason: "stamped so",
    });
  });
});
