import { expect, test, type Page } from "@playwright/test";
import ICAL from "ical.js";
import { madeUpVin } from "@/demo/data/vehicles";
import { signIn } from "./support/hands";
import { takeInDone } from "./support/job";
import { openShop, type Shop } from "./support/shop";

const DAY = "2026-12-01";
const at = (time: string): string => `${DAY}T${time}:00.000Z`;

let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ at: at("08:00") })));
test.afterAll(() => shop.close());

const block = (page: Page, customer: string, part: string) =>
  page.getByRole("button", { name: new RegExp(`, ${customer}: ${part}, `) });

/** When a block begins, as its name says. */
const startOf = async (page: Page, customer: string, part: string): Promise<number> => {
  const name = (await block(page, customer, part).getAttribute("aria-label"))!;
  const [, h, m] = /: \w+, (\d\d):(\d\d) to/.exec(name)!;
  return 60 * Number(h) + Number(m);
};

const promises = (page: Page) => page.getByRole("region", { name: "Promises" });

test("a day is booked with a proposed promise, re-timed by drag and by key, and read by a calendar", async ({
  page,
  browser,
}) => {
  await signIn(page, shop.url, "mara");
  await page.goto(`${shop.url}/day`);
  await expect(page.getByRole("heading", { name: /^Today/ })).toContainText("1 Dec 2026");
  await expect(promises(page).getByText("Every promise can be kept: 3.")).toBeVisible();

  await page.getByRole("button", { name: "Book a vehicle" }).click();
  const dialog = page.getByRole("dialog", { name: "Book a vehicle" });
  await dialog.getByLabel("Plate").fill("SK 808 K");
  await dialog.getByLabel("It comes at").fill("11:00");
  await dialog.getByRole("button", { name: "Book it" }).click();
  await expect(dialog.getByRole("alert")).toContainText("customer: name the customer");
  await dialog.getByLabel("Customer", { exact: true }).fill("Kit Lowe");
  await dialog.getByLabel("Vehicle", { exact: true }).selectOption({ label: "Norvane Lisse" });
  await dialog.getByLabel("What is done to it").selectOption({ label: "Camera bracket touched" });
  await dialog.getByLabel("Promised for").fill("half four");
  await dialog.getByRole("button", { name: "Book it" }).click();
  await expect(dialog.getByRole("alert")).toContainText("promised for");
  await dialog.getByRole("button", { name: "Propose a time" }).click();
  await expect(dialog.getByRole("status")).toHaveText(/^\d\d:\d0 holds with (9\d|100|> 99)/);
  await dialog.getByRole("button", { name: "Book it" }).click();
  await expect(page.getByRole("status").filter({ hasText: "Kit Lowe is booked." })).toBeVisible();
  await expect(block(page, "Kit Lowe", "Calibrate")).toBeVisible();

  // Dragged an hour to the right, it stays there, and the others go round it.
  const taxis = block(page, "Harbour Taxis", "Calibrate");
  const before = await startOf(page, "Harbour Taxis", "Calibrate");
  const box = (await taxis.boundingBox())!;
  const hour = await page
    .getByText("10:00", { exact: true })
    .first()
    .boundingBox()
    .then(async (a) => {
      const b = (await page.getByText("11:00", { exact: true }).first().boundingBox())!;
      return b.x - a!.x;
    });
  const drag = async (hours: number): Promise<void> => {
    await page.mouse.move(box.x + 12, box.y + 12);
    await page.mouse.down();
    await page.mouse.move(box.x + 12 + hour / 2, box.y + 12, { steps: 5 });
    await page.mouse.move(box.x + 12 + hours * hour, box.y + 12, { steps: 5 });
    await page.mouse.up();
  };
  // Into the rest nothing goes, and it is said why.
  await drag((12 * 60 + 10 - before) / 60);
  await expect(page.getByRole("alert").filter({ hasText: "Nobody works then." })).toBeVisible();
  await expect(taxis).not.toHaveAccessibleName(/set by hand/);
  await drag((13 * 60 + 30 - before) / 60);
  await expect(taxis).toHaveAccessibleName(/set by hand/);
  await expect
    .poll(() => startOf(page, "Harbour Taxis", "Calibrate"))
    .toBeGreaterThan(before + 100);
  const dragged = await startOf(page, "Harbour Taxis", "Calibrate");

  // The same by key: five minutes earlier, another person, and let go.
  await taxis.focus();
  await page.keyboard.press("ArrowLeft");
  await expect.poll(() => startOf(page, "Harbour Taxis", "Calibrate")).toBe(dragged - 5);
  await page.getByRole("button", { name: "People", exact: true }).click();
  const lane = page.getByRole("region").filter({ has: taxis }).last();
  const person = await lane.getAttribute("aria-label");
  await taxis.focus();
  await page.keyboard.press(person === "Ines Tarbet" ? "ArrowDown" : "ArrowUp");
  await expect
    .poll(() => page.getByRole("region").filter({ has: taxis }).last().getAttribute("aria-label"))
    .not.toBe(person);
  await taxis.focus();
  await page.keyboard.press("Delete");
  await expect(taxis).not.toHaveAccessibleName(/set by hand/);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(taxis).toHaveAccessibleName(/set by hand/);

  // A calendar program reads what the board shows; with the key alone, and with no other.
  const text = await (await page.request.get(`${shop.url}/api/day/calendar?day=${DAY}`)).text();
  const events = new ICAL.Component(ICAL.parse(text) as unknown[])
    .getAllSubcomponents("vevent")
    .map((e) => new ICAL.Event(e));
  const shown = await startOf(page, "Harbour Taxis", "Calibrate");
  const read = events.find((e) => /SK 771 T: calibration/.test(e.summary))!;
  expect(read.startDate.toJSDate().toISOString()).toBe(
    at(`${String(Math.floor(shown / 60)).padStart(2, "0")}:${String(shown % 60).padStart(2, "0")}`),
  );
  expect(text).not.toContain("Harbour Taxis");
  await page.getByRole("button", { name: "Calendar" }).click();
  const address = await page.getByLabel("Address of the calendar").inputValue();
  const stranger = await browser.newContext();
  expect((await stranger.request.get(address)).status()).toBe(200);
  expect((await stranger.request.get(`${address}x`)).status()).toBe(403);
  expect((await stranger.request.get(`${shop.url}/api/day?day=${DAY}`)).status()).toBe(401);
  await stranger.close();
});

