"use client";

import type { Draft, Problem } from "@/core/book";
import { CONDITION_NAMES } from "@/core/drive/words";
import { KEEPS, keepsIds } from "@/core/drive/policy";
import type { DriveCondition, DriveConditionKind } from "@/core/drive/rules";
import type { FigureUnit } from "@/core/units";
import type { AtPath } from "../book/draft-editor";
import { ChoiceField, NumberField, SetField } from "../book/fields";
import { RowText, Rows } from "../book/rows";
import { Button } from "../primitives/button";

type Props = {
  doc: Draft;
  at: AtPath;
  problems: Problem[];
  readOnly: boolean;
  change: (path: string, value: unknown) => void;
};

/** What a condition is when it is first asked for. */
const FRESH: { [K in DriveConditionKind]: Extract<DriveCondition, { kind: K }> } = {
  speed: { kind: "speed", unit: "km/h", min: 50, max: 100, breach: "pauses", graceS: 0 },
  steadiness: {
    kind: "steadiness",
    unit: "km/h",
    within: 10,
    overS: 10,
    breach: "pauses",
    graceS: 0,
  },
  lines: { kind: "lines", left: "either", right: "either", breach: "pauses", graceS: 0 },
  curve: { kind: "curve", minRadiusM: 200, breach: "pauses", graceS: 0 },
  gap: { kind: "gap", minM: 25, breach: "pauses", graceS: 0 },
  light: { kind: "light", needs: "day", breach: "pauses", graceS: 0 },
  weather: { kind: "weather", without: ["rain", "snow"], breach: "pauses", graceS: 0 },
  sun: { kind: "sun", coneDeg: 20, breach: "pauses", graceS: 0 },
  rolling: { kind: "rolling", breach: "throws-away", graceS: 20 },
  key: { kind: "key", breach: "throws-away", graceS: 0 },
};
const KINDS = Object.keys(FRESH) as DriveConditionKind[];

const FIGURES: Partial<
  Record<DriveConditionKind, [field: string, label: string, unit: FigureUnit][]>
> = {
  speed: [
    ["min", "From", ""],
    ["max", "To", ""],
  ],
  steadiness: [
    ["within", "Within", ""],
    ["overS", "Over", "s"],
  ],
  curve: [["minRadiusM", "No curve tighter than", "m"]],
  gap: [["minM", "Nobody nearer ahead than", "m"]],
  sun: [["coneDeg", "Sun off the lens by more than", "°"]],
};

const UNITS: [string, string][] = [
  ["km/h", "km/h"],
  ["mph", "mph"],
];
const LINES: [string, string][] = [
  ["solid", "Solid"],
  ["broken", "Broken"],
  ["either", "Either"],
  ["none", "Not asked for"],
];

const FIRST = {
  conditions: [FRESH.speed, FRESH.lines, FRESH.key],
  enough: { seconds: 600 },
  progress: { as: "percent" },
};

type Codes = { code?: string; says?: string; done?: boolean }[];

