import { gaussian, randomFrom, seedFrom, type Random } from "@/core/math/random";
import {
  datumFrame,
  datumLine,
  readingSigma,
  seatSigma,
  slotsFor,
  TOUCHES,
  wantedRail,
  withBooster,
  type Move,
  type PlanPose,
  type BayWalls,
  type SetOutPlan,
  type TouchKind,
} from "@/core/setout";
import { installFloorSlots } from "@/core/setout/floor-slots";
import { targetPose } from "@/core/setout/plan";
import { baseFor } from "@/core/setout/stand";
import { degToRad } from "@/core/units";
import { vehiclePoints, type RearToe } from "@/core/vehicle";
import {
  drawn,
  layDown,
  matReading,
  seenFrom,
  shoved,
  type MatBody,
  type MatShape,
} from "./mat-sim";
import type { Trouble } from "../vehicle/trouble";
import { schoolReading } from "./school-readings";
import { boardOf, carryOut, pointOf, type StandBody } from "./stand-sim";

installFloorSlots();

/**
 * A simulated bay: one vehicle and one stand with a true pose nobody sees, instruments with noise,
 * hands that do not move things exactly as asked. Everything is a pure function of the seed and of
 * what was done, so the same job always lives in the same world.
 */
export type BenchWorld = {
  seed: string;
  plan: SetOutPlan;
  /** Where this very vehicle's hubs and badges truly are. */
  points: { id: string; xMm: number; yMm: number; zMm: number }[];
  stand: StandBody;
  /** How far to vehicle left of its beam's middle the board truly hangs, mm; 0 on a stand alone. */
  railMm: number;
  /** A mat as it truly lies; null where a stand carries the target. */
  mat: MatBody | null;
  /**
   * The floor: slopes under the car (rad), twist of its tyre patches, how much higher the stand's
   * own floor lies (mm).
   */
  floor: { aheadRad: number; leftRad: number; twistMm: number; stepMm: number };
  /** How the rear wheels of this very vehicle truly point, toe-in positive. */
  toe: RearToe;
  /** What the shop's tape shows too much, as a share. */
  tapeScale: number;
  /** How the repair left the camera: turn about its own axes, radians. */
  cameraRad: { yaw: number; pitch: number; roll: number };
  /** How the body stands off its book while the cameras look; as the book has it where it is not said. */
  stance?: { heaveMm: number; pitchRad: number; rollRad: number };
  /**
   * How the bay truly lies about the vehicle, where it was said to stand in one: off from what was said,
   * with walls off from their drawing.
   */
  bay?: BayTruth;
  /** What disturbs the look of its cameras; nothing where it is not there. */
  trouble?: Trouble;
};

/** What happens in a bay. */
export type BayAct =
  | { id: string; kind: "move"; move: Move }
  | { id: string; kind: "touch"; touch: TouchKind }
  /** Somebody walks into the stand and says nothing. */
  | { id: string; kind: "bump" };

/** How far out the stand is when it was rolled in by eye. */
const ROLLED_IN = { alongMm: 45, acrossMm: 30, twistRad: degToRad(1.1), heightMm: 18, tiltMm: 2 };
/** What a stand leans that nobody levels: a foot on a joint of the floor, mm. */
const CASTORS_MM = 1;
/** What the hubs of a vehicle have in common, and the tape, standard deviations. */
const COMMON = { capsMm: 1.5, frontAxleMm: 1.2, tapeScale: 3e-4 };

