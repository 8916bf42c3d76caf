import { gaussian, randomFrom, seedFrom } from "@/core/math/random";
import type { SystemId } from "@/core/owed";
import type { RoutineResult } from "@/core/run";
import { layDown } from "../bench/mat-sim";
import { shapeOf, type BenchWorld } from "../bench/world";
import { boardOf } from "../bench/stand-sim";
import { alignRadar, seatAfter, type Echo } from "../vehicle/front-radar";
import { mannersOf, unmet, type Circumstances } from "../vehicle/manners";
import { learnForwardCamera, learnFromBoard, type Eye } from "../vehicle/forward-camera";
import { storeAims } from "../vehicle/mirror-camera";
import { learnTrailerCamera } from "../vehicle/trailer-camera";
import { learnSurroundView, type SeenMat } from "../vehicle/surround-view";
import { DeviceRefusal, type Ignition, type ScanTool } from "./scan-tool";

/** What the simulated tool finds in the cabin, told by whoever keeps the job's log. */
export type Cabin = {
  /** Of which system the unit is that is spoken with. */
  system: SystemId;
  ignition: Ignition;
  /** What was done about the vehicle since the tool was connected. */
  done: Circumstances;
  /** How often buttons were held before. */
  holdsBefore: number;
  /** Seconds since the tool last spoke with the vehicle; null before it did. */
  silentSeconds: number | null;
  /** Whether a battery maintainer is on: ignition-on work drains the battery without one. */
  maintained: boolean;
  /** Whether it was taken off again, to shut the bonnet: what it charged drains from then on. */
  unplugged: boolean;
  /** Seconds of ignition-on time so far. */
  ignitionOnSeconds: number;
  /** How many connections were tried before; the adapter's contact fails now and then. */
  connectionsBefore: number;
  /** Of the vehicle the plug is in. */
  vin: string;
  /** Whether its unit has learned, and how often it tested itself before. */
  learned: boolean;
  testsBefore: number;
  /** How many looks the routine took before. */
  looksBefore: number;
  /** How the trailer stands to the vehicle, rad; null where none is coupled. */
  articulationRad: number | null;
  /** The cameras on arms: where each shows its mark against where it belongs; how far each was turned. */
  arms: ArmSeen[];
};

/** A camera on an arm as the tool finds it. */
export type ArmSeen = {
  side: "left" | "right";
  right: number;
  up: number;
  within: number;
  turned: { pan: number; tilt: number };
};

const UNIT_MM = { in: 25.4, cm: 10, mm: 1 } as const;

/** How a camera was aimed before its repair, rad. */
export function aimBefore(seed: string): { yaw: number; pitch: number; roll: number } {
  const random = randomFrom(seedFrom(`${seed}/aim-before`));
  const turn = (): number => 0.0045 * gaussian(random);
  return { yaw: turn(), pitch: turn(), roll: turn() };
}

/** How far a camera's motor turns either way, in commands. */
const TRAVEL = 80;

/** The bay with one of the boards that stand in it. */
export type BesideWorld = { name: string; world: BenchWorld };

/**
 * One answer from all the boards the camera saw: the mean of what they taught, the worst of how
 * well, the first refusal.
 */
function together(looks: { name: string; result: RoutineResult }[]): RoutineResult {
  const mean = (f: (r: RoutineResult) => number | undefined): number =>
    looks.reduce((s, l) => s + (f(l.result) ?? 0), 0) / looks.length;
  const refused = looks.find((l) => !l.result.passed);
  return {
    passed: !refused,
    qualityPercent: Math.min(...looks.map((l) => l.result.qualityPercent)),
    ...(looks.every((l) => l.result.learnedYawDeg !== undefined) && {
      learnedYawDeg: mean((r) => r.learnedYawDeg),
      learnedPitchDeg: mean((r) => r.learnedPitchDeg),
      learnedRollDeg: mean((r) => r.learnedRollDeg),
    }),
    ...(refused?.result.refused && {
      refused: refused.result.refused,
      sizePercent: refused.result.sizePercent,
    }),
    reason: refused
      ? looks.length > 1
        ? `At ${refused.name}: ${refused.result.reason}`
        : refused.result.reason
      : null,
  };
}

