"use client";

import Link from "next/link";
import { useState } from "react";
import type { Card, Part, Pin, ShopDay } from "@/core/schedule/shop";
import type { ShopPlan } from "@/core/schedule/plan-shop";
import { dayInWords, formatNumber } from "@/core/units";
import { Button, ButtonLink } from "../primitives/button";
import { Mark } from "../primitives/marks";
import { SaidLine, type Said } from "../primitives/said-line";
import { Board } from "./board";
import { BookingDialog, type VehicleName } from "./booking-dialog";
import { CalendarDialog } from "./calendar-dialog";
import { LANES, type LaneKind } from "./lanes";
import { useDay } from "./use-day";
import { callOf, causeWords, chanceWords, PART_WORDS, wayWords } from "./words";
import { clockOf } from "@/core/units/minute";

const SILENT = "The shop does not answer. Nothing was changed; try again when it is back.";

/** The day before or after, ISO. */
export const dayFrom = (day: string, by: number): string =>
  new Date(Date.parse(`${day}T12:00:00Z`) + by * 86_400_000).toISOString().slice(0, 10);

const weekday = (day: string): string =>
  new Date(`${day}T12:00:00Z`).toLocaleDateString("en-GB", { weekday: "long", timeZone: "UTC" });

/** A day of the shop: what is done where, by whom and when; which promises hold, and what breaks one. */
export function DayPage({
  day,
  today,
  vehicles,
  writes,
}: {
  day: string;
  today: string;
  vehicles: VehicleName[];
  writes: boolean;
}) {
  const { asked, planned, busy, silent, pin, refetch } = useDay(day);
  const [kind, setKind] = useState<LaneKind>("bay");
  const [chosen, setChosen] = useState<string | null>(null);
  const [said, setSaid] = useState<Said | null>(null);
  const [booking, setBooking] = useState<{ card: Card | null } | null>(null);
  const [past, setPast] = useState<{ card: string; part: Part; was: Pin | null }[]>([]);
  const shop = asked?.shop;
  const put = async (card: string, part: Part, to: Pin | null): Promise<void> => {
    const was = shop?.cards.find((c) => c.id === card)?.pins[part] ?? null;
    setPast((p) => [...p.slice(-30), { card, part, was }]);
    setSaid((await pin(card, part, to)) ? null : { ok: false, words: SILENT });
  };
  const undo = async (): Promise<void> => {
    const last = past.at(-1);
    if (!last) return;
    setPast(past.slice(0, -1));
    await pin(last.card, last.part, last.was);
  };
  const plan = planned?.plan ?? null;
  const card = shop?.cards.find((c) => c.id === chosen) ?? null;
  return (
    <main className="mx-auto w-full max-w-[1500px] flex-1 px-3 py-4 lg:px-6">
      <header className="flex flex-wrap items-center gap-x-2 gap-y-2">
        <h1 className="mr-2 text-4xl font-semibold">
          {day === today ? "Today" : weekday(day)}
          <span className="ml-3 text-2xl font-normal text-soft">
            {day === today ? `${weekday(day)}, ` : ""}
            {dayInWords(day)}
          </span>
        </h1>
        <span className="mr-auto flex print:hidden">
          <ButtonLink
            look="quiet"
            href={`/day?day=${dayFrom(day, -1)}`}
            aria-label="The day before"
          >
            ‹
          </ButtonLink>
          {day !== today && (
            <ButtonLink look="quiet" href="/day">
              Today
            </ButtonLink>
          )}
          <ButtonLink look="quiet" href={`/day?day=${dayFrom(day, 1)}`} aria-label="The day after">
            ›
          </ButtonLink>
        </span>
        <ButtonLink look="quiet" href={`/day/week?day=${day}`}>
          Week
        </ButtonLink>
        <ButtonLink look="quiet" href="/day/next">
          My next job
        </ButtonLink>
        <ButtonLink look="quiet" href="/wall">
          Wall
        </ButtonLink>
        <Button look="quiet" onClick={() => window.print()}>
          Print
        </Button>
        <CalendarDialog day={day} />
        {writes && (
          <Button look="act" onClick={() => setBooking({ card: null })}>
            Book a vehicle
          </Button>
        )}
      </header>
      <SaidLine said={said} />
      {silent && !asked && (
        <p className="py-10 text-center text-xl text-soft">
          The shop does not answer. The day comes as soon as it does.
        </p>
      )}
      {planned?.problem && (
        <p role="alert" className="mt-3 border-l-4 border-stop pl-3 text-lg text-stop">
          {planned.problem}
        </p>
      )}
      {shop && plan && (
        <>
          <Promises shop={shop} plan={plan} busy={busy} />
          <div
            className="mt-3 flex flex-wrap items-center gap-1 print:hidden"
            role="group"
            aria-label="Lanes"
          >
            {(Object.keys(LANES) as LaneKind[]).map((k) => (
              <Button
                key={k}
                look={kind === k ? "lit" : "tool"}
                aria-pressed={kind === k}
                onClick={() => setKind(k)}
              >
                {LANES[k]}
              </Button>
            ))}
            <span className="ml-auto text-base text-soft">
              {writes
                ? "Drag a block, or use the arrows on it. ◆ is set by hand; Delete lets it go."
                : ""}
            </span>
            {writes && (
              <Button look="quiet" disabled={past.length === 0} onClick={() => void undo()}>
                Undo
              </Button>
            )}
          </div>
          {shop.cards.length === 0 ? (
            <p className="bg-sheet py-16 text-center text-xl text-soft">
              Nothing is planned. {writes ? "Book a vehicle, or take one in." : ""}
            </p>
          ) : (
            <Board
              shop={shop}
              plan={plan}
              kind={kind}
              chosen={chosen}
              readOnly={!writes}
              onChoose={setChosen}
              onPin={(...of) => void put(...of)}
              onRefuse={(words) => setSaid({ ok: false, words })}
            />
          )}
          {asked.reminders.length > 0 && (
            <section aria-label="To remember" className="mt-3 bg-sheet px-4 py-3">
              <h2 className="border-b-2 border-ink pb-1 text-xl font-semibold">To remember</h2>
              <ul className="mt-1 gap-x-8 text-lg lg:columns-2">
                {asked.reminders.map((r) => (
                  <li key={r} className="break-inside-avoid py-1">
                    {r}
                  </li>
                ))}
              </ul>
            </section>
          )}
          <Cards
            shop={shop}
            plan={plan}
            chosen={card}
            writes={writes}
            onChoose={setChosen}
            onLetGo={(id, part) => void put(id, part, null)}
            onChange={(c) => setBooking({ card: c })}
          />
        </>
      )}
      {booking && asked && (
        <BookingDialog
          day={day}
          asked={asked}
          card={booking.card}
          vehicles={vehicles}
          onClose={() => setBooking(null)}
          onKept={(words) => {
            setBooking(null);
            setSaid({ ok: true, words });
            void refetch();
          }}
        />
      )}
    </main>
  );
}

