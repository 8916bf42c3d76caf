import { createHash } from "node:crypto";
import { RequestRefusal } from "../http/route";

/** A report is a page or two; more is something else. */
export const MOST_REPORT_BYTES = 2_000_000;
/** As much of its text goes on the log. */
export const MOST_REPORT_CHARS = 16_000;

/**
 * The text of a report of a tool: of a PDF, or of a file that is text already.
 *
 * @throws RequestRefusal where it is neither, or says nothing
 */
export async function reportText(bytes: Uint8Array): Promise<{ text: string; sha256: string }> {
  const sha256 = createHash("sha256").update(bytes).digest("hex");
  const text = (isPdf(bytes) ? await pdfText(bytes) : plainText(bytes)).trim();
  if (text === "")
    throw new RequestRefusal(
      422,
      "The report has no text in it; a scanned page is a picture. Type the result and take a photo of it.",
    );
  if (text.length > MOST_REPORT_CHARS)
    throw new RequestRefusal(
      422,
      "The report is too long to be one routine’s. Save only that routine’s page and bring it in again.",
    );
  return { text, sha256 };
}

const isPdf = (bytes: Uint8Array): boolean => String.fromCharCode(...bytes.slice(0, 5)) === "%PDF-";

/** Pages of a report that are read; a routine fills no more. */
const MOST_PAGES = 10;

async function pdfText(bytes: Uint8Array): Promise<string> {
  // Large, and seldom needed: fetched with the first report.
  const { getDocument, VerbosityLevel } = await import("pdfjs-dist/legacy/build/pdf.mjs");
  const reading = getDocument({
    // The reader takes the memory over: it gets its own.
    data: new Uint8Array(bytes),
    useSystemFonts: true,
    isEvalSupported: false,
    verbosity: VerbosityLevel.ERRORS,
  });
  try {
    const pdf = await reading.promise;
    const pages: string[] = [];
    for (let n = 1; n <= Math.min(pdf.numPages, MOST_PAGES); n++) {
      const { items } = await (await pdf.getPage(n)).getTextContent();
      pages.push(byLines(items.flatMap((i) => ("str" in i ? [i] : []))));
    }
    return pages.join("\n");
  } catch {
    throw new RequestRefusal(
      422,
      "The PDF is damaged or locked. Save it again, or type the result.",
    );
  } finally {
    await reading.destroy();
  }
}

/** A page as its lines stand on it: what lies at one height is one line, a gap stays a gap. */
function byLines(items: { str: string; width: number; transform: number[] }[]): string {
  const lines = new Map<number, { x: number; end: number; str: string }[]>();
  for (const { str, width, transform } of items) {
    if (str.trim() === "") continue;
    const [x, y] = [transform[4]!, Math.round(transform[5]! / 3)];
    lines.set(y, [...(lines.get(y) ?? []), { x, end: x + width, str }]);
  }
  return [...lines]
    .sort((a, b) => b[0] - a[0])
    .map(([, parts]) =>
      parts
        .sort((a, b) => a.x - b.x)
        .reduce((line, p, i, all) => {
          const gap = i === 0 ? 0 : p.x - all[i - 1]!.end;
          return `${line}${gap > 12 ? "    " : gap > 1.5 ? " " : ""}${p.str}`;
        }, ""),
    )
    .join("\n");
}

/** A file of text, in the coding it is written in. @throws RequestRefusal */
function plainText(bytes: Uint8Array): string {
  const wide = bytes[0] === 0xff && bytes[1] === 0xfe;
  try {
    const text = new TextDecoder(wide ? "utf-16le" : "utf-8", { fatal: true }).decode(bytes);
    if (!/[\u0000-\u0008\u000e-\u001f]/.test(text)) return text;
  } catch {
    // Older tools write one byte a sign.
    const text = new TextDecoder("windows-1252").decode(bytes);
    if (!/[\u0000-\u0008\u000e-\u001f]/.test(text)) return text;
  }
  throw new RequestRefusal(
    422,
    "This is no report: bring in a PDF, a CSV or a plain text file, or type the result.",
  );
}
