import { expect, test, type Page } from "@playwright/test";
import {
  answerAll,
  awake,
  followToSet,
  nextBar,
  readFloor,
  runRoutine,
  signIn,
} from "./support/hands";
import { handOver, takeInDone } from "./support/job";
import { openShop, type Shop } from "./support/shop";

test.use({ actionTimeout: 20_000 });
let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ baySeed: "all-round" })));
test.afterAll(() => shop.close());

const targets = (page: Page) => page.getByRole("navigation", { name: "Targets" });
const strip = (page: Page) => page.getByRole("navigation", { name: "Calibrations" });

/** Sets out every target of the calibration in hand, one after the other. */
async function setOutAll(page: Page, job: string, names: readonly string[]): Promise<void> {
  await page.goto(`${job}/set-out`);
  for (const name of names) {
    await expect(
      targets(page).getByRole("button", { name: new RegExp(`${name}$`) }),
    ).toHaveAttribute("aria-current", "true");
    await followToSet(page, new RegExp(`Mat set: ${name}`));
    const on = page.getByRole("button", { name: /^Set out / });
    if (name !== names.at(-1)) await on.click();
  }
}

test("left-hand drive: a radar and mats all round in one visit; a reflector too high and a mat the wrong way round are caught", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  const next = nextBar(page);
  const job = await takeInDone(page, shop.url, {
    vin: "0BRFEL4A7R600118",
    customer: "All About",
    done: [["Grille taken off or replaced", null]],
    answers: ["Keeps distance"],
    owed: ["Fell, front radar, reflector", "Fell, surround view, mats all round"],
  });
  await readFloor(page, job);
  await answerAll(page);
  await setOutAll(page, job, [
    "left mat",
    "right mat",
    "front mat",
    "rear mat, left piece",
    "rear mat, right piece",
  ]);
  await page.goto(`${job}/run`);
  await expect(next).toContainText("Scan or type the code of left mat");
  // The other side's mat, and the right one turned end for end.
  await page.getByLabel("Mat code").fill("HQ-M3");
  await page.getByRole("button", { name: "Check it" }).click();
  await expect(next).toContainText("HQ-M3 is the one for vehicle right");
  await page.getByRole("button", { name: "Check another" }).click();
  await page.getByLabel("Mat code").fill("HQ-M1");
  await page.getByRole("button", { name: "Check it" }).click();
  await page.getByRole("button", { name: "No", exact: true }).click();
  await expect(next).toContainText("The mat lies the wrong way round: turn it.");
  await page.getByRole("button", { name: "It is turned" }).click();
  await runRoutine(page);
  const result = page.getByRole("region", { name: "Result" });
  await expect(result).toContainText("The vehicle joined its pictures");

  // The radar is not begun before its reflector is proved: as it was rolled in it stands too high or low.
  await strip(page)
    .getByRole("button", { name: /Front radar/ })
    .click();
  await expect(next).toContainText("Prove the reflector first");
  await page.goto(`${job}/set-out`);
  await awake(page);
  await expect(page.getByRole("group", { name: "Height" })).toBeVisible();
  await expect(next).toContainText(/Crank the reflector|Read the height scale/);
  await followToSet(page, /Reflector set/);
  await page.goto(`${job}/run`);
  await runRoutine(page);
  await expect(result).toContainText("The radar answers how it was misaligned");
  await page.goto(`${job}/prove`);
  await answerAll(page);
  const { record, report } = await handOver(page, shop.url, job);
  expect(record.calibrations.map((c) => [c.id, c.run.status, c.targets.length]).sort()).toEqual([
    ["fell-radar", "passed", 1],
    ["fell-surround", "passed", 5],
  ]);
  for (const words of ["front radar, reflector", "mats all round", "rear mat, right piece"])
    expect(report).toContain(words);
});

