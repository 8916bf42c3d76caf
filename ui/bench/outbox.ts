import type { EventBody, JobEvent, TabletEvent } from "@/core/job";

/** Something written on this tablet that the server has not confirmed yet. */
export type Pending = {
  id: string;
  takenAt: string;
  /** The last place of the log this tablet had seen when it was written: what it was written in knowledge of. */
  baseSeq: number;
  /** What is sent. */
  send: TabletEvent;
  /** What it looks like meanwhile (a settlement is judged here first and by the server again). */
  show: EventBody;
};

const key = (jobId: string): string => `iridel:outbox:${jobId}`;

/** The outbox survives reload and crash: it is written before anything is sent. */
export function loadOutbox(jobId: string): Pending[] {
  try {
    return JSON.parse(localStorage.getItem(key(jobId)) ?? "[]") as Pending[];
  } catch {
    return [];
  }
}

export function saveOutbox(jobId: string, pending: Pending[]): void {
  if (pending.length > 0) localStorage.setItem(key(jobId), JSON.stringify(pending));
  else localStorage.removeItem(key(jobId));
}

/** Written by the shop itself while it carried out what this person asked of the scan tool. */
const byTool = (e: JobEvent): boolean => e.body.kind === "run" || e.body.kind === "scan";

/**
 * Whether what one person wrote at once in two places can simply stand one after the other: answers of the scan tool they
 * asked stand beside anything; readings on two devices stand beside readings, since nothing was touched between them.
 *
 * @param mine what this tablet wants to write
 * @param theirs what it had not seen when it was written
 */
export const goTogether = (mine: readonly Pick<Pending, "send">[], theirs: readonly JobEvent[], me: string): boolean =>
  theirs.every((e) => e.by.id === me) &&
  (theirs.every(byTool) ||
    (theirs.every((e) => byTool(e) || e.body.kind === "reading") && mine.every((p) => p.send.kind === "reading")));

export type SendResult =
  | { kind: "written"; events: JobEvent[] }
  | { kind: "conflict"; missing: JobEvent[] }
  /** The server understood and said no; sending again is no use. */
  | { kind: "refused"; message: string }
  /** Not reached, or signed out: keep it and try again. */
  | { kind: "unreachable"; message: string };

/** Sends what is pending. Sending the same again is harmless: the server knows events by their id. */
export async function sendEvents(jobId: string, pending: Pending[]): Promise<SendResult> {
  const events = pending.map(({ id, takenAt, send }) => ({ id, takenAt, body: send }));
  const baseSeq = Math.min(...pending.map((p) => p.baseSeq));
  let response: Response;
  try {
    response = await fetch(`/api/jobs/${jobId}/events`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ baseSeq, events }),
    });
  } catch {
    return {
      kind: "unreachable",
      message: "No connection to the shop. Kept on this tablet; it is sent when the shop answers.",
    };
  }
  const body = (await response.json().catch(() => ({}))) as {
    error?: string;
    events?: JobEvent[];
    missing?: JobEvent[];
  };
  if (response.ok && body.events) return { kind: "written", events: body.events };
  if (response.status === 409 && body.missing) return { kind: "conflict", missing: body.missing };
  if (response.status === 400 || response.status === 403 || response.status === 422)
    return { kind: "refused", message: body.error ?? "The shop refused this." };
  return {
    kind: "unreachable",
    message: body.error ?? "The shop does not answer. Kept on this tablet; it is sent when the shop answers.",
  };
}

/** Asks what others have written since. Null when the shop does not answer. */
export async function fetchEvents(
  jobId: string,
  after: number,
): Promise<{ events: JobEvent[]; others: { name: string; initials: string }[] } | null> {
  try {
    const response = await fetch(`/api/jobs/${jobId}/events?after=${after}`, { cache: "no-store" });
    return response.ok
      ? ((await response.json()) as { events: JobEvent[]; others: { name: string; initials: string }[] })
      : null;
  } catch {
    return null;
  }
}
