"use client";

import { useState } from "react";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";

/** The plan for a calendar program: as a file of one day, or as an address that is asked again and again. */
export function CalendarDialog({ day }: { day: string }) {
  const [open, setOpen] = useState(false);
  const [key, setKey] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const ask = async (): Promise<void> => {
    setOpen(true);
    const answer = await fetch("/api/day/calendar", { method: "POST" }).catch(() => null);
    if (answer?.ok) setKey(((await answer.json()) as { key: string }).key);
    else setProblem("The address is for those who take jobs in. The file of one day is for all.");
  };
  const address = key ? `${window.location.origin}/api/day/calendar?key=${key}` : "";
  return (
    <>
      <Button look="quiet" onClick={() => void ask()}>
        Calendar
      </Button>
      <Dialog open={open} onClose={() => setOpen(false)} title="The plan in a calendar">
        <a
          href={`/api/day/calendar?day=${day}`}
          download
          className="inline-flex min-h-12 items-center text-lg font-semibold underline"
        >
          This day as a file
        </a>
        <p className="mt-3 text-base text-soft">
          Or give a calendar program this address: it then shows today and the six days after it,
          and follows the plan. It names vehicles and plates, no customers.
        </p>
        {key && (
          <input
            readOnly
            aria-label="Address of the calendar"
            value={address}
            onFocus={(e) => e.target.select()}
            className="figure mt-2 min-h-12 w-full border-b-2 border-ink bg-transparent text-base"
          />
        )}
        {problem && <p className="mt-2 text-base text-loose">{problem}</p>}
      </Dialog>
    </>
  );
}
