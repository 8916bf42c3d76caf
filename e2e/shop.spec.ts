import { gzipSync } from "node:zlib";
import { expect, test, type Page, type Response } from "@playwright/test";
import { catcher, nextBar, openJob, signIn, slip } from "./support/hands";
import { openShop, type Shop } from "./support/shop";

let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ jobs: true })));
test.afterAll(() => shop.close());

test("the jobs list finds, filters and says what each job lacks", async ({ page }) => {
  await signIn(page, shop.url, "ines");
  const tickets = page.getByRole("listitem");
  await expect(tickets).toHaveCount(14);
  // Of three calibrations the list names the one that waits, and for what.
  await expect(tickets.filter({ hasText: "HQ 18 TRN" })).toContainText("right mat has to be drawn");
  await expect(tickets.filter({ hasText: "HQ 12 WRN" })).toContainText("A reading does not fit");
  await expect(tickets.filter({ hasText: "HQ 55 HIR" })).toContainText("The board has to be moved");
  await page.getByLabel("Order of the list").selectOption("Newest job first");
  const numbers = async (): Promise<number[]> =>
    (await tickets.allInnerTexts()).map((t) => Number(/^\d+/.exec(t)![0]));
  await expect.poll(numbers).toEqual((await numbers()).toSorted((a, b) => b - a));
  await page.getByLabel("Order of the list").selectOption("Promised soonest first");
  await expect(tickets.first()).toContainText("Promised for");
  await page.getByRole("searchbox").fill("skerry harrow");
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

test("under the slash: a job, a piece of kit, a stage, a page; lists sort and put columns away, and stay so", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  await openJob(page, shop.url, "HQ 12 WRN", "/set-out");
  const box = page.getByRole("dialog", { name: "Find or go to" });
  const find = async (text: string, choice: RegExp): Promise<void> => {
    await expect(async () => {
      // Once it is on its way a second slash would be typed into it.
      if (!(await box.isVisible())) await page.keyboard.press("/");
      await expect(box.getByRole("combobox")).toBeFocused({ timeout: 1000 });
    }).toPass();
    await page.keyboard.type(text);
    await expect(box.getByRole("option", { name: choice })).toHaveAttribute(
      "aria-selected",
      "true",
    );
    await page.keyboard.press("Enter");
  };
  await find("prov", /Prove/);
  await page.waitForURL(/\/prove$/);
  await find("hq 55 hir", /HQ 55 HIR/);
  await page.waitForURL(/\/jobs\/[^/]+\/set-out$/);
  await find("t-3", /T-3/);
  await page.waitForURL(/\/kit\?find=T-3$/);
  await expect(page.getByRole("row").filter({ hasText: "T-3" })).toBeVisible();
  await expect(page.getByRole("region", { name: "Stands" })).toHaveCount(0);

  await find("vehi", /^Vehicles/);
  const table = page.getByRole("table", { name: "Vehicles in use" });
  const lengths = async (): Promise<number[]> =>
    (await table.getByRole("row").allInnerTexts())
      .slice(1)
      .map((t) => Number(/(\d)\s(\d{3})\smm/.exec(t)!.slice(1).join("")));
  await table.getByRole("button", { name: "Wheelbase" }).click();
  await expect(table.getByRole("columnheader", { name: "Wheelbase" })).toHaveAttribute(
    "aria-sort",
    /ing$/,
  );
  const sorted = (await lengths()).toSorted((a, b) => b - a);
  expect(await lengths()).toEqual(sorted);
  await page.getByRole("button", { name: "Sort and columns" }).click();
  await page.getByRole("menuitemcheckbox", { name: "Fitted" }).click();
  await page.keyboard.press("Escape");
  await expect(table).not.toContainText("Forward camera");
  await page.reload();
  await expect(table.getByRole("columnheader", { name: "Fitted" })).toHaveCount(0);
  expect(await lengths()).toEqual(sorted);
  // On paper: the list, dark on white in any theme, and nothing to press.
  await find("night", /Night theme/);
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("navigation", { name: "Shop" })).toBeHidden();
  await expect(page.getByText("Import a file")).toBeHidden();
  await expect(table.getByRole("row").nth(1)).toBeVisible();
  await expect(page.locator("body")).toHaveCSS("background-color", "rgb(255, 255, 255)");
  await expect(page.locator("body")).toHaveCSS("color", "rgb(30, 35, 43)");
});

