import { useCallback, useEffect, useMemo, useState } from "react";
import { fieldsFor, foundOf, judgeRead, readField, type Field } from "@/core/ready";
import type { Measure } from "@/core/sheet";
import { splitPair } from "@/core/units";
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

/** Fields that are read in one walk, left and right. */
const PAIRS = [
  ["FL", "FR"],
  ["RL", "RR"],
  ["left", "right"],
] as const;

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
  /** Two figures typed at the left one of a pair go to both. */
  const spread = (id: string): void => {
    const [left, right] = PAIRS.find(([l]) => l === id) ?? [];
    const of = (x: string | undefined): Field | undefined => fields.find((f) => f.id === x);
    const [a, b] = [of(left), of(right)];
    if (!a || !b || (texts[b.id] ?? "") !== "") return;
    const both = splitPair(texts[a.id] ?? "", [
      (part) => readField(a, part).value,
      (part) => readField(b, part).value,
    ]);
    if (both) change({ [a.id]: both.typed[0], [b.id]: both.typed[1] });
  };
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
    judged: judgeRead(measure, values, vehicle),
    found: foundOf(measure, values, vehicle),
    change,
    spread,
    clear,
    settle,
  };
}
