import { describe, expect, it } from "vitest";
import { madeUpVin, VEHICLES } from "@/demo/data/vehicles";
import { randomFrom } from "@/core/math/random";
import { checkVin, vinFromCode, thrustAngleRad, vehicleSchema, vinCheckDigit } from ".";

describe("checkVin", () => {
  it("knows the published straight-ones VIN, and X for ten", () => {
    expect(checkVin("11111111111111111").ok).toBe(true);
    // Weighted sum of the others is 89 - 0 = 89 = 8*11 + 1 for all ones; raise place 17 (weight 2)
    // by ... to reach 10.
    const wanted = [..."1234567890"].map((d) => vinCheckDigit(`1111111101111111${d}`));
    expect(wanted).toContain("X");
  });
  it("catches every single-character misreading of a made-up VIN that changes its value", () => {
    const vin = madeUpVin("0NVS25TA6K004217");
    for (let i = 0; i < 17; i++) {
      if (i === 8) continue;
      const changed = vin.slice(0, i) + (vin[i] === "4" ? "5" : "4") + vin.slice(i + 1);
      // D, M and U count as 4 as well: only a change of value can be seen.
      if (vinCheckDigit(changed) !== vin[8])
        expect(checkVin(changed).problems[0]?.code).toBe("check-digit");
      else expect("DMU4").toContain(vin[i]);
    }
  });
  it("names the place of a forbidden letter, and what it probably is", () => {
    const [problem] = checkVin("0NVS2OTA6K0042171").problems;
    expect(problem).toMatchObject({ code: "letter", position: 6 });
    expect(problem!.message).toContain("figure 0");
  });
  it("is found in a scanned code behind marks and among other text, and nowhere else", () => {
    const vin = madeUpVin("0NVS25TA6K004217");
    for (const text of [vin, `*${vin}*`, `I${vin}`, `]C0${vin}`, vin.toLowerCase()])
      expect(vinFromCode(text), text).toEqual({ vin, sure: true });
    expect(vinFromCode(`VIN:${vin};PAINT 42`)).toEqual({ vin, sure: false });
    for (const text of [
      "",
      "FC-5",
      vin.slice(1),
      `${vin.slice(0, 16)}${vin[16] === "1" ? "2" : "1"}`,
      `A${vin}`,
      `${vin}9`,
    ])
      expect(vinFromCode(text), text).toBeNull();
  });
  it("asks where no check digit binds, unless the shop knows a vehicle that begins so", () => {
    const vin = "XNVLS2DB7R1004170".slice(0, 17);
    expect(checkVin(vin)).toMatchObject({ ok: true, problems: [], checkDigit: "not-carried" });
    expect(vinFromCode(vin)).toEqual({ vin, sure: false });
    expect(vinFromCode(vin, ["XNVLS2D"])).toEqual({ vin, sure: true });
    expect(checkVin(madeUpVin("0NVS25TA6K004217")).checkDigit).toBe("agrees");
  });
  it("random long codes give none: of ten thousand not one is taken for a VIN", () => {
    const random = randomFrom(17);
    const letters = "ABCDEFGHJKLMNPRSTUVWXYZ0123456789";
    const taken = Array.from({ length: 10_000 }, () => {
      const length = 18 + Math.floor(random() * 23);
      return vinFromCode(
        Array.from({ length }, () => letters[Math.floor(random() * letters.length)]).join(""),
      );
    }).filter((v) => v !== null);
    expect(taken).toEqual([]);
  });
  it("counts what is missing", () => {
    expect(checkVin("0NVS").problems[0]!.message).toContain("13 too few");
  });
});

it("every demo vehicle is valid, and thrust is positive to the left", () => {
  for (const v of VEHICLES) vehicleSchema.parse(v);
  expect(thrustAngleRad({ leftRad: 0, rightRad: 0.004 })).toBe(0.002);
});
