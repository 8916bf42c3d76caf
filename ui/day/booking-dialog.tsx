"use client";

import { useState } from "react";
import type { Booking } from "@/core/schedule/booking";
import type { Card, ShopDay } from "@/core/schedule/shop";
import { EVENT_PLACES, EVENTS, PLACES, type EventId, type PlaceId } from "@/core/owed/names";
import type { Bay } from "@/core/space/bay";
import { formatChance } from "@/core/units";
import { ChoiceField, TextField } from "../book/fields";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";
import { useDayWorker } from "./use-day";

import { clockOf, minuteOfText } from "@/core/units/minute";

export type VehicleName = { id: string; name: string };

type Draft = {
  customer: string;
  plate: string;
  vehicleId: string;
  done: string[];
  place: "shop" | "van";
  arrive: string;
  promise: string;
};

const EMPTY: Draft = {
  customer: "",
  plate: "",
  vehicleId: "",
  done: [],
  place: "shop",
  arrive: "08:00",
  promise: "",
};
const SILENT = "The shop does not answer. Nothing was written; try again when it is back.";

/** What was done, and where, as one choice. */
const DONE: [string, string][] = (Object.keys(EVENTS) as EventId[]).flatMap((e) =>
  (EVENT_PLACES[e].length === 0 ? [null] : EVENT_PLACES[e]).map((p): [string, string] => [
    `${e}/${p ?? ""}`,
    EVENT_PLACES[e].length > 1 ? `${EVENTS[e]}, ${PLACES[p!]}` : EVENTS[e],
  ]),
);

const bookingOf = (d: Draft, said: Booking["said"]): unknown => ({
  customer: d.customer,
  plate: d.plate,
  vehicleId: d.vehicleId,
  place: d.place,
  arriveMin: minuteOfText(d.arrive),
  // What is no time is left for the shop to name.
  promiseMin: d.promise.trim() === "" ? null : (minuteOfText(d.promise) ?? -1),
  happenings: d.done.map((key) => {
    const [event, place] = key.split("/") as [EventId, PlaceId | ""];
    return { event, place: place || null };
  }),
  said,
});

