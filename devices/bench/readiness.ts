import { gaussian, randomFrom, seedFrom } from "@/core/math/random";
import { fieldsFor } from "@/core/ready";
import type { Measure } from "@/core/sheet";
import { degToRad } from "@/core/units";
import { archPlace, CORNERS, readTyre, sideCameras, type Corner } from "@/core/vehicle";
import type { BenchWorld } from "./world";

/**
 * How the car was driven in: a pure function of the bay's seed. What was fixed stands as the book
 * wants it.
 */
function condition(world: BenchWorld) {
  const random = randomFrom(seedFrom(`${world.seed}/car`));
  const soft = random() < 0.4 ? CORNERS[Math.floor(random() * 4)]! : null;
  return {
    soft,
    softKPa: 25 + 30 * random(),
    heaveMm: 4 * gaussian(random),
    pitchRad: degToRad(0.06) * gaussian(random),
    rollRad: degToRad(0.05) * gaussian(random),
    fuel: 0.45 + 0.5 * random(),
    steeringRad: degToRad(1.2) * gaussian(random),
    /** Now and then one tyre is of another size than its fellow. */
    oddTyre: random() < 0.15 ? CORNERS[Math.floor(random() * 4)]! : null,
    /** How much of the wanted room is there; below one something stands in it. */
    room: 0.95 + 0.6 * random(),
    /** Now and then a mirror, or a camera's arm, is still folded from the wash or the gate. */
    folded: random() < 0.3 ? (random() < 0.5 ? ("left" as const) : ("right" as const)) : null,
    /** How far its arms sit from where the book has them, mm. */
    armMm: { left: 5 * gaussian(random), right: 5 * gaussian(random) },
  };
}

/**
 * What the simulated instruments show for a readiness item: pressure gauge, tape at the arches,
 * rule on the floor under a line laser, the dash. Noise as the instruments have it; the same
 * reading again is another draw.
 *
 * @param fixed whether the technician has put this right since
 * @param nth how often the item was read before
 * @param elsewhere the same bay with the boards of other sides
 */
export function readReadiness(
  world: BenchWorld,
  itemId: string,
  measure: Measure,
  fixed: boolean,
  nth: number,
  elsewhere: Readonly<Partial<Record<string, BenchWorld>>> = {},
): Record<string, number> {
  const { vehicle } = world.plan;
  const car = condition(world);
  const noise = randomFrom(seedFrom(`${world.seed}/ready/${itemId}/${nth}`));
  const one = (id: string): number => {
    const corner = CORNERS.find((c) => c === id);
    switch (measure.kind) {
      case "pressures": {
        const wanted = vehicle.placardKPa[measure.load][id[0] === "F" ? "front" : "rear"];
        return Math.round(
          wanted - (corner === car.soft && !fixed ? car.softKPa : 0) + 2 * gaussian(noise),
        );
      }
      case "tyres": {
        const [own, odd] = fieldsFor(measure, vehicle).find((f) => f.id === id)!.markings!;
        return readTyre(corner === car.oddTyre && !fixed && odd ? odd : own!)!.diameterMm;
      }
      case "clear-zone": {
        const wanted = id === "ahead" ? measure.aheadMm : measure.sideMm;
        return Math.round(
          wanted * (fixed ? Math.max(1.1, car.room) : car.room) + 3 * gaussian(noise),
        );
      }
      case "arches":
        return Math.round(archOf(world, car, corner!, fixed) + 1.2 * gaussian(noise));
      case "floor":
        return (
          Math.round((600 - floorHeight(elsewhere[id] ?? world, id) + 0.7 * gaussian(noise)) * 10) /
          10
        );
      case "fuel":
        return Math.round((fixed ? 9 : 10 * car.fuel) * 10) / 10;
      case "steering":
        return fixed ? 0 : car.steeringRad + degToRad(0.1) * gaussian(noise);
      case "alignment": {
        if (id === "sigma") return degToRad(0.03);
        const a = vehicle.alignment;
        if (fixed && a) return degToRad((a.toeMinDeg + a.toeMaxDeg) / 2);
        const toe = id === "left" ? world.toe.leftRad : world.toe.rightRad;
        return toe + degToRad(0.02) * gaussian(noise);
      }
      case "camera-places": {
        const [what, side] = id.split("-") as ["height" | "out", "left" | "right"];
        const { sensor, outMm } = sideCameras(vehicle).find((c) => c.side === side)!;
        const sits = armSits(world, side, fixed);
        const is = what === "height" ? sensor.zMm + sits.upMm : outMm - sits.inMm;
        return Math.round(is + 2 * gaussian(noise));
      }
      default:
        return 0;
    }
  };
  return Object.fromEntries(fieldsFor(measure, vehicle).map((f) => [f.id, one(f.id)]));
}

