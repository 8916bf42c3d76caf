"use client";

import type { FigureUnit } from "@/core/units";
import type { Draft, Problem } from "@/core/book";
import { Button } from "../primitives/button";
import { RowNumber, Rows, RowText } from "../book/rows";
import { RowPictures } from "./row-pictures";

type Step = Record<string, unknown> & { id?: string; kind?: string; say?: string };
type Props = {
  doc: Draft;
  problems: Problem[];
  readOnly: boolean;
  onChange: (path: string, value: unknown) => void;
};

const KINDS: Record<
  string,
  { name: string; numbers: [string, string, FigureUnit][]; fresh: Step }
> = {
  prompt: { name: "Do", numbers: [], fresh: { kind: "prompt", say: "" } },
  position: { name: "Move", numbers: [], fresh: { kind: "position", say: "", to: "first" } },
  ignition: {
    name: "Ignition",
    numbers: [["waitSeconds", "rest", "s"]],
    fresh: { kind: "ignition", say: "", to: "on", waitSeconds: 5 },
  },
  compare: {
    name: "Compare",
    numbers: [
      ["min", "from", "V"],
      ["max", "to", "V"],
    ],
    fresh: { kind: "compare", say: "", value: "battery-voltage", unit: "V", min: 12.4, max: 15 },
  },
  input: {
    name: "Enter",
    numbers: [
      ["minMm", "from", "mm"],
      ["maxMm", "to", "mm"],
    ],
    fresh: { kind: "input", say: "", name: "", minMm: 600, maxMm: 760 },
  },
  routine: {
    name: "Routine",
    numbers: [["minQuality", "quality", "%"]],
    fresh: { kind: "routine", say: "", routine: "forward-camera-static", minQuality: 80 },
  },
};

/** The routine's steps: reword, renumber, reorder, add, take out. */
export function StepList({ doc, problems, readOnly, onChange }: Props) {
  const steps = (Array.isArray(doc.run) ? doc.run : []) as Step[];
  const put = (list: Step[]): void => onChange("run", list);
  const patch = (i: number, change: Partial<Step>): void =>
    put(steps.map((s, k) => (k === i ? { ...s, ...change } : s)));
  const add = (kind: string): void => {
    let n = steps.length + 1;
    while (steps.some((s) => s.id === `${kind}-${n}`)) n++;
    put([...steps, { id: `${kind}-${n}`, ...KINDS[kind]!.fresh }]);
  };
  const problemAt = (i: number): string | null =>
    problems.find((p) => p.field.startsWith(`run.${i}.`))?.message ?? null;
  return (
    <section aria-label="Steps of the routine">
      <h2 className="mb-1 text-sm font-semibold text-soft">Steps of the routine</h2>
      <Rows
        items={steps}
        name="step"
        keyOf={(s, i) => s.id ?? i}
        readOnly={readOnly}
        onChange={put}
        problemAt={problemAt}
      >
        {(s, i) => {
          const kind = KINDS[s.kind ?? "prompt"];
          return (
            <>
              <span className="w-20 text-base font-semibold">{kind?.name ?? s.kind}</span>
              <RowText
                label={`Step ${i + 1}: what is said`}
                value={s.say ?? ""}
                readOnly={readOnly}
                onChange={(say) => patch(i, { say })}
              />
              {s.kind === "position" && (
                <select
                  aria-label={`Step ${i + 1}: to which place`}
                  value={String(s.to ?? "")}
                  disabled={readOnly}
                  onChange={(e) => patch(i, { to: e.target.value })}
                  className="min-h-12 rounded-md border border-hairline bg-sheet px-2 text-base"
                >
                  {(
                    (doc.setups as { targets: { id: string; name?: string }[] }[] | undefined) ?? []
                  )
                    .flatMap((setup) => setup.targets)
                    .map((t) => (
                      <option key={t.id} value={t.id}>
                        {t.name || t.id}
                      </option>
                    ))}
                </select>
              )}
              {s.kind === "input" && (
                <select
                  aria-label={`Step ${i + 1}: figure of`}
                  value={String(s.takes ?? "")}
                  disabled={readOnly}
                  onChange={(e) => patch(i, { takes: e.target.value || undefined })}
                  className="min-h-12 rounded-md border border-hairline bg-sheet px-2 text-base"
                >
                  <option value="">measured then</option>
                  <option value="arch-front">front arches, from Ready</option>
                  <option value="arch-rear">rear arches, from Ready</option>
                  <option value="trailer-length">trailer’s length, from the vehicle’s book</option>
                </select>
              )}
              {kind?.numbers.map(([field, name, unit]) => (
                <RowNumber
                  key={field}
                  label={`Step ${i + 1}: ${name}`}
                  name={name}
                  unit={s.kind === "compare" && s.unit === "mm" ? "mm" : unit}
                  value={s[field]}
                  readOnly={readOnly}
                  onChange={(v) => patch(i, { [field]: v })}
                />
              ))}
              <RowPictures
                at={`Step ${i + 1}`}
                pictures={s.pictures}
                className="pl-9"
                readOnly={readOnly}
                onChange={(pictures) => patch(i, { pictures })}
              />
            </>
          );
        }}
      </Rows>
      {!readOnly && (
        <div className="mt-2 flex flex-wrap gap-1">
          {Object.entries(KINDS).map(([kind, { name }]) => (
            <Button key={kind} look="quiet" onClick={() => add(kind)}>
              + {name}
            </Button>
          ))}
        </div>
      )}
    </section>
  );
}
