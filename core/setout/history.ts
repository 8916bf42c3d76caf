import type { Reading, SurveyBody, SurveyNuisance, Tie } from "@/core/survey";
import { degToRad } from "@/core/units";
import {
  leanCause,
  leanOf,
  scaleCause,
  scaleOf,
  seatCause,
  toeCause,
  TOE_LEFT,
  TOE_RIGHT,
  TOE_SIGMA,
} from "./causes";
import { carried, followedBy, type Displacement } from "./displace";
import type { Kept } from "./kept";
import type { Against, Slot } from "./slot";
import type { CarrierPoint } from "./slots";
import { PARKED, wallCauses, wallEnds, wallSigmas, type BayWalls } from "./walls";
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
  /** The seating it was read through. */
  seat?: string;
  /** Which instrument, where several of a kind are in use. */
  instrument?: string;
};

/** The lean of a carrier between two disturbances: what became of it, and what was read of it since. */
type Lean = {
  shift: number;
  sigma: number;
  readings: { id: string; value: number; sigma: number; against?: Against }[];
};
type Leans = Record<"pitch" | "roll", Lean>;

/**
 * One carrier between two disturbances: its pose is one body of the network. Readings belong to the
 * epoch they were taken in, so that a contradiction that shows late can still name an early one.
 */
type Epoch = {
  body: string;
  start: PlanPose;
  /** What is known of its start beforehand, where that is more than that it was rolled in by eye. */
  prior?: number[][];
  tie: Tied | null;
  /** How high its board's centre is, as well as it is known, mm. */
  heightMm: number;
  /** Which of the carrier's leans it stood in. */
  lean: number;
};

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
  points: Map<string, CarrierPoint[]>;
  /** Carriers that can lean; a mat on the floor is none. */
  leans: Map<string, Leans[]>;
  motions: SurveyBody[];
  readings: PlanReading[];
  /** How often each thing that is clamped or hung was seated. */
  seats: Map<string, number>;
  /** The bay as its walls lie about the vehicle, among the epochs; null where nobody said. */
  bay: string | null;
  /** The walls that are looked at. */
  walls: ReadonlySet<string>;
  /** Whether something is judged against a thrust line. */
  onThrust: boolean;
  /** How well the toe of a rear wheel is known beforehand, rad. */
  toeSigma: number;
};

export const newHistory = (onThrust = false, toeSigma = TOE_SIGMA): History => ({
  epochs: new Map(),
  points: new Map(),
  leans: new Map(),
  motions: [],
  readings: [],
  seats: new Map(),
  bay: null,
  walls: new Set(),
  onThrust,
  toeSigma,
});

/** The heading of what has none, rad: not nothing, so that the arithmetic keeps its footing. */
const NO_HEADING = 1e-5;

const diagonal = (mm: number, rad: number): number[][] => [
  [mm * mm, 0, 0],
  [0, mm * mm, 0],
  [0, 0, rad * rad],
];

/**
 * Puts a carrier into the history where it should stand.
 *
 * @param points in its own axes, mm
 * @param upright the board's height, and its lean as the sheet wants it; null for what lies on the
 *   floor
 * @param pointlike a cross has no heading: it is taken as that of its line
 */
export function rollIn(
  h: History,
  carrier: string,
  start: PlanPose,
  points: CarrierPoint[],
  upright: { heightMm: number; pitchRad: number; rollRad: number } | null = null,
  pointlike = false,
): void {
  const heightMm = upright?.heightMm ?? 0;
  const prior = pointlike ? { prior: diagonal(ROLLED_IN.planMm, NO_HEADING) } : {};
  h.epochs.set(carrier, [{ body: carrier, start, tie: null, heightMm, lean: 0, ...prior }]);
  h.points.set(carrier, points);
  if (!upright) return;
  const lean = (shift: number): Lean => ({ shift, sigma: ROLLED_IN.tiltRad, readings: [] });
  h.leans.set(carrier, [{ pitch: lean(upright.pitchRad), roll: lean(upright.rollRad) }]);
}

/**
 * The vehicle is said to stand in a bay: its walls lie about it as drawn, as nearly as a vehicle is
 * brought to its marks. They go with no stand, and stay where they are when the vehicle is moved. Walls
 * that no reading runs to are not looked at.
 */
