import { execFileSync } from "node:child_process";
import { expect, test, type Page } from "@playwright/test";
import type { JobRecord } from "@/core/record";
import { madeUpVin } from "@/demo/data/vehicles";
import {
  answerAll,
  followToSet,
  nextBar,
  readFloor,
  runRoutine,
  signIn,
  slip,
  verdict,
} from "./support/hands";
import { openShop, type Shop } from "./support/shop";

let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ baySeed: "around" })));
test.afterAll(() => shop.close());

/** Takes in an estate with new glass and a mirror that was off: two calibrations in one visit. */
async function takeInTwo(page: Page): Promise<string> {
  await page.goto(`${shop.url}/take-in`);
  await page.getByLabel("VIN", { exact: true }).fill(madeUpVin("0BRTRN5C7T220977"));
  await page.getByRole("button", { name: "Windshield taken out or replaced" }).click();
  await page.getByRole("button", { name: "Outside mirror taken off or replaced" }).click();
  await page.getByRole("button", { name: "vehicle left", exact: true }).click();
  await page.getByRole("button", { name: "Cameras in both mirrors" }).click();
  await page.getByLabel("Rear toe, vehicle left").fill("0.12");
  await page.getByLabel("Rear toe, vehicle right").fill("0.10");
  await page.getByLabel("Customer", { exact: true }).fill("All Round");
  const owed = page.getByRole("region", { name: "Owed" });
  await expect(owed).toContainText("Sheets: Tarn, forward camera, static, on the thrust line");
  await expect(owed).toContainText("Tarn, surround view, two mats");
  await expect(nextBar(page)).toContainText("mats HQ-M1 and HQ-M3");
  await page.getByRole("button", { name: "Open the job" }).click();
  await page.waitForURL(/\/jobs\/[^/]+\/take-in$/);
  return page.url().replace(/\/take-in$/, "");
}

/**
 * The joined picture: a step typed in widths of a line is said back with what may be behind it; then
 * the eyes of the stand-in read all of it.
 */
async function lookAtSeams(page: Page): Promise<void> {
  await page.getByRole("button", { name: /Floor lines run through the seams/ }).click();
  await expect(page.getByRole("img", { name: "The joined picture" })).toHaveAttribute(
    "data-drawn",
    "",
  );
  const step = (corner: string, lines: string, way: string, by: string): Promise<void> =>
    page
      .getByRole("button", { name: `Seam ${corner}` })
      .click()
      .then(() =>
        page.getByRole("group", { name: lines }).getByRole("button", { name: way }).click(),
      )
      .then(() => page.getByRole("group", { name: lines }).getByRole("textbox").fill(by));
  // A right camera that looks too low draws its floor farther off.
  await step("front right", "Lines along the car", "out", "23");
  await step("front right", "Lines across the car", "forward", "26");
  await expect(nextBar(page)).toContainText("6 still to read");
  await step("rear right", "Lines across the car", "back", "46");
  await page.getByRole("button", { name: "Say it in widths" }).click();
  await step("rear right", "Lines along the car", "out", "0.5");
  await page.getByRole("button", { name: "All that is left joins" }).click();
  await expect(nextBar(page)).toContainText("rear right, lines across: a step of 46 mm back", {
    ignoreCase: true,
  });
  const behind = page.getByRole("region", { name: "What may be behind it" });
  await expect(behind).toContainText(/the right camera looks 0\.[78]° too low/, {
    timeout: 15_000,
  });
  await expect(nextBar(page)).toContainText("mirror folded out");
  await page.getByRole("button", { name: "Read all of it (simulated)" }).click();
  await expect(nextBar(page)).not.toContainText("46 mm back");
}

const strip = (page: Page) => page.getByRole("navigation", { name: "Calibrations" });
const mats = (page: Page) => page.getByRole("navigation", { name: "Targets" });

