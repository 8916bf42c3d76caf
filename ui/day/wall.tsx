"use client";

import { useEffect, useState } from "react";
import type { Card, Part } from "@/core/schedule/shop";
import type { Placed } from "@/core/schedule/types";
import { formatChance } from "@/core/units";
import { useTimes } from "../settings";
import { useDay } from "./use-day";
import { causeWords, PART_WORDS } from "./words";
import { clockOf } from "@/core/units/minute";

/** The day for a screen on the wall of the shop: read from across it, touched by nobody. */
export function Wall({ day }: { day: string }) {
  const { asked, planned, silent } = useDay(day);
  const { clockTime } = useTimes();
  const [now, setNow] = useState<string | null>(null);
  const aheadMs = asked?.aheadMs ?? 0;
  useEffect(() => {
    // The shop's clock, not the screen's: nobody sets that one right.
    const tick = (): void => setNow(clockTime(new Date(Date.now() + aheadMs).toISOString()));
    tick();
    const timer = setInterval(tick, 5000);
    return () => clearInterval(timer);
  }, [clockTime, aheadMs]);
  const shop = asked?.shop;
  const plan = planned?.plan;
  const cardOf = (p: Placed): Card => shop!.cards.find((c) => c.id === p.job)!;
  const at = shop?.nowMin ?? 0;
  const ends = (id: string): number =>
    Math.max(...plan!.plan.placed.filter((p) => p.job === id).map((p) => p.endMin));
  return (
    <main className="flex min-h-dvh flex-col gap-6 p-8">
      <header className="flex items-baseline gap-8">
        <h1 className="text-5xl font-semibold">
          {new Date(`${day}T12:00:00Z`).toLocaleDateString("en-GB", {
            weekday: "long",
            day: "numeric",
            month: "long",
            timeZone: "UTC",
          })}
        </h1>
        {silent && <p className="text-3xl text-loose">The shop does not answer.</p>}
        <p className="figure ml-auto text-7xl font-semibold">{now}</p>
      </header>
      {planned?.problem && <p className="text-3xl text-stop">{planned.problem}</p>}
      {shop && plan && (
        <div className="grid flex-1 gap-8 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
          <div className="flex flex-col gap-4">
            {[...shop.bays, { id: null, name: "Road and desk" }].map((lane) => {
              const own = plan.plan.placed.filter((p) => p.bay === lane.id && p.endMin > at);
              const [first, ...rest] = own;
              const here = first && first.startMin <= at;
              return (
                <section
                  key={lane.name}
                  aria-label={lane.name}
                  className="grid grid-cols-[14rem_minmax(0,1fr)] items-start gap-6 bg-sheet px-6 py-5"
                >
                  <h2 className="text-4xl font-semibold">{lane.name}</h2>
                  {!first ? (
                    <p className="text-4xl text-soft">free</p>
                  ) : (
                    <div className="min-w-0">
                      <p className="truncate text-4xl font-semibold">
                        <span className="figure">
                          {here ? `until ${clockOf(first.endMin)}` : clockOf(first.startMin)}
                        </span>{" "}
                        {cardOf(first).title}
                      </p>
                      <p className="truncate text-3xl text-soft">
                        {[
                          PART_WORDS[first.task as Part],
                          ...first.people.map((id) => shop.people.find((x) => x.id === id)?.name),
                        ].join(", ")}
                      </p>
                      {rest.slice(0, 3).map((p) => (
                        <p key={`${p.job}${p.task}`} className="truncate text-2xl text-soft">
                          <span className="figure">{clockOf(p.startMin)}</span> {cardOf(p).title},{" "}
                          {PART_WORDS[p.task as Part].toLowerCase()}
                        </p>
                      ))}
                    </div>
                  )}
                </section>
              );
            })}
          </div>
          <section aria-label="Promised" className="bg-sheet px-6 py-5">
            <h2 className="border-b-2 border-ink pb-2 text-4xl font-semibold">Promised</h2>
            {plan.outlooks.every((o) => o.chance === null) && (
              <p className="py-4 text-3xl text-soft">Nothing is promised for today.</p>
            )}
            {plan.outlooks
              .filter((o) => o.chance !== null)
              .toSorted(
                (a, b) =>
                  shop.cards.find((c) => c.id === a.job)!.promiseMin! -
                  shop.cards.find((c) => c.id === b.job)!.promiseMin!,
              )
              .map((o) => {
                const card = shop.cards.find((c) => c.id === o.job)!;
                const broken = plan.broken.find((b) => b.job === o.job);
                return (
                  <div key={o.job} className="border-b border-hairline py-3 last:border-b-0">
                    <p className="flex items-baseline gap-5 text-3xl">
                      <span className="figure font-semibold">{clockOf(card.promiseMin!)}</span>
                      <span className="min-w-0 truncate">{card.title}</span>
                      <span
                        className={`figure ml-auto ${broken ? "text-stop" : o.chance! < 0.7 ? "text-loose" : "text-settled"}`}
                      >
                        {broken ? clockOf(ends(o.job)) : formatChance(o.chance!)}
                      </span>
                    </p>
                    {broken && (
                      <p className="text-2xl text-stop">
                        Call {card.customer}. {causeWords(shop, broken)}
                      </p>
                    )}
                  </div>
                );
              })}
          </section>
        </div>
      )}
    </main>
  );
}
