import { adjustNetwork, type Observation, type SurveyNetwork } from "@/core/survey";
import type { Articulation } from "./advice";

/** The tow vehicle's side of the coupling, in its own axes; hubs as the tape is held to them. */
export type TowFrame = {
  /** Half the distance between the rear hub caps, mm. */
  rearHalfMm: number;
  /** Height of the rear hubs, and how far the hitch lies behind their line. */
  hubHeightMm: number;
  behindMm: number;
  /** Standard uncertainty of hubs and hitch on one vehicle of this kind. */
  hubSigmaMm: number;
  hitchSigmaMm: number;
};

/** The trailer's side: hitch to axle, hubs of its axle (of the middle one where there are three). */
export type TrailerFrame = {
  hitchToAxleMm: number;
  halfMm: number;
  hubHeightMm: number;
  hubSigmaMm: number;
  hitchSigmaMm: number;
};

/** The four tapes: tow vehicle's rear hub to trailer's hub, straight on each side, and crossed. */
export const TAPES = ["left", "right", "left-right", "right-left"] as const;
export type TapeId = (typeof TAPES)[number];
export type TapeReading = { id: TapeId; valueMm: number; sigmaMm: number };

/** What four tapes tell of how trailer and tow vehicle stand to each other. */
export type Coupled = Articulation & {
  /** The tape that does not fit the rest, where there is one. */
  suspect: TapeId | null;
  /** How far each tape lies off the adjusted figure, mm. */
  residuals: { id: TapeId; residualMm: number }[];
};

/** A tape that sags and is held by hand: what counts is its plan, not its slope. */
const inPlan = (valueMm: number, riseMm: number): number =>
  Math.sqrt(Math.max(0, valueMm * valueMm - riseMm * riseMm));

/**
 * The articulation from tapes between the hubs of both, on both sides and crossed: one network of the
 * tow vehicle's hubs, the trailer as a body tied at the hitch, its points as well known as the book
 * has them.
 *
 * @param startRad where the search begins; tapes on one side only leave the sign to it
 * @throws SurveyError where fewer tapes were read than fix the trailer
 */
export function articulationFrom(
  tow: TowFrame,
  trailer: TrailerFrame,
  tapes: readonly TapeReading[],
  startRad = 0,
): Coupled {
  const rise = trailer.hubHeightMm - tow.hubHeightMm;
  const [c, s] = [Math.cos(startRad), Math.sin(startRad)];
  const d = trailer.hitchToAxleMm;
  const network: SurveyNetwork = {
    points: [
      { id: "towL", xMm: 0, yMm: tow.rearHalfMm, sigmaMm: tow.hubSigmaMm },
      { id: "towR", xMm: 0, yMm: -tow.rearHalfMm, sigmaMm: tow.hubSigmaMm },
      { id: "ball", xMm: -tow.behindMm, yMm: 0, sigmaMm: tow.hitchSigmaMm },
    ],
    bodies: [
      {
        // Its origin is the middle of its axle.
        id: "trailer",
        xMm: -tow.behindMm - c * d,
        yMm: -s * d,
        headingRad: startRad,
        points: [
          { id: "hitch", xMm: d, yMm: 0, sigmaMm: trailer.hitchSigmaMm },
          { id: "L", xMm: 0, yMm: trailer.halfMm, sigmaMm: trailer.hubSigmaMm },
          { id: "R", xMm: 0, yMm: -trailer.halfMm, sigmaMm: trailer.hubSigmaMm },
        ],
      },
    ],
    observations: [
      { id: "coupling", kind: "coincide", a: "ball", b: "trailer.hitch", sigma: 1 },
      ...tapes.map((t): Observation => ({
        id: t.id,
        kind: "distance",
        from: t.id.startsWith("left") ? "towL" : "towR",
        to: t.id === "left" || t.id === "right-left" ? "trailer.L" : "trailer.R",
        valueMm: inPlan(t.valueMm, rise),
        sigma: t.sigmaMm,
      })),
    ],
  };
  const a = adjustNetwork(network);
  const body = a.bodies[0]!;
  const isTape = (id: string): id is TapeId => (TAPES as readonly string[]).includes(id);
  return {
    valueRad: body.headingRad,
    sigmaRad: Math.sqrt(body.covariance[2]![2]!),
    suspect: a.suspect && isTape(a.suspect) ? a.suspect : null,
    residuals: a.residuals.flatMap((r) =>
      isTape(r.id) ? [{ id: r.id, residualMm: r.residual }] : [],
    ),
  };
}
