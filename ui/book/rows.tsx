"use client";

import { useId, type ReactNode } from "react";
import type { FigureUnit } from "@/core/units";
import { useFigure } from "./fields";

/** Numbered rows of a sheet: each can go up, or out, and carries its own problem. */
export function Rows<T>({
  items,
  name,
  from = 1,
  keyOf,
  problemAt,
  readOnly,
  onChange,
  children,
}: {
  items: T[];
  /** What one row is called: "step", "item". */
  name: string;
  /** The number of the first row. */
  from?: number;
  keyOf: (item: T, i: number) => string | number;
  problemAt: (i: number) => string | null;
  readOnly: boolean;
  onChange: (items: T[]) => void;
  children: (item: T, i: number) => ReactNode;
}) {
  return (
    <ol className="flex flex-col gap-1">
      {items.map((item, i) => {
        const problem = problemAt(i);
        return (
          <li
            key={keyOf(item, i)}
            className={`flex flex-wrap items-center gap-2 border-l-4 bg-sheet px-3 py-2 ${problem ? "border-stop" : "border-hairline"}`}
          >
            <span className="figure w-7 text-lg text-soft">{i + from}</span>
            {children(item, i)}
            {!readOnly && (
              <span className="flex">
                <button
                  type="button"
                  aria-label={`Move ${name} ${i + from} up`}
                  disabled={i === 0}
                  onClick={() =>
                    onChange([...items.slice(0, i - 1), item, items[i - 1]!, ...items.slice(i + 1)])
                  }
                  className="min-h-12 min-w-10 rounded-md hover:bg-wash disabled:opacity-30"
                >
                  ↑
                </button>
                <button
                  type="button"
                  aria-label={`Take ${name} ${i + from} out`}
                  onClick={() => onChange(items.filter((_, k) => k !== i))}
                  className="min-h-12 min-w-10 rounded-md hover:bg-wash"
                >
                  ×
                </button>
              </span>
            )}
            {problem && <p className="w-full pl-9 text-sm text-stop">{problem}</p>}
          </li>
        );
      })}
    </ol>
  );
}

const LINE =
  "min-h-12 border-b border-ink bg-transparent px-1 text-base outline-none focus:border-act";

/** A line of text in a row. */
export const RowText = ({
  label,
  value,
  readOnly,
  onChange,
  hint,
  className = "flex-1",
}: {
  label: string;
  value: string;
  hint?: string;
  readOnly: boolean;
  onChange: (text: string) => void;
  className?: string;
}) => (
  <input
    aria-label={label}
    title={label}
    placeholder={hint}
    value={value}
    readOnly={readOnly}
    onChange={(e) => onChange(e.target.value)}
    className={`${LINE} min-w-48 placeholder:font-normal placeholder:text-soft ${className}`}
  />
);

/** A figure in a row, with its name before it and its unit behind. */
export function RowNumber({
  label,
  name,
  unit,
  value,
  readOnly,
  onChange,
}: {
  label: string;
  name: string;
  unit: FigureUnit;
  value: unknown;
  readOnly: boolean;
  onChange: (value: number | undefined) => void;
}) {
  const id = useId();
  const figure = useFigure(unit, value, onChange);
  return (
    <span className="inline-flex flex-col">
      <label className="flex items-center gap-1 text-sm text-soft">
        {name}
        <input
          aria-label={label}
          aria-invalid={figure.problem !== null}
          aria-describedby={`${id}-n`}
          readOnly={readOnly}
          {...figure.input}
          className={`figure ${LINE} w-24 ${figure.problem ? "border-stop" : ""} text-ink`}
        />
        {unit}
      </label>
      <span id={`${id}-n`} className="max-w-64 text-sm text-stop">
        {figure.problem}
      </span>
    </span>
  );
}
