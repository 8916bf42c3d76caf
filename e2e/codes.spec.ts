import { expect, test, type Page } from "@playwright/test";
import { answerAll, nextBar, runRoutine, signIn } from "./support/hands";
import { handOver, takeInDone, TRAILER_CAMERA_OFF } from "./support/job";
import { openShop, type Shop } from "./support/shop";

test.use({ actionTimeout: 20_000 });
let shop: Shop;
// In this bay the steering forgets its end stops when it is cleared, and nothing is silent.
test.beforeAll(async () => void (shop = await openShop({ baySeed: "explained" })));
test.afterAll(() => shop.close());

/** A trailer's camera, looked after and learned: the shortest way to codes after a routine. */
async function learned(page: Page, vin: string): Promise<string> {
  const job = await takeInDone(page, shop.url, {
    vin,
    customer: "Every Code Told",
    ...TRAILER_CAMERA_OFF,
  });
  await page.goto(`${job}/ready`);
  await answerAll(page);
  await page.goto(`${job}/run`);
  await runRoutine(page);
  await page.goto(`${job}/prove`);
  return job;
}

test("codes before and after: what is gone, a new one that wants its word, and the word offered to the next job", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  const next = nextBar(page);
  const main = page.getByRole("main");
  const row = (code: string) => main.getByRole("row", { name: new RegExp(code) });
  const job = await learned(page, "0SKWNDR4A7R30025");

  await expect(row("TC-031")).toContainText("stored");
  // Once they are cleared they are read again without another press.
  await next.getByRole("button", { name: "Clear codes" }).click();
  await expect(next).toContainText("One line needs a word.");
  await expect(row("TC-031")).toContainText("gone");
  const asked = main.getByRole("list", { name: "What needs a word" });
  await expect(asked).toContainText("ST-058");
  await expect(asked).toContainText("pending, new since the first reading");
  await expect(next.getByRole("button", { name: "Fine" })).toBeDisabled();
  await page.getByLabel("A word on ST-058").fill("Learned on the first turns of the drive");
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(asked).toContainText("“Learned on the first turns of the drive”");
  await next.getByRole("button", { name: "Fine" }).click();
  await answerAll(page);

  const {
    record: { codes },
    report,
  } = await handOver(page, shop.url, job);
  const told = codes!.units.flatMap((u) => u.codes.map((c) => [c.code, c.change, c.word]));
  expect(told).toContainEqual(["TC-031", "gone", null]);
  expect(told).toContainEqual(["ST-058", "new", "Learned on the first turns of the drive"]);
  expect(report).toContain("Fault codes before and after");
  expect(report).toMatch(/ST-058.*new since the first/);

  // The next vehicle with the same code: the shop's own word is offered, in one touch.
  await learned(page, "0SKWNDR4A7R30030");
  await next.getByRole("button", { name: "Clear codes" }).click();
  await page.getByRole("button", { name: "Learned on the first turns of the drive" }).click();
  await expect(next.getByRole("button", { name: "Fine" })).toBeEnabled();
  // Read again, the answer is another matter: it is asked anew, and the word holds.
  await next.getByRole("button", { name: "Fine" }).click();
  await main.getByRole("button", { name: /Codes read again/ }).click();
  await main.getByRole("button", { name: "Scan again" }).click();
  await expect(next).toContainText("Codes read again: none from the trailer camera");
  await expect(next.getByRole("button", { name: "Fine" })).toBeEnabled();
});
