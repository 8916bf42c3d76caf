import { useCallback, useEffect, useMemo, useState } from "react";
import { fieldsFor, judgeMeasure, readField, type Field } from "@/core/ready";
import type { Measure } from "@/core/sheet";
import type { Vehicle } from "@/core/vehicle";

/** One typed field: its text, its value in base units, what is wrong with it. */
export type Typed = {
  field: Field;
  text: string;
  value: number | null;
  problem: string | null;
  /** What may have been meant, each as it would be typed. */
  meanings: string[];
};

function readTyped(field: Field, text: string): Omit<Typed, "field" | "text"> {
  const { value, problem, guess, either } = readField(field, text);
  return { value, problem, meanings: (either ?? (guess ? [guess] : [])).map((m) => m.text) };
}

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
    ...readTyped(field, texts[field.id] ?? ""),
  }));
  const values = Object.fromEntries(
    typed.flatMap((t) => (t.value === null ? [] : [[t.field.id, t.value]])),
  );
  const wrong = typed.find((t) => t.problem);
  return {
    typed,
    values,
    texts,
    wrong,
    judged: judgeMeasure(measure, values, vehicle),
    change,
    clear,
    settle,
  };
}
