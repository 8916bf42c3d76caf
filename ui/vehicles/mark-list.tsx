"use client";

import type { Vehicle } from "@/core/vehicle";
import type { AtPath } from "../book/draft-editor";
import { NumberField, TextField } from "../book/fields";
import { Rows } from "../book/rows";
import { Button } from "../primitives/button";

type Mark = NonNullable<Vehicle["centreMarks"]>[number];
const MOST = 6;

/** Further marks of the front that a laser can be read at, each with its place and how well it is known. */
export function MarkList({
  value,
  at,
  readOnly,
  onChange,
}: {
  value: unknown;
  at: AtPath;
  readOnly: boolean;
  onChange: (marks: Partial<Mark>[] | undefined) => void;
}) {
  const marks = (Array.isArray(value) ? value : []) as Partial<Mark>[];
  const keep = (list: Partial<Mark>[]): void => onChange(list.length > 0 ? list : undefined);
  const add = (): void => {
    let n = marks.length + 1;
    while (marks.some((m) => m.id === `m${n}`)) n++;
    keep([...marks, { id: `m${n}`, yMm: 0, sigmaMm: 2 }]);
  };
  return (
    <section aria-label="Further marks" className="border-t-2 border-ink pt-3">
      <h2 className="mb-1 text-sm font-semibold text-soft">
        Further marks of the front a laser can be read at: a mould mark, the camera, an emblem
      </h2>
      <Rows
        items={marks}
        name="mark"
        keyOf={(m) => m.id ?? ""}
        problemAt={() => null}
        readOnly={readOnly}
        onChange={keep}
      >
        {(m, i) => (
          <span className="grid min-w-0 flex-1 grid-cols-2 gap-x-6 gap-y-2 lg:grid-cols-4">
            <span className="col-span-full">
              <TextField label={`Mark ${i + 1}, what it is`} {...at(`centreMarks.${i}.name`)} />
            </span>
            <NumberField label="Ahead" unit="mm" {...at(`centreMarks.${i}.xMm`)} />
            <NumberField label="To the left" unit="mm" {...at(`centreMarks.${i}.yMm`)} />
            <NumberField label="Up" unit="mm" {...at(`centreMarks.${i}.zMm`)} />
            <NumberField label="Known to ±" unit="mm" {...at(`centreMarks.${i}.sigmaMm`)} />
          </span>
        )}
      </Rows>
      {!readOnly && marks.length < MOST && (
        <Button look="quiet" className="mt-1" onClick={add}>
          + Mark
        </Button>
      )}
    </section>
  );
}
