import { count } from "drizzle-orm";
import exifr from "exifr";
import sharp, { type Sharp } from "sharp";
import { beforeAll, describe, expect, it } from "vitest";
import { INES, openTestShop, OSKAR } from "@/tests/shop-database";
import { db } from "../db/client";
import { photos } from "../db/schema";
import { readBytes } from "../http/route";
import { MAX_PHOTO_BYTES } from "./prepare";
import { keepPhoto, photoBytes } from "./store";

const kept = (): number => db().select({ n: count() }).from(photos).get()!.n;
const noise = (width: number, height: number): Sharp =>
  sharp({
    create: {
      width,
      height,
      channels: 3,
      background: "#888",
      noise: { type: "gaussian", mean: 128, sigma: 60 },
    },
  });

/** A phone's photo: lying on its side, with the time, and with the place it was taken. */
const phonePhoto = (): Promise<Buffer> =>
  noise(1640, 1230)
    .withExif({
      IFD0: { Make: "Handheld" },
      IFD2: { DateTimeOriginal: "2026:11:03 09:12:44", OffsetTimeOriginal: "+02:00" },
      IFD3: {
        GPSLatitudeRef: "N",
        GPSLatitude: "51/1 30/1 3230/100",
        GPSLongitudeRef: "W",
        GPSLongitude: "0/1 7/1 0/1",
      },
    })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer();

beforeAll(() => openTestShop());

describe("keeping a photo", () => {
  it("keeps the time, drops the place and the maker, stands it upright and makes it small", async () => {
    const sent = await phonePhoto();
    expect(await exifr.gps(sent)).toMatchObject({ latitude: expect.closeTo(51.509, 2) as number });
    const photo = await keepPhoto(sent, INES);
    expect(photo).toMatchObject({ width: 1200, height: 1600, takenAt: "2026-11-03T07:12:44.000Z" });
    const stored = photoBytes(photo.photo)!;
    const tags = (await exifr.parse(stored, { reviveValues: false, gps: true })) as Record<
      string,
      unknown
    >;
    expect(tags.DateTimeOriginal).toBe("2026:11:03 09:12:44");
    expect(Object.keys(tags).filter((k) => /gps|latitude|make/i.test(k))).toEqual([]);
    expect(await exifr.gps(stored)).toBeUndefined();
  });

  it("the same picture twice is there once", async () => {
    const sent = await phonePhoto();
    const [a, b] = [await keepPhoto(sent, INES), kept()];
    expect((await keepPhoto(sent, OSKAR)).photo).toBe(a.photo);
    expect(kept()).toBe(b);
  });

  it("takes a JPEG of 25 MB, and one that calls itself something else", async () => {
    const big = await noise(2800, 2100).jpeg().toBuffer();
    // Bytes after the end of the picture, as cameras append previews there.
    const sent = Buffer.concat([big, Buffer.alloc(25e6 - big.length)]);
    expect(sent.length).toBeGreaterThanOrEqual(25e6);
    expect(await keepPhoto(sent, INES)).toMatchObject({ width: 1600, height: 1200 });
    expect(await keepPhoto(await noise(80, 60).png().toBuffer(), INES)).toMatchObject({
      width: 80,
      takenAt: null,
    });
  });

  const heic = Buffer.concat([
    Buffer.from([0, 0, 0, 24]),
    Buffer.from("ftypheic"),
    Buffer.alloc(4000, 7),
  ]);
  it.each([
    ["HEIC", async () => heic, /HEIC photo/],
    [
      "a letter called .jpg",
      async () => Buffer.from("Dear customer, your camera"),
      /not a photo, whatever its name/,
    ],
    ["a PDF", async () => Buffer.from("%PDF-1.7 …"), /This is a PDF/],
    ["nothing", async () => Buffer.alloc(0), /empty/],
    ["half a JPEG", async () => (await phonePhoto()).subarray(0, 60_000), /damaged or was cut off/],
    [
      "a JPEG's head on other bytes",
      async () => Buffer.concat([Buffer.from([0xff, 0xd8, 0xff]), Buffer.alloc(9000, 3)]),
      /damaged/,
    ],
    ["31 MB", async () => Buffer.alloc(31 * 1024 * 1024, 1), /larger than 30 MB/],
  ] as const)("refuses %s, says why, and keeps nothing of it", async (_name, make, words) => {
    const before = kept();
    await expect(make().then((bytes) => keepPhoto(bytes, INES))).rejects.toThrow(words);
    expect(kept()).toBe(before);
  });

  it("stops reading a body at the limit", async () => {
    let sent = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull: (c) => {
        sent += 1 << 20;
        c.enqueue(new Uint8Array(1 << 20));
      },
    });
    const request = new Request("http://shop/api/photos", {
      method: "POST",
      body: endless,
      duplex: "half",
    } as RequestInit);
    await expect(readBytes(request, MAX_PHOTO_BYTES)).rejects.toThrow(/larger than \d+ kB/);
    expect(sent).toBeLessThan(34 * 1024 * 1024);
  });

  it("a name with a path in it finds nothing and reads nothing", () => {
    expect(photoBytes("../../../etc/hostname")).toBeNull();
    expect(photoBytes("..%2f..%2fvar%2firidel.sqlite")).toBeNull();
  });
});
