import { execFileSync } from "node:child_process";
import { beforeAll, beforeEach, describe, expect, it } from "vitest";
import type { JobRecord } from "@/core/record";
import { instantOf } from "@/core/units/local-time";
import { INTAKE } from "@/tests/fixtures";
import { INES, openTestShop } from "@/tests/shop-database";
import { takeIn } from "../jobs/take-in";
import { checkInstrument } from "../kit/store";
import { renderReport } from "../report/pdf";
import { recordPaper } from "../report/record";
import { setLetterhead, setShopClock } from "../settings/store";
import { shopClock, shopDay } from "./clock";
import { listCheckedInstruments, listInstruments } from "./store";

beforeAll(() => openTestShop());

/** One instant, and what the clock shows on either side of the date line. */
const AT = "2026-11-23T10:30:00.000Z";
const SIDES = [
  ["Pacific/Auckland", "2026-11-23", "23 Nov 2026, 23:30"],
  ["Pacific/Kiritimati", "2026-11-24", "24 Nov 2026, 00:30"],
  ["Pacific/Pago_Pago", "2026-11-22", "22 Nov 2026, 23:30"],
] as const;

describe.each(SIDES)("a shop in %s", (zone, day, shown) => {
  beforeEach(() => {
    setShopClock({ zone, firstDay: 0 }, INES);
    setLetterhead({ name: "Harbour Glass", address: "Pier 4, Hollin Quay" }, INES);
  });

  it("has its own day: a check is of it, and runs out by it", () => {
    expect(shopDay(AT)).toBe(day);
    checkInstrument("T-3", "the wall scale", INES, AT);
    const { checkedOn, everyDays } = listCheckedInstruments().find((i) => i.id === "T-3")!;
    expect(checkedOn).toBe(day);
    const after = (days: number): string =>
      new Date(Date.parse(day) + days * 86_400_000).toISOString().slice(0, 10);
    const late = (days: number): boolean =>
      listInstruments(after(days)).some((i) => /Steel tape 3 .*overdue/.test(i.name));
    expect([late(everyDays), late(everyDays + 1)]).toEqual([false, true]);
  });

  it("promises a time by its clock, and its report says that time and whose it is", async () => {
    const local = `${day}T${shown.slice(-5)}`;
    expect(instantOf(local, zone)).toBe(AT);
    const id = takeIn({ ...INTAKE, promisedAt: instantOf(local, zone) }, INES);
    const record = JSON.parse(recordPaper(id, INES)!.bytes.toString()) as JobRecord;
    expect(record.job).toMatchObject({ promisedAt: AT, zone });
    const pdf = await renderReport(record, []);
    const text = execFileSync("pdftotext", ["-layout", "-", "-"], { input: pdf, encoding: "utf8" });
    expect(text).toMatch(new RegExp(`Promised for +${shown}`));
    expect(text).toMatch(new RegExp(`Times .*${zone}`));
    expect(text).toMatch(/Calibration record, job \d+ +Harbour Glass\n/);
    expect(text).toContain("Pier 4, Hollin Quay");
  });
});

describe("the shop's clock", () => {
  it("refuses a zone that is none, and stays as it was", () => {
    const before = shopClock();
    expect(() => setShopClock({ zone: "Europe/Nowhere", firstDay: 1 }, INES)).toThrow(
      /choose one from the list/,
    );
    expect(shopClock()).toEqual(before);
  });
  it("reads the hour that is skipped in spring as the one after, and no text as no time", () => {
    expect(instantOf("2026-03-29T01:30", "Europe/London")).toBe("2026-03-29T01:30:00.000Z");
    expect(instantOf("2026-03-29T02:30", "Europe/London")).toBe("2026-03-29T01:30:00.000Z");
    expect(instantOf("soon", "Europe/London")).toBeNull();
  });
});
