import { expect, test } from "@playwright/test";
import type { JobRecord } from "@/core/record";
import { madeUpVin } from "@/demo/data/vehicles";
import {
  followToSet,
  hangBoard,
  nextBar,
  readFloor,
  signIn,
  takeIn,
  verdict,
} from "./support/hands";
import { openShop, type Shop } from "./support/shop";

test.use({ actionTimeout: 20_000 });

test.describe("a bay with a smooth floor", () => {
  let shop: Shop;
  test.beforeAll(async () => void (shop = await openShop({ baySeed: "shoves-4" })));
  test.afterAll(() => shop.close());

  test("hanging the board shoves the stand by 4 mm: it is found out, and set where it belongs", async ({
    page,
  }) => {
    test.setTimeout(180_000);
    await signIn(page, shop.url, "ines");
    const job = await takeIn(page, shop.url, madeUpVin("0NVLS2DA7R100955"), "Smooth Floor");
    await readFloor(page, job);
    await page.goto(`${job}/set-out`);
    await followToSet(page, undefined, async () => {
      await hangBoard(page);
      // Nothing that was read before the board hung calls it set.
      await expect(verdict(page)).not.toHaveText("Set");
    });
    const api = job.replace("/jobs/", "/api/jobs/");
    const targetNow = async () =>
      ((await (await page.request.get(`${api}/record`)).json()) as JobRecord).calibrations[0]!
        .targets[0]!;
    const tapes = (t: Awaited<ReturnType<typeof targetNow>>) =>
      t.readings.filter((r) => r.slot === "tape-fl-l" || r.slot === "tape-fr-r");
    const first = tapes(await targetNow());
    // It is hung once more: what hanging it did shows in the tapes, and nothing is called set without.
    await page.keyboard.press("t");
    await page.getByRole("button", { name: /Hung or changed the board/ }).click();
    await expect(verdict(page)).not.toHaveText("Set");
    await followToSet(page);
    const target = await targetNow();
    const hung = target.touches.filter((t) => /^Hung/.test(t.what)).at(-1)!.at;
    const after = target.readings.filter((r) => r.at > hung);
    expect(target.readings.filter((r) => r.at <= hung && r.state === "counts")).toEqual([]);
    expect(tapes(target).some((r) => r.at > hung)).toBe(true);
    const once = after.find((r) => tapes(target).includes(r))!;
    const before = first.findLast((r) => r.slot === once.slot)!;
    // 4 mm straight away from the car is nearly as much on a tape along it; a tape is good to 1 mm.
    expect(once.value - before.value).toBeGreaterThan(0);
    expect(target.settled!.chance).toBeGreaterThanOrEqual(0.99);
  });
});
