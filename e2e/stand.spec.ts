import { writeFileSync } from "node:fs";
import { expect, test, type Locator, type Page } from "@playwright/test";
import DxfParser from "dxf-parser";
import type { JobEvent } from "@/core/job";
import type { JobRecord } from "@/core/record";
import { madeUpVin } from "@/demo/data/vehicles";
import {
  catcher,
  chooseWay,
  followToSet,
  hangBoard,
  hold,
  nextBar,
  readAt,
  readFloor,
  signIn,
  slip,
  takeIn,
  verdict,
} from "./support/hands";
import { openShop, type Shop } from "./support/shop";

let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ baySeed: "stand" })));
test.afterAll(() => shop.close());
const VIN = madeUpVin("0NVLS2DA7R100452");

test("a phone joins at the stand, loses the network, gets it back, and no reading is lost", async ({
  browser,
}) => {
  const [bench, pocket] = [
    await browser.newContext(),
    await browser.newContext({
      viewport: { width: 390, height: 844 },
      hasTouch: true,
      isMobile: true,
    }),
  ];
  const page = await bench.newPage();
  await signIn(page, shop.url, "ines");
  const job = await takeIn(page, shop.url, VIN, "Two Of Us");
  await page.getByRole("button", { name: "Phone", exact: true }).click();
  const link = await page.locator("[data-join]").innerText();
  await page.keyboard.press("Escape");

  const phone = await pocket.newPage();
  // Looked at beforehand, as a preview does, the code is still good.
  expect((await page.request.get(link)).status()).toBe(200);
  await phone.goto(link);
  await phone.getByRole("button", { name: "Join" }).tap();
  await phone.waitForURL(/\/stand$/);
  const said = phone.getByRole("main", { name: "Stand" });
  await expect(said).toContainText("Put the adjusters at their marks");
  await expect(phone.getByRole("status")).toContainText("Live");
  // The code is used up, and the phone sees this job alone.
  const late = await (await browser.newContext()).newPage();
  await late.goto(link);
  await late.getByRole("button", { name: "Join" }).click();
  await expect(late.getByText("This code was used or is too old.")).toBeVisible();
  await phone.goto(`${shop.url}/`);
  await phone.waitForURL(/\/stand$/);

  // What the tablet reads, the phone knows at once; and the other way round.
  const before = await said.innerText();
  await nextBar(page).getByRole("button", { name: "Done" }).click();
  await expect(said).not.toHaveText(before, { useInnerText: true });
  await hold(phone);
  await phone.getByRole("button", { name: "Take", exact: true }).tap();
  await expect(
    slip(page)
      .getByText(/T-3|L-1|R-2/)
      .first(),
  ).toBeVisible();

  // The network goes while both read: both readings are there when it is back.
  await pocket.setOffline(true);
  await expect(said).toContainText(/Tape from the front hub (left|right)/);
  const side = (await said.innerText()).includes("hub left") ? "fl-l" : "fr-r";
  await catcher(phone).fill("2941");
  await phone.getByRole("button", { name: "Take", exact: true }).tap();
  await expect(phone.getByRole("status")).toContainText("1 kept here, not sent");
  await readAt(page, side === "fl-l" ? "tape-fr-r" : "tape-fl-l");
  await pocket.setOffline(false);
  await expect(phone.getByRole("status")).toContainText("Live", { timeout: 15_000 });
  await expect(slip(page)).toContainText("2 941 mm", { timeout: 10_000 });
  for (const word of ["left", "right"])
    await expect(slip(page)).toContainText(`front hub ${word} → beam end ${word}`);
  await phone.getByRole("button", { name: "Touched" }).tap();
  await phone.getByRole("button", { name: /Knocked or leaned on it/ }).tap();
  await expect(slip(page)).toContainText("Knocked or leaned on it");
  // Both devices' readings stand in the log once each, under her name.
  const answer = await page.request.get(
    `${shop.url}/api/jobs/${job.split("/").at(-1)}/events?after=0`,
  );
  const { events } = (await answer.json()) as { events: JobEvent[] };
  const read = events.flatMap((e) =>
    e.body.kind === "reading" ? [`${e.body.slotId} ${e.by.initials}`] : [],
  );
  expect(read).toHaveLength(3);
  expect(read.filter((r) => r === "tape-fl-l IT")).toHaveLength(1);
  expect(read.filter((r) => r === "tape-fr-r IT")).toHaveLength(1);
  await bench.close();
  await pocket.close();
});

