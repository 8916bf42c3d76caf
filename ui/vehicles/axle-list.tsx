"use client";

import type { Vehicle } from "@/core/vehicle";
import type { AtPath } from "../book/draft-editor";
import { NumberField, TextField } from "../book/fields";
import { Rows } from "../book/rows";
import { Button } from "../primitives/button";

type Axle = NonNullable<Vehicle["furtherAxles"]>[number];
const MOST = 3;

/** Axles besides front and rear, which a sheet may measure its floor marks from. */
export function AxleList({
  value,
  at,
  readOnly,
  onChange,
}: {
  value: unknown;
  at: AtPath;
  readOnly: boolean;
  onChange: (axles: Partial<Axle>[] | undefined) => void;
}) {
  const axles = (Array.isArray(value) ? value : []) as Partial<Axle>[];
  const keep = (list: Partial<Axle>[]): void => onChange(list.length > 0 ? list : undefined);
  const add = (): void => {
    const id = ["third", "fourth", "fifth"].find((x) => axles.every((a) => a.id !== x))!;
    keep([...axles, { id, name: `${id} axle` }]);
  };
  return (
    <section aria-label="Further axles" className="border-t-2 border-ink pt-3">
      <h2 className="mb-1 text-sm font-semibold text-soft">
        Axles besides front and rear: a sheet calls each by its short name
      </h2>
      <Rows
        items={axles}
        name="axle"
        keyOf={(a, i) => a.id ?? i}
        problemAt={() => null}
        readOnly={readOnly}
        onChange={keep}
      >
        {(_, i) => (
          <span className="grid min-w-0 flex-1 grid-cols-2 gap-x-6 gap-y-2 lg:grid-cols-4">
            <TextField label={`Axle ${i + 1}, its name`} {...at(`furtherAxles.${i}.name`)} />
            <TextField label="Short name" {...at(`furtherAxles.${i}.id`)} />
            <NumberField
              label="Ahead of the rear, behind −"
              unit="mm"
              {...at(`furtherAxles.${i}.aheadMm`)}
            />
            <NumberField
              label="Middle to hub cap"
              unit="mm"
              {...at(`furtherAxles.${i}.hubHalfMm`)}
            />
          </span>
        )}
      </Rows>
      {!readOnly && axles.length < MOST && (
        <Button look="quiet" className="mt-1" onClick={add}>
          + Axle
        </Button>
      )}
    </section>
  );
}