test("what takes too long re-times the rest, and says which promise breaks and whom to call", async ({
  page,
}) => {
  // A day of its own: nothing else is booked or set by hand.
  const own = await openShop({ at: at("08:00") });
  await signIn(page, own.url, "mara");
  // Nobody rests at a set time, and one alone is there: what waits, waits for her.
  await page.goto(`${own.url}/settings#day`);
  const hours = page.getByRole("region", { name: "The day" });
  await expect(async () => {
    // A page that is not awake yet loses what is typed.
    await hours.getByLabel("Rest from").fill("");
    await hours.getByRole("button", { name: "Keep the hours" }).click();
    await expect(hours.getByRole("alert")).toContainText("rest", { timeout: 3000 });
  }).toPass();
  await hours.getByLabel("Rest to").fill("");
  for (const name of ["Ines Tarbet", "Oskar Veld"])
    await hours.getByRole("button", { name: `${name} is away` }).click();
  await hours.getByRole("button", { name: "Keep the hours" }).click();
  await expect(hours.getByRole("status").filter({ hasText: "Kept" })).toBeVisible();
  const job = await takeInDone(page, own.url, {
    vin: "0NVLS2DA7R100466",
    customer: "Merrin Holt",
    done: [["Windshield taken out or replaced", null]],
  });
  await page.goto(`${job}/owed`);
  await page
    .getByRole("region", { name: "Room in the bays" })
    .getByRole("button", { name: "It stands here now" })
    .first()
    .click();
  await page.goto(`${job}/ready`);
  await page.getByRole("button", { name: /floor/i }).first().click();
  await page.getByRole("button", { name: /^Take the floor of Bay 1/ }).click();
  await expect(page.getByText(/than the car’s plane/).first()).toBeVisible();
  await page.goto(`${own.url}/day`);
  await expect(block(page, "Merrin Holt", "Calibrate")).toHaveAccessibleName(/, begun$/);
  await expect(
    promises(page)
      .getByText(/promise/)
      .first(),
  ).toBeVisible();
  await expect(promises(page).getByText(/Wenna Pask: \d+ min late/)).toHaveCount(0);

  // Hours pass, and the same vehicle is still in the bay.
  own.setClock(at("12:40"));
  await page.reload();
  const said = promises(page);
  await expect(said.getByText(/promises can be kept\./)).toBeVisible();
  await expect(
    said.getByText(
      /Wenna Pask: \d+ min late\. It waits for (Bay 1|Mara Quill) until \d\d:\d\d: Norvane Lisse, Merrin Holt has it\./,
    ),
  ).toBeVisible();
  await expect(
    said.getByText(/^Call Wenna Pask: \d\d:\d\d instead of 14:00\.$/).first(),
  ).toBeVisible();
  await expect(block(page, "Merrin Holt", "Calibrate")).toHaveAccessibleName(/, begun$/);

  // What is in hand for one of them, and what the wall shows.
  await page.goto(`${own.url}/day/next`);
  await expect(page.getByRole("region", { name: "Next job" })).toBeVisible();
  await page.goto(`${own.url}/wall`);
  await expect(page.getByRole("region", { name: "Promised" })).toContainText("Call Wenna Pask.");
  await own.close();
});

