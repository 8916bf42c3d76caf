import { planOwed, type OwedPlan } from "@/core/owed";
import type { JobGround } from "./ground";
import type { JobEvent } from "./job";
import { owedLines, type JobOwedLine } from "./owed";

export type JobOwed = { lines: JobOwedLine[]; plan: OwedPlan | null; problem: string | null };

/** What a job owes, and the order it is done in; the problem where the shop's orders contradict it. */
export function jobOwed(ground: JobGround, events: readonly JobEvent[]): JobOwed {
  const lines = owedLines(ground, events);
  try {
    return {
      lines,
      plan: planOwed(
        lines.filter((l) => !l.declined),
        ground.ruleBook,
      ),
      problem: null,
    };
  } catch (error) {
    return { lines, plan: null, problem: error instanceof Error ? error.message : String(error) };
  }
}
