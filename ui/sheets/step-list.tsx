"use client";

import type { SheetDraft, SheetProblem } from "@/core/sheet";
import { Button } from "../primitives/button";

type Step = Record<string, unknown> & { id?: string; kind?: string; say?: string };
type Props = {
  doc: SheetDraft;
  problems: SheetProblem[];
  readOnly: boolean;
  onChange: (path: string, value: unknown) => void;
};

const KINDS: Record<string, { name: string; numbers: [string, string][]; fresh: Step }> = {
  prompt: { name: "Do", numbers: [], fresh: { kind: "prompt", say: "" } },
  ignition: { name: "Ignition", numbers: [["waitSeconds", "rest, s"]], fresh: { kind: "ignition", say: "", to: "on", waitSeconds: 5 } },
  compare: { name: "Compare", numbers: [["min", "from"], ["max", "to"]], fresh: { kind: "compare", say: "", value: "battery-voltage", unit: "V", min: 12.4, max: 15 } },
  input: { name: "Enter", numbers: [["minMm", "from, mm"], ["maxMm", "to, mm"]], fresh: { kind: "input", say: "", name: "", minMm: 600, maxMm: 760 } },
  routine: { name: "Routine", numbers: [["minQuality", "quality, %"]], fresh: { kind: "routine", say: "", routine: "forward-camera-static", minQuality: 80 } },
}; // prettier-ignore

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
      <ol className="flex flex-col gap-1">
        {steps.map((s, i) => {
          const kind = KINDS[s.kind ?? "prompt"];
          const problem = problemAt(i);
          return (
            <li key={s.id ?? i} className={`flex flex-wrap items-center gap-2 border-l-4 bg-sheet px-3 py-2 ${problem ? "border-stop" : "border-hairline"}`}>
              <span className="figure w-7 text-lg text-soft">{i + 1}</span>
              <span className="w-20 text-base font-semibold">{kind?.name ?? s.kind}</span>
              <input aria-label={`Step ${i + 1}: what is said`} value={s.say ?? ""} readOnly={readOnly} onChange={(e) => patch(i, { say: e.target.value })} className="min-h-12 min-w-48 flex-1 border-b border-ink bg-transparent px-1 text-base outline-none focus:border-act" />
              {kind?.numbers.map(([field, name]) => (
                <label key={field} className="flex items-center gap-1 text-sm text-soft">
                  {name}
                  <input aria-label={`Step ${i + 1}: ${name}`} type="number" step="any" value={typeof s[field] === "number" ? s[field] : ""} readOnly={readOnly} onChange={(e) => patch(i, { [field]: e.target.value === "" ? undefined : Number(e.target.value) })} className="figure min-h-12 w-24 border-b border-ink bg-transparent px-1 text-base text-ink outline-none focus:border-act" />
                </label>
              ))}
              {!readOnly && (
                <span className="flex">
                  <button type="button" aria-label={`Move step ${i + 1} up`} disabled={i === 0} onClick={() => put([...steps.slice(0, i - 1), s, steps[i - 1]!, ...steps.slice(i + 1)])} className="min-h-12 min-w-10 rounded-md hover:bg-wash disabled:opacity-30">
                    ↑
                  </button>
                  <button type="button" aria-label={`Take step ${i + 1} out`} onClick={() => put(steps.filter((_, k) => k !== i))} className="min-h-12 min-w-10 rounded-md hover:bg-wash">
                    ×
                  </button>
                </span>
              )}
              {problem && <p className="w-full pl-9 text-sm text-stop">{problem}</p>}
            </li>
          );
        })}
      </ol>
      {!readOnly && (
        <div className="mt-2 flex flex-wrap gap-1">
          {Object.entries(KINDS).map(([kind, { name }]) => (
            <Button key={kind} look="quiet" className="!px-3" onClick={() => add(kind)}>
              + {name}
            </Button>
          ))}
        </div>
      )}
    </section>
  ); // prettier-ignore
}
