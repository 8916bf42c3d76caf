import { expect, test, type BrowserContext, type Page } from "@playwright/test";
import type { JobEvent } from "@/core/job";
import { madeUpVin } from "@/demo/data/vehicles";
import { PEOPLE } from "@/demo/data/kit";
import { catcher, nextBar, signIn, takeIn } from "./support/hands";
import { openShop, type Shop } from "./support/shop";

let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ baySeed: "outbox" })));
test.afterAll(() => shop.close());

const LINES = 150;
const REFUSED = 75;
const value = (n: number): string => (2870 + n / 100).toFixed(2);

/** What the shop has of a job's readings: who typed what, in the log's own order. */
async function readings(
  page: Page,
  job: string,
): Promise<{ typed: string; by: string; id: string }[]> {
  const answer = await page.request.get(
    `${shop.url}/api/jobs/${job.split("/").at(-1)}/events?after=0`,
  );
  const { events } = (await answer.json()) as { events: JobEvent[] };
  return events.flatMap((e) =>
    e.body.kind === "reading" ? [{ typed: e.body.typed, by: e.by.id, id: e.id }] : [],
  );
}

/** Types one reading at the same place again. */
async function type(page: Page, text: string): Promise<void> {
  await page.locator('[data-slot="tape-fl-l"]').click();
  await catcher(page).fill(text);
  await catcher(page).press("Enter");
  await expect(catcher(page)).not.toHaveValue(text);
}

const signOut = async (page: Page): Promise<void> => {
  await page.goto(`${shop.url}/`);
  await page.getByRole("button", { name: "Sign out" }).click();
  await page.waitForURL(/sign-in/);
};
const pinOf = (id: string): string => PEOPLE.find((p) => p.id === id)!.pin;

/** The tablet's clock can be set wrong, as a hand does it. */
const clockThatCanBeWrong = (context: BrowserContext): Promise<unknown> =>
  context.addInitScript(() => {
    const shop = window as unknown as { clockAheadMs: number };
    shop.clockAheadMs = 0;
    const Real = Date;
    class Shifted extends Real {
      constructor(...args: [] | [number | string]) {
        if (args.length === 0) super(Real.now() + shop.clockAheadMs);
        else super(args[0]);
      }
      static override now = (): number => Real.now() + shop.clockAheadMs;
    }
    window.Date = Shifted as unknown as DateConstructor;
  });

test("150 lines written while the shop is silent arrive once, in order, under their author's name; one that is refused stays", async ({
  browser,
}) => {
  const context = await browser.newContext();
  await clockThatCanBeWrong(context);
  const page = await context.newPage();
  await signIn(page, shop.url, "ines");
  const job = await takeIn(page, shop.url, madeUpVin("0NVLS2DA7R100452"), "Long Silence");
  const second = await context.newPage();
  await second.goto(`${job}/set-out`);

  // The shop does not take anything any more; two tabs of one job write into one queue.
  await context.route("**/api/jobs/*/events", (r) =>
    r.request().method() === "POST" ? r.abort() : r.continue(),
  );
  const ahead = (ms: number) =>
    page.evaluate(
      (by) => void ((window as unknown as { clockAheadMs: number }).clockAheadMs = by),
      ms,
    );
  await page.bringToFront();
  for (let n = 1; n <= LINES - 5; n++) {
    if (n === REFUSED) await ahead(86_400_000);
    await type(page, value(n));
    if (n === REFUSED) await ahead(0);
  }
  await expect(second.getByRole("status").first()).toContainText(
    `${LINES - 5} kept here, not sent`,
    {
      timeout: 15_000,
    },
  );
  await second.bringToFront();
  for (let n = LINES - 4; n <= LINES; n++) await type(second, value(n));
  await expect(page.getByRole("status").first()).toContainText(`${LINES} kept here, not sent`, {
    timeout: 15_000,
  });
  expect(await readings(page, job)).toEqual([]);
  await second.close();
  await page.bringToFront();

  // A colleague signs in on the tablet. Her lines wait for her, or go with her PIN: never under his
  // name.
  await signOut(page);
  await signIn(page, shop.url, "oskar");
  await expect(page.getByRole("listitem").filter({ hasText: "Long Silence" })).toContainText(
    `${LINES} kept here, not sent`,
  );
  await page.goto(`${job}/set-out`);
  const kept = page.getByRole("alert", { name: "Kept on this tablet" });
  await expect(kept).toContainText(`${LINES} lines of Ines Tarbet wait here.`);
  await context.unroute("**/api/jobs/*/events");
  await page.waitForTimeout(3000);
  expect(await readings(page, job)).toEqual([]);
  await kept.getByRole("button", { name: "Look" }).click();
  const hers = page.getByRole("region", { name: "Ines Tarbet" });
  const pin = hers.getByLabel(/PIN of Ines Tarbet/);
  await pin.fill("000000");
  await hers.getByRole("button", { name: "Send them" }).click();
  await expect(hers).toContainText("That PIN is not right.");
  await pin.fill(pinOf("ines"));
  await hers.getByRole("button", { name: "Send them" }).click();
  await expect(hers).toContainText("1 line of Ines Tarbet", { timeout: 20_000 });
  await expect(hers).toContainText("is still to come. Set the tablet’s clock right.");
  const all = Array.from({ length: LINES }, (_, i) => value(i + 1));
  const arrived = await readings(page, job);
  expect(arrived.map((r) => r.typed)).toEqual(all.filter((v) => v !== value(REFUSED)));
  expect(new Set(arrived.map((r) => r.by))).toEqual(new Set(["ines"]));
  expect(new Set(arrived.map((r) => r.id)).size).toBe(LINES - 1);

  // She comes back: the refused line is there with its reason, is typed again, and is the last to
  // arrive.
  await page.keyboard.press("Escape");
  await signOut(page);
  await signIn(page, shop.url, "ines");
  await page.goto(`${job}/set-out`);
  await expect(kept).toContainText("1 line refused by the shop.");
  await page.reload();
  await kept.getByRole("button", { name: "Look" }).click();
  await page.getByLabel("Typed again").fill(value(REFUSED));
  await page.getByRole("button", { name: "Send it so" }).click();
  await expect(kept).toBeHidden({ timeout: 10_000 });
  await expect
    .poll(async () => (await readings(page, job)).at(-1))
    .toMatchObject({ typed: value(REFUSED), by: "ines" });
  expect(await readings(page, job)).toHaveLength(LINES);
  await expect(nextBar(page)).toBeVisible();
  await context.close();
});
