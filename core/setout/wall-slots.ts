import { vehiclePoints, type VehiclePointId } from "@/core/vehicle";
import { nominalTarget, type SetOutPlan } from "./plan";
import { asIs, inPlan, type Slot } from "./slot";
import { compose } from "./stand";
import { sideWord, standsOf, thingOf, waysOf } from "./thing";
import {
  BAY,
  ROUGH_MM,
  wallCauses,
  wallEnds,
  type BayWalls,
  type ReadWall,
  type WallPlace,
} from "./walls";

/** A wall this much askew to the way one measures is no wall to measure to, as a cosine (20 degrees). */
const FACING = Math.cos((20 * Math.PI) / 180);
/** As near, and as far, as one measures to a wall; and so far from its ends, mm. */
const NEAR_MM = 80;
const FAR_MM = 8000;
const END_MM = 120;

type Seen = { wall: BayWalls["walls"][number]; mm: number; stationMm: number };

/** Whether something stands between two places at this height. */
function isHidden(bay: BayWalls, a: WallPlace, b: WallPlace, zMm: number): boolean {
  return bay.things.some((t) => t.fromMm <= zMm && zMm <= t.toMm && cuts(t.outline, a, b));
}

/** Whether a piece of line runs through a convex shape (Cyrus & Beck 1978). */
function cuts(outline: readonly WallPlace[], a: WallPlace, b: WallPlace): boolean {
  const area = outline.reduce((sum, [x, y], i) => {
    const [u, v] = outline[(i + 1) % outline.length]!;
    return sum + x * v - u * y;
  }, 0);
  let [enters, leaves] = [0, 1];
  for (let i = 0; i < outline.length; i++) {
    const p = outline[i]!;
    const q = outline[(i + 1) % outline.length]!;
    // Inside lies to the left of each edge of a shape that goes round to the left.
    const [nx, ny] = area > 0 ? [p[1] - q[1], q[0] - p[0]] : [q[1] - p[1], p[0] - q[0]];
    const from = nx * (a[0] - p[0]) + ny * (a[1] - p[1]);
    const along = nx * (b[0] - a[0]) + ny * (b[1] - a[1]);
    if (along === 0) {
      if (from < 0) return false;
    } else if (along > 0) enters = Math.max(enters, -from / along);
    else leaves = Math.min(leaves, -from / along);
  }
  return enters < leaves;
}

/** The nearest wall one can measure straight to from a place, that way; null where there is none. */
function wallFrom(bay: BayWalls, at: WallPlace, wayRad: number, zMm: number): Seen | null {
  const [wx, wy] = [Math.cos(wayRad), Math.sin(wayRad)];
  const seen = bay.walls.flatMap((wall): Seen[] => {
    const [dx, dy] = [wall.to[0] - wall.from[0], wall.to[1] - wall.from[1]];
    const lengthMm = Math.hypot(dx, dy);
    const [ux, uy] = [dx / lengthMm, dy / lengthMm];
    const t = (at[0] - wall.from[0]) * ux + (at[1] - wall.from[1]) * uy;
    const foot: WallPlace = [wall.from[0] + t * ux, wall.from[1] + t * uy];
    const mm = Math.hypot(foot[0] - at[0], foot[1] - at[1]);
    const toward = (foot[0] - at[0]) * wx + (foot[1] - at[1]) * wy;
    if (t < END_MM || t > lengthMm - END_MM || mm < NEAR_MM || mm > FAR_MM) return [];
    if (toward < FACING * mm || isHidden(bay, at, foot, zMm)) return [];
    return [{ wall, mm, stationMm: t - lengthMm / 2 }];
  });
  return seen.toSorted((a, b) => a.mm - b.mm)[0] ?? null;
}

const lengthOf = ({ from, to }: BayWalls["walls"][number]): number =>
  Math.hypot(to[0] - from[0], to[1] - from[1]);

