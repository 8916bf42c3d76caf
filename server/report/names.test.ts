import { execFileSync } from "node:child_process";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { beforeAll, expect, it } from "vitest";
import type { JobRecord } from "@/core/record";
import { INES, openTestShop } from "@/tests/shop-database";
import { INTAKE } from "@/tests/fixtures";
import { takeIn } from "../jobs/take-in";
import { renderReport } from "./pdf";
import { recordPaper } from "./record";

beforeAll(() => openTestShop());

/** Made-up names in ten scripts and kinds of signs. */
const NAMES = {
  polish: "Święto Żółkowska-Łęcka",
  turkish: "Gülşah İğdırlı",
  vietnamese: "Nguyễn Thị Ngọc Hường",
  greek: "Ελπινίκη Θαλασσοπούλου",
  cyrillic: "Щедра Юхновська-Ёлкина",
  hebrew: "נעמי בן־ים",
  arabic: "ليلى بنت البحر",
  chinese: "海明月",
  japanese: "みなと さくら",
  korean: "바다해솔",
};

/** What pdftotext reads back, without the marks of direction and the gaps it puts in. */
function readBack(pdf: Buffer): string {
  const text = execFileSync("pdftotext", ["-layout", "-", "-"], { input: pdf, encoding: "utf8" });
  return text.normalize("NFKC").replace(/[\u200e\u200f\u202a-\u202e]/g, "");
}
const bare = (text: string): string => text.normalize("NFKC").replace(/[\s־-]/g, "");

it("names in ten scripts are read back right from the report; what has no letter is a box and said so", async () => {
  const id = takeIn(INTAKE, INES);
  const record = JSON.parse(recordPaper(id, INES)!.bytes.toString()) as JobRecord;
  record.open = Object.values(NAMES);
  record.job.customer = "Owner 🚗 of a car, 𓀀 and more";
  const pdf = await renderReport(record, []);
  if (process.env.KEEP_PDF)
    writeFileSync(path.join(mkdtempSync(path.join(tmpdir(), "names-")), "names.pdf"), pdf);
  const text = bare(readBack(pdf));
  for (const [script, name] of Object.entries(NAMES)) {
    const backwards = [...bare(name)].reverse().join("");
    // Right to left, a reader of text may give the line as it runs on paper.
    expect(
      text.includes(bare(name)) || (/hebrew|arabic/.test(script) && text.includes(backwards)),
      script,
    ).toBe(true);
  }
  expect(text).toContain("Owner🚗ofacar,□andmore");
  expect(text).toContain("□standsforasignthatthispaperhasnoletterfor:U+13000.");
}, 60_000);
