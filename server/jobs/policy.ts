import { bayFirst } from "@/core/sheet/methods";
import { ANY_DRIVE, leavingProblem } from "@/core/drive/policy";
import {
  calibrationLog,
  calibrationIn,
  eventsOf,
  freeStands,
  itemLacks,
  boardUnchecked,
  judgeTarget,
  itemOf,
  movesVehicle,
  planFor,
  readOdometer,
  runOf,
  SCOPES,
  settlementOf,
  hasTarget,
  standingAt,
  standsBeside,
  standAt,
  standingHandOver,
  typedFigures,
  targetInHand,
  viewOf,
  type CalibrationGround,
  type EventBody,
  type JobEvent,
  type TabletEvent,
  codesAfter,
  releaseOf,
  releaseProblem,
  bayStandX,
} from "@/core/job";
import { drivesOf } from "@/core/job/driven";
import { bayFloorsOf } from "@/core/job/parked";
import { floorAtPose } from "@/core/space/room";
import { wallsAbout } from "@/core/space/walls-about";
import { roadTrials } from "@/core/job/road-check";
import { checkBoard } from "@/core/kit";
import {
  BAY_FLOOR_DAYS,
  bayFloorAge,
  fieldsFor,
  readFields,
  valuesFromBay,
  foundOf,
} from "@/core/ready";
import {
  isByHand,
  namedHalves,
  nominalTarget,
  suffers,
  takeReading,
  type Move,
} from "@/core/setout";
import { placeName, targetOf, targetsOf, type CheckItem } from "@/core/sheet";
import { GLASS_SPOTS } from "@/core/vehicle";
import type { Person, Role } from "../auth/session";
import { shopBays } from "../bays/store";
import { photoExists } from "../photos/store";
import { isAsLeft, standLeft } from "./stand-left";
import type { JobRow } from "./store";
import { JobRefusal } from "./refusal";

/**
 * What a line is judged by: the job, its log up to this line, who writes, and whether from a phone
 * at the stand.
 */
export type Circumstances = { job: JobRow; events: readonly JobEvent[]; person: Person };

/** The same with what the line is of: its calibration, and its target where it has one. */
type Place = Circumstances & { view: CalibrationGround; targetId: string };

type Item = CheckItem;
type Body<K extends TabletEvent["kind"]> = Extract<TabletEvent, { kind: K }>;

/** What holds for one kind of line a tablet may send. */
type Policy<K extends TabletEvent["kind"]> = {
  roles: readonly Role[];
  /** Whether a phone that joined at the stand may write it. */
  phone: boolean;
  /** Whether it may be written once the job is handed over. */
  afterHandOver: boolean;
  /**
   * The line as it is written: every figure is the server's own. @throws JobRefusal naming the
   * field and the remedy
   */
  derive: (body: Body<K>, c: Place) => EventBody;
};

const WORK: readonly Role[] = ["technician", "lead"];
const asSent = (body: EventBody): EventBody => body;
const refuse = (why: string): never => {
  throw new JobRefusal(why);
};

const stand = { roles: WORK, phone: true, afterHandOver: false } as const;
const desk = { roles: WORK, phone: false, afterHandOver: false } as const;

/** Lines that a person may strike. */
const STRIKABLE = new Set<EventBody["kind"]>([
  "reading",
  "move",
  "touch",
  "kept",
  "parked",
  "check",
  "owed-decline",
  "owed-done",
  "owed-add",
  "measured",
  "put-right",
  "glass",
  "walk",
  "photo",
  "consent",
  "rear-toe",
  "board",
  "code-word",
  "road-check",
  "lamps-now",
  "drive-end",
  "hold",
  "hold-lifted",
  "sign-off",
  "second-look",
]);