test("an instrument posts by itself: its reading lands on the open job, once, and an impossible one is refused", async ({
  page,
  context,
}) => {
  await signIn(page, shop.url, "ines");
  await takeIn(page, shop.url, madeUpVin("0NVLS2DA7R100478"), "By Itself");
  const number = /Job (\d+)/.exec(await slip(page).innerText())![1]!;
  const kit = await context.newPage();
  await kit.goto(`${shop.url}/kit`);
  await kit
    .getByRole("row")
    .filter({ hasText: "T-3" })
    .getByRole("button", { name: "Posts" })
    .click();
  await kit.getByRole("button", { name: "Make a token" }).click();
  await expect(kit.getByRole("dialog")).toContainText("not shown again");
  const token = /Bearer ([\w-]{20,})/.exec(await kit.getByRole("dialog").innerText())![1]!;
  const post = (csv: string, bearer = token) =>
    page.request.post(`${shop.url}/api/feed`, {
      headers: { authorization: `Bearer ${bearer}`, "content-type": "text/csv" },
      data: `job,id,slot,value\n${csv}`,
    });
  expect((await post(`${number},1,tape-fl-l,2.913 m`, "x".repeat(32))).status()).toBe(401);
  expect((await post(`${number},1,tape-fl-l,2.913 m`)).status()).toBe(200);
  expect(await (await post(`${number},1,tape-fl-l,2.913 m`)).json()).toEqual({
    readings: [{ id: "1", outcome: "known" }],
  });
  const wrong = await post(`${number},2,tape-fr-r,2.913`);
  expect(wrong.status()).toBe(422);
  expect(JSON.stringify(await wrong.json())).toContain("Meant as 2.913 metres?");
  await expect(slip(page)).toContainText(/2.913.mm/, { timeout: 15_000 });
  await expect(
    page.getByRole("button", { name: /front hub left → beam end left: 2.913/ }),
  ).toBeVisible();
});

test("a scale that posts is watched while the board is cranked: where it stands still ends the move and is its check", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  await page.goto(`${shop.url}/kit`);
  const scale = page.getByRole("row").filter({ hasText: "Stand scale" });
  const posts = async (choice: string): Promise<void> => {
    await scale.getByRole("button", { name: "Edit" }).click();
    const form = page.getByRole("dialog");
    await form.getByRole("button", { name: choice, exact: true }).click();
    await form.getByRole("button", { name: "Write it down" }).click();
    await expect(form).toBeHidden();
  };
  await posts("Yes, live");
  const job = await takeIn(page, shop.url, madeUpVin("0NVLS2DA7R100481"), "With An Eye On It");
  // What nobody posts, or is turned to nothing, is refused before anything streams.
  const figure = `${job.replace("/jobs/", "/api/jobs/")}/figure`;
  for (const [asked, why] of [
    ["slot=no-such&to=1000", "slot: no instrument"],
    ["slot=tape-fl-l&to=1000", "slot: no instrument"],
    ["slot=height-scale", "to: give the figure"],
    ["slot=height-scale&to=1000&target=no-such", "target: nothing called"],
  ]) {
    const refused = await page.request.get(`${figure}?${asked}`);
    expect([refused.status(), await refused.text()]).toEqual([422, expect.stringContaining(why!)]);
  }
  // What is watched has a card of its own.
  await nextBar(page).getByRole("button", { name: "Done", exact: true }).click();
  await expect(nextBar(page)).toContainText("Crank the board until the stand’s scale shows");
  // An instrument that falls silent holds nobody up: then the scale itself is looked at.
  await page.route("**/figure?**", (r) => r.abort());
  await page.reload();
  await expect(nextBar(page).getByRole("button", { name: "Done by eye" })).toBeEnabled();
  await expect(nextBar(page)).toContainText("does not post: look at the scale itself");
  await page.unroute("**/figure?**");
  const live = page.getByLabel("Live figure");
  const done = nextBar(page).getByRole("button", { name: "Done" });
  // While the figure runs, nothing is done.
  await expect(live).toContainText(/(up|down)/);
  await expect(done).toBeDisabled();
  await expect(live).toContainText("There", { timeout: 15_000 });
  await done.click();
  await expect(slip(page)).toContainText(/shows 1.028.mm: watched, it showed 1.02[789].mm/);
  await expect(slip(page)).toContainText(/height scale on the stand ?1.02[789].mm/);
  await expect(page.locator('[data-slot="height-scale"]')).toHaveAttribute("data-state", "settled");
  await expect(nextBar(page)).not.toContainText("height scale");
  await page.goto(`${shop.url}/kit`);
  await posts("No");
});

