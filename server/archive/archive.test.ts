import { beforeAll, describe, expect, it } from "vitest";
import sharp from "sharp";
import type { TabletEvent } from "@/core/job";
import { readRecord } from "@/core/record";
import { INTAKE, TYRES_ACCEPTED } from "@/tests/fixtures";
import { INES, openTestShop, OSKAR } from "@/tests/shop-database";
import type { Person } from "../auth/session";
import { closeDatabase, db } from "../db/client";
import { people } from "../db/schema";
import { writeLines } from "../jobs/append";
import { eventsAfter, verifyJob } from "../jobs/log";
import { findJob } from "../jobs/store";
import { takeIn } from "../jobs/take-in";
import { sha256 } from "../log/chain";
import { eraseCustomer } from "../log/erase";
import { keepPhoto, photoBytes } from "../photos/store";
import { recordPaper } from "../report/record";
import { bringIn } from "./bring-in";
import { openArchive } from "./form";
import { packJob } from "./pack-job";
import { pack, unpack } from "./zip";

const LEAD: Person = { id: "mara", name: "Mara Quill", initials: "MQ", role: "lead" };
const NOW = "2026-11-20T10:00:00.000Z";
const line = (id: string, body: TabletEvent) => ({ id, takenAt: new Date().toISOString(), body });
const rows = (table: string): number =>
  db().$client.prepare(`SELECT count(*) FROM ${table}`).pluck().get() as number;
const TABLES = ["jobs", "job_events", "job_documents", "photos", "people", "shop_events"];

const openShop = (): void => {
  closeDatabase();
  openTestShop();
  db()
    .insert(people)
    .values({ ...LEAD, pinHash: "not a hash" })
    .run();
};

/** A job with a photo and a check, handed over twice. */
async function handedOver(): Promise<string> {
  const id = takeIn({ ...INTAKE, customer: "Ελένη Μάρκου", plate: "HQ 41 ELM" }, OSKAR);
  const picture = { width: 40, height: 30, channels: 3, background: "#746" } as const;
  const { photo } = await keepPhoto(await sharp({ create: picture }).jpeg().toBuffer(), OSKAR);
  const write = (...lines: ReturnType<typeof line>[]): void => {
    writeLines(id, eventsAfter(id).at(-1)!.seq, lines, OSKAR);
  };
  write(
    line("photo-line", { kind: "photo", photo, subject: "vehicle", takenAt: null }),
    line("check-line", TYRES_ACCEPTED),
    line("over-line", { kind: "hand-over" }),
  );
  writeLines(
    id,
    eventsAfter(id).at(-1)!.seq,
    [line("again-line", { kind: "reopen", reason: "plate read wrong" })],
    LEAD,
  );
  write(line("over-line-2", { kind: "hand-over" }));
  return id;
}

/** The archive with one of its entries changed, and its list and form made to fit again. */
function withEntry(packed: Uint8Array, name: string, change: (text: string) => string): Uint8Array {
  return pack(
    unpack(packed).map((e) =>
      e.name === name
        ? { name, bytes: new TextEncoder().encode(change(new TextDecoder().decode(e.bytes))) }
        : e,
    ),
  );
}