/** One row for every kind: who, from where, when, about what, and how it becomes a line. */
export const POLICIES: { [K in TabletEvent["kind"]]: Policy<K> } = {
  reading: { ...stand, derive: deriveReading },
  touch: { ...stand, derive: deriveTouch },
  move: { ...stand, derive: deriveMove },
  kept: { ...stand, phone: false, derive: deriveKept },
  position: { ...stand, phone: false, derive: derivePosition },
  settle: { ...stand, derive: deriveSettlement },
  school: { ...stand, derive: asSent },
  "rear-toe": { ...stand, derive: asSent },
  board: { ...stand, derive: deriveBoard },
  bump: { ...stand, phone: false, derive: deriveBump },
  strike: { ...stand, derive: deriveStrike },
  check: { ...desk, derive: deriveCheck },
  "put-right": { ...desk, derive: derivePutRight },
  measured: { ...desk, derive: deriveMeasured },
  glass: { ...desk, derive: deriveGlass },
  walk: { ...desk, derive: deriveWalk },
  photo: { ...desk, derive: derivePhoto },
  consent: { ...desk, derive: deriveConsent },
  "owed-decline": { ...desk, derive: asSent },
  "owed-done": { ...desk, derive: asSent },
  "owed-add": { ...desk, derive: asSent },
  pause: { ...desk, derive: asSent },
  resume: { ...desk, derive: asSent },
  instrument: { ...stand, derive: deriveInstrument },
  "code-word": { ...desk, derive: deriveCodeWord },
  "road-check": { ...desk, derive: deriveRoadCheck },
  "lamps-now": { ...desk, derive: asSent },
  parked: { ...desk, derive: deriveParked },
  "drive-leave": { ...desk, derive: deriveDriveLeave },
  "drive-part": { ...desk, derive: deriveDrivePart },
  "drive-end": { ...desk, derive: deriveDriveEnd },
  hold: { ...desk, derive: asSent },
  "hold-lifted": { ...desk, derive: deriveLift },
  "sign-off": { ...desk, derive: deriveSignOff },
  "second-look": { ...desk, derive: deriveSecondLook },
  "hand-over": { ...desk, derive: deriveHandOver },
  reopen: { ...desk, roles: ["lead"], afterHandOver: true, derive: deriveReopen },
};

const policyOf = (kind: TabletEvent["kind"]): Policy<never> =>
  POLICIES[kind] as unknown as Policy<never>;

/**
 * Judges one line against the one table and makes of it what is written.
 *
 * @throws JobRefusal naming the field and the remedy
 */
export function judgeLine(body: TabletEvent, c: Circumstances): EventBody {
  const policy = policyOf(body.kind);
  if (!policy.roles.includes(c.person.role))
    refuse(
      policy.roles.length === 1
        ? `${c.person.name} may not do this. Ask the lead.`
        : `${c.person.name} may look but not write. Ask a technician or the lead.`,
    );
  if (c.person.onlyJob && !policy.phone)
    refuse("A phone at the stand reads, touches and moves. Do this on the tablet.");
  if (!policy.afterHandOver && standingHandOver(c.events))
    refuse("This job is handed over. The lead can open it again for a revision, with a reason.");
  const place = placeOf(body, c);
  return policy.derive({ ...body, ...place.named } as never, { ...c, ...place });
}

/**
 * What a line is of. One that does not say so comes from an older program: it is of the job's first
 * calibration, and of the target that was worked on last.
 *
 * @throws JobRefusal for a calibration or target the job does not have, or one that does not stand
 */
function placeOf(
  body: TabletEvent,
  { job, events }: Circumstances,
): Pick<Place, "view" | "targetId"> & { named: object } {
  const scope = movesVehicle(body) ? "job" : SCOPES[body.kind];
  const asked = calibrationIn(body);
  if (asked !== null && !job.ground.calibrations.some((x) => x.id === asked))
    refuse(`calibration: this job has none called “${asked}”. Reload the page.`);
  const view = viewOf(job.ground, asked);
  const ownCheck =
    (body.kind === "check" || body.kind === "measured" || body.kind === "put-right") &&
    body.stage === "prove";
  if (scope === "job")
    return {
      view,
      targetId: "",
      named: ownCheck ? { calibrationId: view.calibrationId } : {},
    };
  const named = { calibrationId: view.calibrationId };
  if (targetsOf(view.sheet).length === 0)
    refuse(`calibration: ${view.sheet.title} sets nothing out.`);
  if (scope === "calibration") return { view, targetId: "", named };
  const targetId =
    ("targetId" in body ? body.targetId : undefined) ?? targetInHand(view, events).id;
  if (!hasTarget(view, targetId))
    refuse(`target: ${view.sheet.title} has none called “${targetId}”. Reload the page.`);
  if (!standingAt(view, events, targetId))
    refuse(
      `target: nothing stands at ${placeName(view.sheet, targetId)} now. Bring it there first, then read it.`,
    );
  return { view, targetId, named: { ...named, targetId } };
}

/**
 * The figure and its uncertainty come from the typed text and the named instrument, whatever the
 * tablet showed.
 */
