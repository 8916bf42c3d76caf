import { targetOf, type Target } from "@/core/sheet";
import { isByHand } from "@/core/setout";
import type { TabletEvent } from "./events";
import { viewOf, type JobGround } from "./ground";
import type { EventBody, JobEvent } from "./job";

/** What a kind of line is about: one target, one calibration, or the job as a whole. */
export type LineScope = "target" | "calibration" | "job";

/** One row for every kind of line a tablet may write. */
export const SCOPES: Record<TabletEvent["kind"], LineScope> = {
  reading: "target",
  touch: "target",
  move: "target",
  kept: "target",
  board: "target",
  bump: "target",
  settle: "target",
  position: "calibration",
  school: "calibration",
  strike: "job",
  "rear-toe": "job",
  check: "job",
  "put-right": "job",
  measured: "job",
  glass: "job",
  walk: "job",
  photo: "job",
  consent: "job",
  "owed-decline": "job",
  "owed-done": "job",
  "owed-add": "job",
  pause: "job",
  resume: "job",
  "code-word": "job",
  "road-check": "job",
  "lamps-now": "job",
  parked: "job",
  "drive-leave": "calibration",
  "drive-part": "calibration",
  "drive-end": "calibration",
  hold: "job",
  "hold-lifted": "job",
  "sign-off": "job",
  "second-look": "job",
  instrument: "job",
  "hand-over": "job",
  reopen: "job",
};

type Named = { calibrationId?: string | undefined; targetId?: string | undefined };

/** Which calibration a line belongs to; null where it is the job's, or does not say. */
export const calibrationIn = (body: EventBody | TabletEvent): string | null =>
  (body as Named).calibrationId ?? null;

/** Which target a line is of; a change of place is of the one that is gone to. */
export const targetIn = (body: EventBody | TabletEvent): string | null =>
  body.kind === "position" ? body.to : ((body as Named).targetId ?? null);

/** Whether the vehicle itself was moved: that reaches everything that stands about it. */
export const movesVehicle = (body: EventBody | TabletEvent): boolean =>
  (body.kind === "touch" && body.touch === "moved-car") ||
  (body.kind === "rear-toe" && body.how === "rolled");

/** Kinds the shop itself writes about a target or a calibration. */
const OWN_SCOPES: Partial<Record<EventBody["kind"], LineScope>> = {
  settled: "target",
  run: "calibration",
};

const scopeIn = (body: EventBody): LineScope =>
  movesVehicle(body)
    ? "job"
    : "stage" in body && body.stage === "prove"
      ? "calibration"
      : (OWN_SCOPES[body.kind] ?? SCOPES[body.kind as TabletEvent["kind"]] ?? "job");

/**
 * A log in which every line says what it is of. Older ones did not: there a job had one calibration,
 * and a line was of the target that was last gone to.
 *
 * @param ground the documents of the job
 * @param events the log from its beginning, in order
 */
export function scopedLog(ground: JobGround, events: readonly JobEvent[]): JobEvent[] {
  const at = new Map<string, string>();
  return events.map((e): JobEvent => {
    const scope = scopeIn(e.body);
    const calibrationId = calibrationIn(e.body) ?? ground.calibrations[0]!.id;
    if (e.body.kind === "position") at.set(calibrationId, e.body.to);
    if (scope === "job" || (calibrationIn(e.body) !== null && scope === "calibration")) return e;
    const { sheet } = viewOf(ground, calibrationId);
    const targetId =
      scope === "target"
        ? (targetIn(e.body) ?? at.get(calibrationId) ?? sheet.setups[0]?.targets[0]?.id)
        : undefined;
    const body = {
      ...e.body,
      calibrationId,
      ...(targetId ? { targetId } : {}),
      // There, to turn to a place was to roll the stand to it.
      ...(e.body.kind === "position" ? { anew: true } : {}),
    } as EventBody;
    return { ...e, body };
  });
}

/** What a line names, so that two lines can be compared: its target's carrier or calibration. */
type Subject = { vehicle: true } | { calibrationId: string | null; carrier: string | null };

/**
 * What carries a target. Hands are nobody else's; boards of one beam share it; of other boards each
 * is a carrier's own while it stands there.
 */
const carrierOf = (ground: JobGround, calibrationId: string | null, targetId: string): string => {
  const { sheet } = viewOf(ground, calibrationId);
  const target: Target | undefined =
    sheet.setups.length > 0 ? targetOf(sheet, targetId) : undefined;
  return target?.beam && !isByHand(target) ? "beam" : targetId;
};

