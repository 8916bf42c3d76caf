/**
 * A metric tyre marking read: section width mm, height of the section as a share of it, rim
 * diameter in inches.
 */
export type Tyre = { widthMm: number; aspect: number; rimIn: number; diameterMm: number };

const INCH_MM = 25.4;
const SIZE =
  /^\s*(?:LT|P|C)?\s*(\d{3})\s*\/\s*(\d{2,3})\s*(?:Z?R|-)\s*(\d{2}(?:[.,]5)?)\s*C?(?=[\s(]|$)/i;
/**
 * What may stand behind the size: load index and speed, single or in pairs, in brackets too; marks
 * of build and season.
 */
const BEHIND =
  /^(?:\s*(?:\(?\s*\d{2,3}(?:\s*\/\s*\d{2,3})?\s*[A-Z]\d?\s*\)?|XL|EXTRA LOAD|REINF(?:ORCED)?\.?|RF|RFT|ROF|RUN ?FLAT|M\s*[+&.]\s*S|M\/S|3PMSF|TL|TUBELESS|[68]PR))*\s*$/i;

/**
 * Reads a metric tyre marking ("225/45 R17 91W") and its nominal overall diameter: the rim and
 * twice the section's height (ISO 4000-1 construction of the size). Null when it is no such
 * marking, or one that no vehicle wears.
 */
export function readTyre(text: string): Tyre | null {
  const m = SIZE.exec(text);
  if (!m || !BEHIND.test(text.slice(m[0].length))) return null;
  const [widthMm, aspect, rimIn] = [
    Number(m[1]),
    Number(m[2]) / 100,
    Number(m[3]!.replace(",", ".")),
  ];
  const diameterMm = rimIn * INCH_MM + 2 * aspect * widthMm;
  return widthMm >= 105 && widthMm <= 455 && rimIn >= 10 && rimIn <= 26 && diameterMm < 1300
    ? { widthMm, aspect, rimIn, diameterMm }
    : null;
}
