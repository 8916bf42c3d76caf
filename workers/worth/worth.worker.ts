import { expose } from "comlink";
import { changed, worthOf, type Change, type Runs, type Worth } from "@/core/kit/worth";
import type { SetOutPlan } from "@/core/setout";
import { installFloorSlots } from "@/core/setout/floor-slots";
import { replaySetOut } from "@/devices/bench/replay";

installFloorSlots();

/** Times a set-out is gone through: half of them choose, half of them count. */
const RUNS = 6;

/** Seconds of a plan's runs; they are the same whenever they are asked for. */
const seconds = (plan: SetOutPlan, seed: string): (number | null)[] =>
  Array.from({ length: RUNS }, (_, n) => {
    const { set, seconds } = replaySetOut(plan, `worth/${seed}/${n}`);
    return set ? seconds : null;
  });

let before: (number | null)[][] = [];
let plans: SetOutPlan[] = [];

const worth = {
  /** Goes through the set-outs as they were. @returns minutes of each in the mean */
  asTheyWere(sample: SetOutPlan[]): number[] {
    plans = sample;
    before = sample.map((plan, i) => seconds(plan, String(i)));
    return before.map((runs) => {
      const set = runs.filter((s) => s !== null);
      return set.length > 0 ? set.reduce((a, b) => a + b, 0) / set.length / 60 : NaN;
    });
  },
  /** Goes through them with a change. */
  with(change: Change): Worth {
    const runs = plans.map((plan, i): Runs | null => {
      const other = changed(plan, change);
      return other && { before: before[i]!, after: seconds(other, String(i)) };
    });
    return worthOf(runs, change.kind !== "finer");
  },
};

export type WorthWorker = typeof worth;
expose(worth);
