"use client";

import type { Vehicle } from "@/core/vehicle";
import type { AtPath } from "../book/draft-editor";
import { NumberField, TextField } from "../book/fields";
import { freeId, PartList } from "./part-list";

type Mark = Partial<NonNullable<Vehicle["centreMarks"]>[number]>;

/** Further marks of the front that a laser can be read at, each with its place and how well it is known. */
export const MarkList = ({
  at,
  ...list
}: {
  value: unknown;
  at: AtPath;
  readOnly: boolean;
  onChange: (marks: Mark[] | undefined) => void;
}) => (
  <PartList<Mark>
    {...list}
    label="Further marks"
    about="Further marks of the front a laser can be read at: a mould mark, the camera, an emblem"
    name="mark"
    most={6}
    fresh={(before) => ({ id: freeId(before, "m"), yMm: 0, sigmaMm: 2 })}
  >
    {(i) => (
      <>
        <span className="col-span-full">
          <TextField label={`Mark ${i + 1}, what it is`} {...at(`centreMarks.${i}.name`)} />
        </span>
        <NumberField label="Ahead" unit="mm" {...at(`centreMarks.${i}.xMm`)} />
        <NumberField label="To the left" unit="mm" {...at(`centreMarks.${i}.yMm`)} />
        <NumberField label="Up" unit="mm" {...at(`centreMarks.${i}.zMm`)} />
        <NumberField label="Known to ±" unit="mm" {...at(`centreMarks.${i}.sigmaMm`)} />
      </>
    )}
  </PartList>
);
