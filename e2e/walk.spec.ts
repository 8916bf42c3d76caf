import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import Ajv2020 from "ajv/dist/2020.js";
import sharp from "sharp";
import type { JobRecord } from "@/core/record";
import { madeUpVin } from "@/demo/data/vehicles";
import {
  answerAll,
  awake,
  followToSet,
  hold,
  nextBar,
  readAt,
  runRoutine,
  signIn,
  slip,
  takeIn,
  verdict,
} from "./support/hands";
import { openShop, type Shop } from "./support/shop";

const picture = (): Promise<Buffer> =>
  sharp({ create: { width: 640, height: 480, channels: 3, background: "#753" } })
    .jpeg()
    .toBuffer();

const VIN = madeUpVin("0NVLS2DA7R100901");
let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ baySeed: "walk" })));
test.afterAll(() => shop.close());

test("one real job, from take-in to the report", async ({ page }) => {
  await signIn(page, shop.url, "ines");

  // Take in: a wrong VIN says which place and why, and may be kept with a reason; here it is
  // corrected.
  await page.goto(`${shop.url}/take-in`);
  const vin = page.getByLabel("VIN", { exact: true });
  await vin.fill(VIN.replace("D", "O"));
  await expect(page.getByText('Place 7 is "O", which no VIN uses')).toBeVisible();
  const wrong = VIN.slice(0, 16) + (VIN.endsWith("1") ? "2" : "1");
  await vin.fill(wrong);
  await expect(page.getByText(/The check digit in place 9 is/)).toBeVisible();
  await expect(page.getByLabel(/keep it, because/)).toBeVisible();
  const job = await takeIn(page, shop.url, VIN, "Aldith Crane");
  await expect(slip(page)).toContainText("Norvane Lisse");

  await page.goto(`${job}/ready`);
  await answerAll(page);
  await page.goto(`${job}/set-out`);

  // Before anything is read the adjusters go to their marks: every move is reckoned from there.
  await expect(nextBar(page)).toContainText("Put the adjusters at their marks: turn at zero");
  await nextBar(page).getByRole("button", { name: "All done" }).click();
  await expect(slip(page)).toContainText("Put the adjusters at their marks");
  // The tapes one after another; the drawing and the verdict follow each.
  await expect(page.getByText("Stand drawn where it should be: not read yet")).toBeVisible();
  const chance = page.locator("[data-chance]");
  for (const slot of ["tape-fl-l", "tape-fr-r", "laser-badge", "tape-fl-r"])
    await readAt(page, slot);
  await expect(page.getByText(/Errors drawn/)).toBeVisible();
  const before = await page.getByRole("img", { name: /^Floor plan/ }).getAttribute("aria-label");

  // A diagonal misread by 20 mm is named, and so is what to do.
  await readAt(page, "tape-fr-l", 20);
  await expect(verdict(page)).toHaveText("Suspect");
  await expect(page.locator('[data-slot="tape-fr-l"]')).toHaveAttribute("data-state", "loose");
  await expect(nextBar(page)).toContainText("Read again: front hub right → beam end left");
  expect(await page.getByRole("img", { name: /^Floor plan/ }).getAttribute("aria-label")).not.toBe(
    before,
  );
  await hold(page);
  await page.getByRole("button", { name: "Take", exact: true }).click();
  await expect(verdict(page)).not.toHaveText("Suspect");
  await expect(slip(page).getByText(/Struck by IT: Read again/)).toBeVisible();

  await followToSet(page);
  await expect(verdict(page)).toHaveText("Set");
  await expect(slip(page)).toContainText(await chance.innerText());

  // Where care pays, and whether two halves of the readings agree: worked out beside the page.
  await page.getByRole("button", { name: "Care", exact: true }).click();
  const care = page.getByRole("dialog", { name: "Where to be careful" });
  await expect(care.getByRole("region", { name: "Readings" })).toContainText("±");
  await expect(care.getByRole("region", { name: "Two halves" })).toContainText(
    /agree within \d|No two halves/,
  );
  await page.keyboard.press("Escape");

  // The set-up as it stands, in one touch.
  await page
    .getByLabel("Photo: Set-out")
    .setInputFiles({ name: "set-up.jpg", mimeType: "image/jpeg", buffer: await picture() });
  await expect(slip(page)).toContainText("Set-out");

  // Six hours later, seen from a tablet whose day has gone on: the proof has aged.
  const later = await page.context().newPage();
  await later.clock.setSystemTime(Date.now() + 6 * 3_600_000);
  await later.goto(`${job}/run`);
  await expect(later.getByRole("region", { name: "Age of the proof" })).toContainText(
    /Proved 6 h .* ago.*One reading/,
  );
  await later.close();

  // Someone walks into the stand and says nothing: the vehicle refuses for the physical reason.
  await page.goto(`${job}/run`);
  await awake(page);
  await page.getByRole("button", { name: "Simulate a knock at the stand" }).click();
  await expect(page.getByText("All kept")).toBeVisible();
  await runRoutine(page);
  await expect(page.getByRole("region", { name: "Result" })).toContainText("The vehicle refused");
  await expect(page.getByRole("region", { name: "Result" })).toContainText(
    /stands too far from the camera/,
  );

  // Say what may have been touched, follow the advice, run again.
  await nextBar(page).getByRole("link", { name: "4 Set out" }).click();
  await page.waitForURL(/set-out$/);
  await expect(verdict(page)).toBeVisible();
  await awake(page);
  await page.keyboard.press("t");
  await page.getByRole("button", { name: /Knocked or leaned on it/ }).click();
  await expect(page.locator('[data-slot="tape-fl-l"]')).toHaveAttribute("data-state", "doubt");
  await followToSet(page);
  const printed = await chance.innerText();
  await page.goto(`${job}/run`);
  await runRoutine(page);
  await expect(page.getByRole("region", { name: "Result" })).toContainText(
    "The vehicle learned its aim",
  );
  // Beside it stands what the set-out had foretold, with its spread.
  await expect(page.getByRole("region", { name: "Result" }).getByText(/^foretold/)).toHaveText([
    /foretold [+−-]0\.0\d ± 0\.3\d°/,
    // With how the body stood at its arches.
    /foretold [+−-]0\.\d\d ± 0\.3\d°/,
    /foretold [+−-]0\.\d\d ± 0\.\d\d°/,
  ]);
  const quality = await page.locator("[data-quality]").innerText();
  // Before anything is touched: what is read again bears witness that it stood.
  const witness = page.getByRole("region", { name: "Witness" });
  await expect(witness).toContainText(/would show 9\d of 100 knocks/);
  await witness
    .getByRole("button", { name: /^Read / })
    .first()
    .click();
  await page.waitForURL(/set-out$/);
  const again = await slip(page).innerText();
  await hold(page);
  await page.getByRole("button", { name: "Take", exact: true }).click();
  await expect(slip(page)).not.toHaveText(again, { useInnerText: true });
  await page.goto(`${job}/run`);
  await expect(witness).toContainText("It stood while the vehicle looked");
  await page.goto(`${job}/prove`);
  await answerAll(page);

  // Hand over: what is on screen is what is on paper and in the record.
  await page.goto(`${job}/hand-over`);
  const paper = page.getByRole("main", { name: "Hand over" });
  await expect(paper).toContainText(`Set: ${printed} chance`);
  await expect(paper).toContainText(`quality ${quality}`);
  await nextBar(page).getByRole("button", { name: "Hand over" }).click();
  await expect(nextBar(page)).toContainText("Handed over");
  await expect(page.getByText("All kept")).toBeVisible();

  const plain = (text: string): string => text.replace(/[\s\u202f\u00a0]+/g, " ").trim();
  const pdf = await page.request.get(`${shop.url}/api/jobs/${job.split("/").at(-1)}/report`);
  expect(pdf.headers()["content-type"]).toBe("application/pdf");
  const text = plain(
    execFileSync("pdftotext", ["-layout", "-", "-"], { input: await pdf.body(), encoding: "utf8" }),
  );
  const figures = (await paper.locator("td.figure").allInnerTexts())
    .map(plain)
    .filter((f) => /\d/.test(f));
  expect(figures.length).toBeGreaterThan(40);
  for (const figure of [
    ...figures,
    VIN,
    "Aldith Crane",
    plain(`Set: ${printed} chance`),
    plain(`quality ${quality}`),
    "Distance Across Twist Height",
    "Drawn as a plumb line",
  ])
    expect(text).toContain(figure);

  const record = (await (
    await page.request.get(`${shop.url}/api/jobs/${job.split("/").at(-1)}/record`)
  ).json()) as JobRecord;
  const schema = JSON.parse(readFileSync("public/schemas/record-2.json", "utf8")) as object;
  const validate = new Ajv2020({
    strict: false,
    formats: { "date-time": true, date: true },
  }).compile(schema);
  expect(validate(record), JSON.stringify(validate.errors)).toBe(true);
  const [calibration] = record.calibrations;
  const [target] = calibration!.targets;
  const broken = { ...calibration!, targets: [{ ...target!, readings: [{}] }] };
  expect(validate({ ...record, calibrations: [broken] })).toBe(false);
  expect(calibration!.run).toMatchObject({ status: "passed", simulated: true });
  expect(calibration!.run.attempts).toBeGreaterThanOrEqual(2);
  expect(calibration!.run.result!.passed).toBe(true);
  expect(calibration!.run.foretold!.axes.map((a) => a.axis)).toEqual(["yaw", "pitch", "roll"]);
  expect(text).toMatch(/Set-out and stance foretold yaw/);
  expect(record.photos.map((p) => p.shows)).toEqual(["Set-out"]);
  expect(target!.witness).toMatchObject({ readings: 1, stood: true });
  expect(text).toContain("One reading was taken again after the vehicle had learned");
  expect(target!.settled!.halves).toBeDefined();
  expect(text).toMatch(/Two halves of the readings, \d|No two halves/);
  expect(target!.settled!.chance).toBeGreaterThanOrEqual(0.99);
  expect(target!.readings.filter((r) => r.state === "struck")).toHaveLength(1);
  expect(target!.readings.every((r) => r.at && r.instrument.id && r.by.initials === "IT")).toBe(
    true,
  );
  expect(record.handedOver!.by.name).toBe("Ines Tarbet");
  // Every settled fact stood on the slip.
  for (const r of target!.readings) await expect(slip(page)).toContainText(r.name);
});
