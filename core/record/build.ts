import type { Vehicle } from "@/core/vehicle";
import {
  aimForetold,
  calibrationLog,
  calibrationStages,
  checksOf,
  checkStanding,
  eventsOf,
  FUNCTIONS,
  isOfStay,
  itemOf,
  itemsOf,
  jobClock,
  jobOwed,
  LAMPS,
  lastOf,
  lookedAt,
  measuredOf,
  MOUNT_PARTS,
  movesVehicle,
  PHOTO_SUBJECTS,
  runEventWords,
  runOf,
  sceneNow,
  settledQuantities,
  settlementStanding,
  STAGES,
  stageStates,
  standingHandOver,
  typedFigures,
  stayEvents,
  staysOf,
  strikes,
  viewsOf,
  witnessOf,
  type CalibrationGround,
  type FunctionId,
  type EventBody,
  type JobEvent,
  type JobGround,
  type MountPart,
  type StageState,
  codesAfter,
  wordKey,
  releaseOf,
} from "@/core/job";
import { CAUSE_WORDS, worthNaming } from "@/core/job/cause-words";
import { refusalCauses } from "@/core/job/causes";
import { changedAim } from "@/core/job/changed-aim";
import { KEEPS } from "@/core/drive/policy";
import { CONDITION_NAMES } from "@/core/drive/words";
import { CAUSES, dearest, drivesOf } from "@/core/job/driven";
import { selfTestOf } from "@/core/job/item";
import { dashNow, roadTrials } from "@/core/job/road-check";
import { dashWords } from "@/core/job/road-words";
import { glassSeatOf, judgeFully } from "@/core/ready";
import { FIRST_ZONE, radToDeg } from "@/core/units";
import {
  HANDS,
  lineViews,
  moveWords,
  schoolOf,
  SCHOOLS,
  slotsFor,
  solveScene,
  touchName,
  thingOf,
} from "@/core/setout";
import { happeningName, lineName } from "@/core/owed";
import type { Setup, Target } from "@/core/sheet";
import { drawingOf } from "./drawing";
import type { CalibrationRecord, JobRecord, TargetRecord } from "./schema";

/** What the record says about itself, in every copy. */
const NOTICE =
  "The vehicle maker's current service information decides. This record shows what was measured and done, with which instruments, by whom and when; it does not replace that information, local rules, or the judgement of the licensed person responsible.";

const who = (e: Pick<JobEvent, "by">) => ({ name: e.by.name, initials: e.by.initials });

/**
 * Builds the record of a job from its log alone.
 *
 * @param number the job's number in the shop
 * @param simulated whether the bay and the scan tool were stand-ins
 * @param shop its time zone, and whose record it is if that is known
 */
export function buildRecord(
  number: number,
  ground: JobGround,
  events: readonly JobEvent[],
  simulated: boolean,
  shop: { zone: string; letterhead?: JobRecord["job"]["shop"] | null } = { zone: FIRST_ZONE },
): JobRecord {
  const { intake, vehicle } = ground;
  const takenIn = eventsOf(events, "taken-in")[0]!;
  const handed = standingHandOver(events);
  return {
    format: "iridel.record/2",
    job: {
      number,
      takenInAt: takenIn.at,
      takenInBy: who(takenIn),
      customer: intake.customer,
      order: intake.order,
      promisedAt: intake.promisedAt ?? null,
      zone: shop.zone,
      ...(shop.letterhead ? { shop: shop.letterhead } : {}),
    },
    vehicle: {
      make: vehicle.make,
      model: vehicle.model,
      variant: vehicle.variant,
      vin: intake.vin,
      vinKeptBecause: intake.vinReason,
      plate: intake.plate,
    },
    owed: { done: intake.happenings.map(happeningName), lines: owedLines(ground, events) },
    checks: checksIn(ground, events),
    ...codesOf(ground, events),
    ...roadOf(ground, events),
    ...arrivalOf(events),
    glass: glassOf(ground, events),
    calibrations: viewsOf(ground).map((view) => calibrationOf(view, events, simulated)),
    time: timeOf(events),
    ...typedOf(ground, events),
    ...signedBy(ground, events),
    open: openIn(ground, events),
    handedOver: handed ? { at: handed.at, by: who(handed) } : null,
    notice: NOTICE,
  };
}

