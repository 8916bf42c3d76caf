import { glassWords, judgeMeasure } from "@/core/ready";
import {
  moveWords,
  SCHOOLS,
  slotsFor,
  slotValue,
  touchName,
  type Judged,
  type LengthSetting,
  type Slot,
  thingOf,
} from "@/core/setout";
import { happeningName, lineName } from "@/core/owed";
import { placeName, targetOf, targetsOf, type Target } from "@/core/sheet";
import { formatChance, formatNumber, type Times } from "@/core/units";
import { settlementStanding, strikes, type EventBody, type JobEvent } from "./job";
import { stayEvents, staysOf } from "./stays";
import { lookedAt } from "./standing";
import { calibrationIn } from "./scope";
import { itemOf } from "./items";
import { owedLines } from "./owed";
import { viewOf, viewsOf, type JobGround } from "./ground";
import { planFor } from "./set-out";
import type { StageId } from "./stage-list";
import {
  DRIVE_OUTCOMES,
  FUNCTIONS,
  LAMPS,
  PHOTO_SUBJECTS,
  ROAD_RESULTS,
  type FunctionId,
} from "./walk";
import { runEventWords, scanEventWords } from "./words";
import { KEEPS } from "@/core/drive/policy";

/** One printed line of the slip. */
export type SlipLine = {
  id: string;
  /** The event it came from, for looking it up or striking it; several lines may share one. */
  eventId: string;
  stage: StageId;
  at: string;
  initials: string;
  label: string;
  value: string;
  instrument: string | null;
  state: "settled" | "loose" | "doubt" | "struck" | "stop";
  note: string | null;
  /** Whether the line can be struck from the slip. */
  strikable: boolean;
};

/** What an event says on the slip, before who wrote it and when. */
type Fact = Pick<SlipLine, "stage" | "label" | "value"> &
  Partial<Pick<SlipLine, "instrument" | "state" | "note" | "strikable">>;

/** What the words of a line hang on besides its event. */
type Context = {
  ground: JobGround;
  events: readonly JobEvent[];
  /** The target in hand as it was judged, and which it is. */
  judged: Judged | null;
  /** What each reading is called that is not of the target in hand. */
  slots: (b: Body<"reading">) => Slot | undefined;
  setting: LengthSetting;
  times: Times;
  suspects: ReadonlySet<string>;
  /** Settlements that still hold, each of its own target. */
  held: ReadonlySet<string | undefined>;
  settled: boolean;
};

type Body<K extends EventBody["kind"]> = Extract<EventBody, { kind: K }>;
type Facts = { [K in EventBody["kind"]]: (b: Body<K>, c: Context, id: string) => Fact[] };

const minutes = (s: number): string => `${Math.round(s / 60)} min`;
const nothing = (): Fact[] => [];
const OUTCOMES = {
  fine: { value: "fine", state: "settled" },
  fixed: { value: "fixed now", state: "settled" },
  accepted: { value: "accepted", state: "loose" },
  blocks: { value: "blocks the job", state: "stop" },
} as const;

const owedName = (c: Context, line: string): string => {
  const owed = owedLines(c.ground, c.events).find((l) => l.id === line);
  return owed ? lineName(owed) : line;
};

const asked = (
  c: Context,
  stage: "ready" | "prove",
  itemId: string,
  calibrationId: string | null = null,
): string => itemOf(viewOf(c.ground, calibrationId), stage, itemId)?.ask ?? itemId;

/** Where something was done, told where a job has more than one place. */
const placeOf = (
  c: Context,
  b: { calibrationId?: string | undefined; targetId?: string | undefined },
) => {
  const { sheet } = viewOf(c.ground, b.calibrationId ?? null);
  return b.targetId !== undefined && severalTargets(c.ground) ? placeName(sheet, b.targetId) : null;
};

const severalTargets = (g: JobGround): boolean =>
  g.calibrations.flatMap((x) => targetsOf(x.sheet)).length > 1;

