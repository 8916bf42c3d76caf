"use client";

import { SYSTEMS } from "@/core/owed";
import type { Vehicle } from "@/core/vehicle";
import type { AtPath } from "../book/draft-editor";
import { ChoiceField, NumberField, TextField } from "../book/fields";
import { Rows } from "../book/rows";
import { Button } from "../primitives/button";

type Sensor = NonNullable<Vehicle["sensors"]>[number];
const MOST = 16;

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
export function SensorList({
  value,
  at,
  readOnly,
  onChange,
}: {
  value: unknown;
  at: AtPath;
  readOnly: boolean;
  onChange: (sensors: Partial<Sensor>[] | undefined) => void;
}) {
  const sensors = (Array.isArray(value) ? value : []) as Partial<Sensor>[];
  const keep = (list: Partial<Sensor>[]): void => onChange(list.length > 0 ? list : undefined);
  const add = (): void => {
    let n = sensors.length + 1;
    while (sensors.some((s) => s.id === `s${n}`)) n++;
    const looks = LOOKS[sensors.length % LOOKS.length]![0];
    keep([
      ...sensors,
      {
        id: `s${n}`,
        system: "surround-view",
        looks,
        name: `${looks} camera`,
        headingDeg: HEADING[looks],
        downDeg: 40,
        rollDeg: 0,
      },
    ]);
  };
  return (
    <section aria-label="Cameras and radars" className="border-t-2 border-ink pt-3">
      <h2 className="mb-1 text-sm font-semibold text-soft">
        Cameras and radars, where they sit and look; of a surround view what is not entered is taken
        as usual of such a body
      </h2>
      <Rows
        items={sensors}
        name="sensor"
        keyOf={(s) => s.id ?? ""}
        problemAt={() => null}
        readOnly={readOnly}
        onChange={keep}
      >
        {(_, i) => (
          <span className="grid min-w-0 flex-1 grid-cols-2 gap-x-6 gap-y-2 lg:grid-cols-4">
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
          </span>
        )}
      </Rows>
      {!readOnly && sensors.length < MOST && (
        <Button look="quiet" className="mt-1" onClick={add}>
          + Sensor
        </Button>
      )}
    </section>
  );
}
