"use client";

import { useQuery } from "@tanstack/react-query";
import { wrap } from "comlink";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Card, Part, Pin, ShopDay } from "@/core/schedule/shop";
import type { Bay } from "@/core/space/bay";
import type { DayWorker, Planned } from "@/workers/day/day.worker";
import { shopQueries } from "../shop-queries";

/**
 * `reminders`: what belongs to the day besides its jobs, in words; `aheadMs`: how far the shop's clock is
 * ahead of this screen's.
 */
type Asked = { shop: ShopDay; bays: Bay[]; reminders: string[]; aheadMs: number };

/** The shop is asked again so often: clocks go on, others write. */
const AGAIN_MS = 30_000;

export async function askDay(day: string): Promise<Asked> {
  const answer = await fetch(`/api/day?day=${day}`);
  if (!answer.ok) throw new Error("The shop does not answer.");
  const { now, ...told } = (await answer.json()) as Omit<Asked, "aheadMs"> & { now: string };
  return { ...told, aheadMs: Date.parse(now) - Date.now() };
}

/** A worker that plans days, for as long as the page is there. */
export function useDayWorker() {
  const worker = useRef<{ remote: ReturnType<typeof wrap<DayWorker>>; end: () => void } | null>(
    null,
  );
  useEffect(
    () => () => {
      worker.current?.end();
      worker.current = null;
    },
    [],
  );
  return useCallback(() => {
    if (!worker.current) {
      const own = new Worker(new URL("../../workers/day/day.worker.ts", import.meta.url), {
        type: "module",
      });
      worker.current = { remote: wrap<DayWorker>(own), end: () => own.terminate() };
    }
    return worker.current.remote;
  }, []);
}

/** A day of the shop, planned, and planned anew whenever anything of it changes. */
export function useDay(day: string) {
  const { data, error, refetch } = useQuery(
    {
      queryKey: ["day", day],
      queryFn: () => askDay(day),
      refetchInterval: AGAIN_MS,
    },
    shopQueries(),
  );
  const remote = useDayWorker();
  const [planned, setPlanned] = useState<Planned | null>(null);
  const [busy, setBusy] = useState(false);
  const asked = useRef(0);
  const plan = useCallback(
    async ({ shop, bays }: Asked): Promise<void> => {
      const mine = ++asked.current;
      setBusy(true);
      const is = await remote().plan(shop, bays);
      if (mine !== asked.current) return;
      setPlanned(is);
      setBusy(false);
    },
    [remote],
  );
  useEffect(() => {
    // A plan is worked out beside the page; it is there when it is there.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    if (data) void plan(data);
  }, [data, plan]);
  /** Sets a part of a card where somebody wants it; null lets it go. */
  const pin = useCallback(
    async (card: string, part: Part, to: Pin | null): Promise<boolean> => {
      shopQueries().setQueryData<Asked>(
        ["day", day],
        (was) =>
          was && {
            ...was,
            shop: { ...was.shop, cards: was.shop.cards.map(pinned(card, part, to)) },
          },
      );
      const answer = await fetch("/api/day/pins", {
        method: "PUT",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ day, card, part, pin: to }),
      }).catch(() => null);
      if (!answer?.ok) void refetch();
      return answer?.ok ?? false;
    },
    [day, refetch],
  );
  return { asked: data ?? null, planned, busy, silent: error !== null, pin, refetch };
}

const pinned =
  (id: string, part: Part, to: Pin | null) =>
  (card: Card): Card => {
    if (card.id !== id) return card;
    const { [part]: _, ...rest } = card.pins;
    return { ...card, pins: to ? { ...card.pins, [part]: to } : rest };
  };