export function parkIn(h: History, bay: BayWalls): void {
  if (h.walls.size === 0) return;
  const body = `bay as parked ${h.epochs.size}`;
  h.bay = body;
  const start = { xMm: 0, yMm: 0, headingRad: 0 };
  const prior = diagonal(PARKED.planMm, PARKED.headingRad);
  h.epochs.set(body, [{ body, start, prior, tie: null, heightMm: 0, lean: 0 }]);
  h.points.set(
    body,
    bay.walls.flatMap(({ id, from, to }) => {
      const ends = wallEnds(id);
      return h.walls.has(`${bay.bay}.${id}`)
        ? [
            { id: ends.from, xMm: from[0], yMm: from[1] },
            { id: ends.to, xMm: to[0], yMm: to[1] },
          ]
        : [];
    }),
  );
}

/** A carrier that nobody touched stands where the last job left it. */
export function keepStanding(h: History, carrier: string, kept: Kept): void {
  const epoch = epochNow(h, carrier);
  epoch.start = kept.pose;
  epoch.prior = kept.covariance;
  epoch.heightMm = kept.height.value;
  const lean = ({ value, sigma }: Kept["pitch"]): Lean => ({ shift: value, sigma, readings: [] });
  h.leans.set(carrier, [{ pitch: lean(kept.pitch), roll: lean(kept.roll) }]);
}

/** A carrier's lean is disturbed: what is read of it from now on is of another one. */
export function leanAnew(
  h: History,
  carrier: string,
  sigma: number,
  shift: { pitch: number; roll: number },
): void {
  const list = h.leans.get(carrier);
  if (!list || (sigma === 0 && shift.pitch === 0 && shift.roll === 0)) return;
  const lean = (by: number): Lean => ({ shift: by, sigma: Math.max(sigma, 1e-6), readings: [] });
  list.push({ pitch: lean(shift.pitch), roll: lean(shift.roll) });
  epochNow(h, carrier).lean = list.length - 1;
}

/** A reading of a carrier's lean as it is now. */
export const readLean = (
  h: History,
  carrier: string,
  part: "pitch" | "roll",
  reading: Lean["readings"][number],
): void => void h.leans.get(carrier)?.at(-1)![part].readings.push(reading);

/** The name of a seating as it is now, or of the next one. */
export function seatNow(h: History, id: string, anew: boolean): string {
  const times = (h.seats.get(id) ?? 1) + (anew ? 1 : 0);
  h.seats.set(id, times);
  return `seat of ${id}#${times}`;
}

