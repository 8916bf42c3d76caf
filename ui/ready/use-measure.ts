import { useCallback, useEffect, useMemo, useState } from "react";
import { fieldsFor, judgeMeasure, type Field } from "@/core/ready";
import type { Measure } from "@/core/sheet";
import { formatNumber, parseQuantity, radToDeg, type UnitId } from "@/core/units";
import { readTyre, type Vehicle } from "@/core/vehicle";

/** One typed field: its text, its value in base units, what is wrong with it. */
export type Typed = {
  field: Field;
  text: string;
  value: number | null;
  problem: string | null;
  guess: { text: string; typed: string } | null;
};

const UNIT_OF = (field: Field): UnitId =>
  field.unit === "share" || field.unit === "V" || field.unit === "tyre" ? "mm" : field.unit;

function read(field: Field, text: string): Omit<Typed, "field" | "text"> {
  if (text.trim() === "") return { value: null, problem: null, guess: null };
  if (field.unit === "tyre") {
    const tyre = readTyre(text);
    const problem = tyre ? null : `"${text.trim()}" is no tyre size; type it as on the wall: ${field.markings?.[0] ?? "225/45 R17"}.`; // prettier-ignore
    return { value: tyre?.diameterMm ?? null, problem, guess: null };
  }
  const parsed = parseQuantity(text, field.quantity, UNIT_OF(field));
  if (parsed.ok) return { value: parsed.value, problem: null, guess: null };
  const guess = parsed.guess ? { text: parsed.guess.text, typed: parsed.guess.text.replace("metres", "m") } : null;
  return { value: null, problem: parsed.problem, guess };
}

/** A base-unit value as it would be typed: as exact as the instrument, in the field's own unit. */
export const asTyped = (field: Field, value: number): string =>
  field.unit === "tyre"
    ? (field.markings?.find((m) => Math.abs((readTyre(m)?.diameterMm ?? 0) - value) < 0.5) ?? "")
    : field.unit === "deg"
      ? formatNumber(radToDeg(value), 1).replace("−", "-")
      : String(Math.round(value * 10) / 10);

/** The texts of one readiness item; every keystroke is kept until the values are written. */
export function useMeasure(
  jobId: string,
  itemId: string,
  measure: Measure,
  vehicle: Vehicle,
  written: Readonly<Record<string, string>>,
) {
  const key = `iridel:ready:${jobId}:${itemId}`;
  const fields = useMemo(() => fieldsFor(measure, vehicle), [measure, vehicle]);
  const [texts, setTexts] = useState<Record<string, string>>(written);
  useEffect(() => {
    const kept = localStorage.getItem(key);
    // Only the browser knows what an earlier visit left; it is read after the first paint.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    setTexts(kept ? (JSON.parse(kept) as Record<string, string>) : written);
    // What was written counts only when nothing newer is half typed.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  const change = useCallback(
    (patch: Record<string, string>) =>
      setTexts((t) => {
        const next = { ...t, ...patch };
        localStorage.setItem(key, JSON.stringify(next));
        return next;
      }),
    [key],
  );
  const clear = useCallback(() => {
    localStorage.removeItem(key);
    setTexts({});
  }, [key]);
  const settle = useCallback(() => localStorage.removeItem(key), [key]);

  const typed = fields.map((field): Typed => ({
    field,
    text: texts[field.id] ?? "",
    ...read(field, texts[field.id] ?? ""),
  }));
  const values = Object.fromEntries(typed.flatMap((t) => (t.value === null ? [] : [[t.field.id, t.value]])));
  const wrong = typed.find((t) => t.problem);
  return { typed, values, texts, wrong, judged: judgeMeasure(measure, values, vehicle), change, clear, settle };
}
