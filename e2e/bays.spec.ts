import { expect, test } from "@playwright/test";
import { BAYS } from "@/demo/data/bays";
import { chooseWay, readAt, signIn, slip } from "./support/hands";
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
  const rack = {
    name: "parts rack",
    outline: [
      [6300, 0],
      [6800, 0],
      [6800, 6000],
      [6300, 6000],
    ],
    toMm: 2000,
  };
  const full = { ...BAYS[0]!, id: "full", name: "Full bay", obstacles: [rack], lights: [] };
  await input.setInputFiles(file([...BAYS, { ...shed, outline: small }, full]));
  await expect(page.getByRole("status").filter({ hasText: "taken" })).toContainText(
    "4 bays taken.",
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
  // The bay's own drawing, with the vehicle and the board in it, at true size.
  const link = room.getByRole("link", { name: "SVG" }).first();
  const drawn = await page.request.get(`${shop.url}${await link.getAttribute("href")}`);
  expect(drawn.headers()["content-type"]).toContain("image/svg+xml");
  const svg = await drawn.text();
  expect(svg).toContain("front left wheel: wall");
  expect(svg).toContain(": board centre");
  // What would have to go is tried out; in a shed that is too short nothing would help.
  await expect(room.getByText(/^All of it fits without/)).toHaveText(
    "All of it fits without parts rack.",
  );
});

