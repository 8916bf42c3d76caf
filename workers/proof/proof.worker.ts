import { installFloorSlots } from "@/core/setout/floor-slots";
import { expose } from "comlink";
import {
  ageOf,
  judgeTarget,
  witnessOf,
  type Age,
  type CalibrationGround,
  type JobEvent,
  type Witness,
} from "@/core/job";
import {
  learnDrift,
  namedHalves,
  slopsOf,
  type DriftSight,
  type Halves,
  type Slop,
} from "@/core/setout";

installFloorSlots();

// Hundreds of splits and thousands of knocks: beside the page, so that the page stays quick.
const proof = {
  /** Where to be careful, and whether two halves of the readings agree. */
  care(
    g: CalibrationGround,
    events: JobEvent[],
    targetId: string,
  ): { slops: Slop[]; halves: Halves | null } {
    const { solution, verdict } = judgeTarget(g, events, targetId);
    return { slops: slopsOf(solution, verdict), halves: namedHalves(solution) };
  },
  /** What was read again after the vehicle had learned; slots cannot travel, their names do. */
  witness(
    g: CalibrationGround,
    events: JobEvent[],
    targetId: string,
  ): (Omit<Witness, "plan"> & { asked: { id: string; name: string }[]; finds: number }) | null {
    const w = witnessOf(g, events, targetId);
    if (!w) return null;
    const { plan, ...rest } = w;
    return {
      ...rest,
      asked: plan.slots.map(({ id, name }) => ({ id, name })),
      finds: plan.share,
    };
  },
  /** How old the proof is, and what it is still worth. */
  age: (
    g: CalibrationGround,
    events: JobEvent[],
    targetId: string,
    sights: DriftSight[],
    now: number,
  ): Age | null => ageOf(g, events, targetId, learnDrift(sights), new Date(now)),
};
export type Proof = typeof proof;
expose(proof);
