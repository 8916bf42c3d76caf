import type { Target } from "@/core/sheet";
import type { Stand } from "./stand";

/**
 * Which point a figure of the book is to. The arithmetic counts to the centre of the board's face; a
 * book may mean the back of the beam, the figure on the stand's own scale, or where its laser comes
 * out. What lies between is the stand's own measure.
 *
 * What each point is called.
 */
export const REFERENCES = {
  along: { face: "the board’s face", "beam-back": "the back of the beam" },
  height: {
    centre: "the centre of the board",
    scale: "the figure on the stand’s scale",
    laser: "where the stand’s laser comes out",
  },
} as const;

/** Stands say these of themselves; where one does not, it cannot carry a target that needs it. */
const NEEDED: Record<string, { field: "beamBackMm" | "laserUpMm"; called: string }> = {
  "beam-back": {
    field: "beamBackMm",
    called: "how far the back of its beam lies behind the board’s face",
  },
  laser: { field: "laserUpMm", called: "how high its laser comes out above the board’s centre" },
};

/** What a stand does not say of itself that the target's figures are to; null where it says all. */
export function lacksReference(target: Target, stand: Stand): string | null {
  for (const point of [target.measuredTo?.along, target.measuredTo?.height]) {
    const needed = point && NEEDED[point];
    if (needed && stand[needed.field] === undefined)
      return `The sheet counts to ${point === "laser" ? REFERENCES.height.laser : REFERENCES.along["beam-back"]}, and ${stand.id} does not say ${needed.called}. Enter it under Kit, or choose another stand.`;
  }
  return null;
}

/**
 * The target as this stand carries it: its figures to the centre of the board's face.
 *
 * With b from face to beam's back, s from the scale's figure up to the centre, l from the centre up
 * to the laser: along = book - b, height = book + s or book - l. A booster is a matter of the crank:
 * the scale meant is that of the bare stand.
 */
export function targetOn(target: Target, stand: Stand): Target {
  const { measuredTo, ...bare } = target;
  if (!measuredTo) return target;
  const { placement } = target;
  const back = measuredTo.along === "beam-back" ? (stand.beamBackMm ?? 0) : 0;
  const scale = stand.scaleOffsetMm - (stand.fitted?.addsMm ?? 0);
  const up =
    measuredTo.height === "scale"
      ? scale
      : measuredTo.height === "laser"
        ? -(stand.laserUpMm ?? 0)
        : 0;
  return {
    ...bare,
    placement: {
      ...placement,
      alongMm: placement.alongMm - back,
      heightMm: placement.heightMm + up,
    },
  };
}
