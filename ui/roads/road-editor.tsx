"use client";

import { useState } from "react";
import { piecesOf } from "@/core/drive/geometry";
import type { Junction, LaneLines, Road, RoadLine, RoadPlace } from "@/core/drive/road";
import { formatNumber } from "@/core/units";
import { ChoiceField, NumberField, TextField } from "../book/fields";
import { Button } from "../primitives/button";

/** What is being written of a road and of what stands at its ends. */
type Draft = { road: Omit<Road, "id" | "points">; ends: Junction[] };

const PLAIN: Omit<Junction, "at"> = { control: "none", redShare: 0.5, redS: 40, turnRound: false };

/** Hours that are known together: nobody counts cars at three in the night. */
const PARTS: readonly { name: string; hours: readonly number[] }[] = [
  { name: "Night, 22 to 6", hours: [22, 23, 0, 1, 2, 3, 4, 5] },
  { name: "Morning, 6 to 10", hours: [6, 7, 8, 9] },
  { name: "Day, 10 to 15", hours: [10, 11, 12, 13, 14] },
  { name: "Afternoon, 15 to 19", hours: [15, 16, 17, 18] },
  { name: "Evening, 19 to 22", hours: [19, 20, 21] },
];

const draftOf = ({ id: _, points, ...road }: Road, junctions: readonly Junction[]): Draft => {
  const at = (place: RoadPlace): Junction =>
    junctions.find((j) => j.at[0] === place[0] && j.at[1] === place[1]) ?? { ...PLAIN, at: place };
  return { road, ends: [at(points[0]!), at(points.at(-1)!)] };
};

const SILENT = "The shop does not answer. Nothing was changed; try again when it is back.";