test("a wrong PIN waits longer each time, a viewer writes nothing, a stranger sees nothing", async ({
  page,
}) => {
  // A tablet he has signed in on before counts for itself.
  await signIn(page, shop.url, "ruan");
  await page.getByRole("button", { name: "Sign out" }).click();
  await page.waitForURL(/\/sign-in/);
  await page.goto(`${shop.url}/sign-in?who=ruan`);
  const pin = page.getByLabel("PIN", { exact: true });
  const answer = page.getByRole("alert").filter({ hasText: /PIN/ });
  for (const expected of [
    "That PIN is not right.",
    "That PIN is not right.",
    "Wait 5 s before the next try.",
  ]) {
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
  // Every door that writes, shut to whoever is not signed in, and below to whoever may only look.
  const doors = ["jobs/x/events", "jobs/x/run", "jobs/x/scan", "photos"];
  for (const door of doors)
    expect((await page.request.post(`${shop.url}/api/${door}`, { data: {} })).status(), door).toBe(
      401,
    );
  for (const door of [
    "jobs/x/record",
    "jobs/x/report",
    "jobs/x/bay",
    "photos/x",
    "kit/labels",
    "sheets/x",
    "vehicles/x",
    "rules",
  ])
    expect((await page.request.get(`${shop.url}/api/${door}`)).status(), door).toBe(401);

  await page.waitForTimeout(5000);
  await signIn(page, shop.url, "ruan");
  const cookie = (await page.context().cookies()).find((c) => c.name === "iridel_session")!;
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: "Strict" });
  await expect(page.getByRole("link", { name: "Take in a vehicle" })).toBeHidden();
  const job = await openJob(page, shop.url, "HQ 12 WRN", "/set-out");
  await expect(nextBar(page)).toContainText("You may look; a technician takes the reading.");
  const id = job.split("/").at(-1);
  const touch = {
    id: "forged-touch",
    takenAt: new Date().toISOString(),
    body: { kind: "touch", touch: "knocked" },
  };
  for (const [path, data] of [
    ["events", { baseSeq: 0, events: [touch] }],
    ["run", { after: 0, command: { type: "connect" } }],
  ] as const)
    expect((await page.request.post(`${shop.url}/api/jobs/${id}/${path}`, { data })).status()).toBe(
      403,
    );
  for (const door of doors)
    expect((await page.request.post(`${shop.url}/api/${door}`, { data: {} })).status(), door).toBe(
      403,
    );
  await expect(slip(page)).not.toContainText("Touched");
});