test("of two tapes the one in hand is taken in one touch; each reading bears its name", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  await page.goto(`${shop.url}/kit`);
  await page.getByRole("button", { name: "New in Instruments" }).click();
  const form = page.getByRole("dialog");
  await form.getByLabel("Number").fill("T-44");
  await form.getByLabel("Name").fill("Steel tape 44");
  await form.getByRole("button", { name: "Put it into the kit" }).click();
  await expect(form).toBeHidden();
  await takeIn(page, shop.url, madeUpVin("0NVLS2DA7R100492"), "Two Tapes");
  await page.locator('[data-slot="tape-fl-l"]').click();
  await expect(nextBar(page)).toContainText("In hand: Steel tape 3");
  await page.getByRole("button", { name: /^Take Steel tape 44/ }).click();
  await expect(nextBar(page)).toContainText("In hand: Steel tape 44");
  await readAt(page, "tape-fl-l");
  // Once as it was taken in hand, once with its reading.
  await expect(slip(page).getByText("· T-44")).toHaveCount(2);
  await page.locator('[data-slot="tape-fr-r"]').click();
  await page.getByRole("button", { name: "Take Steel tape 3" }).click();
  await expect(nextBar(page)).toContainText("In hand: Steel tape 3");
  await readAt(page, "tape-fr-r");
  await expect(slip(page).getByText("· T-3", { exact: false })).toHaveCount(2);
});

test("floor marks on a low-nosed car: its own readings, its mark-out as drawings, set", async ({
  page,
}) => {
  await signIn(page, shop.url, "oskar");
  const job = await takeIn(page, shop.url, madeUpVin("0NVLS2DA7R100460"), "Chalk Line");
  const ways = page.getByRole("dialog");
  await expect(async () => {
    await page.keyboard.press("w");
    await expect(ways).toBeVisible({ timeout: 1000 });
  }).toPass();
  await ways.getByRole("button", { name: /^Floor marks Badges/ }).click();
  await expect(page.locator('[data-slot="box-centre"]')).toBeVisible();
  await expect(page.locator('[data-slot="tape-fl-l"]')).toBeHidden();
  await followToSet(page, undefined, async () => {
    // A mat for a board is caught when it is hung, before anything is called set.
    const act = nextBar(page).getByRole("button", { name: "All done" });
    await expect(nextBar(page)).toContainText("Lock the castors");
    await expect(act).toBeDisabled();
    await nextBar(page).getByLabel("Board code").fill("hq-m2");
    await expect(nextBar(page)).toContainText("HQ-M2 is “Floor mat”; the sheet asks for HQ-14.");
    await nextBar(page).getByLabel("Board code").fill("hq-99");
    await expect(nextBar(page)).toContainText("is no board of this shop’s kit");
    await expect(act).toBeDisabled();
    await nextBar(page).getByLabel("Board code").fill("");
    await hangBoard(page);
  });
  await expect(verdict(page)).toHaveText("Set");
  // Cranked after it was set: what that puts in doubt is marked, a few re-checks are asked for, and
  // it is set again.
  await page.keyboard.press("t");
  await page.getByRole("button", { name: /Cranked the height/ }).click();
  await expect(page.locator('[data-slot="height-rule"]')).toHaveAttribute(
    "data-state",
    /doubt|open/,
  );
  await followToSet(page);
  await expect(verdict(page)).toHaveText("Set");
  // How many rounds of moves a crank costs is the world's; the first of them is asked for after a
  // look at the marks, not after a whole set-out anew.
  const since = (await slip(page).innerText()).split("Cranked the height").at(-1)!;
  const looks = since.split(/Moved|Board set/)[0]!.match(/P-1/g)!.length;
  expect(looks).toBeGreaterThan(0);
  expect(looks).toBeLessThan(6);
  const api = job.replace("/jobs/", "/api/jobs/");
  const dxf = await (await page.request.get(`${api}/mark-out?as=dxf&way=floor-box`)).text();
  expect(new DxfParser().parseSync(dxf)!.entities.length).toBeGreaterThan(10);
  expect(await (await page.request.get(`${api}/mark-out?as=svg&way=floor-box`)).text()).toMatch(
    /^<svg [^>]*width="[\d.]+mm"/,
  );
  const pdf = await page.request.get(`${api}/mark-out?as=pdf&way=floor-box`);
  expect(pdf.headers()["content-type"]).toBe("application/pdf");
  writeFileSync("test-results/mark-out.pdf", await pdf.body());
  expect((await page.request.get(`${api}/mark-out?as=dwg&way=floor-box`)).status()).toBe(400);
});

