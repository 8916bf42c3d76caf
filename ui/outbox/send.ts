import { isHeldBy, type JobEvent } from "@/core/job";
import type { Line } from "./lines";

/** Lines in one post. The shop takes fifty. */
export const CHUNK = 40;

export type Outcome =
  | { id: string; outcome: "written" | "known" }
  | { id: string; outcome: "refused"; why: string }
  | { id: string; outcome: "held"; by: string };

export type SendResult =
  | { kind: "answered"; events: JobEvent[]; outcomes: Outcome[]; clockOffS: number }
  | { kind: "conflict"; missing: JobEvent[] }
  /** The shop took this post for none at all; a smaller one may do. */
  | { kind: "unfit"; message: string }
  /**
   * Signed out, or the shop cannot write, as it says itself; null where nothing answered. Keep all
   * of it and try again.
   */
  | { kind: "unreachable"; message: string | null };

/** The refused line a line has to wait behind, or null. */
export const heldBehind = (line: Line, all: readonly Line[]): Line | null =>
  all.find((x) => x.n < line.n && x.state.kind === "refused" && isHeldBy(line.send, x.send)) ??
  null;

/** What is to be sent next in a person's name: the first lines that wait for nothing, in order. */
export const nextChunk = (all: readonly Line[], authorId: string, size = CHUNK): Line[] =>
  all
    .filter(
      (l) => l.state.kind === "waiting" && l.author?.id === authorId && heldBehind(l, all) === null,
    )
    .slice(0, size);

/**
 * Up to where a log was one person's own writing after what this tablet had seen of it; null where
 * others wrote first.
 */
export function ownEnd(events: readonly JobEvent[], me: string): number | null {
  const foreign = events.findIndex((e) => e.by.id !== me);
  return (foreign < 0 ? events : events.slice(0, foreign)).at(-1)?.seq ?? null;
}

export const SILENT =
  "No connection to the shop. Kept on this tablet; it is sent when the shop answers.";

/**
 * Sends lines of one author. Sending the same again is harmless: the shop knows lines by their id.
 *
 * @param handedOn what lets this tablet send another person's lines
 */
export async function sendLines(
  jobId: string,
  lines: readonly Line[],
  handedOn: string | null,
): Promise<SendResult> {
  const events = lines.map(({ id, takenAt, send }) => ({ id, takenAt, body: send }));
  const baseSeq = Math.min(...lines.map((l) => l.baseSeq));
  const sentAt = new Date().toISOString();
  const post = { baseSeq, sentAt, events, ...(handedOn && { handedOn }) };
  const response = await fetch(`/api/jobs/${jobId}/events`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(post),
  }).catch(() => null);
  if (!response) return { kind: "unreachable", message: null };
  const body = (await response.json().catch(() => ({}))) as {
    error?: string;
    events?: JobEvent[];
    outcomes?: Outcome[];
    missing?: JobEvent[];
    now?: string;
  };
  if (response.ok && body.events && body.outcomes) {
    const clockOffS = body.now ? Math.round((Date.parse(body.now) - Date.parse(sentAt)) / 1000) : 0;
    return { kind: "answered", events: body.events, outcomes: body.outcomes, clockOffS };
  }
  if (response.status === 409 && body.missing) return { kind: "conflict", missing: body.missing };
  if ([400, 413, 422].includes(response.status))
    return { kind: "unfit", message: body.error ?? "The shop refused this." };
  return { kind: "unreachable", message: body.error ?? null };
}

/** Asks what others have written since. @throws Error when the shop does not answer */
export async function fetchEvents(
  jobId: string,
  after: number,
): Promise<{ events: JobEvent[]; others: { name: string; initials: string }[] }> {
  const response = await fetch(`/api/jobs/${jobId}/events?after=${after}`, { cache: "no-store" });
  if (!response.ok) throw new Error(`The shop answers ${response.status}.`);
  return (await response.json()) as {
    events: JobEvent[];
    others: { name: string; initials: string }[];
  };
}