function deriveReading(b: Body<"reading">, { view, events, targetId }: Place): EventBody {
  const taken = takeReading(planFor(view, events, targetId), b);
  if (!taken.ok)
    return refuse(`${taken.problem}${taken.guess ? ` Meant as ${taken.guess.text}?` : ""}`);
  return { ...b, shown: taken.shown, sigma: taken.sigma };
}

/** Farther than this no hand moves a stand in one act, and no floor of a bay reaches. */
const FARTHEST_MM = 5000;

/**
 * A move of an adjuster the stand has, no larger than the bay. Where it ended is read, not
 * believed.
 */
function deriveMove(b: Body<"move">, { view, events, targetId }: Place): EventBody {
  const own = standAt(view, events, targetId);
  const target = targetOf(view.sheet, targetId);
  const size = (m: Move): number => {
    switch (m.kind) {
      case "roll":
        return Math.hypot(m.awayMm, m.leftMm);
      case "draw":
        return Math.hypot(m.aheadMm, m.leftMm);
      case "rail":
        return Math.abs(m.leftMm);
      case "slide":
        return Math.abs(m.byMm);
      case "crank":
      case "booster":
        return Math.abs(m.upMm);
      case "level":
        return Math.abs(m.raiseMm);
      case "yaw":
        return Math.abs(m.leftEndMm);
      case "zero":
        return 0;
    }
  };
  for (const m of [b.move, ...b.rest]) {
    if (size(m) > FARTHEST_MM || Math.hypot(m.after.pose.xMm, m.after.pose.yMm) > 40_000)
      refuse(
        `move: nobody moves a stand by ${Math.round(size(m))} mm at once. Say what was moved, then read again.`,
      );
    if (m.kind === "crank" && m.until?.ended !== undefined)
      if (Math.abs(m.until.ended - m.until.shown) > FARTHEST_MM)
        refuse("move: where the crank ended lies out of reach. Read the scale again.");
    if (isByHand(target) !== (m.kind === "draw"))
      refuse(
        isByHand(target)
          ? "move: a mat or a mark has no adjusters; it is drawn by hand."
          : "move: only a mat or a mark is drawn by hand.",
      );
    if (m.kind === "rail" && !target.beam)
      refuse("move: this board hangs on no rail; move its stand.");
    if ("joint" in m && own.joints[m.joint]?.kind !== m.kind)
      refuse(`move: ${own.id} has no such adjuster.`);
    if (m.kind === "zero" && m.adjusters.length !== own.joints.length)
      refuse(`move: ${own.id} has other adjusters.`);
    if (m.kind === "level" && !own.feet[m.foot])
      refuse(`move: ${own.id} has no foot ${m.foot + 1}.`);
    if (
      m.kind === "booster" &&
      m.booster !== null &&
      !own.boosters?.some((x) => x.id === m.booster)
    )
      refuse(`move: ${own.id} has no booster ${m.booster}.`);
  }
  return b;
}

/** A place of the sheet, and a stand of its own where the board before it stays. */
function derivePosition(b: Body<"position">, { view: g, events }: Place): EventBody {
  if (!hasTarget(g, b.to)) return refuse("The sheet has no such place.");
  if (isByHand(targetOf(g.sheet, b.to)))
    return refuse("What lies on the floor needs no bringing: lay or draw it there and read it.");
  const beside = standsBeside(g, b.to);
  const free = freeStands(g, events, b.to);
  if (beside && !free.some((s) => s.id === b.standId))
    return refuse(
      `Stand: the board before stays, so this one needs another stand: ${free.map((s) => s.id).join(", ") || "there is none in this job's kit"}.`,
    );
  if (!beside && b.standId !== undefined)
    return refuse("Stand: this place is set out with the job's own stand.");
  return b;
}

/** The server's own judgement: a tablet asks to settle, it does not say with what figures. */
function deriveSettlement(_: Body<"settle">, { view, events, targetId }: Place): EventBody {
  const judged = judgeTarget(view, events, targetId);
  const { kind } = targetOf(view.sheet, targetId);
  const settlement =
    settlementOf(judged, { calibrationId: view.calibrationId, targetId }) ??
    refuse(`The readings do not prove the ${kind} in place. Follow the next act, then settle.`);
  if (boardUnchecked(view, events, targetId))
    refuse("Check which board hangs first: scan or type its code.");
  return { ...settlement, halves: namedHalves(judged.solution) };
}