/** A mat as the vehicle's cameras see it, and where its unit expects it. */
export function matSeen({ name, world }: BesideWorld): SeenMat[] {
  if (!world.mat) return [];
  const { plan } = world;
  const { placement } = plan.target;
  const at = (id: string) => world.points.find((p) => p.id === id)!;
  const front = {
    x: (at("hubFL").xMm + at("hubFR").xMm) / 2,
    y: (at("hubFL").yMm + at("hubFR").yMm) / 2,
  };
  const rear = {
    x: (at("hubRL").xMm + at("hubRR").xMm) / 2,
    y: (at("hubRL").yMm + at("hubRR").yMm) / 2,
  };
  const way = Math.atan2(front.y - rear.y, front.x - rear.x);
  // The unit counts from the wheels: ahead of them, and to the side of their middle.
  const from = plan.target.distanceFrom === "rear-hub-line" ? rear : front;
  const wanted = layDown(
    from.x + Math.cos(way) * placement.alongMm - Math.sin(way) * placement.acrossMm,
    from.y + Math.sin(way) * placement.alongMm + Math.cos(way) * placement.acrossMm,
    way,
  );
  return [{ name, body: world.mat, shape: shapeOf(plan.target), wanted }];
}

/** Where such cameras sit where the vehicle's book does not say, mm: over the plate, in the mirror. */
const USUAL_EYE = { rear: { insideMm: 40, zMm: 950 }, side: { behindFrontMm: 520, zMm: 1000 } };

type LooksAround = "rear-camera" | "side-camera" | "trailer-camera";

/** The camera that looks at a board behind vehicle or trailer, or beside, as its book has it. */
function eyeAt({ plan }: BenchWorld, system: LooksAround): Eye {
  const { vehicle: v, target } = plan;
  const rear = system !== "side-camera";
  const side = target.stands === "right" ? -1 : 1;
  const entered = v.sensors?.find((s) => s.system === system && (rear || s.yMm * side > 0));
  const rad = Math.PI / 180;
  if (entered)
    return {
      ...entered,
      turn: {
        yaw: entered.headingDeg * rad,
        pitch: entered.downDeg * rad,
        roll: entered.rollDeg * rad,
      },
    };
  const end = v.wheelbaseMm + v.frontOverhangMm - v.lengthMm;
  return rear
    ? {
        xMm: end + USUAL_EYE.rear.insideMm,
        yMm: 0,
        zMm: USUAL_EYE.rear.zMm,
        turn: { yaw: Math.PI, pitch: 0.5, roll: 0 },
      }
    : {
        xMm: v.wheelbaseMm - USUAL_EYE.side.behindFrontMm,
        yMm: side * (v.widthMm / 2 + 100),
        zMm: USUAL_EYE.side.zMm,
        turn: { yaw: (side * Math.PI) / 2, pitch: 0.5, roll: 0 },
      };
}

/** What a unit makes of what its cameras see around: of mats on the floor, or of boards. */
function lookAround(
  seen: readonly BesideWorld[],
  look: string,
  system: LooksAround,
  limits: number,
): RoutineResult {
  const mats = seen.flatMap(matSeen);
  if (mats.length > 0)
    return learnSurroundView(mats, look, system === "side-camera" ? 2 : 1, limits);
  return together(
    seen.map(({ name, world }) => ({
      name,
      result: learnFromBoard(world, look, eyeAt(world, system), limits),
    })),
  );
}

/** Where a front radar sits where the vehicle's book does not say, mm: behind the grille. */
const BEHIND_GRILLE = { backMm: 120, zMm: 480 };