/** The bay as the stand was just rolled in. */
export function openBay(seed: string, plan: SetOutPlan): BenchWorld {
  const random = randomFrom(seedFrom(`${seed}/bay`));
  const common = randomFrom(seedFrom(`${seed}/common`));
  const caps = { front: COMMON.capsMm * gaussian(common), rear: COMMON.capsMm * gaussian(common) };
  let axleMm = COMMON.frontAxleMm * gaussian(common);
  const { provisional } = plan.vehicle;
  if (provisional) {
    // Somebody taped it: the true car is off from that.
    const taped = randomFrom(seedFrom(`${seed}/taped`));
    axleMm += provisional.wheelbaseSigmaMm * gaussian(taped);
    caps.front += (provisional.trackSigmaMm / 2) * gaussian(taped);
    caps.rear += (provisional.trackSigmaMm / 2) * gaussian(taped);
  }
  const points = vehiclePoints(plan.vehicle).map((p) => {
    const hub = /^hub([FR])([LR])$/.exec(p.id);
    const front = hub?.[1] === "F";
    const out = hub ? (front ? caps.front : caps.rear) : 0;
    const noise = /^(mark|axle)-/.test(p.id) ? randomFrom(seedFrom(`${seed}/${p.id}`)) : random;
    return {
      id: p.id,
      xMm: p.xMm + (front ? axleMm : 0) + p.sigmaMm * gaussian(noise),
      yMm: p.yMm + (hub?.[2] === "L" ? out : -out) + p.sigmaMm * gaussian(noise),
      zMm: p.zMm,
    };
  });
  const target = targetPose(plan.target, datumLine(datumFrame(plan), points));
  // Away from zero on purpose: nobody rolls a stand in to the millimetre.
  const off = (size: number): number => (random() < 0.5 ? -1 : 1) * size * (0.7 + 0.6 * random());
  const c = Math.cos(target.headingRad);
  const s = Math.sin(target.headingRad);
  const [dx, dy] = [off(ROLLED_IN.alongMm), off(ROLLED_IN.acrossMm)];
  const board: PlanPose = {
    xMm: target.xMm + c * dx - s * dy,
    yMm: target.yMm + s * dx + c * dy,
    headingRad: target.headingRad + off(ROLLED_IN.twistRad),
  };
  const zero = plan.stand.joints.map(() => 0);
  const left = randomFrom(seedFrom(`${seed}/adjusters`));
  // Whoever used it last left its adjusters anywhere; at their marks it stands where it was rolled to.
  const joints = plan.stand.joints.map(
    (j) => (j.kind === "yaw" ? j.limitRad : j.limitMm) * 0.6 * (2 * left() - 1),
  );
  const toleratesTilt = plan.target.tolerance.pitchDeg === undefined;
  const floor = randomFrom(seedFrom(`${seed}/lean/${plan.stand.id}`));
  return {
    seed,
    plan,
    points,
    stand: {
      base: baseFor(plan.stand, board, { joints: zero }),
      joints,
      booster: plan.stand.fitted?.id ?? null,
      feetMm: plan.stand.feet.map(() =>
        toleratesTilt ? CASTORS_MM * gaussian(floor) : ROLLED_IN.tiltMm * gaussian(random),
      ),
      // Nobody cranks beyond the end of the screw.
      mastMm: Math.min(
        plan.stand.crank.maxMm,
        Math.max(plan.stand.crank.minMm, plan.target.placement.heightMm + off(ROLLED_IN.heightMm)),
      ),
    },
    railMm: plan.target.beam ? wantedRail(plan.target) + slipOnRail(seed, plan) : 0,
    mat: plan.target.kind !== "board" ? laidByEye(seed, plan, target) : null,
    tapeScale: COMMON.tapeScale * gaussian(common),
    toe: plan.rearToe ?? hiddenToe(randomFrom(seedFrom(`${seed}/toe`))),
    floor: bayFloor(randomFrom(seedFrom(`${seed}/floor`))),
    cameraRad: {
      yaw: degToRad(0.35) * gaussian(random),
      pitch: degToRad(0.3) * gaussian(random),
      roll: degToRad(0.2) * gaussian(random),
    },
  };
}

/** A board is hung on the rail about where its figure is. */
const slipOnRail = (seed: string, { target }: SetOutPlan): number =>
  12 * gaussian(randomFrom(seedFrom(`${seed}/rail/${target.id}`)));

/** A mat laid by eye: a hand's breadth off, and not quite along the car. */
function laidByEye(seed: string, { target }: SetOutPlan, wanted: PlanPose): MatBody {
  const random = randomFrom(seedFrom(`${seed}/mat/${target.id}`));
  const off = (size: number): number => (random() < 0.5 ? -1 : 1) * size * (0.7 + 0.6 * random());
  const [ahead, left, turn] = [off(55), off(45), off(degToRad(1.2))];
  // A cross has no heading to be off by.
  const turned = target.kind === "mark" ? 0 : turn;
  return layDown(wanted.xMm + ahead, wanted.yMm + left, wanted.headingRad + turned);
}

