import type { SheetStep } from "@/core/sheet";
import { formatNumber } from "@/core/units";
import type { CalibrationGround } from "./ground";
import { itemsOf } from "./items";
import { measuredOf, type JobEvent } from "./job";
import { settledQuantities } from "./settle";
import { standingAt, targetInHand } from "./standing";

/** A number the routine asks for that is known already, and where it comes from. */
type Known = { mm: number; from: string };

/**
 * What was measured of the number a step asks for: nothing is typed twice. Null where the sheet does
 * not say what it is, or nobody measured it.
 */
export function askedFor(
  g: CalibrationGround,
  events: readonly JobEvent[],
  step: Extract<SheetStep, { kind: "input" }>,
): Known | null {
  if (!step.takes) return null;
  if (step.takes === "trailer-length") {
    const { trailer } = g.vehicle;
    return trailer
      ? {
          mm: trailer.lengthMm,
          from: `${trailer.name}, from the vehicle’s book: hitch to its end.`,
        }
      : null;
  }
  if (step.takes === "trailer-camera-height") {
    const { trailer } = g.vehicle;
    return trailer?.cameraHeightMm === undefined
      ? null
      : { mm: trailer.cameraHeightMm, from: `${trailer.name}, from the vehicle’s book.` };
  }
  if (step.takes === "camera-height-left" || step.takes === "camera-height-right") {
    const places = itemsOf(g, "ready").find((i) => i.measure?.kind === "camera-places");
    const mm =
      places &&
      measuredOf(events).get(places.id)?.body.values[
        step.takes === "camera-height-left" ? "height-left" : "height-right"
      ];
    return mm === undefined ? null : { mm, from: "As measured under Ready." };
  }
  if (step.takes === "hub-to-board" || step.takes === "target-height") {
    const target = targetInHand(g, events);
    const settled = standingAt(g, events, target.id)?.settled;
    const high = step.takes === "target-height";
    const error =
      settled &&
      settledQuantities(settled.body, target).find((q) => q.id === (high ? "height" : "along"));
    if (!error) return null;
    const { heightMm, alongMm } = target.placement;
    return {
      mm: Math.round((high ? heightMm : alongMm) + error.error),
      from: `As set out and proved: the sheet’s ${formatNumber(high ? heightMm : alongMm)} mm and what the readings found beside it.`,
    };
  }
  const item = itemsOf(g, "ready").find((i) => i.measure?.kind === "arches");
  const values = item && measuredOf(events).get(item.id)?.body.values;
  const axle = step.takes === "arch-front" ? "F" : "R";
  const [left, right] = [values?.[`${axle}L`], values?.[`${axle}R`]];
  if (left === undefined || right === undefined) return null;
  const mm = (left + right) / 2;
  return {
    mm,
    from: `As measured under Ready: left ${formatNumber(left)}, right ${formatNumber(right)} mm; their mean.`,
  };
}