/** The control units before and after, each code that matters with what was said of it. */
function codesOf(ground: JobGround, events: readonly JobEvent[]): Pick<JobRecord, "codes"> {
  const found = codesAfter(ground, events);
  if (!found) return {};
  const word = (unit: string, code: string | null): string | null =>
    found.words.get(wordKey({ unit, code }))?.body.word ?? null;
  return {
    codes: {
      before: found.before?.at ?? null,
      after: found.after?.at ?? null,
      cleared: found.cleared,
      units: found.units.map((u) => ({
        name: u.name,
        change: u.change,
        word: word(u.id, null),
        codes: u.codes.map((c) => ({ ...c, word: word(u.id, c.code) })),
      })),
    },
  };
}

/** The second person, where one signed and nothing was done since. */
function signedBy(ground: JobGround, events: readonly JobEvent[]): Pick<JobRecord, "signed"> {
  const { signed } = releaseOf(ground, events);
  return signed ? { signed: { by: who(signed), at: signed.at } } : {};
}

/** Whose figures the job stood on, where no book had them. */
function typedOf(ground: JobGround, events: readonly JobEvent[]): Pick<JobRecord, "typedFigures"> {
  const figures = typedFigures(ground, events);
  if (!figures) return {};
  const { typed, compared } = figures;
  const { source, tapedSigmaMm } = ground.intake.onTheSpot!;
  const signed = compared && { by: who(compared), at: compared.at };
  return { typedFigures: { by: who(typed), at: typed.at, source, tapedSigmaMm, compared: signed } };
}

/** What is still open, stage by stage; of several calibrations each with its own. */
function openIn(ground: JobGround, events: readonly JobEvent[]): string[] {
  const views = viewsOf(ground);
  const own = new Set(calibrationStages(views[0]!, events).map((s) => s.id));
  const said = (states: readonly StageState[], of: string): string[] =>
    states
      .filter((s) => s.lacks && s.state !== "none" && s.id !== "hand-over")
      .map((s) => `${STAGES.find((x) => x.id === s.id)!.name}${of}: ${s.lacks}`);
  const figures = typedFigures(ground, events);
  return [
    ...(figures && !figures.compared
      ? ["Figures typed on the spot: no second person has compared them with their source."]
      : []),
    ...said(
      stageStates(events, ground).filter((s) => !own.has(s.id)),
      "",
    ),
    ...views.flatMap((v) =>
      said(calibrationStages(v, events), views.length > 1 ? `, ${v.sheet.title}` : ""),
    ),
  ];
}

/** What was checked before and after, with what was measured for it. */
const checksIn = (ground: JobGround, events: readonly JobEvent[]): JobRecord["checks"] =>
  (["ready", "prove"] as const).flatMap((stage) => {
    // What is checked before belongs to the job: its first calibration asks for all.
    const views = stage === "ready" ? viewsOf(ground).slice(0, 1) : viewsOf(ground);
    return views.flatMap((view) => {
      const own = calibrationLog(view, events);
      const done = checksOf(own, stage);
      return itemsOf(view, stage).flatMap((item) => {
        const e = done.get(item.id);
        if (!e) return [];
        const { outcome, reason } = e.body;
        const measured = measuredFor(view, own, item.id, stage);
        return [{ stage, measured, ask: item.ask, outcome, reason, at: e.at, by: who(e) }];
      });
    });
  });

/** What was tried on the road, and the dash after the work. */
function roadOf(
  ground: JobGround,
  events: readonly JobEvent[],
): Pick<JobRecord, "road" | "lampsNow"> {
  const road = roadTrials(ground, events).flatMap(({ name, found, said }) => {
    if (!said) return [];
    const { result, remark, drove, watched, putBack } = said.body;
    return [{ name, result, remark, drove, watched, found, putBack, at: said.at, by: who(said) }];
  });
  const dash = dashNow(events);
  const looked = lastOf(events, "lamps-now");
  return {
    ...(road.length > 0 && { road }),
    ...(dash && looked && { lampsNow: { words: dashWords(dash), at: looked.at, by: who(looked) } }),
  };
}

/** Each refusal of the vehicle, with its likely causes as they were ranked at that moment. */
const refusalsOf = (
  view: CalibrationGround,
  events: readonly JobEvent[],
): NonNullable<CalibrationRecord["run"]["refusals"]> =>
  eventsOf(calibrationLog(view, events), "run").flatMap(({ seq, at, body: { event } }) => {
    if (event.type !== "routine-result" || event.result.passed) return [];
    const then = events.filter((e) => e.seq <= seq || e.body.kind === "strike");
    const causes = refusalCauses(view, then) ?? [];
    return [
      {
        at,
        reason: event.result.reason ?? "No reason given.",
        causes: worthNaming(causes).map((c) => ({
          name: CAUSE_WORDS[c.cause].name,
          share: c.share,
        })),
      },
    ];
  });

