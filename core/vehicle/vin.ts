/** Vehicle identification numbers: shape and check digit (ISO 3779; check digit by the weighted sum modulo 11). */

export type VinProblem = {
  code: "length" | "letter" | "check-digit";
  /** 1-based place in the VIN, where one place is at fault. */
  position?: number;
  message: string;
};

export type VinCheck = { vin: string; ok: boolean; problems: VinProblem[] };

// Transliteration of letters; I, O and Q do not occur because they are mistaken for 1 and 0.
const VALUES: Record<string, number> = {
  A: 1, B: 2, C: 3, D: 4, E: 5, F: 6, G: 7, H: 8, J: 1, K: 2, L: 3, M: 4, N: 5, P: 7, R: 9,
  S: 2, T: 3, U: 4, V: 5, W: 6, X: 7, Y: 8, Z: 9,
}; // prettier-ignore
const WEIGHTS = [8, 7, 6, 5, 4, 3, 2, 10, 0, 9, 8, 7, 6, 5, 4, 3, 2];
const LOOKS_LIKE: Record<string, string> = { I: "1", O: "0", Q: "0" };

/** Upper case, without the spaces and dashes people group a VIN with. */
export const normaliseVin = (text: string): string => text.toUpperCase().replace(/[\s-]/g, "");

/**
 * The check digit (place 9) that belongs to the other sixteen places: "0".."9" or "X".
 *
 * @param vin 17 permitted characters; place 9 itself has weight 0
 */
export function vinCheckDigit(vin: string): string {
  const sum = [...vin].reduce((s, ch, i) => s + (VALUES[ch] ?? Number(ch)) * WEIGHTS[i]!, 0);
  return sum % 11 === 10 ? "X" : String(sum % 11);
}

/** Says everything that is wrong with a VIN, each with its place and a remedy. */
export function checkVin(text: string): VinCheck {
  const vin = normaliseVin(text);
  const problems: VinProblem[] = [];
  if (vin.length !== 17) {
    const off = vin.length < 17 ? `${17 - vin.length} too few` : `${vin.length - 17} too many`;
    problems.push({ code: "length", message: `A VIN has 17 characters; this one has ${vin.length} (${off}).` });
  }
  [...vin].forEach((ch, i) => {
    if (/[0-9]/.test(ch) || ch in VALUES) return;
    const like = LOOKS_LIKE[ch];
    const remedy = like ? `probably the figure ${like}` : "read it again";
    problems.push({
      code: "letter",
      position: i + 1,
      message: `Place ${i + 1} is "${ch}", which no VIN uses: ${remedy}.`,
    });
  });
  if (problems.length === 0 && vinCheckDigit(vin) !== vin[8]) {
    problems.push({
      code: "check-digit",
      position: 9,
      message: `The check digit in place 9 is "${vin[8]}", but these characters call for "${vinCheckDigit(vin)}": one of them is misread.`,
    });
  }
  return { vin, ok: problems.length === 0, problems };
}

/**
 * The VIN in a scanned code, or null. Labels put a mark before it (an import letter I, the scanner's own three-character
 * sign, Code 39's asterisks) or more after it: the first seventeen places that pass every check are taken.
 */
export function vinFromCode(text: string): string | null {
  const clean = normaliseVin(text).replace(/[^A-Z0-9]/g, " ");
  for (let i = 0; i + 17 <= clean.length; i++) {
    const check = checkVin(clean.slice(i, i + 17));
    if (check.ok && check.vin.length === 17) return check.vin;
  }
  return null;
}