/** The name of a carrier's lean as it is now; null for one that cannot. */
export const leanNow = (h: History, carrier: string, part: "pitch" | "roll"): string | null => {
  const list = h.leans.get(carrier);
  return list ? leanCause(carrier, part, list.length - 1) : null;
};

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
  // Nothing was ever read of it: it stands about there as before.
  if (!last.tie && !readSince(h, carrier)) {
    list[list.length - 1] = { ...last, start };
    return;
  }
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
  list.push({ ...last, body, start, tie: { from: last.body, ...by, ...variances, motion: null } });
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
      ...last,
      body: `${carrier}@${list.length}`,
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
    list.map(({ body, start, prior, tie, heightMm, lean }): SurveyBody => ({
      id: body,
      ...start,
      points: h.points.get(carrier)!.map(({ id, xMm, yMm, up }) => {
        if (!up || !h.leans.has(carrier)) return { id, xMm, yMm };
        const underMm = up.from === "floor" ? heightMm - up.mm : -up.mm;
        const by = leanOf(
          underMm,
          leanCause(carrier, "pitch", lean),
          leanCause(carrier, "roll", lean),
        );
        return { id, xMm, yMm, ...(underMm === 0 ? {} : { by }) };
      }),
      ...(tie
        ? {}
        : { priorCovariance: prior ?? diagonal(ROLLED_IN.planMm, ROLLED_IN.headingRad) }),
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

/** What was read in the plan, as readings of the network. */
export const readingsOf = (readings: readonly PlanReading[]): Reading[] =>
  readings.flatMap((r) =>
    r.slot.observes.in === "plan"
      ? [
          sharing(
            r.slot.observes.observation(
              r.id,
              r.slot.toModel(r.shown),
              r.sigma,
              r.body,
              r.mate?.body,
            ),
            r.slot,
            r.seat,
            r.instrument,
          ),
        ]
      : [],
  );

/**
 * A reading with what it has in common with others of its instrument, and through its seating.
 *
 * @param known where given, only what it has in common with these unknowns
 */
export function sharing(
  o: Reading,
  slot: Slot,
  seat: string | undefined,
  instrument: string | undefined,
  known?: ReadonlySet<string>,
): Reading {
  if (o.kind === "heading" || o.kind === "cause") return o;
  const named = scaleOf(slot.instrument, instrument);
  const scale = named && (!known || known.has(named)) ? named : undefined;
  const all = seat
    ? [...(o.causes ?? []), { cause: seat, per: slot.seat?.per ?? 1 }]
    : (o.causes ?? []);
  const causes = known ? all.filter((c) => known.has(c.cause)) : all;
  // It was made for this: filling it in costs a fraction of copying it.
  if (scale) o.scale = scale;
  if (causes.length > 0 || o.causes) o.causes = causes;
  return o;
}

/** What stands on a rear wheel, or shines from it, turns with its toe. */
const GOES_WITH_TOE: ReadonlySet<Slot["instrument"]> = new Set(["wheel-laser", "mirror", "range"]);

/** How leans follow on one another: nobody reads that. */
const leanTie = (id: string): string => `${id} follows`;

/**
 * What readings have in common, as unknowns with what is known beforehand, and what is known of the
 * leans of every carrier: how one came from the last, and what was read of each.
 */
export function causesOf(
  h: History,
  readings: readonly PlanReading[],
): { nuisances: SurveyNuisance[]; leans: Reading[]; ties: string[] } {
  const nuisances = new Map<string, SurveyNuisance>();
  for (const r of readings) {
    const scale = scaleOf(r.slot.instrument, r.instrument);
    if (scale) nuisances.set(scale, scaleCause(scale));
    if (r.seat) nuisances.set(r.seat, seatCause(r.seat, r.slot.seat!.sigmaMm));
    if (r.slot.wall) {
      const { out, turn } = wallCauses(r.slot.wall.id);
      const { outMm, turnRad } = wallSigmas(r.slot.wall);
      // A wall that is drawn amiss is off like a reading, for all that are read to it.
      nuisances.set(out, { id: out, value: 0, unit: "mm", sigma: outMm, maySlip: true });
      nuisances.set(turn, { id: turn, value: 0, unit: "rad", sigma: turnRad });
    }
  }
  const toe = h.onThrust || readings.some((r) => GOES_WITH_TOE.has(r.slot.instrument));
  if (toe) for (const id of [TOE_LEFT, TOE_RIGHT]) nuisances.set(id, toeCause(id, h.toeSigma));
  const leans: Reading[] = [];
  const ties: string[] = [];
  for (const [carrier, list] of h.leans)
    for (const part of ["pitch", "roll"] as const) {
      let value = 0;
      list.forEach((l, k) => {
        const id = leanCause(carrier, part, k);
        const { shift, sigma } = l[part];
        value += shift;
        nuisances.set(id, { id, value, unit: "rad", ...(k === 0 ? { sigma } : {}) });
        if (k > 0) {
          const minus = leanCause(carrier, part, k - 1);
          ties.push(leanTie(id));
          leans.push({ id: leanTie(id), kind: "cause", of: id, minus, value: shift, sigma });
        }
        for (const { against, ...r } of l[part].readings) {
          if (against) nuisances.set(against.id, { ...against, value: 0, unit: "rad" });
          leans.push({ ...r, kind: "cause", of: id, ...(against ? { minus: against.id } : {}) });
        }
      });
    }
  return { nuisances: [...nuisances.values()], leans, ties };
}

/** Every reading of a lean, by its name. */
export const leanReadings = (h: History): string[] =>
  [...h.leans.values()]
    .flat()
    .flatMap((l) => [...l.pitch.readings, ...l.roll.readings].map((r) => r.id));
