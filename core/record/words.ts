import { DISTANCE_FROM_NAMES } from "@/core/sheet";
import { formatChance, formatNumber, formatQuantity, radToDeg } from "@/core/units";
import { DATUM_NAMES } from "@/core/vehicle";
import type { JobRecord } from "./schema";

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

/** The accepted position against the sheet, line by line; empty while nothing is settled. */
export function resultLines(record: JobRecord): ResultLine[] {
  const { sheet } = record.owed;
  const s = record.setOut.settled;
  if (!s) return [];
  const mm = (
    name: string,
    wanted: number,
    error: number,
    sigma: number,
    tolerance: number,
  ): ResultLine => ({
    name,
    wanted: formatQuantity(wanted, "mm"),
    error: `${signed(error, 1)} mm`,
    sigma: `${formatNumber(sigma, 1)} mm`,
    tolerance: `± ${formatNumber(tolerance)} mm`,
  });
  return [
    mm(
      `Distance from ${DISTANCE_FROM_NAMES[sheet.distanceFrom]}`,
      record.setOut.place.alongMm,
      s.alongMm,
      s.sigma.alongMm,
      sheet.tolerance.alongMm,
    ),
    mm(
      `Across the ${DATUM_NAMES[sheet.datum]}, vehicle left +`,
      record.setOut.place.acrossMm,
      s.acrossMm,
      s.sigma.acrossMm,
      sheet.tolerance.acrossMm,
    ),
    {
      name: `Twist against the ${DATUM_NAMES[sheet.datum]}`,
      wanted: `${formatNumber(record.setOut.place.twistDeg, 2)}°`,
      error: `${signed(radToDeg(s.twistRad), 2)}°`,
      sigma: `${formatNumber(radToDeg(s.sigma.twistRad), 2)}°`,
      tolerance: `± ${formatNumber(sheet.tolerance.twistDeg, 2)}°`,
    },
    mm(
      "Height of the board centre",
      record.setOut.place.heightMm,
      s.heightMm,
      s.sigma.heightMm,
      sheet.tolerance.heightMm,
    ),
  ];
}

/** The verdict in one line. */
export const verdictLine = (record: JobRecord): string =>
  record.setOut.settled
    ? `Set: ${formatChance(record.setOut.settled.chance)} chance that every quantity is inside its tolerance at once.`
    : "Not settled: the board is not proved in place, or something was disturbed since.";

/** The vehicle's answer in one line. */
export function runLine(record: JobRecord): string {
  const { status, result } = record.run;
  if (!result) return status === "not-started" ? "Not run." : "Run not finished.";
  return status === "passed"
    ? `Learned, quality ${formatNumber(result.qualityPercent)} %.`
    : `Refused: ${result.reason ?? `quality ${formatNumber(result.qualityPercent)} % below the sheet's limit.`}`;
}

/**
 * A reading's value and residual as printed. A reading with a side names it instead of wearing a
 * sign.
 */
export function readingFigures(r: JobRecord["setOut"]["readings"][number]): {
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

type Reading = JobRecord["setOut"]["readings"][number];
type Act = { say: string; at: string; by: { name: string; initials: string } };

/**
 * What was done at the stand in the order it was done: readings, and the moves and touches between
 * them.
 */
export function standLines({
  setOut,
}: JobRecord): ({ reading: Reading; act: null } | { reading: null; act: Act })[] {
  return [
    ...setOut.readings.map((reading) => ({ at: reading.at, line: { reading, act: null } })),
    ...setOut.moves.map((m) => ({
      at: m.at,
      line: { reading: null, act: { say: `Moved: ${m.say}`, at: m.at, by: m.by } },
    })),
    ...setOut.touches.map((t) => ({
      at: t.at,
      line: { reading: null, act: { say: `Touched: ${t.what}`, at: t.at, by: t.by } },
    })),
  ]
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
    .map(({ line }) => line);
}

/** The aim the vehicle learned, degrees. */
export const aimLearned = (r: NonNullable<JobRecord["run"]["result"]>): string =>
  `yaw ${signed(r.learnedYawDeg, 2)}°, pitch ${signed(r.learnedPitchDeg, 2)}°, roll ${signed(r.learnedRollDeg, 2)}°`;

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
