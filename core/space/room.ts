import { looksOf } from "@/core/drive/look";
import type { BayFloor } from "@/core/ready";
import { archPlace, CORNERS, type Vehicle } from "@/core/vehicle";
import type { Bay } from "./bay";
import { gapMm, type Convex, type Vec } from "./convex";
import { placed, type Pose, type Zone } from "./fit";
import { floorGrid, floorRule, floorSurface, floorThere, type FloorThere } from "./level";
import { beamOf, type Light } from "./light";
import { isGood, placesFor, type Need, type Place } from "./places";
import { needFor, vehicleZone, type Room } from "./zones";

/** What one calibration asks of a bay: room, and a floor within limits where its sheet says some. */
export type RoomAsk = {
  name: string;
  system: string;
  room: Room;
  floor: { slopeDeg: number; twistMm: number } | null;
};

export type RoomFound = Place & {
  /** The floor under the vehicle and its targets there; null where it was not surveyed. */
  floor: FloorThere | null;
  /** Lights that stand in a camera's look there, and are to be put off or covered. */
  cover: string[];
  /** What stands in a camera's look wherever there is room, and can not be covered: it hinders. */
  seen: string[];
};

/** Whether all of it fits there: room, floor, and nothing that a camera minds. */
export const isRoomy = (found: RoomFound): boolean => isGood(found) && found.seen.length === 0;

/** Cameras that look no farther down than this mind what stands behind a target, degrees. */
const LEVEL_DEG = 20;
/** Half of what a camera minds of the room behind its target, degrees. */
const MINDS_DEG = 22;
/** A light this far away still falls into a lens; a likeness only about where targets stand. */
const LIGHT_MM = 12_000;
const BEHIND_MM = 1500;
/** Where a camera usually sits behind the front of a vehicle, mm. */
const BEHIND_FRONT_MM = 1400;

/** Where the cameras of a system look, as parts of the floor in the vehicle's own frame. */
function looksAbout(v: Vehicle, { name, system, room }: RoomAsk): Zone[] {
  const front = v.wheelbaseMm + v.frontOverhangMm;
  const most = 1000 * Math.max(room.ahead, room.behind, room.sides);
  return looksOf(system)
    .filter((l) => l.downDeg <= LEVEL_DEG)
    .flatMap(({ turnDeg }): Zone[] => {
      const turn = (turnDeg * Math.PI) / 180;
      const back = Math.abs(turnDeg) > 150;
      const ahead = Math.abs(turnDeg) < 30;
      const x = ahead ? front - BEHIND_FRONT_MM : back ? front - v.lengthMm : v.wheelbaseMm / 2;
      const eye: Vec = [x, ahead || back ? 0 : (Math.sign(turnDeg) * v.widthMm) / 2];
      const half = (MINDS_DEG * Math.PI) / 180;
      const look = (far: number): Convex => [
        eye,
        ...[-half, half].map((a): Vec => [
          eye[0] + far * Math.cos(turn + a),
          eye[1] + far * Math.sin(turn + a),
        ]),
      ];
      const zone = (minds: "light" | "likeness", far: number): Zone => ({
        name: `what the camera of ${name} sees`,
        shape: look(far),
        fromMm: 0,
        toMm: 3000,
        eye: { at: eye, minds },
      });
      return [
        zone("light", LIGHT_MM),
        zone("likeness", most + (ahead ? BEHIND_FRONT_MM : 0) + BEHIND_MM),
      ];
    });
}

/** Where targets about stand, in the vehicle's own frame: at the far end of the room they have. */
function targetsOf(v: Vehicle, { room }: RoomAsk): Vec[] {
  const front = v.wheelbaseMm + v.frontOverhangMm;
  const inset = 500;
  const at: Vec[] = [];
  if (room.ahead > 1) at.push([front + room.ahead * 1000 - inset, 0]);
  if (room.behind > 1) at.push([front - v.lengthMm - room.behind * 1000 + inset, 0]);
  return at;
}

const without = (bay: Bay): Bay => ({ ...bay, lights: bay.lights.filter((l) => !l.covers) });

/**
 * Where all that is asked fits into a bay: first with every light as it is; where that is nowhere, with
 * those put off or covered that can be.
 *
 * @param whether only that it fits is asked, and at how many places: which are the roomiest is not
 */
