import type { Measure } from "@/core/sheet";
import { degToRad, type Quantity } from "@/core/units";
import {
  archPlace,
  CORNER_NAMES,
  CORNERS,
  readTyre,
  type Corner,
  type Vehicle,
} from "@/core/vehicle";
import type { Field } from "./field";
import { cameraPlaceFields } from "./camera-places";
import { judgeFully } from "./apart";
import { placardOf } from "./judge";
import type { Judgement } from "./judgement";
import { seamFields } from "./seam-fields";
import { articulationFields } from "./trailer";
import { standFeet, standsAt, standSpots } from "./stand-spots";

const plain = (name: string, min: number, max: number): Quantity => ({
  name,
  dimension: "length",
  min,
  max,
});

/** What has to be read for an item, in walking order round the car. */
export function fieldsFor(measure: Measure, v: Vehicle): Field[] {
  const corners = (make: (c: Corner) => Omit<Field, "id" | "name" | "at">): Field[] =>
    CORNERS.map((c) => ({ id: c, name: CORNER_NAMES[c], at: archPlace(v, c), ...make(c) }));
  switch (measure.kind) {
    case "pressures":
      return corners((c) => ({
        quantity: {
          name: `the ${CORNER_NAMES[c]} tyre pressure`,
          dimension: "pressure",
          min: 50,
          max: 1100,
          expected: placardOf(v, measure.load, c),
        },
        unit: "kPa",
      }));
    case "tyres":
      return corners((c) => ({
        quantity: { ...plain(`the ${CORNER_NAMES[c]} tyre size`, 350, 1300) },
        unit: "tyre",
        markings: markingsFor(v, c),
      }));
    case "clear-zone":
      return [
        {
          id: "ahead",
          name: "free ahead of the bumper",
          at: null,
          quantity: plain("the free floor ahead", 0, 60_000),
          unit: "mm",
        },
        {
          id: "left",
          name: "free to vehicle left",
          at: null,
          quantity: plain("the free floor to the left", 0, 30_000),
          unit: "mm",
        },
        {
          id: "right",
          name: "free to vehicle right",
          at: null,
          quantity: plain("the free floor to the right", 0, 30_000),
          unit: "mm",
        },
      ];
    case "arches":
      return corners((c) => ({
        quantity: {
          ...plain(`the ${CORNER_NAMES[c]} arch height`, 300, 1700),
          expected: v.archMm[c],
        },
        unit: "mm",
      }));
    case "floor": {
      const reading = (name: string): Pick<Field, "quantity" | "unit"> => ({
        quantity: plain(`the rule reading ${name}`, -50, 2500),
        unit: "mm",
      });
      const [first = "ahead", ...elsewhere] = measure.stands ?? [];
      const feet = standFeet(first);
      return [
        ...corners((c) => reading(`at the ${CORNER_NAMES[c]} tyre`)),
        { id: "stand", name: `stand, ${feet[0]} foot`, at: null, ...reading("at the stand") },
        {
          id: "stand-2",
          name: `stand, ${feet[1]} foot`,
          at: null,
          optional: true,
          ...reading("at the stand"),
        },
        ...elsewhere.map((side) => ({
          id: standSpots(side)[0]![0],
          name: `stand ${standsAt(side)}`,
          at: null,
          ...reading(`at the stand ${standsAt(side)}`),
        })),
      ];
    }
    case "fuel":
      return [
        {
          id: "share",
          name: "fuel gauge",
          at: null,
          ...(v.tankLitres === 0 ? { optional: true } : {}),
          quantity: { name: "the fuel gauge in tenths", dimension: "count", min: 0, max: 10 },
          unit: "share",
        },
      ];
    case "steering":
      return [
        {
          id: "deg",
          name: "steering angle",
          at: null,
          quantity: {
            name: "the steering angle",
            dimension: "angle",
            min: degToRad(-720),
            max: degToRad(720),
          },
          unit: "deg",
        },
      ];
    case "alignment": {
      const toe = (id: "left" | "right"): Field => ({
        id,
        name: `rear ${id} toe, in +`,
        at: null,
        quantity: {
          name: `the rear ${id} toe`,
          dimension: "angle",
          min: degToRad(-3),
          max: degToRad(3),
        },
        unit: "deg",
        decimals: 2,
      });
      return [
        toe("left"),
        toe("right"),
        {
          id: "sigma",
          name: "known to ±, if said",
          at: null,
          optional: true,
          quantity: {
            name: "what the toe is known to",
            dimension: "angle",
            min: degToRad(0.005),
            max: degToRad(1),
          },
          unit: "deg",
          decimals: 2,
        },
      ];
    }
    case "seams":
      return seamFields();
    case "camera-places":
      return cameraPlaceFields(v);
    case "articulation":
      return articulationFields(v);
    case "battery":
    case "scan":
    case "rescan":
    case "road":
    case "dash":
    case "self-test":
      return [];
  }
}

/**
 * The maker's marking at a corner, and one a shop meets: the same rim with the next lower section.
 */
function markingsFor(v: Vehicle, c: Corner): string[] {
  const own = c[0] === "F" ? v.tyres.front : v.tyres.rear;
  const t = readTyre(own);
  return t ? [own, `${t.widthMm}/${Math.round(t.aspect * 100) - 5} R${t.rimIn}`] : [own];
}

/** {@link judgeFully}, with the field that is to be read next by its name. */
export function judgeRead(
  measure: Measure,
  values: Readonly<Record<string, number>>,
  v: Vehicle,
): Judgement {
  const judged = judgeFully(measure, values, v);
  if (judged.ok !== null) return judged;
  const next = fieldsFor(measure, v).find((f) => !f.optional && values[f.id] === undefined);
  return next ? { ...judged, headline: `${judged.headline}: ${next.name}` } : judged;
}