/** The drives of a calibration that ended, with what counted. */
const drivesIn = (
  view: CalibrationGround,
  events: readonly JobEvent[],
): CalibrationRecord["drives"] =>
  drivesOf(view, events).flatMap(({ leave, end, progress, samples, unknown }) => {
    if (!end) return [];
    const { outcome, says, remark, drove, watched } = end.body;
    const counted = progress && {
      seconds: progress.seconds,
      ofSeconds: (samples.at(-1)!.atMs - samples[0]!.atMs) / 1000,
      metres: progress.metres,
      losses: progress.losses.length,
      ...(unknown.length > 0 && { unknown: unknown.map((k) => CONDITION_NAMES[k]) }),
      cost: dearest(progress).map(([cause, seconds]) => ({ name: CAUSES[cause], seconds })),
    };
    const left = leave && {
      at: leave.at,
      planned: leave.body.planned,
      keeps: KEEPS[leave.body.keeps].toLowerCase(),
      hotspot: leave.body.hotspot,
      inRain: leave.body.rains ? leave.body.rainReason : null,
      simulated: leave.body.source === "made-up",
    };
    const is = { at: end.at, by: who(end), outcome, says, remark, drove, watched, counted };
    return [{ ...is, ...(left && { leave: left }) }];
  });

/** One sheet as it was carried out. */
function calibrationOf(
  view: CalibrationGround,
  events: readonly JobEvent[],
  simulated: boolean,
): CalibrationRecord {
  const { sheet, calibrationId } = view;
  const { state: run } = runOf(view, events);
  const foretold = aimForetold(view, events);
  const changed = changedAim(run);
  const refusals = refusalsOf(view, events);
  const targets = sheet.setups.flatMap((setup) =>
    setup.targets.map((target) => targetRecord(view, events, setup, target)),
  );
  return {
    id: calibrationId,
    reason: sheet.reason,
    sheet,
    targets,
    run: {
      status: run.status,
      board: targets.findLast((t) => t.check)?.check ?? null,
      attempts: run.attempt,
      tool: run.tool,
      simulated,
      result: run.result,
      ...(foretold && { foretold }),
      ...(changed && { changedAim: changed }),
      ...(refusals.length > 0 && { refusals }),
      log: eventsOf(calibrationLog(view, events), "run").map((e) => ({
        at: e.at,
        by: who(e),
        ...runEventWords(e.body.event, sheet),
      })),
    },
    ...(sheet.method !== "static" && { drives: drivesIn(view, events) }),
  };
}

/** What was done to a stand, in words; null for a line that is no such act. */
function carriedOut(body: EventBody, vehicle: Vehicle, target: Target): string | null {
  if (body.kind === "move") return moveWords(body.move, vehicle, "mm", thingOf(target)).say;
  return body.kind === "kept"
    ? `Taken over as it stood proved for ${body.from.called}: nobody had touched it since.`
    : null;
}

/**
 * One target: everything read and done of it in all its stays, each reading as its last stay knew
 * it. What was accepted is kept of a target that was taken away after it was used.
 */