test("a box truck: side cameras and the rear camera, a door and a tailgate that were off", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  const job = await takeInDone(page, shop.url, {
    vin: "0KDCRR7A7R600125",
    customer: "All About",
    done: [
      ["Door taken off or replaced", "vehicle left"],
      ["Tailgate taken off or replaced", null],
    ],
    owed: ["Carrier 7, side cameras, two mats", "Carrier 7, rear camera, mat behind"],
  });
  await page.goto(`${job}/ready`);
  await answerAll(page);
  await setOutAll(page, job, ["left mat", "right mat"]);
  await page.goto(`${job}/run`);
  await runRoutine(page);
  await strip(page)
    .getByRole("button", { name: /Rear camera/ })
    .click();
  await page.goto(`${job}/set-out`);
  await followToSet(page, /Mat set/);
  await page.goto(`${job}/run`);
  await runRoutine(page);
  await page.goto(`${job}/prove`);
  await answerAll(page);
  const { record, report } = await handOver(page, shop.url, job);
  expect(record.calibrations.map((c) => [c.id, c.run.status, c.targets.length]).sort()).toEqual([
    ["carrier-rear", "passed", 1],
    ["carrier-sides", "passed", 2],
  ]);
  for (const words of ["side cameras, two mats", "rear camera, mat behind"])
    expect(report).toContain(words);
});

test("boards taken round a small van: behind it for the rear camera, then to either side", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  const job = await takeInDone(page, shop.url, {
    vin: "0AVMTV2A7R600132",
    customer: "All About",
    done: [
      ["Door taken off or replaced", "vehicle left"],
      ["Tailgate taken off or replaced", null],
    ],
    owed: ["Motto, side cameras, board on either side", "Motto, rear camera, board behind"],
  });
  await page.goto(`${job}/ready`);
  await answerAll(page);
  const next = nextBar(page);
  await page.goto(`${job}/set-out`);
  await expect(page.getByText("Place 1 of 2: board on vehicle left")).toBeVisible();
  await expect(page.getByRole("group", { name: "Distance" })).toBeVisible();
  await followToSet(page, /Board set: board on vehicle left/);
  await page.screenshot({ path: "/tmp/around1.png" });
  await page.goto(`${job}/run`);
  const round = next.getByRole("button", { name: "Set it out there" });
  await runRoutine(page, round);
  await expect(next).toContainText("Take the board round to vehicle right.");
  await round.click();
  await page.waitForURL(/set-out$/);
  await expect(page.getByText("Place 2 of 2: board on vehicle right")).toBeVisible();
  await followToSet(page, /Board set: board on vehicle right/);
  await page.goto(`${job}/run`);
  await next.getByRole("button", { name: "It stands there" }).click();
  await next.getByRole("button", { name: "Start the routine" }).click();
  await expect(next).toContainText("The routine is done", { timeout: 20_000 });
  await strip(page)
    .getByRole("button", { name: /Rear camera/ })
    .click();
  await page.goto(`${job}/set-out`);
  // One stand for both: it is at the vehicle's right until somebody says that it was brought.
  await expect(next).toContainText("Bring S-1 to its place: board behind.");
  await expect(next).toContainText("It is at board on vehicle right now.");
  await next.getByRole("button", { name: "It stands there now" }).click();
  await followToSet(page, /Board set: board behind/);
  await page.screenshot({ path: "/tmp/around2.png" });
  await page.getByRole("button", { name: "Means" }).click();
  await expect(page.getByRole("dialog")).toContainText("as the board stands now");
  await page.screenshot({ path: "/tmp/around3.png" });
  await page.keyboard.press("Escape");
  await page.goto(`${job}/run`);
  await runRoutine(page);
  await page.goto(`${job}/prove`);
  await answerAll(page);
  const { record, report } = await handOver(page, shop.url, job);
  expect(record.calibrations.map((c) => [c.id, c.run.status, c.targets.length]).sort()).toEqual([
    ["motto-rear", "passed", 1],
    ["motto-sides", "passed", 2],
  ]);
  for (const t of record.calibrations.flatMap((c) => c.targets))
    expect(t.settled!.chance).toBeGreaterThanOrEqual(0.99);
  for (const words of ["board on either side", "rear camera, board behind"])
    expect(report).toContain(words);
});
