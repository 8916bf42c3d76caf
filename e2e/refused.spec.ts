import { expect, test, type Page } from "@playwright/test";
import { answerAll, nextBar, runRoutine, signIn } from "./support/hands";
import { papersOf } from "./support/job";
import { prepared } from "./support/prepared";
import { openShop, type Shop } from "./support/shop";

test.use({ actionTimeout: 20_000 });
let shop: Shop;
test.beforeAll(async () => void (shop = await openShop()));
test.afterAll(() => shop.close());

const LISSE = { sheetId: "lisse-forward", sheetVersion: 2 };
const causes = (page: Page) =>
  page.getByRole("region", { name: "Likely causes" }).getByRole("listitem");

test("a yawed board is the first cause named, by its own readings; nothing is repeated unchanged", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  const job = prepared(shop, { ...LISSE, seed: "yawed", turnDeg: 7 });
  await page.goto(`${job}/run`);
  await runRoutine(page);
  await expect(page.getByRole("region", { name: "Result" })).toContainText("The vehicle refused");
  await expect(causes(page).first()).toContainText("yaw of the board");
  await expect(nextBar(page)).toContainText(/Yaw of the board: .* : 1 before /);
  await expect(nextBar(page).getByRole("button", { name: "Connect again" })).toHaveCount(0);
  // The shop holds to it as well, whatever a tablet asks.
  const bare = await page.request.post(`${shop.url}/api/jobs/${job.split("/").at(-1)}/run`, {
    data: { after: 0, command: { type: "connect" } },
  });
  expect(bare.status()).toBe(422);
  expect(await bare.text()).toContain("Nothing was changed since the vehicle refused.");
  await expect(nextBar(page).getByRole("link", { name: "4 Set out" })).toBeVisible();
});

test("clutter nobody looked for is the first cause named; cleared, the vehicle learns", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  const job = prepared(shop, { ...LISSE, seed: "clutter-2", unanswered: ["space"] });
  await page.goto(`${job}/run`);
  await runRoutine(page);
  await expect(page.getByRole("region", { name: "Result" })).toContainText("The vehicle refused");
  await expect(causes(page).first()).toContainText("clutter behind the board");
  await nextBar(page).getByRole("link", { name: "3 Ready" }).click();
  await page.waitForURL(/ready$/);
  await answerAll(page);
  await expect(page.getByText("All kept")).toBeVisible();
  await page.goto(`${job}/run`);
  await expect(nextBar(page)).toContainText("Changed: what is checked under Ready.");
  await runRoutine(page);
  await expect(page.getByRole("region", { name: "Result" })).toContainText(
    "The vehicle learned its aim",
  );
  await expect(page.getByRole("region", { name: "Result" })).toContainText(
    /This job turned its aim by/,
  );
  const { record } = await papersOf(page, shop.url, job);
  expect(record.calibrations[0]!.run.attempts).toBe(2);
});
