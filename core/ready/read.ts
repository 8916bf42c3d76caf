import { formatNumber, parseQuantity, radToDeg, type Meaning, type UnitId } from "@/core/units";
import { readTyre } from "@/core/vehicle";
import type { Field } from "./field";

/** What a typed text amounts to at a field of a readiness item, in base units. */
export type FieldRead =
  | { value: number; problem: null; guess: null; either: null }
  | {
      value: null;
      problem: string | null;
      guess: Meaning | null;
      either: [Meaning, Meaning] | null;
    };

const nothing = (problem: string | null): FieldRead => ({
  value: null,
  problem,
  guess: null,
  either: null,
});

/** What a bare figure at a field means; tenths of a gauge are a plain number. */
const UNIT_OF = (field: Field): UnitId =>
  field.unit === "share" || field.unit === "tyre" ? "" : field.unit;

/**
 * Reads a typed text as a field's quantity: in its unit or another of its kind, tyre sizes as
 * marked.
 */
export function readField(field: Field, text: string): FieldRead {
  if (text.trim() === "") return nothing(null);
  if (field.unit === "tyre") {
    const tyre = readTyre(text);
    return tyre
      ? { value: tyre.diameterMm, problem: null, guess: null, either: null }
      : nothing(
          `"${text.trim()}" is no tyre size; type it as on the wall: ${field.markings?.[0] ?? "225/45 R17"}.`,
        );
  }
  const parsed = parseQuantity(text, field.quantity, UNIT_OF(field));
  if (parsed.ok) return { value: parsed.value, problem: null, guess: null, either: null };
  return {
    value: null,
    problem: parsed.problem,
    guess: parsed.guess ?? null,
    either: parsed.either ?? null,
  };
}

/** A base-unit value as it would be typed: as exact as the instrument, in the field's own unit. */
export function asTyped(field: Field, value: number): string {
  if (field.unit === "tyre")
    return (
      field.markings?.find((m) => Math.abs((readTyre(m)?.diameterMm ?? 0) - value) < 0.5) ?? ""
    );
  if (field.unit === "deg")
    return formatNumber(radToDeg(value), field.decimals ?? 1).replace("−", "-");
  return String(Math.round(value * 10) / 10);
}

/**
 * Reads the typed texts of an item. Fields left empty are absent.
 *
 * @returns values in base units by field id, or the field at fault
 */
export function readFields(
  fields: readonly Field[],
  typed: Readonly<Record<string, string>>,
): { ok: true; values: Record<string, number> } | { ok: false; problem: string } {
  const values: Record<string, number> = {};
  for (const [id, text] of Object.entries(typed)) {
    const field = fields.find((f) => f.id === id);
    if (!field) return { ok: false, problem: `${id}: there is no such field here.` };
    const read = readField(field, text);
    if (read.problem) return { ok: false, problem: `${field.name}: ${read.problem}` };
    if (read.value !== null) values[id] = read.value;
  }
  return { ok: true, values };
}
