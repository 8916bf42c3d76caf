import { readFileSync } from "node:fs";
import { expect, test, type Page } from "@playwright/test";
import type { JobEvent } from "@/core/job";
import { nextBar, signIn, slip } from "./support/hands";
import { papersOf, takeInDone } from "./support/job";
import { openShop, type Shop } from "./support/shop";

let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ jobs: true })));
test.afterAll(() => shop.close());

const driver = (page: Page) => page.getByRole("dialog", { name: "Driver" });

/** Parts of the drive in the order of the log. */
async function parts(page: Page, job: string): Promise<{ startMs: number; rows: number }[]> {
  const answer = await page.request.get(`${job.replace("/jobs/", "/api/jobs/")}/events?after=0`);
  const { events } = (await answer.json()) as { events: JobEvent[] };
  return events.flatMap(({ body }) =>
    body.kind === "drive-part" ? [{ startMs: body.startMs, rows: body.rows.length }] : [],
  );
}

test("a drive is planned, refused without a hotspot, driven in fast time through a lost shop, given up, planned anew, learned", async ({
  page,
  context,
}) => {
  await signIn(page, shop.url, "ines");
  await page.getByRole("link", { name: /HQ 37 GLN/ }).click();
  await page.waitForURL(/\/jobs\/[^/]+\//);
  const job = page.url().replace(/\/[^/]+$/, "");
  await page.goto(`${job}/drive`);
  const next = nextBar(page);
  await expect(next).toContainText(/Leave at \d\d:\d\d/, { timeout: 60_000 });
  await expect(page.getByRole("img", { name: "Map of the drive" })).toBeVisible();

  // The way is there as turns, and as a track for another device.
  await page.getByRole("button", { name: "Turns", exact: true }).click();
  await expect(page.getByRole("dialog", { name: /^Turns, leaving at/ })).toContainText(
    "Leave along",
  );
  await page.keyboard.press("Escape");
  const saved = page.waitForEvent("download");
  await page.getByRole("button", { name: "Track as GPX" }).first().click();
  expect(readFileSync(await (await saved).path(), "utf8")).toContain("<trkpt lat=");

  // A drive by the tool alone, with the log of another device: a wrong one is said, field by field.
  await next.getByRole("button", { name: "Driven by the tool alone" }).click();
  const log = page.getByLabel("drive log file");
  const csv = (speed: string) => ({
    name: "drive.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(
      `time,kmh\n${[0, 1, 2, 3].map((s) => `2026-11-03T10:00:0${s}Z,${speed}`).join("\n")}`,
    ),
  });
  await log.setInputFiles(csv("fast"));
  await expect(page.getByRole("alert").filter({ hasText: "line" })).toContainText(
    "line 2, kmh is no speed: “fast”",
  );
  await log.setInputFiles(csv("70"));
  await expect(page.getByText("0:03 min of 0:03 min counted.")).toBeVisible();
  await expect(page.getByText(/Its log says nothing of lines/)).toBeVisible();
  await page.getByLabel("Who drives").fill("Oskar Veld");
  await next.getByRole("button", { name: "It has not" }).click();
  await page.getByLabel("Reason").fill("Tool let go of the unit");
  await next.getByRole("button", { name: "Keep it" }).click();
  await expect(slip(page)).toContainText("Tool let go of the unit");

  // What is lacking is said before anybody leaves.
  const leave = next.getByRole("button", { name: "Leave" });
  await page.getByLabel("It rains").uncheck();
  await page.getByLabel("Who drives").fill("");
  await leave.click();
  await expect(next).toContainText("Say who drives.");
  await page.getByLabel("Who drives").fill("Oskar Veld");
  await expect(page.getByText("take a hotspot before you leave")).toBeVisible();
  await leave.click();
  await expect(next).toContainText("without a hotspot its session ends on the way");
  await page.getByLabel("A hotspot is in the car and on").check();
  await leave.click();
  await expect(next).toContainText("Say how the speed is kept.");
  await page.getByRole("button", { name: "Cruise control" }).click();
  await page.getByLabel("It rains").check();
  await leave.click();
  await expect(next).toContainText("say why it is driven all the same");
  await page.getByLabel("Why it is driven in rain").fill("The customer leaves the island tonight");
  await leave.click();
  await expect(slip(page)).toContainText("in rain: The customer leaves the island tonight");
  const progress = page.getByRole("region", { name: "Progress" });
  await expect(progress).toContainText("In the bank");

  // While it rolls, whoever drives sees no figure and can touch nothing.
  await next.getByRole("button", { name: "Hand to the driver" }).click();
  await expect(driver(page)).toContainText(/Waits|Counts/);
  for (let n = 0; n < 5; n++) {
    expect(await driver(page).innerText()).not.toMatch(/\d/);
    await page.waitForTimeout(400);
  }
  // The shop is silent for a while: all is kept here.
  await context.route("**/api/jobs/*/events", (r) =>
    r.request().method() === "POST" ? r.abort() : r.continue(),
  );
  const before = (await parts(page, job)).length;
  await page.waitForTimeout(6000);
  expect((await parts(page, job)).length).toBe(before);
  await context.unroute("**/api/jobs/*/events");
  const stand = driver(page).getByRole("button", { name: "We stand: show the figures" });
  await stand.click({ timeout: 120_000 });

  // Given up or driven to its end, it is written down; here somebody gives up.
  await next.getByRole("button", { name: /Give up|We stand: write it down/ }).click();
  await next.getByRole("button", { name: "It has not" }).click();
  await page.getByLabel("Reason").fill("Called back to the shop");
  await next.getByRole("button", { name: "Keep it" }).click();
  await expect(slip(page)).toContainText("given up");
  await expect(page.getByText(/ counted\.$/).first()).toBeVisible();

  // Nothing of it was lost, nothing came twice.
  await expect
    .poll(async () => (await parts(page, job)).length, { timeout: 30_000 })
    .toBeGreaterThan(before);
  const driven = (await parts(page, job)).slice(1);
  driven
    .slice(1)
    .forEach((p, i) => expect(p.startMs).toBe(driven[i]!.startMs + driven[i]!.rows * 1000));

  // Planned anew, and driven to its end.
  await expect(next).toContainText(/Leave at \d\d:\d\d/, { timeout: 60_000 });
  await page.getByLabel("A hotspot is in the car and on").check();
  await page.getByRole("button", { name: "By foot" }).click();
  await page.getByLabel("It rains").uncheck();
  await next.getByRole("button", { name: "Leave" }).click();
  await next.getByRole("button", { name: "We stand: write it down" }).click({ timeout: 180_000 });
  await next.getByRole("button", { name: "It has learned" }).click();
  await expect(next).toContainText("The vehicle has learned on the road.");
  await expect(slip(page)).toContainText("the vehicle has learned");
  await expect(page.getByText("All kept")).toBeVisible({ timeout: 60_000 });
  const { record, report } = await papersOf(page, shop.url, job);
  expect(record.calibrations[0]!.drives!.map((d) => d.outcome)).toEqual([
    "given-up",
    "given-up",
    "learned",
  ]);
  expect(record.calibrations[0]!.drives!.map((d) => d.leave?.inRain)).toEqual([
    undefined,
    "The customer leaves the island tonight",
    null,
  ]);
  expect(report).toContain("Called back to the shop");
  expect(report.replace(/\s+/g, " ")).toMatch(/\d+ min were planned/);
  expect(report).toMatch(/\d+:\d\d\s+of\s+\d+:\d\d\s+min\s+counted/);
});

