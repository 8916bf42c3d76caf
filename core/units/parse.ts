import { formatNumber, formatQuantity } from "./format";
import { UNITS, type Quantity, type UnitId } from "./quantity";

/** A meaning that could be offered: the value in base units, and how it would be typed. */
export type Meaning = { value: number; text: string };

/** What became of a typed measurement. Values are in base units. */
export type Parsed =
  | { ok: true; value: number; unit: UnitId }
  /**
   * Not one measurement, or in a unit of another kind; `guess` is the likely meaning, if there is
   * one.
   */
  | { ok: false; problem: string; value?: undefined; guess?: Meaning; either?: undefined }
  /** Two meanings can both be true: it has to be asked which. */
  | { ok: false; problem: string; value?: undefined; guess?: undefined; either: [Meaning, Meaning] }
  /**
   * A measurement that cannot be true of this quantity; `guess` is the likely meaning, if there is
   * one.
   */
  | { ok: false; problem: string; value: number; guess?: Meaning; either?: undefined };

type Unit = (typeof UNITS)[number];
/** One number with the unit typed behind it. `whole` is false for decimals and fractions. */
type Part = { number: number; unit: Unit | null; whole: boolean; text: string };

/** Units that may follow one another in one figure, each smaller than the one before. */
const FALLING: readonly (readonly UnitId[])[] = [
  ["m", "cm", "mm"],
  ["ft", "in"],
  ["deg", "arcmin"],
];
/** What a last figure without a unit means after these; after metres nobody can know. */
const GOES_ON: Partial<Record<UnitId, UnitId>> = { ft: "in", deg: "arcmin" };
const IMPERIAL = new Set<UnitId>(["in", "ft", "mph", "psi"]);

const FRACTION_SIGNS: Record<string, string> = {
  "½": "1/2",
  "¼": "1/4",
  "¾": "3/4",
  "⅛": "1/8",
  "⅜": "3/8",
  "⅝": "5/8",
  "⅞": "7/8",
  "⅓": "1/3",
  "⅔": "2/3",
};

/**
 * The text in the plain signs the reader knows: what phones and other keyboards put in their place.
 */
const plainSigns = (text: string): string =>
  text
    .replace(/[０-９．，／]/g, (c) => String.fromCharCode(c.charCodeAt(0) - 0xfee0))
    .replace(/[½¼¾⅛⅜⅝⅞⅓⅔]/g, (c) => ` ${FRACTION_SIGNS[c]} `)
    .replace(/[“”„″‟＂]/g, '"')
    .replace(/[‘’‚′‛＇]/g, "'")
    .replace(/[º˚]/g, "°")
    .replace(/[−–—－]/g, "-")
    .replace(/[\u00a0\u2000-\u200a\u202f\u205f\u3000\t]/g, " ")
    .replace(/ +/g, " ")
    .trim();

// 2871 | 2 871 | 1,250,000.5 | 1.250.000,5 | 287.1 | 287,1 | .5  with an optional fraction: 12 3/8,
// 12-3/8, 3/8
const FIGURE =
  /^(?:\d{1,3}(?: \d{3})+(?:[.,]\d+)?|\d{1,3}(?:,\d{3})+\.\d+|\d{1,3}(?:\.\d{3})+,\d+|\d{1,3}(?:,\d{3}){2,}|\d{1,3}(?:\.\d{3}){2,}|\d+[.,]?\d*|[.,]\d+)/;
const FRACTION = /^[ -]?(\d+)\/(\d+)/;

/**
 * The value of a figure: what stands last of comma and point is the decimal, what stands twice
 * groups thousands.
 */