test("the bench answers keys, questions impossible values, and redraws before the shop has heard", async ({
  page,
  context,
}) => {
  await signIn(page, shop.url, "oskar");
  await openJob(page, shop.url, "HQ 30 SKF", "/set-out");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
  await page.keyboard.press("Escape");

  // Metres for millimetres: questioned at once, with the likely meaning.
  await page.locator('[data-slot="tape-fl-r"]').click();
  await catcher(page).fill("2.871");
  await page.keyboard.press("Enter");
  await expect(nextBar(page).getByRole("alert")).toContainText("cannot be 3 mm");
  await expect(
    page.getByRole("button", { name: /Take it as 2.871 metres: 2.871 mm/ }),
  ).toBeVisible();
  await catcher(page).fill("");

  // A scanner's burst is a code, not a measurement.
  await page.keyboard.type("HQ-22", { delay: 0 });
  await page.keyboard.press("Enter");
  await expect(page.getByText("Code HQ-22: this is the board the sheet asks for.")).toBeVisible();

  // With the shop cut off, the verdict and the floor change within the frame that follows the typed
  // reading.
  await context.setOffline(true);
  await catcher(page).fill("3511");
  await page.evaluate(() => {
    const floor = document.querySelector("svg[role=img]")!;
    const seen = { before: floor.innerHTML, next: "" };
    Object.assign(window, { seen });
    addEventListener("submit", () => requestAnimationFrame(() => (seen.next = floor.innerHTML)), {
      once: true,
    });
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

/** What a page loads of script, compressed, when nothing of it is known yet; bytes. */
async function firstLoad(page: Page, address: string): Promise<number> {
  const bodies: Promise<number>[] = [];
  const count = (r: Response): void => {
    if (r.request().resourceType() === "script")
      bodies.push(
        r.body().then(
          (b) => gzipSync(b).length,
          () => 0,
        ),
      );
  };
  page.on("response", count);
  await page.goto(address, { waitUntil: "networkidle" });
  page.off("response", count);
  expect(bodies.length).toBeGreaterThan(3);
  const total = (await Promise.all(bodies)).reduce((a, b) => a + b, 0);
  console.log(`${address}: ${(total / 1000).toFixed(1)} kB of script in ${bodies.length} files`);
  return total;
}

test("first load: the bench ships under 250 kB of compressed script, the jobs list under 200", async ({
  page,
  context,
}) => {
  await signIn(page, shop.url, "oskar");
  const href = await page
    .getByRole("listitem")
    .filter({ hasText: "HQ 12 WRN" })
    .getByRole("link")
    .getAttribute("href");
  expect.soft(await firstLoad(page, `${shop.url}${href}/set-out`)).toBeLessThan(250_000);
  const other = await context.browser()!.newContext({ storageState: await context.storageState() });
  expect(await firstLoad(await other.newPage(), shop.url)).toBeLessThan(200_000);
  await other.close();
});

test("a new shop: its first lead opens it, enters a colleague, begins a sheet, and learns what comes first", async ({
  browser,
}) => {
  const fresh = await openShop({ empty: true });
  try {
    const page = await (await browser.newContext()).newPage();
    await page.goto(fresh.url);
    await page.getByLabel("Your name").fill("Lea Voss");
    await page.getByLabel("Initials").fill("LV");
    const pins = async (pin: string): Promise<void> => {
      await page.getByLabel("PIN, six figures or more").fill(pin);
      await page.getByLabel("The same again").fill(pin);
    };
    await pins("123456");
    await page.getByRole("button", { name: "Open the shop" }).click();
    await expect(page.getByRole("alert").filter({ hasText: "PIN" })).toContainText(
      "nor figures in a row",
    );
    await pins("270419");
    await page.getByRole("button", { name: "Open the shop" }).click();
    await page
      .getByRole("region", { name: "First steps" })
      .getByRole("link", { name: "Take in" })
      .click();
    await expect(nextBar(page)).toContainText("The shop has no vehicle yet: enter one first");

    await page.getByRole("link", { name: "People", exact: true }).click();
    await page.getByRole("button", { name: "Enter somebody" }).click();
    await page.getByLabel("Name", { exact: true }).fill("Tam Orrin");
    await expect(page.getByLabel("Initials")).toHaveValue("TO");
    await pins("481527");
    await page.getByRole("button", { name: "Enter", exact: true }).click();
    await expect(page.getByRole("row").filter({ hasText: "Tam Orrin" })).toContainText(
      "works on jobs",
    );
    await page.getByRole("button", { name: "Edit Lea Voss" }).click();
    await page.getByRole("button", { name: "Has left" }).click();
    await expect(page.getByRole("alert").filter({ hasText: "lead" })).toContainText(
      "Make somebody else the lead first.",
    );
    await page.keyboard.press("Escape");

    await page.getByRole("link", { name: "Sheets", exact: true }).click();
    await page.getByRole("button", { name: "New sheet" }).click();
    await expect(nextBar(page)).toContainText("Enter the title.");
    await page.getByLabel("Title").fill("Harbour van, forward camera");
    await expect(nextBar(page)).not.toContainText("Enter the title.");
    await expect(page.getByText(/· kept$/)).toBeVisible();

    const tam = await (await browser.newContext()).newPage();
    await tam.goto(fresh.url);
    await tam.getByRole("button", { name: "Tam Orrin" }).click();
    await tam.getByLabel("PIN", { exact: true }).fill("481527");
    await tam.getByRole("button", { name: "Sign in" }).click();
    await tam.getByRole("link", { name: "Sheets", exact: true }).click();
    await tam.getByRole("link", { name: /Harbour van, forward camera/ }).click();
    await expect(tam.getByRole("region", { name: "Still to enter" })).toContainText(
      "the distance ahead",
    );
    await tam.getByRole("link", { name: "People", exact: true }).click();
    await expect(tam.getByRole("button", { name: "Change my PIN" })).toBeVisible();
    await expect(tam.getByRole("button", { name: "Enter somebody" })).toHaveCount(0);
  } finally {
    await fresh.close();
  }
});

test("the doors: no post of another page, no other kind, none too large; a page loads only its own; nothing is told to a stranger", async ({
  page,
  browser,
}) => {
  await signIn(page, shop.url, "ines");
  const job = await openJob(page, shop.url, "HQ 12 WRN", "/set-out");
  const api = job.replace("/jobs/", "/api/jobs/");
  const lines = async (): Promise<number> => {
    const answer = await page.request.get(`${api}/events?after=0`);
    expect(answer.headers()["cache-control"]).toContain("no-store");
    return ((await answer.json()) as { events: unknown[] }).events.length;
  };
  const before = await lines();
  const data = JSON.stringify({
    baseSeq: before,
    events: [
      {
        id: "from-elsewhere",
        takenAt: new Date().toISOString(),
        body: { kind: "touch", touch: "hung" },
      },
    ],
  });
  const send = async (headers: Record<string, string>, body = data): Promise<number> =>
    (
      await page.request.post(`${api}/events`, {
        headers: { "content-type": "application/json", ...headers },
        data: body,
      })
    ).status();
  expect(await send({ origin: "https://elsewhere.test" })).toBe(403);
  expect(await send({ "sec-fetch-site": "cross-site", origin: shop.url })).toBe(403);
  expect(await send({ "content-type": "text/plain" })).toBe(415);
  expect(await send({}, JSON.stringify({ events: ["x".repeat(2_000_000)] }))).toBe(413);
  expect(await lines()).toBe(before);
  expect(await send({ origin: shop.url })).toBe(200);
  expect(await lines()).toBe(before + 1);

  for (const way of ["toString", "__proto__", "no-such-way"])
    expect((await page.request.get(`${api}/mark-out?way=${way}`)).status(), way).toBe(400);

  const nonces = [];
  for (const at of [job, `${shop.url}/`]) {
    const headers = (await page.request.get(at)).headers();
    expect(headers).toMatchObject({
      "x-content-type-options": "nosniff",
      "x-frame-options": "DENY",
      "referrer-policy": "same-origin",
    });
    expect(headers["permissions-policy"]).toContain("microphone=(self)");
    const policy = headers["content-security-policy"]!;
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).not.toMatch(/script-src[^;]*unsafe-inline/);
    nonces.push(/'nonce-([^']+)'/.exec(policy)![1]);
  }
  expect(nonces[0]).not.toBe(nonces[1]);
  for (const at of ["record", "report"])
    expect((await page.request.get(`${api}/${at}`)).headers()["cache-control"], at).toContain(
      "no-store",
    );

  const stranger = await (await browser.newContext()).newPage();
  await stranger.goto(job);
  await expect(stranger).toHaveURL(/sign-in/);
  await expect(stranger).toHaveTitle("Sign in · Iridel");
  await stranger.goto(`${job}/mark-out`);
  expect(await stranger.title()).not.toMatch(/10\d\d|Wren|HQ/);
  await stranger.context().close();
});
