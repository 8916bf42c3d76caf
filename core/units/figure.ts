import { parseQuantity, type Parsed } from "./parse";
import { unitSize, type Dimension, type UnitId } from "./quantity";

/**
 * The units figures of a document are kept in. A field of one takes its own quantity only: "1 m"
 * is no number of days.
 */
export type FigureUnit = "mm" | "m" | "°" | "kPa" | "l" | "V" | "s" | "min" | "d" | "%" | "";

type Figure = { dimension: Dimension; unit: UnitId; min: number; max: number };

/** How each is read; the range is in the figure's own unit, and no narrower than a misprint. */
export const FIGURES: Record<FigureUnit, Figure> = {
  mm: { dimension: "length", unit: "mm", min: -1e6, max: 1e6 },
  m: { dimension: "length", unit: "m", min: 0, max: 1e4 },
  "°": { dimension: "angle", unit: "deg", min: -720, max: 720 },
  kPa: { dimension: "pressure", unit: "kPa", min: 0, max: 5000 },
  l: { dimension: "volume", unit: "l", min: 0, max: 1e4 },
  V: { dimension: "voltage", unit: "V", min: 0, max: 1000 },
  s: { dimension: "time", unit: "s", min: 0, max: 1e5 },
  min: { dimension: "time", unit: "min", min: 0, max: 1e5 },
  d: { dimension: "time", unit: "d", min: 0, max: 36_525 },
  "%": { dimension: "percent", unit: "%", min: -1e4, max: 1e4 },
  "": { dimension: "count", unit: "", min: -1e6, max: 1e6 },
};

/**
 * Reads a typed text as a figure of a document: in its unit, or in another of its quantity that is
 * typed with its name.
 *
 * @returns the value in `unit` itself, to a millionth of it
 */
export function readFigure(text: string, unit: FigureUnit, name = "this"): Parsed {
  const f = FIGURES[unit];
  const size = unitSize(f.unit);
  const quantity = { name, dimension: f.dimension, min: f.min * size, max: f.max * size };
  const read = parseQuantity(text, quantity, f.unit);
  return read.ok ? { ...read, value: Math.round((read.value / size) * 1e6) / 1e6 } : read;
}
