import { existsSync } from "node:fs";
import { chromium, type Page } from "@playwright/test";
import { openJob, readAt, signIn } from "@/e2e/support/hands";
import { openShop } from "@/e2e/support/shop";

/** Collects what keeps the main thread busy for 50 ms or more, as the browser itself reports it. */
const watch = async (page: Page): Promise<void> =>
  void (await page.addInitScript(() => {
    const long: number[] = [];
    Object.assign(window, { long });
    new PerformanceObserver((list) =>
      long.push(...list.getEntries().map((e) => e.duration)),
    ).observe({
      type: "longtask",
    });
  }));
/** The long tasks since the last call. */
const longTasks = (page: Page): Promise<number[]> =>
  page.evaluate(() => (window as unknown as { long: number[] }).long.splice(0));

/**
 * The page while it works: long tasks of the main thread in the built product, in headless
 * Chromium.
 */
export async function pages(): Promise<void> {
  if (!existsSync(".next/BUILD_ID")) return console.log("page: not built; run npm run build first");
  const shop = await openShop({ jobs: true, baySeed: "bench" });
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
  });
  try {
    const page = await (
      await browser.newContext({ viewport: { width: 1280, height: 800 } })
    ).newPage();
    await watch(page);
    await signIn(page, shop.url, "ines");
    const job = await openJob(page, shop.url, "HQ 55 HIR");
    await page.goto(`${job}/set-out`);
    await page.locator("[data-verdict]").waitFor();
    await page.waitForTimeout(1000);
    await longTasks(page);
    const tell = async (what: string): Promise<void> => {
      await page.waitForTimeout(500);
      const tasks = await longTasks(page);
      console.log(
        `  ${what.padEnd(41)}${tasks.length === 0 ? "none of 50 ms or more" : `${tasks.length}, longest ${Math.max(...tasks).toFixed(0)} ms`}`,
      );
    };
    console.log("page: tasks of the main thread");
    for (const slot of ["tape-rl-l", "tape-rr-r"]) await readAt(page, slot);
    await tell("two readings: solve, judge, rank, redraw");
    await page.getByRole("main").getByRole("button", { name: "Road", exact: true }).click();
    await page.getByRole("img", { name: /The road from the camera/ }).waitFor();
    await tell("road: 20 000 boards in the worker");
    await page.keyboard.press("Escape");
    await page.keyboard.press("w");
    await page
      .getByRole("dialog")
      .getByText(/readings, /)
      .first()
      .waitFor();
    await tell("ways: every way's mark-out and chance");

    await page.goto(shop.url);
    const seams = await openJob(page, shop.url, "HQ 26 SEA", "/prove");
    await page.waitForTimeout(1000);
    await longTasks(page);
    await page
      .getByRole("main")
      .getByRole("button", { name: /Floor lines run through/ })
      .click();
    await page.getByRole("img", { name: "The joined picture" }).waitFor();
    await page.locator("canvas[data-drawn]").first().waitFor();
    await page.getByRole("region", { name: "What may be behind it" }).waitFor();
    await tell("seams: picture and causes in the worker");
    await page.getByRole("button", { name: "Seam rear left" }).click();
    await tell("seams: another corner, looked at closely");
    await page.goto(`${seams}/set-out`);
    await page.waitForTimeout(1000);
    await longTasks(page);
    await page.getByRole("main").getByRole("button", { name: "Seams", exact: true }).click();
    await page.getByText("Nineteen times in twenty").waitFor();
    await tell("seams: what the mats would make of it");

    await page.goto(shop.url);
    await openJob(page, shop.url, "HQ 44 ARM", "/run");
    await page.locator("[data-cross]").first().waitFor();
    await tell("aim: opened, display drawn, steps advised");
  } finally {
    await browser.close();
    await shop.close();
  }
}
