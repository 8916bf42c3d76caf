import { gzipSync } from "node:zlib";
import AxeBuilder from "@axe-core/playwright";
import { expect, test, type Page } from "@playwright/test";
import { catcher, nextBar, signIn, slip } from "./support/hands";
import { openShop, type Shop } from "./support/shop";

let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ jobs: true })));
test.afterAll(() => shop.close());

/** Opens the demo job whose ticket holds these words; answers with its address. */
async function openJob(page: Page, words: string, stage = ""): Promise<string> {
  const href = await page.getByRole("listitem").filter({ hasText: words }).getByRole("link").getAttribute("href");
  await page.goto(`${shop.url}${href}${stage}`);
  return `${shop.url}${href}`;
}

test("the jobs list finds, filters and says what each job lacks", async ({ page }) => {
  await signIn(page, shop.url, "ines");
  const tickets = page.getByRole("listitem");
  await expect(tickets).toHaveCount(8);
  await expect(tickets.filter({ hasText: "HQ 12 WRN" })).toContainText("A reading does not fit");
  await expect(tickets.filter({ hasText: "HQ 55 HIR" })).toContainText("The board has to be moved");
  await page.keyboard.press("/");
  await page.keyboard.type("skerry harrow");
  await expect(tickets).toHaveCount(1);
  await page.getByRole("searchbox").fill("no such car");
  await page.getByRole("button", { name: "Show all jobs" }).click();
  await page.getByRole("button", { name: /^Refused/ }).click();
  await expect(tickets).toHaveCount(1);
  await expect(tickets).toContainText("Vehicle refused");
  await tickets.getByRole("link").click();
  await expect(page).toHaveURL(/\/run$/);
  await expect(page.getByRole("region", { name: "Result" })).toContainText("stands too far");
});

test("a wrong PIN waits longer each time, a viewer writes nothing, a stranger sees nothing", async ({ page }) => {
  await page.goto(`${shop.url}/sign-in?who=ruan`);
  const pin = page.getByLabel("PIN", { exact: true });
  const answer = page.getByRole("alert").filter({ hasText: /PIN/ });
  for (const expected of ["That PIN is not right.", "That PIN is not right.", "Wait 5 s before the next try."]) {
    await pin.fill("000000");
    await page.getByRole("button", { name: "Sign in" }).click();
    await expect(answer).toContainText(expected);
  }
  await pin.fill("904413");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(answer).toContainText(/Too many wrong PINs. Try again in \d+ s/);
  for (const path of ["/", "/take-in", "/jobs/x/set-out"]) {
    await page.goto(shop.url + path);
    await expect(page).toHaveURL(/\/sign-in/);
  }
  for (const path of ["events", "run"])
    expect((await page.request.post(`${shop.url}/api/jobs/x/${path}`, { data: {} })).status()).toBe(401);

  await page.waitForTimeout(5000);
  await signIn(page, shop.url, "ruan");
  const cookie = (await page.context().cookies()).find((c) => c.name === "iridel_session")!;
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: "Strict" });
  await expect(page.getByRole("link", { name: "Take in a vehicle" })).toBeHidden();
  const job = await openJob(page, "HQ 12 WRN", "/set-out");
  await expect(nextBar(page)).toContainText("You may look; a technician takes the reading.");
  const id = job.split("/").at(-1);
  const touch = { id: "forged-touch", takenAt: new Date().toISOString(), body: { kind: "touch", touch: "knocked" } };
  for (const [path, data] of [
    ["events", { baseSeq: 0, events: [touch] }],
    ["run", { after: 0, command: { type: "connect" } }],
  ] as const)
    // prettier-ignore
    expect((await page.request.post(`${shop.url}/api/jobs/${id}/${path}`, { data })).status()).toBe(403);
  await expect(slip(page)).not.toContainText("Touched");
});