/** A mat is neither cranked nor hung. */
function deriveTouch(b: Body<"touch">, { view, targetId }: Place): EventBody {
  if (movesVehicle(b)) return { kind: "touch", touch: b.touch };
  if (!suffers(targetOf(view.sheet, targetId).kind, b.touch))
    refuse("touch: nobody does that to a mat or a mark. Say what was moved.");
  return b;
}

function deriveBoard(b: Body<"board">, { job, view, targetId }: Place): EventBody {
  const { object } = targetOf(view.sheet, targetId);
  const finding = checkBoard(b.code, job.ground.boards ?? [], object);
  if (finding?.kind === "stop" || (finding && !b.reason)) refuse(finding.say);
  return b;
}

/** Somebody walks into the stand: only where the bay is a simulated one. */
function deriveBump(b: Body<"bump">, { job }: Circumstances): EventBody {
  if (job.ground.real) refuse("Only a simulated bay is knocked at the press of a button.");
  return b;
}

function deriveStrike(b: Body<"strike">, { events, person }: Circumstances): EventBody {
  const target = events.find((e) => e.id === b.target);
  if (!target) return refuse("The line to strike is not in this job.");
  if (!STRIKABLE.has(target.body.kind)) return refuse("This line cannot be struck.");
  if (person.onlyJob && target.by.id !== person.id)
    return refuse(
      `The line is ${target.by.name}’s. Strike it on the tablet, not from the phone at the stand.`,
    );
  return b;
}

const itemAt = (c: Pick<Place, "view">, stage: "ready" | "prove", id: string): Item =>
  itemOf(c.view, stage, id) ?? refuse(`item: the sheet has no "${id}" under this stage.`);

/** What is measured is fine, or fixed, only by a measurement that passes. */
function deriveCheck(b: Body<"check">, c: Place): EventBody {
  const item = itemAt(c, b.stage, b.itemId);
  if (b.outcome === "accepted" || b.outcome === "blocks")
    return b.reason ? b : refuse("reason: say why in a few words.");
  const log = b.stage === "prove" ? calibrationLog(c.view, c.events) : c.events;
  const lacks = b.stage === "ready" || item.measure ? itemLacks(c.job.ground, log, item) : null;
  if (lacks) refuse(`${item.ask} ${lacks}`);
  const unsaid = item.measure?.kind === "rescan" ? codesAfter(c.view, log)?.missing.length : 0;
  if (unsaid) refuse(`${item.ask} ${unsaid} of what the last reading shows still needs a word.`);
  return b;
}

function derivePutRight(b: Body<"put-right">, c: Place): EventBody {
  if (!itemAt(c, b.stage ?? "ready", b.itemId).measure)
    refuse("item: this is not measured. Answer it as fixed.");
  return b;
}

/** Values come from the typed texts, field by field. */
function deriveMeasured(b: Body<"measured">, c: Place): EventBody {
  const { measure } = itemAt(c, b.stage ?? "ready", b.itemId);
  if (!measure) return refuse("item: the sheet asks for no measurement there.");
  if (b.bay) return keptFloor(b, c);
  const read = readFields(fieldsFor(measure, c.job.ground.vehicle), b.typed);
  if (!read.ok) return refuse(read.problem);
  const untold = Object.keys(b.values).find((id) => !(id in read.values));
  if (untold) return refuse(`${untold}: a value came without what was typed. Type it again.`);
  // Whatever the tablet made of it.
  const found = foundOf(measure, read.values, c.job.ground.vehicle);
  const { found: _, ...rest } = b;
  return { ...rest, values: read.values, ...(found ? { found } : {}) };
}

/** A bay's kept floor: the figures are the shop's own, and as old as they are. */
function keptFloor(b: Body<"measured">, { job, view, events }: Place): EventBody {
  const { vehicle } = job.ground;
  const floor = bayFloorsOf(job.ground, events).find((f) => f.bay === b.bay!.name);
  const days = floor ? bayFloorAge(floor, new Date().toISOString()) : Infinity;
  if (!floor || itemAt({ view }, "ready", b.itemId).measure?.kind !== "floor")
    return refuse("bay: no floor of that bay is kept for this job. Read it at the wheels.");
  if (bayStandX(job.ground, events) === null)
    return refuse("bay: that floor was read before the vehicle. Read it where the stand stands.");
  if (days > BAY_FLOOR_DAYS)
    return refuse(`bay: the floor of ${floor.bay} was read too long ago. Read it anew.`);
  const values = valuesFromBay(
    floor,
    vehicle,
    nominalTarget(planFor(view, events, targetInHand(view, events).id)).xMm,
  );
  return {
    kind: "measured",
    itemId: b.itemId,
    values,
    typed: {},
    bay: { name: floor.bay, days: Math.max(0, days) },
  };
}