function figureValue(figure: string): number {
  const bare = figure.replace(/ /g, "");
  const last = Math.max(bare.lastIndexOf(","), bare.lastIndexOf("."));
  if (last < 0) return Number(bare);
  const sign = bare[last]!;
  const other = sign === "," ? "." : ",";
  const grouped = bare.split(sign).length > 2 && !bare.includes(other);
  if (grouped) return Number(bare.replace(/[.,]/g, ""));
  return Number(`${bare.slice(0, last).replace(/[.,]/g, "")}.${bare.slice(last + 1)}`);
}

/** Reads one number at the head of `text`; null if there is none. */
function readNumber(
  text: string,
): { value: number; whole: boolean; text: string; rest: string } | null {
  // "3/8" alone must not be read as the whole number 3 followed by "/8".
  const lone = /^(\d+)\/(\d+)/.exec(text);
  const figure = lone ? "" : (FIGURE.exec(text)?.[0] ?? "");
  const fraction = lone ?? FRACTION.exec(text.slice(figure.length));
  if (figure === "" && !fraction) return null;
  const denominator = Number(fraction?.[2] ?? 1);
  if (denominator === 0) return null;
  const typed = text.slice(0, figure.length + (fraction?.[0].length ?? 0));
  const value = (figure ? figureValue(figure) : 0) + Number(fraction?.[1] ?? 0) / denominator;
  return {
    value,
    whole: Number.isInteger(value) && !fraction,
    text: typed,
    rest: text.slice(typed.length).trimStart(),
  };
}

/** Reads one unit at the head of `text`, longest spelling first. */
function readUnit(
  text: string,
  dimension: Quantity["dimension"],
): { unit: Unit; rest: string } | null {
  const lower = text.toLowerCase();
  const best = UNITS.flatMap((unit) => unit.spellings.map((s) => ({ unit, s })))
    .filter(
      ({ s }) => lower.startsWith(s) && !(/[a-z]$/.test(s) && /^[a-z]/.test(lower.slice(s.length))),
    )
    .sort(
      (a, b) =>
        b.s.length - a.s.length ||
        Number(b.unit.dimension === dimension) - Number(a.unit.dimension === dimension),
    )[0];
  return best ? { unit: best.unit, rest: text.slice(best.s.length).trimStart() } : null;
}

/** Cuts a text into numbers with their units; a problem where it is none. */
function readParts(text: string, quantity: Quantity): Part[] | string {
  const parts: Part[] = [];
  for (let rest = text; rest !== "";) {
    const number = readNumber(rest);
    if (!number || parts.length > 3)
      return `"${text}" is not a measurement; type a number such as 2871 or 113 1/32 in.`;
    const read = readUnit(number.rest, quantity.dimension);
    if (!read && number.rest !== "" && !/^[\d.,]/.test(number.rest))
      return `"${number.rest}" is not a unit known here; ${unitAdvice(quantity)}.`;
    if (read && read.unit.dimension !== quantity.dimension) return otherKind(quantity, read.unit);
    parts.push({
      number: number.value,
      unit: read?.unit ?? null,
      whole: number.whole,
      text: number.text,
    });
    rest = read ? read.rest : number.rest;
  }
  return parts;
}

/** What a quantity of each dimension is, for a sentence. */
const SAID: Record<Quantity["dimension"], string> = {
  length: "a length",
  angle: "an angle",
  speed: "a speed",
  pressure: "a pressure",
  time: "a time",
  volume: "a volume",
  voltage: "a voltage",
  percent: "a percentage",
  count: "a plain number",
};

const otherKind = (q: Quantity, unit: Unit): string =>
  `${capital(q.name)} is ${SAID[q.dimension]}, not ${unit.plural}; ${unitAdvice(q)}.`;

/**
 * Whether these parts are one figure in falling units of one system: 9 ft 5 3/8 in, 2 m 86 cm, 1°
 * 30'.
 */
