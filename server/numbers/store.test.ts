import { beforeAll, expect, it } from "vitest";
import type { CalibrationNumbers } from "@/core/job/numbers";
import type { JobRecord } from "@/core/record";
import { technician } from "@/demo/technician";
import { INTAKE } from "@/tests/fixtures";
import { INES, openTestShop } from "@/tests/shop-database";
import { db } from "../db/client";
import { jobNumbers } from "../db/schema";
import { recordPaper } from "../report/record";
import { checkInstrument } from "../kit/store";
import { numbersPage } from "./page";
import { renewNumbers } from "./store";

beforeAll(() => openTestShop());

it("keeps of each instrument how its readings lay beside the others, as the record has them", async () => {
  const t = technician(INES, new Date(Date.now() - 7200_000).toISOString());
  t.open(INTAKE, "residuals");
  await t.check("ready");
  t.follow((j) => j.next.kind === "settle");
  t.settle();
  await t.run();
  await t.check("prove");
  t.write({ kind: "hand-over" });
  const doc = db().select().from(jobNumbers).all()[0]!.doc as CalibrationNumbers;
  const record = JSON.parse(recordPaper(t.jobId, INES)!.bytes.toString()) as JobRecord;
  const by = new Map<string, number[]>();
  for (const r of record.calibrations[0]!.targets[0]!.readings)
    if (r.state === "counts" && r.w !== null)
      by.set(r.instrument.id, [...(by.get(r.instrument.id) ?? []), r.w]);
  expect(by.size).toBeGreaterThan(0);
  expect(Object.keys(doc.residuals).sort()).toEqual([...by.keys()].sort());
  for (const [id, list] of by) {
    const sum = list.reduce((s, w) => s + w, 0) / Math.sqrt(list.length);
    expect(doc.residuals[id]).toBeCloseTo(sum, 2);
    expect(Math.abs(sum)).toBeLessThan(4);
  }
});

it("works the numbers out anew once something was handed over or renewed, and not before", async () => {
  const now = new Date();
  const first = numbersPage(2, now);
  expect(numbersPage(2, now)).toBe(first);
  const [row] = db().select().from(jobNumbers).all();
  const doc = { ...row!.doc, attempts: 2 };
  db()
    .insert(jobNumbers)
    .values({ ...row!, calibrationId: "another", doc })
    .run();
  const more = numbersPage(2, now);
  expect(more.calibrations).toBe(first.calibrations + 1);
  // Worked out anew in the same place: as many rows, and the last of them is the last.
  renewNumbers(row!.jobId);
  const renewed = numbersPage(2, now);
  expect(renewed).not.toBe(more);
  expect(renewed.calibrations).toBe(first.calibrations);
  checkInstrument("T-3", "the wall scale", INES);
  expect(numbersPage(2, now)).not.toBe(renewed);
});
