import { expose } from "comlink";
import { prepareZXingModule } from "zxing-wasm/reader";
import { decodeCodes, type FoundCode } from "./decode";

// The reader's machine code ships with the app; nothing is fetched from elsewhere.
prepareZXingModule({
  overrides: {
    locateFile: () => new URL("zxing-wasm/reader/zxing_reader.wasm", import.meta.url).href,
  },
});

/**
 * Longest edge looked at: phone pictures are larger than any code needs, and the time goes with the
 * area.
 */
const LONG_EDGE = 2000;

const codes = {
  /** Opens a picture file and finds the codes in it. Rejects when the browser cannot open it. */
  async read(file: Blob): Promise<FoundCode[]> {
    const full = await createImageBitmap(file);
    const scale = Math.min(1, LONG_EDGE / Math.max(full.width, full.height));
    const canvas = new OffscreenCanvas(
      Math.round(full.width * scale),
      Math.round(full.height * scale),
    );
    const pen = canvas.getContext("2d")!;
    pen.drawImage(full, 0, 0, canvas.width, canvas.height);
    full.close();
    return decodeCodes(pen.getImageData(0, 0, canvas.width, canvas.height));
  },
};
export type Codes = typeof codes;
expose(codes);
