import AxeBuilder from "@axe-core/playwright";
import { expect, test, type Page } from "@playwright/test";
import { openJob, signIn } from "./support/hands";
import { openShop, type Shop } from "./support/shop";

let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ jobs: true })));
test.afterAll(() => shop.close());

async function clean(page: Page, where: string): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa"]).analyze();
  expect(
    violations.map((v) => `${v.id}: ${v.nodes[0]?.target.join(" ")}`),
    where,
  ).toEqual([]);
  // Nothing sticks out sideways.
  expect(
    await page.evaluate(() => document.documentElement.scrollWidth - innerWidth),
    where,
  ).toBeLessThanOrEqual(0);
}

test("every main view keeps contrast and names its controls, day and night, wide and narrow", async ({
  page,
  context,
}) => {
  await signIn(page, shop.url, "mara");
  const suspect = await openJob(page, shop.url, "HQ 12 WRN");
  await page.goto(shop.url);
  const refused = await openJob(page, shop.url, "HQ 77 JOR");
  await page.goto(shop.url);
  const moving = await openJob(page, shop.url, "HQ 55 HIR");
  // By day on a phone what a technician works on; by night on the tablet every view there is, and
  // the dialogs of Set out.
  const atWork = [
    shop.url,
    `${shop.url}/take-in`,
    `${suspect}/take-in`,
    `${suspect}/set-out`,
    `${refused}/run`,
    `${suspect}/ready`,
    `${suspect}/stand`,
    `${shop.url}/kit`,
  ];
  const everywhere = [
    ...atWork,
    `${shop.url}/sheets`,
    `${shop.url}/sheets/tarn-forward`,
    `${shop.url}/vehicles/norvane-lisse`,
    `${shop.url}/settings`,
    `${shop.url}/day`,
    `${shop.url}/bays/bay-1`,
    `${shop.url}/wall`,
    `${shop.url}/people`,
    `${suspect}/owed`,
    `${suspect}/hand-over`,
  ];
  for (const [theme, width] of [
    ["light", 390],
    ["night", 1280],
  ] as const) {
    await context.addCookies([{ name: "iridel_settings", value: `${theme}.mm`, url: shop.url }]);
    await page.setViewportSize({ width, height: 800 });
    for (const path of theme === "night" ? everywhere : atWork) {
      await page.goto(path);
      await expect(page.getByRole("main")).toBeVisible();
      await clean(page, `${path} ${theme} ${width}`);
    }
    if (theme === "light") continue;
    await page.goto(`${moving}/set-out`);
    for (const [name, there] of [
      [/^Four tapes/, /chance|%/],
      ["Lines", "centreline"],
      ["Road", "What buys most"],
      ["Phone", /join/i],
      [/^Touched/, "Knocked"],
    ] as const) {
      const opener = page
        .getByRole("main")
        .getByRole("button", { name, ...(typeof name === "string" ? { exact: true } : {}) });
      await opener.click();
      await expect(page.getByRole("dialog")).toContainText(there);
      await clean(page, `${String(name)} ${theme} ${width}`);
      await page.keyboard.press("Escape");
      await expect(opener).toBeFocused();
    }
  }
});