/** Which promises hold, which break, whom to call; and what else the day asks for. */
function Promises({ shop, plan, busy }: { shop: ShopDay; plan: ShopPlan; busy: boolean }) {
  const promised = plan.outlooks.filter((o) => o.chance !== null);
  const holding = promised.length - plan.broken.length;
  const cardOf = (id: string): Card => shop.cards.find((c) => c.id === id)!;
  // What stands in a bay already has been found room for.
  const unfit = plan.unfit.filter((id) => {
    const { begun, over } = cardOf(id);
    return begun === null && over.bay === undefined;
  });
  const doubtful = promised.filter(
    (o) => o.chance! < 0.7 && !plan.broken.some((b) => b.job === o.job),
  );
  return (
    <section aria-label="Promises" className="mt-2 bg-sheet px-4 py-3" aria-live="polite">
      <p className="flex flex-wrap items-baseline gap-x-3 text-xl">
        <Mark
          state={
            plan.broken.length + plan.leftOut.length > 0
              ? "stop"
              : doubtful.length > 0
                ? "loose"
                : "settled"
          }
          size={18}
        />
        <span className="font-semibold">
          {promised.length === 0
            ? "Nothing is promised for today."
            : plan.broken.length === 0
              ? `Every promise can be kept: ${promised.length}.`
              : `${holding} of ${promised.length} promises can be kept.`}
        </span>
        <span className="text-base text-soft">
          {busy
            ? "Planning anew."
            : plan.plan.exact
              ? "No plan is better than this one."
              : plan.plan.cost.lateMin > 0
                ? `${formatNumber(plan.plan.cost.lateMin)} min late in all; no plan is less late than ${formatNumber(plan.plan.boundMin)} min.`
                : ""}
        </span>
      </p>
      {plan.leftOut.map((l) => (
        <p key={l.card} className="mt-2 border-l-4 border-stop pl-3 text-lg text-stop">
          {l.words}
        </p>
      ))}
      {plan.broken.map((b) => (
        <div key={b.job} className="mt-2 border-l-4 border-stop pl-3">
          <p className="text-lg font-semibold text-stop">
            {callOf(cardOf(b.job))}: {Math.ceil(b.lateMin)} min late. {causeWords(shop, b)}
          </p>
          {b.ways.map((w, i) => (
            <p key={i} className="text-lg">
              {wayWords(shop, b, w)}
            </p>
          ))}
        </div>
      ))}
      {doubtful.map((o) => (
        <p key={o.job} className="mt-1 border-l-4 border-loose pl-3 text-lg text-loose">
          {callOf(cardOf(o.job))}: {clockOf(cardOf(o.job).promiseMin!)} {chanceWords(o.chance)}.{" "}
          {Number.isFinite(o.ninetyMin)
            ? `Nine days in ten it is done by ${clockOf(o.ninetyMin)}.`
            : "On more than one day in ten its hours are over before it comes to it."}
        </p>
      ))}
      {unfit.length > 0 && (
        <p className="mt-1 border-l-4 border-loose pl-3 text-lg text-loose">
          Not all of it fits into any bay: {unfit.map((id) => callOf(cardOf(id))).join("; ")}. Owed
          says what hinders.
        </p>
      )}
    </section>
  );
}