test("a low chin hides the front badge: the laser goes behind the car, and the badges’ line is kept", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  const job = await takeIn(page, shop.url, madeUpVin("0NVLS2DA7R100488"), "Low Chin");
  await page.locator('[data-slot="laser-badge"]').click();
  await expect(nextBar(page)).toContainText("Hidden behind a low chin?");
  await chooseWay(page, "Four tapes", "Four tapes, laser from behind");
  await expect(page.locator('[data-slot="laser-badge"]')).toBeHidden();
  await expect(page.locator('[data-slot="laser-behind"]')).toBeVisible();
  await followToSet(page);
  await expect(verdict(page)).toHaveText("Set");
  const record = await page.request.get(`${job.replace("/jobs/", "/api/jobs/")}/record`);
  const target = ((await record.json()) as JobRecord).calibrations[0]!.targets[0]!;
  expect(target.way).toBe("Four tapes, laser from behind");
  const lasers = target.readings.filter((r) => r.slot.startsWith("laser-"));
  expect(new Set(lasers.map((r) => `${r.slot} ${r.instrument.id}`))).toEqual(
    new Set(["laser-behind F-1"]),
  );
  expect(lasers.some((r) => r.state === "counts")).toBe(true);
});

test("wheel panels on a sheet that means the thrust line: which line is which, and what it costs", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  await page.goto(`${shop.url}/take-in`);
  await page.getByLabel("VIN", { exact: true }).fill(madeUpVin("0BRTRN5B2T220977"));
  await page.getByRole("button", { name: "Windshield taken out or replaced" }).click();
  await page.getByLabel("Customer", { exact: true }).fill("Runs Crooked");
  await page.getByLabel("Rear toe, vehicle left").fill("0.02");
  await page.getByLabel("Rear toe, vehicle right").fill("0.30");
  for (const q of await page.getByRole("radiogroup").all())
    await q.getByRole("radio").first().click();
  const missing = nextBar(page);
  if (/Which|Has/.test(await missing.innerText()))
    await page
      .getByRole("button", { name: /Yes|Keeps|With/ })
      .first()
      .click();
  await page.getByRole("button", { name: "Open the job" }).click();
  await page.waitForURL(/jobs\/[^/]+\/take-in$/);
  await page
    .getByRole("navigation")
    .getByRole("link", { name: /Set out/ })
    .click();
  // Floor marks alone cannot see where the rear wheels steer: the lasers on them come along.
  await chooseWay(page, "Four tapes", "Floor marks");
  await expect(page.locator('[data-slot="scale-rl"]')).toBeVisible();
  await chooseWay(page, "Floor marks", "Wheel panels");
  await expect(
    page.getByRole("note").filter({ hasText: "The sheet means the thrust line" }),
  ).toBeHidden();
  for (const slot of ["panel-rl", "panel-rr", "panel-fl", "laser-badge"]) await readAt(page, slot);
  await page.getByRole("button", { name: "Lines", exact: true }).click();
  const rear = page.getByRole("row", { name: /rear-axle line/ });
  await expect(rear).toContainText("0.14° R");
  await expect(page.getByRole("row", { name: /thrust line/ })).toContainText("sheet");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Road", exact: true }).click();
  await expect(page.getByRole("img", { name: /The road from the camera/ })).toBeVisible({
    timeout: 15_000,
  });
});