/** How near to the body a folded arm lies, mm. */
const FOLDED_MM = 230;

/**
 * How far a camera's arm sits from where the book has it: higher, and nearer to the body.
 *
 * @param fixed whether somebody has swung it out since it came
 */
export function armSits(
  world: BenchWorld,
  side: "left" | "right",
  fixed: boolean,
): { upMm: number; inMm: number } {
  const { armMm, folded } = condition(world);
  return { upMm: armMm[side], inMm: folded === side && !fixed ? FOLDED_MM : 0 };
}

/** How the body stands off its book, as it was driven in or after that was put right. */
export function stanceNow(world: BenchWorld, fixed: boolean): NonNullable<BenchWorld["stance"]> {
  if (fixed) return { heaveMm: 0, pitchRad: 0, rollRad: 0 };
  const { heaveMm, pitchRad, rollRad } = condition(world);
  return { heaveMm, pitchRad, rollRad };
}

function archOf(
  world: BenchWorld,
  car: ReturnType<typeof condition>,
  c: Corner,
  fixed: boolean,
): number {
  const { vehicle } = world.plan;
  const p = archPlace(vehicle, c);
  const stance = fixed
    ? 0
    : car.heaveMm + car.pitchRad * (p.xMm - vehicle.wheelbaseMm / 2) + car.rollRad * p.yMm;
  return vehicle.archMm[c] + stance;
}

/** Height of the floor at a tyre or at the stand, mm, against the rear axle's. */
function floorHeight(world: BenchWorld, id: string): number {
  const { vehicle } = world.plan;
  const { aheadRad, leftRad, twistMm, stepMm } = world.floor;
  const corner = CORNERS.find((c) => c === id);
  if (corner) {
    const p = archPlace(vehicle, corner);
    const sign = (corner[0] === "F" ? 1 : -1) * (corner[1] === "L" ? 1 : -1);
    return aheadRad * p.xMm + leftRad * p.yMm + twistMm * sign;
  }
  const { stands = "ahead", placement, distanceFrom, beam } = world.plan.target;
  const across = beam?.acrossMm ?? placement.acrossMm;
  const foot = id === "stand" ? 350 : id === "stand-2" ? -350 : 0;
  const at = (point: string): number => world.points.find((p) => p.id === point)!.xMm;
  const face = at("hubFL") + vehicle.frontOverhangMm;
  const ahead = {
    "front-hub-line": at("hubFL"),
    "front-badge": at("badgeF"),
    "bumper-face": face,
    camera: vehicle.camera.xMm,
    "rear-hub-line": 0,
    "rear-badge": at("badgeR"),
    "rear-face": face - vehicle.lengthMm,
    "line-hub": 0,
  }[distanceFrom];
  const [x, y] = {
    ahead: [0, across + foot],
    behind: [0, across - foot],
    left: [-foot, across],
    right: [foot, across],
  }[stands] as [number, number];
  return aheadRad * (ahead + placement.alongMm + x) + leftRad * y + stepMm;
}
