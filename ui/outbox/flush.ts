import type { JobEvent } from "@/core/job";
import type { Line } from "./lines";
import { CHUNK, nextChunk, ownEnd, sendLines, type Outcome } from "./send";
import { changeLines, giveLease, linesOf, noteSeen, seenBy, takeLease } from "./storage";

export type Flushed =
  | { kind: "done"; clockOffS: number }
  /** Another tab of this tablet is sending. */
  | { kind: "elsewhere" }
  /**
   * Nothing could be sent; the message is what the shop itself says of it, null where it does not
   * answer.
   */
  | { kind: "offline"; message: string | null }
  /** Others wrote first: theirs is shown, ours waits for a decision. */
  | { kind: "conflict"; theirs: JobEvent[] };

export type FlushTask = {
  jobId: string;
  /** Whose lines are sent. */
  authorId: string;
  /** What lets this tablet send another person's lines; null for one's own. */
  handedOn: string | null;
  absorb: (events: JobEvent[]) => void;
  /** Told of a target that could not be called set after all: that is asked, not written. */
  unsettled: (why: string) => void;
};

/**
 * Keeps what the shop said of each line: written ones leave the tablet, refused ones stay with
 * their reason. A refused settlement holds nothing that was typed: it is said and let go, and the
 * next act says what is lacking.
 */
async function keepAnswer(
  { jobId, unsettled }: Pick<FlushTask, "jobId" | "unsettled">,
  chunk: readonly Line[],
  outcomes: readonly Outcome[],
): Promise<void> {
  const of = new Map(outcomes.map((o) => [o.id, o]));
  await changeLines(jobId, new Set(chunk.map((l) => l.id)), (line) => {
    const answer = of.get(line.id);
    if (answer?.outcome === "written" || answer?.outcome === "known") return null;
    if (answer?.outcome === "refused" && line.send.kind === "settle") {
      unsettled(answer.why);
      return null;
    }
    return answer?.outcome === "refused"
      ? { ...line, state: { kind: "refused", why: answer.why } }
      : line;
  });
}

/** What was written after a post was written in knowledge of it. */
const raiseBase = (jobId: string, authorId: string, seen: number): Promise<void> =>
  changeLines(jobId, null, (l) =>
    l.author?.id === authorId && l.baseSeq < seen ? { ...l, baseSeq: seen } : l,
  );

/**
 * Sends a person's waiting lines, some at a time and in order, until none is left or something
 * stands in the way.
 */
export async function flush(task: FlushTask): Promise<Flushed> {
  const { jobId, authorId, handedOn, absorb } = task;
  if (!(await takeLease(jobId))) return { kind: "elsewhere" };
  let size = CHUNK;
  let clockOffS = 0;
  try {
    for (;;) {
      const seen = seenBy(jobId, authorId);
      const waiting = (await linesOf(jobId)).map((l) => ({
        ...l,
        baseSeq: Math.max(l.baseSeq, seen),
      }));
      const chunk = nextChunk(waiting, authorId, size);
      if (chunk.length === 0) return { kind: "done", clockOffS };
      const result = await sendLines(jobId, chunk, handedOn);
      await takeLease(jobId);
      switch (result.kind) {
        case "answered": {
          ({ clockOffS } = result);
          absorb(result.events);
          await keepAnswer(task, chunk, result.outcomes);
          const own = ownEnd(result.events, authorId);
          if (own !== null) {
            noteSeen(jobId, authorId, own);
            await raiseBase(jobId, authorId, own);
          }
          // A chunk in which nothing moved would be sent again and again.
          if (result.outcomes.every((o) => o.outcome === "held"))
            return { kind: "done", clockOffS };
          break;
        }
        case "conflict":
          absorb(result.missing);
          return {
            kind: "conflict",
            theirs: result.missing.filter((e) => e.by.id !== authorId),
          };
        case "unfit":
          // A post that cannot be taken whole is cut smaller, down to the one line that is at
          // fault.
          if (chunk.length > 1) size = Math.ceil(chunk.length / 2);
          else
            await keepAnswer(task, chunk, [
              { id: chunk[0]!.id, outcome: "refused", why: result.message },
            ]);
          break;
        case "unreachable":
          return { kind: "offline", message: result.message };
      }
    }
  } finally {
    await giveLease(jobId);
  }
}
