"use client";

import type { FigureUnit } from "@/core/units";
import type { Draft, Problem } from "@/core/book";
import { WANTS } from "@/core/sheet";
import { Button } from "../primitives/button";
import { RowNumber, Rows, RowText } from "../book/rows";
import { getAt, setAt } from "../book/paths";
import { RowPictures } from "./row-pictures";
import { routineOf } from "./systems";

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
  position: {
    name: "Move",
    numbers: [["withinSeconds", "the vehicle waits", "s"]],
    fresh: { kind: "position", say: "", to: "first" },
  },
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
  hold: {
    name: "Hold",
    numbers: [
      ["withinSeconds", "within", "s"],
      ["forSeconds", "for", "s"],
    ],
    fresh: { kind: "hold", say: "", withinSeconds: 8, forSeconds: 2 },
  },
  choose: {
    name: "Choose",
    numbers: [],
    fresh: {
      kind: "choose",
      say: "",
      options: [
        { id: "one", name: "" },
        { id: "other", name: "" },
      ],
    },
  },
  routine: {
    name: "Routine",
    numbers: [["minQuality", "quality", "%"]],
    fresh: { kind: "routine", say: "", minQuality: 80 },
  },
  aim: {
    name: "Aim",
    numbers: [
      ["scale.divisionDeg", "a division is", "°"],
      ["scale.most", "to the edge", ""],
      ["at.right", "mark right", ""],
      ["at.up", "mark up", ""],
      ["steps.panDeg", "a step aside", "°"],
      ["steps.tiltDeg", "a step up", "°"],
      ["within", "within", ""],
    ],
    fresh: {
      kind: "aim",
      say: "",
      side: "left",
      mark: "mark-left",
      scale: {},
      at: { right: 0, up: 0 },
      steps: {},
    },
  },
};

type Option = { id: string; name: string; board?: string | undefined };

/** What a vehicle reports, and in which unit the book counts it. */
const COMPARED = [
  ["battery-voltage", "supply voltage", "V"],
  ["camera-height", "camera height, stored", "mm"],
  ["stored-yaw", "yaw, stored", "deg"],
  ["stored-pitch", "pitch, stored", "deg"],
] as const;

const UNIT_OF: Record<string, FigureUnit> = { mm: "mm", deg: "°" };

