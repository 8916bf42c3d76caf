import type { Reading, SurveyBody, Tie } from "@/core/survey";
import { degToRad } from "@/core/units";
import { carried, followedBy, type Displacement } from "./displace";
import type { Slot } from "./slot";
import type { PlanPose } from "./stand";
import type { Widening } from "./touch";

/** The stand was rolled in by eye: how well "about there" is known before the first reading. */
export const ROLLED_IN = {
  planMm: 300,
  headingRad: degToRad(10),
  heightMm: 150,
  tiltRad: degToRad(2),
  /** A board is hung on its rail about where it belongs. */
  railMm: 60,
};

/**
 * How surely what stays in the bay stays there while the vehicle is moved: it is not touched. Not
 * nothing, so that the arithmetic keeps its footing.
 */
const STAYS = { sigma: 0.02, sigmaRad: 1e-5 };

/** A reading in the plan, and the body of its carrier's epoch. */
export type PlanReading = {
  id: string;
  /** Which target it was taken of. */
  target: string;
  body: string;
  /** The other target it ran to, and the body of its carrier then. */
  mate?: { target: string; body: string };
  slot: Slot;
  shown: number;
  sigma: number;
};

/**
 * One carrier between two disturbances: its pose is one body of the network. Readings belong to the
 * epoch they were taken in, so that a contradiction that shows late can still name an early one.
 */
type Epoch = { body: string; start: PlanPose; tie: Tied | null };

/** How an epoch hangs on the one before: carried by so much, so surely. */
type Tied = Displacement & {
  from: string;
  planVariance: number;
  headingVariance: number;
  /** The motion of the vehicle in between, where there was one. */
  motion: string | null;
};

/** Everything that was read and done in the plan of one setup, as a network sees it. */
export type History = {
  epochs: Map<string, Epoch[]>;
  points: Map<string, SurveyBody["points"]>;
  motions: SurveyBody[];
  readings: PlanReading[];
};

export const newHistory = (): History => ({
  epochs: new Map(),
  points: new Map(),
  motions: [],
  readings: [],
});

const diagonal = (mm: number, rad: number): number[][] => [
  [mm * mm, 0, 0],
  [0, mm * mm, 0],
  [0, 0, rad * rad],
];

/** Puts a carrier into the history where it should stand. @param points in its own axes, mm */
export function rollIn(
  h: History,
  carrier: string,
  start: PlanPose,
  points: SurveyBody["points"],
): void {
  h.epochs.set(carrier, [{ body: carrier, start, tie: null }]);
  h.points.set(carrier, points);
}

/** The epoch a carrier is in now. */
export const epochNow = (h: History, carrier: string): Epoch => h.epochs.get(carrier)!.at(-1)!;

/** Whether anything was read of a carrier since it was last disturbed. */
export const readSince = (h: History, carrier: string): boolean => {
  const { body } = epochNow(h, carrier);
  return h.readings.some((r) => r.body === body || r.mate?.body === body);
};

/**
 * A carrier is touched or moved: a new epoch begins, tied to the one before by the disturbance. When
 * nothing was read in between, two disturbances are one.
 */
export function disturb(
  h: History,
  carrier: string,
  widening: Pick<Widening, "planMm" | "headingRad">,
  by: Displacement,
): void {
  const list = h.epochs.get(carrier)!;
  const last = list.at(-1)!;
  const variances = {
    planVariance: widening.planMm ** 2,
    headingVariance: widening.headingRad ** 2,
  };
  const start = carried(by, last.start);
  if (last.tie && !last.tie.motion && !readSince(h, carrier)) {
    const sum = {
      planVariance: last.tie.planVariance + variances.planVariance,
      headingVariance: last.tie.headingVariance + variances.headingVariance,
    };
    list[list.length - 1] = {
      ...last,
      start,
      tie: { ...last.tie, ...followedBy(last.tie, by), ...sum },
    };
    return;
  }
  const body = `${carrier}@${list.length}`;
  list.push({ body, start, tie: { from: last.body, ...by, ...variances, motion: null } });
}

/**
 * The vehicle is moved: everything that stays in the bay goes through one and the same unknown
 * motion of the vehicle's axes.
 */
export function moveVehicle(h: History, d: Pick<Widening, "planMm" | "headingRad">): void {
  const motion = `vehicle@${h.motions.length + 1}`;
  h.motions.push({
    id: motion,
    xMm: 0,
    yMm: 0,
    headingRad: 0,
    points: [],
    priorCovariance: diagonal(d.planMm, d.headingRad),
  });
  for (const [carrier, list] of h.epochs) {
    const last = list.at(-1)!;
    list.push({
      body: `${carrier}@${list.length}`,
      start: last.start,
      tie: {
        from: last.body,
        by: { xMm: 0, yMm: 0, headingRad: 0 },
        alsoMm: { xMm: 0, yMm: 0 },
        planVariance: STAYS.sigma ** 2,
        headingVariance: STAYS.sigmaRad ** 2,
        motion,
      },
    });
  }
}

/** The name of the tie that leads to an epoch. */
const tieTo = (body: string): string => `carried to ${body}`;

/** Every epoch of every carrier and every motion, as bodies of a network. */
export const bodiesOf = (h: History): SurveyBody[] => [
  ...h.motions,
  ...[...h.epochs].flatMap(([carrier, list]) =>
    list.map(({ body, start, tie }): SurveyBody => ({
      id: body,
      ...start,
      points: h.points.get(carrier)!,
      ...(tie ? {} : { priorCovariance: diagonal(ROLLED_IN.planMm, ROLLED_IN.headingRad) }),
    })),
  ),
];

/** The disturbances as ties between the bodies of successive epochs. */
export const tiesOf = (h: History): Extract<Tie, { kind: "carried" }>[] =>
  [...h.epochs.values()].flatMap((list) =>
    list.flatMap(({ body, tie }) =>
      tie
        ? [
            {
              id: tieTo(body),
              kind: "carried" as const,
              from: tie.from,
              to: body,
              by: tie.by,
              alsoMm: tie.alsoMm,
              sigma: Math.sqrt(tie.planVariance),
              sigmaRad: Math.sqrt(tie.headingVariance),
              ...(tie.motion ? { motion: tie.motion } : {}),
            },
          ]
        : [],
    ),
  );

/** What was read, as readings of the network. */
export const readingsOf = (readings: readonly PlanReading[]): Reading[] =>
  readings.flatMap((r) =>
    r.slot.observes.in === "plan"
      ? [r.slot.observes.observation(r.id, r.slot.toModel(r.shown), r.sigma, r.body, r.mate?.body)]
      : [],
  );
