"use client";

import Link from "next/link";
import { useState } from "react";
import { Button } from "../primitives/button";
import { useKept } from "../primitives/use-kept";
import { Mark } from "../primitives/marks";
import { useWedge } from "../scanning/use-wedge";

/** What one is taken of: any of these, by the codes on their labels. */
export type PickItem = { any: { code: string; name: string }[] };

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
  const takenOf = ({ any }: PickItem): string | undefined =>
    any.find((x) => taken.includes(x.code))?.code;
  const take = (code: string): void => {
    setOdd(null);
    if (!taken.includes(code)) change({ taken: [...taken, code] });
  };
  const putBack = (code: string): void => {
    setOdd(null);
    change({ taken: taken.filter((c) => c !== code) });
  };
  useWedge(
    () => {},
    (code) => {
      const scanned = code.trim().toUpperCase();
      const own = items
        .filter((i) => takenOf(i) === undefined)
        .flatMap((i) => i.any)
        .find((x) => x.code.toUpperCase() === scanned);
      if (own) take(own.code);
      else if (!taken.some((c) => c.toUpperCase() === scanned)) setOdd(code);
      return true;
    },
  );
  const left = items.filter((i) => takenOf(i) === undefined).length;
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
          const own = takenOf(i);
          const on = own !== undefined;
          const shown = on ? i.any.filter((x) => x.code === own) : i.any;
          return (
            <li
              key={i.any.map((x) => x.code).join()}
              className="flex min-h-16 items-center gap-3 border-b border-hairline last:border-b-0"
            >
              <Mark state={on ? "settled" : "none"} size={18} />
              <span className={`min-w-0 flex-1 text-xl ${on ? "text-soft" : "font-semibold"}`}>
                {shown.map((x, k) => (
                  <span key={x.code} className="block">
                    {k > 0 && <span className="font-normal text-soft">or </span>}
                    {x.name} <span className="figure text-base text-soft">{x.code}</span>
                  </span>
                ))}
              </span>
              <span className="flex flex-col gap-1 py-1">
                {shown.map((x) => (
                  <Button
                    key={x.code}
                    look={on ? "lit" : "plain"}
                    aria-pressed={on}
                    aria-label={`${on ? "Taken" : "Take"} ${x.code}`}
                    onClick={() => (on ? putBack(x.code) : take(x.code))}
                  >
                    {on ? "Taken" : i.any.length > 1 ? `Take ${x.code}` : "Take it"}
                  </Button>
                ))}
              </span>
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
