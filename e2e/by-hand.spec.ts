import { expect, test, type Page } from "@playwright/test";
import { awake, nextBar, signIn, slip } from "./support/hands";
import { papersOf } from "./support/job";
import { prepared } from "./support/prepared";
import { openShop, type Shop } from "./support/shop";

test.use({ actionTimeout: 20_000 });
let shop: Shop;
test.beforeAll(async () => void (shop = await openShop()));
test.afterAll(() => shop.close());

/** The smallest PDF that says these lines, each a name and a value far to its right. */
function pdfOf(lines: [string, string][]): Buffer {
  const text = lines
    .map(([a, b], i) => {
      const y = 780 - 18 * i;
      return `BT /F1 11 Tf 60 ${y} Td (${a}) Tj ET BT /F1 11 Tf 300 ${y} Td (${b}) Tj ET`;
    })
    .join("\n");
  const objects = [
    "<< /Type /Catalog /Pages 2 0 R >>",
    "<< /Type /Pages /Kids [3 0 R] /Count 1 >>",
    "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> >>",
    `<< /Length ${text.length} >>\nstream\n${text}\nendstream`,
    "<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding >>",
  ];
  let out = "%PDF-1.4\n";
  const at = objects.map((o, i) => {
    const start = out.length;
    out += `${i + 1} 0 obj\n${o}\nendobj\n`;
    return start;
  });
  const xref = out.length;
  out += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n`;
  out += at.map((a) => `${String(a).padStart(10, "0")} 00000 n \n`).join("");
  out += `trailer\n<< /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${xref}\n%%EOF`;
  return Buffer.from(out, "latin1");
}

/** Walks the sheet on the shop's own tool, up to where the tool answers. */
async function toTheAnswer(page: Page): Promise<void> {
  const next = nextBar(page);
  await awake(page);
  await next.getByRole("button", { name: "By hand" }).click();
  await next.getByLabel("Tool", { exact: true }).fill("Workshop handheld");
  await next.getByLabel("Serial").fill("WH-77");
  await next.getByLabel("Software").fill("4.2");
  await next.getByLabel("Supply it shows").fill("13,1");
  await next.getByRole("button", { name: "It is open" }).click();
  await next.getByRole("button", { name: "Done" }).click();
  const value = next.getByLabel("Value on the tool");
  await value.fill("13.2");
  await next.getByRole("button", { name: "Enter" }).click();
  await next.getByRole("button", { name: "It is off" }).click();
  await next.getByRole("button", { name: "It is on" }).click({ timeout: 30_000 });
  await expect(next).toContainText("Camera height the vehicle has stored", { timeout: 30_000 });
  // Its own unit is not the book's; far off, it is let pass with a reason only.
  await next.getByLabel("Unit of the tool").selectOption("cm");
  await value.fill("121");
  await next.getByRole("button", { name: "Enter" }).click();
  await expect(next).toContainText("Outside the book's range.");
  await next.getByRole("button", { name: "Let it pass" }).click();
  await next.getByLabel("Reason").fill("Raised suspension, in its papers");
  await next.getByRole("button", { name: "Let it pass" }).click();
  await next.getByRole("button", { name: "Enter" }).click();
  await next.getByRole("button", { name: "Start the routine" }).click();
  await expect(next).toContainText("Follow the routine on your tool.");
}

test("a run on the shop’s own tool: typed values, a report taught once, and which way each fact came in", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  const first = prepared(shop, { sheetId: "lisse-forward", sheetVersion: 2, seed: "own-1" });
  await page.goto(`${first}/run`);
  const next = nextBar(page);
  await toTheAnswer(page);
  const report = next.getByLabel("Report of the tool");

  // A picture is no report; another vehicle's report is not taken.
  await report.setInputFiles({
    name: "screen.png",
    mimeType: "image/png",
    buffer: Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 1, 2, 3]),
  });
  await expect(page.getByText(/This is no report/)).toBeVisible();
  const vin = (await papersOf(page, shop.url, first)).record.vehicle.vin;
  const lines = (passed: string, whose: string): [string, string][] => [
    ["Chassis", whose],
    ["Outcome", passed],
    ["Confidence", "0.91"],
    ["Turn left", "-0.31 deg"],
  ];
  const bring = (buffer: Buffer) =>
    report.setInputFiles({ name: "run.pdf", mimeType: "application/pdf", buffer });
  await bring(pdfOf(lines("complete", "0AAAA00000A000000")));
  const dialog = page.getByRole("dialog", { name: "Which line says what?" });
  await dialog.getByLabel("Name of the tool").fill("Workshop handheld");
  await dialog.getByLabel("Whether it passed").selectOption("Outcome");
  await dialog.getByLabel("Quality", { exact: true }).selectOption("Confidence");
  await expect(dialog.getByRole("status")).toContainText("quality 1 %");
  await dialog.getByLabel("Whole of the quality").fill("1");
  await dialog.getByLabel("Yaw it learned").selectOption("Turn left");
  await dialog.getByLabel("VIN").selectOption("Chassis");
  await expect(dialog.getByRole("status")).toContainText("This one then passed, quality 91 %.");
  await dialog.getByRole("button", { name: "Keep it so" }).click();
  await expect(next).toContainText("The report says it learned, quality 91 %.");
  await next.getByRole("button", { name: "Take it" }).click();
  await expect(page.getByText(/The report is of VIN 0AAAA00000A000000/)).toBeVisible();
  await next.getByRole("button", { name: "Another" }).click();

  // Its own; nobody teaches it again.
  await bring(pdfOf(lines("complete", vin)));
  await expect(next).toContainText("read as Workshop handheld");
  await next.getByRole("button", { name: "Take it" }).click();
  await expect(page.getByRole("region", { name: "Result" })).toContainText(
    "The vehicle learned its aim",
  );
  await expect(slip(page)).toContainText("By hand on Workshop handheld WH-77, software 4.2");
  await expect(slip(page)).toContainText(
    /quality 91 % \(from the tool’s report run\.pdf, [0-9a-f]{8}\)/,
  );
  const { record, report: paper } = await papersOf(page, shop.url, first);
  const log = record.calibrations[0]!.run.log.map((l) => l.value);
  expect(log).toContain("13.20 V (typed from the tool)");
  expect(log).toContain("let pass: Raised suspension, in its papers");
  expect(paper).toMatch(/tool’s report\s+run\.pdf/);

  // The next car: a plain text this time, refused, typed beside a photo.
  const second = prepared(shop, { sheetId: "lisse-forward", sheetVersion: 2, seed: "own-2" });
  await page.goto(`${second}/run`);
  await toTheAnswer(page);
  await next.getByLabel("Report of the tool").setInputFiles({
    name: "run.csv",
    mimeType: "text/csv",
    buffer: Buffer.from("Chassis,Outcome,Confidence,Turn left\n,aborted,,\n"),
  });
  await expect(dialog).toBeVisible();
  await dialog.getByRole("button", { name: "Back" }).click();
  await next.getByRole("button", { name: "It refused" }).click();
  await next.getByLabel("Its words").fill("Picture not usable");
  await next.getByLabel("Kind of refusal").selectOption("shape");
  await next.getByLabel("Quality, %").fill("62");
  await next.getByRole("button", { name: "Take it" }).click();
  await expect(page.getByRole("region", { name: "Result" })).toContainText("Picture not usable");
  await expect(slip(page)).toContainText("Picture not usable (typed from the tool)");
});