/** A mat's size as its label has it. */
export function shapeOf({ kind, object, placement, lies, line }: SetOutPlan["target"]): MatShape {
  const left = kind === "mark" ? object.side === "left" : placement.acrossMm >= 0;
  const hub = (axle: string, onLeft: boolean): string => {
    const side = onLeft ? "L" : "R";
    if (axle === "front" || axle === "rear") return `hub${axle === "front" ? "F" : "R"}${side}`;
    return `axle-${axle}-${side}`;
  };
  return {
    aheadMm: object.aheadMm ?? 0,
    lengthMm: object.lengthMm ?? 0,
    widthMm: object.widthMm,
    side: left ? 1 : -1,
    lies: lies ?? "beside",
    ...(line && {
      line: {
        from: hub(line.from, left),
        through: hub(line.through, left),
        across: hub(line.from, !left),
        ahead: placement.alongMm >= 0,
      },
    }),
  };
}

/** A workshop floor: it drains a little, and is never quite flat. */
const bayFloor = (random: Random): BenchWorld["floor"] => ({
  aheadRad: degToRad(0.12) * gaussian(random),
  leftRad: degToRad(0.08) * gaussian(random),
  twistMm: 1.2 * gaussian(random),
  stepMm: 3 * gaussian(random),
});

/**
 * Nobody has printed it out, but the wheels point somewhere: toe-in as made, and a little off on
 * each side.
 */
const hiddenToe = (random: Random): RearToe => ({
  leftRad: degToRad(0.1 + 0.1 * gaussian(random)),
  rightRad: degToRad(0.1 + 0.1 * gaussian(random)),
});

function shove(
  world: BenchWorld,
  random: Random,
  planMm: number,
  headingRad: number,
  heightMm: number,
): BenchWorld {
  const { base, mastMm } = world.stand;
  if (world.mat)
    return {
      ...world,
      mat: shoved(
        world.mat,
        planMm * gaussian(random),
        planMm * gaussian(random),
        headingRad * gaussian(random),
      ),
    };
  return {
    ...world,
    stand: {
      ...world.stand,
      base: {
        xMm: base.xMm + planMm * gaussian(random),
        yMm: base.yMm + planMm * gaussian(random),
        headingRad: base.headingRad + headingRad * gaussian(random),
      },
      mastMm: mastMm + heightMm * gaussian(random),
    },
  };
}

/**
 * The car is moved and everything else stays: in the car's own axes all of the bay goes the other
 * way, as one piece, about where the car was.
 */
function moveCar(before: BenchWorld, random: Random, mm: number, rad: number): BenchWorld {
  const [dx, dy, turn] = [mm * gaussian(random), mm * gaussian(random), rad * gaussian(random)];
  const bay = before.bay && { ...before.bay, pose: goneBy(before.bay.pose, dx, dy, turn) };
  const world = bay ? { ...before, bay } : before;
  if (world.mat) return { ...world, mat: seenFrom(world.mat, dx, dy, turn) };
  const base = goneBy(world.stand.base, dx, dy, turn);
  return { ...world, stand: { ...world.stand, base } };
}

/** What stays in the bay, seen from a car that went so far and turned. */
function goneBy(base: PlanPose, dx: number, dy: number, turn: number): PlanPose {
  const [x, y] = [base.xMm - dx, base.yMm - dy];
  return {
    xMm: x * Math.cos(turn) + y * Math.sin(turn),
    yMm: y * Math.cos(turn) - x * Math.sin(turn),
    headingRad: base.headingRad - turn,
  };
}

/** How near a car truly comes to the marks it is said to stand on. */
const BROUGHT = { planMm: 25, headingRad: degToRad(0.5) };

export type BayTruth = {
  pose: PlanPose;
  /** Ends of each wall in the bay's own axes, mm. */
  walls: Map<string, readonly [{ x: number; y: number }, { x: number; y: number }]>;
};

/**
 * The vehicle was said to stand in a bay: it truly stands a little elsewhere, and no wall is quite where
 * it was drawn.
 */
export function parkIn(world: BenchWorld, bay: BayWalls, id: string): BenchWorld {
  const random = randomFrom(seedFrom(`${world.seed}/parked/${id}`));
  const pose = {
    xMm: BROUGHT.planMm * gaussian(random),
    yMm: BROUGHT.planMm * gaussian(random),
    headingRad: BROUGHT.headingRad * gaussian(random),
  };
  const walls = new Map(
    bay.walls.map((w) => {
      const built = randomFrom(seedFrom(`${bay.bay}/${w.id}`));
      const long = Math.hypot(w.to[0] - w.from[0], w.to[1] - w.from[1]);
      const [nx, ny] = [(w.from[1] - w.to[1]) / long, (w.to[0] - w.from[0]) / long];
      const end = ([x, y]: readonly [number, number]) => {
        const off = bay.sigmaMm * gaussian(built);
        return { x: x + off * nx, y: y + off * ny };
      };
      return [w.id, [end(w.from), end(w.to)] as const];
    }),
  );
  return { ...world, bay: { pose, walls } };
}