test("on a day of showers and low sun a vehicle that shows codes is planned, loses all at red lights, and teaches the roads", async ({
  page,
}) => {
  // Lights stand where the island has roundabouts: every loop meets them.
  await signIn(page, shop.url, "mara");
  const file = await page.request.get(`${shop.url}/api/roads/file`);
  const island = (await file.json()) as { features: { properties: Record<string, unknown> }[] };
  for (const { properties: p } of island.features)
    if (p.control === "roundabout") Object.assign(p, { control: "signals", redShare: 0.6 });
  await page.goto(`${shop.url}/roads`);
  await page.getByLabel("roads file").setInputFiles({
    name: "roads.geojson",
    mimeType: "application/geo+json",
    buffer: Buffer.from(JSON.stringify(island)),
  });
  await expect(page.getByText(/roads taken\./)).toBeVisible();

  // That morning it showers, and the sun stands low.
  await page.clock.setSystemTime(new Date("2026-11-02T08:01:00Z"));
  const job = await takeInDone(page, shop.url, {
    vin: "0BRTRN5B2T220977",
    customer: "Fenna Roe",
    done: [["Bulletin of the maker applies", "windshield"]],
  });
  await page.goto(`${job}/drive`);
  const next = nextBar(page);
  await expect(next).toContainText(/Leave at \d\d:\d\d/, { timeout: 60_000 });
  await expect(page.getByText("still looking at later hours")).toBeHidden({ timeout: 60_000 });
  const drives = page.getByRole("list", { name: "Drives of this hour" });
  await expect(drives).toContainText(/rain \d+ % of the time/i);
  await page.getByRole("button", { name: "Look at it" }).click();
  await expect(drives).toContainText(
    /low sun, which stands ahead on \d+ % of the good roads, dry/i,
  );
  for (let n = 0; n < 3; n++) await page.getByRole("button", { name: "Earlier hour" }).click();
  await expect(drives).toContainText(/sun off the lens, dry/i);
  await expect(page.getByText(/No drive that leaves then is back before \d+ min/)).toBeVisible();
  // The sheet lets it be done either way, and names how the speed is kept.
  await expect(page.getByText(/it is likelier to be done sooner/)).toBeVisible();
  await expect(page.getByRole("button", { name: "Cruise control" })).toHaveCount(0);
  await page.getByRole("button", { name: "Limiter" }).click();
  await page.getByLabel("Who drives").fill("Oskar Veld");
  await next.getByRole("button", { name: "Leave" }).click();

  const progress = page.getByRole("region", { name: "Progress" });
  await expect(progress).toContainText(/2[123]learns/, { timeout: 60_000 });
  await expect(progress).toContainText(/Thrown away\d+×, standing/, { timeout: 180_000 });
  await next
    .getByRole("button", { name: /^(Give up|We stand: write it down)$/ })
    .click({ timeout: 180_000 });
  await next.getByRole("button", { name: "It has learned" }).click();
  await expect(next).toContainText("The vehicle has learned on the road.");
  await expect(page.getByText("a red line: all of it was thrown away")).toBeVisible();
  await expect(page.getByRole("list", { name: "What cost most" })).toContainText("lines not seen");

  // What it found of the roads is taken over.
  await page.getByRole("button", { name: /^Take over \d+ roads$/ }).click();
  await expect(page.getByText(/\d+ roads are known anew/)).toBeVisible();
  await expect(page.getByText("All kept")).toBeVisible({ timeout: 60_000 });
  const { record } = await papersOf(page, shop.url, job);
  const [drive] = record.calibrations[0]!.drives!;
  expect(drive!.counted!.losses).toBeGreaterThan(0);
  expect(drive!.leave!.keeps).toBe("limiter");
});

