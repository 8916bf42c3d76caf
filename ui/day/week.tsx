"use client";

import Link from "next/link";
import { useEffect, useState } from "react";
import type { ShopDay } from "@/core/schedule/shop";
import { dayInWords, formatNumber } from "@/core/units";
import type { Planned } from "@/workers/day/day.worker";
import { ButtonLink } from "../primitives/button";
import { Mark } from "../primitives/marks";
import { dayFrom } from "./day";
import { askDay, useDayWorker } from "./use-day";

import { clockOf } from "@/core/units/minute";

type Column = { shop: ShopDay; planned: Planned };

/** Seven days beside each other: how full each is, and which promise breaks. */
export function WeekPage({ day, today }: { day: string; today: string }) {
  const [columns, setColumns] = useState<Record<string, Column>>({});
  const [silent, setSilent] = useState(false);
  const remote = useDayWorker();
  useEffect(() => {
    let gone = false;
    const look = async (): Promise<void> => {
      // One after another: the first day is what is looked at first.
      for (let n = 0; n < 7 && !gone; n++) {
        const { shop, bays } = await askDay(dayFrom(day, n));
        const planned = await remote().plan(shop, bays);
        if (!gone) setColumns((c) => ({ ...c, [shop.day]: { shop, planned } }));
      }
    };
    look().catch(() => !gone && setSilent(true));
    return () => {
      gone = true;
    };
  }, [day, remote]);
  return (
    <main className="mx-auto w-full max-w-[1500px] flex-1 px-3 py-4 lg:px-6">
      <header className="flex flex-wrap items-center gap-2">
        <h1 className="mr-auto text-4xl font-semibold">Week</h1>
        <ButtonLink look="quiet" href={`/day/week?day=${dayFrom(day, -7)}`}>
          ‹ Week before
        </ButtonLink>
        <ButtonLink look="quiet" href={`/day/week?day=${dayFrom(day, 7)}`}>
          Week after ›
        </ButtonLink>
      </header>
      {silent && <p className="py-6 text-xl text-soft">The shop does not answer.</p>}
      <div className="mt-3 grid gap-2 sm:grid-cols-2 lg:grid-cols-7">
        {Array.from({ length: 7 }, (_, n) => dayFrom(day, n)).map((d) => (
          <DayColumn key={d} day={d} today={today} column={columns[d] ?? null} />
        ))}
      </div>
    </main>
  );
}

function DayColumn({ day, today, column }: { day: string; today: string; column: Column | null }) {
  const name = new Date(`${day}T12:00:00Z`).toLocaleDateString("en-GB", {
    weekday: "short",
    timeZone: "UTC",
  });
  const plan = column?.planned.plan;
  const work = plan?.plan.placed.reduce((s, p) => s + (p.endMin - p.startMin) * p.people.length, 0);
  const hours = plan?.day.people.reduce((s, p) => s + p.toMin - p.fromMin, 0);
  return (
    <section aria-label={dayInWords(day)} className="min-w-0 bg-sheet px-3 py-2">
      <h2 className={`border-b-2 pb-1 text-lg ${day === today ? "border-act" : "border-ink"}`}>
        <Link href={`/day?day=${day}`} className="flex min-h-12 items-baseline gap-2">
          <span className="font-semibold">{name}</span>
          <span className="text-base text-soft">{dayInWords(day).replace(/ \d{4}$/, "")}</span>
          {plan && column.shop.cards.length > 0 && (
            <span className="ml-auto self-center">
              <Mark state={plan.broken.length > 0 ? "stop" : "settled"} size={14} />
            </span>
          )}
        </Link>
      </h2>
      {!column ? (
        <p className="py-3 text-base text-soft">Planning.</p>
      ) : (
        <>
          <p className="py-1 text-base text-soft">
            {column.shop.cards.length === 0
              ? "Nothing yet"
              : work !== undefined && hours !== undefined
                ? `${formatNumber(work / 60, 1)} of ${formatNumber(hours / 60, 0)} h of work`
                : column.planned.problem}
          </p>
          {plan?.broken.map((b) => (
            <p key={b.job} className="text-base text-stop">
              {column.shop.cards.find((c) => c.id === b.job)?.customer}: {Math.ceil(b.lateMin)} min
              late
            </p>
          ))}
          <ul>
            {column.shop.cards
              .toSorted((a, b) => a.arriveMin - b.arriveMin)
              .map((c) => (
                <li key={c.id} className="border-t border-hairline py-1 text-base">
                  <span className="figure text-soft">{clockOf(c.arriveMin)}</span>{" "}
                  <span className="font-semibold">{c.title}</span>
                  <span className="block truncate text-soft">{c.customer}</span>
                </li>
              ))}
          </ul>
        </>
      )}
    </section>
  );
}
