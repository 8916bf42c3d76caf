import { expect, test, type Page } from "@playwright/test";
import { madeUpVin } from "@/demo/data/vehicles";
import { byStandIn, counted, countHands } from "./support/count";
import { answerAll, awake, catcher, hold, nextBar, signIn, slip, takeIn } from "./support/hands";
import { openShop, type Shop } from "./support/shop";

const VIN = madeUpVin("0NVLS2DA7R100555");
test.use({ actionTimeout: 8000 });
let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ baySeed: "count" })));
test.afterAll(() => shop.close());

const button = (page: Page, name: string | RegExp) => page.getByRole("button", { name });
/** A figure as a thumb types it. */
async function type(page: Page, text: string): Promise<void> {
  await page.keyboard.press("Control+A");
  await page.keyboard.type(text, { delay: 5 });
}

test("before", async ({ page }) => {
  await signIn(page, shop.url, "ines");
  const job = await takeIn(page, shop.url, VIN, "Aldith Crane");
  await page.goto(`${job}/ready`);
  await page
    .getByRole("main")
    .getByRole("button", { name: /Floor read/ })
    .click();
  await page.getByPlaceholder("Bay 1").fill("Bay 1");
  await button(page, "Keep it").click();
  await expect(page.getByText(/Kept for Bay 1/)).toBeVisible();
});

for (const way of ["Four tapes", "Wheel panels", "Floor marks", "Camera rig"])
  test(`a plain job by ${way}`, async ({ page }) => {
    test.setTimeout(200_000);
    await countHands(page);
    await page.goto(`${shop.url}/sign-in`);
    await button(page, "Ines Tarbet").click();
    await page.getByLabel("PIN", { exact: true }).focus();
    await type(page, "481526");
    await button(page, "Sign in").click();
    await expect(page.getByRole("heading", { name: "Jobs" })).toBeVisible();
    await page
      .getByRole("link", { name: /Take in/ })
      .first()
      .click();
    await page.waitForURL(/take-in$/);
    await expect(page.getByLabel("VIN", { exact: true })).toBeEnabled();
    await byStandIn(page, async () => {
      await page.keyboard.type(VIN, { delay: 0 });
      await page.keyboard.press("Enter");
    });
    await expect(page.getByLabel("VIN", { exact: true })).toHaveValue(VIN);
    await button(page, "Same customer").click();
    await button(page, "Windshield taken out or replaced").click();
    await button(page, "Open the job").click();
    await page.waitForURL(/jobs\/[^/]+\/take-in$/);
    const job = page.url().replace(/\/take-in$/, "");
    await awake(page);
    for (let n = 0; n < 60; n++) {
      const stage = page.url().split("/").at(-1)!;
      const words = await nextBar(page).innerText();
      console.log(stage, "|", words.replaceAll("\n", " / "));
      const link = nextBar(page).getByRole("link", { name: /^\d / });
      if (await link.isVisible()) {
        const to = (await link.getAttribute("href"))!;
        if (to.endsWith("set-out")) break;
        await link.click();
        await page.waitForURL(`**${to}`);
        await awake(page);
        continue;
      }
      if (stage === "ready") {
        await answerAll(page);
        continue;
      }
      break;
    }
    console.log(await page.getByRole("main").innerText());
    console.log(await counted(page));
  });