test("what is asked before a vehicle comes is answered, and stands in Ready as said until it is seen", async ({
  page,
}) => {
  await signIn(page, shop.url, "mara");
  await page.goto(`${shop.url}/day`);
  const row = page.getByRole("listitem").filter({ hasText: "Wenna Pask" }).last();
  shop.setClock(at("12:40"));
  await page.clock.setSystemTime(at("12:40"));
  await row.getByRole("link", { name: "Letter" }).click();
  await expect(page.getByRole("heading", { name: "Before your vehicle comes" })).toBeVisible();
  const tank = page.getByRole("listitem").filter({ hasText: "Fill the tank" });
  await tank.getByLabel("What they said").fill("three quarters");
  await page.getByRole("button", { name: "Keep the answers" }).click();
  await expect(page.getByRole("status").filter({ hasText: "Written down as said" })).toBeVisible();

  // Its keeper answers by the link, without signing in, and nothing else is open to them.
  await page.getByRole("button", { name: "Link for its keeper" }).click();
  await expect(page.getByRole("status")).toContainText("http");
  const link = (await page.getByRole("status").textContent())!;
  const keeper = await (await page.context().browser()!.newContext()).newPage();
  await keeper.goto(link);
  await keeper.getByLabel("Your answer").first().fill("full since Monday");
  await keeper.getByRole("button", { name: "Send the answers" }).click();
  await expect(keeper.getByRole("status")).toContainText("The shop has your answers.");
  expect((await keeper.goto(`${link}x`))!.status()).toBe(404);
  await keeper.context().close();

  // What it takes along is ticked off by its label.
  await page.goto(`${shop.url}/day`);
  await row.getByRole("link", { name: "Pick list" }).click();
  await expect(page.getByRole("status")).toContainText(/3 of 3 still to take/);
  await page.getByRole("button", { name: "Take HQ-14" }).click();
  // Any stand that carries it does; the one that was taken is what stands there then.
  await page.getByRole("button", { name: "Take S-2" }).click();
  await expect(page.getByRole("button", { name: "Take S-1" })).toBeHidden();
  await page.reload();
  await expect(page.getByRole("status")).toContainText(/1 of 3 still to take/);
  await expect(page.getByRole("button", { name: "Taken S-2" })).toBeVisible();

  await page.goto(`${shop.url}/day`);
  await row.getByRole("link", { name: "Take in" }).click();
  await page.getByRole("button", { name: "Fill in what is booked" }).click();
  await expect(page.getByLabel("Customer", { exact: true })).toHaveValue("Wenna Pask");
  await page.getByLabel("VIN", { exact: true }).fill(madeUpVin("0NVLS2DA7R100466"));
  await page.getByRole("button", { name: "Propose a time" }).click();
  await expect(page.getByText(/^\d\d:\d0 holds with/)).toBeVisible();
  await page.getByRole("button", { name: "Open the job" }).click();
  await page.waitForURL(/\/jobs\/[^/]+\/take-in$/);
  await page.goto(page.url().replace(/take-in$/, "ready"));
  await expect(page.getByText("Said by Wenna Pask: full since Monday").first()).toBeVisible();
  await expect(page.getByText(/\d+ min left/)).toBeVisible();
  // It is no longer expected: it is here.
  await page.goto(`${shop.url}/day`);
  await expect(row.getByRole("link", { name: "Open" })).toBeVisible();
});
