"use client";

import { KEEPS, keepsIds, type DrivePolicy, type Keeps } from "@/core/drive/policy";
import { ChoiceTile } from "./choice-tile";

const NOTES: Record<Keeps, string> = {
  cruise: "The vehicle keeps the speed. Not every road and rule allows it.",
  limiter: "The foot drives, the limiter holds it under the window’s end.",
  foot: "The foot alone keeps it.",
};

/** The shop's school of driving: how a speed is kept, and what is done when it rains. */
export function DriveSection({
  kept,
  lead,
  onChoose,
}: {
  kept: DrivePolicy;
  lead: boolean;
  onChoose: (policy: DrivePolicy) => void;
}) {
  const rows = [
    ...keepsIds.map((k) => ({
      on: kept.keeps.includes(k),
      name: KEEPS[k],
      note: NOTES[k],
      next: {
        ...kept,
        keeps: keepsIds.filter((x) => (x === k) !== kept.keeps.includes(x)),
      },
    })),
    {
      on: kept.rain === "with-reason",
      name: "Driven in rain with a reason",
      note: "The reason stands on the report. Without it nobody leaves in rain.",
      next: { ...kept, rain: kept.rain === "refused" ? "with-reason" : "refused" } as DrivePolicy,
    },
  ];
  return (
    <section aria-label="Drives" className="mt-6">
      <h2 className="border-b-2 border-ink pb-1 text-2xl font-semibold">Drives</h2>
      <div className="mt-2 grid gap-2 md:grid-cols-2">
        {rows.map((r) => (
          <ChoiceTile
            key={r.name}
            on={r.on}
            name={r.name}
            note={r.note}
            disabled={!lead}
            onPress={() => onChoose(r.next)}
          />
        ))}
      </div>
      <p className="mt-1 text-base text-soft">
        Where a sheet says how the speed is kept, the sheet goes first.
      </p>
    </section>
  );
}
