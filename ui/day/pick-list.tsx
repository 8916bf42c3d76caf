"use client";

import Link from "next/link";
import { useState } from "react";
import { Button } from "../primitives/button";
import { useKept } from "../primitives/use-kept";
import { Mark } from "../primitives/marks";
import { useWedge } from "../scanning/use-wedge";

export type PickItem = { code: string; name: string };

/** What a job or a trip takes along, ticked off as it is taken: by finger, or by scanning its label. */
export function PickList({
  day,
  card,
  title,
  items,
}: {
  day: string;
  card: string;
  title: string;
  items: PickItem[];
}) {
  const [{ taken }, change] = useKept<{ taken: string[] }>(`pick/${day}/${card}`, NONE);
  const [odd, setOdd] = useState<string | null>(null);
  const toggle = (code: string): void => {
    setOdd(null);
    change({ taken: taken.includes(code) ? taken.filter((c) => c !== code) : [...taken, code] });
  };
  useWedge(
    () => {},
    (code) => {
      const own = items.find((i) => i.code.toUpperCase() === code.trim().toUpperCase());
      if (own) {
        setOdd(null);
        if (!taken.includes(own.code)) toggle(own.code);
      } else setOdd(code);
      return true;
    },
  );
  const left = items.filter((i) => !taken.includes(i.code)).length;
  return (
    <main className="mx-auto w-full max-w-[780px] flex-1 px-3 py-4 lg:px-6">
      <h1 className="text-4xl font-semibold">Pick list</h1>
      <p className="text-xl text-soft">
        {title}.{" "}
        <Link href={`/day?day=${day}`} className="underline">
          The day
        </Link>
      </p>
      <p role="status" className="mt-2 flex items-center gap-2 text-xl font-semibold">
        <Mark state={left === 0 ? "settled" : "loose"} size={18} />
        {items.length === 0
          ? "Nothing has to be taken along."
          : left === 0
            ? "All of it is taken."
            : `${left} of ${items.length} still to take. Scan its label, or tick it off.`}
      </p>
      {odd && (
        <p role="alert" className="mt-1 text-lg text-loose">
          {odd} is not for this job. Put it back.
        </p>
      )}
      <ul className="mt-3 bg-sheet px-4">
        {items.map((i) => {
          const on = taken.includes(i.code);
          return (
            <li
              key={i.code}
              className="flex min-h-16 items-center gap-3 border-b border-hairline last:border-b-0"
            >
              <Mark state={on ? "settled" : "none"} size={18} />
              <span className={`min-w-0 flex-1 text-xl ${on ? "text-soft" : "font-semibold"}`}>
                {i.name} <span className="figure text-base text-soft">{i.code}</span>
              </span>
              <Button look={on ? "lit" : "plain"} aria-pressed={on} onClick={() => toggle(i.code)}>
                {on ? "Taken" : "Take it"}
              </Button>
            </li>
          );
        })}
      </ul>
      <Button look="quiet" className="mt-3" onClick={() => window.print()}>
        Print
      </Button>
    </main>
  );
}

const NONE: { taken: string[] } = { taken: [] };
