/** A metric tyre marking read: section width mm, height of the section as a share of it, rim diameter in inches. */
export type Tyre = { widthMm: number; aspect: number; rimIn: number; diameterMm: number };

const INCH_MM = 25.4;
const MARKING =
  /^\s*(?:LT|P|C)?\s*(\d{3})\s*\/\s*(\d{2,3})\s*(?:Z?R|-)\s*(\d{2}(?:[.,]5)?)\s*C?(?:\s+\d{2,3}(?:\/\d{2,3})?\s*[A-Z]\d?)?\s*$/i;

/**
 * Reads a metric tyre marking ("225/45 R17 91W") and its nominal overall diameter: the rim and twice the section's
 * height (ISO 4000-1 construction of the size). Null when it is no such marking, or one that no vehicle wears.
 */
export function readTyre(text: string): Tyre | null {
  const m = MARKING.exec(text);
  if (!m) return null;
  const [widthMm, aspect, rimIn] = [Number(m[1]), Number(m[2]) / 100, Number(m[3]!.replace(",", "."))];
  const diameterMm = rimIn * INCH_MM + 2 * aspect * widthMm;
  return widthMm >= 105 && widthMm <= 455 && rimIn >= 10 && rimIn <= 26 && diameterMm < 1300 ? { widthMm, aspect, rimIn, diameterMm } : null; // prettier-ignore
}
