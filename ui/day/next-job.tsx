"use client";

import type { Card, Part } from "@/core/schedule/shop";
import type { Placed } from "@/core/schedule/types";
import { ButtonLink } from "../primitives/button";
import { useDay } from "./use-day";
import { chanceWords, PART_WORDS } from "./words";
import { clockOf } from "@/core/units/minute";

/** What one person has in hand, what comes after it, and where: to be read from two metres. */
export function NextJob({ day, me }: { day: string; me: { id: string; name: string } }) {
  const { asked, planned, silent } = useDay(day);
  const shop = asked?.shop;
  const plan = planned?.plan;
  const mine = plan?.plan.placed.filter((p) => p.people.includes(me.id)) ?? [];
  const cardOf = (p: Placed): Card => shop!.cards.find((c) => c.id === p.job)!;
  const [first, ...rest] = mine;
  const outlook = first && plan!.outlooks.find((o) => o.job === first.job);
  return (
    <main className="mx-auto w-full max-w-[900px] flex-1 px-3 py-4 lg:px-6">
      <h1 className="text-4xl font-semibold">{me.name}, next</h1>
      {silent && !asked && <p className="py-8 text-xl text-soft">The shop does not answer.</p>}
      {planned?.problem && <p className="py-4 text-lg text-stop">{planned.problem}</p>}
      {plan && !first && (
        <p className="mt-4 bg-sheet py-16 text-center text-2xl text-soft">
          Nothing is planned for you any more today.
        </p>
      )}
      {shop && first && (
        <section aria-label="Next job" className="mt-3 bg-sheet px-5 py-4">
          <p className="figure text-6xl font-semibold">
            {cardOf(first).begun?.part === first.task ? "now" : clockOf(first.startMin)}
            <span className="ml-3 text-3xl font-normal text-soft">to {clockOf(first.endMin)}</span>
          </p>
          <p className="mt-2 text-4xl font-semibold leading-tight">
            {PART_WORDS[first.task as Part]}: {cardOf(first).title}
          </p>
          <p className="text-2xl">
            {[
              cardOf(first).customer,
              cardOf(first).plate,
              shop.bays.find((b) => b.id === first.bay)?.name,
            ]
              .filter(Boolean)
              .join(", ")}
          </p>
          {first.things.length > 0 && (
            <p className="mt-1 text-xl text-soft">
              Take along: {first.things.map((x) => shop.kit[x] ?? x).join(", ")}.
            </p>
          )}
          {cardOf(first).promiseMin !== null && (
            <p className="mt-1 text-xl text-soft">
              Promised for {clockOf(cardOf(first).promiseMin!)}; it{" "}
              {chanceWords(outlook?.chance ?? null)}.
            </p>
          )}
          {cardOf(first).kind === "job" && (
            <ButtonLink
              look="act"
              size="great"
              className="mt-4"
              href={`/jobs/${first.job.slice(4)}`}
            >
              Open it
            </ButtonLink>
          )}
        </section>
      )}
      {shop && rest.length > 0 && (
        <section aria-label="After that" className="mt-4 bg-sheet px-5 py-3">
          <h2 className="border-b-2 border-ink pb-1 text-2xl font-semibold">After that</h2>
          <ul>
            {rest.map((p) => (
              <li
                key={`${p.job}${p.task}`}
                className="flex flex-wrap items-baseline gap-x-4 border-b border-hairline py-2 text-xl last:border-b-0"
              >
                <span className="figure w-20">{clockOf(p.startMin)}</span>
                <span className="font-semibold">
                  {PART_WORDS[p.task as Part]}: {cardOf(p).title}
                </span>
                <span className="text-soft">{cardOf(p).customer}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </main>
  );
}
