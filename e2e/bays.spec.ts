import { expect, test } from "@playwright/test";
import { BAYS } from "@/demo/data/bays";
import { signIn } from "./support/hands";
import { takeInDone } from "./support/job";
import { openShop, type Shop } from "./support/shop";

let shop: Shop;
test.beforeAll(async () => void (shop = await openShop()));
test.afterAll(() => shop.close());

test("a bay comes in from a file, and a job says where in it the vehicle fits, or what hinders it", async ({
  page,
}) => {
  await signIn(page, shop.url, "mara");
  await page.goto(`${shop.url}/bays`);
  await expect(page.getByRole("img", { name: "Bay 2 from above" })).toBeVisible();
  const file = (bays: unknown) => ({
    name: "bays.json",
    mimeType: "application/json",
    buffer: Buffer.from(JSON.stringify({ format: "iridel.bays/1", bays })),
  });
  const input = page.getByLabel("bays file");
  await input.setInputFiles(
    file([
      {
        ...BAYS[0],
        outline: [
          [0, 0],
          [9, 9],
          [9, 0],
          [0, 9],
        ],
      },
    ]),
  );
  await expect(page.getByRole("alert").filter({ hasText: "bays.0.outline" })).toContainText(
    "must not cross itself",
  );
  const shed = { ...BAYS[0]!, id: "shed", name: "Shed", obstacles: [], doors: [] };
  const small: [number, number][] = [
    [0, 0],
    [7000, 0],
    [7000, 3200],
    [0, 3200],
  ];
  await input.setInputFiles(file([...BAYS, { ...shed, outline: small }]));
  await expect(page.getByRole("status").filter({ hasText: "taken" })).toContainText(
    "3 bays taken.",
  );

  // A yard is written down from a tape along each side; a tape that cannot be is named.
  await page.getByRole("button", { name: "From four tapes" }).click();
  const tapes = page.getByRole("dialog", { name: "A working place from its tapes" });
  await tapes.getByLabel("Its name").fill("Back yard");
  for (const [n, mm] of [9000, 16_000, 900, 16_000].entries())
    await tapes.getByLabel(`Wall ${n + 1}`, { exact: true }).fill(String(mm));
  await tapes.getByRole("button", { name: "Keep it" }).click();
  await expect(tapes.getByRole("alert")).toContainText("wall 3: must be at least 1.5 m");
  await tapes.getByLabel("Wall 3", { exact: true }).fill("9 m");
  await tapes.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByRole("status").filter({ hasText: "is kept" })).toContainText("Back yard");
  await expect(page.getByRole("img", { name: "Back yard from above" })).toBeVisible();

  const job = await takeInDone(page, shop.url, {
    vin: "0NVLS2DA7R100466",
    customer: "Merrin Holt",
    done: [["Windshield taken out or replaced", null]],
  });
  await page.goto(`${job}/owed`);
  const room = page.getByRole("region", { name: "Room in the bays" });
  await expect(room.getByText(/^Fits, with .* to spare everywhere\./).first()).toBeVisible();
  await expect(room.getByText(/front left wheel: .* from wall \d/).first()).toBeVisible();
  await expect(
    room.getByText(/^Does not fit: at its best place .* lacks .* at wall \d\.$/),
  ).toBeVisible();
});
