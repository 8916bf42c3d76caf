import { copyFileSync, mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { beforeAll, describe, expect, it } from "vitest";
import type { TabletEvent } from "@/core/job";
import { INES, openTestShop, OSKAR } from "@/tests/shop-database";
import { INTAKE, TYRES_ACCEPTED } from "@/tests/fixtures";
import type { Person } from "../auth/session";
import { closeDatabase, db } from "../db/client";
import { writeLines } from "../jobs/append";
import { eventsAfter, verifyJob } from "../jobs/log";
import { findJob } from "../jobs/store";
import { takeIn } from "../jobs/take-in";
import { keptDocument } from "../report/documents";
import { recordPaper, reportPaper } from "../report/record";
import { changePerson } from "../people/store";
import { setGlassPolicy } from "../settings/store";
import { eraseCustomer, erasePerson } from "./erase";
import { shopLines, verifyShop } from "./shop";

const LEAD: Person = { id: "mara", name: "Mara Quill", initials: "MQ", role: "lead" };
const COMPLAINING = { ...INTAKE, plate: "HQ 41 ELM", complaint: "It pulls to the left, says Elin" };
const line = (id: string, body: TabletEvent) => ({ id, takenAt: new Date().toISOString(), body });
const consent: TabletEvent = {
  kind: "consent",
  name: "Elin Marsh",
  words: "I agree",
  strokes: [
    [
      [1, 2],
      [3, 4],
    ],
  ],
};
const sql = (text: string, ...values: unknown[]) =>
  db()
    .$client.prepare(text)
    .run(...values);

beforeAll(() => {
  openTestShop();
  sql(
    "INSERT INTO people (id, name, initials, role, pinHash) VALUES ('mara', 'Mara Quill', 'MQ', 'lead', '-')",
  );
});

/** A job with a few lines, handed over. */
function handedOver(): string {
  const id = takeIn(COMPLAINING, OSKAR);
  writeLines(
    id,
    1,
    [
      line("check-line", TYRES_ACCEPTED),
      line("consent-line", consent),
      line("over-line", { kind: "hand-over" }),
    ],
    OSKAR,
  );
  return id;
}

describe("the chain of a job's log", () => {
  it.each([
    [
      "a body",
      "UPDATE job_events SET body = replace(body, 'seen', 'sewn') WHERE jobId = ? AND seq = 2",
      2,
    ],
    [
      "a time",
      "UPDATE job_events SET at = '2026-01-01T00:00:00.000Z' WHERE jobId = ? AND seq = 3",
      3,
    ],
    [
      "a time of receipt",
      "UPDATE job_events SET receivedAt = '2026-01-01T00:00:00.000Z' WHERE jobId = ? AND seq = 3",
      3,
    ],
    ["what the writer had seen", "UPDATE job_events SET seen = 9 WHERE jobId = ? AND seq = 3", 3],
    [
      "an author",
      "UPDATE job_events SET author = replace(author, 'Oskar', 'Ossian') WHERE jobId = ? AND seq = 2",
      2,
    ],
    [
      "a customer",
      "UPDATE job_events SET personal = replace(personal, 'Elin', 'Erin') WHERE jobId = ? AND seq = 1",
      1,
    ],
    ["a version", "UPDATE job_events SET version = 4 WHERE jobId = ? AND seq = 4", 4],
    ["a line left out", "DELETE FROM job_events WHERE jobId = ? AND seq = 3", 4],
    [
      "the sheet it stands on",
      "UPDATE jobs SET ground = json_set(ground, '$.sheet.setups[0].targets[0].placement.alongMm', 1) WHERE id = ?",
      1,
    ],
  ])("breaks at the first line after %s was changed", (_, change, seq) => {
    const id = handedOver();
    expect(verifyJob(id)).toMatchObject({ ok: true, lines: 5, erased: 0 });
    sql(change, id);
    expect(verifyJob(id)).toMatchObject({ ok: false, seq });
  });
  it("still verifies when a customer's data was erased on request, and none of it is found any more", async () => {
    const id = handedOver();
    await reportPaper(id, INES);
    expect(verifyJob(id)).toMatchObject({ ok: true, lines: 6 });
    expect(() => eraseCustomer(id, "", LEAD)).toThrow(/Reason/);
    eraseCustomer(id, "asked for by letter", LEAD);
    expect(verifyJob(id)).toMatchObject({ ok: true, lines: 6, erased: 2 });
    for (const table of ["job_events", "jobs", "job_documents", "job_tickets", "job_search"]) {
      const rows = db()
        .$client.prepare(`SELECT * FROM ${table} WHERE ${table === "jobs" ? "id" : "jobId"} = ?`)
        .all(id);
      expect(JSON.stringify(rows), table).not.toMatch(/Elin|HQ 41 ELM/);
    }
    expect(eventsAfter(id)[2]!.body).toMatchObject({ name: "erased on request" });
    expect(recordPaper(id, INES)!.bytes.toString()).toContain('"customer": "erased on request"');
  });
  it("still verifies when the name of somebody who left was erased", () => {
    const id = handedOver();
    expect(() => erasePerson("oskar", LEAD)).toThrow(/still in the shop/);
    changePerson("oskar", OSKAR, true, LEAD);
    erasePerson("oskar", LEAD);
    expect(verifyJob(id)).toMatchObject({ ok: true, erased: 5 });
    expect(eventsAfter(id)[0]!.by).toMatchObject({ id: "oskar", name: "Erased on request" });
    expect(verifyShop()).toMatchObject({ ok: true });
    expect(JSON.stringify(shopLines())).not.toContain("Oskar");
  });
});

describe("what is made at the hand-over", () => {
  it("is kept byte for byte: a later program that reckons otherwise shows the old record and report", async () => {
    const id = handedOver();
    const record = recordPaper(id, INES)!.bytes;
    const report = (await reportPaper(id, INES))!.bytes;
    expect(JSON.parse(record.toString())).toMatchObject({
      handedOver: { by: { name: "Oskar Veld" } },
      seal: { lines: 4, version: 1 },
    });
    // As a program would that solves or words things in another way.
    sql(
      "UPDATE jobs SET ground = json_set(ground, '$.sheet.title', 'Reckoned anew') WHERE id = ?",
      id,
    );
    expect(recordPaper(id, INES)!.bytes.equals(record)).toBe(true);
    expect((await reportPaper(id, INES))!.bytes.equals(report)).toBe(true);
    const named = eventsAfter(id).flatMap((e) =>
      e.body.kind === "document" ? [`${e.body.document} ${e.body.version}`] : [],
    );
    expect(named).toEqual(["record 1", "report 1"]);
  });
  it("gets a next version by a revision; the one before stays", () => {
    const id = handedOver();
    const head = eventsAfter(id).length;
    writeLines(
      id,
      head,
      [
        line("reopen-line", { kind: "reopen", reason: "wrong plate" }),
        line("again-line", { kind: "hand-over" }),
      ],
      LEAD,
    );
    expect(keptDocument(id, "record", 1)).toBeInstanceOf(Buffer);
    expect(JSON.parse(recordPaper(id, INES)!.bytes.toString())).toMatchObject({
      seal: { version: 2 },
    });
    expect(verifyJob(id)).toMatchObject({ ok: true, lines: head + 3 });
  });
});

it("the shop's own log names what changed, is sealed, and shows a change", () => {
  setGlassPolicy("maker-only", LEAD);
  expect(shopLines()[0]).toMatchObject({
    by: "Mara Quill",
    event: { kind: "policy", value: "maker-only" },
  });
  expect(verifyShop()).toMatchObject({ ok: true });
  const { seq } = shopLines()[0]!;
  sql("UPDATE shop_events SET body = replace(body, 'maker-only', 'anything') WHERE seq = ?", seq);
  expect(verifyShop()).toMatchObject({ ok: false, seq });
});

it("a shop made before the chain opens with every log sealed, and its records as they read before", () => {
  closeDatabase();
  const folder = mkdtempSync(path.join(tmpdir(), "iridel-old-"));
  const file = path.join(folder, "shop.sqlite");
  copyFileSync("tests/fixtures/shop-before-chain.sqlite", file);
  copyFileSync(file, `${file}.before`);
  process.env.IRIDEL_DB = file;
  const jobs = db()
    .$client.prepare("SELECT id FROM jobs ORDER BY number")
    .pluck()
    .all() as string[];
  expect(jobs).toHaveLength(8);
  for (const id of jobs)
    expect(verifyJob(id)).toMatchObject({ ok: true, lines: findJob(id)!.head });
  // Handed over before records were kept: made once, at the first asking, and from then on kept.
  const first = recordPaper(jobs[0]!, INES)!.bytes;
  expect(JSON.parse(first.toString())).toMatchObject({
    job: { customer: "Elin Marsh" },
    calibrations: [{ targets: [{ settled: { by: { initials: "OV" } } }] }],
  });
  expect(recordPaper(jobs[0]!, INES)!.bytes.equals(first)).toBe(true);
  expect(verifyJob(jobs[0]!)).toMatchObject({ ok: true });
});