test("the bench answers keys, questions impossible values, and redraws before the shop has heard", async ({
  page,
  context,
}) => {
  await signIn(page, shop.url, "oskar");
  await openJob(page, "HQ 30 SKF", "/set-out");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
  await page.keyboard.press("Escape");

  // Metres for millimetres: questioned at once, with the likely meaning.
  await page.locator('[data-slot="tape-fl-r"]').click();
  await catcher(page).fill("2.871");
  await page.keyboard.press("Enter");
  await expect(nextBar(page).getByRole("alert")).toContainText("cannot be 3 mm");
  await expect(page.getByRole("button", { name: /Take it as 2.871 metres: 2.871 mm/ })).toBeVisible();
  await catcher(page).fill("");

  // A scanner's burst is a code, not a measurement.
  await page.keyboard.type("HQ-22", { delay: 0 });
  await page.keyboard.press("Enter");
  await expect(page.getByText("Code HQ-22: this is the board the sheet asks for.")).toBeVisible();

  // With the shop cut off, the verdict and the floor change within the frame that follows the typed reading.
  await context.setOffline(true);
  await catcher(page).fill("3511");
  await page.evaluate(() => {
    const floor = document.querySelector("svg[role=img]")!;
    const seen = { before: floor.innerHTML, next: "" };
    Object.assign(window, { seen });
    addEventListener("submit", () => requestAnimationFrame(() => (seen.next = floor.innerHTML)), { once: true });
  });
  await page.keyboard.press("Enter");
  await expect(page.getByText("1 kept here, not sent")).toBeVisible();
  const { before, next } = await page.evaluate(
    () => (window as unknown as { seen: { before: string; next: string } }).seen,
  );
  expect(next).not.toBe("");
  expect(next).not.toBe(before);
  await page.keyboard.press("u");
  await expect(slip(page)).toContainText("Undone");
  await context.setOffline(false);
  await expect(page.getByText("All kept")).toBeVisible({ timeout: 15_000 });

  await page.keyboard.press("t");
  await expect(page.getByRole("dialog", { name: "What was touched?" })).toBeVisible();
  await page.keyboard.press("Escape");
  await page.keyboard.press("Alt+2");
  await expect(page).toHaveURL(/\/owed$/);
  await page.keyboard.press("3");
  await expect(page).toHaveURL(/\/ready$/);
});

test("the first load of the bench ships under 250 kB of compressed script", async ({ page }) => {
  await signIn(page, shop.url, "oskar");
  const href = await page.getByRole("listitem").filter({ hasText: "HQ 12 WRN" }).getByRole("link").getAttribute("href");
  const bodies: Promise<number>[] = [];
  page.on("response", (r) => {
    if (r.request().resourceType() === "script") bodies.push(r.body().then((b) => gzipSync(b).length, () => 0)); // prettier-ignore
  });
  await page.goto(`${shop.url}${href}/set-out`, { waitUntil: "networkidle" });
  const total = (await Promise.all(bodies)).reduce((a, b) => a + b, 0);
  console.log(`bench script, compressed: ${(total / 1000).toFixed(0)} kB in ${bodies.length} files`);
  expect(bodies.length).toBeGreaterThan(3);
  expect(total).toBeLessThan(250_000);
});

test("every main view keeps contrast and names its controls, day and night, wide and narrow", async ({ page, context }) => {
  await signIn(page, shop.url, "mara");
  const suspect = await openJob(page, "HQ 12 WRN");
  await page.goto(shop.url);
  const refused = await openJob(page, "HQ 77 JOR");
  for (const [theme, width] of [["light", 390], ["night", 1280]] as const) {
    await context.addCookies([{ name: "iridel_settings", value: `${theme}.mm`, url: shop.url }]);
    await page.setViewportSize({ width, height: 800 });
    for (const path of [shop.url, `${shop.url}/take-in`, `${shop.url}/sheets`, `${shop.url}/sheets/tarn-forward`, `${shop.url}/kit`, `${suspect}/take-in`, `${suspect}/owed`, `${suspect}/set-out`, `${refused}/run`, `${suspect}/ready`, `${suspect}/hand-over`]) {
      await page.goto(path);
      await expect(page.getByRole("main")).toBeVisible();
      const { violations } = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa"]).analyze();
      expect(violations.map((v) => `${v.id}: ${v.nodes[0]?.target.join(" ")}`), `${path} ${theme} ${width}`).toEqual([]);
      // Nothing sticks out sideways.
      expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0);
    }
  }
}); // prettier-ignore