function targetRecord(
  view: CalibrationGround,
  events: readonly JobEvent[],
  setup: Setup,
  target: Target,
): TargetRecord {
  const stays = staysOf(view, events).filter(
    (s) => s.calibrationId === view.calibrationId && s.target.id === target.id,
  );
  const last = stays.at(-1);
  const own = events.filter((e) => stays.some((s) => isOfStay(s, e)));
  const struck = strikes(events);
  // What was struck later was never read; what happened after it was taken away is none of its own.
  const then = last
    ? events.filter((e) => e.seq < last.until || e.body.kind === "strike")
    : events.slice(0, 1);
  const { scene, entries, now } = sceneNow(view, then, target.id);
  const solution = solveScene(scene, entries, now).targets.get(now)!;
  const state = new Map(solution.readings.map((r) => [r.id, r]));
  const slots = new Map(slotsFor(solution.plan).map((s) => [s.id, s]));
  const standId = own.length > 0 ? last!.standId : null;
  const stand = [HANDS, view.stand, ...(view.stands ?? [])].find((s) => s.id === standId);
  const kept = last ? stayEvents(view, events, last) : [];
  const looked = lookedAt(view, events);
  const settled = settlementStanding(kept.filter((e) => e.seq < looked));
  const check = checkStanding(kept);
  const seen = witnessOf(view, events, target.id);
  // A vehicle that was moved is a touch of everything that stood then.
  const touching = events.filter(
    (e) => own.includes(e) || (kept.includes(e) && movesVehicle(e.body)),
  );
  const nameOf = (id: string): string => setup.targets.find((t) => t.id === id)?.name ?? id;
  return {
    id: target.id,
    name: target.name,
    setup: setup.name,
    stand: stand === HANDS ? stand.name : stand ? `${stand.id}, ${stand.name}` : standId,
    way: SCHOOLS[schoolOf(solution.plan)].name,
    check: check && {
      code: check.body.code,
      reason: check.body.reason,
      at: check.at,
      by: who(check),
    },
    lines: lineViews(solution).map(({ name, isSheets, turnRad, atBoardMm, seen }) => ({
      name,
      isSheets,
      turnDeg: turnRad === null ? null : radToDeg(turnRad),
      atBoardMm,
      seen,
    })),
    readings: eventsOf(own, "reading").map((e) => {
      const slot = slots.get(e.body.slotId);
      const instrument = view.instruments.find((i) => i.id === e.body.instrumentId);
      const known = state.get(e.id);
      const result = known?.state === "counts" ? known.result : null;
      return {
        id: e.id,
        slot: e.body.slotId,
        name: slot?.name ?? e.body.slotId,
        typed: e.body.typed,
        value: e.body.shown,
        unit: slot?.quantity.dimension === "angle" ? ("rad" as const) : ("mm" as const),
        sides: slot?.sides ?? null,
        at: e.at,
        by: who(e),
        instrument: { id: e.body.instrumentId, name: instrument?.name ?? e.body.instrumentId },
        sigma: e.body.sigma,
        state: struck.has(e.id) ? ("struck" as const) : (known?.state ?? "doubt"),
        struckReason: struck.get(e.id)?.body.reason ?? null,
        residual: result?.residual ?? null,
        redundancy: result?.redundancy ?? null,
        w: result?.w ?? null,
      };
    }),
    moves: own
      .filter((e) => !struck.has(e.id))
      .flatMap((e) => {
        const say = carriedOut(e.body, view.vehicle, target);
        return say ? [{ say, at: e.at, by: who(e) }] : [];
      }),
    touches: eventsOf(touching, "touch")
      .filter((e) => !struck.has(e.id))
      .map((e) => ({ what: touchName(target.kind, e.body.touch), at: e.at, by: who(e) })),
    settled: settled && {
      at: settled.at,
      by: who(settled),
      chance: settled.body.chance,
      ...("assumes" in settled.body && settled.body.assumes
        ? { assumes: settled.body.assumes }
        : {}),
      ...("halves" in settled.body ? { halves: settled.body.halves ?? null } : {}),
      quantities: settledQuantities(settled.body, target).map(({ to, ...q }) => ({
        ...q,
        ...(to ? { to: nameOf(to) } : {}),
      })),
    },
    ...(settled && { drawing: drawingOf(solution) }),
    witness:
      seen?.p == null
        ? null
        : {
            readings: seen.taken.length,
            share: seen.share,
            p: seen.p,
            stood: seen.stood!,
            chance: seen.chance,
          },
  };
}

/**
 * Every owed line in the plan's order, declined ones last, with the reasons as they were at
 * take-in.
 */
function owedLines(ground: JobGround, events: readonly JobEvent[]): JobRecord["owed"]["lines"] {
  const { lines, plan } = jobOwed(ground, events);
  const order = plan?.steps.map((s) => s.line.id) ?? [];
  const place = (id: string): number => (order.includes(id) ? order.indexOf(id) : order.length);
  return [...lines]
    .sort((a, b) => place(a.id) - place(b.id))
    .map((l) => ({
      name: lineName(l),
      reasons: [
        ...l.because.map((b) => ({
          because: happeningName(b.happening),
          reason: b.rule.reason,
          source: b.rule.source,
        })),
        ...(l.added
          ? [{ because: "added by hand", reason: l.added.body.reason, source: l.added.by.name }]
          : []),
      ],
      outcome: l.declined
        ? ("declined" as const)
        : l.onSheet
          ? ("this-record" as const)
          : l.done
            ? ("done" as const)
            : ("open" as const),
      done: l.done && {
        note: l.done.body.note,
        by: { name: l.done.by.name, initials: l.done.by.initials },
        at: l.done.at,
      },
      declined: l.declined && {
        reason: l.declined.body.reason,
        by: { name: l.declined.by.name, initials: l.declined.by.initials },
        at: l.declined.at,
      },
    }));
}

