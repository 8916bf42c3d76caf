import { expect, test } from "@playwright/test";
import type { JobRecord } from "@/core/record";
import type { Sheet, Target } from "@/core/sheet";
import { SHEETS } from "@/demo/data/sheets";
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
    const dialog = page.getByRole("dialog");
    await dialog.getByRole("button", { name: /Hung or changed the board/ }).click();
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

test.describe("two boards on one beam", () => {
  let shop: Shop;
  test.beforeAll(async () => void (shop = await openShop({ baySeed: "beam" })));
  test.afterAll(() => shop.close());

  const tarn = SHEETS.find((s) => s.id === "tarn-forward")!;
  const board = (side: "left" | "right", code: string, acrossMm: number): Target => {
    const [first] = tarn.setups[0]!.targets;
    return {
      ...first!,
      id: side,
      name: `${side} board`,
      datum: "centreline",
      object: { code, widthMm: 640, side },
      placement: { ...first!.placement, acrossMm },
      tolerance: { alongMm: 15, acrossMm: 15, twistDeg: 0.6, heightMm: 8 },
      beam: { acrossMm: 0 },
    };
  };
  const BEAM: Sheet = {
    ...tarn,
    id: "tarn-beam",
    version: 1,
    title: "Tarn, forward camera, two boards on one beam",
    appliesTo: { ...tarn.appliesTo, after: ["camera-touched"] },
    setups: [
      {
        id: "pair",
        name: "both boards",
        targets: [board("left", "HQ-B1", 420), board("right", "HQ-B3", -420)],
      },
    ],
  };

  test("with left and right exchanged are found when they are hung, not by the vehicle", async ({
    browser,
  }) => {
    const [mine, theirs] = [await browser.newContext(), await browser.newContext()];
    const [writer, page] = [await mine.newPage(), await theirs.newPage()];
    await signIn(writer, shop.url, "oskar");
    await writer.goto(`${shop.url}/sheets`);
    await writer.locator("#sheet-file").setInputFiles({
      name: "beam.json",
      mimeType: "application/json",
      buffer: Buffer.from(JSON.stringify(BEAM)),
    });
    await writer.waitForURL(/drafts/);
    await signIn(page, shop.url, "ines");
    await page.goto(writer.url());
    await page.getByRole("button", { name: "I have checked it" }).click();
    await page.waitForURL(/sheets\/tarn-beam/);
    await writer.close();

    await page.goto(`${shop.url}/take-in`);
    await page.getByLabel("VIN", { exact: true }).fill(madeUpVin("0BRTRN5C7T220931"));
    await page.getByRole("button", { name: "Camera taken off and put back" }).click();
    await page.getByRole("button", { name: "windshield", exact: true }).click();
    await page.getByLabel("Customer", { exact: true }).fill("Left And Right");
    await page.getByRole("button", { name: "Open the job" }).click();
    await page.waitForURL(/\/jobs\/[^/]+\/take-in$/);
    const job = page.url().replace(/\/take-in$/, "");
    await readFloor(page, job);
    await page.goto(`${job}/set-out`);
    const bar = nextBar(page);
    const exchanged: string[] = [];
    await followToSet(page, /Board set/, async () => {
      // Whoever hangs them the wrong way round reads the other code at this end of the beam.
      const asked = /here (HQ-B[13])/.exec(await bar.innerText())![1]!;
      await bar.getByLabel("Board code").fill(asked === "HQ-B1" ? "HQ-B3" : "HQ-B1");
      const [side, other] = asked === "HQ-B1" ? ["left", "right"] : ["right", "left"];
      await expect(bar).toContainText(`is the one for vehicle ${other}; this place takes ${asked}`);
      await expect(bar).toContainText(`for vehicle ${side}`);
      await expect(bar.getByRole("button", { name: "All done" })).toBeDisabled();
      exchanged.push(asked);
      await bar.getByLabel("Board code").fill("");
      await bar.getByLabel("Board code").fill(asked);
      await bar.getByRole("button", { name: /^(All done|It hangs right)$/ }).click();
      await expect(bar.getByLabel("Board code")).toBeHidden();
    });
    expect(exchanged.length).toBeGreaterThan(0);
    await theirs.close();
  });
});
