import { expect, test } from "@playwright/test";
import { madeUpVin } from "@/demo/data/vehicles";
import { followToSet, nextBar, signIn, slip, takeIn, verdict } from "./support/hands";
import { openShop, type Shop } from "./support/shop";

let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ baySeed: "next-car" })));
test.afterAll(() => shop.close());

test("the next car of the model before a stand nobody touched: one touch, a few readings, and the report says so", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  await takeIn(page, shop.url, madeUpVin("0NVLS2DA7R100917"), "First Car");
  await followToSet(page);
  const readings = slip(page).getByRole("button", { name: /→|laser|rule|scale/ });
  const before = await readings.count();

  await takeIn(page, shop.url, madeUpVin("0NVLS2DB9R100934"), "Second Car");
  await expect(nextBar(page)).toContainText("Has anybody touched this stand since");
  await expect(nextBar(page)).toContainText(
    /Left to read: .*laser.* \(\d readings, about \d min\)/,
  );
  await page.getByRole("button", { name: "Nobody touched it" }).click();
  await expect(slip(page)).toContainText("Stand untouched");
  await expect(verdict(page)).toBeVisible();
  // Neither the adjusters nor the height are asked for: the first act is a reading.
  await expect(page.getByRole("button", { name: "Take", exact: true })).toBeVisible();
  await followToSet(page);
  expect(await readings.count()).toBeLessThan(before);
});
