"use client";

import type { Vehicle } from "@/core/vehicle";
import type { AtPath } from "../book/draft-editor";
import { NumberField, TextField } from "../book/fields";
import { PartList } from "./part-list";

type Axle = Partial<NonNullable<Vehicle["furtherAxles"]>[number]>;
/** How sheets call them. */
const NAMES = ["third", "fourth", "fifth"] as const;

/** Axles besides front and rear, which a sheet may measure its floor marks from. */
export const AxleList = ({
  at,
  ...list
}: {
  value: unknown;
  at: AtPath;
  readOnly: boolean;
  onChange: (axles: Axle[] | undefined) => void;
}) => (
  <PartList<Axle>
    {...list}
    label="Further axles"
    about="Axles besides front and rear: sheets call them third, fourth and fifth, as they were entered"
    name="axle"
    most={NAMES.length}
    fresh={(before) => {
      const id = NAMES.find((x) => before.every((a) => a.id !== x))!;
      return { id, name: `${id} axle` };
    }}
  >
    {(i) => (
      <>
        <span className="col-span-full">
          <TextField label={`Axle ${i + 1}, its name`} {...at(`furtherAxles.${i}.name`)} />
        </span>
        <NumberField
          label="Ahead of the rear, behind −"
          unit="mm"
          {...at(`furtherAxles.${i}.aheadMm`)}
        />
        <NumberField label="Middle to hub cap" unit="mm" {...at(`furtherAxles.${i}.hubHalfMm`)} />
      </>
    )}
  </PartList>
);
