import { expect, test, type Page } from "@playwright/test";
import { answerAll, awake, followToSet, nextBar, runRoutine, signIn, slip } from "./support/hands";
import { handOver, takeInDone } from "./support/job";
import { openShop, type Shop } from "./support/shop";

let shop: Shop;
// In this bay the right arm of a truck is still folded.
test.beforeAll(async () => void (shop = await openShop({ baySeed: "arms-11" })));
test.afterAll(() => shop.close());

const takeInTruck = (page: Page, vin: string, work: string): Promise<string> =>
  takeInDone(page, shop.url, {
    vin,
    customer: "Two Arms",
    done: [[work, "vehicle left"]],
    owed: ["mirror cameras"],
  });

const marks = (page: Page) => page.getByRole("navigation", { name: "Targets" });

for (const { name, vin, sheet, work, told } of [
  {
    name: "a rigid truck, right-hand drive",
    vin: "0TMHAU2A7R400112",
    sheet: "hauler-mirrors",
    work: "Outside mirror taken off or replaced",
    told: false,
  },
  {
    name: "a tractor with three axles, left-hand drive",
    vin: "0TMLHL4A7R500117",
    sheet: "longhaul-mirrors",
    work: "Camera replaced",
    told: true,
  },
])
  test(`${name}: a folded arm and a second side forgotten are caught, both cameras aimed, handed over`, async ({
    page,
  }) => {
    await signIn(page, shop.url, "ines");
    const job = await takeInTruck(page, vin, work);
    const next = nextBar(page);

    // Nothing begins before both arms are where they belong.
    await page.goto(`${job}/run`);
    await expect(next).toContainText("Both camera arms in driving position");
    await next.getByRole("link", { name: "3 Ready" }).click();
    await awake(page);
    await page.getByRole("button", { name: /Both camera arms in driving position/ }).click();
    await page.getByRole("button", { name: "Read all of it (simulated)" }).click();
    await expect(next).toContainText(/Right mirror camera sits \d+\smm too near to the body/);
    await expect(next).toContainText("swing it out until it locks");
    await answerAll(page);
    await expect(slip(page)).toContainText("both sit where the book has them");

    // One side alone is no aim: the routine waits for the other mark.
    await page.goto(`${job}/set-out`);
    await followToSet(page, /Mark set/);
    await page.goto(`${job}/run`);
    await expect(next).toContainText(/(left|right) floor mark is not proved in place/i);
    await next.getByRole("button", { name: "Set it out" }).click();
    await page.waitForURL(/set-out$/);
    await expect(marks(page).getByRole("button", { name: /right floor mark/ })).toHaveAttribute(
      "aria-current",
      "true",
    );
    await followToSet(page, /Mark set: right floor mark/);

    await page.goto(`${job}/run`);
    // A unit is told heights and length anew only after a camera was replaced.
    await expect(page.getByRole("list", { name: "Steps" }).getByRole("listitem")).toHaveCount(
      told ? 7 : 4,
    );
    await runRoutine(page);
    await expect(page.getByRole("region", { name: "Result" })).toContainText(
      "The vehicle keeps both aims",
    );
    await page.goto(`${job}/prove`);
    await answerAll(page);
    const { record, report } = await handOver(page, shop.url, job);
    expect(record.calibrations.map((c) => [c.id, c.run.status, c.targets.length])).toEqual([
      [sheet, "passed", 2],
    ]);
    for (const t of record.calibrations[0]!.targets)
      expect(t.settled!.quantities.map((q) => q.id)).toEqual(["along", "across"]);
    for (const words of ["mirror cameras", "left floor mark", "right floor mark", "Camera turned"])
      expect(report).toContain(words);
  });
