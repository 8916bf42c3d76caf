import { execFileSync } from "node:child_process";
import { createElement } from "react";
import { renderToStaticMarkup } from "react-dom/server";
import { beforeAll, describe, expect, it } from "vitest";
import type { JobRecord } from "@/core/record";
import { technician } from "@/demo/technician";
import { INTAKE } from "@/tests/fixtures";
import { INES, openTestShop } from "@/tests/shop-database";
import { CustomerPage, renderCustomerPage } from "./customer";
import { InsurerReport, renderInsurerReport } from "./insurer";
import { FileReport, renderReport } from "./pdf";
import { recordPaper } from "./record";
import { onScreen } from "./screen";

let record: JobRecord;

/** A job that was set out, run and looked through, as a technician does it. */
beforeAll(async () => {
  openTestShop();
  const t = technician(INES, new Date(Date.now() - 7200_000).toISOString());
  t.open(INTAKE, "screen");
  await t.check("ready");
  t.follow((j) => j.next.kind === "settle");
  t.settle();
  await t.run();
  await t.check("prove");
  record = JSON.parse(recordPaper(t.jobId, INES)!.bytes.toString()) as JobRecord;
}, 60_000);

/** Every word and figure that somebody reads; where lines end is nobody's matter. */
const wordsOf = (text: string): string[] =>
  [...new Set(text.normalize("NFKC").split(/\s+/))].filter((w) => w.length > 1 && w.length < 24);
const onPage = (node: ReturnType<typeof onScreen>): string =>
  renderToStaticMarkup(node)
    .replace(/<(p|h1|h2|div|text|article)\b[^>]*>/g, " ")
    .replace(/<[^>]+>/g, "")
    .replaceAll("&#x27;", "'")
    .replaceAll("&quot;", '"')
    .replaceAll("&lt;", "<")
    .replaceAll("&gt;", ">")
    .replaceAll("&amp;", "&");
const onPaper = (pdf: Buffer): string =>
  execFileSync("pdftotext", ["-raw", "-", "-"], { input: pdf, encoding: "utf8" });

describe("a report on screen", () => {
  it.each([
    ["customer", () => CustomerPage({ record }), () => renderCustomerPage(record)],
    ["insurer", () => InsurerReport({ record, photos: [] }), () => renderInsurerReport(record, [])],
    ["file", () => FileReport({ record, photos: [] }), () => renderReport(record, [])],
  ] as const)("says to the %s every word that the paper says", async (_, page, paper) => {
    const shown = onPage(onScreen(page()));
    const printed = onPaper(await paper());
    expect(wordsOf(printed).length).toBeGreaterThan(60);
    const squeezed = shown.normalize("NFKC").replace(/\s+/g, "");
    // A line that ends inside a word parts it on paper; on the page it is whole.
    const missing = wordsOf(printed).filter((w) => !squeezed.includes(w));
    expect(missing).toEqual([]);
    expect(shown).not.toMatch(/undefined|\[object/);
  });

  it("draws the set-out with one number for each reading that counts in the plan", () => {
    const [target] = record.calibrations[0]!.targets;
    const { drawing, readings } = target!;
    const counted = readings.filter((r) => r.state === "counts").map((r) => r.id);
    expect(drawing!.readings.length).toBeGreaterThan(2);
    for (const { id, from, to } of drawing!.readings) {
      expect(counted).toContain(id);
      const read = readings.find((r) => r.id === id)!;
      // A tape is as long in the drawing as it was read, but for what the floor and errors do.
      if (read.slot.startsWith("tape-"))
        expect(Math.abs(Math.hypot(to[0] - from[0], to[1] - from[1]) - read.value)).toBeLessThan(
          60,
        );
    }
    const markup = renderToStaticMarkup(onScreen(FileReport({ record, photos: [] })));
    const numbers = [...markup.matchAll(/<text[^>]*>(\d+)<\/text>/g)].map((m) => Number(m[1]));
    expect(numbers).toEqual(
      drawing!.readings.map((r) => readings.findIndex((x) => x.id === r.id) + 1),
    );
  });

  it("is an error, not a gap, where a part has no place on a page", () => {
    expect(() => onScreen(createElement("CHECKBOX"))).toThrow(/CHECKBOX/);
  });
});
