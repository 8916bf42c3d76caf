"use client";

import { useId, useState, type ChangeEvent } from "react";
import { readFigure, type FigureUnit } from "@/core/units";

type Base = {
  label: string;
  path: string;
  value: unknown;
  problem: string | null;
  readOnly: boolean;
  onChange: (value: unknown) => void;
};

const Note = ({ id, problem }: { id: string; problem: string | null }) => (
  <p id={id} className={`text-sm text-stop ${problem ? "" : "hidden"}`}>
    {problem}
  </p>
);

export function TextField({
  label,
  path,
  value,
  problem,
  readOnly,
  onChange,
  large = false,
}: Base & { large?: boolean }) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="block text-sm font-semibold text-soft">
        {label}
      </label>
      <input
        id={id}
        name={path}
        value={typeof value === "string" ? value : ""}
        readOnly={readOnly}
        aria-invalid={problem !== null}
        aria-describedby={`${id}-n`}
        onChange={(e) => onChange(e.target.value === "" ? undefined : e.target.value)}
        className={`min-h-14 w-full border-b-2 bg-transparent px-1 outline-none focus:border-act ${large ? "text-3xl font-semibold" : "text-lg"} ${problem ? "border-stop" : "border-ink"}`}
      />
      <Note id={`${id}-n`} problem={problem} />
    </div>
  );
}

/** What is being typed at a figure, until it is left; what was read of it goes to the document. */
export function useFigure(
  unit: FigureUnit,
  value: unknown,
  onChange: (value: number | undefined) => void,
) {
  const [text, setText] = useState<string | null>(null);
  const read = text === null || text.trim() === "" ? null : readFigure(text, unit);
  return {
    problem: read && !read.ok ? read.problem : null,
    input: {
      value: text ?? (typeof value === "number" ? String(value) : ""),
      inputMode: "decimal" as const,
      onChange: (e: ChangeEvent<HTMLInputElement>) => {
        const typed = e.target.value;
        setText(typed);
        if (typed.trim() === "") return onChange(undefined);
        const now = readFigure(typed, unit);
        if (now.ok) onChange(now.value);
      },
      onBlur: () => setText(null),
    },
  };
}

/** A figure in the sheet's own unit; another unit may be typed with its name and is converted. */
export function NumberField({
  label,
  path,
  value,
  problem,
  readOnly,
  onChange,
  unit,
}: Base & { unit: FigureUnit }) {
  const id = useId();
  const figure = useFigure(unit, value, onChange);
  const wrong = figure.problem ?? problem;
  return (
    <div>
      <label htmlFor={id} className="block text-sm font-semibold text-soft">
        {label}
      </label>
      <span
        className={`flex items-baseline border-b-2 ${wrong ? "border-stop" : readOnly ? "border-hairline" : "border-ink focus-within:border-act"}`}
      >
        <input
          id={id}
          name={path}
          readOnly={readOnly}
          aria-invalid={wrong !== null}
          aria-describedby={`${id}-n`}
          {...figure.input}
          className="figure min-h-14 w-full min-w-0 bg-transparent px-1 text-2xl font-semibold outline-none"
        />
        <span className="text-base text-soft">{UNIT_SIGNS[unit] ?? unit}</span>
      </span>
      <Note id={`${id}-n`} problem={wrong} />
    </div>
  );
}

/** Units that read better as a word beside a line. */
const UNIT_SIGNS: Partial<Record<FigureUnit, string>> = { l: "litres", d: "days" };

export function ChoiceField({
  label,
  value,
  problem,
  readOnly,
  onChange,
  choices,
}: Base & { choices: [string, string][] }) {
  const id = useId();
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold text-soft">{label}</legend>
      <div className="flex flex-wrap gap-1">
        {choices.map(([key, name]) => (
          <button
            key={key}
            type="button"
            disabled={readOnly}
            aria-pressed={value === key}
            onClick={() => onChange(key)}
            className={`min-h-12 rounded-md border-2 px-3 text-base ${value === key ? "border-act bg-act font-semibold text-on-act" : "border-hairline"}`}
          >
            {name}
          </button>
        ))}
      </div>
      <Note id={id} problem={problem} />
    </fieldset>
  );
}

export function SetField({
  label,
  value,
  problem,
  readOnly,
  onChange,
  choices,
}: Base & { choices: [string, string][] }) {
  const id = useId();
  const chosen = Array.isArray(value) ? (value as string[]) : [];
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold text-soft">{label}</legend>
      <div className="flex flex-wrap gap-1">
        {choices.map(([key, name]) => {
          const on = chosen.includes(key);
          return (
            <button
              key={key}
              type="button"
              disabled={readOnly}
              aria-pressed={on}
              onClick={() => onChange(on ? chosen.filter((c) => c !== key) : [...chosen, key])}
              className={`min-h-12 rounded-md border-2 px-3 text-base ${on ? "border-act bg-act font-semibold text-on-act" : "border-hairline"}`}
            >
              {name}
            </button>
          );
        })}
      </div>
      <Note id={id} problem={problem} />
    </fieldset>
  );
}

/** Yes or no. */
export const YesNo = ({ label, value, readOnly, onChange }: Base) => (
  <ChoiceField
    label={label}
    path=""
    problem={null}
    value={value === true ? "yes" : "no"}
    readOnly={readOnly}
    onChange={(v) => onChange(v === "yes")}
    choices={[
      ["yes", "Yes"],
      ["no", "No"],
    ]}
  />
);