test("one job, a forward camera and a surround view, from take-in to the report; two people set out the mats together", async ({
  browser,
}) => {
  const [first, second] = [await browser.newContext(), await browser.newContext()];
  const [a, b] = [await first.newPage(), await second.newPage()];
  await signIn(a, shop.url, "ines");
  await signIn(b, shop.url, "oskar");
  const job = await takeInTwo(a);
  await readFloor(a, job);
  await answerAll(a);

  // The first calibration as it always was; the strip says which one it is.
  await a.goto(`${job}/set-out`);
  await expect(strip(a).getByRole("button", { name: /^1 .*Forward camera/ })).toHaveAttribute(
    "aria-current",
    "true",
  );
  await followToSet(a);
  await a.goto(`${job}/run`);
  await runRoutine(a);
  await expect(a.getByRole("region", { name: "Result" })).toContainText(
    "The vehicle learned its aim",
  );
  // What comes next is the other calibration, not the proof of this one.
  await expect(nextBar(a)).toContainText("Surround-view cameras, Set out");
  await nextBar(a).getByRole("link", { name: "4 Set out" }).click();
  await a.waitForURL(/set-out$/);
  await expect(strip(a).getByRole("button", { name: /^2 .*Surround-view/ })).toHaveAttribute(
    "aria-current",
    "true",
  );
  await expect(mats(a).getByRole("button", { name: /left mat$/ })).toHaveAttribute(
    "aria-current",
    "true",
  );
  // The routine does not begin before both lie as they must.
  await a.goto(`${job}/run`);
  await expect(nextBar(a)).toContainText("Scan or type the code of left mat");
  await a.goto(`${job}/set-out`);

  // Oskar takes the right mat meanwhile. Neither waits for the other, and nobody is asked anything.
  await b.goto(`${job}/set-out`);
  await strip(b)
    .getByRole("button", { name: /Surround-view/ })
    .click();
  await mats(b)
    .getByRole("button", { name: /right mat$/ })
    .click();
  await expect(nextBar(b)).toContainText("Right mat");
  const both = [
    { page: a, printed: /Mat set: left mat/ },
    { page: b, printed: /Mat set: right mat/ },
  ];
  await Promise.all(both.map(({ page, printed }) => followToSet(page, printed)));
  for (const { page } of both) {
    await expect(page.getByRole("alert", { name: "Two tablets wrote" })).toBeHidden();
    await expect(slip(page)).toContainText("Mat set: left mat");
    await expect(slip(page)).toContainText("Mat set: right mat");
  }
  // What one of them read last, between the mats, is news to the other one too: it may ask for one
  // more look at a mat that was set a moment before.
  for (const { page, printed } of both)
    if ((await verdict(page).innerText()) !== "Set") await followToSet(page, printed);
  for (const { page } of both) await expect(verdict(page)).toHaveText("Set");

  // A code of the other side, then the right ones; then the vehicle looks.
  await a.goto(`${job}/run`);
  await a.getByLabel("Mat code").fill("HQ-M3");
  await a.getByRole("button", { name: "Check it" }).click();
  await expect(nextBar(a)).toContainText("HQ-M3 is the one for vehicle right");
  await a.getByRole("button", { name: "Check another" }).click();
  await runRoutine(a);
  await expect(a.getByRole("region", { name: "Result" })).toContainText(
    "The vehicle joined its pictures",
  );
  await a.goto(`${job}/prove`);
  await lookAtSeams(a);
  await answerAll(a);
  await strip(a)
    .getByRole("button", { name: /Forward camera/ })
    .click();
  await answerAll(a);

  await a.goto(`${job}/hand-over`);
  await nextBar(a).getByRole("button", { name: "Hand over" }).click();
  await expect(nextBar(a)).toContainText("Handed over");
  await expect(a.getByText("All kept")).toBeVisible();
  const api = `${shop.url}/api/jobs/${job.split("/").at(-1)}`;
  const record = (await (await a.request.get(`${api}/record`)).json()) as JobRecord;
  expect(record.calibrations.map((c) => c.id)).toEqual(["tarn-forward", "tarn-surround"]);
  expect(record.calibrations.every((c) => c.run.status === "passed")).toBe(true);
  expect(record.owed.lines.map((l) => l.outcome)).toEqual(["this-record", "this-record"]);
  const lying = record.calibrations[1]!.targets;
  expect(lying.map((t) => [t.name, t.check?.code])).toEqual([
    ["left mat", "HQ-M1"],
    ["right mat", "HQ-M3"],
  ]);
  for (const t of lying) expect(t.settled!.chance).toBeGreaterThanOrEqual(0.99);
  // Whoever was last is judged against the other: spacing, parallel, equally far from the wheels.
  const relations = lying.flatMap((t) => t.settled!.quantities.flatMap((q) => (q.to ? q.id : [])));
  expect([...new Set(relations)].sort()).toEqual(["equal-distance", "parallel", "spacing"]);
  const readers = new Set(lying.flatMap((t) => t.readings.map((r) => r.by.initials)));
  expect([...readers].sort()).toEqual(["IT", "OV"]);
  const text = execFileSync("pdftotext", ["-layout", "-", "-"], {
    input: await (await a.request.get(`${api}/report`)).body(),
    encoding: "utf8",
  });
  for (const words of ["left mat", "right mat", "HQ-M1", "arrow", "Spacing, with"])
    expect(text).toContain(words);
  await first.close();
  await second.close();
});
