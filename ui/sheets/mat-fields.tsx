"use client";

import type { Draft } from "@/core/book";
import type { Relation } from "@/core/sheet";
import type { AtPath } from "../book/draft-editor";
import { ChoiceField, NumberField, TextField } from "../book/fields";

type Mat = { id: string; kind?: string; name?: string; lies?: string };
type Setup = { targets?: Mat[]; relations?: Pick<Relation, "id" | "kind">[] };

const setupsOf = (doc: Draft): Setup[] =>
  Array.isArray(doc.setups) ? (doc.setups as Setup[]) : [];

/** Whether a draft sets out mats: these are written by figures of their own. */
export const setsOutMats = (doc: Draft): boolean => setupsOf(doc)[0]?.targets?.[0]?.kind === "mat";

/** Whether mats lie across the vehicle's way too, ahead or behind: each counts from its own axle. */
export const setsOutEnds = (doc: Draft): boolean =>
  setupsOf(doc).some((s) => s.targets?.some((t) => t.lies === "ahead" || t.lies === "behind"));

/** The limits of each kind of relation, by field. */
const LIMITS: Record<Relation["kind"], [string, string, "mm" | "°"][]> = {
  spacing: [
    ["minMm", "Between their middles, at least", "mm"],
    ["maxMm", "Between their middles, at most", "mm"],
  ],
  parallel: [["toleranceDeg", "± parallel to each other", "°"]],
  "equal-distance": [["toleranceMm", "± equally far from the wheels", "mm"]],
};

/** Mats by their figures, and what they have to be to each other. */
export function MatFields({ doc, at }: { doc: Draft; at: AtPath }) {
  return setupsOf(doc).map((setup, i) => (
    <div key={i} className="flex flex-col gap-4">
      {(setup.targets ?? []).map((t, j) => {
        const of = `setups.${i}.targets.${j}`;
        return (
          <fieldset key={t.id} className="border-t-2 border-ink pt-2">
            <legend className="float-left mb-2 w-full text-lg font-semibold">
              {t.name ?? t.id}
            </legend>
            <div className="clear-left grid grid-cols-2 gap-x-6 gap-y-2 lg:grid-cols-4">
              <NumberField
                label={t.lies === "behind" ? "Cross line, behind −" : "Cross line ahead"}
                unit="mm"
                {...at(`${of}.placement.alongMm`)}
              />
              <NumberField
                label="Middle across, left +"
                unit="mm"
                {...at(`${of}.placement.acrossMm`)}
              />
              <NumberField label="± cross line" unit="mm" {...at(`${of}.tolerance.alongMm`)} />
              {(t.lies === "ahead" || t.lies === "behind") && (
                <NumberField label="± across" unit="mm" {...at(`${of}.tolerance.acrossMm`)} />
              )}
              <NumberField label="± twist" unit="°" {...at(`${of}.tolerance.twistDeg`)} />
              <TextField label="Code" {...at(`${of}.object.code`)} />
              <NumberField label="Width" unit="mm" {...at(`${of}.object.widthMm`)} />
              <NumberField label="Length" unit="mm" {...at(`${of}.object.lengthMm`)} />
              <NumberField
                label="Of it ahead of its cross line"
                unit="mm"
                {...at(`${of}.object.aheadMm`)}
              />
              <ChoiceField
                label="Lies on"
                choices={[
                  ["left", "Vehicle left"],
                  ["right", "Vehicle right"],
                ]}
                {...at(`${of}.object.side`)}
              />
            </div>
          </fieldset>
        );
      })}
      {(setup.relations ?? []).length > 0 && (
        <fieldset className="border-t-2 border-ink pt-2">
          <legend className="float-left mb-2 w-full text-lg font-semibold">To each other</legend>
          <div className="clear-left grid grid-cols-2 gap-x-6 gap-y-2 lg:grid-cols-4">
            {setup.relations!.flatMap((r, k) =>
              LIMITS[r.kind].map(([field, label, unit]) => (
                <NumberField
                  key={`${r.id}-${field}`}
                  label={label}
                  unit={unit}
                  {...at(`setups.${i}.relations.${k}.${field}`)}
                />
              )),
            )}
          </div>
        </fieldset>
      )}
    </div>
  ));
}
