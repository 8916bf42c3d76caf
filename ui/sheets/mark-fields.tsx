"use client";

import type { Draft } from "@/core/book";
import type { AtPath } from "../book/draft-editor";
import { NumberField, TextField } from "../book/fields";

type Mark = { id: string; kind?: string; name?: string };
const setupsOf = (doc: Draft): { targets?: Mark[] }[] =>
  Array.isArray(doc.setups) ? (doc.setups as { targets?: Mark[] }[]) : [];

/** Whether a draft sets out floor marks. */
export const setsOutMarks = (doc: Draft): boolean =>
  setupsOf(doc)[0]?.targets?.[0]?.kind === "mark";

/** Floor marks by their figures: from which axle, along the line through the hubs, and out from it. */
export function MarkFields({ doc, at }: { doc: Draft; at: AtPath }) {
  return setupsOf(doc).flatMap((setup, i) =>
    (setup.targets ?? []).map((t, j) => {
      const of = `setups.${i}.targets.${j}`;
      return (
        <fieldset key={`${i}-${t.id}`} className="border-t-2 border-ink pt-2">
          <legend className="float-left mb-2 w-full text-lg font-semibold">{t.name ?? t.id}</legend>
          <div className="clear-left grid grid-cols-2 gap-x-6 gap-y-2 lg:grid-cols-4">
            <TextField label="From the hub of axle" {...at(`${of}.line.from`)} />
            <TextField label="Line on through axle" {...at(`${of}.line.through`)} />
            <NumberField label="Along, behind −" unit="mm" {...at(`${of}.placement.alongMm`)} />
            <NumberField label="Beside, left +" unit="mm" {...at(`${of}.placement.acrossMm`)} />
            <NumberField label="± along" unit="mm" {...at(`${of}.tolerance.alongMm`)} />
            <NumberField label="± beside" unit="mm" {...at(`${of}.tolerance.acrossMm`)} />
          </div>
        </fieldset>
      );
    }),
  );
}
