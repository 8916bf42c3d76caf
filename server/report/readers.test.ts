import { execFileSync } from "node:child_process";
import sharp from "sharp";
import { beforeAll, describe, expect, it } from "vitest";
import { customerWords, type JobRecord } from "@/core/record";
import { INES, openTestShop } from "@/tests/shop-database";
import { INTAKE } from "@/tests/fixtures";
import { takeIn } from "../jobs/take-in";
import { renderCustomerPage } from "./customer";
import { renderInsurerReport } from "./insurer";
import { renderReport } from "./pdf";
import { recordPaper } from "./record";

const AT = "2026-11-03T09:00:00.000Z";
const BY = { name: "Ines Tarbet", initials: "IT" };
let record: JobRecord;

/** A job that was handed over with things left undone. */
beforeAll(() => {
  openTestShop();
  const id = takeIn(
    { ...INTAKE, customer: "Щедра Θαλασσοπούλου 🚗 de la Longue-Rivière-Saint-Hilaire" },
    INES,
  );
  record = JSON.parse(recordPaper(id, INES)!.bytes.toString()) as JobRecord;
  record.handedOver = { at: AT, by: BY };
  record.open = [];
  record.calibrations[0]!.run.status = "passed";
  record.calibrations[0]!.run.result = {
    passed: true,
    qualityPercent: 96,
    learnedYawDeg: 0.1,
    learnedPitchDeg: 0.2,
    learnedRollDeg: 0,
    reason: null,
  };
  record.owed.lines.push({
    name: "Front radar, static",
    reasons: [
      {
        because: "Grille taken off",
        reason: "It sits behind it.",
        source: "Shop rule book, page 9",
      },
    ],
    outcome: "declined",
    done: null,
    declined: { reason: "the owner goes to the dealer on Friday", by: BY, at: AT },
  });
  record.checks = [
    {
      stage: "prove",
      ask: "Lane warning checked on a marked road",
      outcome: "accepted",
      measured: [],
      reason: "Road closed by snow",
      at: AT,
      by: BY,
    },
  ];
});

/** Every page ends in a form feed. */
const pages = (pdf: Buffer): number =>
  execFileSync("pdftotext", ["-", "-"], { input: pdf, encoding: "utf8" }).split("\f").length - 1;
const textOf = (pdf: Buffer): string =>
  execFileSync("pdftotext", ["-layout", "-", "-"], { input: pdf, encoding: "utf8" }).replace(
    /\s+/g,
    " ",
  );

describe("one record for three readers", () => {
  it("tells the owner on one page what was done, what was not and why, and nothing of tapes", async () => {
    const pdf = await renderCustomerPage(record);
    expect(pages(pdf)).toBe(1);
    const text = textOf(pdf);
    for (const said of [
      "Forward camera",
      "The vehicle accepted it",
      "Front radar, static: not done. the owner goes to the dealer on Friday.",
      "Lane warning checked on a marked road: left as it is. Road closed by snow",
      "Щедра Θαλασσοπούλου",
    ])
      expect(text).toContain(said);
    expect(text).not.toMatch(/residual|std\. unc|tape/i);
  });

  it("never calls finished what was not run, or open what is settled", () => {
    const [c] = record.calibrations;
    const failed = {
      ...record,
      calibrations: [{ ...c!, run: { ...c!.run, status: "failed" as const } }],
    };
    expect(customerWords(failed).done[0]).toMatchObject({ good: false });
    expect(customerWords(failed).done[0]!.say).toMatch(/not finished\. Do not rely/);
    const settled = {
      ...record,
      checks: [],
      owed: { ...record.owed, lines: record.owed.lines.filter((l) => l.outcome === "this-record") },
    };
    expect(customerWords(settled).notProved).toEqual([]);
  });

  it("gives the insurer reasons, sources and proof without the readings, and the file all of it", async () => {
    const jpeg = await sharp({
      create: { width: 200, height: 150, channels: 3, background: "#765" },
    })
      .jpeg()
      .toBuffer();
    const photos = Array.from({ length: 40 }, (_, i) => ({
      sha256: i.toString(16).padStart(64, "0"),
      shows: "Set-out",
      takenAt: null,
      keptAt: AT,
      by: BY,
      jpeg,
    }));
    const insurer = await renderInsurerReport(record, photos);
    const text = textOf(insurer);
    for (const said of [
      "As left: Forward camera",
      "Learned, quality 96 %",
      "DECLINED",
      "Shop rule book, page 9",
    ])
      expect(text).toContain(said);
    expect(text).not.toContain("Residual");
    expect(text.match(/SHA-256/g)).toHaveLength(40);
    const file = textOf(await renderReport(record, photos));
    expect(file).toContain("Residual");
    expect(file.match(/SHA-256/g)).toHaveLength(40);
  });

  it("is a draft on every page until somebody answers for it", async () => {
    const drafts = async (handedOver: JobRecord["handedOver"]): Promise<[number, number]> => {
      const pdf = await renderReport({ ...record, handedOver }, []);
      const raw = execFileSync("pdftotext", ["-raw", "-", "-"], { input: pdf, encoding: "utf8" });
      return [raw.match(/DRAFT/g)?.length ?? 0, pages(pdf)];
    };
    expect((await drafts({ at: AT, by: BY }))[0]).toBe(0);
    const [words, sheets] = await drafts(null);
    expect(words).toBe(sheets);
    expect(sheets).toBeGreaterThan(1);
  });
});
