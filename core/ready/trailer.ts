import { SurveyError } from "@/core/survey";
import {
  articulationFrom,
  inLineChance,
  straighten,
  TAPES,
  type Pull,
  type StraightenAdvice,
  type TapeId,
  type TowFrame,
  type TrailerFrame,
  type Train,
} from "@/core/trailer";
import { degToRad, formatNumber, radToDeg } from "@/core/units";
import type { Vehicle } from "@/core/vehicle";
import type { Field } from "./field";
import type { Judgement } from "./judgement";

export const TAPE_NAMES: Record<TapeId, string> = {
  left: "rear hub left → trailer hub left",
  right: "rear hub right → trailer hub right",
  "left-right": "rear hub left → trailer hub right",
  "right-left": "rear hub right → trailer hub left",
};

/** A tape held by two hands through the air, past tyres and mudguards, mm. */
const TAPE_SIGMA_MM = 3;

type Trailer = NonNullable<Vehicle["trailer"]>;

const framesOf = (v: Vehicle, t: Trailer): { tow: TowFrame; trailer: TrailerFrame } => ({
  tow: {
    rearHalfMm: v.trackRearMm / 2 + v.hubCapOutMm,
    hubHeightMm: v.hubHeightMm,
    behindMm: t.hitchBehindMm,
    hubSigmaMm: v.hubSigmaMm,
    hitchSigmaMm: t.hitchSigmaMm,
  },
  trailer: {
    hitchToAxleMm: t.hitchToAxleMm,
    halfMm: t.hubHalfMm,
    hubHeightMm: t.hubHeightMm,
    hubSigmaMm: t.hubSigmaMm,
    hitchSigmaMm: t.hitchSigmaMm,
  },
});

const trainOf = (v: Vehicle, t: Trailer): Train => ({
  wheelbaseMm: v.wheelbaseMm,
  behindMm: t.hitchBehindMm,
  hitchToAxleMm: t.hitchToAxleMm,
});

/** Where a tape ends when all stands in line: what is far from it is another length than was meant. */
function lengthInLine(v: Vehicle, t: Trailer, id: TapeId): number {
  const { tow, trailer } = framesOf(v, t);
  const along = t.hitchBehindMm + t.hitchToAxleMm;
  const crossed = id === "left-right" || id === "right-left";
  const across = crossed ? tow.rearHalfMm + trailer.halfMm : tow.rearHalfMm - trailer.halfMm;
  return Math.hypot(along, across, tow.hubHeightMm - trailer.hubHeightMm);
}

export const articulationFields = (v: Vehicle): Field[] =>
  TAPES.map((id) => ({
    id,
    name: TAPE_NAMES[id],
    at: null,
    unit: "mm",
    quantity: {
      name: `the tape ${TAPE_NAMES[id]}`,
      dimension: "length",
      min: 500,
      max: 16_000,
      ...(v.trailer ? { expected: lengthInLine(v, v.trailer, id) } : {}),
    },
  }));

/** What a driver is told: which way, how far round, how far forward. */
function pullWords(advice: Exclude<StraightenAdvice, { kind: "in-line" }>): string {
  const metres = (mm: number): string => `${formatNumber(mm / 1000, 1)} m`;
  switch (advice.kind) {
    case "read":
      return "Nearly in line, but not surely: read the crossed tapes again.";
    case "no-room":
      return `It takes ${metres(advice.needMm)} of free floor ahead: couple it anew, or pull it straight outside.`;
    case "pull": {
      const { steerRad, distanceMm } = advice.pull;
      const deg = formatNumber(Math.abs(radToDeg(steerRad)));
      return `Pull ${metres(distanceMm)} forward, front wheels ${deg}° to the ${steerRad > 0 ? "left" : "right"}. Then read again.`;
    }
  }
}

/** What was advised on tapes that were read: what a driver who follows it then does. */
export function pullAdvised(
  limitDeg: number,
  roomMm: number,
  values: Readonly<Record<string, number>>,
  v: Vehicle,
): Pull | null {
  if (!v.trailer || TAPES.some((id) => values[id] === undefined)) return null;
  const { tow, trailer } = framesOf(v, v.trailer);
  const tapes = TAPES.map((id) => ({ id, valueMm: values[id]!, sigmaMm: TAPE_SIGMA_MM }));
  const found = articulationFrom(tow, trailer, tapes, startOf(values, tow, trailer));
  const advice = straighten(trainOf(v, v.trailer), found, degToRad(limitDeg), roomMm);
  return advice.kind === "pull" ? advice.pull : null;
}

/** Which way it points the straight tapes already say. */
const startOf = (
  values: Readonly<Record<string, number>>,
  tow: TowFrame,
  trailer: TrailerFrame,
): number => {
  const start = (values.right! - values.left!) / (tow.rearHalfMm + trailer.halfMm);
  return Math.max(-0.6, Math.min(0.6, start));
};

/**
 * Tapes between the hubs of both: how the trailer stands to its vehicle, how surely, and what brings it
 * into line.
 */
export function judgeArticulation(
  limitDeg: number,
  roomMm: number,
  values: Readonly<Record<string, number>>,
  v: Vehicle,
): Judgement {
  const t = v.trailer;
  if (!t)
    return {
      ok: null,
      headline: "the vehicle’s book has no trailer: enter hitch and axle under Vehicles",
      lines: [],
    };
  const read = TAPES.filter((id) => values[id] !== undefined);
  if (read.length < TAPES.length)
    return { ok: null, headline: `${TAPES.length - read.length} still to read`, lines: [] };
  const { tow, trailer } = framesOf(v, t);
  let found;
  try {
    const tapes = read.map((id) => ({ id, valueMm: values[id]!, sigmaMm: TAPE_SIGMA_MM }));
    found = articulationFrom(tow, trailer, tapes, startOf(values, tow, trailer));
  } catch (error) {
    if (!(error instanceof SurveyError)) throw error;
    return { ok: false, headline: "the tapes do not fit together: read them again", lines: [] };
  }
  const limitRad = degToRad(limitDeg);
  const deg = radToDeg(found.valueRad);
  const value = `${formatNumber(Math.abs(deg), 1)} ± ${formatNumber(1.96 * radToDeg(found.sigmaRad), 1)}°${Math.abs(deg) < 0.05 ? "" : deg > 0 ? " to the left" : " to the right"}`;
  const lines = [
    {
      name: "articulation",
      value,
      wanted: `within ${formatNumber(limitDeg, 1)}°`,
      ok: inLineChance(found, limitRad) >= 0.99,
    },
  ];
  if (found.suspect)
    return {
      ok: false,
      headline: `${TAPE_NAMES[found.suspect]} does not fit the others: read it again`,
      lines: [{ ...lines[0]!, ok: false }],
    };
  const advice = straighten(trainOf(v, t), found, limitRad, roomMm);
  return {
    ok: advice.kind === "in-line",
    headline: advice.kind === "in-line" ? `in line: ${value}` : `the trailer points ${value}`,
    ...(advice.kind === "in-line" ? {} : { act: pullWords(advice) }),
    lines,
  };
}