/** What is known of one road: rated by who drove it. */
export function RoadEditor({
  known,
  junctions,
  today,
  readOnly,
  onClose,
  onKept,
}: {
  known: Road;
  junctions: readonly Junction[];
  /** The calendar day at the shop. */
  today: string;
  readOnly: boolean;
  onClose: () => void;
  onKept: (name: string) => void;
}) {
  const [draft, setDraft] = useState(() => draftOf(known, junctions));
  const [problem, setProblem] = useState<string | null>(null);
  const { road, ends } = draft;
  const pieces = piecesOf(known.points);
  const lengthM = pieces.reduce((s, p) => s + p.lengthM, 0);
  const tightest = Math.min(...pieces.map((p) => p.radiusM));
  const put = (patch: Partial<Draft["road"]>): void =>
    setDraft({ ...draft, road: { ...road, ...patch } });
  const field = { path: "", problem: null, readOnly };
  const lines = (
    which: "along" | "back",
    side: "left" | "right",
    line: Partial<RoadLine>,
  ): void => {
    const before: LaneLines = road[which] ?? road.along;
    // Who writes down what a line is has looked at it.
    put({ [which]: { ...before, [side]: { ...before[side], ...line, on: today } } });
  };
  const save = async (): Promise<void> => {
    const answer = await fetch("/api/roads/road", {
      method: "PUT",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ id: known.id, ...draft }),
    }).catch(() => null);
    if (!answer) return setProblem(SILENT);
    if (answer.ok) return onKept(road.name);
    const { error } = (await answer.json()) as { error?: string };
    setProblem(error ?? SILENT);
  };
  const directions = [
    { which: "along" as const, name: road.oneWay ? "The way it is driven" : "One way" },
    ...(road.oneWay ? [] : [{ which: "back" as const, name: "The other way" }]),
  ];
  return (
    <section aria-label="Road" className="bg-sheet px-5 py-4">
      <TextField
        label="Road"
        large
        {...field}
        value={road.name}
        onChange={(v) => put({ name: (v as string | undefined) ?? "" })}
      />
      <p className="text-base text-soft">
        {formatNumber(lengthM, 0)} m;{" "}
        {Number.isFinite(tightest)
          ? `tightest curve ${formatNumber(tightest, 0)} m`
          : "without a curve"}
        .
      </p>
      <div className="mt-2 grid gap-x-6 gap-y-2 sm:grid-cols-2">
        <NumberField
          label="Limit, km/h"
          unit=""
          {...field}
          value={road.limitKmh}
          onChange={(v) => put({ limitKmh: v as number })}
        />
        <NumberField
          label="Lanes, one way"
          unit=""
          {...field}
          value={road.lanes}
          onChange={(v) => put({ lanes: v as number })}
        />
      </div>
      <div className="mt-2 flex flex-col gap-2">
        <ChoiceField
          label="Driven"
          choices={[
            ["both", "Both ways"],
            ["one", "One way only"],
          ]}
          {...field}
          value={road.oneWay ? "one" : "both"}
          onChange={(v) => put({ oneWay: v === "one" })}
        />
        <ChoiceField
          label="Surface"
          choices={[
            ["asphalt", "Asphalt"],
            ["concrete", "Concrete"],
            ["setts", "Setts"],
            ["gravel", "Gravel"],
          ]}
          {...field}
          value={road.surface}
          onChange={(v) => put({ surface: v as Road["surface"] })}
        />
      </div>
      {directions.map(({ which, name }) => (
        <div key={which} role="group" aria-label={name} className="mt-3">
          <h3 className="border-b border-hairline text-lg font-semibold">{name}</h3>
          <div className="grid gap-x-6 sm:grid-cols-2">
            {(["left", "right"] as const).map((side) => {
              const line = (road[which] ?? road.along)[side];
              return (
                <div key={side}>
                  <ChoiceField
                    label={side === "left" ? "Line left" : "Line right"}
                    choices={[
                      ["solid", "Solid"],
                      ["broken", "Broken"],
                      ["none", "None"],
                    ]}
                    {...field}
                    value={line.kind}
                    onChange={(v) => lines(which, side, { kind: v as RoadLine["kind"] })}
                  />
                  {line.kind !== "none" && (
                    <NumberField
                      label="Found by a camera on"
                      unit="%"
                      {...field}
                      value={Math.round(100 * line.seen)}
                      onChange={(v) =>
                        v !== undefined && lines(which, side, { seen: (v as number) / 100 })
                      }
                    />
                  )}
                  <p className="text-sm text-soft">
                    {line.on ? `Last looked at on ${line.on}` : "Nobody has looked yet"}
                  </p>
                </div>
              );
            })}
          </div>
        </div>
      ))}
      <details className="mt-3">
        <summary className="min-h-12 cursor-pointer content-center text-lg font-semibold">
          Traffic and what stands at its ends
        </summary>
        <div className="grid gap-x-6 sm:grid-cols-2">
          {PARTS.map(({ name, hours }) => (
            <NumberField
              key={name}
              label={`${name}: how full`}
              unit="%"
              {...field}
              value={Math.round(
                (100 * hours.reduce((s, h) => s + road.traffic[h]!, 0)) / hours.length,
              )}
              onChange={(v) =>
                v !== undefined &&
                put({
                  traffic: road.traffic.map((f, h) =>
                    hours.includes(h) ? (v as number) / 100 : f,
                  ),
                })
              }
            />
          ))}
        </div>
        {ends.map((end, i) => {
          const set = (patch: Partial<Junction>): void =>
            setDraft({ ...draft, ends: ends.map((e, k) => (k === i ? { ...e, ...patch } : e)) });
          return (
            <div
              key={i}
              role="group"
              aria-label={i === 0 ? "First end" : "Other end"}
              className="mt-2"
            >
              <ChoiceField
                label={i === 0 ? "At its first end" : "At its other end"}
                choices={[
                  ["none", "Nothing"],
                  ["give-way", "Give way"],
                  ["signals", "Lights"],
                  ["roundabout", "Roundabout"],
                ]}
                {...field}
                value={end.control}
                onChange={(v) => set({ control: v as Junction["control"] })}
              />
              {end.control === "signals" && (
                <div className="grid gap-x-6 sm:grid-cols-2">
                  <NumberField
                    label="Red when one comes"
                    unit="%"
                    {...field}
                    value={Math.round(100 * end.redShare)}
                    onChange={(v) => v !== undefined && set({ redShare: (v as number) / 100 })}
                  />
                  <NumberField
                    label="Red for"
                    unit="s"
                    {...field}
                    value={end.redS}
                    onChange={(v) => v !== undefined && set({ redS: v as number })}
                  />
                </div>
              )}
              <label className="flex min-h-12 items-center gap-3 text-base">
                <input
                  type="checkbox"
                  checked={end.turnRound}
                  disabled={readOnly}
                  onChange={(e) => set({ turnRound: e.target.checked })}
                  className="size-6 accent-[var(--act)]"
                />
                One may turn round here
              </label>
            </div>
          );
        })}
      </details>
      {problem && (
        <p
          role="alert"
          className="mt-2 whitespace-pre-line border-l-4 border-stop pl-3 text-lg text-stop"
        >
          {problem}
        </p>
      )}
      <div className="mt-4 flex gap-2">
        {!readOnly && (
          <Button look="act" onClick={() => void save()}>
            Keep it
          </Button>
        )}
        <Button look="quiet" onClick={onClose}>
          {readOnly ? "Close" : "Leave it as it was"}
        </Button>
      </div>
    </section>
  );
}
