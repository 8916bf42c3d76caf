import { expect, test } from "@playwright/test";
import { openJob, signIn } from "./support/hands";
import { openShop, type Shop } from "./support/shop";

test.use({ actionTimeout: 20_000 });
let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ jobs: true })));
test.afterAll(() => shop.close());

test("a paper is shown outside by a link that a stranger opens, until it is taken back", async ({
  page,
  browser,
}) => {
  await signIn(page, shop.url, "ines");
  await openJob(page, shop.url, "HQ 41 ELM", "/hand-over");
  const share = page.getByRole("region", { name: "Show it outside" });
  await share.getByLabel("E-mail, where it is to be sent").fill("elin@house.invalid");
  await share.getByRole("button", { name: "Send a link" }).click();
  await expect(page.getByText(/house\.invalid takes no letters/)).toBeVisible();
  await share.getByLabel("E-mail, where it is to be sent").fill("");
  await share.getByRole("button", { name: "Make a link" }).click();
  const url = (await share.getByRole("status").getByRole("link").getAttribute("href"))!;
  const stranger = await browser.newContext();
  const shown = await stranger.request.get(url);
  expect([shown.status(), shown.headers()["content-type"]]).toEqual([200, "application/pdf"]);
  expect((await shown.body()).subarray(0, 5).toString()).toBe("%PDF-");
  // Nothing else of the shop opens to whoever holds it.
  expect((await stranger.request.get(`${shop.url}/api/jobs`)).status()).toBe(401);
  await page.reload();
  await expect(share.getByRole("listitem")).toContainText(/opened/);
  await share.getByRole("button", { name: "Take it back" }).click();
  await expect(share.getByRole("listitem")).toContainText("taken back");
  const gone = await stranger.request.get(url);
  expect([gone.status(), await gone.text()]).toEqual([
    410,
    "This link has ended, was taken back, or never was. Ask the shop for a new one.",
  ]);
  await stranger.close();
});
