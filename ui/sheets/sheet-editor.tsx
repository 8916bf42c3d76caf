"use client";

import type { Draft } from "@/core/book";
import { EVENTS, SYSTEMS, type EventId } from "@/core/owed";
import { DISTANCE_FROM_NAMES, draftProblems, fieldName, type Sheet } from "@/core/sheet";
import { followOwnLimits, REFERENCES } from "@/core/setout";
import { DATUM_NAMES, type Vehicle } from "@/core/vehicle";
import { DraftEditor, type AtPath, type DraftPage } from "../book/draft-editor";
import { ChoiceField, NumberField, SetField, TextField } from "../book/fields";
import { CheckList } from "./check-list";
import { CautionList, PlaceList } from "./place-list";
import { everywhere } from "./everywhere";
import { DriveFields } from "./drive-fields";
import { MarkFields, setsOutMarks } from "./mark-fields";
import { MatFields, setsOutEnds, setsOutMats } from "./mat-fields";
import { hasOwnLimits, OwnLimitFields } from "./own-limit-fields";
import { SHEET_SIGNATURES } from "./signatures";
import { StepList } from "./step-list";
import { forSystem, GUIDED, looksAtChoices, type GuidedSystem, type LooksAt } from "./systems";

/** The target that stands before the routine begins: its figures stand on the page itself. */
const FIRST = "setups.0.targets.0";

/** What a board's first figure is called where it does not stand ahead. */
const STANDS_LABEL: Record<string, string> = {
  behind: "Behind, negative",
  left: "Along, ahead +",
  right: "Along, ahead +",
};

type Method = Sheet["method"];

/** What a sheet may ask for, beside what it sets out. */
const METHODS: { id: Method; name: (things: string) => string }[] = [
  { id: "static", name: (t) => `${t} alone` },
  { id: "static-then-dynamic", name: (t) => `${t}, then a drive` },
  { id: "static-or-dynamic", name: (t) => `${t} or a drive` },
  { id: "dynamic", name: () => "A drive alone" },
];

/** A sheet that asks for something else: a drive alone sets nothing out and has no routine in the bay. */
function withMethod(doc: Draft, method: Method): Draft {
  const run = Array.isArray(doc.run) ? (doc.run as { id?: string; kind?: string }[]) : [];
  if (method === "dynamic") {
    const kept = run.filter((s) => !["routine", "position", "aim"].includes(s.kind ?? ""));
    const ready = {
      id: "learn",
      kind: "prompt",
      say: "Switch its learning on with the scan tool.",
    };
    return { ...doc, method, setups: [], run: kept.length > 0 ? kept : [ready] };
  }
  const { system } = (doc.appliesTo ?? {}) as { system?: GuidedSystem };
  const look = { id: "learn", kind: "routine", say: "Let it look.", minQuality: 75 };
  const back =
    doc.method === "dynamic" && system
      ? forSystem({ ...doc, run: [...run.filter((s) => s.id !== "learn"), look] }, system)
      : doc;
  const { drive, ...plain } = back;
  return method === "static" || drive === undefined ? { ...plain, method } : { ...back, method };
}

/** Writes a sheet. */
export function SheetEditor({ vehicles, ...page }: DraftPage & { vehicles: Vehicle[] }) {
  return (
    <DraftEditor
      {...page}
      home={{ href: "/sheets", name: "Sheets" }}
      problemsOf={draftProblems}
      nameOf={fieldName}
      signatures={SHEET_SIGNATURES}
      follow={(doc) => followOwnLimits(doc, vehicles)}
    >
      {({ doc, problems, readOnly, at, change }) => {
        /** A field that is asked once and holds for every place of the board. */
        const all = (field: string) => ({
          ...at(`${FIRST}.${field}`),
          onChange: (v: unknown) => change("setups", everywhere(doc, field, v)),
        });
        const mats = setsOutMats(doc);
        const marks = setsOutMarks(doc);
        const places = Array.isArray(doc.setups) && doc.setups.length > 0;
        const system = at("appliesTo.system");
        const onRoad = doc.method !== "static" && doc.method !== undefined;
        // What is learned on the road alone looks at nothing.
        const choices = doc.method === "dynamic" ? [] : looksAtChoices(system.value);
        const around = choices.length > 0 && places && !mats;
        return (
          <>
            <TextField label="Title" large {...at("title")} />
            <TextField label="Why it is owed, in one sentence for the customer" {...at("reason")} />
            <ChoiceField
              label="It calibrates"
              choices={GUIDED.map((id) => [id, SYSTEMS[id]])}
              {...system}
              // What is set out, and the routine, are that system's own.
              onChange={(v) => change("", forSystem(doc, v as GuidedSystem))}
            />
            {choices.length > 0 && (
              <ChoiceField
                label="The camera looks at"
                choices={choices}
                {...system}
                value={mats ? "mats" : places ? "boards" : "none"}
                onChange={(v) =>
                  change("", forSystem(doc, system.value as GuidedSystem, v as LooksAt))
                }
              />
            )}
            {places && !marks && (
              <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
                <ChoiceField
                  label={mats ? "Line the mats are placed on" : "Line the board is placed on"}
                  choices={Object.entries(DATUM_NAMES).filter(([id]) => id !== "side-line")}
                  {...all("datum")}
                />
                {/* Mats all round count from the axle nearest to each. */}
                {!(mats && setsOutEnds(doc)) && (
                  <ChoiceField
                    label="Distance counts from"
                    choices={Object.entries(DISTANCE_FROM_NAMES).filter(
                      ([id]) =>
                        id !== "line-hub" &&
                        (!id.startsWith("rear-") || around || (mats && id === "rear-hub-line")),
                    )}
                    {...all("distanceFrom")}
                  />
                )}
              </div>
            )}
            {!places ? null : marks ? (
              <MarkFields doc={doc} at={at} />
            ) : mats ? (
              <MatFields doc={doc} at={at} />
            ) : (
              <BoardFields doc={doc} at={at} all={all} change={change} />
            )}
            <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
              <TextField label="Source: whose information" {...at("source.name")} />
              <TextField label="Source: its date, year-month-day" {...at("source.date")} />
            </div>
            <ChoiceField
              label="What it asks for"
              choices={METHODS.map((m): [string, string] => [
                m.id,
                m.name(mats ? "Mats" : marks ? "Marks" : "A board"),
              ])}
              {...at("method")}
              onChange={(v) => change("", withMethod(doc, v as Method))}
            />
            {onRoad && (
              <DriveFields
                doc={doc}
                at={at}
                problems={problems}
                readOnly={readOnly}
                change={change}
              />
            )}
            {places && !mats && !marks && (
              <PlaceList doc={doc} problems={problems} readOnly={readOnly} onChange={change} />
            )}
            <SetField
              label="For these vehicles"
              choices={vehicles.map((v) => [v.id, `${v.make} ${v.model}`])}
              {...at("appliesTo.vehicles")}
            />
            <SetField
              label="Owed after"
              choices={(Object.keys(EVENTS) as EventId[]).map((e) => [e, EVENTS[e]])}
              {...at("appliesTo.after")}
            />
            <CautionList doc={doc} problems={problems} readOnly={readOnly} onChange={change} />
            <CheckList
              stage="ready"
              doc={doc}
              problems={problems}
              readOnly={readOnly}
              onChange={change}
            />
            <StepList doc={doc} problems={problems} readOnly={readOnly} onChange={change} />
            <CheckList
              stage="prove"
              doc={doc}
              problems={problems}
              readOnly={readOnly}
              onChange={change}
            />
          </>
        );
      }}
    </DraftEditor>
  );
}

