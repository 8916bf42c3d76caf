import type { Cause, DriveProgress } from "./qualify";
import type { DrivePlan } from "./plan";
import type { DriveRules } from "./rules";

/** What is left of a drive that is under way, as it looks now. */
export type Advice = {
  /** Expected seconds until it is back, with what has to be driven once more where the way is too short. */
  restS: number;
  /** Seconds that will be lacking at its end where nothing is driven twice; 0 where it will do. */
  lacksS: number;
  /** Why it is better given up; null where it is not. */
  giveUp: "too-long" | "time-out" | null;
  /** What cost most so far. */
  dearest: Cause | null;
};

/** A drive is better given up when it is expected to go on for longer than this, seconds. */
export const REST_LIMIT_S = 25 * 60;
/** Nothing is foretold from less than this, seconds. */
const AFTER_S = 180;

/** Seconds that are wanted, or metres as seconds of the plan's own pace. */
function inSeconds(
  { enough }: DriveRules,
  counted: { countS: number; countM: number },
  pace: number,
) {
  const wantS = enough.seconds ?? enough.metres! / pace;
  const hasS = enough.seconds === undefined ? counted.countM / pace : counted.countS;
  return { wantS, hasS };
}

/**
 * What is to be expected of the rest of a drive: the plan for the way that is left, as far as it went so
 * far for what has to be driven once more.
 *
 * @param passedS since it left
 */
export function adviceOn(
  plan: Pick<DrivePlan, "seconds" | "metres" | "expected">,
  rules: DriveRules,
  progress: DriveProgress,
  passedS: number,
): Advice | null {
  if (passedS < AFTER_S || progress.status === "done" || progress.status === "timed-out")
    return null;
  const pace = plan.metres / plan.seconds;
  const counted = { countS: progress.seconds, countM: progress.metres };
  const { wantS, hasS } = inSeconds(rules, counted, pace);
  const at = plan.expected.find((e) => e.seconds >= passedS) ?? plan.expected.at(-1)!;
  const end = plan.expected.at(-1)!;
  const gains = inSeconds(rules, end, pace).hasS - inSeconds(rules, at, pace).hasS;
  const lacksS = Math.max(0, wantS - hasS - Math.max(0, gains));
  // Of the seconds so far so many counted; the plan's share stands for a few minutes of them.
  const planned = inSeconds(rules, end, pace).hasS / plan.seconds;
  const everS = hasS + progress.losses.reduce((s, l) => s + l.seconds, 0);
  const rate = Math.max(0.02, (everS + planned * AFTER_S) / (passedS + AFTER_S));
  const restS = Math.max(0, plan.seconds - passedS) + lacksS / rate;
  const out = rules.timeOutS;
  const tooLate = out !== undefined && passedS + (wantS - hasS) / rate > out;
  const costs = Object.entries(progress.cost) as [Cause, number][];
  return {
    restS,
    lacksS,
    giveUp: tooLate ? "time-out" : restS > REST_LIMIT_S ? "too-long" : null,
    dearest: costs.length > 0 ? costs.reduce((a, b) => (b[1] > a[1] ? b : a))[0] : null,
  };
}