test("a bay is drawn and surveyed; where only nose in serves is said; the floor is known in Ready", async ({
  page,
}) => {
  await signIn(page, shop.url, "mara");
  await page.goto(`${shop.url}/bays/bay-1`);
  // A bench is dragged to the wall's line, pushed by key, taken back, and drawn again by its figures.
  const bench = page.getByRole("button", { name: "bench", exact: true });
  const box = (await bench.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x - 30, y + 60, { steps: 4 });
  await page.mouse.move(x + 36, y + 2, { steps: 4 });
  await page.mouse.up();
  const along = page.getByLabel("Begins along, x");
  // Its far end came to lie on the wall at 13 200, or its near one on the line of the cabinet.
  await expect(along).toHaveValue(/^(9600|9500)$/);
  const snapped = Number(await along.inputValue());
  await bench.focus();
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("Shift+ArrowLeft");
  await expect(along).toHaveValue(String(snapped - 110));
  await page.getByRole("button", { name: "Undo" }).click();
  await page.getByRole("button", { name: "Undo" }).click();
  await page.getByRole("button", { name: "Undo" }).click();
  await bench.focus();
  await expect(along).toHaveValue("9000");
  await page.getByRole("button", { name: "Light", exact: true }).click();
  await page.getByLabel("Its name").fill("north window");
  await page.getByRole("group", { name: "Can be put off or covered" }).getByText("Yes").click();

  // The floor: spots are laid out, read one after another, one of them wrongly.
  await page.goto(`${shop.url}/bays/bay-2`);
  await page.getByRole("button", { name: "Floor", exact: true }).click();
  await page.getByRole("button", { name: "Lay out spots over the floor" }).click();
  const rule = page.getByLabel(/^Rule on spot \d+/);
  const spots = await page.getByRole("button", { name: /^Spot \d+$/ }).count();
  expect(spots).toBeGreaterThan(8);
  const read = async (mm: string): Promise<void> => {
    await rule.fill(mm);
    await rule.press("Enter");
  };
  await read("a lot");
  await expect(page.getByRole("alert").filter({ hasText: /number|mm/ })).toBeVisible();
  const high = (n: number): number => 900 + 3 * Math.sin(n);
  for (let n = 0; n < spots; n++) await read(high(n).toFixed(1));
  await expect(page.getByText("Every spot is read from this place")).toBeVisible();
  await page.getByRole("button", { name: "The laser was moved" }).click();
  for (let n = 0; n < spots; n++) await read((high(n) + 41 + (n === 4 ? 12 : 0)).toFixed(1));
  await expect(page.getByText(/^Spot 5 from laser place [12] does not agree/)).toBeVisible();
  await page.getByRole("button", { name: "Spot 5", exact: true }).click();
  await read((high(4) + 41).toFixed(1));
  await expect(page.getByText("The readings agree.")).toBeVisible();
  await page.getByRole("button", { name: "Keep the bay" }).click();
  await expect(page.getByRole("status").filter({ hasText: "is kept" })).toContainText("Bay 2");
  const dxf = await page.request.get(`${shop.url}/api/bays/bay-2?as=dxf`);
  expect(await dxf.text()).toContain("WALLS");

  // What was drawn of the other bay was not kept, and is here again.
  await page.goto(`${shop.url}/bays/bay-1`);
  await expect(page.getByText("What was typed here before is here again.")).toBeVisible();
  await expect(page.getByRole("button", { name: "north window" })).toBeVisible();
  await page.getByLabel("drawing file").setInputFiles({
    name: "bay.dxf",
    mimeType: "image/vnd.dxf",
    buffer: Buffer.from("0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n"),
  });
  await expect(page.getByRole("alert").filter({ hasText: "WALLS" })).toContainText("layer WALLS");

  // A bay that narrows toward its far end: the car has room by the door only, the board beyond.
  const narrow = {
    id: "long-end",
    name: "Long end",
    outline: [
      [0, 0],
      [5600, 0],
      [5600, 1300],
      [12_200, 1300],
      [12_200, 3700],
      [5600, 3700],
      [5600, 5000],
      [0, 5000],
    ],
    doors: [
      [
        [0, 900],
        [0, 4100],
      ],
    ],
  };
  const surveyed = (await (await page.request.get(`${shop.url}/api/bays`)).json()) as {
    bays: { id: string; floor: unknown }[];
  };
  expect(surveyed.bays.find((b) => b.id === "bay-2")!.floor).toBeTruthy();
  await page.goto(`${shop.url}/bays`);
  await page.getByLabel("bays file").setInputFiles({
    name: "bays.json",
    mimeType: "application/json",
    buffer: Buffer.from(
      JSON.stringify({ format: "iridel.bays/1", bays: [...surveyed.bays, narrow] }),
    ),
  });
  await expect(page.getByRole("status").filter({ hasText: "taken" })).toBeVisible();
  const job = await takeInDone(page, shop.url, {
    vin: "0NVLS2DA7R100466",
    customer: "Merrin Holt",
    done: [["Windshield taken out or replaced", null]],
  });
  await page.goto(`${job}/owed`);
  const room = page.getByRole("region", { name: "Room in the bays" });
  const bayOf = (name: string) => room.locator("> div > div").filter({ hasText: name });
  await expect(bayOf("Long end").getByText(/^Fits, .* Nose in\.$/)).toBeVisible();
  // Where it stands is said; its floor there is the survey's.
  const first = bayOf("Bay 1");
  await first.getByRole("button", { name: "It stands here now" }).click();
  await expect(first.getByRole("button", { name: "It stands here", exact: true })).toBeVisible();
  await page.goto(`${job}/ready`);
  await page.getByRole("button", { name: /floor/i }).first().click();
  await page.getByRole("button", { name: /^Take the floor of Bay 1, read/ }).click();
  await expect(page.getByText(/than the car’s plane/).first()).toBeVisible();
  // Its walls are measured to from then on, where somebody sets out by them.
  await page.goto(`${job}/set-out`);
  await chooseWay(page, "Four tapes", "Walls of the bay");
  const walls = page.locator('[data-slot^="wall-"]');
  await expect(walls.first()).toBeVisible();
  const hub = (await walls.first().getAttribute("data-slot"))!;
  expect(hub).toMatch(/^wall-[fr][lr]@bay-1\./);
  await readAt(page, hub);
  await expect(slip(page).getByText(/hub (left|right) → wall \d/)).toBeVisible();
});