/** What a sheet asks of its drive: under which conditions it counts, how much of it, and what the vehicle shows. */
export function DriveFields({ doc, at, problems, readOnly, change }: Props) {
  const drive = doc.drive as
    | {
        conditions?: { kind?: DriveConditionKind; [field: string]: unknown }[];
        progress?: { as?: string; codes?: Codes };
      }
    | undefined;
  if (!drive)
    return (
      <div>
        <h2 className="text-2xl font-semibold">Its drive</h2>
        <p className="max-w-[65ch] text-base text-soft">
          Without figures it is driven by the maker’s instructions, and what the vehicle said is
          written down.
        </p>
        {!readOnly && (
          <Button className="mt-2" onClick={() => change("drive", FIRST)}>
            Write its figures
          </Button>
        )}
      </div>
    );
  const conditions = drive.conditions ?? [];
  const toggle = (kinds: DriveConditionKind[]): void =>
    change(
      "drive.conditions",
      KINDS.filter((k) => kinds.includes(k)).map(
        (k) => conditions.find((c) => c.kind === k) ?? FRESH[k],
      ),
    );
  const codes = drive.progress?.codes ?? [];
  const codesAt = "drive.progress.codes";
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-2xl font-semibold">Its drive</h2>
      <SetField
        label="What has to hold for a second to count"
        choices={KINDS.map((k): [string, string] => [k, WORDS[k]])}
        {...at("drive.conditions")}
        value={conditions.map((c) => c.kind)}
        onChange={(v) => toggle(v as DriveConditionKind[])}
      />
      {conditions.map((c, i) => {
        const kind = c.kind!;
        const path = `drive.conditions.${i}`;
        return (
          <section
            key={kind}
            aria-label={WORDS[kind]}
            className="grid gap-x-6 gap-y-2 border-l-4 border-hairline bg-sheet px-4 py-2 sm:grid-cols-2"
          >
            <h3 className="text-lg font-semibold sm:col-span-2">{WORDS[kind]}</h3>
            {(FIGURES[kind] ?? []).map(([field, label, unit]) => (
              <NumberField key={field} label={label} unit={unit} {...at(`${path}.${field}`)} />
            ))}
            {(kind === "speed" || kind === "steadiness") && (
              <ChoiceField label="Counted in" choices={UNITS} {...at(`${path}.unit`)} />
            )}
            {kind === "lines" &&
              (["left", "right"] as const).map((side) => (
                <ChoiceField
                  key={side}
                  label={side === "left" ? "Line left" : "Line right"}
                  choices={LINES}
                  {...at(`${path}.${side}`)}
                  value={c[side] === null ? "none" : c[side]}
                  onChange={(v) => change(`${path}.${side}`, v === "none" ? null : v)}
                />
              ))}
            {kind === "light" && (
              <ChoiceField
                label="As bright as"
                choices={[
                  ["day", "Day"],
                  ["day-or-dusk", "Day or dusk"],
                ]}
                {...at(`${path}.needs`)}
              />
            )}
            {kind === "weather" && (
              <SetField
                label="Without"
                choices={[
                  ["rain", "Rain"],
                  ["fog", "Fog"],
                  ["snow", "Snow"],
                  ["wet-road", "A wet road"],
                ]}
                {...at(`${path}.without`)}
              />
            )}
            <ChoiceField
              label="Where it does not hold"
              choices={[
                ["pauses", "It waits"],
                ["throws-away", "All begins anew"],
              ]}
              {...at(`${path}.breach`)}
              onChange={(v) => change(path, { ...c, breach: v, graceS: 0 })}
            />
            {c.breach === "throws-away" && (
              <NumberField label="It is borne for" unit="s" {...at(`${path}.graceS`)} />
            )}
          </section>
        );
      })}
      <div className="grid gap-x-6 gap-y-2 sm:grid-cols-3">
        <NumberField label="Has to count for" unit="s" {...at("drive.enough.seconds")} />
        <NumberField label="Or over, or both" unit="m" {...at("drive.enough.metres")} />
        <NumberField label="The vehicle gives up after" unit="s" {...at("drive.timeOutS")} />
      </div>
      <SetField
        label="How the speed may be kept; as the shop says where none is named"
        choices={keepsIds.map((k): [string, string] => [k, KEEPS[k]])}
        {...at("drive.keeps")}
        onChange={(v) => change("drive.keeps", (v as string[]).length > 0 ? v : undefined)}
      />
      <ChoiceField
        label="What the vehicle shows of how far it is"
        choices={[
          ["percent", "Percent"],
          ["bar", "A bar"],
          ["codes", "Status codes"],
        ]}
        {...at("drive.progress.as")}
        onChange={(v) =>
          change(
            "drive.progress",
            v === "bar"
              ? { as: "bar", of: 10 }
              : v === "codes"
                ? {
                    as: "codes",
                    codes: [
                      { code: "", says: "" },
                      { code: "", says: "", done: true },
                    ],
                  }
                : { as: "percent" },
          )
        }
      />
      {drive.progress?.as === "bar" && (
        <NumberField label="Parts of the bar" unit="" {...at("drive.progress.of")} />
      )}
      {drive.progress?.as === "codes" && (
        <div>
          <Rows
            items={codes}
            name="code"
            keyOf={(_, i) => i}
            problemAt={(i) =>
              problems.find((p) => p.field.startsWith(`${codesAt}.${i}`))?.message ?? null
            }
            readOnly={readOnly}
            onChange={(items) => change(codesAt, items)}
          >
            {(row, i) => (
              <>
                <RowText
                  label={`Code ${i + 1}`}
                  value={row.code ?? ""}
                  readOnly={readOnly}
                  onChange={(code) => change(`${codesAt}.${i}.code`, code)}
                />
                <RowText
                  label={`What code ${i + 1} says`}
                  value={row.says ?? ""}
                  readOnly={readOnly}
                  onChange={(says) => change(`${codesAt}.${i}.says`, says)}
                />
                <label className="flex min-h-12 items-center gap-2 text-base">
                  <input
                    type="checkbox"
                    checked={row.done === true}
                    disabled={readOnly}
                    onChange={(e) => change(`${codesAt}.${i}.done`, e.target.checked)}
                    className="size-6 accent-[var(--act)]"
                  />
                  means done
                </label>
              </>
            )}
          </Rows>
          {!readOnly && (
            <Button
              className="mt-1"
              onClick={() => change(codesAt, [...codes, { code: "", says: "" }])}
            >
              Another code
            </Button>
          )}
        </div>
      )}
      {!readOnly && (
        <Button look="quiet" onClick={() => change("drive", undefined)}>
          Take its figures out
        </Button>
      )}
    </div>
  );
}

/** How a condition is called where it is chosen. */
const WORDS = Object.fromEntries(
  KINDS.map((k) => [k, CONDITION_NAMES[k][0]!.toUpperCase() + CONDITION_NAMES[k].slice(1)]),
) as Record<DriveConditionKind, string>;
