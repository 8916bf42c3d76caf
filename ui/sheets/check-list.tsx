"use client";

import type { FigureUnit } from "@/core/units";
import type { Draft, Problem } from "@/core/book";
import type { Measure } from "@/core/sheet";
import { Button } from "../primitives/button";
import { RowNumber, Rows, RowText } from "../book/rows";
import { RowPictures } from "./row-pictures";

type Item = {
  id: string;
  ask?: string;
  why?: string;
  pictures?: unknown;
  measure?: Record<string, unknown> & { kind: string };
};
type Props = {
  doc: Draft;
  stage: "ready" | "prove";
  problems: Problem[];
  readOnly: boolean;
  onChange: (path: string, value: unknown) => void;
};

/**
 * How an item is settled: by eye, or by one of the measurements the bench knows; with the limits it
 * needs.
 */
const MEASURES: { fresh: Measure; name: string; numbers: [string, string, FigureUnit][] }[] = [
  { name: "Scan of all units", fresh: { kind: "scan" }, numbers: [] },
  {
    name: "Supply",
    fresh: { kind: "battery", minVolts: 12.4, minMinutes: 30 },
    numbers: [
      ["minVolts", "at least", "V"],
      ["minMinutes", "lasting", "min"],
    ],
  },
  {
    name: "Tyre pressures",
    fresh: { kind: "pressures", load: "half", toleranceKPa: 12 },
    numbers: [["toleranceKPa", "±", "kPa"]],
  },
  {
    name: "Tyre sizes",
    fresh: { kind: "tyres", axlePercent: 1, nominalPercent: 3 },
    numbers: [
      ["axlePercent", "across an axle", "%"],
      ["nominalPercent", "from the maker’s", "%"],
    ],
  },
  {
    name: "Fuel",
    fresh: { kind: "fuel", minShare: 0.5 },
    numbers: [["minShare", "at least, share", ""]],
  },
  {
    name: "Arch heights",
    fresh: { kind: "arches", cameraHeightMm: 18, pitchDeg: 0.3, rollDeg: 0.3 },
    numbers: [
      ["cameraHeightMm", "camera ±", "mm"],
      ["pitchDeg", "pitch ±", "°"],
      ["rollDeg", "roll ±", "°"],
    ],
  },
  { name: "Rear axle, by the vehicle’s limits", fresh: { kind: "alignment" }, numbers: [] },
  { name: "Steering", fresh: { kind: "steering", maxDeg: 3 }, numbers: [["maxDeg", "±", "°"]] },
  {
    name: "Floor",
    fresh: { kind: "floor", slopeDeg: 0.6, twistMm: 5 },
    numbers: [
      ["slopeDeg", "slope ±", "°"],
      ["twistMm", "twist ±", "mm"],
    ],
  },
  {
    name: "Clear zone",
    fresh: { kind: "clear-zone", aheadMm: 4600, sideMm: 1300 },
    numbers: [
      ["aheadMm", "ahead", "mm"],
      ["sideMm", "each side", "mm"],
    ],
  },
  {
    name: "Cameras at the sides",
    fresh: { kind: "camera-places", heightMm: 40, outMm: 60 },
    numbers: [
      ["heightMm", "height ±", "mm"],
      ["outMm", "out ±", "mm"],
    ],
  },
  {
    name: "Trailer in line",
    fresh: { kind: "articulation", limitDeg: 0.5, roomMm: 8000 },
    numbers: [
      ["limitDeg", "±", "°"],
      ["roomMm", "free ahead", "mm"],
    ],
  },
];

/** What can be measured after the routine. */
const AFTER: typeof MEASURES = [
  {
    name: "Seams of the joined picture",
    fresh: { kind: "seams", limitMm: 25 },
    numbers: [["limitMm", "steps up to", "mm"]],
  },
];

/**
 * What is checked before and after: reworded, measured or looked at, with the sheet's own limits.
 */
export function CheckList({ doc, stage, problems, readOnly, onChange }: Props) {
  const items = (Array.isArray(doc[stage]) ? doc[stage] : []) as Item[];
  const put = (list: Item[]): void => onChange(stage, list);
  const title = stage === "ready" ? "Checked before" : "Checked after";
  const add = (): void => {
    let n = items.length + 1;
    while (items.some((s) => s.id === `check-${n}`)) n++;
    put([...items, { id: `check-${n}`, ask: "", why: "" }]);
  };
  return (
    <section aria-label={title}>
      <h2 className="mb-1 text-sm font-semibold text-soft">{title}</h2>
      <Rows
        items={items}
        name="item"
        keyOf={(it, i) => it.id ?? i}
        readOnly={readOnly}
        onChange={put}
        problemAt={(i) =>
          problems.find((p) => p.field.startsWith(`${stage}.${i}.`))?.message ?? null
        }
      >
        {(item, i) => {
          const patch = (change: Partial<Item>): void =>
            put(items.map((s, k) => (k === i ? { ...s, ...change } : s)));
          const measures = stage === "ready" ? MEASURES : AFTER;
          const measure = measures.find((m) => m.fresh.kind === item.measure?.kind);
          return (
            <span className="flex min-w-0 flex-1 flex-col gap-1">
              <RowText
                label={`${title} ${i + 1}: what is asked`}
                value={item.ask ?? ""}
                readOnly={readOnly}
                onChange={(ask) => patch({ ask })}
                className="font-semibold"
              />
              <RowText
                label={`${title} ${i + 1}: why`}
                value={item.why ?? ""}
                readOnly={readOnly}
                onChange={(why) => patch({ why })}
              />
              <span className="flex flex-wrap items-center gap-x-4">
                <select
                  aria-label={`${title} ${i + 1}: how`}
                  value={item.measure?.kind ?? ""}
                  disabled={readOnly}
                  onChange={(e) => {
                    const chosen = measures.find((m) => m.fresh.kind === e.target.value);
                    // Without a measure the field is absent, not empty: that is how the sheet's
                    // format has it.
                    const { measure: _, ...rest } = item;
                    put(
                      items.map((s, k) =>
                        k === i ? (chosen ? { ...rest, measure: { ...chosen.fresh } } : rest) : s,
                      ),
                    );
                  }}
                  className="min-h-12 max-w-full rounded-md border border-hairline bg-sheet px-2 text-base"
                >
                  <option value="">By eye</option>
                  {measures.map((m) => (
                    <option key={m.fresh.kind} value={m.fresh.kind}>
                      {m.name}
                    </option>
                  ))}
                </select>
                {measure?.numbers.map(([field, name, unit]) => (
                  <RowNumber
                    key={field}
                    label={`${title} ${i + 1}: ${name}`}
                    name={name}
                    unit={unit}
                    value={item.measure?.[field]}
                    readOnly={readOnly}
                    onChange={(v) => patch({ measure: { ...item.measure!, [field]: v } })}
                  />
                ))}
              </span>
              <RowPictures
                at={`${title} ${i + 1}`}
                pictures={item.pictures}
                readOnly={readOnly}
                onChange={(pictures) => patch({ pictures })}
              />
            </span>
          );
        }}
      </Rows>
      {!readOnly && (
        <Button look="quiet" className="mt-1" onClick={add}>
          + Item
        </Button>
      )}
    </section>
  );
}
