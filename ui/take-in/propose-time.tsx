"use client";

import { useState } from "react";
import type { Happening } from "@/core/owed";
import { formatChance } from "@/core/units";
import { Button } from "../primitives/button";
import { askDay, useDayWorker } from "../day/use-day";

import { clockOf } from "@/core/units/minute";

/** When a vehicle can be promised for, from what the day already holds. */
export function ProposeTime({
  day,
  vehicleId,
  happenings,
  customer,
  onOffer,
}: {
  day: string;
  vehicleId: string | null;
  happenings: readonly Happening[];
  customer: string;
  /** By the shop's clock, HH:mm. */
  onOffer: (time: string) => void;
}) {
  const [said, setSaid] = useState<{ ok: boolean; words: string } | null>(null);
  const [busy, setBusy] = useState(false);
  const remote = useDayWorker();
  const propose = async (): Promise<void> => {
    setBusy(true);
    try {
      const { shop, bays } = await askDay(day);
      const answer = await fetch("/api/day/bookings?try", {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({
          customer: customer.trim() || "draft",
          plate: "",
          vehicleId,
          happenings,
          place: "shop",
          arriveMin: shop.nowMin,
          promiseMin: null,
        }),
      });
      const { card, error } = (await answer.json()) as { card?: unknown; error?: string };
      // What is taken in has its glass set.
      const is =
        card === undefined
          ? null
          : await remote().propose(shop, bays, { ...(card as object), glass: false } as never);
      if (is) {
        onOffer(clockOf(is.atMin));
        setSaid({ ok: true, words: `${clockOf(is.atMin)} holds with ${formatChance(is.chance)}.` });
      } else
        setSaid({
          ok: false,
          words: error ?? "The day has no room for it any more: promise a later day.",
        });
    } catch {
      setSaid({ ok: false, words: "The shop does not answer." });
    }
    setBusy(false);
  };
  return (
    <span className="flex flex-wrap items-center gap-3">
      <Button
        disabled={busy || vehicleId === null || happenings.length === 0}
        onClick={() => void propose()}
      >
        {busy ? "Planning" : "Propose a time"}
      </Button>
      {said && (
        <span role="status" className={`text-lg ${said.ok ? "" : "text-loose"}`}>
          {said.words}
        </span>
      )}
    </span>
  );
}