/** The reflector as the radar hears it, and where it expects it, in the radar's own axes. */
function echoOf({ world }: BesideWorld): Echo {
  const { vehicle, target, stand } = world.plan;
  const at = (id: string) => world.points.find((p) => p.id === id)!;
  const middle = (a: string, b: string): [number, number] => [
    (at(a).xMm + at(b).xMm) / 2,
    (at(a).yMm + at(b).yMm) / 2,
  ];
  const [front, rear] = [middle("hubFL", "hubFR"), middle("hubRL", "hubRR")];
  const [l, r] = [at("hubRL"), at("hubRR")];
  // Across the rear axle and a quarter turn back: the way the car stands.
  const way = Math.atan2(l.yMm - r.yMm, l.xMm - r.xMm) - Math.PI / 2;
  const entered = vehicle.sensors?.find((s) => s.system === "front-radar");
  const radar = entered ?? {
    xMm: vehicle.wheelbaseMm + vehicle.frontOverhangMm - BEHIND_GRILLE.backMm,
    yMm: 0,
    zMm: BEHIND_GRILLE.zMm,
  };
  const board = boardOf(stand, world.stand);
  const seen = (x: number, y: number, z: number): [number, number, number] => {
    const [dx, dy] = [x - radar.xMm, y - radar.yMm];
    return [
      Math.cos(way) * dx + Math.sin(way) * dy,
      Math.cos(way) * dy - Math.sin(way) * dx,
      z - radar.zMm,
    ];
  };
  const { alongMm, acrossMm, heightMm } = target.placement;
  const ahead = Math.cos(way) * (front[0] - rear[0]) + Math.sin(way) * (front[1] - rear[1]);
  const place = (along: number, left: number): [number, number] => [
    rear[0] + Math.cos(way) * along - Math.sin(way) * left,
    rear[1] + Math.sin(way) * along + Math.cos(way) * left,
  ];
  const turned = board.pose.headingRad - Math.PI - way;
  return {
    at: seen(board.pose.xMm, board.pose.yMm, board.heightMm),
    expected: seen(...place(ahead + alongMm, acrossMm), heightMm),
    turnedRad: Math.atan2(Math.sin(turned), Math.cos(turned)),
    leanedRad: board.pitchRad,
  };
}

/**
 * A made-up tool on a simulated vehicle: delays, a doubtful plug, a battery that drains, a real
 * picture of the board.
 *
 * @param boards the bay, once for each board that stands in it
 * @param pace scales every delay; 0 answers at once, for making data
 */
