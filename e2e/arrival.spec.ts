import { execFileSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import bwipjs from "bwip-js/node";
import { expect, test, type Page } from "@playwright/test";
import sharp from "sharp";
import { madeUpVin } from "@/demo/data/vehicles";
import { answerAll, nextBar, signIn, slip } from "./support/hands";
import { openShop, type Shop } from "./support/shop";

// The second test meets the vehicle that the first took in.
test.describe.configure({ mode: "serial" });
let shop: Shop;
test.beforeAll(async () => void (shop = await openShop()));
test.afterAll(() => shop.close());

const VIN = madeUpVin("0NVLS2DA7R100431");
const jpeg = (background = "#357"): Promise<Buffer> =>
  sharp({ create: { width: 640, height: 480, channels: 3, background } })
    .jpeg()
    .toBuffer();

/** Nothing on the page is wider than the page. */
const fits = async (page: Page): Promise<void> =>
  expect(
    await page.evaluate(() => document.documentElement.scrollWidth - innerWidth),
  ).toBeLessThanOrEqual(0);

test("a new technician takes a vehicle in, sees what it owes and why, and readies it", async ({
  page,
}) => {
  await signIn(page, shop.url, "oskar");
  await page.getByRole("link", { name: "Take in a vehicle" }).click();
  await expect(nextBar(page)).toContainText("Type or scan the VIN.");

  // A scanner types wherever the cursor stands; what it typed is taken out of that field again.
  const customer = page.getByLabel("Customer", { exact: true });
  const scanned = page.getByLabel("VIN", { exact: true });
  // On a busy machine the keys come too slowly for a scanner: then it is scanned once more.
  await expect(async () => {
    await customer.fill("Wen");
    await page.waitForTimeout(400);
    await page.keyboard.type(VIN);
    await page.keyboard.press("Enter");
    await expect(scanned).toHaveValue(VIN, { timeout: 3000 });
  }).toPass();
  await expect(customer).toHaveValue("Wen");
  await page.getByRole("button", { name: "Windshield taken out or replaced" }).click();
  await page.getByRole("button", { name: "Promised for no time named" }).click();
  const calendar = page.getByRole("dialog", { name: "Promised for" });
  await calendar.getByRole("button", { name: "Go to the Next Month" }).click();
  await calendar.getByRole("button", { name: /\b15th\b/ }).click();
  await calendar.getByLabel("Time").fill("25");
  await expect(calendar.getByText("Type hours and minutes, such as 16:30.")).toBeVisible();
  await expect(calendar.getByRole("button", { name: "Take it" })).toBeDisabled();
  await calendar.getByLabel("Time").fill("1630");
  await calendar.getByRole("button", { name: "Take it" }).click();
  await expect(page.getByRole("button", { name: /Promised for .* 15 .*, 16:30/ })).toBeFocused();
  await page.getByRole("button", { name: "Open the job" }).click();
  await page.waitForURL(/jobs\/[^/]+\/take-in$/);
  await expect(nextBar(page)).toContainText(
    "Still to write down: the vehicle as it came in, the glass and its mount",
  );

  // Photos: what is none gets a clear answer; a real one is there at once and on the slip.
  const photo = page.getByLabel("Photo: Odometer", { exact: true });
  await photo.setInputFiles({
    name: "../../odometer.jpg",
    mimeType: "image/jpeg",
    buffer: Buffer.from("%PDF-1.7"),
  });
  await expect(page.getByText("This is a PDF, not a photo.")).toBeVisible();
  await photo.setInputFiles({ name: "x.jpg", mimeType: "image/jpeg", buffer: await jpeg() });
  await expect(page.getByRole("button", { name: "Look at the photo: Odometer" })).toBeVisible();
  // The line to the shop is cut: two photos wait on the tablet, over a reload too, and go when it
  // is back.
  await page.route("**/api/photos", (route) => route.abort());
  const waits = [await jpeg("#375"), await jpeg("#446")];
  await photo.setInputFiles(
    waits.map((buffer, i) => ({ name: `${i}.jpg`, mimeType: "image/jpeg", buffer })),
  );
  await expect(page.getByText("2 photos wait. No connection to the shop.")).toBeVisible();
  await page.unroute("**/api/photos");
  await page.reload();
  await expect(page.getByRole("button", { name: "Look at the photo: Odometer" })).toContainText(
    "Odometer, 3",
  );
  await page.getByLabel("Odometer", { exact: true }).fill("52 330 mi");
  await page.getByRole("button", { name: "Airbag" }).click();
  await page.getByRole("button", { name: "Lane keeping off" }).click();
  const arrival = page.getByRole("region", { name: "As it came in" });
  await arrival.getByRole("button", { name: "Print to the slip" }).click();
  await expect(slip(page)).toContainText("84 217 km");
  await expect(slip(page)).toContainText("As found: Lane keeping");

  const glass = page.getByRole("region", { name: "Glass and mount" });
  await glass.getByLabel("Part number on the glass").fill("NV-W-2210");
  for (const spot of [
    "top vehicle left",
    "top vehicle right",
    "bottom vehicle left",
    "bottom vehicle right",
  ])
    await glass.getByLabel(spot, { exact: true }).fill("0.2");
  await glass.getByRole("button", { name: /no film, no label: no/ }).click();
  await expect(glass).toContainText("Film or label before the camera. Put it right first.");
  await glass.getByRole("button", { name: /no film, no label: yes/ }).click();
  await glass.getByRole("button", { name: "Print to the slip" }).click();

  const pad = page.getByRole("img", { name: "Field for the signature" });
  await pad.scrollIntoViewIfNeeded();
  const box = (await pad.boundingBox())!;
  await page.mouse.move(box.x + 40, box.y + 60);
  await page.mouse.down();
  for (const [x, y] of [
    [120, 20],
    [180, 90],
    [260, 30],
  ] as const)
    await page.mouse.move(box.x + x, box.y + y, { steps: 4 });
  await page.mouse.up();
  await page.getByRole("button", { name: "Keep the signature" }).click();
  await expect(slip(page)).toContainText("signed by Wen");
  await expect(nextBar(page)).toContainText("Taken in, all of it.");

  await nextBar(page).getByRole("link", { name: "2 Owed" }).click();
  await expect(page.getByRole("main")).toContainText(
    "new glass changes what it sees, so it must learn its aim again",
  );
  await nextBar(page).getByRole("link", { name: "3 Ready" }).click();
  await expect(page.getByRole("main", { name: "Ready" })).toBeVisible();
  await answerAll(page);
  await expect(nextBar(page).getByRole("link", { name: "4 Set out" })).toBeVisible();

  // The same pages on a phone.
  const job = page.url().replace(/\/ready$/, "");
  await page.setViewportSize({ width: 390, height: 844 });
  for (const path of [`${shop.url}/take-in`, `${job}/take-in`, `${job}/owed`, `${job}/ready`]) {
    await page.goto(path);
    await expect(page.getByRole("main")).toBeVisible();
    await fits(page);
  }

  const pdf = await (
    await page.request.get(`${job.replace("/jobs/", "/api/jobs/")}/report`)
  ).body();
  writeFileSync("test-results/arrival.pdf", pdf);
  const text = execFileSync("pdftotext", ["-layout", "test-results/arrival.pdf", "-"], {
    encoding: "utf8",
  });
  for (const words of [
    "84 217 km (the dash shows 52 330 mi)",
    "Lane keeping: off",
    "Airbag",
    "Wen",
    "Photos",
    "front left tyre",
  ])
    expect(text.replace(/\u00a0|\u202f/g, " ")).toContain(
      words === "front left tyre" ? "front left" : words,
    );
});

test("a VIN is read from a photo of its label; a vehicle that was here before brings its papers along", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  await page.goto(`${shop.url}/take-in`);
  const file = page.getByLabel("Read it from a photo");
  await file.setInputFiles({ name: "blank.jpg", mimeType: "image/jpeg", buffer: await jpeg() });
  await expect(page.getByText("No code found in the picture.")).toBeVisible();
  const label = await bwipjs.toBuffer({
    bcid: "datamatrix",
    text: `I${VIN}`,
    scale: 6,
    backgroundcolor: "ffffff",
    padding: 12,
  });
  const shot = await sharp({ create: { width: 900, height: 700, channels: 3, background: "#776" } })
    .composite([{ input: label, left: 300, top: 200 }])
    .rotate(11)
    .blur(1)
    .jpeg()
    .toBuffer();
  await file.setInputFiles({ name: "label.jpg", mimeType: "image/jpeg", buffer: shot });
  await expect(page.getByLabel("VIN", { exact: true })).toHaveValue(VIN);
  await expect(page.getByText("Here before: Wen")).toBeVisible();

  // A tool that is plugged in tells whose car it is, and that it is another one.
  await expect(async () => {
    await page.getByRole("button", { name: /^Ask the scan tool/ }).click();
    await expect(page.getByText("plugged into another car")).toBeVisible({ timeout: 2000 });
  }).toPass();

  await page.getByRole("button", { name: "Start over" }).click();
  await page.getByRole("button", { name: "Was here before" }).click();
  await page.getByLabel("Find a vehicle").fill("wen");
  await page
    .getByRole("dialog")
    .getByRole("button", { name: /Norvane Lisse/ })
    .click();
  await expect(page.getByLabel("Customer", { exact: true })).toHaveValue("Wen");
  await expect(page.getByLabel("VIN", { exact: true })).toHaveValue(VIN);
});