/** Every vehicle of the day with when it comes, when it is done and how sure that is; for paper as well. */
function Cards({
  shop,
  plan,
  chosen,
  writes,
  onChoose,
  onLetGo,
  onChange,
}: {
  shop: ShopDay;
  plan: ShopPlan;
  chosen: Card | null;
  writes: boolean;
  onChoose: (id: string | null) => void;
  onLetGo: (id: string, part: Part) => void;
  onChange: (card: Card) => void;
}) {
  const endOf = (id: string): number =>
    Math.max(...plan.plan.placed.filter((p) => p.job === id).map((p) => p.endMin));
  const all = shop.cards.toSorted((a, b) => endOf(a.id) - endOf(b.id));
  return (
    <section aria-label="Vehicles of the day" className="mt-4 bg-sheet px-4 py-3">
      <h2 className="border-b-2 border-ink pb-1 text-2xl font-semibold">Vehicles</h2>
      <ul>
        {all.map((c) => {
          const outlook = plan.outlooks.find((o) => o.job === c.id);
          const open = chosen?.id === c.id;
          return (
            <li key={c.id} className="border-b border-hairline py-2 last:border-b-0">
              <div className="grid items-baseline gap-x-4 sm:grid-cols-[minmax(0,2fr)_7rem_7rem_minmax(0,1fr)_auto]">
                <button
                  type="button"
                  aria-expanded={open}
                  onClick={() => onChoose(open ? null : c.id)}
                  className="min-h-12 min-w-0 text-left"
                >
                  <span className="text-lg font-semibold">{c.title}</span>{" "}
                  <span className="text-lg">{c.customer}</span>
                  <span className="block truncate text-base text-soft">
                    {[c.plate, c.done].filter(Boolean).join(", ")}
                  </span>
                </button>
                <span className="figure text-lg">
                  <span className="text-base text-soft">comes </span>
                  {clockOf(c.arriveMin)}
                </span>
                <span className="figure text-lg">
                  <span className="text-base text-soft">done </span>
                  {Number.isFinite(endOf(c.id)) ? clockOf(endOf(c.id)) : "–"}
                </span>
                <span className="text-base text-soft">
                  {c.promiseMin === null
                    ? "not promised"
                    : endOf(c.id) > c.promiseMin
                      ? `promised ${clockOf(c.promiseMin)}, ${Math.ceil(endOf(c.id) - c.promiseMin)} min late`
                      : `promised ${clockOf(c.promiseMin)}, ${chanceWords(outlook?.chance ?? null)}`}
                </span>
                <span className="flex gap-1 print:hidden">
                  {c.kind === "job" ? (
                    <ButtonLink look="tool" href={`/jobs/${c.id.slice(4)}`}>
                      Open
                    </ButtonLink>
                  ) : (
                    writes && (
                      <>
                        <ButtonLink
                          look="tool"
                          href={`/take-in?booking=${c.id.slice("booking:".length)}`}
                        >
                          Take in
                        </ButtonLink>
                        <Button look="tool" onClick={() => onChange(c)}>
                          Change
                        </Button>
                      </>
                    )
                  )}
                  <ButtonLink
                    look="tool"
                    href={`/day/letter?day=${shop.day}&card=${encodeURIComponent(c.id)}`}
                  >
                    Letter
                  </ButtonLink>
                  <ButtonLink
                    look="tool"
                    href={`/day/pick?day=${shop.day}&card=${encodeURIComponent(c.id)}`}
                  >
                    Pick list
                  </ButtonLink>
                </span>
              </div>
              {open && (
                <ul className="pl-2 text-base">
                  {plan.plan.placed
                    .filter((p) => p.job === c.id)
                    .map((p) => (
                      <li key={p.task} className="flex flex-wrap items-center gap-x-3">
                        <span className="figure">
                          {clockOf(p.startMin)} to {clockOf(p.endMin)}
                        </span>
                        <span>{PART_WORDS[p.task as Part]}</span>
                        <span className="text-soft">
                          {[
                            shop.bays.find((b) => b.id === p.bay)?.name,
                            ...p.people.map((id) => shop.people.find((x) => x.id === id)?.name),
                          ]
                            .filter(Boolean)
                            .join(", ")}
                        </span>
                        {writes && c.pins[p.task as Part] && (
                          <Button look="faint" onClick={() => onLetGo(c.id, p.task as Part)}>
                            Let it go
                          </Button>
                        )}
                      </li>
                    ))}
                </ul>
              )}
            </li>
          );
        })}
      </ul>
      {all.length > 0 && (
        <p className="pt-2 text-base text-soft print:hidden">
          Minutes come from {shop.samples.length} pieces of the shop’s own work and from its book.{" "}
          <Link href="/settings#day" className="underline">
            Hours and usual minutes
          </Link>
        </p>
      )}
    </section>
  );
}
