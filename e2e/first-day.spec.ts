import { expect, test, type Page } from "@playwright/test";
import { EXAMPLE_VIN } from "@/demo/data/examples";
import { followToSet, takeIn } from "./support/hands";
import { openShop, type Shop } from "./support/shop";

let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ empty: true, baySeed: "first-day" })));
test.afterAll(() => shop.close());

const PINS = { lea: "270419", tam: "481527" };
const example = (name: string): string => `public/examples/${name}.json`;
const steps = (page: Page) => page.getByRole("region", { name: "First steps" });
const setUp = async (page: Page, of: string): Promise<void> => {
  await page.getByRole("link", { name: "Jobs", exact: true }).click();
  await expect(steps(page)).toContainText(of);
};

/** Opens the one draft of a book that waits, and signs it. */
async function sign(page: Page, book: string, draft: RegExp): Promise<void> {
  await page.getByRole("link", { name: book, exact: true }).click();
  await page.getByRole("region", { name: "Drafts" }).getByRole("link", { name: draft }).click();
  await page.getByRole("button", { name: "I have checked it" }).click();
  await expect(page).not.toHaveURL(/drafts/);
}

test("an empty shop, from its first page to its first settled board, with the example files", async ({
  page,
  browser,
}) => {
  await page.goto(shop.url);
  await page.getByLabel("Your name").fill("Lea Voss");
  await page.getByLabel("Initials").fill("LV");
  await page.getByLabel("PIN, six figures or more").fill(PINS.lea);
  await page.getByLabel("The same again").fill(PINS.lea);
  await page.getByRole("button", { name: "Open the shop" }).click();
  await expect(steps(page)).toContainText("0 of 8");
  await expect(steps(page)).toContainText("Without a rule book nothing is ever owed");

  // The clock, and the rules from their example.
  await steps(page).getByRole("link", { name: "Go there" }).first().click();
  await page.getByLabel("Time zone of the shop").fill("Pacific/Auckland");
  await page.getByRole("button", { name: "Set the clock" }).click();
  await expect(page.getByRole("button", { name: "Set the clock" })).toHaveCount(0);
  await page.getByLabel("rule book file").setInputFiles(example("kit"));
  await expect(page.getByRole("main").getByRole("alert").filter({ hasText: "rule" })).toBeVisible();
  await page.getByLabel("rule book file").setInputFiles(example("rule-book"));
  await expect(page.getByText("to be checked against your source").first()).toBeVisible();
  await setUp(page, "2 of 8");

  await page.getByRole("link", { name: "People", exact: true }).click();
  await page.getByRole("button", { name: "Enter somebody" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Tam Orrin");
  await page.getByLabel("PIN, six figures or more").fill(PINS.tam);
  await page.getByLabel("The same again").fill(PINS.tam);
  await page.getByRole("button", { name: "Enter", exact: true }).click();
  await expect(page.getByRole("row").filter({ hasText: "Tam Orrin" })).toBeVisible();

  await page.getByRole("link", { name: "Kit", exact: true }).click();
  await page.getByLabel("kit file").setInputFiles(example("sheet"));
  await expect(page.getByRole("alert").filter({ hasText: "format" })).toContainText(
    'must be "iridel.kit/1"',
  );
  await page.getByLabel("kit file").setInputFiles(example("kit"));
  const tape = page.getByRole("row").filter({ hasText: "T-3" });
  await expect(tape).toContainText("check overdue");
  await tape.getByRole("button", { name: "Checked today" }).click();
  await page.getByRole("dialog").getByRole("textbox").fill("the wall scale");
  await page.getByRole("dialog").getByRole("button", { name: "It was checked" }).click();
  await expect(tape).not.toContainText("check overdue");
  await setUp(page, "5 of 8");

  // Vehicle and sheet are drafts of the lead's: somebody else signs them.
  for (const [book, file, at] of [
    ["Vehicles", "vehicle", /vehicles\/drafts/],
    ["Sheets", "sheet", /sheets\/drafts/],
  ] as const) {
    await page.getByRole("link", { name: book, exact: true }).click();
    await page.getByLabel(`${file} file`).setInputFiles(example(file));
    await page.waitForURL(at);
  }
  await setUp(page, "5 of 8");
  const tam = await (await browser.newContext()).newPage();
  await tam.goto(shop.url);
  await tam.getByRole("button", { name: "Tam Orrin" }).click();
  await tam.getByLabel("PIN", { exact: true }).fill(PINS.tam);
  await tam.getByRole("button", { name: "Sign in" }).click();
  await sign(tam, "Vehicles", /Example Hatch/);
  await sign(tam, "Sheets", /EXAMPLE, forward camera/);
  await setUp(tam, "7 of 8");

  await takeIn(tam, shop.url, EXAMPLE_VIN, "Wen");
  await followToSet(tam);
  await tam.getByRole("link", { name: "All jobs" }).click();
  await expect(tam.getByText("EX").or(tam.getByText("Wen")).first()).toBeVisible();
  await expect(steps(tam)).toHaveCount(0);
});