describe("an archive of a job", () => {
  let packed: Uint8Array;
  let id: string;
  let kept: { record: Buffer; head: string };
  beforeAll(async () => {
    openShop();
    id = await handedOver();
    packed = (await packJob(id, INES))!;
    const report = verifyJob(id);
    kept = { record: recordPaper(id, INES)!.bytes, head: report.ok ? report.head : "" };
  });

  it("comes into another shop line by line and byte for byte, and leaves it as the same archive", async () => {
    openShop();
    // Another person bears the same id there, and another job the same number.
    db().update(people).set({ name: "Olga Venn" }).run();
    takeIn(INTAKE, LEAD);
    const { number } = bringIn(packed, LEAD, NOW);
    expect(number).toBe(1042);
    expect(verifyJob(id)).toMatchObject({ ok: true, head: kept.head });
    const { seal } = readRecord(JSON.parse(kept.record.toString("utf8")));
    expect(openArchive(packed).shown.at(-1)).toEqual({ version: 2, head: seal!.head });
    expect(recordPaper(id, LEAD)!.bytes.equals(kept.record)).toBe(true);
    expect(eventsAfter(id).map((e) => e.by.name)).toContain("Oskar Veld");
    const photo = eventsAfter(id).find((e) => e.body.kind === "photo")!.body;
    expect(photo.kind === "photo" && photoBytes(photo.photo)).toBeTruthy();
    expect(Buffer.from((await packJob(id, LEAD))!).equals(Buffer.from(packed))).toBe(true);
    const before = TABLES.map(rows);
    expect(() => bringIn(packed, LEAD, NOW)).toThrow(/has this job already: it is job 1042/);
    expect(TABLES.map(rows)).toEqual(before);
  });

  it("says in which line, paper or photo somebody wrote, though list and form were made to fit", () => {
    openShop();
    const relisted = (name: string, change: (text: string) => string): Uint8Array => {
      const changed = withEntry(packed, name, change);
      const entries = unpack(changed);
      return withEntry(changed, "manifest.json", (text) => {
        const list = JSON.parse(text) as {
          entries: { name: string; bytes: number; sha256: string }[];
        };
        for (const e of list.entries) {
          const { bytes } = entries.find((x) => x.name === e.name)!;
          e.bytes = bytes.length;
          e.sha256 = sha256(bytes);
        }
        return `${JSON.stringify(list, null, 1)}\n`;
      });
    };
    const cases: [RegExp, Uint8Array][] = [
      [/readings\.csv was altered/, withEntry(packed, "readings.csv", (t) => `${t}x`)],
      [/broken at line 3/, relisted("log.json", (t) => t.replace("accepted", "blocks"))],
      [/broken at line 1/, relisted("log.json", (t) => t.replaceAll("Ελένη", "Ελενη"))],
      [/ground\.intake\.customer/, relisted("log.json", (t) => t.replace("Ελένη", "Ελενη"))],
      [
        /line 1, or in the documents/,
        relisted("log.json", (t) => t.replace('"wheelbaseMm": 2', '"wheelbaseMm": 3')),
      ],
      [
        /record-1\.json is not the paper/,
        relisted("papers/record-1.json", (t) => t.replace("HQ 41", "HQ 42")),
      ],
      [
        /is of the form "iridel.log\/2"/,
        relisted("log.json", (t) => t.replace("iridel.log/1", "iridel.log/2")),
      ],
      [/log\.json is no JSON/, relisted("log.json", (t) => t.slice(1))],
      [/lines\.0\.hash/, relisted("log.json", (t) => t.replace(/"hash": "[0-9a-f]/, '"hash": "z'))],
    ];
    const before = TABLES.map(rows);
    for (const [says, archive] of cases) {
      expect(() => openArchive(archive)).toThrow(says);
      expect(() => bringIn(archive, LEAD, NOW)).toThrow(says);
    }
    const left = unpack(packed).filter((e) => !e.name.startsWith("photos/"));
    expect(() => openArchive(pack(left))).toThrow(/stands in the archive’s list and is missing/);
    const more = [...unpack(packed), { name: "extra.txt", bytes: new Uint8Array(3) }];
    expect(() => openArchive(pack(more))).toThrow(
      /extra\.txt does not stand in the archive’s list/,
    );
    expect(TABLES.map(rows)).toEqual(before);
  });

  it("is of what was handed over, without what was erased, and still holds together then", async () => {
    openShop();
    const open = takeIn(INTAKE, OSKAR);
    await expect(packJob(open, INES)).rejects.toThrow(/Hand the job over first/);
    const gone = await handedOver();
    const whole = new TextDecoder("latin1").decode((await packJob(gone, INES))!);
    eraseCustomer(gone, "asked by letter, 3 November", LEAD);
    const erased = (await packJob(gone, INES))!;
    expect(whole).toContain("HQ 41 ELM");
    expect(new TextDecoder("latin1").decode(erased)).not.toContain("HQ 41 ELM");
    expect(openArchive(erased)).toMatchObject({ erased: 1 });
    openShop();
    bringIn(erased, LEAD, NOW);
    expect(findJob(gone)!.ground.intake.customer).toBe("erased on request");
    expect(verifyJob(gone)).toMatchObject({ ok: true, erased: 1 });
  });
});
