import { hubName, hubOf, vehiclePoints } from "@/core/vehicle";
import { centredProbability } from "./chance";
import { isByHand, sideOf } from "./hands";
import { predictedReadings } from "./next";
import { nominalTarget, wantedHeight, type SetOutPlan } from "./plan";
import { inSchool, SCHOOLS, walks, type SchoolId } from "./schools";
import type { Slot } from "./slot";
import { carrierPoints, readingSigma, slotsFor } from "./slots";
import { solveSetOut, type SetOutEntry } from "./solve";
import { BAY } from "./walls";
import { sideWord, standsOf, waysOf, type Stands } from "./thing";

/**
 * One line of a mark-out: what to measure, what it shows when the board is right, and how far it
 * may honestly be off.
 */
export type MarkOutStep = {
  slot: Slot;
  expected: number;
  /**
   * Two standard deviations of the reading on a board that stands exactly right: hubs, badges and
   * instrument.
   */
  within: number;
  /** Chance that a board nulled by the readings so far ends inside the tolerance in the plan. */
  chance: number;
  /** Standard deviations of a board nulled by the readings so far: mm, mm, rad. */
  sigma: { alongMm: number; acrossMm: number; twistRad: number };
};

/** A place on the floor, vehicle axes. */
export type FloorMark = { id: string; name: string; xMm: number; yMm: number };

export type MarkOut = {
  school: SchoolId;
  steps: MarkOutStep[];
  marks: FloorMark[];
  heightMm: number;
  /** Where a board stands about the vehicle. */
  stands: Stands;
  /** Of a floor mark: the hubs its line runs through, by the names of their marks. */
  line?: [from: string, through: string];
};

const HUBS: [string, string][] = [
  ["hubFL", "front hub left"],
  ["hubFR", "front hub right"],
  ["hubRL", "rear hub left"],
  ["hubRR", "rear hub right"],
  ["badgeF", "front badge"],
  ["badgeR", "rear badge"],
];

/** The same of a trailer: two hubs, its hitch where a vehicle has its front hubs, its end. */
const OF_TRAILERS: typeof HUBS = [
  ["hubFL", "hitch"],
  ["hubFR", "hitch"],
  ["hubRL", "trailer’s hub left"],
  ["hubRR", "trailer’s hub right"],
  ["badgeF", "hitch"],
  ["badgeR", "trailer’s end"],
];

/** The ends of what a target's carrier is drawn by, as the people at it call them. */
function endsOf(plan: SetOutPlan): { id: string; name: string; xMm: number; yMm: number }[] {
  const points = carrierPoints(plan);
  const { kind, lies } = plan.target;
  const named: Record<string, string> =
    kind === "mark"
      ? {}
      : lies === "ahead" || lies === "behind"
        ? { inL: "inner left corner", inR: "inner right corner" }
        : isByHand(plan.target)
          ? { frontIn: "inner front corner", rearIn: "inner rear corner" }
          : {
              beamL: `beam end, ${sideWord(waysOf(standsOf(plan.target)).ends[0])}`,
              beamR: `beam end, ${sideWord(waysOf(standsOf(plan.target)).ends[1])}`,
            };
  return Object.entries(named).map(([id, name]) => ({ ...points.find((p) => p.id === id)!, name }));
}

/**
 * Where things belong on the floor: the vehicle's own points as the book has them, the board and
 * its ends.
 */
export function floorMarks(plan: SetOutPlan): FloorMark[] {
  const points = new Map(vehiclePoints(plan.vehicle).map((p) => [p.id as string, p]));
  const target = nominalTarget(plan);
  const [c, s] = [Math.cos(target.headingRad), Math.sin(target.headingRad)];
  return [
    ...(plan.vehicle.furtherAxles ?? []).flatMap(({ id }) =>
      [true, false].map((left) => {
        const { xMm, yMm } = points.get(hubOf(id, left))!;
        return { id: hubOf(id, left), name: hubName(plan.vehicle, id, left), xMm, yMm };
      }),
    ),
    ...(plan.target.frame === "trailer" ? OF_TRAILERS : HUBS).map(([id, name]) => ({
      id,
      name,
      xMm: points.get(id)!.xMm,
      yMm: points.get(id)!.yMm,
    })),
    {
      id: "board",
      name: { board: "board centre", mat: "cross line", mark: plan.target.name }[plan.target.kind],
      xMm: target.xMm,
      yMm: target.yMm,
    },
    ...endsOf(plan).map(({ id, name, xMm, yMm }) => ({
      id,
      name,
      xMm: target.xMm + c * xMm - s * yMm,
      yMm: target.yMm + s * xMm + c * yMm,
    })),
  ];
}

