import { expect, test } from "@playwright/test";
import { answerAll, awake, followToSet, nextBar, runRoutine, signIn, slip } from "./support/hands";
import { handOver, takeInDone, TRAILER_CAMERA_OFF } from "./support/job";
import { openShop, type Shop } from "./support/shop";

let shop: Shop;
test.beforeAll(async () => void (shop = await openShop({ baySeed: "coupled" })));
test.afterAll(() => shop.close());

test("a camper and its trailer's camera: taped out of line, pulled straight as told, learned, handed over", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  const job = await takeInDone(page, shop.url, {
    vin: "0SKWNDR4A7R30011",
    customer: "Tow Along",
    ...TRAILER_CAMERA_OFF,
    owed: ["Wander, trailer camera"],
  });

  // Nothing is set out, and the routine waits for the trailer to stand in line.
  await page.goto(`${job}/set-out`);
  await expect(page.getByRole("main")).toContainText("looks at the vehicle itself");
  await page.goto(`${job}/run`);
  const next = nextBar(page);
  const go = async (name: string): Promise<void> => {
    const words = await next.innerText();
    await next.getByRole("button", { name }).click();
    await expect(next).not.toHaveText(words, { useInnerText: true });
  };
  await expect(async () => {
    if (await next.getByRole("button", { name: /^Connect/ }).isVisible())
      await next.getByRole("button", { name: /^Connect/ }).click();
    await expect(next).toContainText("Ignition on", { timeout: 3000 });
  }).toPass();
  await go("It is on");
  const height = page.getByLabel(/Height of the trailer/);
  await expect(height).toBeVisible({ timeout: 15_000 });
  await height.fill("1.86 m");
  await page.keyboard.press("Enter");
  await expect(next).toContainText("hitch to its end");
  // What the book knows is not typed again.
  await expect(page.getByLabel("Length of the trailer")).toHaveValue(/5.?840/);
  await go("Enter");
  await expect(next).toContainText("Tow vehicle and trailer in line: not proved yet");
  await next.getByRole("link", { name: "3 Ready" }).click();

  await awake(page);
  await page.getByRole("button", { name: /Tow vehicle and trailer in line/ }).click();
  await page.getByRole("button", { name: "Read all of it (simulated)" }).click();
  await expect(next).toContainText(/The trailer points [\d.]+ ± 0\.\d° to the (left|right)/);
  await expect(next).toContainText(/Pull [\d.]+ m forward, front wheels \d+° to the (left|right)/);
  await expect(next).toContainText("Nobody stands between vehicle and trailer");
  await answerAll(page);
  await expect(slip(page)).toContainText("in line: ");

  await page.goto(`${job}/run`);
  await runRoutine(page);
  await expect(page.getByRole("region", { name: "Result" })).toBeVisible();
  await page.goto(`${job}/prove`);
  await answerAll(page);
  const { record, report } = await handOver(page, shop.url, job);
  expect(record.calibrations.map((c) => [c.id, c.run.status, c.targets.length])).toEqual([
    ["wander-trailer", "passed", 0],
  ]);
  const inLine = record.checks.find((c) => c.ask === "Tow vehicle and trailer in line")!;
  expect(inLine.measured).toHaveLength(1);
  expect(inLine.measured[0]!.ok).toBe(true);
  for (const words of ["Wander, trailer camera", "articulation", "in line"])
    expect(report).toContain(words);
});

test("a small van and a mat behind its trailer: in line first, then drawn to its place from the trailer's own hubs", async ({
  page,
}) => {
  await signIn(page, shop.url, "ines");
  const job = await takeInDone(page, shop.url, {
    vin: "0AVMTV2A7R600149",
    customer: "Box Behind",
    ...TRAILER_CAMERA_OFF,
    owed: ["Motto, trailer camera, mat behind the trailer"],
  });
  await page.goto(`${job}/ready`);
  await answerAll(page);
  await page.goto(`${job}/set-out`);
  // The trailer has two hubs and no badge: tapes from those, and nothing else.
  const tray = page.getByRole("main");
  await expect(tray).toContainText("RL → edge");
  await expect(tray).not.toContainText("FL →");
  await followToSet(page, /Mat set/);
  await page.screenshot({ path: "/tmp/trailer1.png" });
  await page.goto(`${job}/run`);
  await runRoutine(page);
  await expect(page.getByRole("region", { name: "Result" })).toBeVisible();
  await page.goto(`${job}/prove`);
  await answerAll(page);
  const { record } = await handOver(page, shop.url, job);
  expect(record.calibrations.map((c) => [c.id, c.run.status, c.targets.length])).toEqual([
    ["motto-trailer", "passed", 1],
  ]);
  const [mat] = record.calibrations[0]!.targets;
  expect(mat!.settled!.chance).toBeGreaterThanOrEqual(0.99);
  expect(mat!.readings.map((r) => r.name).join()).toContain("trailer’s hub");
});