export function roomIn(
  bay: Bay,
  v: Vehicle,
  asks: readonly RoomAsk[],
  whether = false,
): RoomFound[] {
  const surface = floorSurface(bay);
  const grid = surface && floorGrid(bay, surface);
  const needs = asks.map((ask): Need => {
    const need = needFor(v, ask.name, ask.room);
    const targets = targetsOf(v, ask);
    return {
      ...need,
      zones: [...need.zones, ...looksAbout(v, ask)],
      floor: grid && ask.floor ? floorRule(grid, v, { ...ask.floor, targets }) : null,
    };
  });
  const asIs = placesFor(bay, vehicleZone(v), needs, whether);
  const fine = asIs.length === 1 && isGood(asIs[0]!) && asIs[0]!.needs.length === needs.length;
  // A bay that has nothing to cover, or nothing that a camera minds, is not searched for it again.
  const covers = bay.lights.some((l) => l.covers);
  let places =
    fine || !covers ? asIs : fewer(asIs, placesFor(without(bay), vehicleZone(v), needs, whether));
  // Where only a look hinders, the best place is one with room, not one half into a wall.
  const blind = needs.map((n) => ({ ...n, zones: n.zones.filter((z) => !z.eye) }));
  const minded = bay.lights.length + bay.likenesses.length > 0;
  const roomy =
    places.every(isGood) || !minded ? null : placesFor(bay, vehicleZone(v), blind, whether);
  if (roomy?.every(isGood))
    places = roomy.map((p) => ({
      ...p,
      zones: [vehicleZone(v), ...needs.flatMap((n) => (p.needs.includes(n.name) ? n.zones : []))],
    }));
  return places.map((p) => {
    const own = asks.filter((a) => p.needs.includes(a.name));
    const targets = own.flatMap((a) => targetsOf(v, a));
    return {
      ...p,
      floor: grid ? floorThere(grid, v, targets, p.fit.pose) : null,
      cover: seenBy(
        p,
        "light",
        bay.lights.filter((l) => l.covers),
      ),
      seen: isGood(p)
        ? [
            ...seenBy(
              p,
              "light",
              bay.lights.filter((l) => !l.covers),
            ),
            ...seenBy(p, "likeness", bay.likenesses),
          ]
        : [],
    };
  });
}

/** More single things than these are not tried out one after another. */
const MOST_TRIED = 16;

/**
 * Single things of a bay without which all that is asked would fit, where it does not: one of them has to
 * be moved, covered or done without. Whether it can be is for those who know it.
 */
export function roomWithout(bay: Bay, v: Vehicle, asks: readonly RoomAsk[]): string[] {
  const fits = (of: Bay): boolean => roomIn(of, v, asks, true).every(isRoomy);
  const bare = { ...bay, obstacles: [], lights: [], likenesses: [] };
  if (fits(bay) || !fits(bare)) return [];
  const but = <T>(list: readonly T[], i: number): T[] => list.filter((_, k) => k !== i);
  const tried: [string, Bay][] = [
    ...bay.obstacles.map((o, i): [string, Bay] => [
      o.name,
      { ...bay, obstacles: but(bay.obstacles, i) },
    ]),
    ...bay.likenesses.map((l, i): [string, Bay] => [
      l.name,
      { ...bay, likenesses: but(bay.likenesses, i) },
    ]),
    ...bay.lights.map((l, i): [string, Bay] => [l.name, { ...bay, lights: but(bay.lights, i) }]),
  ];
  return tried.slice(0, MOST_TRIED).flatMap(([name, of]) => (fits(of) ? [name] : []));
}

/** What has all of it at fewer places, or has it at all. */
function fewer(a: Place[], b: Place[]): Place[] {
  const all = (of: Place[]): boolean => of.every(isGood);
  if (all(a) && all(b)) return b.length < a.length ? b : a;
  return all(a) ? a : b;
}

/** What of these falls into a lens at a place. */
function seenBy(
  { zones, fit }: Place,
  minds: "light" | "likeness",
  pieces: readonly (Pick<Light, "from" | "to"> & Partial<Light> & { name: string })[],
): string[] {
  const eyes = zones.filter((z) => z.eye?.minds === minds);
  return pieces.flatMap((l) => {
    const beam = minds === "light" ? beamOf({ towardDeg: null, spreadDeg: null, ...l }) : null;
    const falls = eyes.some(
      (z) =>
        gapMm(placed(z.shape, fit.pose), [l.from, l.to]) < 0 &&
        (!beam || gapMm(placed([z.eye!.at], fit.pose), beam) < 0),
    );
    return falls ? [l.name] : [];
  });
}

/** Half of the beam of a stand, mm: the two feet that are read. */
const FEET_MM = [350, -350] as const;

/**
 * The floor of a bay as a rule would read it where a vehicle stands; null where it was not surveyed.
 *
 * @param standXMm how far ahead of the rear axle the stand is
 */
export function floorAtPose(bay: Bay, v: Vehicle, pose: Pose, standXMm: number): BayFloor | null {
  const surface = floorSurface(bay);
  if (!surface) return null;
  const at = (xMm: number, yMm: number) => {
    const [[x, y]] = placed([[xMm, yMm]], pose) as [Vec];
    return { xMm, yMm, ruleMm: Math.round(-10 * surface.heightAt(x, y)) / 10 };
  };
  return {
    bay: bay.name,
    readAt: `${bay.floor!.on}T12:00:00.000Z`,
    tyres: CORNERS.map((c) => {
      const { xMm, yMm } = archPlace(v, c);
      return at(xMm, yMm);
    }),
    stand: FEET_MM.map((yMm) => at(standXMm, yMm)),
  };
}