test("roads go out as a file and come in again; a damaged one is refused and changes nothing", async ({
  page,
}) => {
  await signIn(page, shop.url, "mara");
  await page.goto(`${shop.url}/roads`);
  await expect(page.getByText(/^\d{3} roads, \d+ junctions/)).toBeVisible();
  await expect(page.getByRole("img", { name: "Map of the roads" })).toBeVisible();
  const whole = await (await page.request.get(`${shop.url}/api/roads/file`)).text();
  const file = (text: string) => ({
    name: "roads.geojson",
    mimeType: "application/geo+json",
    buffer: Buffer.from(text),
  });
  const input = page.getByLabel("roads file");
  await input.setInputFiles(file(whole.slice(0, 5000)));
  await expect(page.getByRole("alert").filter({ hasText: "file" })).toContainText(
    "ends in the middle",
  );
  expect(await (await page.request.get(`${shop.url}/api/roads/file`)).text()).toBe(whole);
  const few = JSON.parse(whole) as { features: { geometry: { type: string } }[] };
  const lines = few.features.filter((f) => f.geometry.type === "LineString").slice(0, 200);
  await input.setInputFiles(file(JSON.stringify({ ...few, features: lines })));
  await expect(page.getByRole("status").filter({ hasText: "taken" })).toContainText(
    "200 roads taken.",
  );
  await expect(page.getByText(/^200 roads, 0 junctions/)).toBeVisible();

  // One road is written by hand: a wrong figure is named, a good one stays.
  await page.getByLabel("Find a road").fill("Ring");
  await page.getByRole("region", { name: "Roads by name" }).getByRole("button").first().click();
  const road = page.getByRole("region", { name: "Road", exact: true });
  const name = await road.getByLabel("Road", { exact: true }).inputValue();
  await road.getByLabel("Limit, km/h").fill("900");
  await road.getByRole("button", { name: "Keep it" }).click();
  await expect(road.getByRole("alert")).toContainText("road.limitKmh");
  await road.getByLabel("Limit, km/h").fill("70");
  const way = road.getByRole("group", { name: "One way", exact: true });
  await way.getByRole("button", { name: "Solid" }).first().click();
  await way.getByLabel("Found by a camera on").first().fill("64");
  await road.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByText(`${name} is kept.`)).toBeVisible();
  const kept = (await (await page.request.get(`${shop.url}/api/roads/file`)).json()) as {
    features: {
      properties: { name?: string; limitKmh?: number; along?: { left: { seen: number } } };
    }[];
  };
  const is = kept.features.find((f) => f.properties.name === name)!.properties;
  expect(is.limitKmh).toBe(70);
  expect(is.along!.left.seen).toBe(0.64);
});

