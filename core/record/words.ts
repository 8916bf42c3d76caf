import { aimAdvice } from "@/core/job";
import { changedAimWords } from "@/core/job/changed-aim";
import { DRIVE_OUTCOMES, ROAD_RESULTS } from "@/core/job/walk";
import { CODE_CHANGES, UNIT_CHANGES } from "@/core/scan";
import { QUANTITIES, REFERENCES, type QuantityId } from "@/core/setout";
import {
  datumName,
  distanceName,
  setupOf,
  targetOf,
  type Setup,
  type Sheet,
  type Target,
} from "@/core/sheet";
import {
  dayInWords,
  FIRST_ZONE,
  formatChance,
  formatNumber,
  formatQuantity,
  radToDeg,
  timesIn,
} from "@/core/units";
import type { Times } from "@/core/units";
import type { CalibrationRecord, JobRecord, TargetRecord } from "./schema";

/** One line of the set-out's result, as the report and the screen print it. */
export type ResultLine = {
  name: string;
  wanted: string;
  error: string;
  sigma: string;
  tolerance: string;
};

const signed = (v: number, decimals: number): string =>
  (v >= 0 ? "+" : "") + formatNumber(v, decimals);

/** Where a sheet's figures come from, and who answers for them. */
export function sourceLine({ source, status }: Sheet, record: JobRecord): string {
  const typed = record.typedFigures;
  const whence = `${source.name}, ${dayInWords(source.date)}; `;
  if (status === "checked" || !typed)
    return `${whence}entered by ${source.enteredBy}, checked by ${source.checkedBy} on ${dayInWords(source.checkedOn ?? "")}`;
  const { compared } = typed;
  const second = compared
    ? `compared figure by figure by ${compared.by.name}, ${timesIn(record.job.zone ?? FIRST_ZONE).dateAndTime(compared.at)}`
    : "NO SECOND PERSON HAS COMPARED THEM";
  return `${whence}typed on the spot by ${source.enteredBy}, the vehicle taped to ± ${formatNumber(typed.tapedSigmaMm, 1)} mm; ${second}`;
}

/** To which point the book's figure is, where that is not the centre of the face. */
function to(part: "along" | "height", { measuredTo }: Target): string {
  const point = measuredTo?.[part];
  if (part === "along") return point === "beam-back" ? `, to ${REFERENCES.along[point]}` : "";
  return point === "scale" || point === "laser" ? `, by ${REFERENCES.height[point]}` : "";
}

/** What two targets have to be to each other, as the sheet has it. */
function relationWanted(kind: QuantityId, target: Target, setup: Setup | undefined): string {
  const relation = setup?.relations?.find((r) => r.kind === kind && r.of.includes(target.id));
  if (relation?.kind === "spacing")
    return `${formatNumber(relation.minMm)} to ${formatQuantity(relation.maxMm, "mm")}`;
  return kind === "parallel" ? "parallel" : "equal on both sides";
}

/** What a quantity of a target is measured against. */
function wantedOf(
  q: Accepted,
  target: Target,
  setup: Setup | undefined,
): { name: string; wanted: string } {
  const { placement } = target;
  const against = datumName(target);
  const mm = (v: number): string => formatQuantity(v, "mm");
  switch (q.id as QuantityId) {
    case "along":
      return {
        name: `${{ board: "Distance", mat: "Cross line", mark: "Along the line" }[target.kind]} from ${distanceName(target)}${to("along", target)}`,
        wanted: mm(placement.alongMm),
      };
    case "across":
      return { name: `Across the ${against}, vehicle left +`, wanted: mm(placement.acrossMm) };
    case "twist":
      return {
        name: `Twist against the ${against}`,
        wanted: `${formatNumber(placement.twistDeg, 2)}°`,
      };
    case "height":
      return {
        name: `Height of the board${to("height", target) || " centre"}`,
        wanted: mm(placement.heightMm),
      };
    case "spacing":
    case "parallel":
    case "equal-distance": {
      const { name } = QUANTITIES[q.id as QuantityId];
      const range = relationWanted(q.id as QuantityId, target, setup);
      return { name: q.to ? `${name}, with ${q.to}` : name, wanted: range };
    }
    default: {
      const upright = target.upright === "vehicle-plane" ? "square to the car" : "plumb";
      return { name: QUANTITIES[q.id as QuantityId]?.name ?? q.id, wanted: upright };
    }
  }
}

type Accepted = NonNullable<TargetRecord["settled"]>["quantities"][number];