/** The standing measurement of a readiness item in words; empty where nothing was measured. */
function measuredFor(
  ground: CalibrationGround,
  events: readonly JobEvent[],
  itemId: string,
  stage: "ready" | "prove" = "ready",
): JobRecord["checks"][number]["measured"] {
  const last = measuredOf(events, stage).get(itemId);
  const measure = itemOf(ground, stage, itemId)?.measure;
  const test = measure?.kind === "self-test" ? selfTestOf(events, itemId) : null;
  if (test) return [{ name: "own test", value: test.says, ok: test.passed }];
  return last && measure
    ? judgeFully(measure, last.body.values, ground.vehicle).lines.map(({ name, value, ok }) => ({
        name,
        value,
        ok,
      }))
    : [];
}

/**
 * What was written down and photographed when the vehicle came in, and what its customer signed.
 */
function arrivalOf(events: readonly JobEvent[]): Pick<JobRecord, "cameIn" | "consent" | "photos"> {
  const by = (e: JobEvent) => ({ at: e.at, by: { name: e.by.name, initials: e.by.initials } });
  const [walk, consent, struck] = [
    lastOf(events, "walk"),
    lastOf(events, "consent"),
    strikes(events),
  ];
  return {
    cameIn: walk && {
      odometerKm: walk.body.odometerKm,
      odometerTyped: walk.body.odometerTyped,
      lamps: walk.body.lamps.map((l) => LAMPS[l]),
      settings: Object.entries(walk.body.settings).map(([f, found]) => ({
        name: FUNCTIONS[f as FunctionId].name,
        found,
      })),
      ...by(walk),
    },
    consent: consent && {
      name: consent.body.name,
      words: consent.body.words,
      strokes: consent.body.strokes,
      ...by(consent),
    },
    photos: eventsOf(events, "photo")
      .filter((e) => !struck.has(e.id))
      .map((e) => ({
        sha256: e.body.photo,
        shows: PHOTO_SUBJECTS[e.body.subject],
        takenAt: e.body.takenAt,
        keptAt: e.at,
        by: by(e).by,
      })),
  };
}

/** The standing glass check with the turn its depths imply. */
function glassOf(ground: JobGround, events: readonly JobEvent[]): JobRecord["glass"] {
  const last = lastOf(events, "glass");
  if (!last) return null;
  const { part, fitter, partReason, depths, mount = {} } = last.body;
  const verdict = glassSeatOf(ground.vehicle, depths);
  const turn = verdict && {
    yaw: radToDeg(verdict.seat.yawRad.value),
    pitch: radToDeg(verdict.seat.pitchRad.value),
    roll: radToDeg(verdict.seat.rollRad.value),
  };
  return {
    part,
    fitter,
    partReason,
    depthsMm: depths,
    turnDeg: turn,
    limitDeg: ground.vehicle.glass.limitDeg,
    inside: verdict?.inside ?? null,
    mount: (Object.keys(MOUNT_PARTS) as MountPart[]).flatMap((m) =>
      mount[m] === undefined ? [] : [{ name: MOUNT_PARTS[m].ask, right: mount[m] }],
    ),
    at: last.at,
    by: { name: last.by.name, initials: last.by.initials },
  };
}

/**
 * Time by stage in minutes. A record of an open job counts to its last event: the record has no
 * clock of its own.
 */
function timeOf(events: readonly JobEvent[]): JobRecord["time"] {
  const clock = jobClock(events, events.at(-1)!.at);
  const minutes = (seconds: number): number => Math.round(seconds / 6) / 10;
  return {
    stages: STAGES.flatMap((s) =>
      clock.stages[s.id] === undefined
        ? []
        : [{ stage: s.name, minutes: minutes(clock.stages[s.id]!) }],
    ),
    workMinutes: minutes(clock.workSeconds),
    pauses: clock.pauses.map(({ seconds, ...p }) => ({ ...p, minutes: minutes(seconds) })),
    awayMinutes: minutes(clock.awaySeconds),
  };
}
