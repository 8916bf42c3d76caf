import { glassWords, judgeMeasure } from "@/core/ready";
import {
  moveWords,
  SCHOOLS,
  slotValue,
  TOUCHES,
  type Judged,
  type LengthSetting,
} from "@/core/setout";
import { happeningName, lineName } from "@/core/owed";
import { placeName } from "@/core/sheet";
import { dateAndTime, formatChance, formatNumber } from "@/core/units";
import { standingSettlement, strikes, type EventBody, type JobEvent } from "./job";
import { piecesOf } from "./standing";
import { itemOf } from "./items";
import { jobOwed } from "./owed";
import type { JobGround } from "./ground";
import type { StageId } from "./stages";
import { FUNCTIONS, LAMPS, PHOTO_SUBJECTS, type FunctionId } from "./walk";
import { runEventWords, scanEventWords } from "./words";

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
  judged: Judged | null;
  setting: LengthSetting;
  suspects: ReadonlySet<string>;
  /** Settlements that still hold, each of its own target. */
  held: ReadonlySet<string | undefined>;
  settled: boolean;
};

type Body<K extends EventBody["kind"]> = Extract<EventBody, { kind: K }>;
type Facts = { [K in EventBody["kind"]]: (b: Body<K>, c: Context, id: string) => Fact[] };

const nothing = (): Fact[] => [];
const OUTCOMES = {
  fine: { value: "fine", state: "settled" },
  fixed: { value: "fixed now", state: "settled" },
  accepted: { value: "accepted", state: "loose" },
  blocks: { value: "blocks the job", state: "stop" },
} as const;

const owedName = (c: Context, line: string): string => {
  const owed = jobOwed(c.ground, c.events).lines.find((l) => l.id === line);
  return owed ? lineName(owed) : line;
};

const asked = (c: Context, stage: "ready" | "prove", itemId: string): string =>
  itemOf(c.ground, stage, itemId)?.ask ?? itemId;

/** One row for every kind of event: what stands on the slip of it. */
const FACTS: Facts = {
  "taken-in": takenIn,
  check: (b, c) => {
    const { value, state } = OUTCOMES[b.outcome];
    const label = asked(c, b.stage, b.itemId);
    return [{ stage: b.stage, label, value, state, note: b.reason, strikable: true }];
  },
  reading,
  position: (b, { ground }) => {
    const on = b.standId ? `, on ${b.standId}` : "";
    const value = `${placeName(ground.sheet, b.to)}${on}`;
    return [{ stage: "run", label: "Board on its way to", value }];
  },
  board: (b) => [
    {
      stage: "run",
      label: "Board checked",
      value: `${b.code}, arrow up`,
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
  touch: (b) => [
    {
      stage: "set-out",
      label: "Touched",
      value: TOUCHES[b.touch].name,
      state: "doubt",
      strikable: true,
    },
  ],
  move: (b, { ground, setting }) => [
    {
      stage: "set-out",
      label: "Moved",
      value: moveWords(b.move, ground.vehicle, setting).say,
      strikable: true,
    },
  ],
  settled: (b, { held }, id) => [
    {
      stage: "set-out",
      label: "Board set",
      value: `${formatChance(b.chance)} in tolerance`,
      ...(held.has(id) ? {} : { state: "doubt", note: "Disturbed since" }),
    },
  ],
  run: (b, { ground }) => {
    const failed = b.event.type === "routine-result" && !b.event.result.passed;
    const state = failed ? "stop" : b.event.type === "connect-failed" ? "loose" : "settled";
    return [{ stage: "run", ...runEventWords(b.event, ground.sheet), state }];
  },
  scan: (b, { settled }) => {
    const words = scanEventWords(b.event);
    if (!words) return [];
    const { label, value, bad } = words;
    return [{ stage: settled ? "prove" : "ready", label, value, state: bad ? "loose" : "settled" }];
  },
  measured: (b, c) => {
    const measure = itemOf(c.ground, "ready", b.itemId)?.measure;
    const verdict = measure && judgeMeasure(measure, b.values, c.ground.vehicle);
    return [
      {
        stage: "ready",
        label: asked(c, "ready", b.itemId),
        value: verdict ? verdict.headline : "measured",
        state: verdict?.ok === false ? "loose" : "settled",
        strikable: true,
      },
    ];
  },
  "put-right": (b, c) => [
    {
      stage: "ready",
      label: asked(c, "ready", b.itemId),
      value: "put right, to be read again",
      state: "loose",
      strikable: true,
    },
  ],
  glass: (b, { ground }) => [
    { stage: "take-in", label: "Glass", value: glassWords(ground.vehicle, b), strikable: true },
  ],
  walk,
  photo: (b) => [
    {
      stage: b.subject === "set-out" ? "set-out" : "take-in",
      label: "Photo",
      value: PHOTO_SUBJECTS[b.subject],
      note: b.takenAt ? `Taken ${dateAndTime(b.takenAt)} by the camera’s clock` : null,
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
  // Nobody noticed: that is the point.
  bump: nothing,
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
  const { intake, vehicle, sheet } = ground;
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
    ...jobOwed(ground, events)
      .lines.filter((l) => !l.added || l.because.length > 0)
      .map((l): Fact => ({ stage: "owed", label: "Owed", value: lineName(l) })),
    { stage: "owed", label: "Sheet", value: `${sheet.title} (${sheet.id} v${sheet.version})` },
  ];
}

function reading(b: Body<"reading">, c: Context, id: string): Fact[] {
  const slot = c.judged?.solution.slots.find((s) => s.id === b.slotId);
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
      label: slot?.name ?? b.slotId,
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

/** Everything settled about a job, in the order it was settled. Struck lines stay readable. */
export function slipLines(
  events: readonly JobEvent[],
  ground: JobGround,
  judged: Judged | null,
  setting: LengthSetting,
): SlipLine[] {
  const struck = strikes(events);
  const context: Context = {
    ground,
    events,
    judged,
    setting,
    suspects: new Set(judged?.verdict.suspects),
    held: new Set(piecesOf(ground, events).map((p) => standingSettlement(p.events)?.id)),
    settled: standingSettlement(events) !== null,
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
