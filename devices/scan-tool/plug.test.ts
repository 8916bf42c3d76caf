import { expect, it } from "vitest";
import { checkVin } from "@/core/vehicle";
import { simulatedPlug } from "./plug";
import { DeviceRefusal } from "./scan-tool";

it("tells the VIN of the car that stands there, the same until it is taken in, or says what to do", async () => {
  const starts = ["0NVLS2D", "0BRTRN5"];
  const seen = new Set<string>();
  let refused = 0;
  for (let n = 0; n < 200; n++) {
    const ask = (asked: number): Promise<string> =>
      simulatedPlug(starts, `car ${n}`, asked, 0)
        .readVin()
        .catch((error: unknown) => {
          if (!(error instanceof DeviceRefusal)) throw error;
          return error.message;
        });
    const answers = [await ask(0), await ask(1), await ask(2)];
    const vins = answers.filter((a) => a.length === 17);
    refused += 3 - vins.length;
    expect(new Set(vins).size).toBeLessThanOrEqual(1);
    for (const vin of vins) {
      expect(checkVin(vin)).toMatchObject({ ok: true, checkDigit: "agrees" });
      expect(starts.some((s) => vin.startsWith(s))).toBe(true);
      seen.add(vin);
    }
  }
  expect(seen.size).toBeGreaterThan(150);
  expect(refused / 600).toBeGreaterThan(0.1);
  expect(refused / 600).toBeLessThan(0.3);
});