/** The figures of a board at its first place, its label, and what holds for every place. */
function BoardFields({
  doc,
  at,
  all,
  change,
}: {
  doc: Draft;
  at: AtPath;
  all: AtPath;
  change: (path: string, value: unknown) => void;
}) {
  /** A limit that follows from the road is not typed. */
  const limit = (field: ReturnType<AtPath>) => ({
    ...field,
    readOnly: field.readOnly || hasOwnLimits(doc),
  });
  return (
    <>
      <div className="grid grid-cols-2 gap-x-6 gap-y-2 border-y-2 border-ink py-3 lg:grid-cols-4">
        <NumberField
          label={STANDS_LABEL[String(at(`${FIRST}.stands`).value)] ?? "Ahead"}
          unit="mm"
          {...at(`${FIRST}.placement.alongMm`)}
        />
        <NumberField label="Across, left +" unit="mm" {...at(`${FIRST}.placement.acrossMm`)} />
        <NumberField label="Twist" unit="°" {...at(`${FIRST}.placement.twistDeg`)} />
        <NumberField label="Centre height" unit="mm" {...at(`${FIRST}.placement.heightMm`)} />
        <NumberField label="± ahead" unit="mm" {...limit(at(`${FIRST}.tolerance.alongMm`))} />
        <NumberField label="± across" unit="mm" {...limit(at(`${FIRST}.tolerance.acrossMm`))} />
        <NumberField label="± twist" unit="°" {...limit(at(`${FIRST}.tolerance.twistDeg`))} />
        <NumberField label="± height" unit="mm" {...limit(at(`${FIRST}.tolerance.heightMm`))} />
        <NumberField label="± lean, if asked for" unit="°" {...limit(all("tolerance.pitchDeg"))} />
        <NumberField label="± level, if asked for" unit="°" {...limit(all("tolerance.rollDeg"))} />
        <div className="col-span-2">
          <ChoiceField
            label="The board stands"
            choices={[
              ["plumb", "Plumb and level"],
              ["vehicle-plane", "Square to the vehicle’s plane"],
            ]}
            {...all("upright")}
            value={all("upright").value ?? "plumb"}
            onChange={(v) => all("upright").onChange(v === "plumb" ? undefined : v)}
          />
        </div>
      </div>
      <OwnLimitFields doc={doc} all={all} />
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
        {(["along", "height"] as const).map((part) => {
          const field = all(`measuredTo.${part}`);
          return (
            <ChoiceField
              key={part}
              label={part === "along" ? "The distance is to" : "The height is of"}
              choices={Object.entries(REFERENCES[part])}
              {...field}
              value={field.value ?? (part === "along" ? "face" : "centre")}
            />
          );
        })}
        <TextField label="Board code" {...at(`${FIRST}.object.code`)} />
        <NumberField label="Board width" unit="mm" {...at(`${FIRST}.object.widthMm`)} />
        <ChoiceField
          label="Board hangs on"
          choices={[
            ["", "Either side"],
            ["left", "Vehicle left"],
            ["right", "Vehicle right"],
          ]}
          {...at(`${FIRST}.object.side`)}
          value={at(`${FIRST}.object.side`).value ?? ""}
          onChange={(v) => change(`${FIRST}.object.side`, v === "" ? undefined : v)}
        />
        <NumberField
          label="Version of its print, if the source names one"
          unit=""
          {...at(`${FIRST}.object.version`)}
        />
      </div>
    </>
  );
}