/** Where a stand about stands ahead of the front axle as long as no sheet says it, mm. */
const USUAL_STAND_MM = 2800;
/** A seating depth beyond this is no seat. */
const DEEPEST_MM = 60;

function deriveGlass(b: Body<"glass">): EventBody {
  for (const [spot, depth] of Object.entries(b.depths)) {
    if (!(GLASS_SPOTS as readonly string[]).includes(spot))
      refuse(`${spot}: there is no such place on the glass.`);
    if (Math.abs(depth) > DEEPEST_MM)
      refuse(`${spot}: ${depth} mm is no seating depth. Type it in millimetres.`);
  }
  return b;
}

function deriveWalk(b: Body<"walk">): EventBody {
  const km = readOdometer(b.odometerTyped);
  return km === null
    ? refuse("odometer: type it as it stands, such as 84 210, with mi for miles.")
    : { ...b, odometerKm: km };
}

function derivePhoto(b: Body<"photo">): EventBody {
  if (!photoExists(b.photo)) refuse("The photo did not arrive. Send it again.");
  return b;
}

/** A signature is a few hundred points; more is no pen. */
const MOST_POINTS = 6000;

function deriveConsent(b: Body<"consent">): EventBody {
  if (b.strokes.reduce((n, s) => n + s.length, 0) > MOST_POINTS)
    refuse("signature: it is too long. Sign again.");
  return b;
}

/** A stand is taken over as another job left it, by the shop's own figures, before anything is done to it. */
function deriveKept(b: Body<"kept">, { job, view, events, targetId }: Place): EventBody {
  if (standingAt(view, events, targetId)?.begun)
    return refuse(
      "Untouched stand: this one was read or moved in this job already. Go on reading.",
    );
  if (!isAsLeft(b, standLeft(job, view, events, targetId, new Date())))
    return refuse("Untouched stand: it was worked with since. Set it out anew.");
  return b;
}

/** What is taken in hand is of this job's kit. */
function deriveInstrument(b: Body<"instrument">, { view }: Place): EventBody {
  if (!view.instruments.some((i) => i.id === b.instrumentId))
    refuse(`instrument: ${b.instrumentId} is not in this job's kit. Choose one of its own.`);
  return b;
}

/** A word is of something that the last reading shows. */
function deriveCodeWord(b: Body<"code-word">, { view, events }: Place): EventBody {
  const codes = codesAfter(view, events);
  if (!codes?.after) return refuse("Codes: read the control units again after the routine first.");
  const row = codes.units.find((u) => u.id === b.unit);
  if (!row || (b.code !== null && !row.codes.some((c) => c.code === b.code)))
    return refuse(`Codes: the last reading shows no ${b.code ?? "such unit"}. Read again.`);
  return { ...b, name: row.name };
}

/** What is tried hangs on what the job calibrated; one that fails says how. */
function deriveRoadCheck(b: Body<"road-check">, { job, events }: Circumstances): EventBody {
  const trial = roadTrials(job.ground, events).find((t) => t.id === b.functionId);
  if (!trial) return refuse("Road check: nothing of that function was calibrated in this job.");
  if (b.result !== "works" && b.remark.length < 3)
    return refuse(`${trial.name}: say in a few words how it did, or why it was not tried.`);
  return b;
}

/** Where it stands is said of a bay the shop has; its floor there is the shop's own survey. */
function deriveParked(b: Body<"parked">, { job, events }: Place): EventBody {
  const bay = shopBays().find((x) => x.id === b.bay);
  if (!bay) return refuse("bay: the shop has no such bay any more. Look at Owed again.");
  const { xMm, yMm, headingRad } = b;
  const { vehicle } = job.ground;
  const standX = bayStandX(job.ground, events) ?? vehicle.wheelbaseMm + USUAL_STAND_MM;
  const floor = floorAtPose(bay, vehicle, { xMm, yMm, headingRad }, standX);
  const pose = { xMm, yMm, headingRad };
  const walls = wallsAbout(bay, pose);
  return { kind: "parked", bay: bay.id, name: bay.name, ...pose, floor, walls };
}