/** From a place straight to a wall: twice the area of the triangle with its ends, over its length. */
function offWall({ bay }: BenchWorld, wallId: string, x: number, y: number): number {
  const ends = bay?.walls.get(wallId);
  if (!bay || !ends) throw new Error(`No wall "${wallId}" about this vehicle.`);
  const { pose } = bay;
  const [c, s] = [Math.cos(pose.headingRad), Math.sin(pose.headingRad)];
  const [a, b] = ends.map((p) => ({
    x: pose.xMm + c * p.x - s * p.y,
    y: pose.yMm + s * p.x + c * p.y,
  })) as [{ x: number; y: number }, { x: number; y: number }];
  const area = a.x * (b.y - y) + b.x * (y - a.y) + x * (a.y - b.y);
  return Math.abs(area) / Math.hypot(a.x - b.x, a.y - b.y);
}

/** How near a car comes to where the last one stood, on the same marks. */
const DRIVEN = { planMm: 20, headingRad: degToRad(0.3) };

/**
 * Another car was driven to the same marks, before a stand that still stands as it was left: seen from
 * this car, all of it stands a little elsewhere.
 */
export function beforeNextCar(
  world: BenchWorld,
  stand: BenchWorld["stand"],
  seed: string,
): BenchWorld {
  const random = randomFrom(seedFrom(`${seed}/driven`));
  return moveCar({ ...world, stand }, random, DRIVEN.planMm, DRIVEN.headingRad);
}

/** A bay of this name has a smooth floor: whoever hangs a board there shoves its stand so many mm away. */
const SHOVES = /^shoves-(\d+)/;

/** The stand is pushed straight away from the car. */
function pushed(world: BenchWorld, mm: number): BenchWorld {
  const { base } = world.stand;
  const [c, s] = [Math.cos(base.headingRad), Math.sin(base.headingRad)];
  const moved = { ...base, xMm: base.xMm - mm * c, yMm: base.yMm - mm * s };
  return { ...world, stand: { ...world.stand, base: moved } };
}

/**
 * The bay after one act. Hands miss a move by about one per cent and disturb a little on the way.
 */
export function act(world: BenchWorld, what: BayAct): BenchWorld {
  const random = randomFrom(seedFrom(`${world.seed}/act/${what.id}`));
  if (what.kind === "move" && what.move.kind === "draw") {
    const share = 1 + 0.02 * gaussian(random);
    const mat = world.mat && drawn(world.mat, shapeOf(world.plan.target), what.move, share);
    return what.move.end === "mark"
      ? shove({ ...world, mat }, random, 1, 0, 0)
      : shove({ ...world, mat }, random, 1.5, degToRad(0.03), 0);
  }
  if (what.kind === "move" && what.move.kind === "rail") {
    const railMm = world.railMm + what.move.leftMm * (1 + 0.01 * gaussian(random));
    return shove({ ...world, railMm }, random, 0.2, degToRad(0.01), 0);
  }
  if (what.kind === "move") {
    const moved = {
      ...world,
      stand: carryOut(world.plan.stand, world.stand, what.move, 1 + 0.01 * gaussian(random)),
    };
    if (what.move.kind === "booster") return shove(moved, random, 4, degToRad(0.2), 1);
    // Play that was taken up as told leaves a little of itself behind.
    const left = 0.15 * ("playMm" in what.move ? (what.move.playMm ?? 0) : 0);
    return shove(
      moved,
      random,
      0.4 + left,
      degToRad(0.015),
      what.move.kind === "crank" ? 0.5 + left : 0,
    );
  }
  if (what.kind === "bump") {
    const { base } = world.stand;
    const side = random() < 0.5 ? -1 : 1;
    if (world.mat) return { ...world, mat: shoved(world.mat, 40, side * 30, side * 0.02) };
    return {
      ...world,
      stand: {
        ...world.stand,
        base: {
          xMm: base.xMm + 70 + 20 * random(),
          yMm: base.yMm + side * 45,
          headingRad: base.headingRad + side * degToRad(1.5),
        },
      },
    };
  }
  const w = TOUCHES[what.touch].widening;
  const byMm = SHOVES.exec(world.seed)?.[1];
  if (what.touch === "hung" && byMm && !world.mat) return pushed(world, Number(byMm));
  if (what.touch === "moved-car") return moveCar(world, random, 0.5 * w.planMm, 0.5 * w.headingRad);
  return shove(
    world,
    random,
    0.5 * w.planMm,
    0.5 * w.headingRad,
    what.touch === "cranked" ? 4 : 0.3 * w.heightMm,
  );
}

