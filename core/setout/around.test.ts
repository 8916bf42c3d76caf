import { beforeAll, describe, expect, it } from "vitest";
import { gaussian, randomFrom, type Random } from "@/core/math/random";
import { DISTANCE_FROM_NAMES, type Target } from "@/core/sheet";
import { vehiclePoints } from "@/core/vehicle";
import { trailerAlone } from "@/core/vehicle/trailer";
import { AROUND } from "@/demo/data/around";
import { VEHICLES } from "@/demo/data/vehicles";
import { boardOf } from "@/devices/bench/stand-sim";
import { JOINT_95, mahalanobis } from "@/tests/coverage";
import { planOf } from "@/tests/fixtures";
import { aim } from "./aim";
import { NOWHERE } from "./displace";
import { estimate } from "./estimate";
import { installFloorSlots } from "./floor-slots";
import { disturb, epochNow, newHistory, rollIn, ROLLED_IN } from "./history";
import { datumFrame, nominalTarget, placedAhead, wantedTilt, type SetOutPlan } from "./plan";
import { quantityWords } from "./quantities";
import { carrierPoints, slotsFor } from "./slots";
import { thingOf } from "./thing";
import { TOUCHES } from "./touch";
import { setBoard } from "@/bench/hands";
import { moveWords } from "./words";

beforeAll(installFloorSlots);

type Side = "behind" | "left" | "right";
const SIDES: Side[] = ["behind", "left", "right"];

/** The demo's small van, before the board that stands at this side of it. */
function planAt(side: Side): SetOutPlan {
  const target = AROUND.flatMap((s) => s.setups)
    .flatMap((s) => s.targets)
    .find((t) => t.stands === side)!;
  return { ...planOf(0, 0), vehicle: VEHICLES.find((v) => v.id === "ardvale-motto")!, target };
}

/** The same board behind the van's trailer, of which the hitch and two hubs are all there is. */
function planTowed(): SetOutPlan {
  const { vehicle, ...plan } = planAt("behind");
  const target: Target = { ...plan.target, frame: "trailer", distanceFrom: "rear-hub-line" };
  return { ...plan, vehicle: trailerAlone(vehicle), target };
}

type Point = { x: number; y: number };
type Pose = Point & { heading: number };
const SIGMA = { tape: 2.2, laser: 1.8 };

/** Hubs and badges of one van, where they truly are. */
function car({ vehicle }: SetOutPlan, random: Random): Map<string, Point> {
  const axle = 1.2 * gaussian(random);
  const caps = { F: 1.5 * gaussian(random), R: 1.5 * gaussian(random) };
  return new Map(
    vehiclePoints(vehicle).map((p): [string, Point] => {
      const hub = /^hub([FR])([LR])/.exec(p.id);
      const out = hub ? caps[hub[1] as "F" | "R"] * (hub[2] === "L" ? 1 : -1) : 0;
      const x = p.xMm + (hub?.[1] === "F" ? axle : 0) + p.sigmaMm * gaussian(random);
      return [p.id, { x, y: p.yMm + out + p.sigmaMm * gaussian(random) }];
    }),
  );
}

/** Along, across and twist by the square of the rear axle: projections on two unit vectors. */
function truly(c: Map<string, Point>, b: Pose, { placement, distanceFrom }: Target, faces: number) {
  const [l, r] = [c.get("hubRL")!, c.get("hubRR")!];
  const track = Math.hypot(l.x - r.x, l.y - r.y);
  // From right to left hub, and a quarter turn clockwise of that: ahead.
  const left = { x: (l.x - r.x) / track, y: (l.y - r.y) / track };
  const ahead = { x: left.y, y: -left.x };
  const [fl, fr] = [c.get("hubFL")!, c.get("hubFR")!];
  const middle = { x: (l.x + r.x) / 2, y: (l.y + r.y) / 2 };
  const frontMiddle = { x: (fl.x + fr.x) / 2, y: (fl.y + fr.y) / 2 };
  const from =
    { "rear-badge": c.get("badgeR")!, "rear-hub-line": middle }[distanceFrom as string] ??
    frontMiddle;
  const dot = (p: Point, q: Point, u: Point): number => (p.x - q.x) * u.x + (p.y - q.y) * u.y;
  const twist = b.heading - (Math.atan2(ahead.y, ahead.x) + faces);
  return [
    dot(b, from, ahead) - placement.alongMm,
    dot(b, middle, left) - placement.acrossMm,
    Math.atan2(Math.sin(twist), Math.cos(twist)),
  ] as const;
}

