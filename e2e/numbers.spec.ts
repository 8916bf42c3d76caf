import { expect, test } from "@playwright/test";
import Database from "better-sqlite3";
import { awake, signIn } from "./support/hands";
import { openShop, type Shop } from "./support/shop";

test.use({ actionTimeout: 20_000 });
let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ jobs: true })));
test.afterAll(() => shop.close());

test("records are found by the tape that was used, since its last good check, and taken along as a table", async ({
  page,
}) => {
  await signIn(page, shop.url, "oskar");
  await page.getByRole("link", { name: "Records" }).click();
  await page.waitForURL(/records$/);
  await expect(page.getByRole("heading", { name: "Records" })).toBeVisible();
  const main = page.getByRole("main");
  const rows = main.getByRole("listitem");
  await expect(rows.first()).toBeVisible();
  const all = await rows.count();
  const asked = page.getByRole("form", { name: "Find records" });
  await asked.getByLabel("Instrument").selectOption("T-3");
  await asked.getByRole("button", { name: "Find" }).click();
  await page.waitForURL(/instrument=T-3/);
  await expect(main.getByRole("note")).toContainText("T-3 was last checked and found in order");
  const withTape = await rows.count();
  expect(withTape).toBeGreaterThan(0);
  for (const row of await rows.all()) await expect(row).toContainText("T-3");
  const href = await asked.getByRole("link", { name: "CSV" }).getAttribute("href");
  const csv = await (await page.request.get(`${shop.url}${href}`)).text();
  const lines = csv.trim().split("\r\n");
  expect(lines[0]).toMatch(/^job,handedOver,vin,plate,order,customer,/);
  expect(lines.length - 1).toBe(withTape);
  expect(withTape).toBeLessThanOrEqual(all);

  // The tape was checked just now: nothing was done with it since.
  const db = new Database(shop.file);
  const last = db.prepare("SELECT * FROM kit_checks WHERE itemId = 'T-3' LIMIT 1").get() as object;
  db.prepare(
    "INSERT INTO kit_checks (id, itemId, at, personId, ok, words, readings) VALUES (@id, @itemId, @at, @personId, @ok, @words, @readings)",
  ).run({ ...last, id: "now", at: new Date().toISOString() });
  await asked.getByLabel("Only since its last good check").check();
  await asked.getByRole("button", { name: "Find" }).click();
  await expect(main).toContainText("Nothing was handed over that fits all of this.");
  await main.getByRole("link", { name: "All", exact: true }).click();
  await expect(rows).toHaveCount(all);
  await asked.getByLabel("Words").fill("elin");
  await asked.getByRole("button", { name: "Find" }).click();
  await expect(rows).toHaveCount(1);
  await expect(rows.first()).toContainText("Elin Marsh");
});

test("the numbers show a stand that bends before its zero check fails", async ({ page }) => {
  const db = new Database(shop.file);
  const model = db.prepare("SELECT * FROM job_numbers LIMIT 1").get() as {
    doc: string;
    jobId: string;
  };
  const put = db.prepare(
    "INSERT INTO job_numbers (jobId, calibrationId, at, sheet, stand, instruments, boards, people, doc) VALUES (@jobId, @calibrationId, @at, @sheet, @stand, @instruments, @boards, @people, @doc)",
  );
  const now = Date.now();
  for (let n = 0; n < 120; n++)
    for (const stand of ["S-1", "S-2"]) {
      const bends = stand === "S-1" ? Math.max(0, n - 80) * 0.01 : 0;
      const yaw = { off: 0.1 * Math.sin(2.4 * n + stand.length) + bends, sigma: 0.3 };
      put.run({
        ...model,
        calibrationId: `${stand}-${n}`,
        at: new Date(now - (121 - n) * 86_400_000).toISOString(),
        stand,
        doc: JSON.stringify({
          ...JSON.parse(model.doc),
          stand,
          yaw,
          calibrationId: `${stand}-${n}`,
        }),
      });
    }
  await signIn(page, shop.url, "oskar");
  await page.goto(`${shop.url}/numbers`);
  await expect(page.getByRole("region", { name: "What drifts" })).toContainText(
    // Beside the demo's own, whose scale creeps.
    "S-1 and S-3 drift: zero them, and look at what bends.",
  );
  await expect(page.getByRole("region", { name: "S-1: yaw learned less foretold" })).toContainText(
    /outside since 20\d\d-/,
  );
  await expect(page.getByRole("region", { name: "S-2: yaw learned less foretold" })).toContainText(
    "in order",
  );
  await expect(page.getByRole("region", { name: "Passed at the first attempt" })).toContainText(
    /\d+\s%/,
  );
});

test("what a finer instrument or another way would have saved is gone through beside the page", async ({
  page,
}) => {
  await signIn(page, shop.url, "mara");
  await page.goto(`${shop.url}/kit`);
  await awake(page);
  const worth = page.getByRole("region", { name: "Worth of an instrument" });
  await worth.getByRole("button", { name: "Go through the last quarter" }).click();
  await expect(worth.getByRole("status")).toContainText(/of \d+ gone through/);
  await expect(worth.getByText(/\d+ boards set out since/)).toBeVisible({ timeout: 240_000 });
  // The demo's jobs were set out by tapes, and its kit has a rig.
  const rig = worth.getByRole("listitem").filter({ hasText: "Camera rig" });
  await expect(rig).toContainText(/[2-9]\.\d ± \d\.\d min a board/);
});