type Of = { calibrationId?: string | undefined; targetId?: string | undefined };

/** The target a line is of; null where it does not say. */
const targetIn = (c: Context, b: Of): Target | null => {
  const { sheet } = viewOf(c.ground, b.calibrationId ?? null);
  return b.targetId !== undefined && sheet.setups.length > 0 ? targetOf(sheet, b.targetId) : null;
};

/** What kind it is; a board where a line does not say. */
const kindOf = (c: Context, b: Of): Target["kind"] => targetIn(c, b)?.kind ?? "board";

const nounOf = (c: Context, b: Of): string => {
  const target = targetIn(c, b);
  if (target?.object.is === "reflector") return "Reflector";
  return { board: "Board", mat: "Mat", mark: "Mark" }[target?.kind ?? "board"];
};

/** What it hangs on, and where about the vehicle that stands; a board ahead where a line does not say. */
const thingIn = (c: Context, b: Of) => {
  const target = targetIn(c, b);
  return target ? thingOf(target) : undefined;
};

const inPlace = (place: string | null, label: string): string =>
  place ? `${label}: ${place}` : label;

/** One row for every kind of event: what stands on the slip of it. */
const FACTS: Facts = {
  "taken-in": takenIn,
  check: (b, c) => {
    const { value, state } = OUTCOMES[b.outcome];
    const label = asked(c, b.stage, b.itemId, b.calibrationId);
    return [{ stage: b.stage, label, value, state, note: b.reason, strikable: true }];
  },
  reading,
  position: (b, { ground }) => {
    const on = b.standId ? `, on ${b.standId}` : "";
    const value = `${placeName(viewOf(ground, b.calibrationId ?? null).sheet, b.to)}${on}`;
    return [{ stage: "run", label: "Board on its way to", value }];
  },
  board: (b, c) => [
    {
      stage: "run",
      label: inPlace(placeOf(c, b), `${nounOf(c, b)} checked`),
      value: `${b.code}, ${nounOf(c, b) === "Mat" ? "arrow forward" : "arrow up"}`,
      note: b.reason ? `Worn: ${b.reason}` : null,
      state: b.reason ? "loose" : "settled",
      strikable: true,
    },
  ],
  school: (b) => [{ stage: "set-out", label: "Way of setting out", value: SCHOOLS[b.school].name }],
  "rear-toe": (b) => [
    {
      stage: "set-out",
      label: b.how === "rolled" ? "Rear toe, rolled under the rig" : "Rear toe, printout",
      value: `left ${formatNumber(b.leftDeg, 2)}°, right ${formatNumber(b.rightDeg, 2)}°`,
      strikable: true,
    },
  ],
  touch: (b, c) => [
    {
      stage: "set-out",
      label: inPlace(placeOf(c, b), "Touched"),
      value: touchName(kindOf(c, b), b.touch),
      state: "doubt",
      strikable: true,
    },
  ],
  move: (b, c) => [
    {
      stage: "set-out",
      label: inPlace(placeOf(c, b), "Moved"),
      value: moveWords(b.move, c.ground.vehicle, c.setting, thingIn(c, b)).say,
      strikable: true,
    },
  ],
  settled: (b, c, id) => [
    {
      stage: "set-out",
      label: inPlace(placeOf(c, b), `${nounOf(c, b)} set`),
      value: `${formatChance(b.chance)} in tolerance${"assumes" in b && b.assumes ? `, taking as right: ${b.assumes.join(", ")}` : ""}`,
      ...(c.held.has(id) ? {} : { state: "doubt", note: "Disturbed since" }),
    },
  ],
  run: (b, { ground }) => {
    const failed = b.event.type === "routine-result" && !b.event.result.passed;
    const state = failed ? "stop" : b.event.type === "connect-failed" ? "loose" : "settled";
    return [
      {
        stage: "run",
        ...runEventWords(b.event, viewOf(ground, b.calibrationId ?? null).sheet),
        state,
      },
    ];
  },
  scan: (b, { settled }) => {
    const words = scanEventWords(b.event);
    if (!words) return [];
    const { label, value, bad } = words;
    return [{ stage: settled ? "prove" : "ready", label, value, state: bad ? "loose" : "settled" }];
  },
  measured: (b, c) => {
    const stage = b.stage ?? "ready";
    const measure = itemOf(viewOf(c.ground, b.calibrationId ?? null), stage, b.itemId)?.measure;
    const verdict = measure && judgeMeasure(measure, b.values, c.ground.vehicle, b.found);
    return [
      {
        stage,
        label: asked(c, stage, b.itemId, b.calibrationId),
        value: verdict ? verdict.headline : "measured",
        state: verdict?.ok === false ? "loose" : "settled",
        strikable: true,
      },
    ];
  },
  "put-right": (b, c) => [
    {
      stage: "ready",
      label: asked(c, b.stage ?? "ready", b.itemId, b.calibrationId),
      value: "put right, to be read again",
      state: "loose",
      strikable: true,
    },
  ],
  glass: (b, { ground }) => [
    { stage: "take-in", label: "Glass", value: glassWords(ground.vehicle, b), strikable: true },
  ],
  walk,
  photo: (b, { times }) => [
    {
      stage: b.subject === "set-out" ? "set-out" : "take-in",
      label: "Photo",
      value: PHOTO_SUBJECTS[b.subject],
      note: b.takenAt ? `Taken ${times.dateAndTime(b.takenAt)} by the camera’s clock` : null,
      strikable: true,
    },
  ],
  consent: (b) => [
    {
      stage: "take-in",
      label: "Consent to drive",
      value: `signed by ${b.name}`,
      strikable: true,
    },
  ],
  "owed-decline": (b, c) => [
    {
      stage: "owed",
      label: "Declined",
      value: owedName(c, b.line),
      state: "loose",
      note: b.reason,
      strikable: true,
    },
  ],
  "owed-done": (b, c) => [
    {
      stage: "owed",
      label: "Done, not on this sheet",
      value: owedName(c, b.line),
      note: b.note,
      strikable: true,
    },
  ],
  "owed-add": (b) => [
    {
      stage: "owed",
      label: "Owed, added",
      value: lineName({ system: b.system, kind: b.method }),
      note: b.reason,
      strikable: true,
    },
  ],
  pause: (b, { settled }) => [
    {
      stage: settled ? "run" : "ready",
      label: "Clock stopped",
      value: b.reason,
      state: "loose",
    },
  ],
  resume: nothing,
  instrument: (b, { ground }) => [
    {
      stage: "set-out",
      label: "In hand",
      value: ground.instruments.find((i) => i.id === b.instrumentId)?.name ?? b.instrumentId,
      instrument: b.instrumentId,
    },
  ],
  kept: (b) => [
    {
      stage: "set-out",
      label: "Stand untouched",
      value: `as proved for ${b.from.called}`,
      note: "Where the car stands is read anew; height and level are as they were proved there.",
      strikable: true,
    },
  ],
  "code-word": (b) => [
    {
      stage: "prove",
      label: `${b.name ?? b.unit}: ${b.code ?? "no answer"}`,
      value: b.word,
      strikable: true,
    },
  ],
  "road-check": (b) => [
    {
      stage: "prove",
      label: `Tried: ${FUNCTIONS[b.functionId].name}`,
      value: ROAD_RESULTS[b.result],
      note: [b.remark, b.drove && `${b.drove} drove${b.watched ? `, ${b.watched} watched` : ""}`]
        .filter(Boolean)
        .join(". "),
      ...(b.result === "works" ? {} : { state: "loose" as const }),
      strikable: true,
    },
  ],
  "lamps-now": (b) => [
    {
      stage: "prove",
      label: "Lamps now",
      value: b.lamps.length === 0 ? "none lit" : b.lamps.map((l) => LAMPS[l]).join(", "),
      strikable: true,
    },
  ],
  parked: (b) => [
    {
      stage: "ready",
      label: "Stands in",
      value: b.name,
      ...(b.floor ? { note: "Its floor there is known from the bay’s survey." } : {}),
      strikable: true,
    },
  ],
  "drive-leave": (b) => [
    {
      stage: "drive",
      label: "Left for a drive",
      value: b.planned
        ? `${minutes(b.planned.seconds)} planned, ${minutes(b.planned.from)} to ${minutes(b.planned.to)}`
        : "without a plan",
      note: [
        `speed kept: ${KEEPS[b.keeps].toLowerCase()}`,
        b.hotspot && "hotspot on",
        b.rains && `in rain: ${b.rainReason}`,
      ]
        .filter(Boolean)
        .join("; "),
    },
  ],
  "drive-end": (b) => [
    {
      stage: "drive",
      label: "Drive",
      value: DRIVE_OUTCOMES[b.outcome],
      note: [b.says, b.remark, `${b.drove} drove${b.watched ? `, ${b.watched} watched` : ""}`]
        .filter(Boolean)
        .join(". "),
      ...(b.outcome === "learned" ? {} : { state: "loose" as const }),
      strikable: true,
    },
  ],
  hold: (b) => [
    {
      stage: "hand-over",
      label: "Held back",
      value: b.reason,
      state: "loose",
      strikable: true,
    },
  ],
  "hold-lifted": (b) => [
    { stage: "hand-over", label: "Hold lifted", value: b.reason, strikable: true },
  ],
  "sign-off": () => [
    { stage: "hand-over", label: "Second person", value: "signed", strikable: true },
  ],
  "second-look": () => [
    {
      stage: "hand-over",
      label: "Figures typed on the spot",
      value: "compared with the source",
      strikable: true,
    },
  ],
  // Nobody noticed: that is the point.
  bump: nothing,
  "drive-part": nothing,
  strike: nothing,
  "hand-over": () => [{ stage: "hand-over", label: "Handed over", value: "report and record" }],
  reopen: (b) => [
    {
      stage: "hand-over",
      label: "Opened again for a revision",
      value: b.reason,
      state: "loose",
    },
  ],
  document: (b) => [
    {
      stage: "hand-over",
      label: `${b.document === "record" ? "Record" : "Report"}, version ${b.version}`,
      value: b.sha256.slice(0, 12),
      note: `Kept as made by Iridel ${b.program}`,
    },
  ],
};

