import { expect, test } from "@playwright/test";
import { awake, nextBar, signIn, slip } from "./support/hands";
import { papersOf, takeInDone } from "./support/job";
import { openShop, type Shop } from "./support/shop";

test.use({ actionTimeout: 20_000 });
let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ baySeed: "explained" })));
test.afterAll(() => shop.close());

test("a vehicle is held back with a reason, signed by a second person, and given back by the lead alone", async ({
  page,
  browser,
}) => {
  const other = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const lead = await other.newPage();
  await signIn(lead, shop.url, "mara");
  await lead.goto(`${shop.url}/settings`);
  const rules = lead.getByRole("region", { name: "Release" });
  for (const name of [/The lead gives vehicles back/, /A second person signs first/]) {
    await rules.getByRole("button", { name }).click();
    await expect(rules.getByRole("button", { name })).toHaveAttribute("aria-pressed", "true");
  }

  await signIn(page, shop.url, "ines");
  const job = await takeInDone(page, shop.url, {
    vin: "0NVLS2DA7R100633",
    customer: "Four Eyes",
    done: [["Windshield taken out or replaced", null]],
  });
  const next = nextBar(page);
  await page.goto(`${job}/ready`);
  await awake(page);
  await page
    .getByRole("main")
    .getByRole("button", { name: /Fault codes read before work/ })
    .click();
  await next.getByRole("button", { name: "Scan all control units" }).click();
  await expect(slip(page)).toContainText(/Scan, \d+ control units/);

  await page.goto(`${job}/hand-over`);
  await expect(next).toContainText("In this shop the lead gives vehicles back.");
  await expect(next.getByRole("button", { name: "Hand over" })).toBeDisabled();
  await next.getByRole("button", { name: "Hold back" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByRole("button", { name: "Ready" }).click();
  await dialog.getByLabel("Why it does not go yet").fill("Rear left tyre soft again");
  await dialog.getByRole("button", { name: "Hold it back" }).click();
  await expect(next).toContainText("Held back: Rear left tyre soft again.");
  await expect(next.getByRole("link", { name: "Ready" })).toHaveAttribute("href", /\/ready$/);
  await expect(page.getByText("All kept")).toBeVisible();

  // The list says so, and not even the lead gives it back while it is held.
  await lead.goto(shop.url);
  await expect(lead.getByRole("listitem").filter({ hasText: "Four Eyes" })).toContainText(
    "Held back: Rear left tyre soft again",
  );
  await lead.goto(`${job}/hand-over`);
  await expect(nextBar(lead)).toContainText("Ines Tarbet held it.");
  await expect(nextBar(lead).getByRole("button", { name: "Hand over" })).toHaveCount(0);
  await next.getByRole("button", { name: "Lift the hold" }).click();
  await dialog.getByLabel("What has changed").fill("Valve replaced, holds its pressure");
  await dialog.getByRole("button", { name: "Lift it" }).click();
  await expect(nextBar(lead)).toContainText("a second person signs first", { timeout: 15_000 });
  await next.getByRole("button", { name: "Sign it" }).click();
  await expect(slip(page)).toContainText("Second person signed");

  await expect(nextBar(lead).getByRole("button", { name: "Hand over" })).toBeEnabled({
    timeout: 15_000,
  });
  await nextBar(lead).getByRole("button", { name: "Hand over" }).click();
  await expect(nextBar(lead)).toContainText("Handed over");
  await expect(lead.getByText("All kept")).toBeVisible();
  const { record, report } = await papersOf(lead, shop.url, job);
  expect([record.signed?.by.name, record.handedOver?.by.name]).toEqual([
    "Ines Tarbet",
    "Mara Quill",
  ]);
  expect(report).toMatch(/signed .* by\s+Ines Tarbet/);
  await other.close();
});
