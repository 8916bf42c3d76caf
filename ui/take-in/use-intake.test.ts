import { describe, expect, it } from "vitest";
import { STANDS } from "@/demo/data/kit";
import { SHEETS } from "@/demo/data/sheets";
import { madeUpVin, VEHICLES } from "@/demo/data/vehicles";
import { readIntake, type IntakeDraft } from "./use-intake";

const LISSE = madeUpVin("0NVLS2DA7R100417");
const TARN = madeUpVin("0BRTRN5B2T220903");
const full: IntakeDraft = { vin: LISSE, vinReason: "", vehicleId: null, operations: ["windshield-replaced"], standId: null, customer: "Elin Marsh", plate: " HQ 41 ", order: "", toeLeft: "", toeRight: "" }; // prettier-ignore
const read = (change: Partial<IntakeDraft>) => readIntake({ ...full, ...change }, VEHICLES, SHEETS, STANDS);

describe("reading the intake", () => {
  it.each([
    [{ vin: "" }, "vin", /Type or scan/],
    [{ vin: LISSE.slice(0, 16) }, "vin", /Correct the VIN/],
    [{ vin: madeUpVin("0ZZZZZZA7R100417") }, "vehicle", /choose the vehicle/],
    [{ operations: [] }, "done", /what was done/],
    [{ vin: madeUpVin("0TMHAU2A7R100417") }, null, /no sheet for the Hauler 12/],
    [{ operations: ["wheel-alignment"] }, null, /no sheet for the Lisse after this work/],
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
    expect(r.intake).toMatchObject({ vehicleId: "norvane-lisse", sheetId: "lisse-forward", plate: "HQ 41", vinReason: null, rearToeDeg: null }); // prettier-ignore
  });
  it("takes toe in degrees or arc minutes, signed", () => {
    expect(read({ vin: TARN, toeLeft: "6'", toeRight: "-0.05" }).intake!.rearToeDeg).toEqual({
      left: expect.closeTo(0.1, 9) as number,
      right: expect.closeTo(-0.05, 9) as number,
    });
  });
  it("keeps a VIN that fails its check once there is a reason", () => {
    const wrong = LISSE.slice(0, 16) + (LISSE.endsWith("7") ? "8" : "7");
    expect(read({ vin: wrong, vinReason: "stamped so" }).intake).toMatchObject({ vin: wrong, vinReason: "stamped so" });
  });
});
