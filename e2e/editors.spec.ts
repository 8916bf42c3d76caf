import { expect, test, type Locator, type Page } from "@playwright/test";
import { awake, signIn } from "./support/hands";
import { openShop, type Shop } from "./support/shop";

// The editors of the shop, each by the keyboard alone: a mistake with its message where it was made,
// the last change taken back, a reload in the middle that loses nothing.

let shop: Shop;
test.beforeAll(async () => void (shop = await openShop()));
test.afterAll(() => shop.close());
test.beforeEach(async ({ page }) => signIn(page, shop.url, "mara"));

/** Goes there by Tab, as somebody without a mouse does. */
async function reach(page: Page, what: Locator): Promise<void> {
  for (let n = 0; n < 150; n++) {
    if (await what.evaluate((e) => e === document.activeElement)) return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`The keyboard does not come to ${String(what)}.`);
}
const press = async (page: Page, what: Locator, key = "Enter"): Promise<void> => {
  await reach(page, what);
  await page.keyboard.press(key);
};
/** Types on a line that is reached by Tab, in place of what stands there. */
const type = async (page: Page, what: Locator, text: string): Promise<void> => {
  await reach(page, what);
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type(text);
};
const button = (in_: Page | Locator, name: string | RegExp): Locator =>
  in_.getByRole("button", { name, exact: typeof name === "string" });

test("kit: volts are no length; what was typed outlives a reload and is put into the kit", async ({
  page,
}) => {
  const open = async (): Promise<Locator> => {
    await page.goto(`${shop.url}/kit`);
    await awake(page);
    await press(page, button(page, "New in Instruments"));
    return page.getByRole("dialog");
  };
  let dialog = await open();
  await type(page, dialog.getByLabel("Number"), "T-9");
  await type(page, dialog.getByLabel("Name", { exact: true }), "Steel tape 9");
  const sigma = (): Locator => dialog.getByLabel("Standard uncertainty", { exact: true });
  await type(page, sigma(), "1 V");
  await expect(
    dialog.getByText("This is a length, not volts; use mm, cm, m, in, ft."),
  ).toBeVisible();
  await type(page, sigma(), "0.8");
  await press(page, button(dialog, "Tape"), "Space");
  await press(page, button(dialog, "Laser"), "Space");
  await press(page, button(dialog, "Undo"));
  const chosen = (name: string) => expect(button(dialog, name));
  await chosen("Tape").toHaveAttribute("aria-pressed", "true");
  await chosen("Laser").toHaveAttribute("aria-pressed", "false");
  dialog = await open();
  await expect(dialog.getByRole("status")).toHaveText("What was typed here before is here again.");
  await expect(sigma()).toHaveValue("0.8");
  await type(page, dialog.getByLabel("and more for each metre"), "0.2");
  await type(page, dialog.getByLabel("Standard uncertainty of an angle"), "0");
  await type(page, dialog.getByLabel("A check is good for"), "1 m");
  await expect(dialog.getByText(/This is a time, not metres/)).toBeVisible();
  await type(page, dialog.getByLabel("A check is good for"), "90");
  await press(page, button(dialog, "Put it into the kit"));
  await expect(page.getByRole("row").filter({ hasText: "T-9" })).toContainText("Steel tape 9");
  dialog = await open();
  await expect(dialog.getByLabel("Number")).toHaveValue("");
});

test("rules: one without a sentence is refused by name, kept over a reload, then written", async ({
  page,
}) => {
  const open = async (): Promise<Locator> => {
    await page.goto(`${shop.url}/settings`);
    await awake(page);
    await press(page, button(page, "New rule"));
    return page.getByRole("dialog");
  };
  let dialog = await open();
  await type(page, dialog.getByLabel(/^Name of the rule/), "keyboard-rule");
  await press(page, button(dialog, "Grille taken off or replaced"), "Space");
  await press(page, button(dialog, "Bumper taken off or replaced"), "Space");
  await press(page, button(dialog, "Undo"));
  await expect(button(dialog, "Bumper taken off or replaced")).toHaveAttribute(
    "aria-pressed",
    "false",
  );
  await press(page, button(dialog, "Front radar"), "Space");
  await press(page, button(dialog, "Keep it"));
  await expect(dialog.getByRole("alert")).toContainText('rule "keyboard-rule", reason');
  dialog = await open();
  await expect(button(dialog, "Grille taken off or replaced")).toHaveAttribute(
    "aria-pressed",
    "true",
  );
  await type(page, dialog.getByLabel(/^Because/), "The grille holds the radar.");
  await type(page, dialog.getByLabel(/^Source/), "Keyboard, page 1");
  await press(page, button(dialog, "Keep it"));
  await expect(page.getByText("The grille holds the radar.")).toBeVisible();
});

test("people: a name typed before a reload is here again, a PIN is not", async ({ page }) => {
  const open = async (): Promise<Locator> => {
    await page.goto(`${shop.url}/people`);
    await awake(page);
    await press(page, button(page, "Enter somebody"));
    return page.getByRole("dialog");
  };
  let dialog = await open();
  const pins = async (pin: string): Promise<void> => {
    await type(page, dialog.getByLabel("PIN, six figures or more"), pin);
    await type(page, dialog.getByLabel("The same again"), pin);
  };
  await type(page, dialog.getByLabel("Name", { exact: true }), "Kit Barrow");
  await press(page, button(dialog, /^Viewer/), "Space");
  await press(page, button(dialog, "Undo"));
  await pins("111111");
  await press(page, button(dialog, "Enter"));
  await expect(dialog.getByRole("alert")).toContainText("PIN");
  dialog = await open();
  await expect(dialog.getByLabel("Name", { exact: true })).toHaveValue("Kit Barrow");
  await expect(dialog.getByLabel("PIN, six figures or more")).toHaveValue("");
  await pins("481953");
  await press(page, button(dialog, "Enter"));
  await expect(page.getByRole("row").filter({ hasText: "Kit Barrow" })).toContainText(
    "works on jobs",
  );
});

for (const [book, noun, field, wrong, right] of [
  ["vehicles", "vehicle", "Wheelbase", "2.6 bar", "2610"],
  ["sheets", "sheet", "Ahead", "5 h", "2860"],
] as const)
  test(`${book}: a figure of another kind is refused at its field; a draft outlives a reload`, async ({
    page,
  }) => {
    await page.goto(`${shop.url}/${book}`);
    await awake(page);
    await press(page, button(page, `New ${noun}`));
    await page.waitForURL(/drafts/);
    await awake(page);
    const line = page.getByLabel(field, { exact: true });
    await type(page, line, wrong);
    await expect(page.getByText(/^This is a length, not (bar|hours); use/)).toBeVisible();
    await type(page, line, right);
    await expect(page.getByText(/· kept$/)).toBeVisible();
    await page.reload();
    await awake(page);
    await expect(line).toHaveValue(right);
    await type(page, line, "1");
    await press(page, button(page, "Undo"));
    await expect(line).toHaveValue(right);
    await expect(page.getByText(/· kept$/)).toBeVisible();
    await page.reload();
    await expect(line).toHaveValue(right);
  });
