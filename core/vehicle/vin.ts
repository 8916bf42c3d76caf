/**
 * Vehicle identification numbers: shape and check digit (ISO 3779; check digit by the weighted sum
 * modulo 11).
 */

export type VinProblem = {
  code: "length" | "letter" | "check-digit";
  /** 1-based place in the VIN, where one place is at fault. */
  position?: number;
  message: string;
};

export type VinCheck = {
  vin: string;
  ok: boolean;
  problems: VinProblem[];
  /**
   * Whether place 9 checks the others: only where the first place is 0 to 5 does the rule bind (49
   * CFR 565 for vehicles of North America; 0 is ours); elsewhere makers put there what they like.
   */
  checkDigit: "agrees" | "differs" | "not-carried";
};

/** Whether the check digit binds, by the first place. */
const carriesCheckDigit = (vin: string): boolean => /^[0-5]/.test(vin);

// Transliteration of letters; I, O and Q do not occur because they are mistaken for 1 and 0.
const VALUES: Record<string, number> = {
  A: 1,
  B: 2,
  C: 3,
  D: 4,
  E: 5,
  F: 6,
  G: 7,
  H: 8,
  J: 1,
  K: 2,
  L: 3,
  M: 4,
  N: 5,
  P: 7,
  R: 9,
  S: 2,
  T: 3,
  U: 4,
  V: 5,
  W: 6,
  X: 7,
  Y: 8,
  Z: 9,
};
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
    problems.push({
      code: "length",
      message: `A VIN has 17 characters; this one has ${vin.length} (${off}).`,
    });
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
  const carried = problems.length === 0 && carriesCheckDigit(vin);
  const agrees = carried && vinCheckDigit(vin) === vin[8];
  if (carried && !agrees) {
    problems.push({
      code: "check-digit",
      position: 9,
      message: `The check digit in place 9 is "${vin[8]}", but these characters call for "${vinCheckDigit(vin)}": one of them is misread.`,
    });
  }
  const checkDigit = !carried ? "not-carried" : agrees ? "agrees" : "differs";
  return { vin, ok: problems.length === 0, problems, checkDigit };
}

/** A VIN that a code gives: sure, or one that somebody has to look at and say so. */
export type ScannedVin = { vin: string; sure: boolean };

/** What a scanner or a symbology puts before and behind: ]C0, the asterisks of Code 39. */
const bareCode = (text: string): string =>
  text
    .trim()
    .replace(/^\][A-Za-z]\d/, "")
    .replace(/^\*|\*$/g, "");

/**
 * The VIN in a scanned code, or null. It is sure only where the whole code is seventeen places
 * (after a leading import I) and either a binding check digit agrees or it begins as a vehicle the
 * shop knows; seventeen places that could be one, also among other words of the code, are asked
 * about. Seventeen places cut out of a longer run are none.
 *
 * @param starts how the VINs of the shop's vehicles begin
 */
export function vinFromCode(text: string, starts: readonly string[] = []): ScannedVin | null {
  const bare = bareCode(text);
  const whole = readScanned(bare, starts);
  if (whole) return whole;
  const words = bare.split(/[^A-Za-z0-9]+/).filter((w) => w !== bare);
  const among = words.map((w) => readScanned(w, starts)).find((v) => v !== null);
  return among ? { vin: among.vin, sure: false } : null;
}

function readScanned(text: string, starts: readonly string[]): ScannedVin | null {
  const code = normaliseVin(text);
  const vin = code.length === 18 && code.startsWith("I") ? code.slice(1) : code;
  if (vin.length !== 17) return null;
  const check = checkVin(vin);
  if (!check.ok) return null;
  return { vin, sure: check.checkDigit === "agrees" || starts.some((s) => vin.startsWith(s)) };
}