/** What an exact tape or laser shows: ends of the beam told apart by where they are. */
function shown(plan: SetOutPlan, c: Map<string, Point>, b: Pose, slotId: string): number {
  const { stand, vehicle, target } = plan;
  const beside = target.stands !== "behind";
  const hooks = [-1, 1]
    .map((s) => ({
      x: b.x - s * stand.beamHalfMm * Math.sin(b.heading),
      y: b.y + s * stand.beamHalfMm * Math.cos(b.heading),
    }))
    .sort((p, q) => (beside ? q.x - p.x : q.y - p.y));
  const [, hub, end] = slotId.split("-") as [string, string, string | undefined];
  if (!end) {
    // Where the light crosses the vehicle's side, or its rear.
    const at = c.get(beside ? (target.stands === "left" ? "hubFL" : "hubFR") : "badgeR")!;
    if (beside) return b.x + (at.y - b.y) / Math.tan(b.heading) - at.x;
    return b.y + (at.x - b.x) * Math.tan(b.heading) - at.y;
  }
  const at = c.get(`hub${hub.toUpperCase()}`)!;
  const hook = hooks[end === "front" || end === "left" ? 0 : 1]!;
  return Math.hypot(hook.x - at.x, hook.y - at.y, stand.hookHeightMm - vehicle.hubHeightMm);
}

/** One set-out read whole, knocked, and read again; whether each quantity and all hold the truth. */
function run(seed: number, plan: SetOutPlan, faces: number): boolean[] {
  const random = randomFrom(seed);
  const c = car(plan, random);
  const scale = 1 + 3e-4 * gaussian(random);
  const h = newHistory();
  const nominal = nominalTarget(plan);
  rollIn(h, "c", nominal, carrierPoints(plan));
  let b: Pose = {
    x: nominal.xMm + 0.1 * ROLLED_IN.planMm * gaussian(random),
    y: nominal.yMm + 0.1 * ROLLED_IN.planMm * gaussian(random),
    heading: nominal.headingRad + 0.1 * ROLLED_IN.headingRad * gaussian(random),
  };
  const slots = slotsFor(plan).filter((s) => s.id.startsWith("about-"));
  const read = (some: typeof slots): void => {
    for (const slot of some) {
      const taped = slot.instrument === "tape";
      const sigma = taped ? SIGMA.tape : SIGMA.laser;
      const value = (taped ? scale : 1) * shown(plan, c, b, slot.id) + sigma * gaussian(random);
      const { body } = epochNow(h, "c");
      h.readings.push({
        id: `r${h.readings.length}`,
        target: "t",
        body,
        slot,
        shown: value,
        sigma,
      });
    }
  };
  read(slots);
  const w = TOUCHES.knocked.widening;
  disturb(h, "c", w, NOWHERE);
  b = {
    x: b.x + w.planMm * gaussian(random),
    y: b.y + w.planMm * gaussian(random),
    heading: b.heading + w.headingRad * gaussian(random),
  };
  read(slots.slice(0, 3));
  const { adjustment } = estimate(h, plan.vehicle);
  const a = aim(adjustment!, plan.target, datumFrame(plan), epochNow(h, "c").body);
  const t = truly(c, b, plan.target, faces);
  const d = [a.alongMm - t[0], a.acrossMm - t[1], a.twistRad - t[2]];
  return [
    ...d.map((v, i) => Math.abs(v) < 1.96 * Math.sqrt(a.covariance[i]![i]!)),
    mahalanobis(a.covariance, d) < JOINT_95[3]!,
  ];
}

