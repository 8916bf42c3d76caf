import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { expect, test } from "@playwright/test";
import { unzipSync } from "fflate";
import { nextBar, openJob, signIn } from "./support/hands";
import { openShop, type Shop } from "./support/shop";

test.use({ actionTimeout: 20_000 });

let here: Shop;
let there: Shop;
test.beforeAll(async () => {
  here = await openShop({ jobs: true });
  there = await openShop({});
});
test.afterAll(async () => {
  await here.close();
  await there.close();
});

const verify = (file: string): { code: number | null; says: string } => {
  const { status, stdout, stderr } = spawnSync("npx", ["tsx", "scripts/verify.ts", file], {
    encoding: "utf8",
    env: { ...process.env, IRIDEL_DB: "/nowhere/at-all.sqlite" },
  });
  return { code: status, says: stdout + stderr };
};

test("a job leaves the house as one file, is checked without a database, and comes into another shop whole", async ({
  page,
  browser,
}) => {
  const folder = mkdtempSync(path.join(tmpdir(), "iridel-archive-"));
  await signIn(page, here.url, "mara");
  const job = await openJob(page, here.url, "HQ 09 TAL", "/hand-over");
  await nextBar(page).getByRole("button", { name: "Hand over" }).click();
  await expect(nextBar(page)).toContainText("Handed over");
  await expect(page.getByText("All kept")).toBeVisible();
  const href = await page.getByRole("link", { name: "For the customer" }).getAttribute("href");
  const read = await page.context().newPage();
  await read.goto(`${here.url}${href}`);
  await expect(read.getByRole("heading", { level: 1 })).toHaveText("Your vehicle’s cameras");
  await expect(read.getByText(/Marked road closed by snow/)).toBeVisible();
  await read.getByRole("link", { name: "For the file" }).click();
  await expect(read.getByRole("heading", { level: 1 })).toContainText("Calibration record");
  // The drawing to scale: as many numbers as readings that count in the plan.
  await expect(read.getByText(/Scale 1 : \d+ when printed/).first()).toBeVisible();
  await read.getByRole("link", { name: "For the customer" }).click();
  const plain = await read.getByRole("link", { name: "PDF" }).getAttribute("href");
  await read.close();
  const forCustomer = await page.request.get(`${here.url}${plain}`);
  expect(forCustomer.headers()["content-type"]).toBe("application/pdf");
  const said = spawnSync("pdftotext", ["-layout", "-", "-"], {
    input: await forCustomer.body(),
    encoding: "utf8",
  }).stdout.replace(/\s+/g, " ");
  expect(said).toContain("The vehicle");
  expect(said).toMatch(/left as it is\. Marked road closed by snow/);
  const saving = page.waitForEvent("download");
  await page.getByRole("link", { name: "Everything, ZIP" }).click();
  const file = path.join(folder, "job.zip");
  await (await saving).saveAs(file);
  const list = Object.keys(unzipSync(readFileSync(file)));
  expect(list).toEqual(
    expect.arrayContaining([
      "log.json",
      "papers/record-1.json",
      "papers/report-1.pdf",
      "readings.csv",
    ]),
  );
  expect(list.some((n) => /^drawings\/.*\.svg$/.test(n))).toBe(true);

  const whole = verify(file);
  expect(whole).toMatchObject({ code: 0 });
  expect(whole.says).toMatch(/Head on report 1: [0-9a-f]{64}/);
  const bytes = readFileSync(file);
  const changed = Buffer.from(bytes);
  const at = changed.indexOf("iridel.record/2");
  changed[at + 1] = changed[at + 1]! ^ 1;
  const altered = path.join(folder, "altered.zip");
  writeFileSync(altered, changed);
  expect(verify(altered)).toMatchObject({ code: 1 });
  expect(verify(altered).says).toContain("papers/record-1.json was altered");

  const other = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const lead = await other.newPage();
  await signIn(lead, there.url, "mara");
  await lead.goto(`${there.url}/log`);
  await lead.getByRole("link", { name: "Check an archive" }).click();
  await lead.getByLabel("Archive file").setInputFiles(altered);
  await expect(lead.getByRole("alert").filter({ hasText: "was altered" })).toContainText(
    "papers/record-1.json",
  );
  await lead.getByLabel("Archive file").setInputFiles(file);
  await expect(lead.getByRole("heading", { name: "Whole" })).toBeVisible();
  await lead.getByRole("button", { name: "Bring it in" }).click();
  await expect(lead.getByRole("heading", { name: /^Brought in as job \d+$/ })).toBeVisible();
  await lead.getByRole("link", { name: "Open it" }).click();
  await expect(nextBar(lead)).toContainText("Handed over");
  const id = job.split("/").at(-1);
  const again = await lead.request.get(`${there.url}/api/jobs/${id}/archive`);
  expect((await again.body()).equals(bytes)).toBe(true);
  await other.close();
});
