import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import bwipjs from "bwip-js/node";
import sharp, { type Sharp } from "sharp";
import { beforeAll, describe, expect, it } from "vitest";
import { prepareZXingModule } from "zxing-wasm/reader";
import { madeUpVin } from "@/demo/data/vehicles";
import { vinFromCode } from "@/core/vehicle";
import { decodeCodes } from "./decode";

const VIN = madeUpVin("0NVLS2DA7R100417");
const require = createRequire(import.meta.url);

beforeAll(() => {
  const wasm = readFileSync(require.resolve("zxing-wasm/reader/zxing_reader.wasm"));
  prepareZXingModule({
    overrides: {
      wasmBinary: wasm.buffer.slice(
        wasm.byteOffset,
        wasm.byteOffset + wasm.byteLength,
      ) as ArrayBuffer,
    },
  });
});

/**
 * A sticker photographed: printed by another implementation, on grey, in a picture of a phone's
 * proportions.
 */
async function photo(
  kind: string,
  text: string,
  spoil: (s: Sharp, w: number, h: number) => Promise<Sharp> | Sharp,
): Promise<ImageData> {
  const label = await bwipjs.toBuffer({
    bcid: kind,
    text,
    scale: 4,
    height: 18,
    backgroundcolor: "ffffff",
    padding: 10,
  });
  const { width = 0, height = 0 } = await sharp(label).metadata();
  const [w, h] = [width + 160, height + 160];
  const framed = await sharp({
    create: { width: w, height: h, channels: 3, background: "#8d8a84" },
  })
    .composite([{ input: label }])
    .png()
    .toBuffer();
  const spoilt = await (await spoil(sharp(framed), w, h)).flatten().png().toBuffer();
  const { data, info } = await sharp(spoilt)
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return {
    data: new Uint8ClampedArray(data),
    width: info.width,
    height: info.height,
    colorSpace: "srgb",
  } as ImageData;
}

/** A bright patch that whitens part of the label, as a lamp does on laminate. */
const glare = async (s: Sharp, w: number, h: number): Promise<Sharp> => {
  const spot = Buffer.from(
    `<svg width="${w}" height="${h}"><defs><radialGradient id="g"><stop offset="0" stop-color="#fff" stop-opacity="0.75"/><stop offset="1" stop-color="#fff" stop-opacity="0"/></radialGradient></defs><ellipse cx="${w * 0.6}" cy="${h * 0.45}" rx="${w * 0.25}" ry="${h * 0.4}" fill="url(#g)"/></svg>`,
  );
  return sharp(
    await s
      .composite([{ input: spot }])
      .png()
      .toBuffer(),
  );
};
const SPOILT = {
  clean: (s: Sharp) => s,
  blurred: (s: Sharp) => s.blur(1.8),
  "turned by 12°": (s: Sharp) => s.rotate(12, { background: "#8d8a84" }),
  "on its side": (s: Sharp) => s.rotate(90),
  "under glare": glare,
  "turned, blurred, under glare and noisy": async (s: Sharp, w: number, h: number) =>
    sharp(
      await (
        await glare(s, w, h)
      )
        .rotate(-9, { background: "#8d8a84" })
        .blur(1.2)
        .jpeg({ quality: 40 })
        .toBuffer(),
    ),
} as const;

describe.each([
  ["code39", "Code39", VIN],
  ["code128", "Code128", VIN],
  ["datamatrix", "DataMatrix", VIN],
  ["qrcode", "QRCode", "FC-5"],
])("a %s on a label", (kind, format, text) => {
  it.each(Object.keys(SPOILT) as (keyof typeof SPOILT)[])("is read %s", async (how) => {
    expect(await decodeCodes(await photo(kind, text, SPOILT[how]))).toEqual([{ text, format }]);
  });
});

describe("what is not there", () => {
  it("is not found", async () => {
    const blank = {
      data: new Uint8ClampedArray(400 * 300 * 4).fill(190),
      width: 400,
      height: 300,
      colorSpace: "srgb",
    } as ImageData;
    expect(await decodeCodes(blank)).toEqual([]);
  });
  it("two labels in one picture are both named, and the VIN is known among them", async () => {
    const [a, b] = await Promise.all(
      [VIN, "PART 5512-A"].map((text) =>
        bwipjs.toBuffer({
          bcid: "code128",
          text,
          scale: 3,
          height: 14,
          backgroundcolor: "ffffff",
          padding: 8,
        }),
      ),
    );
    const raw = await sharp({
      create: { width: 1200, height: 600, channels: 4, background: "#999" },
    })
      .composite([
        { input: a!, left: 60, top: 60 },
        { input: b!, left: 90, top: 330 },
      ])
      .raw()
      .toBuffer({ resolveWithObject: true });
    const found = await decodeCodes({
      data: new Uint8ClampedArray(raw.data),
      width: 1200,
      height: 600,
      colorSpace: "srgb",
    } as ImageData);
    expect(found.map((f) => f.text).sort()).toEqual([VIN, "PART 5512-A"].sort());
    expect(found.flatMap((f) => vinFromCode(f.text) ?? [])).toEqual([{ vin: VIN, sure: true }]);
  });
});