function adds(parts: readonly Part[]): boolean {
  const system = FALLING.find((units) => parts.every((p) => p.unit && units.includes(p.unit.id)));
  if (!system) return false;
  return parts.every((p, i) => {
    const before = parts[i - 1];
    if (!before) return true;
    // A part before a smaller unit is whole, and the smaller one does not reach a whole of the
    // larger.
    return (
      before.whole &&
      before.unit!.toBase > p.unit!.toBase &&
      p.number * p.unit!.toBase < before.unit!.toBase
    );
  });
}

const sumOf = (parts: readonly Part[]): number =>
  parts.reduce((sum, p) => sum + p.number * p.unit!.toBase, 0);
const textOf = (parts: readonly Part[]): string =>
  parts.map((p) => `${p.text} ${p.unit!.id}`).join(" ");

/**
 * What several parts that do not add may have meant; null when nothing likely lies in the range.
 */
function guessOfParts(parts: readonly Part[], sign: number, q: Quantity): Meaning | undefined {
  const likely: Meaning[] = [];
  const [first, second] = parts as [Part, Part];
  const each = parts.filter((p) => p.unit).map((p) => p.number * p.unit!.toBase);
  const same =
    each.length === parts.length && each.every((v) => Math.abs(v / each[0]! - 1) < 0.015);
  if (same) likely.push({ value: each[0]!, text: textOf([first]) });
  const falling = [...parts].sort((a, b) => (b.unit?.toBase ?? 0) - (a.unit?.toBase ?? 0));
  if (adds(falling)) likely.push({ value: sumOf(falling), text: textOf(falling) });
  // "2m860": the unit stands where the decimal point belongs.
  if (parts.length === 2 && first.unit && first.whole && !second.unit && second.whole) {
    const decimal = `${first.text}.${second.text.replace(/ /g, "")}`;
    likely.push({
      value: Number(decimal.replace(/ /g, "")) * first.unit.toBase,
      text: `${decimal} ${first.unit.id}`,
    });
  }
  if (first.unit) likely.push({ value: first.number * first.unit.toBase, text: textOf([first]) });
  return likely.map((m) => withSign(m, sign)).find((m) => inRange(m.value, q));
}

const withSign = (m: Meaning, sign: number): Meaning =>
  sign < 0 ? { value: -m.value, text: `-${m.text}` } : m;
const inRange = (value: number, q: Quantity): boolean => value >= q.min && value <= q.max;

/** A comma before exactly three figures: a decimal to some, a thousand to others. */
const COMMA_OF_TWO_MEANINGS = /^(\d{1,3}),(\d{3})$/;

/**
 * The other meaning of "1,250" when it groups thousands; null where the comma can only be a
 * decimal.
 */
function grouped(part: Part): number | null {
  const m = COMMA_OF_TWO_MEANINGS.exec(part.text);
  return m && m[1] !== "0" ? Number(m[1]! + m[2]!) : null;
}

/**
 * Reads a typed measurement: "2871", "2 871 mm", "287.1 cm", "113 1/32 in", `9' 5"`, "1° 30'",
 * "-3", "50 km/h".
 *
 * Only falling units of one system add, each once; anything else is refused with the likely
 * meaning. A value outside the quantity's honest range is refused with the same digits in another
 * unit that land inside it. "1,250" is taken in the meaning that lies in the range, and asked about
 * where both do.
 *
 * @param text what was typed; a decimal comma counts as a point, spaces may group thousands
 * @param quantity what is being measured, range in base units
 * @param defaultUnit the unit meant when none is typed
 */