function subjectOf(ground: JobGround, body: EventBody | TabletEvent): Subject {
  if (movesVehicle(body)) return { vehicle: true };
  const calibrationId = calibrationIn(body);
  const target = targetIn(body);
  return { calibrationId, carrier: target && carrierOf(ground, calibrationId, target) };
}

/** What does not say what it is of may be of anything. */
const sameOrUnsaid = (a: string | null, b: string | null): boolean =>
  a === null || b === null || a === b;

const sameCarrier = (a: Subject, b: Subject): boolean =>
  "vehicle" in a ||
  "vehicle" in b ||
  (sameOrUnsaid(a.calibrationId, b.calibrationId) && sameOrUnsaid(a.carrier, b.carrier));

/** Whether two lines are of one carrier, or one of them reaches everything. */
export const ofOneCarrier = (
  ground: JobGround,
  a: EventBody | TabletEvent,
  b: EventBody | TabletEvent,
): boolean => sameCarrier(subjectOf(ground, a), subjectOf(ground, b));

const disturbs = (body: EventBody | TabletEvent): boolean =>
  ["touch", "move", "kept", "position", "bump"].includes(body.kind) || movesVehicle(body);

/** Lines about the job that two people may give different answers to, by what they are about. */
const aboutSame = (a: EventBody | TabletEvent, b: EventBody): boolean => {
  if (a.kind !== b.kind) return false;
  if (a.kind === "strike") return a.target === (b as typeof a).target;
  if (a.kind === "check" || a.kind === "measured" || a.kind === "put-right")
    return (
      a.itemId === (b as typeof a).itemId &&
      sameOrUnsaid(calibrationIn(a), calibrationIn(b)) &&
      (a.stage ?? "ready") === ((b as typeof a).stage ?? "ready")
    );
  if (a.kind === "owed-decline" || a.kind === "owed-done") return a.line === (b as typeof a).line;
  return ["glass", "walk", "rear-toe", "school"].includes(a.kind);
};

/**
 * Whether a line that was written without knowledge of another one has to be decided by its writer.
 * Readings never: a reading counts as taken before a disturbance its reader did not know of. What
 * disturbs or settles conflicts within one carrier, a hand-over with everything. A line that was
 * left out says nothing of a carrier and asks nobody: the shop judges a settlement by the log as it
 * stands, and refuses it if it needed that line.
 *
 * @param body what is to be written
 * @param other what stands in the log, unseen by the writer
 */
export function conflicts(ground: JobGround, body: TabletEvent, other: EventBody): boolean {
  if (body.kind === "reading") return false;
  if (body.kind === "hand-over" || body.kind === "reopen")
    return other.kind !== "document" && other.kind !== "scan";
  if (other.kind === "hand-over" || other.kind === "reopen") return true;
  if (aboutSame(body, other)) return true;
  const same = ofOneCarrier(ground, body, other);
  if (body.kind === "settle")
    return same && (disturbs(other) || ["reading", "settled"].includes(other.kind));
  return disturbs(body) && same && (disturbs(other) || other.kind === "settled");
}

/**
 * What a line leaves open when it is refused: after a touch, a move or a change of place nobody
 * knows what later readings of that carrier were taken of; after a moved vehicle nobody knows it of
 * anything in the job.
 */
export function disturbedBy(body: TabletEvent): LineScope | null {
  if (movesVehicle(body)) return "job";
  return ["touch", "move", "kept", "position"].includes(body.kind) ? "target" : null;
}

/** Whether a line has to wait behind a refused one. */
export function isHeldBy(body: TabletEvent, refused: TabletEvent, ground?: JobGround): boolean {
  const disturbed = disturbedBy(refused);
  if (disturbed !== "target") return disturbed === "job";
  if (SCOPES[body.kind] === "job" && !movesVehicle(body)) return false;
  if (movesVehicle(body)) return true;
  // Lines of an older program do not say what they are of: any of them may be of that carrier.
  if (calibrationIn(body) === null || calibrationIn(refused) === null) return true;
  if (calibrationIn(body) !== calibrationIn(refused)) return false;
  const [a, b] = [targetIn(body), targetIn(refused)];
  if (a === null || b === null) return true;
  return ground ? ofOneCarrier(ground, body, refused) : a === b;
}