/** Who leaves has what the drive needs; what the sheet and the shop ask holds here as on the tablet. */
function deriveDriveLeave(b: Body<"drive-leave">, { events, view }: Place): EventBody {
  const { sheet, vehicle, drivePolicy } = view;
  if (sheet.method === "static")
    return refuse("Drive: the sheet asks for none. Nothing was written.");
  if (drivesOf(view, events).some((d) => d.id === b.driveId))
    return refuse("Drive: this one has begun already. Begin another.");
  if (bayFirst(sheet.method) && runOf(view, events).state.status !== "passed")
    return refuse("Drive: what is done in the bay comes first. Run it, then drive.");
  if (view.real && b.source === "made-up")
    return refuse("Drive: this shop’s jobs are real. Take the place from the tablet’s receiver.");
  const problem = leavingProblem(b, {
    gateway: vehicle.gateway,
    keeps: sheet.drive?.keeps,
    policy: drivePolicy ?? ANY_DRIVE,
  });
  return problem ? refuse(`Drive: ${problem}`) : b;
}

/** Parts of a drive come in the order they were driven, until it is over. */
function deriveDrivePart(b: Body<"drive-part">, { events, view }: Place): EventBody {
  if (view.sheet.method === "static")
    return refuse("Drive: the sheet asks for none. Nothing was written.");
  const drive = drivesOf(view, events).find((d) => d.id === b.driveId);
  if (drive?.end) return refuse("Drive: this one is over. Begin another.");
  return b;
}

/** Who drove is on the record; what ended without the vehicle's word says why. */
function deriveDriveEnd(b: Body<"drive-end">, { events, view }: Place): EventBody {
  if (view.sheet.method === "static")
    return refuse("Drive: the sheet asks for none. Nothing was written.");
  if (drivesOf(view, events).some((d) => d.id === b.driveId && d.end))
    return refuse("Drive: this one is over already. Begin another.");
  if (b.drove.length < 2) return refuse("Drive: say who drove.");
  if (b.outcome !== "learned" && b.remark.length < 3)
    return refuse("Drive: say in a few words why it ended.");
  const bay = bayFirst(view.sheet.method);
  if (b.outcome === "learned" && bay && runOf(view, events).state.status !== "passed")
    return refuse("Drive: what is done in the bay comes first. Run it, then drive.");
  return b;
}

/** Nobody is a second person to what he typed himself. */
function deriveSecondLook(b: Body<"second-look">, { events, person, view }: Place): EventBody {
  const figures = typedFigures(view, events);
  if (!figures) return refuse("Second look: the figures of this job come from the shop's books.");
  if (figures.typed.by.id === person.id)
    return refuse(
      `Second look: ${person.name} typed these figures. Have a colleague sign in and compare them.`,
    );
  return b;
}

/** Some work must stand behind a hand-over. */
const WORKED = new Set<EventBody["kind"]>([
  "reading",
  "check",
  "measured",
  "run",
  "scan",
  "owed-decline",
  "owed-done",
  "settled",
  "glass",
  "drive-end",
]);

function deriveLift(b: Body<"hold-lifted">, { events, job }: Place): EventBody {
  if (!releaseOf(job.ground, events).held) return refuse("Hold: nobody holds this vehicle back.");
  return b;
}

/** A signature is of a record that says something. */
function deriveSignOff(b: Body<"sign-off">, { events }: Place): EventBody {
  if (!events.some((e) => WORKED.has(e.body.kind)))
    return refuse("Signature: nothing was done on this job yet.");
  return b;
}

function deriveHandOver(b: Body<"hand-over">, { events, job, person }: Circumstances): EventBody {
  const problem = releaseProblem(releaseOf(job.ground, events), person);
  if (problem) return refuse(`${problem.say} ${problem.remedy}`);
  if (!events.some((e) => WORKED.has(e.body.kind)))
    refuse(
      "Nothing was done on this job yet. Work on it, or decline what is owed with a reason, then hand it over.",
    );
  return b;
}

function deriveReopen(b: Body<"reopen">, { events }: Circumstances): EventBody {
  if (!standingHandOver(events))
    refuse("This job is not handed over; it can be worked on as it is.");
  if (eventsOf(events, "hand-over").length > 98)
    refuse("This job was opened again too often. Take it in anew.");
  return b;
}