export function parseQuantity(text: string, quantity: Quantity, defaultUnit: UnitId): Parsed {
  const signed = plainSigns(text);
  const sign = signed.startsWith("-") ? -1 : 1;
  const bare = signed.replace(/^[-+] ?/, "");
  if (bare === "") return { ok: false, problem: `Type ${quantity.name} as a number.` };
  const parts = readParts(bare, quantity);
  if (typeof parts === "string") return { ok: false, problem: parts };

  const goesOn = parts.at(-2)?.unit && GOES_ON[parts.at(-2)!.unit!.id];
  if (parts.length > 1 && parts.at(-1)!.unit === null && goesOn)
    parts.at(-1)!.unit = unitOf(goesOn);
  if (parts.length === 1) return readOne(parts[0]!, sign, quantity, defaultUnit);
  if (!adds(parts)) {
    const guess = guessOfParts(parts, sign, quantity);
    const problem = `"${text.trim()}" is not one measurement; type one figure in one unit.`;
    return guess ? { ok: false, problem, guess } : { ok: false, problem };
  }
  return inside(sign * sumOf(parts), parts.at(-1)!.unit!.id, NaN, quantity, defaultUnit);
}

function readOne(part: Part, sign: number, q: Quantity, defaultUnit: UnitId): Parsed {
  const unit = part.unit ?? unitOf(defaultUnit);
  const value = sign * part.number * unit.toBase;
  const thousands = grouped(part);
  if (thousands === null) return inside(value, unit.id, sign * part.number, q, defaultUnit);
  const other = sign * thousands * unit.toBase;
  const meaning = (v: number, figure: number): Meaning => ({
    value: v,
    text: `${trimNumber(sign * figure)} ${unit.id}`,
  });
  if (inRange(value, q) && inRange(other, q))
    return {
      ok: false,
      problem: `"${part.text}" can mean ${trimNumber(part.number)} or ${formatNumber(thousands)}: say which.`,
      either: [meaning(other, thousands), meaning(value, part.number)],
    };
  if (inRange(other, q)) return { ok: true, value: other, unit: unit.id };
  return inside(value, unit.id, sign * part.number, q, defaultUnit);
}

/**
 * The last question: whether the value can be true. `digits` is NaN where several parts were added.
 */
function inside(value: number, unit: UnitId, digits: number, q: Quantity, shownIn: UnitId): Parsed {
  if (inRange(value, q)) return { ok: true, value, unit };
  const range = `${formatQuantity(q.min, shownIn)} to ${formatQuantity(q.max, shownIn)}`;
  const guess = likelyUnit(digits, q, unit);
  const problem = `${capital(q.name)} cannot be ${formatQuantity(value, shownIn)}; it lies between ${range}.`;
  return guess ? { ok: false, problem, value, guess } : { ok: false, problem, value };
}

/**
 * How much farther off, as a logarithm, a unit of the same system may be and still be the likelier
 * one.
 */
const OWN_SYSTEM = Math.log(2);

/**
 * The same digits in each other unit of the kind; inside the range, in the typed system rather than
 * the other.
 */
function likelyUnit(digits: number, q: Quantity, typed: UnitId): Meaning | undefined {
  if (!Number.isFinite(digits)) return undefined;
  const far = (v: number): number =>
    q.expected === undefined
      ? 0
      : Math.abs(Math.log(Math.abs(v) + 1e-9) - Math.log(Math.abs(q.expected) + 1e-9));
  const strange = (unit: UnitId): number =>
    IMPERIAL.has(unit) === IMPERIAL.has(typed) ? 0 : OWN_SYSTEM;
  const best = UNITS.filter((u) => u.dimension === q.dimension && u.id !== typed)
    .map((unit) => ({ value: digits * unit.toBase, unit }))
    .filter(({ value }) => inRange(value, q))
    .sort((a, b) => far(a.value) + strange(a.unit.id) - far(b.value) - strange(b.unit.id))[0];
  return best && { value: best.value, text: `${trimNumber(digits)} ${best.unit.plural}` };
}

const unitOf = (id: UnitId): Unit => UNITS.find((u) => u.id === id)!;
const unitAdvice = (q: Quantity): string => {
  const units = UNITS.filter((u) => u.dimension === q.dimension && u.id !== "").map((u) => u.id);
  return units.length === 0 ? "type it without a unit" : `use ${units.join(", ")}`;
};
const capital = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1);
const trimNumber = (v: number): string => String(Number(v.toPrecision(10)));