/**
 * What an instrument shows at a slot, with its own noise; `nth` is how many times this slot was
 * read before. Tapes run in space from hub to hook, so the figure is the slant length, as on a real
 * tape.
 *
 * @param mate the bay with the other mat, for tapes between the two
 * @param seating how often what the reading goes through was seated anew before
 */
export function measure(
  world: BenchWorld,
  slotId: string,
  nth: number,
  mate: BenchWorld | null = null,
  seating = 0,
): number {
  const slot = slotsFor(world.plan).find((s) => s.id === slotId);
  const instrument = world.plan.instruments.find((i) => i.kind === slot?.instrument);
  if (!slot || !instrument) throw new Error(`No instrument in this bay reads "${slotId}".`);
  const truth = trueReading(world, slotId, mate);
  // Two mats, or two boards, are read with the same slots, and not with the same noise.
  const { id, kind, beam } = world.plan.target;
  const at = kind !== "board" || beam ? `${id}/` : "";
  const random = randomFrom(seedFrom(`${world.seed}/read/${at}${slotId}/${nth}`));
  const seat = slot.seat
    ? seatSigma(slot.seat) *
      gaussian(randomFrom(seedFrom(`${world.seed}/seat/${slot.seat.id}/${seating}`)))
    : 0;
  return truth + seat + readingSigma(instrument, slot, truth) * gaussian(random);
}

/**
 * What is read otherwise at a board that stands behind the vehicle or beside it: its beam's ends are
 * told apart by where they truly are, its laser by where the light crosses what it is read at. Null
 * for what is the same wherever a board stands.
 */
function aboutReading(world: BenchWorld, slotId: string): number | null {
  const { stand, target } = world.plan;
  const board = boardOf(stand, world.stand);
  const place = (id: string) => world.points.find((p) => p.id === id)!;
  const hooks = [-1, 1].map((side) =>
    pointOf(stand, world.stand, side * stand.beamHalfMm, stand.hookHeightMm),
  );
  const beside = target.stands !== "behind";
  // What is farther forward, or farther to vehicle left, comes first.
  const [first, second] = hooks.toSorted((a, b) => (beside ? b.x - a.x : b.y - a.y));
  const [family, from, end] = slotId.split("-");
  if (family === "about" && end) {
    const hub = place(HUBS[from!]!);
    const hook = end === "front" || end === "left" ? first! : second!;
    return Math.hypot(hook.x - hub.xMm, hook.y - hub.yMm, hook.z - hub.zMm);
  }
  switch (slotId) {
    case "about-laser": {
      const shines = pointOf(stand, world.stand, 0, world.stand.mastMm + (stand.laserUpMm ?? 0));
      const { headingRad } = board.pose;
      // As far along its way as what it is read at lies across the vehicle, or along it.
      if (beside) {
        const hub = place(nearestHub(world, target.stands === "left" ? "L" : "R"));
        const t = (hub.yMm - shines.y) / Math.sin(headingRad);
        return shines.x + t * Math.cos(headingRad) - hub.xMm;
      }
      const badge = place("badgeR");
      const t = (badge.xMm - shines.x) / Math.cos(headingRad);
      return shines.y + t * Math.sin(headingRad) - badge.yMm;
    }
    case "ends-roll": {
      const { leftRad, aheadRad } = world.floor;
      const rises = leftRad * (first!.y - second!.y) + aheadRad * (first!.x - second!.x);
      return (first!.z - second!.z - rises) / (2 * stand.beamHalfMm);
    }
    case "tilt-roll":
    case "bubble-roll":
      return Math.asin((first!.z - second!.z) / (2 * stand.beamHalfMm));
    default:
      return null;
  }
}

/** The hub of a side that a light from there is read at: the sheet's own place says which. */
function nearestHub({ plan, points }: BenchWorld, side: "L" | "R"): string {
  const wanted = targetPose(plan.target, datumLine(datumFrame(plan), points)).xMm;
  const far = (id: string): number => Math.abs(points.find((p) => p.id === id)!.xMm - wanted);
  return far(`hubF${side}`) < far(`hubR${side}`) ? `hubF${side}` : `hubR${side}`;
}