/** The accepted position against the sheet, line by line; empty while nothing is settled. */
export function resultLines(record: TargetRecord, sheet: Pick<Sheet, "setups">): ResultLine[] {
  const target = targetOf(sheet, record.id);
  const setup = setupOf(sheet, record.id);
  return (record.settled?.quantities ?? []).map((q) => {
    const angle = q.unit === "rad";
    const figure = (v: number, decimals: number): string =>
      angle ? `${formatNumber(radToDeg(v), 2)}°` : `${formatNumber(v, decimals)} mm`;
    const off = angle ? `${signed(radToDeg(q.error), 2)}°` : `${signed(q.error, 1)} mm`;
    const even = q.lower === -q.upper;
    return {
      ...wantedOf(q, target, setup),
      error: off,
      sigma: q.sigma === null ? "–" : figure(q.sigma, 1),
      tolerance: even
        ? `± ${figure(q.upper, 0)}`
        : `${figure(q.lower, 0)} to ${figure(q.upper, 0)}`,
    };
  });
}

/** The verdict of one target in one line. */
export const verdictLine = ({ settled }: TargetRecord): string =>
  settled
    ? `Set: ${formatChance(settled.chance)} chance that every quantity is inside its tolerance at once.${settled.assumes ? ` Taken as right, because nothing in the kit would show otherwise: ${settled.assumes.join(", ").replaceAll("→", "to")}.` : ""}`
    : "Not settled: it is not proved in place, or something was disturbed since.";

/** How far two halves of the readings agree, in one line; null where nobody asked. */
export function halvesLine({ settled }: TargetRecord): string | null {
  if (!settled || settled.halves === undefined) return null;
  const { halves: h } = settled;
  if (!h)
    return "No two halves of the readings both fix its place by themselves: they are not held against each other.";
  const [first, second] = h.of.map((names) => names.length);
  const turn = (rad: number): string => formatNumber(radToDeg(Math.abs(rad)), 2);
  return `Two halves of the readings, ${first} and ${second} of them, taken apart agree within ${formatNumber(h.mm, 1)} ± ${formatNumber(h.sigmaMm, 1)} mm and ${turn(h.turnRad)} ± ${turn(h.sigmaRad)}°.`;
}

/** What was read again after the vehicle had learned, in one line; null where nothing was. */
export function witnessLine({ witness: w }: TargetRecord): string | null {
  if (!w) return null;
  const again = `${w.readings === 1 ? "One reading was" : `${w.readings} readings were`} taken again after the vehicle had learned, before anything was touched; ${w.readings === 1 ? "it" : "they"} would show ${formatNumber(100 * w.share)} of 100 knocks.`;
  return w.stood
    ? `${again} None showed: ${formatChance(w.chance)} chance that it stood inside every tolerance while the vehicle looked.`
    : `${again} It no longer stood where it was proved: nobody knows since when.`;
}

/** What hung or lay there, in one line; null where nobody checked it. */
export function checkLine(
  { check, id }: TargetRecord,
  sheet: Pick<Sheet, "setups">,
  { clockTime }: Pick<Times, "clockTime">,
): string | null {
  if (!check) return null;
  const mat = targetOf(sheet, id).kind === "mat";
  const worn = check.reason ? ` Worn: ${check.reason}.` : "";
  return `${mat ? "Mat" : "Board"} ${check.code} checked, arrow ${mat ? "forward" : "up"}, ${clockTime(check.at)} ${check.by.initials}.${worn}`;
}

/** The control units before and after: when they were read, what has something to say, who has not. */
export function codeLines(
  { codes }: JobRecord,
  { dateAndTime }: Pick<Times, "dateAndTime">,
): { head: string; rows: [what: string, change: string, word: string][]; quiet: string } | null {
  if (!codes) return null;
  const again = codes.after
    ? `read again ${dateAndTime(codes.after)}, ${codes.cleared ? "codes cleared in between" : "nothing cleared since the routine"}`
    : "NOT READ AGAIN AFTER THE WORK";
  const loud = codes.units.filter((u) => u.codes.length > 0 || u.change !== "answers");
  return {
    head: `${codes.before ? `First read ${dateAndTime(codes.before)}` : "NOT READ BEFORE THE WORK"}; ${again}.`,
    rows: loud.flatMap((u): [string, string, string][] => [
      ...(u.change === "answers"
        ? []
        : [[u.name, UNIT_CHANGES[u.change], u.word ?? ""] as [string, string, string]]),
      ...u.codes.map((c): [string, string, string] => [
        `${c.code}  ${u.name}: ${c.text}`,
        `${CODE_CHANGES[c.change]}${c.after ? ` (${c.after})` : ""}`,
        c.word ?? "",
      ]),
    ]),
    quiet: codes.units
      .filter((u) => !loud.includes(u))
      .map((u) => u.name)
      .join(", "),
  };
}

