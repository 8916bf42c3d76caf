/**
 * Quantities the product names, their base unit inside the program (mm, rad, m/s, kPa, s, l, V),
 * and the magnitudes that can be true. A count and a percentage are quantities too: they take no
 * other unit.
 */

export type Dimension =
  "length" | "angle" | "speed" | "pressure" | "time" | "volume" | "voltage" | "percent" | "count";

/**
 * A named quantity with the range a value can honestly have, in base units. Typed
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
  | "mm"
  | "cm"
  | "m"
  | "in"
  | "ft"
  | "deg"
  | "arcmin"
  | "km/h"
  | "mph"
  | "kPa"
  | "bar"
  | "psi"
  | "s"
  | "min"
  | "h"
  | "d"
  | "l"
  | "ml"
  | "US gal"
  | "imp gal"
  | "V"
  | "mV"
  | "%"
  | "";

type Unit = {
  id: UnitId;
  dimension: Dimension;
  toBase: number;
  spellings: string[];
  plural: string;
};

const DEG = Math.PI / 180;

// Exact by definition: inch 25.4 mm (1959), foot 12 in, mile 1 609.344 m, bar 100 kPa, US gallon 231
// cubic inches, imperial gallon 4.546 09 l; psi to seven figures. Units of one dimension from the
// smallest on.
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
  {
    id: "s",
    dimension: "time",
    toBase: 1,
    spellings: ["s", "sec", "second", "seconds"],
    plural: "seconds",
  },
  {
    id: "min",
    dimension: "time",
    toBase: 60,
    spellings: ["min", "mins", "minute", "minutes"],
    plural: "minutes",
  },
  {
    id: "h",
    dimension: "time",
    toBase: 3600,
    spellings: ["h", "hour", "hours"],
    plural: "hours",
  },
  {
    id: "d",
    dimension: "time",
    toBase: 86_400,
    spellings: ["d", "day", "days"],
    plural: "days",
  },
  {
    id: "ml",
    dimension: "volume",
    toBase: 0.001,
    spellings: ["ml", "millilitre", "millilitres"],
    plural: "millilitres",
  },
  {
    id: "l",
    dimension: "volume",
    toBase: 1,
    spellings: ["l", "litre", "litres", "liter", "liters"],
    plural: "litres",
  },
  {
    id: "US gal",
    dimension: "volume",
    toBase: 3.785411784,
    spellings: ["us gal", "us gallon", "us gallons"],
    plural: "US gallons",
  },
  {
    id: "imp gal",
    dimension: "volume",
    toBase: 4.54609,
    spellings: ["imp gal", "imperial gallon", "imperial gallons"],
    plural: "imperial gallons",
  },
  { id: "mV", dimension: "voltage", toBase: 0.001, spellings: ["mv"], plural: "millivolts" },
  {
    id: "V",
    dimension: "voltage",
    toBase: 1,
    spellings: ["v", "volt", "volts"],
    plural: "volts",
  },
  { id: "%", dimension: "percent", toBase: 1, spellings: ["%"], plural: "per cent" },
  { id: "", dimension: "count", toBase: 1, spellings: [], plural: "" },
];

const BY_ID = new Map(UNITS.map((u) => [u.id, u]));

/** The size of one of `id` in the base unit of its dimension. */
export const unitSize = (id: UnitId): number => BY_ID.get(id)!.toBase;

/** Degrees to radians and back, for the edges of the program. */
export const degToRad = (deg: number): number => deg * DEG;
export const radToDeg = (rad: number): number => rad / DEG;