function takenIn(_: Body<"taken-in">, { ground, events }: Context): Fact[] {
  const { intake, vehicle } = ground;
  const arrival = (label: string, value: string, more: Partial<Fact> = {}): Fact => ({
    stage: "take-in",
    label,
    value,
    ...more,
  });
  const why = intake.vinReason;
  return [
    arrival("Vehicle", `${vehicle.make} ${vehicle.model}, ${vehicle.variant}`),
    arrival(
      "VIN",
      intake.vin || "not read",
      why ? { state: "loose", note: `Kept although it fails its check: ${why}` } : {},
    ),
    arrival("Done", intake.happenings.map(happeningName).join(", ")),
    ...(intake.complaint ? [arrival("Customer says", intake.complaint)] : []),
    ...owedLines(ground, events)
      .filter((l) => !l.added || l.because.length > 0)
      .map((l): Fact => ({ stage: "owed", label: "Owed", value: lineName(l) })),
    ...ground.calibrations.map(({ sheet }): Fact => ({
      stage: "owed",
      label: "Sheet",
      ...(sheet.status === "provisional"
        ? { value: sheet.title, state: "loose", note: "In no book: figures typed on the spot" }
        : { value: `${sheet.title} (${sheet.id} v${sheet.version})` }),
    })),
  ];
}

