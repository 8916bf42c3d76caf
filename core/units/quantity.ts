/**
 * Quantities the product names, their base unit inside the program (mm, rad, m/s, kPa), and the
 * magnitudes that can be true.
 */

export type Dimension = "length" | "angle" | "speed" | "pressure";

/**
 * A named quantity with the range a value can honestly have, in base units (mm, rad, m/s). Typed
 * values outside it are questioned at once.
 */
export type Quantity = {
  name: string;
  dimension: Dimension;
  min: number;
  max: number;
  /** The expected value, when the caller knows one: sharpens the guess at what was meant. */
  expected?: number;
};

export type UnitId =
  "mm" | "cm" | "m" | "in" | "ft" | "deg" | "arcmin" | "km/h" | "mph" | "kPa" | "bar" | "psi";

type Unit = {
  id: UnitId;
  dimension: Dimension;
  toBase: number;
  spellings: string[];
  plural: string;
};

const DEG = Math.PI / 180;

// Exact by definition: inch 25.4 mm (1959), foot 12 in, mile 1 609.344 m, bar 100 kPa; psi to seven
// figures.
export const UNITS: readonly Unit[] = [
  {
    id: "mm",
    dimension: "length",
    toBase: 1,
    spellings: ["mm", "millimetre", "millimetres"],
    plural: "millimetres",
  },
  {
    id: "cm",
    dimension: "length",
    toBase: 10,
    spellings: ["cm", "centimetre", "centimetres"],
    plural: "centimetres",
  },
  {
    id: "m",
    dimension: "length",
    toBase: 1000,
    spellings: ["m", "metre", "metres"],
    plural: "metres",
  },
  {
    id: "in",
    dimension: "length",
    toBase: 25.4,
    spellings: ["in", "inch", "inches", '"', "″", "''"],
    plural: "inches",
  },
  {
    id: "ft",
    dimension: "length",
    toBase: 304.8,
    spellings: ["ft", "foot", "feet", "'", "′"],
    plural: "feet",
  },
  {
    id: "deg",
    dimension: "angle",
    toBase: DEG,
    spellings: ["deg", "°", "degree", "degrees"],
    plural: "degrees",
  },
  {
    id: "arcmin",
    dimension: "angle",
    toBase: DEG / 60,
    spellings: ["arcmin", "'", "′", "min"],
    plural: "arc minutes",
  },
  {
    id: "km/h",
    dimension: "speed",
    toBase: 1 / 3.6,
    spellings: ["km/h", "kmh", "kph"],
    plural: "km/h",
  },
  { id: "mph", dimension: "speed", toBase: 0.44704, spellings: ["mph", "mi/h"], plural: "mph" },
  { id: "kPa", dimension: "pressure", toBase: 1, spellings: ["kpa"], plural: "kPa" },
  { id: "bar", dimension: "pressure", toBase: 100, spellings: ["bar"], plural: "bar" },
  { id: "psi", dimension: "pressure", toBase: 6.894757, spellings: ["psi"], plural: "psi" },
];

const BY_ID = new Map(UNITS.map((u) => [u.id, u]));

/** Base-unit size of one of `id` (mm, rad or m/s). */
export const unitSize = (id: UnitId): number => BY_ID.get(id)!.toBase;

/** Degrees to radians and back, for the edges of the program. */
export const degToRad = (deg: number): number => deg * DEG;
export const radToDeg = (rad: number): number => rad / DEG;
