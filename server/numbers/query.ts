import { and, desc, eq } from "drizzle-orm";
import { z } from "zod";
import { CAUSE_WORDS } from "@/core/job/cause-words";
import type { Cause } from "@/core/guide";
import { instantOf } from "@/core/units/local-time";
import { cell } from "../archive/readings-csv";
import { db } from "../db/client";
import { kitChecks } from "../db/schema";
import { searchQuery } from "../jobs/list";
import { shopClock } from "../shop/clock";
import { catchUp, findRecords, type RecordRow } from "./store";

const word = z.string().trim().max(120).optional().catch(undefined);
const day = z.iso.date().optional().catch(undefined);

/** What records are looked for by, as an address carries it; what cannot be meant is left out. */
export const recordsAsked = z.object({
  find: word,
  sheet: word,
  stand: word,
  board: word,
  instrument: word,
  person: word,
  from: day,
  to: day,
  /** Only what was done since the instrument was last checked and found in order. */
  sinceCheck: z.literal("1").optional().catch(undefined),
});
export type RecordsAsked = z.infer<typeof recordsAsked>;

/** When a piece of kit was last checked and found in order; null where it never was. */
export function lastGoodCheck(itemId: string): string | null {
  return (
    db()
      .select({ at: kitChecks.at })
      .from(kitChecks)
      .where(and(eq(kitChecks.itemId, itemId), eq(kitChecks.ok, true)))
      .orderBy(desc(kitChecks.at))
      .limit(1)
      .get()?.at ?? null
  );
}

const nextDay = (d: string): string =>
  new Date(Date.parse(`${d}T12:00:00Z`) + 86_400_000).toISOString().slice(0, 10);

/** Handed-over calibrations by what was asked, the last first. */
export function records(
  asked: RecordsAsked,
  limit: number,
): { rows: RecordRow[]; total: number; checkedAt: string | null } {
  catchUp();
  const { zone } = shopClock();
  const kit = asked.instrument ?? asked.stand;
  const checkedAt = kit ? lastGoodCheck(kit) : null;
  const start = asked.from && instantOf(`${asked.from}T00:00`, zone);
  const from = asked.sinceCheck && checkedAt && checkedAt > (start ?? "") ? checkedAt : start;
  return {
    ...findRecords(
      {
        ...asked,
        from: from ?? undefined,
        to: (asked.to && instantOf(`${nextDay(asked.to)}T00:00`, zone)) ?? undefined,
      },
      searchQuery(asked.find),
      limit,
    ),
    checkedAt,
  };
}

const COLUMNS: [name: string, of: (r: RecordRow) => string | number | null][] = [
  ["job", (r) => r.number],
  ["handedOver", (r) => r.at],
  ["vin", (r) => r.vin],
  ["plate", (r) => r.plate],
  ["order", (r) => r.order],
  ["customer", (r) => r.customer],
  ["model", (r) => r.model],
  ["system", (r) => r.system],
  ["sheet", (r) => r.sheet],
  ["stand", (r) => r.stand],
  ["boards", (r) => r.boards.join(" ")],
  ["instruments", (r) => r.instruments.join(" ")],
  ["people", (r) => r.people.join("; ")],
  ["fitter", (r) => r.fitter],
  ["passed", (r) => (r.passed ? "yes" : "no")],
  ["attempts", (r) => r.attempts],
  ["causes", (r) => r.causes.map(causeName).join("; ")],
  ["yawLearnedLessForetoldDeg", (r) => (r.yaw ? Math.round(1000 * r.yaw.off) / 1000 : null)],
  ["minutes", (r) => Math.round(Object.values(r.minutes).reduce((s, m) => s + m, 0))],
];

/** A cause by its name; one that could not be ranked says so. */
export const causeName = (id: string): string =>
  id in CAUSE_WORDS ? CAUSE_WORDS[id as Cause].name : "not ranked";

/** The same as a table (RFC 4180, UTF-8, figures with a point). */
export const recordsCsv = (rows: readonly RecordRow[]): string =>
  [
    COLUMNS.map(([name]) => name).join(","),
    ...rows.map((r) => COLUMNS.map(([, of]) => cell(of(r))).join(",")),
  ]
    .map((line) => `${line}\r\n`)
    .join("");