/** One reading from a point straight to a wall. */
function slotTo(
  bay: BayWalls,
  { wall, mm, stationMm }: Seen,
  at: { id: string; short: string; name: string; place: string; where: string; ofVehicle?: true },
  kit: { instrument: "range" | "tape"; seconds: number },
  point: (body: string) => string,
): Slot {
  const id = `${bay.bay}.${wall.id}`;
  const { out, turn } = wallCauses(id);
  const read: ReadWall = { id, sigmaMm: bay.sigmaMm, lengthMm: lengthOf(wall) };
  const how =
    kit.instrument === "range"
      ? "Hold the rangefinder square to the wall"
      : "Swing the tape for the least";
  return {
    id: `wall-${at.id}@${id}`,
    name: `${at.name} → wall ${wall.n}`,
    short: `${at.short} → W${wall.n}`,
    act: `Measure from ${at.place} straight to wall ${wall.n}, ${at.where}. ${how}.`,
    hint: "To the bare wall: a skirting, a cable or a poster stands off it.",
    instrument: kit.instrument,
    quantity: {
      name: `the distance from ${at.place} to wall ${wall.n}`,
      dimension: "length",
      min: Math.max(20, mm - 1200),
      max: mm + 1200,
      expected: mm,
    },
    seconds: kit.seconds,
    wall: read,
    ...(at.ofVehicle ? { ofVehicle: true } : {}),
    mate: BAY,
    roughMm: ROUGH_MM,
    // The room lies to the left of a wall's way: the outline may go round either way.
    observes: inPlan((body, mate) => {
      const ends = wallEnds(wall.id);
      const left = isLeft(wall);
      return {
        kind: "offset",
        point: point(body),
        lineFrom: `${mate}.${left ? ends.from : ends.to}`,
        lineTo: `${mate}.${left ? ends.to : ends.from}`,
        causes: [
          { cause: out, per: 1 },
          { cause: turn, per: stationMm },
        ],
      };
    }),
    ...asIs,
  };
}

/** Whether the vehicle's own place lies to the left of a wall as it is drawn. */
const isLeft = ({ from, to }: BayWalls["walls"][number]): boolean =>
  (to[0] - from[0]) * (0 - from[1]) - (to[1] - from[1]) * (0 - from[0]) > 0;

const HUBS: [VehiclePointId, string, string][] = [
  ["hubFL", "fl", "front hub left"],
  ["hubFR", "fr", "front hub right"],
  ["hubRL", "rl", "rear hub left"],
  ["hubRR", "rr", "rear hub right"],
];

/**
 * Readings to the walls of the bay: from each hub out to the wall beside it, from both ends of the beam
 * to the wall behind the board, and from each end on to the wall beside it. None where nobody said where
 * the vehicle stands, or no wall is in sight.
 */
export function wallSlots(plan: SetOutPlan): Slot[] {
  const { bay, vehicle, stand, target, instruments } = plan;
  if (!bay || target.frame) return [];
  const has = (kind: string): boolean => instruments.some((i) => i.kind === kind);
  const instrument = has("range") ? "range" : has("tape") ? "tape" : null;
  if (!instrument) return [];
  const kit = { instrument, seconds: instrument === "range" ? 20 : 40 } as const;
  const points = new Map(vehiclePoints(vehicle).map((p) => [p.id, p]));
  const hubs = HUBS.flatMap(([id, key, name]) => {
    const { xMm, yMm, zMm } = points.get(id)!;
    const seen = wallFrom(bay, [xMm, yMm], yMm > 0 ? Math.PI / 2 : -Math.PI / 2, zMm);
    if (!seen) return [];
    const at = {
      id: key,
      short: key.toUpperCase(),
      name,
      place: `the ${name}`,
      where: "beside the vehicle",
    };
    return [slotTo(bay, seen, { ...at, ofVehicle: true }, kit, () => id)];
  });
  const pose = nominalTarget(plan);
  const words = waysOf(standsOf(target)).ends;
  const { thing, beam } = thingOf(target);
  const ends = (["beamL", "beamR"] as const).flatMap((end, i) => {
    const half = i === 0 ? -stand.beamHalfMm : stand.beamHalfMm;
    const { xMm, yMm } = compose(pose, { xMm: 0, yMm: half, headingRad: 0 });
    const name = `${beam} end ${sideWord(words[i]!)}`;
    const key = i === 0 ? "l" : "r";
    return (
      [
        ["behind", pose.headingRad + Math.PI],
        ["beside", pose.headingRad + (i === 0 ? -Math.PI / 2 : Math.PI / 2)],
      ] as const
    ).flatMap(([where, way]) => {
      const seen = wallFrom(bay, [xMm, yMm], way, stand.hookHeightMm);
      if (!seen) return [];
      const at = {
        id: `${where}-${key}`,
        name,
        place: `the ${name}`,
        where: `${where} the ${thing}`,
      };
      const short = `${key.toUpperCase()} ${where}`;
      return [slotTo(bay, seen, { ...at, short }, kit, (b) => `${b}.${end}`)];
    });
  });
  return [...hubs, ...ends];
}
