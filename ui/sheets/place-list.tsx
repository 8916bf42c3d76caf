"use client";

import type { Draft, Problem } from "@/core/book";
import { CAUTION_MOMENTS, type CautionMoment } from "@/core/sheet";
import { RowNumber, Rows, RowText } from "../book/rows";
import { Button } from "../primitives/button";
import { hasOwnLimits } from "./own-limit-fields";

type Caution = { say: string; when: CautionMoment };
type Part = Record<string, unknown>;
type Target = {
  id: string;
  name?: string;
  placement?: Part;
  tolerance?: Part;
  object?: Part;
};
type Setup = { id: string; name?: string; targets: Target[] };
type Props = {
  doc: Draft;
  problems: Problem[];
  readOnly: boolean;
  onChange: (path: string, value: unknown) => void;
};

const FIGURES = [
  ["alongMm", "ahead", "mm"],
  ["acrossMm", "across", "mm"],
  ["twistDeg", "twist", "°"],
  ["heightMm", "height", "mm"],
] as const;

/** A target after the first: it stands beside those of its setup, or begins the next setup. */
type Row = { target: Target; beside: boolean; path: string };

const setupsOf = (doc: Draft): Setup[] =>
  Array.isArray(doc.setups) ? (doc.setups as Setup[]) : [];

const rowsOf = (setups: Setup[]): Row[] =>
  setups
    .flatMap((s, i) =>
      s.targets.map((target, j) => ({
        target,
        beside: j > 0,
        path: `setups.${i}.targets.${j}`,
      })),
    )
    .slice(1);

/** The setups that a list of targets makes: one that is not beside the one before begins its own. */
function setupsFrom(first: Setup, rows: Row[]): Setup[] {
  const setups: Setup[] = [{ ...first, targets: first.targets.slice(0, 1) }];
  for (const { target, beside } of rows)
    if (beside) setups.at(-1)!.targets.push(target);
    else setups.push({ id: target.id, name: target.name ?? "", targets: [target] });
  return setups;
}

/**
 * Targets after the first: each is set out and proved where it belongs before the routine goes on.
 */
export function PlaceList({ doc, problems, readOnly, onChange }: Props) {
  const setups = setupsOf(doc);
  const first = setups[0];
  const rows = rowsOf(setups);
  if (!first) return null;
  const put = (list: Row[]): void => onChange("setups", setupsFrom(first, list));
  const add = (): void => {
    let n = rows.length + 2;
    while (rows.some((r) => r.target.id === `place-${n}`)) n++;
    const target = { ...structuredClone(first.targets[0]!), id: `place-${n}`, name: "" };
    put([...rows, { target, beside: false, path: "" }]);
  };
  return (
    <section aria-label="Further places">
      <h2 className="mb-1 text-sm font-semibold text-soft">Further places of the board</h2>
      <Rows
        items={rows}
        name="place"
        from={2}
        keyOf={(r) => r.target.id}
        readOnly={readOnly}
        onChange={put}
        problemAt={(i) =>
          problems.find((p) => p.field.startsWith(`${rows[i]!.path}.`) || p.field === rows[i]!.path)
            ?.message ?? null
        }
      >
        {({ target, beside }, i) => {
          const patch = (change: Partial<Target>): void =>
            put(rows.map((r, k) => (k === i ? { ...r, target: { ...r.target, ...change } } : r)));
          const label = (what: string): string => `Place ${i + 2}: ${what}`;
          return (
            <span className="flex min-w-0 flex-1 flex-col gap-1">
              <RowText
                label={label("what it is called")}
                value={target.name ?? ""}
                readOnly={readOnly}
                onChange={(name) => patch({ name })}
                hint="what this place is called"
                className="font-semibold"
              />
              <span className="grid gap-x-6 sm:grid-cols-2">
                {FIGURES.flatMap(([field, name, unit]) =>
                  (["placement", "tolerance"] as const).map((part) => {
                    const called = part === "tolerance" ? `± ${name}` : name;
                    return (
                      <RowNumber
                        key={part + field}
                        label={label(called)}
                        name={called}
                        unit={unit}
                        value={target[part]?.[field]}
                        readOnly={readOnly || (part === "tolerance" && hasOwnLimits(doc))}
                        onChange={(v) => patch({ [part]: { ...target[part], [field]: v } })}
                      />
                    );
                  }),
                )}
              </span>
              <span className="flex flex-wrap items-center gap-x-4 gap-y-1">
                <label className="flex items-center gap-1 text-sm text-soft">
                  board
                  <RowText
                    label={label("board code")}
                    value={String(target.object?.code ?? "")}
                    readOnly={readOnly}
                    onChange={(code) => patch({ object: { ...target.object, code } })}
                    className="!min-w-24 w-24 text-ink"
                  />
                </label>
                <RowNumber
                  label={label("board width")}
                  name="its width"
                  unit="mm"
                  value={target.object?.widthMm}
                  readOnly={readOnly}
                  onChange={(widthMm) => patch({ object: { ...target.object, widthMm } })}
                />
                <label className="flex min-h-12 items-center gap-2 text-base">
                  <input
                    type="checkbox"
                    className="h-6 w-6 accent-act"
                    checked={beside}
                    disabled={readOnly}
                    onChange={(e) =>
                      put(rows.map((r, k) => (k === i ? { ...r, beside: e.target.checked } : r)))
                    }
                  />
                  the board before it stays; another stand carries this one
                </label>
              </span>
            </span>
          );
        }}
      </Rows>
      {!readOnly && (
        <Button look="quiet" className="mt-1" onClick={add}>
          + Place
        </Button>
      )}
    </section>
  );
}

/** One plain line for each thing that can hurt somebody; shown at the moment it protects. */
export function CautionList({ doc, problems, readOnly, onChange }: Props) {
  const cautions = (Array.isArray(doc.cautions) ? doc.cautions : []) as Caution[];
  const put = (list: Caution[]): void => onChange("cautions", list);
  return (
    <section aria-label="Cautions">
      <h2 className="mb-1 text-sm font-semibold text-soft">Cautions</h2>
      <Rows
        items={cautions}
        name="caution"
        keyOf={(_, i) => i}
        readOnly={readOnly}
        onChange={put}
        problemAt={(i) =>
          problems.find((p) => p.field.startsWith(`cautions.${i}.`))?.message ?? null
        }
      >
        {({ say, when }, i) => {
          const patch = (change: Partial<Caution>): void =>
            put(cautions.map((c, k) => (k === i ? { ...c, ...change } : c)));
          return (
            <>
              <RowText
                label={`Caution ${i + 1}`}
                value={say}
                readOnly={readOnly}
                onChange={(t) => patch({ say: t })}
              />
              <select
                aria-label={`Caution ${i + 1}: when it is shown`}
                value={when}
                disabled={readOnly}
                onChange={(e) => patch({ when: e.target.value as CautionMoment })}
                className="min-h-12 rounded-md border border-hairline bg-sheet px-2 text-base"
              >
                {Object.entries(CAUTION_MOMENTS).map(([moment, name]) => (
                  <option key={moment} value={moment}>
                    {name}
                  </option>
                ))}
              </select>
            </>
          );
        }}
      </Rows>
      {!readOnly && (
        <Button
          look="quiet"
          className="mt-1"
          onClick={() => put([...cautions, { say: "", when: "start" }])}
        >
          + Caution
        </Button>
      )}
    </section>
  );
}
