import { asc } from "drizzle-orm";
import { shopNumbers, type ShopNumbers, type Watched } from "@/core/numbers";
import { db } from "../db/client";
import { kitChecks } from "../db/schema";
import { shopTimes } from "../shop/clock";
import { listStands } from "../shop/store";
import { catchUp, numbersSince } from "./store";

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

/** The shop's numbers of the last years. */
export function numbersPage(years: number, now: Date): ShopNumbers {
  const from = new Date(now.getTime() - years * 366 * 86_400_000).toISOString();
  catchUp();
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
