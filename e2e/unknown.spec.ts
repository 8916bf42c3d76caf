import { execFileSync } from "node:child_process";
import { expect, test, type Page } from "@playwright/test";
import type { JobRecord } from "@/core/record";
import { madeUpVin } from "@/demo/data/vehicles";
import {
  answerAll,
  awake,
  followToSet,
  nextBar,
  readFloor,
  runRoutine,
  signIn,
  slip,
  verdict,
} from "./support/hands";
import { openShop, type Shop } from "./support/shop";

test.use({ actionTimeout: 20_000 });

let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ baySeed: "unknown" })));
test.afterAll(() => shop.close());

const VIN = madeUpVin("0STVAL7A7R100311");
/** What one person tapes, and reads in the maker's information, by the form's own labels. */
const TYPED = {
  Make: "Ostrin",
  Model: "Vale",
  "Front hub to rear hub, mm": "2 704",
  "Front hub caps apart, mm": "1672",
  "Rear hub caps apart, mm": "1668",
  "Hub above the floor, mm": "334",
  Source: "Maker’s service information, job 7.3",
  "Front hub line to board, mm": "2900",
  "Board centre above floor, mm": "1200",
  "Distance ±, mm": "12",
  "Sideways ±, mm": "12",
  "Height ±, mm": "6",
  "Twist ±, degrees": "0.35",
};

async function takeInUnknown(page: Page): Promise<string> {
  await page.goto(`${shop.url}/take-in`);
  await page.getByLabel("VIN", { exact: true }).fill(VIN);
  await expect(nextBar(page)).toContainText("type it on the spot");
  await page.getByRole("button", { name: "In no book: type it on the spot" }).click();
  const form = page.getByRole("region", { name: "Typed on the spot" });
  for (const [label, value] of Object.entries(TYPED)) await form.getByLabel(label).fill(value);
  // A wheelbase in centimetres is no wheelbase; what was meant is said where it was typed.
  await form.getByLabel("Front hub to rear hub, mm").fill("270.4");
  await expect(form).toContainText("Meant as 270.4 centimetres?");
  await form.getByLabel("Front hub to rear hub, mm").fill("2704");
  await expect(nextBar(page)).toContainText("Choose the board");
  await form.getByLabel("Board", { exact: true }).selectOption("HQ-14");
  await form.getByRole("button", { name: "Front radar" }).click();
  await page.getByRole("button", { name: "Windshield taken out or replaced" }).click();
  await page.getByLabel("Customer", { exact: true }).fill("Perrin Aske");
  // Nothing typed is lost, whatever becomes of the page.
  await page.reload();
  await expect(form.getByLabel("Rear hub caps apart, mm")).toHaveValue("1668");
  await page.getByRole("button", { name: "Open the job" }).click();
  await page.waitForURL(/\/jobs\/[^/]+\/take-in$/);
  return page.url().replace(/\/take-in$/, "");
}

test("one person alone with a car no book has: typed on the spot, set out, learned; the report says whose figures they are", async ({
  page,
  browser,
}) => {
  await signIn(page, shop.url, "ines");
  const job = await takeInUnknown(page);
  await expect(slip(page)).toContainText("In no book: figures typed on the spot");
  await readFloor(page, job);
  await page.goto(`${job}/ready`);
  await answerAll(page);
  await page.goto(`${job}/set-out`);
  await followToSet(page);
  await expect(verdict(page)).toHaveText("Set");
  await page.goto(`${job}/run`);
  await runRoutine(page);
  await page.goto(`${job}/prove`);
  await answerAll(page);
  await page.goto(`${job}/hand-over`);
  await awake(page);

  const api = job.replace("/jobs/", "/api/jobs/");
  const record = async (): Promise<JobRecord> =>
    (await (await page.request.get(`${api}/record`)).json()) as JobRecord;
  const report = async (): Promise<string> =>
    execFileSync("pdftotext", ["-layout", "-", "-"], {
      input: await (await page.request.get(`${api}/report`)).body(),
      encoding: "utf8",
    }).replace(/\s+/g, " ");
  const figures = page.getByRole("region", { name: "Figures typed on the spot" });
  // Nobody is a second person to himself.
  await expect(figures).toContainText("A colleague signs in");
  await expect(figures.getByRole("button")).toHaveCount(0);
  await expect(nextBar(page)).toContainText("no second person has compared them");
  expect((await record()).typedFigures).toMatchObject({ tapedSigmaMm: 4, compared: null });
  expect((await record()).calibrations[0]!.sheet).toMatchObject({ status: "provisional" });
  expect(await report()).toContain("NO SECOND PERSON HAS COMPARED THEM");

  const colleague = await (await browser.newContext()).newPage();
  await signIn(colleague, shop.url, "oskar");
  await colleague.goto(`${job}/hand-over`);
  const second = colleague.getByRole("region", { name: "Figures typed on the spot" });
  await expect(second).toContainText("2 704 mm");
  await second.getByRole("button", { name: "I compared them: each agrees" }).click();
  await expect(second).toContainText("Oskar Veld compared them with the source");
  await expect(colleague.getByText("All kept")).toBeVisible();
  await nextBar(colleague).getByRole("button", { name: "Hand over" }).click();
  await expect(nextBar(colleague)).toContainText("Handed over");
  await expect(colleague.getByText("All kept")).toBeVisible();
  expect((await record()).typedFigures!.compared!.by.name).toBe("Oskar Veld");
  const text = await report();
  expect(text).toContain("compared figure by figure by Oskar Veld");
  expect(text).toContain("typed on the spot by Ines Tarbet, the vehicle taped to ± 4.0 mm");
  // The front radar was only seen to be there: it is owed by the rules, or is not, and never forgotten.
  expect(text).not.toContain("NO SECOND PERSON");
  await colleague.context().close();
});
