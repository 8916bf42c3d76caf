import { formatQuantity } from "./format";
import { UNITS, type Quantity, type UnitId } from "./quantity";

/** What became of a typed measurement. Values are in base units: mm, rad, m/s. */
export type Parsed =
  | { ok: true; value: number; unit: UnitId }
  /** Not a measurement at all, or in a unit of another kind. */
  | { ok: false; problem: string; guess?: undefined }
  /** A measurement that cannot be true of this quantity; `guess` is the likely meaning, if there is one. */
  | { ok: false; problem: string; value: number; guess?: { value: number; text: string } };

// 1, 1.5, 1,5, 2 871, 12 3/8, 3/8 : a number with optional thousands gaps and an optional fraction.
const NUMBER = /^(\d{1,3}(?:[ \u00a0\u2009\u202f]\d{3})+(?:[.,]\d+)?|\d+[.,]?\d*|[.,]\d+)?(?:[ -]?(\d+)\/(\d+))?/;

/** Reads one number at the head of `text`; null if there is none. */
function readNumber(text: string): { value: number; rest: string } | null {
  // "3/8" alone must not be read as the whole number 3 followed by "/8".
  const lone = /^(\d+)\/(\d+)/.exec(text);
  const match = lone ?? NUMBER.exec(text);
  if (!match || match[0] === "") return null;
  const whole = lone ? 0 : Number((match[1] ?? "0").replace(/[ \u00a0\u2009\u202f]/g, "").replace(",", "."));
  const numerator = Number((lone ? match[1] : match[2]) ?? 0);
  const denominator = Number((lone ? match[2] : match[3]) ?? 1);
  if (denominator === 0) return null;
  return { value: whole + numerator / denominator, rest: text.slice(match[0].length).trimStart() };
}

/** Reads one unit at the head of `text`, longest spelling first. */
function readUnit(text: string, dimension: Quantity["dimension"]) {
  const lower = text.toLowerCase();
  const candidates = UNITS.flatMap((u) => u.spellings.map((s) => ({ unit: u, s })))
    .filter(({ s }) => lower.startsWith(s) && !(/[a-z]$/.test(s) && /^[a-z]/.test(lower.slice(s.length))))
    .sort(
      (a, b) =>
        b.s.length - a.s.length || Number(b.unit.dimension === dimension) - Number(a.unit.dimension === dimension),
    );
  const best = candidates[0];
  return best ? { unit: best.unit, rest: text.slice(best.s.length).trimStart() } : null;
}

/**
 * Reads a typed measurement: "2871", "2 871 mm", "287.1 cm", "113 1/32 in", `9' 5"`, "1° 30'", "-3", "50 km/h".
 *
 * A value outside the quantity's honest range is refused with the likely meaning: the same digits in another unit
 * that land inside the range (nearest to the expected value, if one is known).
 *
 * @param text what was typed; a decimal comma counts as a point, spaces may group thousands
 * @param quantity what is being measured, range in base units
 * @param defaultUnit the unit meant when none is typed
 */
export function parseQuantity(text: string, quantity: Quantity, defaultUnit: UnitId): Parsed {
  let rest = text.trim();
  const negative = /^[-−–]/.test(rest);
  rest = rest.replace(/^[-−–+]\s*/, "");
  if (rest === "") return { ok: false, problem: `Type ${quantity.name} as a number.` };

  let value = 0;
  let unit: UnitId = defaultUnit;
  let typedUnit = false;
  let digits = 0;
  for (let part = 0; rest !== ""; part++) {
    const number = readNumber(rest);
    if (!number || part > 2)
      return {
        ok: false,
        problem: `"${text.trim()}" is not a measurement; type a number such as 2871 or 113 1/32 in.`,
      };
    const read = readUnit(number.rest, quantity.dimension);
    if (number.rest !== "" && !read)
      return { ok: false, problem: `"${number.rest}" is not a unit known here; use ${unitList(quantity)}.` };
    if (read && read.unit.dimension !== quantity.dimension)
      return {
        ok: false,
        problem: `${capital(quantity.name)} is ${quantity.dimension === "angle" ? "an" : "a"} ${quantity.dimension}, not ${read.unit.plural}; use ${unitList(quantity)}.`,
      };
    const thisUnit = read?.unit ?? UNITS.find((u) => u.id === (typedUnit ? nextSmaller(unit) : defaultUnit))!;
    value += number.value * thisUnit.toBase;
    digits = part === 0 ? number.value : NaN;
    unit = thisUnit.id;
    typedUnit ||= read !== null;
    rest = read ? read.rest : "";
  }
  if (negative) [value, digits] = [-value, -digits];
  if (value >= quantity.min && value <= quantity.max) return { ok: true, value, unit };

  const range = `${formatQuantity(quantity.min, defaultUnit)} to ${formatQuantity(quantity.max, defaultUnit)}`;
  const guess = likelyMeaning(digits, quantity, unit);
  const problem = `${capital(quantity.name)} cannot be ${formatQuantity(value, defaultUnit)}; it lies between ${range}.`;
  return guess ? { ok: false, problem, value, guess } : { ok: false, problem, value };
}

/** The same digits in each other unit of the kind; the candidate inside the range nearest to the expected value. */
function likelyMeaning(digits: number, q: Quantity, typed: UnitId): { value: number; text: string } | undefined {
  if (!Number.isFinite(digits)) return undefined;
  const middle = q.expected ?? (q.min + q.max) / 2;
  const far = (v: number): number => Math.abs(Math.log(Math.abs(v) + 1e-9) - Math.log(Math.abs(middle) + 1e-9));
  const best = UNITS.filter((u) => u.dimension === q.dimension && u.id !== typed)
    .map((u) => ({ value: digits * u.toBase, unit: u }))
    .filter(({ value }) => value >= q.min && value <= q.max)
    .sort((a, b) => far(a.value) - far(b.value))[0];
  return best && { value: best.value, text: `${trimNumber(digits)} ${best.unit.plural}` };
}

const nextSmaller = (unit: UnitId): UnitId =>
  (({ ft: "in", deg: "arcmin", m: "cm" })[unit as "ft" | "deg" | "m"] as UnitId) ?? unit;
const unitList = (q: Quantity): string =>
  UNITS.filter((u) => u.dimension === q.dimension)
    .map((u) => u.id)
    .join(", ");
const capital = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1);
const trimNumber = (v: number): string => String(Number(v.toPrecision(10)));