test("the lead binds the shop to the maker's glass and writes a rule; a technician may only read", async ({
  browser,
}) => {
  const [mine, theirs] = [await browser.newContext(), await browser.newContext()];
  const page = await mine.newPage();
  await signIn(page, shop.url, "mara");
  await page.getByRole("link", { name: "Rules", exact: true }).click();
  await page.getByRole("button", { name: /The maker’s glass only/ }).click();
  await expect(page.getByRole("button", { name: /The maker’s glass only/ })).toHaveAttribute(
    "aria-pressed",
    "true",
  );
  await page.getByRole("button", { name: "New rule" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Name of the rule").fill("hail-forward");
  await dialog.getByRole("button", { name: "Keep it" }).click();
  await expect(dialog.getByRole("alert")).toContainText('rule "hail-forward", when');
  await dialog.getByRole("button", { name: "Bulletin of the maker applies" }).click();
  await dialog.getByRole("button", { name: "Rear camera" }).click();
  await dialog
    .getByLabel("Because, in one sentence")
    .fill("Hail dents may have moved the tailgate.");
  await dialog.getByLabel("Source: the shop’s own").fill("Shop rule book, page 30");
  await dialog.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByText("Hail dents may have moved the tailgate.")).toBeVisible();
  // An order that contradicts the others is refused by name; put right, it holds.
  await page.getByRole("button", { name: "New order" }).click();
  await dialog.getByLabel("Name of the order").fill("road-first");
  const first = dialog.getByRole("group", { name: "First: what kind" });
  await first.getByRole("button", { name: "dynamic" }).click();
  await dialog
    .getByRole("group", { name: "Then: what kind" })
    .getByRole("button", { name: "learn" })
    .click();
  await dialog.getByLabel("Because").fill("Somebody thought so.");
  await dialog.getByRole("button", { name: "Keep it" }).click();
  await expect(dialog.getByRole("alert")).toContainText("go round in a circle");
  await first.getByRole("button", { name: "static" }).click();
  await dialog
    .getByRole("group", { name: "Then: what kind" })
    .getByRole("button", { name: "dynamic" })
    .click();
  await dialog.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByRole("region", { name: "Order", exact: true })).toContainText(
    "Somebody thought so.",
  );
  await page.getByRole("button", { name: "Edit the effort of Forward camera, static" }).click();
  await dialog.getByLabel("Bay", { exact: true }).fill("65");
  await dialog.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByRole("region", { name: "What each takes" })).toContainText(
    "65 min in the bay",
  );

  const other = await theirs.newPage();
  await signIn(other, shop.url, "oskar");
  await other.goto(`${shop.url}/settings`);
  await expect(other.getByText("Hail dents may have moved the tailgate.")).toBeVisible();
  await expect(other.getByRole("button", { name: "New rule" })).toBeHidden();
  await expect(other.getByRole("button", { name: /The maker’s glass only/ })).toBeDisabled();

  // A corrected dimension needs a second person, like a sheet.
  await other.goto(`${shop.url}/vehicles/norvane-lisse`);
  await other.getByRole("button", { name: "New version" }).click();
  await other.getByLabel("Wheelbase", { exact: true }).fill("2.612 m");
  await expect(nextBar(other)).toContainText("A second person checks it now");
  await expect(other.getByText(/draft of version 2 · kept/)).toBeVisible();
  await page.goto(other.url());
  await page.getByRole("button", { name: "I have checked it" }).click();
  await page.waitForURL(/vehicles\/norvane-lisse$/);
  await expect(page.getByRole("region", { name: "What changed" })).toContainText("the wheelbase");
  await mine.close();
  await theirs.close();
});
