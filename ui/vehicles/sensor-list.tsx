"use client";

import { SYSTEMS } from "@/core/owed";
import type { Vehicle } from "@/core/vehicle";
import type { AtPath } from "../book/draft-editor";
import { ChoiceField, NumberField, TextField } from "../book/fields";
import { freeId, PartList } from "./part-list";

type Sensor = NonNullable<Vehicle["sensors"]>[number];

const LOOKS: [Sensor["looks"], string][] = [
  ["front", "Ahead"],
  ["left", "To the left"],
  ["rear", "Behind"],
  ["right", "To the right"],
];
const KINDS = Object.entries(SYSTEMS).filter(([id]) => /camera|view|radar/.test(id));
/** Where such a sensor looks, to begin with. */
const HEADING: Record<Sensor["looks"], number> = { front: 0, left: 90, rear: 180, right: -90 };

/** Cameras and radars by their places and the way they look. */
export const SensorList = ({
  at,
  ...list
}: {
  value: unknown;
  at: AtPath;
  readOnly: boolean;
  onChange: (sensors: Partial<Sensor>[] | undefined) => void;
}) => (
  <PartList<Partial<Sensor>>
    {...list}
    label="Cameras and radars"
    about="Cameras and radars, where they sit and look; of a surround view what is not entered is taken as usual of such a body"
    name="sensor"
    most={16}
    fresh={(before) => {
      const looks = LOOKS[before.length % LOOKS.length]![0];
      return {
        id: freeId(before, "s"),
        system: "surround-view",
        looks,
        name: `${looks} camera`,
        headingDeg: HEADING[looks],
        downDeg: 40,
        rollDeg: 0,
      };
    }}
  >
    {(i) => (
      <>
        <span className="col-span-full">
          <TextField label={`Sensor ${i + 1}, what it is`} {...at(`sensors.${i}.name`)} />
        </span>
        <span className="col-span-full">
          <ChoiceField label="Of" choices={KINDS} {...at(`sensors.${i}.system`)} />
        </span>
        <span className="col-span-full">
          <ChoiceField label="Looks" choices={LOOKS} {...at(`sensors.${i}.looks`)} />
        </span>
        <NumberField label="Ahead" unit="mm" {...at(`sensors.${i}.xMm`)} />
        <NumberField label="To the left" unit="mm" {...at(`sensors.${i}.yMm`)} />
        <NumberField label="Up" unit="mm" {...at(`sensors.${i}.zMm`)} />
        <span className="hidden lg:block" />
        <NumberField label="Heading, to the left" unit="°" {...at(`sensors.${i}.headingDeg`)} />
        <NumberField label="Down" unit="°" {...at(`sensors.${i}.downDeg`)} />
        <NumberField label="Roll, clockwise" unit="°" {...at(`sensors.${i}.rollDeg`)} />
      </>
    )}
  </PartList>
);
