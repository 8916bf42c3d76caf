import { expect, test, type Page } from "@playwright/test";
import Database from "better-sqlite3";
import { madeUpVin } from "@/demo/data/vehicles";
import { catcher, hold, readAt, signIn, slip, takeIn, verdict } from "./support/hands";
import { openShop, type Shop } from "./support/shop";

const VIN = madeUpVin("0NVLS2DA7R100902");
let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ baySeed: "keep" })));
test.afterAll(() => shop.close());

test("nothing typed is lost: a reload in mid-typing, a server that dies, a take-in half written", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  // Until the page is awake it takes nothing: what would be typed into it then would be gone.
  expect(await (await page.request.get(`${shop.url}/take-in`)).text()).toMatch(
    /<fieldset[^>]*disabled/,
  );
  await page.goto(`${shop.url}/take-in`);
  await page.getByLabel("VIN", { exact: true }).fill(VIN.slice(0, 11));
  await page.getByLabel("Customer", { exact: true }).fill("Half Written");
  await page.reload();
  await expect(page.getByLabel("VIN", { exact: true })).toHaveValue(VIN.slice(0, 11));
  await expect(page.getByLabel("Customer", { exact: true })).toHaveValue("Half Written");

  const job = await takeIn(page, shop.url, VIN, "Half Written");
  expect(await (await page.request.get(`${job}/ready`)).text()).toMatch(/<div inert/);
  await readAt(page, "tape-fl-l");
  await page.locator('[data-slot="tape-fr-r"]').click();
  await catcher(page).fill("29");
  await page.reload();
  await expect(page.locator('[data-slot="tape-fr-r"]')).toHaveAttribute("aria-pressed", "true");
  await expect(catcher(page)).toHaveValue("29");

  const shown = await hold(page);
  await shop.kill();
  await catcher(page).fill(shown);
  await page.getByRole("button", { name: "Take", exact: true }).click();
  await expect(page.getByText("1 kept here, not sent")).toBeVisible();
  await expect(page.locator('[data-slot="tape-fr-r"]')).toHaveAttribute("data-state", "settled");
  await shop.start();
  await expect(page.getByText("All kept")).toBeVisible({ timeout: 15_000 });
  await page.reload();
  await expect(slip(page)).toContainText("front hub left → beam end left");
  await expect(slip(page)).toContainText("front hub right → beam end right");
});

test("readings of two tablets stand beside each other; a touch against a touch of one stand is a clear conflict, never a silent overwrite", async ({
  browser,
}) => {
  const [first, second] = [await browser.newContext(), await browser.newContext()];
  const [a, b] = [await first.newPage(), await second.newPage()];
  await signIn(a, shop.url, "ines");
  await signIn(b, shop.url, "oskar");
  const job = await takeIn(a, shop.url, VIN, "Two Tablets");
  await b.goto(`${job}/set-out`);
  await expect(verdict(b)).toBeVisible();

  // The second tablet types while it cannot reach the shop; meanwhile the first one writes.
  await b.locator('[data-slot="tape-fr-r"]').click();
  const shown = await hold(b);
  await second.setOffline(true);
  await catcher(b).fill(shown);
  await b.getByRole("button", { name: "Take", exact: true }).click();
  await expect(b.getByText("1 kept here, not sent")).toBeVisible();
  await readAt(a, "tape-fl-l");
  await expect(a.getByText("All kept")).toBeVisible();
  await second.setOffline(false);
  await expect(b.getByText("All kept")).toBeVisible();
  for (const page of [a, b]) {
    await expect(slip(page)).toContainText("front hub left → beam end left");
    await expect(slip(page)).toContainText("front hub right → beam end right");
  }

  const touched = async (page: Page, what: string): Promise<void> => {
    await page.getByRole("button", { name: /^Touched/ }).click();
    await page.getByRole("button", { name: what }).click();
  };
  await second.setOffline(true);
  await touched(b, "Knocked or leaned on it");
  await expect(b.getByText("1 kept here, not sent")).toBeVisible();
  await touched(a, "Hung or changed the board");
  await expect(a.getByText("All kept")).toBeVisible();
  await second.setOffline(false);

  const conflict = b.getByRole("alert", { name: "Two tablets wrote" });
  await expect(conflict).toContainText("Ines Tarbet wrote to this job first. Yours is kept here");
  await expect(conflict).toContainText("touched: Knocked or leaned on it");
  await expect(conflict).toContainText("touched: Hung or changed the board");
  await b.reload();
  await expect(conflict).toContainText("touched: Knocked or leaned on it");
  await conflict.getByRole("button", { name: "Add mine after theirs" }).click();
  await expect(b.getByText("All kept")).toBeVisible();
  for (const page of [a, b]) {
    await expect(slip(page)).toContainText("Hung or changed the board");
    await expect(slip(page)).toContainText("Knocked or leaned on it");
  }
  await expect(a.getByText("Also here: Oskar Veld")).toBeVisible();
  await first.close();
  await second.close();
});

test("another program holds the shop's book: the tablet says so, keeps the reading, and sends it when it can", async ({
  page,
}) => {
  await signIn(page, shop.url, "oskar");
  await takeIn(page, shop.url, madeUpVin("0NVLS2DA7R100482"), "Held For A While");
  const other = new Database(shop.file);
  other.exec("BEGIN IMMEDIATE");
  await page.locator('[data-slot="tape-fl-l"]').click();
  await catcher(page).fill("2871");
  await page.getByRole("button", { name: "Take", exact: true }).click();
  const kept = page.getByRole("alert", { name: "Kept on this tablet" });
  await expect(kept).toContainText("The shop’s book is busy. All is kept on this tablet");
  // Reading goes on meanwhile, for somebody who comes in just now too.
  expect((await page.request.get(`${shop.url}/api/jobs`)).status()).toBe(200);
  expect((await page.request.get(page.url())).status()).toBe(200);
  other.exec("ROLLBACK");
  other.close();
  await expect(kept).toBeHidden({ timeout: 10_000 });
  await expect(page.getByText("All kept")).toBeVisible();
  await page.reload();
  await expect(page.locator('[data-slot="tape-fl-l"]')).toContainText("2 871");
});
