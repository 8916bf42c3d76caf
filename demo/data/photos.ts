import sharp from "sharp";

/**
 * Made-up photos, drawn: the dash with its odometer, the vehicle from the front, the glass's part
 * number.
 */
const SCENES = {
  odometer: `<rect width="1200" height="800" fill="#14171c"/><circle cx="330" cy="420" r="260" fill="none" stroke="#525a66" stroke-width="18"/><circle cx="870" cy="420" r="260" fill="none" stroke="#525a66" stroke-width="18"/><path d="M330 420L190 560" stroke="#d8653a" stroke-width="12"/><path d="M870 420L760 590" stroke="#d8653a" stroke-width="12"/><rect x="440" y="620" width="320" height="96" rx="10" fill="#0b0d10" stroke="#525a66" stroke-width="4"/><text x="600" y="690" font-size="64" font-family="monospace" fill="#9fe0c8" text-anchor="middle">084 210</text>`,
  vehicle: `<rect width="1200" height="800" fill="#8b8f94"/><rect y="560" width="1200" height="240" fill="#6b6d70"/><path d="M250 600V420L350 230H850L950 420V600Z" fill="#3c5a7d"/><path d="M330 410L400 260H800L870 410Z" fill="#b8c9d6"/><rect x="250" y="430" width="700" height="150" rx="30" fill="#35506f"/><circle cx="350" cy="500" r="42" fill="#f1efe2"/><circle cx="850" cy="500" r="42" fill="#f1efe2"/><rect x="500" y="520" width="200" height="52" fill="#eee"/><text x="600" y="560" font-size="40" font-family="monospace" text-anchor="middle" fill="#222">HQ 09 TAL</text><rect x="280" y="580" width="110" height="90" rx="16" fill="#1b1c1e"/><rect x="810" y="580" width="110" height="90" rx="16" fill="#1b1c1e"/>`,
  glass: `<rect width="1200" height="800" fill="#2a3138"/><path d="M0 760L1200 640V800H0Z" fill="#11151a"/><rect x="330" y="300" width="540" height="190" rx="14" fill="#20262d" stroke="#8896a3" stroke-width="3"/><text x="600" y="380" font-size="60" font-family="monospace" fill="#cfd8e0" text-anchor="middle">BR-W-7731</text><text x="600" y="450" font-size="40" font-family="monospace" fill="#9fb0bd" text-anchor="middle">43R 000000</text>`,
} as const;

/** One of them as a JPEG with the time a camera would have written. */
export const drawnPhoto = (scene: keyof typeof SCENES, at: string): Promise<Buffer> => {
  const d = new Date(at);
  const two = (n: number): string => String(n).padStart(2, "0");
  const text = `${d.getUTCFullYear()}:${two(d.getUTCMonth() + 1)}:${two(d.getUTCDate())} ${two(d.getUTCHours())}:${two(d.getUTCMinutes())}:${two(d.getUTCSeconds())}`;
  return sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="800">${SCENES[scene]}</svg>`,
    ),
  )
    .jpeg({ quality: 85 })
    .withExif({ IFD2: { DateTimeOriginal: text, OffsetTimeOriginal: "+00:00" } })
    .toBuffer();
};