/** The hubs a floor mark's line runs through, the one it counts from first. */
function lineOf(
  { target }: SetOutPlan,
  { from, through }: NonNullable<SetOutPlan["target"]["line"]>,
): [string, string] {
  const left = sideOf(target) > 0;
  return [hubOf(from, left), hubOf(through, left)];
}

/** What a drawing of the floor needs of a plan. */
export const floorPlan = (plan: SetOutPlan): Pick<MarkOut, "marks" | "stands" | "line"> => ({
  marks: floorMarks(plan),
  stands: standsOf(plan.target),
  ...(plan.target.line && { line: lineOf(plan, plan.target.line) }),
});

/**
 * The mark-out of one school for this vehicle, sheet and stand, before anything is measured:
 * readings in order with what they show when the board is right, and how sure one may be after
 * each.
 *
 * Uncertainty does not depend on the figures read, so it is known beforehand: the network is
 * adjusted with every reading at its expected value.
 */
export function markOut(plan: SetOutPlan, school: SchoolId): MarkOut {
  const walked = { ...plan, school };
  const there: SetOutEntry[] =
    plan.bay && SCHOOLS[school].walls ? [{ kind: "parked", id: "parked", bay: plan.bay }] : [];
  const before = solveSetOut(walked, there);
  const exact = {
    ...before,
    adjustment: {
      ...before.adjustment!,
      points: vehiclePoints(plan.vehicle).map((p) => ({ ...p, covariance: [] })),
    },
  };
  const board = before.target;
  const expected = predictedReadings(exact, board);
  const path = SCHOOLS[school].path;
  // What runs to another target is not foreseen: that one may not lie there yet.
  const slots = slotsFor(plan).filter(
    (s) => inSchool(walked, s) && (s.mate === undefined || (s.mate === BAY && there.length > 0)),
  );
  // First how the stand leans: while nobody knows, its hooks say little of its board.
  const leans = (["pitch", "roll"] as const).flatMap(
    (part) => slots.find((s) => s.observes.in === part) ?? [],
  );
  const ordered = [
    ...leans,
    ...path.flatMap((step) => slots.filter((s) => walks(step, s.id))),
    ...slots.filter((s) => !path.some((p) => walks(p, s.id)) && !leans.includes(s)),
  ];
  const entries: SetOutEntry[] = [...there];
  const hubSigma = Math.max(plan.vehicle.hubSigmaMm, plan.vehicle.badgeSigmaMm);
  return {
    school,
    ...floorPlan(plan),
    heightMm: wantedHeight(plan),
    steps: ordered.flatMap((slot): MarkOutStep[] => {
      const instrument = plan.instruments.find((i) => i.kind === slot.instrument);
      if (!instrument) return [];
      const shown = expected.get(slot.id)!;
      const sigma = readingSigma(instrument, slot, shown);
      entries.push({ kind: "reading", id: slot.id, slotId: slot.id, shown, sigma });
      const { aim, plane } = solveSetOut(walked, entries);
      const chance = plane
        ? centredProbability(
            plane.quantities.map(() => 0),
            plane.covariance,
            plane.quantities.map((q) => q.half),
          )
        : 0;
      const places = slot.observes.in === "plan" ? hubSigma : 0;
      const root = (i: number): number => (aim ? Math.sqrt(aim.covariance[i]![i]!) : Infinity);
      return [
        {
          slot,
          expected: shown,
          within: 2 * Math.hypot(sigma, places),
          chance,
          sigma: { alongMm: root(0), acrossMm: root(1), twistRad: root(2) },
        },
      ];
    }),
  };
}

export type SchoolChance = {
  school: SchoolId;
  chance: number;
  readings: number;
  seconds: number;
  /** Standard deviations of a board nulled by them: mm, mm, rad. */
  sigma: { alongMm: number; acrossMm: number; twistRad: number };
};

/**
 * How sure each school's whole path makes one, best first: what to choose before the first tape.
 */
export const schoolChances = (plan: SetOutPlan, schools: readonly SchoolId[]): SchoolChance[] =>
  schools
    .filter((s) => s !== "free")
    .map((school) => {
      const steps = markOut(plan, school).steps.filter((s) => s.slot.observes.in === "plan");
      const last = steps.at(-1);
      return {
        school,
        chance: last?.chance ?? 0,
        readings: steps.length,
        seconds: steps.reduce((t, s) => t + s.slot.seconds, 0),
        sigma: last?.sigma ?? { alongMm: Infinity, acrossMm: Infinity, twistRad: Infinity },
      };
    })
    .sort((a, b) => b.chance - a.chance);