const HUBS: Record<string, string> = { fl: "hubFL", fr: "hubFR", rl: "hubRL", rr: "hubRR" };

/** Readings that are taken along a tape, whichever way they are dropped to the floor. */
const TAPED =
  /^(tape-|box-|about-[fr][lr]-|mat-(beside|abeam|rear|front|apart)|across-(edge|far|[lr])|mark-(along|across|straight|apart))/;

/** The same without noise: plain geometry of points in space, and a tape that is not quite right. */
export function trueReading(
  world: BenchWorld,
  slotId: string,
  mate: BenchWorld | null = null,
): number {
  const shown = exactly(world, slotId, mate);
  return TAPED.test(slotId) ? shown * (1 + world.tapeScale) : shown;
}

function exactly(world: BenchWorld, slotId: string, mate: BenchWorld | null): number {
  const { stand } = world.plan;
  if (world.mat) {
    const other = mate?.mat ? { body: mate.mat, shape: shapeOf(mate.plan.target) } : null;
    const hub = (id: string) => world.points.find((p) => p.id === id)!;
    return matReading(slotId, world.mat, shapeOf(world.plan.target), hub, other);
  }
  if (slotId === "rail-scale") return world.railMm;
  if ((world.plan.target.stands ?? "ahead") !== "ahead") {
    const about = aboutReading(world, slotId);
    if (about !== null) return about;
  }
  const board = boardOf(stand, world.stand);
  const { headingRad } = board.pose;
  const place = (id: string) => world.points.find((p) => p.id === id)!;
  // Vehicle left is the board's own right hand: it faces the car.
  const onBeam = (side: -1 | 0 | 1) =>
    pointOf(stand, world.stand, side * stand.beamHalfMm, stand.hookHeightMm);
  const [family, from, end] = slotId.split("-");
  if (family === "wall") {
    const [what, wall] = slotId.split("@") as [string, string];
    // The bay's name stands before its wall's.
    const wallId = wall.slice(wall.indexOf(".") + 1);
    const hub = HUBS[what.slice("wall-".length)];
    const own = hub ? place(hub) : null;
    const at = own ? { x: own.xMm, y: own.yMm } : onBeam(what.endsWith("-l") ? -1 : 1);
    return offWall(world, wallId, at.x, at.y);
  }
  if (family === "tape") {
    const hub = place(HUBS[from!]!);
    const hook = onBeam(end === "l" ? -1 : 1);
    return Math.hypot(hook.x - hub.xMm, hook.y - hub.yMm, hook.z - hub.zMm);
  }
  const other = schoolReading(slotId, {
    board: board.pose,
    beam: { left: onBeam(-1), right: onBeam(1), middle: onBeam(0) },
    points: world.points,
    toe: world.toe,
  });
  if (other !== null) return other;
  const mark = slotId.startsWith("laser-mark-") ? slotId.slice("laser-".length) : null;
  switch (mark ? "laser-mark" : slotId) {
    case "laser-badge":
    case "laser-mark": {
      const badge = place(mark ?? "badgeF");
      const up =
        stand.laserOn === "beam" ? stand.hookHeightMm : world.stand.mastMm + (stand.laserUpMm ?? 0);
      const from = pointOf(stand, world.stand, 0, up);
      const t =
        (badge.xMm - from.x) * Math.cos(headingRad) + (badge.yMm - from.y) * Math.sin(headingRad);
      const dot = { x: from.x + t * Math.cos(headingRad), y: from.y + t * Math.sin(headingRad) };
      const apart = Math.hypot(dot.x - badge.xMm, dot.y - badge.yMm);
      return dot.y >= badge.yMm ? apart : -apart;
    }
    case "height-rule":
      return board.heightMm;
    case "height-scale":
      return board.heightMm - withBooster(stand, world.stand.booster ?? null).scaleOffsetMm;
    case "tilt-pitch":
    case "bubble-pitch":
      return board.pitchRad;
    case "ends-roll": {
      const [left, right] = [onBeam(-1), onBeam(1)];
      const rises =
        world.floor.leftRad * (left.y - right.y) + world.floor.aheadRad * (left.x - right.x);
      return (left.z - right.z - rises) / (2 * stand.beamHalfMm);
    }
    case "tilt-roll":
    case "bubble-roll":
      return board.rollRad;
    default:
      throw new Error(`No such reading: "${slotId}".`);
  }
}
