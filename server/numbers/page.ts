import { asc, count, sql } from "drizzle-orm";
import type { SQLiteTable } from "drizzle-orm/sqlite-core";
import { shopNumbers, type ShopNumbers, type Watched } from "@/core/numbers";
import { db } from "../db/client";
import { jobNumbers, kitChecks } from "../db/schema";
import { shopTimes } from "../shop/clock";
import { listStands } from "../shop/store";
import { catchUp, numbersSince } from "./store";
import { numbersTurn } from "./turn";

/** What each stand's zero checks found, beside what the stand has of its own. */
function zeroChecks(from: string): { stand: string; what: Watched; at: string; value: number }[] {
  const stands = new Map(listStands().map((s) => [s.id, s]));
  return db()
    .select()
    .from(kitChecks)
    .orderBy(asc(kitChecks.at))
    .all()
    .flatMap(({ itemId, at, readings }) => {
      const stand = stands.get(itemId);
      const { rule, scale, dot } = readings;
      if (!stand || at < from || rule === undefined || scale === undefined) return [];
      return [
        { stand: itemId, what: "scale", at, value: rule - scale - stand.scaleOffsetMm } as const,
        ...(dot === undefined ? [] : [{ stand: itemId, what: "dot", at, value: dot } as const]),
      ];
    });
}

/** What was worked out last, and of what: it holds until something is handed over or checked anew. */
const kept: { of?: string; numbers?: ShopNumbers } = {};

/** Changes with every row that the numbers are worked out of, put in by this program or another. */
const stateOf = (day: string): string => {
  const newest = (table: SQLiteTable): string => {
    const row = db()
      .select({ n: count(), last: sql<number>`max(rowid)` })
      .from(table)
      .get();
    return `${row?.n}/${row?.last}`;
  };
  return [day, numbersTurn(), newest(jobNumbers), newest(kitChecks)].join();
};

/** The shop's numbers of the last years. */
export function numbersPage(years: number, now: Date): ShopNumbers {
  catchUp();
  const of = `${years}/${stateOf(now.toISOString().slice(0, 10))}`;
  if (kept.of !== of) {
    kept.numbers = workedOut(years, now);
    kept.of = of;
  }
  return kept.numbers!;
}

function workedOut(years: number, now: Date): ShopNumbers {
  const from = new Date(now.getTime() - years * 366 * 86_400_000).toISOString();
  const times = shopTimes();
  return shopNumbers(
    numbersSince(from).map(({ at, doc }) => ({ ...doc, at })),
    zeroChecks(from),
    // Only about the turn of a month the shop's zone decides.
    (at) => {
      const day = Number(at.slice(8, 10));
      return day > 1 && day < 28 ? at.slice(0, 7) : times.day(at).slice(0, 7);
    },
  );
}
