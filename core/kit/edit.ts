import type { z } from "zod";
import { plainly, problemsIn, type Problem } from "@/core/book";
import { standSchema } from "@/core/setout/stand-schema";
import { boardSchema } from "./board";
import { instrumentSchema } from "./schema";
import { toolSchema } from "./tool";

export const KIT_KINDS = ["stand", "instrument", "tool", "board"] as const;
export type KitKind = (typeof KIT_KINDS)[number];

/**
 * One field of a piece of kit as a form asks for it; "rad" is kept in radians and asked for in
 * degrees. `fixed` ones are only written for a new piece.
 */
export type KitField = {
  path: string;
  label: string;
  as: "text" | "mm" | "rad" | "days" | "number" | "date" | [string, string][];
  fixed?: boolean;
};

const SCHEMAS: Record<KitKind, z.ZodType> = {
  board: boardSchema,
  stand: standSchema,
  instrument: instrumentSchema,
  tool: toolSchema,
};

/** What a form asks of each kind of kit, in the order one reads it off the thing itself. */
export const KIT_FIELDS: Record<KitKind, KitField[]> = {
  board: [
    { path: "code", label: "Code on the label", as: "text", fixed: true },
    { path: "name", label: "Name", as: "text" },
    { path: "version", label: "Version on the label", as: "number" },
    { path: "widthMm", label: "Width", as: "mm" },
    {
      path: "side",
      label: "May hang on",
      as: [
        ["either", "Either side"],
        ["left", "Vehicle left"],
        ["right", "Vehicle right"],
      ],
    },
    {
      path: "condition",
      label: "Condition",
      as: [
        ["good", "Good"],
        ["worn", "Worn"],
        ["out of use", "Out of use"],
      ],
    },
    { path: "lentTo", label: "Lent out to", as: "text" },
    { path: "backOn", label: "To be back on", as: "date" },
  ],
  stand: [
    { path: "id", label: "Number", as: "text", fixed: true },
    { path: "name", label: "Name", as: "text" },
    { path: "beamHalfMm", label: "Board centre to a beam hook", as: "mm" },
    { path: "hookHeightMm", label: "Hooks above the floor", as: "mm" },
    { path: "boardXMm", label: "Board before the last joint", as: "mm" },
    { path: "boardYMm", label: "Board beside the last joint", as: "mm" },
    { path: "scaleOffsetMm", label: "Board centre above the scale’s figure", as: "mm" },
    { path: "beamBackMm", label: "Back of the beam behind the board’s face", as: "mm" },
    { path: "laserUpMm", label: "Its laser above the board’s centre", as: "mm" },
    {
      path: "laserOn",
      label: "Where its laser sits",
      as: [
        ["board", "Beside the board"],
        ["hook", "Where the board hangs"],
        ["beam", "On the beam"],
      ],
    },
    { path: "crank.minMm", label: "Crank, lowest", as: "mm" },
    { path: "crank.maxMm", label: "Crank, highest", as: "mm" },
    { path: "crank.mmPerTurn", label: "Crank, each turn", as: "mm" },
    { path: "crank.playMm", label: "Crank, its play", as: "mm" },
    { path: "footMmPerTurn", label: "Foot, each turn", as: "mm" },
  ],
  instrument: [
    { path: "id", label: "Number", as: "text", fixed: true },
    { path: "name", label: "Name", as: "text" },
    {
      path: "kind",
      label: "Kind",
      as: [
        ["tape", "Tape"],
        ["laser", "Laser"],
        ["rule", "Rule"],
        ["scale", "Scale"],
        ["inclinometer", "Inclinometer"],
        ["bubble", "Bubble"],
        ["plumb", "Floor marks"],
        ["range", "Rangefinder"],
        ["wheel-laser", "Wheel lasers"],
        ["beam-laser", "Beam lasers"],
        ["mirror", "Wheel mirrors"],
        ["floor-laser", "Floor laser"],
        ["rig", "Camera rig"],
      ],
    },
    { path: "sigmaMm", label: "Standard uncertainty", as: "mm" },
    { path: "sigmaMmPerM", label: "and more for each metre", as: "mm" },
    { path: "sigmaRad", label: "Standard uncertainty of an angle", as: "rad" },
    { path: "divisionRad", label: "One division of a bubble", as: "rad" },
    {
      path: "live",
      label: "Posts its figure while something is turned",
      as: [
        ["no", "No"],
        ["posts", "Yes, live"],
      ],
    },
    { path: "checkedOn", label: "Last checked", as: "date" },
    { path: "everyDays", label: "A check is good for", as: "days" },
  ],
  tool: [
    { path: "id", label: "Number", as: "text", fixed: true },
    { path: "name", label: "Name", as: "text" },
    { path: "serial", label: "Serial number", as: "text" },
    { path: "software", label: "Software on its screen", as: "text" },
    { path: "softwareOn", label: "That software put on", as: "date" },
    { path: "updateEveryDays", label: "It is good for", as: "days" },
    { path: "paidUntil", label: "Paid for until", as: "date" },
    { path: "gatewayUntil", label: "Registered with gateways until", as: "date" },
  ],
};

/** What keeps a piece of kit from being written down as it stands. */
export function kitProblems(kind: KitKind, doc: unknown): Problem[] {
  const parsed = SCHEMAS[kind].safeParse(doc, plainly);
  return parsed.success ? [] : problemsIn(parsed.error, kind);
}

type Joint = { kind?: string; axis?: string };

/** The fields of one piece: a stand also has its joints, from the floor upward. */
export function kitFields(kind: KitKind, doc: Record<string, unknown>): KitField[] {
  const joints = kind === "stand" && Array.isArray(doc.joints) ? (doc.joints as Joint[]) : [];
  const feet = kind === "stand" && Array.isArray(doc.feet) ? (doc.feet as unknown[]) : [];
  const boosters =
    kind === "stand" && Array.isArray(doc.boosters) ? (doc.boosters as unknown[]) : [];
  return [
    ...KIT_FIELDS[kind],
    ...joints.flatMap((j, i): KitField[] =>
      j.kind === "yaw"
        ? [
            { path: `joints.${i}.limitRad`, label: "Turning, each way", as: "rad" },
            {
              path: `joints.${i}.xMm`,
              label: "Pivot, toward the car from the stand’s middle",
              as: "mm",
            },
            { path: `joints.${i}.yMm`, label: "Pivot, to the left of it", as: "mm" },
            {
              path: `joints.${i}.playMm`,
              label: "Turning, its play at the end of the beam",
              as: "mm",
            },
          ]
        : [
            {
              path: `joints.${i}.limitMm`,
              label: `Slide ${j.axis === "cross" ? "across" : "fore and aft"}, each way`,
              as: "mm",
            },
            {
              path: `joints.${i}.playMm`,
              label: `Slide ${j.axis === "cross" ? "across" : "fore and aft"}, its play`,
              as: "mm",
            },
          ],
    ),
    ...feet.flatMap((_, i): KitField[] => [
      {
        path: `feet.${i}.xMm`,
        label: `Foot ${i + 1}, toward the car from the stand’s middle`,
        as: "mm",
      },
      { path: `feet.${i}.yMm`, label: `Foot ${i + 1}, to the left of it`, as: "mm" },
    ]),
    ...boosters.flatMap((_, i): KitField[] => [
      { path: `boosters.${i}.id`, label: `Booster ${i + 1}: code on it`, as: "text" },
      { path: `boosters.${i}.addsMm`, label: `Booster ${i + 1}: it adds`, as: "mm" },
    ]),
  ];
}
