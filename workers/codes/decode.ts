import { readBarcodes, type ReadInputBarcodeFormat } from "zxing-wasm/reader";

/** A code found in a picture. */
export type FoundCode = { text: string; format: string };

/** Those a vehicle, a board or a part carries. */
const FORMATS: ReadInputBarcodeFormat[] = ["Code39", "Code128", "DataMatrix", "QRCode"];

/**
 * Turns tried when a picture shows nothing upright, degrees. Bars are only read by a line that
 * crosses all of them.
 */
const TURNS = [12, -12, 24, -24, 36, -36, 45];

const look = async (image: ImageData): Promise<FoundCode[]> =>
  (
    await readBarcodes(image, {
      formats: FORMATS,
      tryHarder: true,
      tryRotate: true,
      tryInvert: true,
      tryDownscale: true,
      maxNumberOfSymbols: 8,
    })
  )
    .filter((r) => r.isValid)
    .map((r) => ({ text: r.text, format: String(r.format) }));

/**
 * Finds codes in a picture, each text once. The reader itself tries quarter turns, inverted and
 * smaller; a long row of bars at a slant needs the picture turned for it, which is done only when
 * nothing was found.
 */
export async function decodeCodes(image: ImageData): Promise<FoundCode[]> {
  let found = await look(image);
  for (let i = 0; found.length === 0 && i < TURNS.length; i++)
    found = await look(turned(image, (TURNS[i]! * Math.PI) / 180));
  return found.filter((c, i) => found.findIndex((o) => o.text === c.text) === i);
}

/**
 * The picture turned about its middle, grey, same size, bilinear. What comes in from outside is
 * mid-grey.
 */
function turned({ data, width, height }: ImageData, angle: number): ImageData {
  const out = new Uint8ClampedArray(data.length).fill(128);
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const [cx, cy] = [(width - 1) / 2, (height - 1) / 2];
  const grey = (x: number, y: number): number => {
    const i = (y * width + x) * 4;
    return 0.299 * data[i]! + 0.587 * data[i + 1]! + 0.114 * data[i + 2]!;
  };
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const u = cos * (x - cx) - sin * (y - cy) + cx;
      const v = sin * (x - cx) + cos * (y - cy) + cy;
      const [x0, y0] = [Math.floor(u), Math.floor(v)];
      const i = (y * width + x) * 4;
      if (x0 >= 0 && y0 >= 0 && x0 + 1 < width && y0 + 1 < height) {
        const [fx, fy] = [u - x0, v - y0];
        const top = grey(x0, y0) * (1 - fx) + grey(x0 + 1, y0) * fx;
        const bottom = grey(x0, y0 + 1) * (1 - fx) + grey(x0 + 1, y0 + 1) * fx;
        out[i] = out[i + 1] = out[i + 2] = top * (1 - fy) + bottom * fy;
      }
      out[i + 3] = 255;
    }
  return { data: out, width, height, colorSpace: "srgb" } as ImageData;
}
