import { isOverdue } from "@/core/kit";
import type { Card, ShopDay } from "@/core/schedule/shop";
import { dayInWords } from "@/core/units";
import { clockOf } from "@/core/units/minute";
import { lastChecks, listBoards } from "../kit/store";
import { shopDay } from "../shop/clock";
import { listCheckedInstruments, listStands } from "../shop/store";

const named = (cards: readonly Card[]): string =>
  [...new Set(cards.map((c) => c.title))].join(", ");

/** What belongs to a day besides its jobs: kit that is due or away, and what has to be at hand in time. */
export function remindersFor(shop: ShopDay): string[] {
  return [
    ...checksDue(shop),
    ...boardsAway(shop),
    ...windowsClosing(shop),
    ...gatewaysExpected(shop),
  ];
}

/** Stands are checked before the first job of a morning, instruments when their time is over. */
function checksDue({ day, cards }: ShopDay): string[] {
  const checks = lastChecks();
  const wanted = new Set(
    cards.filter((c) => c.over.bay === undefined).flatMap((c) => c.bay?.things.flat() ?? []),
  );
  const stands = listStands().filter((s) => wanted.has(s.id));
  const due = stands.filter((s) => {
    const last = checks.get(s.id);
    return day === shopDay() && last?.ok !== false && (!last || shopDay(last.at) !== day);
  });
  const failed = stands.filter((s) => checks.get(s.id)?.ok === false);
  const overdue = listCheckedInstruments().filter((i) => isOverdue(i, day));
  return [
    ...failed.map((s) => `${s.id} has failed its zero check: ${checks.get(s.id)!.words}.`),
    ...(due.length > 0
      ? [`Zero check before the first job: ${due.map((s) => s.id).join(", ")}.`]
      : []),
    ...(overdue.length > 0
      ? [
          `Check is overdue: ${overdue.map((i) => i.name).join(", ")}. Until then they count with more uncertainty.`,
        ]
      : []),
  ];
}

/** Boards that are lent out, and what of the day wants them. */
const boardsAway = ({ day, cards }: ShopDay): string[] =>
  listBoards().flatMap(({ code, lentTo, backOn }) => {
    if (!lentTo || (backOn && backOn <= day)) return [];
    const wants = cards.filter(
      (c) => c.over.bay === undefined && c.bay?.things.flat().includes(code),
    );
    const back = backOn ? `, back on ${dayInWords(backOn)}` : "";
    return [
      `${code} is lent to ${lentTo}${back}.${wants.length > 0 ? ` Fetch it: ${named(wants)} wants it.` : ""}`,
    ];
  });

/** Drives whose light or weather is over before the shop closes. */
function windowsClosing({ nowMin, rules, cards }: ShopDay): string[] {
  const closing = new Map<number, string[]>();
  for (const c of cards) {
    if (!c.road?.windows || c.over.road !== undefined || c.begun?.part === "road") continue;
    const left = c.road.windows.filter(
      ([from, to]) => to - Math.max(from, nowMin) >= c.road!.minutes,
    );
    const until = left.at(-1)?.[1];
    if (until !== undefined && until < rules.toMin)
      closing.set(until, [...(closing.get(until) ?? []), `${c.title}, ${c.customer}`]);
  }
  return [...closing]
    .toSorted(([a], [b]) => a - b)
    .map(([until, whose]) => `Drives that suit until ${clockOf(until)} only: ${whose.join("; ")}.`);
}

/** Vehicles that sign in over the network before they let anything be cleared. */
function gatewaysExpected({ cards }: ShopDay): string[] {
  const gateways = cards.filter((c) => c.kind === "booking" && c.vehicle.gateway);
  return gateways.length > 0
    ? [`Have the hotspot charged: ${named(gateways)} signs in over the network.`]
    : [];
}
