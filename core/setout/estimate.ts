import { adjustNetwork, SurveyError, type Adjustment, type SurveyNetwork } from "@/core/survey";
import { degToRad } from "@/core/units";
import { hubCovariance, vehiclePoints, type Vehicle } from "@/core/vehicle";
import {
  bodiesOf,
  causesOf,
  leanReadings,
  readingsOf,
  tiesOf,
  type History,
  type PlanReading,
} from "./history";
import { wallCauses } from "./walls";

/** What a setup's history says of everything in it at once. */
export type Estimate = {
  network: SurveyNetwork;
  adjustment: Adjustment | null;
  /** The reading at fault where nothing solves; null where no one reading is. */
  culprit: string | null;
  /** Disturbances that did not end where they were told to, by the body they lead to. */
  missed: string[];
  /** Readings under suspicion, likeliest first. */
  suspects: string[];
};

/** How surely a disturbance that did not hold still says where its carrier went. */
const LOOSE = { sigma: 100, sigmaRad: degToRad(5) };
/**
 * A disturbance has three parts, a reading one: it must explain a contradiction better by this much
 * of chi-square (95 % of the two degrees of freedom more) before it is preferred.
 */
const HANDICAP = 5.99;
/** Below this chance of chi-square the readings contradict each other or a disturbance. */
const CONTRADICTED = 1e-3;

/**
 * Adjusts the history as one network: vehicle points with their book prior, once; every epoch of
 * every carrier, tied to the one before; every reading in its own epoch.
 *
 * Where the readings contradict each other, each disturbance is asked whether it is to blame: hands
 * miss, and stands are knocked unseen. One that explains the contradiction better than any single
 * reading is let go, and the readings after it say where its carrier stands.
 *
 * @param vehicle whose points the readings use, mm
 * @param readings those that count; all of the history's when not given
 */
export function estimate(
  h: History,
  vehicle: Vehicle,
  readings: readonly PlanReading[] = h.readings,
): Estimate {
  const points = vehiclePoints(vehicle).map(({ id, xMm, yMm, sigmaMm }) => ({
    id,
    xMm,
    yMm,
    sigmaMm,
  }));
  const bodies = bodiesOf(h);
  const read = readingsOf(readings);
  const { nuisances, leans, ties } = causesOf(h, readings);
  const priors = [hubCovariance(vehicle)];
  const missed: string[] = [];
  const networkNow = (): SurveyNetwork => ({
    points,
    bodies,
    nuisances,
    priors,
    observations: [
      ...read,
      ...leans,
      ...tiesOf(h).map((t) => (missed.includes(t.to) ? { ...t, ...LOOSE } : t)),
    ],
  });
  try {
    let network = networkNow();
    let adjustment = adjustNetwork(network);
    for (let n = 0; n < tiesOf(h).length && contradicted(adjustment); n++) {
      const better = blame(h, network, adjustment, missed, ties);
      if (better === null) break;
      missed.push(better);
      network = networkNow();
      adjustment = adjustNetwork(network);
    }
    const own = new Set([...read.map((r) => r.id), ...leanReadings(h)]);
    // A seating under suspicion is as much as every reading through it.
    const suspects = [
      ...new Set(
        adjustment.suspectGroup.flatMap((id) =>
          own.has(id) ? [id] : readings.filter((r) => isThrough(r, id)).map((r) => r.id),
        ),
      ),
    ];
    return { network, adjustment, culprit: null, missed, suspects };
  } catch (error) {
    if (!(error instanceof SurveyError)) throw error;
    return {
      network: networkNow(),
      adjustment: null,
      culprit: error.culprit,
      missed: [],
      suspects: [],
    };
  }
}

/** Whether a reading goes through a seating, or to a wall, that may be off. */
const isThrough = ({ seat, slot }: PlanReading, cause: string): boolean =>
  seat === cause || (slot.wall !== undefined && wallCauses(slot.wall.id).out === cause);

const contradicted = (a: Adjustment): boolean => a.suspect !== null || a.chiSquare.p < CONTRADICTED;

/**
 * The disturbance that explains a contradiction better than any single reading: the body it leads
 * to, or null.
 */
function blame(
  h: History,
  network: SurveyNetwork,
  now: Adjustment,
  missed: readonly string[],
  leans: readonly string[],
): string | null {
  const ties = tiesOf(h);
  const tied = new Set([...ties.map((t) => t.id), ...leans]);
  const worst = Math.max(
    0,
    ...now.residuals.filter((r) => !tied.has(r.id.split("/")[0]!)).map((r) => r.w ** 2),
  );
  let best: { body: string; drop: number } | null = null;
  for (const tie of ties) {
    // What merely stayed where it was while the vehicle moved was not touched.
    if (tie.motion || missed.includes(tie.to)) continue;
    const observations = network.observations.map((o) =>
      o.id === tie.id ? { ...tie, ...LOOSE } : o,
    );
    const drop = now.chiSquare.value - adjustNetwork({ ...network, observations }).chiSquare.value;
    if (drop > worst + HANDICAP && drop > (best?.drop ?? 0)) best = { body: tie.to, drop };
  }
  return best?.body ?? null;
}
