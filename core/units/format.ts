import { unitSize, type UnitId } from "./quantity";

/** Narrow no-break space: groups thousands and keeps a figure whole at the end of a line. */
const GROUP = "\u202f";
/** No-break space between a figure and its unit. */
const GAP = "\u00a0";

const SYMBOL: Record<UnitId, string> = {
  mm: "mm",
  cm: "cm",
  m: "m",
  in: "in",
  ft: "ft",
  deg: "°",
  arcmin: "′",
  "km/h": "km/h",
  mph: "mph",
  kPa: "kPa",
  bar: "bar",
  psi: "psi",
  s: "s",
  min: "min",
  h: "h",
  d: "d",
  ml: "ml",
  l: "l",
  "US gal": "US gal",
  "imp gal": "imp gal",
  mV: "mV",
  V: "V",
  "%": "%",
  "": "",
};
const DECIMALS: Record<UnitId, number> = {
  mm: 0,
  cm: 1,
  m: 3,
  in: 2,
  ft: 3,
  deg: 2,
  arcmin: 1,
  "km/h": 0,
  mph: 0,
  kPa: 0,
  bar: 2,
  psi: 1,
  s: 0,
  min: 0,
  h: 1,
  d: 0,
  ml: 0,
  l: 1,
  "US gal": 1,
  "imp gal": 1,
  mV: 0,
  V: 1,
  "%": 1,
  "": 0,
};

/** A plain figure with grouped thousands and a true minus sign: 2 871, −14, 0.35. */
export function formatNumber(value: number, decimals = 0): string {
  if (!Number.isFinite(value)) return "–";
  const fixed = Math.abs(value).toFixed(decimals);
  const [whole = "0", fraction] = fixed.split(".");
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, GROUP);
  const sign = value < 0 && Number(fixed) !== 0 ? "−" : "";
  return sign + grouped + (fraction ? `.${fraction}` : "");
}

/**
 * Formats a base-unit value in a unit, with the unit's symbol.
 *
 * @param decimals digits after the point; by default as many as the unit deserves (mm 0, cm 1, m 3,
 *   in 2, deg 2)
 */
export function formatQuantity(value: number, unit: UnitId, decimals = DECIMALS[unit]): string {
  const figure = formatNumber(value / unitSize(unit), decimals);
  return figure + (["deg", "arcmin", ""].includes(unit) ? "" : GAP) + SYMBOL[unit];
}

/**
 * Inches as a tape shows them: whole inches and the nearest fraction, reduced: 113 1/32 in.
 *
 * @param denominator a power of two, the finest division of the tape
 */
export function formatInchFraction(valueMm: number, denominator = 32): string {
  const parts = Math.round((Math.abs(valueMm) / 25.4) * denominator);
  const whole = Math.floor(parts / denominator);
  let top = parts % denominator;
  let bottom = denominator;
  while (top > 0 && top % 2 === 0) [top, bottom] = [top / 2, bottom / 2];
  const sign = valueMm < 0 && parts > 0 ? "−" : "";
  const fraction = top > 0 ? `${top}/${bottom}` : "";
  const body =
    whole > 0 && fraction ? `${formatNumber(whole)} ${fraction}` : fraction || formatNumber(whole);
  return `${sign}${body}${GAP}in`;
}

/** A length in the user's setting: millimetres, or inches with tape fractions. */
export const formatLength = (valueMm: number, setting: "mm" | "in"): string =>
  setting === "in" ? formatInchFraction(valueMm) : formatQuantity(valueMm, "mm");

/**
 * A probability for reading: whole per cent in the middle, one decimal near the ends, never a false
 * 100 % or 0 %.
 */
export function formatChance(p: number): string {
  if (!Number.isFinite(p)) return "–";
  const percent = 100 * p;
  if (percent >= 99.95) return `> 99.9${GAP}%`;
  if (percent < 0.05) return `< 0.1${GAP}%`;
  return `${formatNumber(percent, percent > 95 || percent < 5 ? 1 : 0)}${GAP}%`;
}
