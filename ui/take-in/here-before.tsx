"use client";

import { History } from "lucide-react";
import Link from "next/link";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";
import { useTimes } from "../settings";
import { shopQueries } from "../shop-queries";

/** A vehicle that was here before, as the take-in page needs it. */
export type Past = {
  vin: string;
  vehicleId: string;
  vehicle: string;
  plate: string;
  customer: string;
  answers: Record<string, string>;
  visits: { id: string; number: number; at: string; done: string }[];
};

type Answer<T> = Promise<({ ok: true } & T) | { ok: false; message: string }>;

/** How the shop is asked for vehicles it had before. */
export type PastActions = {
  byWords: (find: string) => Answer<{ vehicles: Past[] }>;
  byVin: (vin: string) => Answer<{ vehicle: Past | null }>;
};

/**
 * The shop's past vehicles to choose from; and, once the VIN is known, what was done to this one
 * before.
 */
export function HereBefore({
  past,
  vin,
  onChoose,
}: {
  past: PastActions;
  vin: string;
  onChoose: (vehicle: Past) => void;
}) {
  const { dateAndTime } = useTimes();
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const find = useDeferredValue(text.trim());
  const search = useQuery(
    {
      queryKey: ["past", find],
      queryFn: async () => past.byWords(find),
      enabled: open,
      placeholderData: keepPreviousData,
    },
    shopQueries(),
  );
  const one = useQuery(
    {
      queryKey: ["past-vin", vin],
      queryFn: async () => past.byVin(vin),
      enabled: vin.length === 17,
    },
    shopQueries(),
  );
  const found = search.data?.ok ? search.data.vehicles : [];
  const known = one.data?.ok ? one.data.vehicle : null;
  const problem = search.isError
    ? "The shop does not answer."
    : search.data?.ok === false
      ? search.data.message
      : null;
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="inline-flex min-h-12 items-center gap-2 rounded-md px-2 text-base font-semibold text-act hover:bg-wash"
      >
        <History size={20} aria-hidden /> Was here before
      </button>
      {known && (
        <div className="grid w-full grid-cols-[1fr_auto] items-center gap-x-3 border-l-4 border-act bg-sheet px-3 py-1.5 text-base">
          <b className="font-semibold">{`Here before: ${known.customer}${known.plate ? `, ${known.plate}` : ""}`}</b>
          <Button look="plain" onClick={() => onChoose(known)}>
            Same customer
          </Button>
          {known.visits.slice(0, 3).map((v) => (
            <Link
              key={v.id}
              href={`/jobs/${v.id}/hand-over`}
              className="col-span-2 block min-h-8 truncate text-act underline decoration-dotted underline-offset-4"
            >
              {`Job ${v.number}, ${dateAndTime(v.at)}: ${v.done}`}
            </Link>
          ))}
        </div>
      )}
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        title="Vehicles that were here before"
        wide
      >
        <input
          type="search"
          autoFocus
          aria-label="Find a vehicle"
          value={text}
          onChange={(e) => setText(e.target.value)}
          placeholder="Plate, customer, VIN, job number"
          className="mb-2 min-h-14 w-full border-b-2 border-ink bg-transparent px-1 text-xl outline-none placeholder:text-soft focus:border-act"
        />
        <ul className="max-h-[56dvh] overflow-y-auto">
          {found.map((p) => (
            <li key={p.vin} className="border-b border-dashed border-hairline">
              <button
                type="button"
                onClick={() => {
                  onChoose(p);
                  setOpen(false);
                }}
                className="grid min-h-16 w-full grid-cols-[1fr_auto] items-center gap-x-4 px-2 py-2 text-left hover:bg-wash"
              >
                <span className="min-w-0">
                  <span className="block truncate text-lg font-semibold leading-tight">
                    {[p.plate, p.vehicle].filter(Boolean).join(" · ")}
                  </span>
                  <span className="block truncate text-base text-soft">{p.customer}</span>
                  <span className="figure block truncate text-sm text-soft">{p.vin}</span>
                </span>
                <span className="text-right text-sm text-soft">
                  {p.visits.length === 1 ? "1 job" : `${p.visits.length} jobs`}
                  <span className="block">{dateAndTime(p.visits[0]!.at)}</span>
                </span>
              </button>
            </li>
          ))}
        </ul>
        {found.length === 0 && !search.isPending && (
          <p className="py-6 text-center text-lg text-soft">
            {problem ??
              (find === "" ? "No vehicle was here yet." : "No vehicle fits. Type its VIN instead.")}
          </p>
        )}
      </Dialog>
    </>
  );
}
