// npm run screenshots: opens the demo shop in Chromium and keeps one picture of each main view in
// docs/screenshots/.
import { execFileSync, spawn } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import process from "node:process";
import { chromium } from "@playwright/test";
import { built, packages, root } from "./ready.mjs";

packages();
built();
const folder = mkdtempSync(path.join(tmpdir(), "iridel-shots-"));
const env = { ...process.env, IRIDEL_DB: path.join(folder, "shop.sqlite"), IRIDEL_DEMO: "1" };
execFileSync("npx", ["tsx", "demo/seed.ts"], { cwd: root, env, stdio: "inherit" });
const url = "http://127.0.0.1:3911";
const server = spawn("npx", ["next", "start", "-p", "3911", "-H", "127.0.0.1"], {
  cwd: root,
  env,
  stdio: "ignore",
  detached: true,
});
for (
  let n = 0;
  n < 100 &&
  !(await fetch(`${url}/sign-in`).then(
    (r) => r.ok,
    () => false,
  ));
  n++
)
  await new Promise((done) => setTimeout(done, 200));

const out = path.join(root, "docs/screenshots");
mkdirSync(out, { recursive: true });
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
  args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
});
const theme = process.argv.includes("--night") ? "night" : "light";
const width = Number(process.argv.find((a) => /^\d+$/.test(a)) ?? 1280);

/** A page on the tablet's size, signed in unless `who` is null. */
async function tablet(who, size = { width, height: width < 800 ? 844 : 800 }, look = theme) {
  const context = await browser.newContext({ viewport: size });
  await context.addCookies([{ name: "iridel_settings", value: `${look}.mm`, url }]);
  const page = await context.newPage();
  if (who) {
    await page.goto(`${url}/sign-in?who=${who.id}`);
    await page.fill("#pin", who.pin);
    await page.click("button[type=submit]");
    await page.waitForURL(`${url}/`);
  }
  return page;
}
const shoot = async (page, name) => {
  await page.waitForTimeout(500);
  await page.screenshot({ path: path.join(out, `${name}.png`) });
  console.log(name);
};
const open = async (page, plate, stage) => {
  await page.goto(url);
  const href = await page
    .getByRole("listitem")
    .filter({ hasText: plate })
    .getByRole("link")
    .getAttribute("href");
  await page.goto(`${url}${href}/${stage}`);
};

try {
  const page = await tablet({ id: "ines", pin: "481526" });
  await page.goto(url);
  await shoot(page, "jobs");
  await page.goto(`${url}/take-in`);
  await page.fill("#vin", "0NVLS2DA57R100419");
  await page.getByRole("button", { name: "Windshield taken out or replaced" }).click();
  await page.getByLabel("Customer", { exact: true }).fill("Isolde Farrow");
  await shoot(page, "take-in");
  for (const [plate, stage, name] of [
    ["HQ 09 TAL", "take-in", "arrival"],
    ["HQ 09 TAL", "owed", "owed"],
    ["HQ 55 HIR", "set-out", "set-out-moving"],
    ["HQ 63 BET", "set-out", "set-out-set"],
    ["HQ 18 TRN", "set-out", "set-out-mats"],
    ["HQ 77 JOR", "run", "run-refused"],
    ["HQ 09 TAL", "hand-over", "hand-over"],
  ]) {
    await open(page, plate, stage);
    await shoot(page, name);
  }
  await open(page, "HQ 02 LCR", "ready");
  await page.getByRole("button", { name: /Body stands as it should/ }).click();
  await page.getByRole("button", { name: "Read all of it (simulated)" }).click();
  await shoot(page, "ready");
  await page.goto(`${url}/day`);
  await page.getByRole("region", { name: "Promises" }).waitFor({ timeout: 60_000 });
  await page.waitForTimeout(2500);
  // Late in the day what is expected is booked for the next one.
  if ((await page.getByText("Wenna Pask").count()) === 0) {
    await page.getByRole("link", { name: "The day after" }).click();
    await page.getByText("Wenna Pask").first().waitFor();
    await page.waitForTimeout(2500);
  }
  await shoot(page, "day");
  await page.goto(`${url}/bays/bay-1`);
  await page.getByRole("button", { name: "Floor", exact: true }).click();
  await page.getByRole("button", { name: "Spot 14", exact: true }).click();
  await shoot(page, "bay");
  await open(page, "HQ 26 SEA", "prove");
  await page
    .getByRole("main")
    .getByRole("button", { name: /Floor lines run through/ })
    .click();
  await page.getByRole("img", { name: "The joined picture" }).waitFor();
  await page.getByRole("region", { name: "What may be behind it" }).waitFor();
  await page.waitForTimeout(1500);
  await shoot(page, "seams");
  await open(page, "HQ 90 MAR", "ready");
  await page
    .getByRole("main")
    .getByRole("button", { name: /Tow vehicle and trailer in line/ })
    .click();
  await shoot(page, "trailer");
  await open(page, "HQ 44 ARM", "run");
  await page.locator("[data-cross]").first().waitFor();
  await shoot(page, "mirror");
  await open(page, "HQ 37 GLN", "drive");
  await page.getByLabel("Who drives").fill("Oskar Veld");
  await page.getByLabel("A hotspot is in the car and on").check();
  await page.getByRole("button", { name: "Cruise control" }).click();
  await page.getByRole("img", { name: "Map of the drive" }).waitFor({ timeout: 60_000 });
  await page
    .getByText("still looking at later hours")
    .waitFor({ state: "detached", timeout: 60_000 });
  await shoot(page, "drive");
  await page.goto(`${url}/numbers`);
  await page.getByRole("region", { name: "What drifts" }).waitFor();
  await page.waitForTimeout(800);
  await shoot(page, "numbers");
  if (width === 1280 && theme === "light") {
    const night = await tablet(
      { id: "oskar", pin: "635172" },
      { width: 1280, height: 800 },
      "night",
    );
    await open(night, "HQ 55 HIR", "set-out");
    await night.getByRole("button", { name: "Road", exact: true }).click();
    await night.getByRole("img", { name: /The road from the camera/ }).waitFor();
    await shoot(night, "road-night");
    const phone = await tablet({ id: "oskar", pin: "635172" }, { width: 390, height: 844 });
    await open(phone, "HQ 55 HIR", "stand");
    await shoot(phone, "stand");
  }
} finally {
  await browser.close();
  process.kill(-server.pid, "SIGKILL");
  rmSync(folder, { recursive: true, force: true });
}