/** The vehicle's answer in one line. */
export function runLine({ run }: CalibrationRecord): string {
  const { status, result } = run;
  if (!result)
    return status === "passed"
      ? "Made ready for its drive."
      : status === "not-started"
        ? "Not run."
        : "Run not finished.";
  return status === "passed"
    ? `Learned, quality ${formatNumber(result.qualityPercent)} %.`
    : `Refused: ${result.reason ?? `quality ${formatNumber(result.qualityPercent)} % below the sheet's limit.`}`;
}

/**
 * A reading's value and residual as printed. A reading with a side names it instead of wearing a
 * sign.
 */
export function readingFigures(r: TargetRecord["readings"][number]): {
  value: string;
  residual: string;
} {
  const angle = r.unit === "rad";
  const size = r.sides ? Math.abs(r.value) : r.value;
  const side =
    r.sides && r.value !== 0 ? ` ${r.value > 0 ? r.sides.positive : r.sides.negative}` : "";
  const residual = angle
    ? `${signed(radToDeg(r.residual ?? 0), 2)}°`
    : `${signed(r.residual ?? 0, 1)} mm`;
  return {
    value: formatQuantity(size, angle ? "deg" : "mm") + side,
    residual: r.residual === null ? "–" : residual,
  };
}

type Reading = TargetRecord["readings"][number];
type Act = { say: string; at: string; by: { name: string; initials: string } };

/**
 * What was done at the stand in the order it was done: readings, and the moves and touches between
 * them.
 */
export function standLines(
  target: TargetRecord,
): ({ reading: Reading; act: null } | { reading: null; act: Act })[] {
  return [
    ...target.readings.map((reading) => ({ at: reading.at, line: { reading, act: null } })),
    ...target.moves.map((m) => ({
      at: m.at,
      line: { reading: null, act: { say: `Moved: ${m.say}`, at: m.at, by: m.by } },
    })),
    ...target.touches.map((t) => ({
      at: t.at,
      line: { reading: null, act: { say: `Touched: ${t.what}`, at: t.at, by: t.by } },
    })),
  ]
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
    .map(({ line }) => line);
}

const OUTCOMES = {
  "this-record": "this record",
  done: "done",
  open: "OPEN",
  declined: "DECLINED",
} as const;

/** What became of an owed calibration, by whom, and why it was owed. */
export function owedLine(l: JobRecord["owed"]["lines"][number]): string {
  const said = l.done
    ? ` (${l.done.note}; ${l.done.by.name})`
    : l.declined
      ? ` (${l.declined.reason}; ${l.declined.by.name})`
      : "";
  const why = l.reasons.map((r) => `${r.because}: ${r.reason} ${r.source}.`);
  return `${OUTCOMES[l.outcome]}${said}. ${why.join(" ")}`;
}

/** The aim the vehicle learned, degrees; null where it learns none. */
export function aimLearned(r: NonNullable<CalibrationRecord["run"]["result"]>): string | null {
  const { learnedYawDeg: yaw, learnedPitchDeg: pitch, learnedRollDeg: roll } = r;
  if (yaw === undefined || pitch === undefined || roll === undefined) return null;
  return `yaw ${signed(yaw, 2)}°, pitch ${signed(pitch, 2)}°, roll ${signed(roll, 2)}°`;
}

/** What the routine changed of the stored aim; null where that was not read. */
export const changedAimLine = ({ changedAim }: CalibrationRecord["run"]): string | null =>
  changedAim ? changedAimWords(changedAim) : null;

/** How a function did on the road. */
export function roadLine(t: NonNullable<JobRecord["road"]>[number]): string {
  const crew = t.drove ? `${t.drove} drove${t.watched ? `, ${t.watched} watched` : ""}` : "";
  const own =
    t.found === null
      ? ""
      : `customer’s setting ${t.found} ${t.putBack ? "put back" : "not put back"}`;
  return [ROAD_RESULTS[t.result], t.remark, own, crew].filter(Boolean).join("; ");
}

const clock = (s: number): string =>
  `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, "0")}`;