function reading(b: Body<"reading">, c: Context, id: string): Fact[] {
  const slot = c.slots(b);
  const known = c.judged?.solution.readings.find((r) => r.id === id);
  const state = c.suspects.has(id) ? "loose" : known?.state === "doubt" ? "doubt" : "settled";
  const note = {
    loose: "Suspect: does not agree with the others",
    doubt: "Read before something moved",
    settled: null,
  }[state];
  return [
    {
      stage: "set-out",
      label: inPlace(placeOf(c, b), slot?.name ?? b.slotId),
      value: slot ? slotValue(slot, b.shown, c.setting) : b.typed,
      instrument: b.instrumentId,
      state,
      note,
      strikable: true,
    },
  ];
}

function walk(b: Body<"walk">): Fact[] {
  const arrival = (label: string, value: string, state: SlipLine["state"] = "settled"): Fact => ({
    stage: "take-in",
    label,
    value,
    state,
    strikable: true,
  });
  const lamps = b.lamps.map((l) => LAMPS[l]).join(", ");
  return [
    arrival("Odometer", `${formatNumber(b.odometerKm)} km`),
    arrival("Lamps", lamps || "none lit", lamps ? "loose" : "settled"),
    ...Object.entries(b.settings).map(([f, text]) =>
      arrival(`As found: ${FUNCTIONS[f as FunctionId].name}`, text),
    ),
  ];
}

