import type { Measure } from "@/core/sheet";
import type { Vehicle } from "@/core/vehicle";
import { judgeCameraPlaces } from "./camera-places";
import { judgeMeasure } from "./judge";
import type { Found, Judgement } from "./judgement";
import { judgeSeams, STEP_IDS } from "./seams";
import { judgeArticulation } from "./trailer";

type Values = Readonly<Record<string, number>>;

/**
 * {@link judgeMeasure} of anything, worked out in full: also what a bench that only shows it takes from
 * the line itself.
 */
export function judgeFully(measure: Measure, values: Values, v: Vehicle): Judgement {
  switch (measure.kind) {
    case "articulation":
      return judgeArticulation(measure.limitDeg, measure.roomMm, values, v);
    case "camera-places":
      return judgeCameraPlaces(measure, values, v);
    case "seams": {
      const missing = STEP_IDS.filter((id) => values[id] === undefined);
      return missing.length > 0
        ? { ok: null, headline: `${missing.length} still to read`, lines: [] }
        : judgeSeams(measure.limitMm, values);
    }
    default:
      return judgeMeasure(measure, values, v);
  }
}

/** What is written with a measurement that is judged apart; undefined for any other. */
export function foundOf(measure: Measure, values: Values, v: Vehicle): Found | undefined {
  if (!["articulation", "seams", "camera-places"].includes(measure.kind)) return undefined;
  const { ok, headline } = judgeFully(measure, values, v);
  return { ok: ok === true, headline };
}
