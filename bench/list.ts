import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { chromium } from "@playwright/test";
import { inShop, makeShop, mustServe, TOKEN } from "@/scripts/soak/house";
import { years } from "./shop";

const JOBS = 500;

/**
 * The jobs list with {@link JOBS} jobs: from a touch or a key to the next paint, as the browser
 * itself reports it, in headless Chromium.
 */
export async function list(): Promise<void> {
  if (!existsSync(".next/BUILD_ID")) return console.log("list: not built; run npm run build first");
  const folder = mkdtempSync(path.join(tmpdir(), "iridel-list-"));
  const file = path.join(folder, "shop.sqlite");
  await makeShop(file, true);
  await inShop(file, () => years(JOBS));
  const server = await mustServe(file);
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
  });
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    await context.addCookies([{ name: "iridel_session", value: TOKEN, url: server.url }]);
    const page = await context.newPage();
    await page.addInitScript(() => {
      const paints: number[] = [];
      Object.assign(window, { paints });
      const kinds = new Set(["keydown", "keyup", "pointerdown", "pointerup", "click"]);
      new PerformanceObserver((l) =>
        paints.push(...l.getEntries().flatMap((e) => (kinds.has(e.name) ? [e.duration] : []))),
      ).observe({ type: "event", durationThreshold: 16 } as PerformanceObserverInit);
    });
    await page.goto(server.url);
    await page.getByRole("heading", { name: "Jobs" }).waitFor();
    await page.waitForTimeout(1500);
    const tell = async (what: string): Promise<void> => {
      await page.waitForTimeout(800);
      const paints = await page.evaluate(() =>
        (window as unknown as { paints: number[] }).paints.splice(0),
      );
      const longest = paints.length === 0 ? "under 16 ms" : `longest ${Math.max(...paints)} ms`;
      console.log(`  ${what.padEnd(41)}${longest}`);
    };
    console.log(`jobs list, ${JOBS} jobs: from touch or key to the next paint`);
    for (const name of ["In work", "Handed over", "All"]) {
      await page.getByRole("button", { name: new RegExp(`^${name}`) }).click();
      await tell(`show: ${name.toLowerCase()}`);
    }
    await page.getByRole("searchbox").pressSequentially("quist", { delay: 120 });
    await tell("find: quist, letter by letter");
  } finally {
    await browser.close();
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
