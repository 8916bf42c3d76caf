"use client";

import type { ReleaseRule } from "@/core/job";
import { ChoiceTile } from "./choice-tile";

const CHOICES: { rule: (now: ReleaseRule) => ReleaseRule; name: string; note: string }[] = [
  {
    rule: (now) => ({ ...now, by: now.by === "lead" ? "writer" : "lead" }),
    name: "The lead gives vehicles back",
    note: "Without it, whoever works on a job hands it over.",
  },
  {
    rule: (now) => ({ ...now, second: !now.second }),
    name: "A second person signs first",
    note: "Whoever signs looks the record through, and does not hand it over as well.",
  },
];

/** Who gives vehicles back, and whether four eyes have seen the record. */
export function ReleaseSection({
  kept,
  lead,
  onChoose,
}: {
  kept: ReleaseRule;
  lead: boolean;
  onChoose: (rule: ReleaseRule) => void;
}) {
  const on = [kept.by === "lead", kept.second];
  return (
    <section aria-label="Release" className="mt-6">
      <h2 className="border-b-2 border-ink pb-1 text-2xl font-semibold">Release</h2>
      <div className="mt-2 grid gap-2 md:grid-cols-2">
        {CHOICES.map((c, i) => (
          <ChoiceTile
            key={c.name}
            on={on[i]!}
            name={c.name}
            note={c.note}
            disabled={!lead}
            onPress={() => onChoose(c.rule(kept))}
          />
        ))}
      </div>
    </section>
  );
}
