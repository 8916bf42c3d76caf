"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useMemo, useRef, useState } from "react";
import type { JobState, JobTicket } from "@/core/job";
import { ButtonLink } from "../primitives/button";
import { Ticket } from "./ticket";

const FILTERS: { id: JobState | "all"; name: string }[] = [
  { id: "all", name: "All" },
  { id: "in-work", name: "In work" },
  { id: "refused", name: "Refused" },
  { id: "blocked", name: "Blocked" },
  { id: "ready-to-hand-over", name: "Ready to hand over" },
  { id: "handed-over", name: "Handed over" },
];
const REFRESH_MS = 8000;
/** Tickets shown at first: what anybody looks at; the rest is found or asked for. */
const PAGE = 60;

const matches = (t: JobTicket, words: string[]): boolean => {
  const text = [t.number, t.vehicle, t.vin, t.plate, t.customer, t.order, t.done, t.sheet, t.last.name].join(" ").toLowerCase(); // prettier-ignore
  return words.every((w) => text.includes(w));
};

type Props = { tickets: JobTicket[]; now: string; mayTakeIn: boolean; find: boolean };

/** The start page: every job, what it lacks, who is on it. */
export function Jobs({ tickets, now, mayTakeIn, find }: Props) {
  const router = useRouter();
  const [text, setText] = useState("");
  const [filter, setFilter] = useState<JobState | "all">("all");
  const [most, setMost] = useState(PAGE);
  const search = useRef<HTMLInputElement>(null);

  useEffect(() => {
    if (find) search.current?.focus();
  }, [find]);
  useEffect(() => {
    const timer = setInterval(() => !document.hidden && router.refresh(), REFRESH_MS);
    return () => clearInterval(timer);
  }, [router]);
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      if (e.key !== "/" || e.target instanceof HTMLInputElement) return;
      e.preventDefault();
      search.current?.focus();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);

  const found = useMemo(() => {
    const words = text.toLowerCase().split(/\s+/).filter(Boolean);
    return tickets.filter((t) => matches(t, words));
  }, [tickets, text]);
  const shown = filter === "all" ? found : found.filter((t) => t.state === filter);

  return (
    <main className="mx-auto flex w-full max-w-[1240px] flex-1 flex-col px-3 py-4 lg:px-6">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-3">
        <h1 className="text-4xl font-semibold">Jobs</h1>
        <label className="flex min-w-60 flex-1 items-center border-b-2 border-ink focus-within:border-act">
          <span className="sr-only">Find a job</span>
          <input
            ref={search}
            type="search"
            value={text}
            onChange={(e) => setText(e.target.value)}
            onKeyDown={(e) => e.key === "Enter" && shown.length === 1 && router.push(`/jobs/${shown[0]!.id}`)}
            placeholder="Find by plate, name, VIN, vehicle, number"
            className="min-h-14 w-full bg-transparent px-1 text-xl outline-none placeholder:text-soft"
          />
          <kbd className="figure hidden rounded-md border border-hairline px-2 text-sm text-soft md:block">/</kbd>
        </label>
        {mayTakeIn && (
          <ButtonLink href="/take-in" look="act" size="large">
            Take in a vehicle
          </ButtonLink>
        )}
      </div>
      <div role="group" aria-label="Show" className="mt-4 flex flex-wrap gap-x-1">
        {FILTERS.map((f) => {
          const count = f.id === "all" ? found.length : found.filter((t) => t.state === f.id).length;
          return (
            <button
              key={f.id}
              type="button"
              aria-pressed={filter === f.id}
              onClick={() => setFilter(f.id)}
              className={`min-h-12 border-b-4 px-3 text-base ${filter === f.id ? "border-act font-semibold" : "border-transparent text-soft hover:text-ink"}`}
            >
              {f.name} <span className="figure">{count}</span>
            </button>
          );
        })}
      </div>
      <ol className="border-t-2 border-ink">
        {shown.slice(0, most).map((t) => (
          <Ticket key={t.id} ticket={t} now={now} />
        ))}
      </ol>
      {shown.length > most && (
        <button
          type="button"
          onClick={() => setMost((n) => n + PAGE)}
          className="min-h-14 text-lg font-semibold text-act"
        >
          {`Show ${Math.min(PAGE, shown.length - most)} more of ${shown.length}`}
        </button>
      )}
      {shown.length === 0 && (
        <p className="py-12 text-center text-xl text-soft">
          {tickets.length === 0 ? (
            <>
              No job yet.{" "}
              {mayTakeIn && (
                <Link href="/take-in" className="font-semibold text-act underline underline-offset-4">
                  Take in the first vehicle
                </Link>
              )}
            </>
          ) : (
            <>
              Nothing fits.{" "}
              <button
                type="button"
                className="min-h-12 font-semibold text-act underline underline-offset-4"
                onClick={() => {
                  setText("");
                  setFilter("all");
                }}
              >
                Show all jobs
              </button>
            </>
          )}
        </p>
      )}
    </main>
  );
}
