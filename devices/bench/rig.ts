import { gaussian, randomFrom, seedFrom } from "@/core/math/random";
import { readingSigma, slotsFor } from "@/core/setout";
import { radToDeg } from "@/core/units";
import { trueReading, type BenchWorld } from "./world";

/**
 * One look of the rig: figures by slot; a wheel whose target was not seen is missing, and named.
 */
export type RigFrame = { n: number; values: Record<string, number>; lost: string[] };

/** A single look is coarser than the rig's stated figure, which is that of many looks together. */
const FRAME_NOISE = 3;
/** How often somebody's leg, a reflection or a hose hides a target: in runs, not frame by frame. */
const HIDDEN = 0.12;
const RUN = 4;

const WHEELS = { fl: "front left", fr: "front right", rl: "rear left", rr: "rear right" } as const;

/** What the simulated rig says at its `n`th look. Pure: the same look always says the same. */
export function rigLook(world: BenchWorld, n: number): RigFrame {
  const rig = world.plan.instruments.find((i) => i.kind === "rig");
  if (!rig) throw new Error("No camera rig in this bay.");
  const random = randomFrom(seedFrom(`${world.seed}/rig/${n}`));
  const lost = (Object.keys(WHEELS) as (keyof typeof WHEELS)[]).filter(
    (w) => randomFrom(seedFrom(`${world.seed}/hidden/${w}/${Math.floor(n / RUN)}`))() < HIDDEN,
  );
  const values: Record<string, number> = {};
  for (const slot of slotsFor(world.plan)) {
    if (slot.instrument !== "rig" || lost.some((w) => slot.id.startsWith(`rig-${w}`))) continue;
    const truth = trueReading(world, slot.id);
    values[slot.id] = truth + FRAME_NOISE * readingSigma(rig, slot, truth) * gaussian(random);
  }
  return { n, values, lost: lost.map((w) => WHEELS[w]) };
}

/** Rear toe as the rig finds it when the car is rolled, degrees; a hundredth or two uncertain. */
export function rollUnderRig(
  world: BenchWorld,
  nth: number,
): { leftDeg: number; rightDeg: number } {
  const random = randomFrom(seedFrom(`${world.seed}/roll/${nth}`));
  const shown = (rad: number): number =>
    Math.round(100 * (radToDeg(rad) + 0.015 * gaussian(random))) / 100;
  return { leftDeg: shown(world.toe.leftRad), rightDeg: shown(world.toe.rightRad) };
}