/** How a drive went, who was in the car, and what of it counted. */
export function driveLine(d: NonNullable<CalibrationRecord["drives"]>[number]): string {
  const cost = d.counted?.cost.slice(0, 3).map((c) => `${c.name} ${clock(c.seconds)}`) ?? [];
  return [
    `${DRIVE_OUTCOMES[d.outcome][0]!.toUpperCase()}${DRIVE_OUTCOMES[d.outcome].slice(1)}`,
    d.says && `it showed ${d.says}`,
    d.remark,
    `${d.drove} drove${d.watched ? `, ${d.watched} watched` : ", alone"}`,
    d.leave && leaveLine(d.leave),
    d.counted
      ? `${clock(d.counted.seconds)} of ${clock(d.counted.ofSeconds)} min counted${d.counted.unknown ? ` (not in its log: ${d.counted.unknown.join(", ")})` : ""}${cost.length > 0 ? `; lost to ${cost.join(", ")}` : ""}`
      : "no log was kept",
  ]
    .filter(Boolean)
    .join(". ");
}

type DriveLeave = NonNullable<NonNullable<CalibrationRecord["drives"]>[number]["leave"]>;

/** What was planned of a drive, and what was said before leaving. */
function leaveLine({ planned, keeps, hotspot, inRain, simulated }: DriveLeave): string {
  const min = (s: number): string => formatNumber(s / 60, 0);
  return [
    planned
      ? `${min(planned.seconds)} min were planned, ${min(planned.from)} to ${min(planned.to)}`
      : "no plan",
    `speed kept: ${keeps}`,
    hotspot && "hotspot on",
    inRain !== null && `in rain: ${inRain}`,
    simulated && "its seconds come from a simulated road",
  ]
    .filter(Boolean)
    .join("; ");
}

/** A refusal with its likely causes. */
export function refusalLine({ reason, causes }: Refusal): string {
  const named = causes.map((c) => `${c.name} ${formatNumber(100 * Math.min(c.share, 0.99))} %`);
  return named.length > 0 ? `${reason} Likely: ${named.join(", ")}.` : reason;
}
type Refusal = NonNullable<CalibrationRecord["run"]["refusals"]>[number];

/** What was foretold of that aim, and how they go together; null where nothing foretold it. */
export function aimForetoldLine({ foretold }: CalibrationRecord["run"]): string | null {
  if (!foretold) return null;
  const axes = foretold.axes.map(
    (a) => `${a.axis} ${signed(a.meanDeg, 2)} ± ${formatNumber(a.sigmaDeg, 2)}°`,
  );
  const from = ["Set-out", foretold.glass && "glass seat", foretold.stance && "stance"]
    .filter((part) => part !== false && part !== undefined)
    .join(", ")
    .replace(/, ([^,]*)$/, " and $1");
  return `${from} foretold ${axes.join(", ")}. ${aimAdvice(foretold)?.say ?? "The learned aim goes with that."}`;
}

/** The glass in one line. */
export function glassLine(record: JobRecord): string | null {
  const g = record.glass;
  if (!g) return null;
  const turn = g.turnDeg
    ? `bracket turned yaw ${signed(g.turnDeg.yaw, 2)}°, pitch ${signed(g.turnDeg.pitch, 2)}°, roll ${signed(g.turnDeg.roll, 2)}° (allowed ± ${formatNumber(g.limitDeg, 2)}°)`
    : "seat not measured";
  return `Part ${g.part}${g.fitter ? `, fitted by ${g.fitter}` : ""}; ${turn}.${g.mount.map((m) => ` ${m.name}: ${m.right ? "yes" : "NO"}.`).join("")}${g.partReason ? ` Other than the maker’s part because: ${g.partReason}.` : ""}`;
}

/** Time on the job in one line, and each pause with its reason. */
export function timeLines(record: JobRecord): string[] {
  const { stages, workMinutes, pauses } = record.time;
  const parts = stages
    .filter((s) => s.minutes >= 0.5)
    .map((s) => `${s.stage} ${formatNumber(s.minutes)} min`);
  return [
    `Work ${formatNumber(workMinutes)} min${parts.length > 0 ? `: ${parts.join(", ")}` : ""}.`,
    ...pauses.map((p) => `Clock stopped ${formatNumber(p.minutes)} min: ${p.reason}.`),
  ];
}

/** How the vehicle came in, line by line; empty when nobody walked round it. */
export function arrivalLines({ cameIn: c }: JobRecord): [string, string][] {
  if (!c) return [];
  const typed = /mi/i.test(c.odometerTyped) ? ` (the dash shows ${c.odometerTyped})` : "";
  return [
    ["Odometer", `${formatNumber(c.odometerKm)} km${typed}`],
    ["Lamps lit", c.lamps.join(", ") || "none"],
    ...(c.settings.length > 0
      ? ([["Settings as found", c.settings.map((s) => `${s.name}: ${s.found}`).join("; ")]] as [
          string,
          string,
        ][])
      : []),
  ];
}