test("what is learned on the road alone is made ready in Run, and its sheet is written in the form", async ({
  page,
}) => {
  await signIn(page, shop.url, "mara");
  const job = await takeInDone(page, shop.url, {
    vin: "0NVLS2DA7R100455",
    customer: "Ruan Sker",
    done: [["Steering worked on", null]],
  });
  const next = nextBar(page);
  await page.goto(`${job}/drive`);
  await expect(next).toContainText("Run comes first");
  await page.goto(`${job}/run`);
  await next.getByRole("button", { name: "Connect" }).click();
  await next.getByRole("button", { name: "It is on" }).click();
  await next.getByRole("button", { name: "Done" }).click({ timeout: 30_000 });
  await expect(next).toContainText("The vehicle is ready to learn on the road.");
  await page.goto(`${job}/drive`);
  await expect(next).toContainText(/Leave at \d\d:\d\d|Drive by what the sheet asks/, {
    timeout: 60_000,
  });

  // The sheet's own form: what has to hold, what a breach does, and what the vehicle shows.
  await page.goto(`${shop.url}/sheets`);
  await page.getByText("Tarn, forward camera, by the board or on the road").click();
  await page.getByRole("button", { name: "New version" }).click();
  const sun = page.getByRole("region", { name: "Sun", exact: true });
  await sun.getByLabel("Sun off the lens by more than").fill("95");
  await expect(page.getByText(/what has to hold on its drive, number 4/i).first()).toBeVisible();
  await sun.getByLabel("Sun off the lens by more than").fill("18");
  await page.getByRole("button", { name: "Steadiness" }).click();
  const steady = page.getByRole("region", { name: "Steadiness", exact: true });
  await steady.getByRole("button", { name: "All begins anew" }).click();
  await steady.getByLabel("It is borne for").fill("12");
  await page.getByRole("button", { name: "A drive alone" }).click();
  await expect(page.getByText("Nothing to put right")).toBeVisible();
});
