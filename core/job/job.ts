import type { RunEvent } from "@/core/run";
import type { ScanEvent } from "@/core/scan";
import type { Intake, Settlement, TabletEvent } from "./events";

/** What the server alone adds. */
export type ServerEvent =
  | { kind: "taken-in"; intake: Intake }
  | { kind: "run"; event: RunEvent; calibrationId?: string | undefined }
  /** `calibrationId`: of the one calibration a command was for; a scan is of the whole vehicle. */
  | { kind: "scan"; event: ScanEvent; calibrationId?: string | undefined }
  /**
   * A record or a report was made and kept as it is, under this hash, by this version of the
   * program.
   */
  | {
      kind: "document";
      document: "record" | "report";
      version: number;
      sha256: string;
      program: string;
    }
  | Settlement;

export type EventBody = Exclude<TabletEvent, { kind: "settle" }> | ServerEvent;

/** One line of a job's append-only log. */
export type JobEvent = {
  /** Made by whoever wrote it, so that sending it twice writes it once. */
  id: string;
  /**
   * 1, 2, 3 ... within the job. Events not yet confirmed by the server carry the place they hope
   * for.
   */
  seq: number;
  /** UTC, ISO: when it was done, by the shop's clock. */
  at: string;
  /**
   * When the shop took it in; absent on what the shop has not confirmed, and on lines older than
   * the log's chain.
   */
  receivedAt?: string;
  /**
   * How far the clock of the tablet that wrote it was behind the shop's, seconds; absent when it
   * was right.
   */
  clockBehindS?: number;
  /** The last place of the log its writer knew; absent on lines older than its keeping. */
  seen?: number;
  by: { id: string; name: string; initials: string };
  body: EventBody;
};

export type EventOf<K extends EventBody["kind"]> = Omit<JobEvent, "body"> & {
  body: Extract<EventBody, { kind: K }>;
};

const isKind =
  <K extends EventBody["kind"]>(kind: K) =>
  (e: JobEvent): e is EventOf<K> =>
    e.body.kind === kind;

/** All events of one kind, in order. */
export const eventsOf = <K extends EventBody["kind"]>(
  events: readonly JobEvent[],
  kind: K,
): EventOf<K>[] => events.filter(isKind(kind)) as EventOf<K>[];

/** Ids of struck events, with who struck them and why. */
export function strikes(events: readonly JobEvent[]): Map<string, EventOf<"strike">> {
  return new Map(eventsOf(events, "strike").map((e) => [e.body.target, e]));
}

/** The last event of a kind that was not struck. */
export function lastOf<K extends EventBody["kind"]>(
  events: readonly JobEvent[],
  kind: K,
): EventOf<K> | null {
  const struck = strikes(events);
  return eventsOf(events, kind).findLast((e) => !struck.has(e.id)) ?? null;
}

/** The last outcome of each checklist item of a stage, unless struck. */
export function checksOf(
  events: readonly JobEvent[],
  stage: "ready" | "prove",
): Map<string, EventOf<"check">> {
  const struck = strikes(events);
  return new Map(
    eventsOf(events, "check")
      .filter((e) => e.body.stage === stage && !struck.has(e.id))
      .map((e) => [e.body.itemId, e]),
  );
}

/** The last measurement of each item of a stage, unless struck. */
export function measuredOf(
  events: readonly JobEvent[],
  stage: "ready" | "prove" = "ready",
): Map<string, EventOf<"measured">> {
  const struck = strikes(events);
  return new Map(
    eventsOf(events, "measured")
      .filter((e) => (e.body.stage ?? "ready") === stage && !struck.has(e.id))
      .map((e) => [e.body.itemId, e]),
  );
}

/** The log of the scan tool run. */
export const runLogOf = (events: readonly JobEvent[]): RunEvent[] =>
  eventsOf(events, "run").map((e) => e.body.event);

/** The log of scans and of the gateway. */
export const scanLogOf = (events: readonly JobEvent[]): ScanEvent[] =>
  eventsOf(events, "scan").map((e) => e.body.event);

/** The board's check that holds at a stay: no other board was hung since. @param events its own */
export function checkStanding(events: readonly JobEvent[]): EventOf<"board"> | null {
  const last = lastOf(events, "board");
  const rehung =
    last && eventsOf(events, "touch").some((e) => e.seq > last.seq && e.body.touch === "hung");
  return rehung ? null : last;
}

/**
 * The settlement that holds at a stay: nothing there was read, moved, touched or struck since.
 *
 * @param events its own
 */
export function settlementStanding(events: readonly JobEvent[]): EventOf<"settled"> | null {
  const last = eventsOf(events, "settled").at(-1);
  if (!last) return null;
  const readings = new Set(eventsOf(events, "reading").map((e) => e.id));
  const disturbed = events.some(
    (e) =>
      e.seq > last.seq &&
      (["reading", "move", "touch", "rear-toe"].includes(e.body.kind) ||
        (e.body.kind === "strike" && readings.has(e.body.target))),
  );
  return disturbed ? null : last;
}

/** The hand-over that stands: none was made, or the job was opened again since, gives null. */
export function standingHandOver(events: readonly JobEvent[]): EventOf<"hand-over"> | null {
  const last = eventsOf(events, "hand-over").at(-1) ?? null;
  return last && eventsOf(events, "reopen").some((e) => e.seq > last.seq) ? null : last;
}