export function simulatedScanTool(
  boards: [...BesideWorld[], BesideWorld],
  cabin: Cabin,
  pace = 1,
): ScanTool {
  const { world } = boards.at(-1)!;
  const manners = mannersOf(world.plan.vehicle.id, cabin.system);
  const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms * pace));
  const random = (what: string) => randomFrom(seedFrom(`${world.seed}/tool/${what}`));
  // A truck has two batteries in a row.
  const bank = world.plan.vehicle.body === "truck" ? 2 : 1;
  const volts = (): number => {
    const drained = 0.0011 * cabin.ignitionOnSeconds;
    const charged = cabin.maintained ? (cabin.unplugged ? 12.9 - drained : 13.3) : 12.15 - drained;
    const rest = bank * charged;
    return Math.round((rest + 0.04 * gaussian(random(`volts/${cabin.looksBefore}`))) * 100) / 100;
  };
  return {
    identity: { name: "Simulated scan tool", serial: "SIM-0412", software: "0.1" },
    async connect() {
      await pause(700);
      if (random(`plug/${cabin.connectionsBefore}`)() < 0.12)
        throw new DeviceRefusal(
          "The vehicle did not answer. Push the plug home, check the ignition, and connect again.",
        );
      return { volts: volts() };
    },
    async readVin() {
      await pause(150);
      return cabin.vin;
    },
    async storedAim() {
      if (!manners.tellsStored) return null;
      const deg = (rad: number): number => Math.round((rad * 18_000) / Math.PI) / 100;
      const { yaw, pitch, roll } = aimBefore(world.seed);
      return { yawDeg: deg(yaw), pitchDeg: deg(pitch), rollDeg: deg(roll) };
    },
    async ignition() {
      return cabin.ignition;
    },
    async readValue(value) {
      await pause(250);
      if (value === "battery-voltage") return { value: volts(), unit: "V" };
      if (value !== "camera-height") {
        const rad = aimBefore(world.seed)[value === "stored-yaw" ? "yaw" : "pitch"];
        return { value: Math.round(((rad * 180) / Math.PI) * 100) / 100, unit: "deg" };
      }
      const stored = world.plan.vehicle.camera.zMm + 3 * gaussian(random("stored-height"));
      // What a maker's tool counts in, each its own way.
      const unit = manners.counts;
      return { value: Math.round((stored / UNIT_MM[unit]) * 10) / 10, unit };
    },
    async session() {
      await pause(120);
      return cabin.silentSeconds !== null && cabin.silentSeconds > manners.sleepsAfterMinutes * 60
        ? "lost"
        : "kept";
    },
    async entered({ afterSeconds, withinSeconds }) {
      await pause(300);
      // Now and then one finger lets go too early.
      const slipped = random(`hold/${cabin.holdsBefore}`)() < 0.08;
      return afterSeconds <= withinSeconds && !slipped;
    },
    async turnCamera(side, commands) {
      await pause(350 + 40 * (Math.abs(commands.pan) + Math.abs(commands.tilt)));
      const arm = cabin.arms.find((a) => a.side === side);
      if (!arm)
        throw new DeviceRefusal(
          "The vehicle does not find the camera on that arm. Check its plug, then send again.",
        );
      const far = Math.max(
        Math.abs(arm.turned.pan + commands.pan),
        Math.abs(arm.turned.tilt + commands.tilt),
      );
      if (far > TRAVEL)
        throw new DeviceRefusal(
          "The camera is at the end of its travel. Look whether its arm is bent or not locked, before anything is turned on.",
        );
      return commands;
    },
    async selfTest() {
      await pause(1200);
      if (!cabin.learned)
        return { passed: false, says: "Nothing learned yet: run its routine first." };
      // Dirt before it is wiped off by whoever was told.
      const dirty = cabin.testsBefore === 0 && random("dirt")() < 0.2;
      return dirty
        ? { passed: false, says: "It sees through dirt: clean what is before it, then test again." }
        : { passed: true, says: "Content." };
    },
    async runRoutine(routine) {
      if (volts() < manners.leastVolts * bank)
        throw new DeviceRefusal(
          "The vehicle refuses: battery too low. Put the maintainer on and wait.",
        );
      await pause(1800);
      const wants = unmet(manners, cabin.ignition, cabin.done);
      if (wants) return { passed: false, qualityPercent: 0, reason: wants, refused: "conditions" };
      const look = `${world.seed}/${cabin.looksBefore}`;
      const { limits } = manners;
      if (routine === "surround-view-static")
        return learnSurroundView(boards.flatMap(matSeen), look, 2, limits);
      if (routine === "rear-camera-static") return lookAround(boards, look, "rear-camera", limits);
      if (routine === "side-camera-static") return lookAround(boards, look, "side-camera", limits);
      if (routine === "front-radar-static")
        return alignRadar(boards.map(echoOf), seatAfter(world.seed), look, limits);
      if (routine === "mirror-camera-static") return storeAims(cabin.arms, look, limits);
      if (routine === "trailer-camera-static") {
        const straight = learnTrailerCamera(cabin.articulationRad, look, limits);
        // Beside standing in line it may look for what lies or stands behind the trailer.
        const behind = boards.filter((b) => b.world.plan.target.frame);
        return straight.passed && behind.length > 0
          ? lookAround(behind, look, "trailer-camera", limits)
          : straight;
      }
      return together(
        boards.map(({ name, world: w }) => ({
          name,
          result: learnForwardCamera(w, String(cabin.looksBefore), limits),
        })),
      );
    },
  };
}
