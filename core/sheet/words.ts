import { formatNumber } from "@/core/units";
import { DATUM_NAMES } from "@/core/vehicle";
import type { Target } from "./schema";

/** Whose limits they are where the source names none, and what they are derived from; else null. */
export function ownLimitWords({ ownLimit }: Pick<Target, "ownLimit">): string | null {
  if (!ownLimit) return null;
  const metres = (mm: number): string => `${formatNumber(mm / 1000, 2)} m`;
  return `The shop’s own; the source names none. So derived: a board anywhere inside them shifts a lane line 60 m ahead by at most ${metres(ownLimit.laneMm)}, and makes a distance of 60 m wrong by at most ${metres(ownLimit.rangeMm)}.`;
}

export const DISTANCE_FROM_NAMES: Record<Target["distanceFrom"], string> = {
  "front-hub-line": "the front hub line",
  "front-badge": "the front badge",
  "bumper-face": "the bumper face",
  camera: "the camera",
  "rear-hub-line": "the rear hub line",
  "rear-badge": "the rear badge",
  "rear-face": "the rear bumper’s face",
  "line-hub": "the hub it is measured from",
};

/** What a target's distance counts from: a trailer has one hub line and nothing else. */
export const distanceName = ({
  distanceFrom,
  frame,
}: Pick<Target, "distanceFrom" | "frame">): string =>
  frame ? "the trailer’s hub line" : DISTANCE_FROM_NAMES[distanceFrom];

/** The line a target is placed on. */
export const datumName = ({ datum, frame }: Pick<Target, "datum" | "frame">): string =>
  frame ? "trailer’s axle line" : DATUM_NAMES[datum];

const FIELD_NAMES: Record<string, string> = {
  title: "the title",
  reason: "the reason",
  datum: "the line the board is placed on",
  distanceFrom: "where the distance counts from",
  "placement.alongMm": "the distance ahead",
  "placement.acrossMm": "the place across",
  "placement.twistDeg": "the twist",
  "placement.heightMm": "the centre height",
  "measuredTo.along": "what the distance is to",
  "measuredTo.height": "what the height is of",
  "tolerance.alongMm": "the tolerance ahead",
  "tolerance.acrossMm": "the tolerance across",
  "tolerance.twistDeg": "the tolerance of twist",
  "tolerance.heightMm": "the tolerance of height",
  "tolerance.pitchDeg": "the tolerance of lean",
  "tolerance.rollDeg": "the tolerance of level",
  ownLimit: "the shop’s own limit",
  "ownLimit.seen": "where the camera sits",
  "ownLimit.laneMm": "how far off a lane line may be believed",
  "ownLimit.rangeMm": "how wrong a distance may be believed",
  upright: "what the board stands square to",
  ready: "what is checked before",
  run: "the steps of the routine",
  "object.code": "the board code",
  "object.widthMm": "the board width",
  "object.lengthMm": "the length of the mat",
  "object.aheadMm": "how much of the mat lies ahead of its cross line",
  "beam.acrossMm": "the middle of the beam",
  "relations.minMm": "the least spacing of the mats",
  "relations.maxMm": "the greatest spacing of the mats",
  "relations.toleranceDeg": "how far the mats may be from parallel",
  "relations.toleranceMm": "how unequally far from the wheels the mats may lie",
  "line.from": "the axle the mark is measured from",
  "line.through": "the axle its line runs on through",
  "appliesTo.system": "what it calibrates",
  "object.side": "the side the board hangs on",
  "object.version": "the version of the board",
  "source.name": "the source",
  "source.date": "the date of the source",
  "appliesTo.vehicles": "the vehicles",
  "appliesTo.after": "what it is owed after",
};

const DRIVE_PARTS: Record<string, string> = {
  conditions: "what has to hold on its drive",
  enough: "how much of its drive has to count",
  timeOutS: "when the vehicle gives up its drive",
  keeps: "how the speed is kept on its drive",
  progress: "what the vehicle shows on its drive",
};

/** One of a list: by its number, or by its own name where a list is compared by names. */
const numbered = (what: string, at: string): string =>
  /^\d+$/.test(at) ? `${what} ${Number(at) + 1}` : `the ${what} “${at}”`;

/** A field of a sheet as people call it; a step by its number. */
export function fieldName(path: string): string {
  const step = /^run\.([^.]+)/.exec(path);
  if (step) return numbered("step", step[1]!);
  const item = /^(ready|prove)\.([^.]+)/.exec(path);
  if (item)
    return `${numbered("item", item[2]!)} of what is checked ${item[1] === "ready" ? "before" : "after"}`;
  const target = /^setups\.([^.]+)\.targets\.([^.]+)\.?(.*)$/.exec(path);
  if (target) {
    const [, setup, place, field] = target as unknown as [string, string, string, string];
    const first = [setup, place].every((x) => x === "0" || x === "first");
    const name = FIELD_NAMES[field] ?? field;
    if (first) return name;
    const of = /^\d+$/.test(place)
      ? `place ${Number(place) + 1} of setup ${Number(setup) + 1}`
      : `the place ${place}`;
    return `${name ? `${name} of ` : ""}${of}`;
  }
  const relation = /^setups\.[^.]+\.relations\.([^.]+)\.?(.*)$/.exec(path);
  if (relation)
    return FIELD_NAMES[`relations.${relation[2]}`] ?? numbered("relation", relation[1]!);
  const drive = /^drive\.([a-zA-Z]+)(?:\.(?:codes\.)?(\d+))?/.exec(path);
  if (drive) {
    const [, part, n] = drive as unknown as [string, string, string | undefined];
    const name = DRIVE_PARTS[part] ?? "its drive";
    return n === undefined ? name : `${name}, number ${Number(n) + 1}`;
  }
  const caution = /^cautions\.(\d+)/.exec(path);
  if (caution) return `caution ${Number(caution[1]) + 1}`;
  return FIELD_NAMES[path] ?? path;
}
