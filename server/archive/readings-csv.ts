import type { JobRecord } from "@/core/record";

/** The columns of the readings, each a plain figure or a word; angles in radians. */
const COLUMNS = [
  "calibration",
  "target",
  "reading",
  "slot",
  "name",
  "typed",
  "value",
  "unit",
  "at",
  "by",
  "instrument",
  "sigma",
  "state",
  "struckReason",
  "residual",
  "redundancy",
  "w",
] as const;

/** A cell by RFC 4180; one that a sheet program would take for a formula is kept a text. */
export const cell = (value: string | number | null): string => {
  if (typeof value === "number") return String(value);
  const text = value === null ? "" : /^[=+\-@\t\r]/.test(value) ? `'${value}` : value;
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
};

/** Every reading of a record, one to a row (RFC 4180, UTF-8, figures with a point). */
export function readingsCsv(record: JobRecord): string {
  const rows = record.calibrations.flatMap((c) =>
    c.targets.flatMap((t) =>
      t.readings.map((r): Record<(typeof COLUMNS)[number], string | number | null> => ({
        calibration: c.id,
        target: t.id,
        reading: r.id,
        slot: r.slot,
        name: r.name,
        typed: r.typed,
        value: r.value,
        unit: r.unit,
        at: r.at,
        by: r.by.name,
        instrument: r.instrument.id,
        sigma: r.sigma,
        state: r.state,
        struckReason: r.struckReason,
        residual: r.residual,
        redundancy: r.redundancy,
        w: r.w,
      })),
    ),
  );
  return [COLUMNS.join(","), ...rows.map((r) => COLUMNS.map((c) => cell(r[c])).join(",")), ""].join(
    "\r\n",
  );
}
