import exifr from "exifr";
import sharp from "sharp";
import { Refusal } from "../auth/as-writer";

/** The file is no photo this shop can keep. The message says what it is and what to do. */
export class PhotoRefusal extends Refusal {
  override readonly name = "PhotoRefusal";
}

/** Largest file taken, bytes: a phone's largest JPEG fits. */
export const MAX_PHOTO_BYTES = 30 * 1024 * 1024;
/** Longest edge kept, pixels: a part number stays readable, a job's photos stay a few megabytes. */
const LONG_EDGE = 1600;
/** A small file can unfold into a huge picture; beyond this it is not opened. */
const MAX_PIXELS = 120e6;

export type PreparedPhoto = {
  jpeg: Buffer;
  width: number;
  height: number;
  /** By the camera's clock, UTC ISO; null when the file does not say. */
  takenAt: string | null;
};

type Kind = "JPEG" | "PNG" | "WebP" | "HEIC" | "AVIF" | "GIF" | "PDF" | "video" | null;

/** What the bytes themselves say they are; names and declared types are not believed. */
export function kindOf(bytes: Uint8Array): Kind {
  const text = (from: number, to: number): string =>
    Buffer.from(bytes.subarray(from, to)).toString("latin1");
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return "JPEG";
  if (text(1, 4) === "PNG") return "PNG";
  if (text(0, 4) === "RIFF" && text(8, 12) === "WEBP") return "WebP";
  if (text(0, 3) === "GIF") return "GIF";
  if (text(0, 5) === "%PDF-") return "PDF";
  if (text(4, 8) === "ftyp") {
    const brand = text(8, 12);
    if (/^(hei[cmsx]|hev[cmsx]|mif1|msf1)$/.test(brand)) return "HEIC";
    return brand === "avif" ? "AVIF" : "video";
  }
  return null;
}

const REMEDY = "Take the photo with the button here, or send a JPEG.";

/**
 * Makes a kept photo of an uploaded file: upright, at most 1600 px, JPEG, without any of the
 * camera's notes but the time it was taken (Exif DateTimeOriginal). Where it was taken is not kept.
 *
 * @throws PhotoRefusal when the bytes are no readable photo
 */
export async function preparePhoto(bytes: Buffer): Promise<PreparedPhoto> {
  if (bytes.length === 0) throw new PhotoRefusal("The file is empty. Take the photo again.");
  if (bytes.length > MAX_PHOTO_BYTES) throw tooLarge();
  const kind = kindOf(bytes);
  if (kind === "HEIC")
    throw new PhotoRefusal(
      "This is a HEIC photo, which cannot be opened here. Set the phone’s camera to the most compatible format, or take the photo with the button here.",
    );
  if (kind === null)
    throw new PhotoRefusal(`This file is not a photo, whatever its name says. ${REMEDY}`);
  if (kind !== "JPEG" && kind !== "PNG" && kind !== "WebP")
    throw new PhotoRefusal(`This is a ${kind}, not a photo. ${REMEDY}`);
  const taken = await takenBy(bytes);
  try {
    const { width, height } = await sharp(bytes, { limitInputPixels: false }).metadata();
    if (width * height > MAX_PIXELS)
      throw new PhotoRefusal(
        "The picture has more than 120 million pixels. Take it at a smaller size.",
      );
    const image = sharp(bytes, { failOn: "truncated", limitInputPixels: MAX_PIXELS })
      .autoOrient()
      .resize({ width: LONG_EDGE, height: LONG_EDGE, fit: "inside", withoutEnlargement: true })
      .flatten({ background: "#ffffff" })
      .jpeg({ quality: 82, mozjpeg: true });
    if (taken) image.withExif({ IFD2: { DateTimeOriginal: taken.text } });
    const { data, info } = await image.toBuffer({ resolveWithObject: true });
    return { jpeg: data, width: info.width, height: info.height, takenAt: taken?.at ?? null };
  } catch (error) {
    if (error instanceof PhotoRefusal) throw error;
    throw new PhotoRefusal(
      `The ${kind} is damaged or was cut off on the way. Send it again, or take a new one.`,
    );
  }
}

export const tooLarge = (): PhotoRefusal =>
  new PhotoRefusal(
    "The file is larger than 30 MB. Take the photo at a smaller size, or with the button here.",
  );

/**
 * Exif's own text ("2026:11:03 09:12:44") and the moment it means. Without a zone the shop's own is
 * taken.
 */
async function takenBy(bytes: Buffer): Promise<{ text: string; at: string } | null> {
  const tags = (await exifr
    .parse(bytes, { pick: ["DateTimeOriginal", "OffsetTimeOriginal"], reviveValues: false })
    .catch(() => null)) as
    { DateTimeOriginal?: unknown; OffsetTimeOriginal?: unknown } | null | undefined;
  const text = typeof tags?.DateTimeOriginal === "string" ? tags.DateTimeOriginal : "";
  const parts = /^(\d{4}):(\d\d):(\d\d) (\d\d:\d\d:\d\d)$/.exec(text);
  if (!parts) return null;
  const zone =
    typeof tags?.OffsetTimeOriginal === "string" && /^[+-]\d\d:\d\d$/.test(tags.OffsetTimeOriginal)
      ? tags.OffsetTimeOriginal
      : "";
  const at = new Date(`${parts[1]}-${parts[2]}-${parts[3]}T${parts[4]}${zone}`);
  return Number.isNaN(at.getTime()) ? null : { text, at: at.toISOString() };
}