describe("a board behind the vehicle or beside it", () => {
  it.each([
    ["behind", 0, planAt],
    ["left", -Math.PI / 2, planAt],
    ["right", Math.PI / 2, planAt],
    ["behind", 0, planTowed],
  ] as const)("%s: 2,000 set-ups hold the truth as often as they say", (side, faces, planOf) => {
    const plan = planOf(side);
    const runs = Array.from({ length: 2000 }, (_, n) => run(310_000 + n, plan, faces));
    for (const i of [0, 1, 2, 3]) {
      const share = runs.filter((r) => r[i]).length / runs.length;
      expect(share).toBeGreaterThan(0.93);
      expect(share).toBeLessThan(0.97);
    }
  });

  it.each(SIDES)("%s: the advice brings it to its place in the simulated bay", (side) => {
    const plan = planAt(side);
    for (let n = 0; n < 6; n++) {
      const { world } = setBoard(plan, `${side}/${n}`)!;
      const c = new Map(world.points.map((p) => [p.id, { x: p.xMm, y: p.yMm }]));
      const { xMm: x, yMm: y, headingRad: heading } = boardOf(plan.stand, world.stand).pose;
      const faces = { behind: 0, left: -Math.PI / 2, right: Math.PI / 2 }[side];
      const off = truly(c, { x, y, heading }, plan.target, faces);
      expect(Math.abs(off[0])).toBeLessThan(20);
      expect(Math.abs(off[1])).toBeLessThan(20);
      expect(Math.abs(off[2])).toBeLessThan(0.6 * (Math.PI / 180));
    }
  });

  it("is looked for where its sheet puts it, whatever the distance counts from", () => {
    const names = Object.keys(DISTANCE_FROM_NAMES) as Target["distanceFrom"][];
    // A mark's alone: a board counts from none of its hubs.
    const FROM = names.filter((from) => from !== "line-hub");
    expect(FROM).toHaveLength(7);
    for (const distanceFrom of FROM) {
      const plan = planAt("behind");
      const target: Target = { ...plan.target, distanceFrom };
      const { xMm } = nominalTarget({ ...plan, target });
      expect(Math.abs(placedAhead({ ...plan, target }) - xMm)).toBeLessThan(1);
    }
    // Beside the van the laser is read at the hub the board stands nearer to.
    const laserAt = (distanceFrom: Target["distanceFrom"], alongMm: number): string => {
      const plan = planAt("left");
      const placement = { ...plan.target.placement, alongMm };
      const target: Target = { ...plan.target, distanceFrom, placement };
      return slotsFor({ ...plan, target }).find((s) => s.id === "about-laser")!.name;
    };
    expect(laserAt("rear-badge", 1000)).toBe("board laser past the rear hub left");
    expect(laserAt("front-badge", -1000)).toBe("board laser past the front hub left");
  });

  it("is told by where it stands: which way is away, which end is which", () => {
    const after = { pose: { xMm: 0, yMm: 0, headingRad: 0 }, heightMm: 0, pitchRad: 0, rollRad: 0 };
    const say = (side: Side, move: object): string =>
      moveWords(
        { ...move, after } as Parameters<typeof moveWords>[0],
        { driverSide: "left" },
        "mm",
        thingOf(planAt(side).target),
      ).say.replaceAll("\u00a0", " ");
    const roll = { kind: "roll", awayMm: 40, leftMm: -120, turnRad: 0 };
    expect(SIDES.map((s) => say(s, roll))).toEqual([
      "Roll the stand 40 mm toward the car and 120 mm toward vehicle right.",
      "Roll the stand 40 mm forward and 120 mm toward the car.",
      "Roll the stand 40 mm forward and 120 mm away from the car.",
    ]);
    const yaw = { kind: "yaw", joint: 0, turnRad: -0.02, leftEndMm: 23 };
    expect(SIDES.map((s) => say(s, yaw))).toEqual([
      "Turn the beam until its vehicle-right end has come 23 mm away from the car.",
      "Turn the beam until its rear end has come 23 mm away from the car.",
      "Turn the beam until its front end has come 23 mm away from the car.",
    ]);
    const slides = [
      { kind: "slide", joint: 1, axis: "cross", byMm: 5, awayMm: -5, leftMm: 0.1 },
      { kind: "slide", joint: 2, axis: "fore-aft", byMm: 6, awayMm: 0.1, leftMm: 6 },
    ];
    expect(slides.map((m) => say("left", m))).toEqual([
      "Slide the board 5 mm back.",
      "Slide the board 6 mm away from the car.",
    ]);
    const words = (side: Side, id: "along" | "across" | "roll"): string =>
      quantityWords(id, planAt(side).target).more;
    expect(SIDES.map((s) => words(s, "along"))).toEqual(["too near", "ahead", "ahead"]);
    expect(SIDES.map((s) => words(s, "across"))).toEqual(["left", "too far", "too near"]);
    expect(SIDES.map((s) => words(s, "roll"))).toEqual(["right high", "rear high", "front high"]);
  });

  it("level is told from vehicle left to right and from front to rear, whichever way it looks", () => {
    const told = (side: Side) => {
      const slot = slotsFor(planAt(side)).find((s) => s.id === "tilt-roll")!;
      return [slot.sides!.positive, Math.sign(slot.toModel(1)), slot.toShown(slot.toModel(0.01))];
    };
    // Behind and on vehicle left the end that is told first is the one to the board's own left.
    expect(told("behind")).toEqual(["vehicle-left end high", -1, 0.01]);
    expect(told("left")).toEqual(["front end high", -1, 0.01]);
    expect(told("right")).toEqual(["front end high", 1, 0.01]);
  });

  it("square to the vehicle's plane it leans with the floor it looks over", () => {
    const slope = {
      ahead: { value: 0.01, sigma: 1e-4 },
      left: { value: 0.003, sigma: 1e-4 },
    };
    const tilt = (side: Side) => {
      const { target } = planAt(side);
      const { pitch, roll } = wantedTilt({
        target: { ...target, upright: "vehicle-plane" },
        floorSlopeRad: slope,
      });
      return [pitch.value, roll.value].map((v) => Math.round(v * 1e6) / 1e6);
    };
    // Its upright leans back from where the floor rises: away from the car where that rises toward it.
    expect(tilt("behind")).toEqual([0.01, -0.003]);
    expect(tilt("left")).toEqual([-0.003, -0.01]);
    expect(tilt("right")).toEqual([0.003, 0.01]);
  });
});