/** A vehicle is booked for a day; the time to promise is proposed from what the day already holds. */
export function BookingDialog({
  day,
  asked,
  card,
  vehicles,
  onClose,
  onKept,
}: {
  day: string;
  asked: { shop: ShopDay; bays: Bay[] };
  /** What was booked before; null for a new one. */
  card: Card | null;
  vehicles: VehicleName[];
  onClose: () => void;
  onKept: (words: string) => void;
}) {
  const id = card ? card.id.slice("booking:".length) : null;
  const [draft, setDraft] = useState<Draft>(() =>
    card
      ? {
          customer: card.customer,
          plate: card.plate,
          vehicleId: card.vehicle.id,
          done: card.happenings.map((h) => `${h.event}/${h.place ?? ""}`),
          place: card.place,
          arrive: clockOf(card.arriveMin),
          promise: card.promiseMin === null ? "" : clockOf(card.promiseMin),
        }
      : EMPTY,
  );
  const [problem, setProblem] = useState<string | null>(null);
  const [offer, setOffer] = useState<{ atMin: number; chance: number } | null>(null);
  const [working, setWorking] = useState(false);
  const remote = useDayWorker();
  const put = (patch: Partial<Draft>): void => {
    setDraft((d) => ({ ...d, ...patch }));
    setProblem(null);
    if (!("promise" in patch)) setOffer(null);
  };
  const send = async (path: string, body: unknown): Promise<Record<string, unknown> | null> => {
    const answer = await fetch(path, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(body),
    }).catch(() => null);
    if (!answer) {
      setProblem(SILENT);
      return null;
    }
    const json = (await answer.json()) as Record<string, unknown>;
    if (answer.ok) return json;
    setProblem((json.error as string | undefined) ?? SILENT);
    return null;
  };
  const said = card?.said ?? {};
  const propose = async (): Promise<void> => {
    setWorking(true);
    const json = await send("/api/day/bookings?try", bookingOf({ ...draft, promise: "" }, said));
    if (json) {
      const others = asked.shop.cards.filter((c) => c.id !== card?.id);
      const shop = { ...asked.shop, cards: others };
      const is = await remote().propose(shop, asked.bays, json.card as Card);
      if (is) {
        setOffer(is);
        setDraft((d) => ({ ...d, promise: clockOf(is.atMin) }));
      } else setProblem("The day cannot be planned with it. Choose another day or time.");
    }
    setWorking(false);
  };
  const keep = async (): Promise<void> => {
    if (await send("/api/day/bookings", { id, day, booking: bookingOf(draft, said) }))
      onKept(`${draft.customer} is booked.`);
  };
  const drop = async (): Promise<void> => {
    const answer = await fetch(`/api/day/bookings?id=${encodeURIComponent(id!)}`, {
      method: "DELETE",
    }).catch(() => null);
    if (answer?.ok) onKept(`${draft.customer} is taken out.`);
    else setProblem(SILENT);
  };
  const field = { path: "", problem: null, readOnly: false };
  return (
    <Dialog open onClose={onClose} title={id ? "Change what is booked" : "Book a vehicle"} wide>
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
        <TextField
          label="Customer"
          {...field}
          value={draft.customer}
          onChange={(v) => put({ customer: (v as string | undefined) ?? "" })}
        />
        <TextField
          label="Plate"
          {...field}
          value={draft.plate}
          onChange={(v) => put({ plate: (v as string | undefined) ?? "" })}
        />
        <label className="text-sm font-semibold text-soft">
          Vehicle
          <select
            aria-label="Vehicle"
            value={draft.vehicleId}
            onChange={(e) => put({ vehicleId: e.target.value })}
            className="mt-1 min-h-14 w-full border-b-2 border-ink bg-sheet text-lg text-ink"
          >
            <option value="">Choose it</option>
            {vehicles.map((v) => (
              <option key={v.id} value={v.id}>
                {v.name}
              </option>
            ))}
          </select>
        </label>
        <label className="text-sm font-semibold text-soft">
          What is done to it
          <select
            aria-label="What is done to it"
            value=""
            onChange={(e) => put({ done: [...new Set([...draft.done, e.target.value])] })}
            className="mt-1 min-h-14 w-full border-b-2 border-ink bg-sheet text-lg text-ink"
          >
            <option value="">Add</option>
            {DONE.map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </select>
        </label>
      </div>
      {draft.done.length > 0 && (
        <ul className="mt-1 flex flex-wrap gap-1">
          {draft.done.map((key) => (
            <li key={key}>
              <Button
                look="tool"
                onClick={() => put({ done: draft.done.filter((d) => d !== key) })}
                aria-label={`Take out: ${DONE.find(([k]) => k === key)?.[1]}`}
              >
                {DONE.find(([k]) => k === key)?.[1]} ×
              </Button>
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3">
        <ChoiceField
          label="It is done"
          choices={[
            ["shop", "In the shop"],
            ["van", "At the customer’s, with the van"],
          ]}
          {...field}
          value={draft.place}
          onChange={(v) => put({ place: v as Draft["place"] })}
        />
      </div>
      <div className="mt-3 grid items-end gap-x-6 gap-y-2 sm:grid-cols-[1fr_1fr_auto]">
        {(
          [
            ["arrive", "It comes at"],
            ["promise", "Promised for"],
          ] as const
        ).map(([key, label]) => (
          <label key={key} className="text-sm font-semibold text-soft">
            {label}
            <input
              inputMode="numeric"
              placeholder="hh:mm"
              value={draft[key]}
              onChange={(e) => put({ [key]: e.target.value })}
              className="figure mt-1 min-h-14 w-full border-b-2 border-ink bg-sheet text-2xl font-semibold text-ink"
            />
          </label>
        ))}
        <Button disabled={working} onClick={() => void propose()}>
          {working ? "Planning" : "Propose a time"}
        </Button>
      </div>
      {offer && (
        <p role="status" className="mt-2 text-lg">
          {clockOf(offer.atMin)} holds with {formatChance(offer.chance)}.
        </p>
      )}
      {problem && (
        <p
          role="alert"
          className="mt-3 whitespace-pre-line border-l-4 border-stop pl-3 text-lg text-stop"
        >
          {problem}
        </p>
      )}
      <div className="mt-4 flex gap-2">
        <Button look="act" onClick={() => void keep()}>
          {id ? "Keep it" : "Book it"}
        </Button>
        {id && (
          <Button look="faint" onClick={() => void drop()}>
            Take it out
          </Button>
        )}
      </div>
    </Dialog>
  );
}
