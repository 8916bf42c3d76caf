"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { formatNumber } from "@/core/units";
import { LEAST_CARS, type Learned } from "@/core/vehicle";
import { Button } from "../primitives/button";

/** A dimension that is known no better than this was not seen yet, mm. */
const UNSEEN_MM = 4;

/** How far the cars lie beside the book, with its sign and how surely. */
function beside({ besideMm, sigmaMm }: Learned): string {
  if (sigmaMm > UNSEEN_MM) return "not seen yet";
  const size = Math.abs(besideMm) < 0.05 ? 0 : besideMm;
  const sign = size < 0 ? "−" : size > 0 ? "+" : "";
  return `${sign}${formatNumber(Math.abs(size), 1)} ± ${formatNumber(sigmaMm, 1)}`;
}

/**
 * What the cars that were set out say of the book's dimensions, and a draft with what they say: a
 * second person signs it like any other.
 */
export function LearnedTable({
  learned: { cars, dimensions },
  id,
  writes,
  propose,
}: {
  learned: { cars: number; dimensions: Learned[] };
  id: string;
  writes: boolean;
  propose: (id: string) => Promise<{ ok: true; key: string } | { ok: false; message: string }>;
}) {
  const router = useRouter();
  const [message, setMessage] = useState<string | null>(null);
  const changes = dimensions.filter((d) => d.proposedMm !== null);
  const go = async (): Promise<void> => {
    const answer = await propose(id).catch(() => ({
      ok: false as const,
      message: "The shop does not answer. Try again when it is back.",
    }));
    if (answer.ok) router.push(`/vehicles/drafts/${answer.key}`);
    else setMessage(answer.message);
  };
  const say =
    cars < LEAST_CARS
      ? `${cars} ${cars === 1 ? "car" : "cars"} set out by this version; from ${LEAST_CARS} on they may propose a change.`
      : changes.length === 0
        ? `${cars} cars set out by this version agree with the book.`
        : `${cars} cars set out by this version lie beside the book.`;
  return (
    <section aria-label="What this shop’s cars say" className="border-t-2 border-ink pt-3">
      <h2 className="text-xl font-semibold">What this shop’s cars say</h2>
      <p className="mb-2 text-base text-soft">{say}</p>
      <table className="w-full text-left text-sm sm:text-base">
        <thead>
          <tr className="border-b-2 border-hairline text-sm text-soft">
            <th className="py-1 font-semibold">Dimension</th>
            <th className="py-1 pl-3 text-right font-semibold">Book, mm</th>
            <th className="py-1 pl-3 text-right font-semibold">Cars, beside it</th>
            <th className="py-1 pl-3 text-right font-semibold">Proposed</th>
          </tr>
        </thead>
        <tbody>
          {dimensions.map((d) => (
            <tr key={d.path} className="border-b border-dashed border-hairline">
              <td className="py-1.5">{d.name}</td>
              <td className="figure py-1.5 pl-3 text-right">{formatNumber(d.bookMm)}</td>
              <td className="figure py-1.5 pl-3 text-right">{beside(d)}</td>
              <td className="figure py-1.5 pl-3 text-right font-semibold">
                {d.proposedMm === null ? "–" : formatNumber(d.proposedMm, 1)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {writes && changes.length > 0 && (
        <div className="mt-3 flex flex-wrap items-center gap-3">
          <Button look="act" onClick={() => void go()}>
            Draft a version with what the cars say
          </Button>
          <span className="text-base text-soft">A second person signs it before it is used.</span>
        </div>
      )}
      {message && (
        <p role="alert" className="mt-2 text-base text-stop">
          {message}
        </p>
      )}
    </section>
  );
}
