import type { Measure } from "@/core/sheet";
import { formatNumber, formatQuantity } from "@/core/units";
import { sideCameras, type Vehicle } from "@/core/vehicle";
import type { Field } from "./field";
import type { Judgement } from "./judgement";

type Values = Readonly<Record<string, number>>;

export const heightId = (side: "left" | "right"): string => `height-${side}`;
export const outId = (side: "left" | "right"): string => `out-${side}`;

/** Beyond a few centimetres too near to the body it is folded, not bent, mm. */
const FOLDED_MM = 80;

/** What is read of each camera at a side: how high it sits, and how far out from the front hub. */
export const cameraPlaceFields = (v: Vehicle): Field[] =>
  sideCameras(v).flatMap(({ side, sensor, outMm }): Field[] => {
    return [
      {
        id: heightId(side),
        name: `${sensor.name}, above the floor`,
        at: null,
        unit: "mm",
        quantity: {
          name: `the height of ${sensor.name}`,
          dimension: "length",
          min: 300,
          max: 4500,
          expected: sensor.zMm,
        },
      },
      {
        id: outId(side),
        name: `${sensor.name}, out from the front hub`,
        at: null,
        unit: "mm",
        quantity: {
          name: `how far out from the front hub ${sensor.name} sits`,
          dimension: "length",
          min: -700,
          max: 1500,
          expected: outMm,
        },
      },
    ];
  });

/**
 * Where the cameras at the sides sit against the book: one that sits too near to the body is folded,
 * or its arm is not in driving position.
 */
export function judgeCameraPlaces(
  measure: Extract<Measure, { kind: "camera-places" }>,
  values: Values,
  v: Vehicle,
): Judgement {
  const cameras = sideCameras(v);
  if (cameras.length === 0)
    return {
      ok: null,
      headline: "the vehicle’s book has no cameras at its sides: enter them under Vehicles",
      lines: [],
    };
  const missing = cameraPlaceFields(v).filter((f) => values[f.id] === undefined);
  if (missing.length > 0)
    return { ok: null, headline: `${missing.length} still to read`, lines: [] };
  const judged = cameras.flatMap(({ side, sensor, outMm }) => {
    const line = (name: string, is: number, wanted: number, within: number) => ({
      sensor,
      off: is - wanted,
      name: `${sensor.name}, ${name}`,
      value: formatQuantity(is, "mm"),
      wanted: `${formatQuantity(wanted, "mm")} ± ${formatNumber(within)}`,
      ok: Math.abs(is - wanted) <= within,
    });
    return [
      { ...line("height", values[heightId(side)]!, sensor.zMm, measure.heightMm), out: false },
      { ...line("out", values[outId(side)]!, outMm, measure.outMm), out: true },
    ];
  });
  const bad = judged.find((l) => !l.ok);
  const lines = judged.map(({ name, value, wanted, ok }) => ({ name, value, wanted, ok }));
  if (!bad) return { ok: true, headline: "both sit where the book has them", lines };
  const folded = judged.find((l) => l.out && l.off < -FOLDED_MM);
  if (folded)
    return {
      ok: false,
      headline: `${folded.sensor.name} sits ${formatQuantity(-folded.off, "mm")} too near to the body`,
      act: "It is folded: swing it out until it locks in driving position, then read again.",
      lines,
    };
  return { ok: false, headline: `${bad.name}: ${bad.value}`, lines };
}