/** Takes in a vehicle whose camera was taken off; ends on the floor. */
async function cameraOff(page: Page, vin: string, customer: string): Promise<string> {
  await signIn(page, shop.url, "oskar");
  await page.goto(`${shop.url}/take-in`);
  await page.getByLabel("VIN", { exact: true }).fill(madeUpVin(vin));
  await page.getByRole("button", { name: "Camera taken off and put back" }).click();
  await page.getByRole("button", { name: "windshield", exact: true }).click();
  await page.getByLabel("Customer", { exact: true }).fill(customer);
  await page.getByRole("button", { name: "Open the job" }).click();
  await page.waitForURL(/jobs\/[^/]+\/take-in$/);
  const job = page.url().replace(/\/take-in$/, "");
  await readFloor(page, job);
  await page.goto(`${job}/set-out`);
  return job;
}

/** Goes through the routine as far as the act that is looked for; the plug may fail on the way. */
async function runUntil(page: Page, wanted: Locator): Promise<void> {
  const act = nextBar(page).getByRole("button", {
    name: /^(Connect|Connect again|It is on|Start the routine)$/,
  });
  for (let n = 0; n < 8; n++) {
    await expect(act.or(wanted)).toBeVisible({ timeout: 15_000 });
    if (await wanted.isVisible()) return;
    const words = await nextBar(page).innerText();
    await act.click();
    await expect(nextBar(page)).not.toHaveText(words, { useInnerText: true, timeout: 15_000 });
    await expect(nextBar(page)).not.toContainText("Connecting");
  }
}

test("a sheet with two places: the board is proved at each, with its own board, before the vehicle looks", async ({
  page,
}) => {
  const job = await cameraOff(page, "0NVLS2DA7R100490", "Near And Far");
  await expect(page.getByText("Place 1 of 2")).toBeVisible();
  await followToSet(page);
  await page.goto(`${job}/run`);
  const move = nextBar(page).getByRole("button", { name: "Set it out there" });
  await runUntil(page, move);
  await expect(nextBar(page)).toContainText("Move the stand to the far place and hang the bars.");
  await move.click();
  await page.waitForURL(/set-out$/);
  await expect(page.getByText("Place 2 of 2")).toBeVisible();
  await followToSet(page, undefined, async () => {
    await nextBar(page).getByLabel("Board code").fill("HQ-14");
    await expect(nextBar(page)).toContainText("the sheet asks for HQ-17");
    await hangBoard(page);
  });
  await page.goto(`${job}/run`);
  await nextBar(page).getByRole("button", { name: "It stands there" }).click();
  await nextBar(page).getByRole("button", { name: "Start the routine" }).click();
  await expect(nextBar(page)).toContainText("The routine is done", { timeout: 20_000 });
  const record = (await (
    await page.request.get(`${job.replace("/jobs/", "/api/jobs/")}/record`)
  ).json()) as JobRecord;
  const { targets } = record.calibrations[0]!;
  expect(targets.map((t) => t.name)).toEqual(["first place", "the far place"]);
  for (const t of targets) expect(t.settled!.chance).toBeGreaterThanOrEqual(0.99);
});

test("two boards at once: a second stand carries the second, and a car that moved puts both in doubt", async ({
  page,
}) => {
  const job = await cameraOff(page, "0AVSND3E6S410072", "Side By Side");
  await followToSet(page);
  await page.goto(`${job}/run`);
  const second = nextBar(page).getByRole("button", { name: "S-3", exact: true });
  await runUntil(page, second);
  await expect(nextBar(page)).toContainText("Which stand carries this one?");
  await second.click();
  await page.waitForURL(/set-out$/);
  await expect(page.getByText("on S-3; first place stays on S-1")).toBeVisible();
  await followToSet(page);
  await page.keyboard.press("t");
  await page.getByRole("button", { name: /Moved the car/ }).click();
  await expect(page.getByText("first place stays on S-1, in doubt")).toBeVisible();
  await page.goto(`${job}/run`);
  await expect(nextBar(page)).toContainText(
    "The board belongs at first place, and is not proved there.",
  );
  await nextBar(page).getByRole("button", { name: "Set it out again" }).click();
  await page.waitForURL(/set-out$/);
  await expect(page.getByText("Place 1 of 2")).toBeVisible();
});