function Pick({
  label,
  value,
  options,
  readOnly,
  onChange,
}: {
  label: string;
  value: string;
  options: readonly (readonly [value: string, name: string])[];
  readOnly: boolean;
  onChange: (value: string) => void;
}) {
  return (
    <select
      aria-label={label}
      value={value}
      disabled={readOnly}
      onChange={(e) => onChange(e.target.value)}
      className="min-h-12 rounded-md border border-hairline bg-sheet px-2 text-base"
    >
      {options.map(([id, name]) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}

/** After these a unit must be told its figures anew. */
const REPLACED = ["camera-replaced", "unit-replaced", "unit-programmed"];

/** The routine's steps: reword, renumber, reorder, add, take out. */
export function StepList({ doc, problems, readOnly, onChange }: Props) {
  const steps = (Array.isArray(doc.run) ? doc.run : []) as Step[];
  const marks = (
    (doc.setups as
      | { targets?: { id: string; kind?: string; name?: string; object?: { side?: string } }[] }[]
      | undefined) ?? []
  )
    .flatMap((setup) => setup.targets ?? [])
    .filter((t) => t.kind === "mark");
  const put = (list: Step[]): void => onChange("run", list);
  const patch = (i: number, change: Partial<Step>): void =>
    put(steps.map((s, k) => (k === i ? { ...s, ...change } : s)));
  const add = (kind: string): void => {
    let n = steps.length + 1;
    while (steps.some((s) => s.id === `${kind}-${n}`)) n++;
    const { system } = (doc.appliesTo ?? {}) as { system?: string };
    const own = kind === "routine" ? { routine: routineOf(system) } : {};
    put([...steps, { id: `${kind}-${n}`, ...KINDS[kind]!.fresh, ...own }]);
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
              {s.kind === "aim" && (
                <select
                  aria-label={`Step ${i + 1}: at which mark`}
                  value={String(s.mark ?? "")}
                  disabled={readOnly}
                  onChange={(e) =>
                    patch(i, {
                      mark: e.target.value,
                      side: marks.find((m) => m.id === e.target.value)?.object?.side ?? "left",
                    })
                  }
                  className="min-h-12 rounded-md border border-hairline bg-sheet px-2 text-base"
                >
                  {marks.map((m) => (
                    <option key={m.id} value={m.id}>
                      {m.name || m.id}
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
                  <option value="trailer-camera-height">
                    height of the trailer’s camera, from the vehicle’s book
                  </option>
                  <option value="trailer-length">trailer’s length, from the vehicle’s book</option>
                  <option value="camera-height-left">left camera’s height, from Ready</option>
                  <option value="camera-height-right">right camera’s height, from Ready</option>
                  <option value="hub-to-board">distance of the board, from Set out</option>
                  <option value="target-height">height of the board, from Set out</option>
                </select>
              )}
              {s.kind === "prompt" && (
                <Pick
                  label={`Step ${i + 1}: what it waits for`}
                  value={String(s.wants ?? "")}
                  options={[["", "what it says"], ...Object.entries(WANTS)]}
                  readOnly={readOnly}
                  onChange={(wants) => patch(i, { wants: wants || undefined })}
                />
              )}
              {s.kind === "ignition" && (
                <Pick
                  label={`Step ${i + 1}: ignition`}
                  value={String(s.to ?? "on")}
                  options={[
                    ["on", "on"],
                    ["off", "off"],
                    ["running", "engine running"],
                  ]}
                  readOnly={readOnly}
                  onChange={(to) => patch(i, { to })}
                />
              )}
              {s.kind === "compare" && (
                <Pick
                  label={`Step ${i + 1}: which value`}
                  value={String(s.value ?? "battery-voltage")}
                  options={COMPARED.map(([value, name]) => [value, name])}
                  readOnly={readOnly}
                  onChange={(value) =>
                    patch(i, { value, unit: COMPARED.find(([v]) => v === value)![2] })
                  }
                />
              )}
              {s.kind === "choose" &&
                ((s.options ?? []) as Option[]).map((o, k) => {
                  const change = (c: Partial<Option>): void =>
                    patch(i, {
                      options: (s.options as Option[]).map((x, n) =>
                        n === k ? { ...x, ...c } : x,
                      ),
                    });
                  return (
                    <span key={o.id} className="flex items-center gap-1 pl-9">
                      <RowText
                        label={`Step ${i + 1}, option ${k + 1}: name`}
                        value={o.name}
                        readOnly={readOnly}
                        onChange={(name) => change({ name })}
                      />
                      <RowText
                        label={`Step ${i + 1}, option ${k + 1}: code of its board`}
                        value={o.board ?? ""}
                        readOnly={readOnly}
                        onChange={(board) => change({ board: board || undefined })}
                      />
                    </span>
                  );
                })}
              {(s.kind === "input" || s.kind === "prompt") && (
                <select
                  aria-label={`Step ${i + 1}: when it is asked`}
                  value={Array.isArray(s.only) ? "only" : ""}
                  disabled={readOnly}
                  onChange={(e) => patch(i, { only: e.target.value ? REPLACED : undefined })}
                  className="min-h-12 rounded-md border border-hairline bg-sheet px-2 text-base"
                >
                  <option value="">always</option>
                  <option value="only">only after a camera or unit was replaced</option>
                </select>
              )}
              {kind?.numbers.map(([field, name, unit]) => (
                <RowNumber
                  key={field}
                  label={`Step ${i + 1}: ${name}`}
                  name={name}
                  unit={(s.kind === "compare" && UNIT_OF[String(s.unit)]) || unit}
                  value={getAt(s, field)}
                  readOnly={readOnly}
                  onChange={(v) => put(steps.map((x, k) => (k === i ? setAt(x, field, v) : x)))}
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
          {Object.entries(KINDS)
            .filter(([kind]) => kind !== "aim" || marks.length > 0)
            .map(([kind, { name }]) => (
              <Button key={kind} look="quiet" onClick={() => add(kind)}>
                + {name}
              </Button>
            ))}
        </div>
      )}
    </section>
  );
}