/** Readings of one target by their ids; none where its datum cannot be known yet. */
function slotsOf(
  ground: JobGround,
  events: readonly JobEvent[],
  b: Body<"reading">,
): Map<string, Slot> {
  const view = viewOf(ground, calibrationIn(b));
  return new Map(slotsFor(planFor(view, events, b.targetId ?? "")).map((s) => [s.id, s]));
}

/** Everything settled about a job, in the order it was settled. Struck lines stay readable. */
export function slipLines(
  events: readonly JobEvent[],
  ground: JobGround,
  judged: Judged | null,
  setting: LengthSetting,
  times: Times,
): SlipLine[] {
  const struck = strikes(events);
  const stays = staysOf(ground, events);
  const plans = new Map<string, Map<string, Slot>>();
  const slots = (b: Body<"reading">): Slot | undefined => {
    const own = judged?.solution.slots.find((s) => s.id === b.slotId);
    if (own && !severalTargets(ground)) return own;
    const at = `${b.calibrationId}/${b.targetId}`;
    const known = plans.get(at) ?? slotsOf(ground, events, b);
    plans.set(at, known);
    return known.get(b.slotId);
  };
  const looked = new Map(viewsOf(ground).map((v) => [v.calibrationId, lookedAt(v, events)]));
  const settledIn = (s: (typeof stays)[number]) =>
    settlementStanding(
      stayEvents(ground, events, s).filter((e) => e.seq < looked.get(s.calibrationId)!),
    );
  const context: Context = {
    ground,
    events,
    judged,
    setting,
    times,
    suspects: new Set(judged?.verdict.suspects),
    slots,
    held: new Set(stays.map((s) => settledIn(s)?.id)),
    settled: viewsOf(ground).every((v) =>
      stays.some((s) => s.calibrationId === v.calibrationId && settledIn(s) !== null),
    ),
  };
  return events.flatMap((e) => {
    const strike = struck.get(e.id);
    const facts = FACTS[e.body.kind](e.body as never, context, e.id);
    return facts.map((fact): SlipLine => ({
      id: `${e.id}/${fact.label}`,
      eventId: e.id,
      at: e.at,
      initials: e.by.initials,
      instrument: null,
      state: "settled",
      note: null,
      strikable: false,
      ...fact,
      ...(strike
        ? {
            state: "struck",
            note: `Struck by ${strike.by.initials}: ${strike.body.reason}`,
            strikable: false,
          }
        : {}),
    }));
  });
}
