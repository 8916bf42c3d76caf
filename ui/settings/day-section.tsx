"use client";

import { useState } from "react";
import type { DayRules } from "@/core/schedule/rules";
import { clockOf, minuteOfText } from "@/core/units/minute";
import { YesNo } from "../book/fields";
import { WhenAwake } from "../primitives/awake";
import { Button } from "../primitives/button";
import { SaidLine, type Said } from "../primitives/said-line";

const SILENT = "The shop does not answer. Nothing was changed; try again when it is back.";

type Draft = {
  from: string;
  to: string;
  restFrom: string;
  restTo: string;
  minutes: Record<"glassMin" | "cureMin" | "proveMin" | "travelMin" | "moveMin", string>;
  secondOnDrive: boolean;
  people: Record<string, { from: string; to: string; away: boolean }>;
};

const MINUTES: [keyof Draft["minutes"], string][] = [
  ["glassMin", "To set a glass, minutes"],
  ["cureMin", "Until its adhesive lets it be driven, minutes"],
  ["proveMin", "To prove and give back, minutes"],
  ["travelMin", "To a customer, one way, minutes"],
  ["moveMin", "To stand a vehicle elsewhere in its bay, minutes"],
];

const draftOf = (r: DayRules, people: readonly { id: string }[]): Draft => ({
  from: clockOf(r.fromMin),
  to: clockOf(r.toMin),
  restFrom: r.rest ? clockOf(r.rest[0]) : "",
  restTo: r.rest ? clockOf(r.rest[1]) : "",
  minutes: {
    glassMin: String(r.glassMin),
    cureMin: String(r.cureMin),
    proveMin: String(r.proveMin),
    travelMin: String(r.travelMin),
    moveMin: String(r.moveMin),
  },
  secondOnDrive: r.secondOnDrive,
  people: Object.fromEntries(
    people.map(({ id }) => {
      const own = r.people[id];
      return [
        id,
        {
          from: own ? clockOf(own.fromMin) : "",
          to: own ? clockOf(own.toMin) : "",
          away: own === null,
        },
      ];
    }),
  ),
});

/** The rules as the shop reads them; what is no time or no number is left for it to name. */
const rulesOf = (d: Draft): unknown => ({
  fromMin: minuteOfText(d.from),
  toMin: minuteOfText(d.to),
  rest:
    d.restFrom === "" && d.restTo === ""
      ? null
      : [minuteOfText(d.restFrom), minuteOfText(d.restTo)],
  ...Object.fromEntries(
    Object.entries(d.minutes).map(([k, v]) => [k, v.trim() === "" ? null : Number(v)]),
  ),
  secondOnDrive: d.secondOnDrive,
  people: Object.fromEntries(
    Object.entries(d.people).flatMap(([id, p]): [string, unknown][] =>
      p.away
        ? [[id, null]]
        : p.from === "" && p.to === ""
          ? []
          : [[id, { fromMin: minuteOfText(p.from), toMin: minuteOfText(p.to) }]],
    ),
  ),
});

/** The hours of the shop and of its people, and what belongs to a job besides its sheets. */
export function DaySection({
  kept,
  people,
  lead,
}: {
  kept: DayRules;
  people: readonly { id: string; name: string }[];
  lead: boolean;
}) {
  const [draft, setDraft] = useState(() => draftOf(kept, people));
  const [said, setSaid] = useState<Said | null>(null);
  const put = (patch: Partial<Draft>): void => {
    setDraft({ ...draft, ...patch });
    setSaid(null);
  };
  const keep = async (): Promise<void> => {
    const answer = await fetch("/api/day/rules", {
      method: "PUT",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(rulesOf(draft)),
    }).catch(() => null);
    if (!answer) return setSaid({ ok: false, words: SILENT });
    if (answer.ok) return setSaid({ ok: true, words: "Kept: days are planned by it from now on." });
    setSaid({ ok: false, words: ((await answer.json()) as { error?: string }).error ?? SILENT });
  };
  const line = (label: string, value: string, onChange: (v: string) => void) => (
    <label className="text-sm font-semibold text-soft">
      {label}
      <input
        value={value}
        readOnly={!lead}
        inputMode="numeric"
        onChange={(e) => onChange(e.target.value)}
        className="figure min-h-12 w-full border-b-2 border-ink bg-transparent px-1 text-xl font-semibold text-ink outline-none focus:border-act"
      />
    </label>
  );
  return (
    <section aria-label="The day" id="day" className="mt-6">
      <h2 className="border-b-2 border-ink pb-1 text-2xl font-semibold">The day</h2>
      <WhenAwake>
        <div className="mt-2 grid gap-x-6 gap-y-2 sm:grid-cols-4">
          {line("Begins at", draft.from, (from) => put({ from }))}
          {line("Ends at", draft.to, (to) => put({ to }))}
          {line("Rest from", draft.restFrom, (restFrom) => put({ restFrom }))}
          {line("Rest to", draft.restTo, (restTo) => put({ restTo }))}
          {MINUTES.map(([key, label]) => (
            <div key={key} className="self-end">
              {line(label, draft.minutes[key], (v) =>
                put({ minutes: { ...draft.minutes, [key]: v } }),
              )}
            </div>
          ))}
        </div>
        <div className="mt-2">
          <YesNo
            label="A second person rides along on a drive"
            path=""
            problem={null}
            readOnly={!lead}
            value={draft.secondOnDrive}
            onChange={(v) => put({ secondOnDrive: v === true })}
          />
        </div>
        <ul className="mt-2">
          {people.map((p) => {
            const own = draft.people[p.id]!;
            const change = (patch: Partial<typeof own>): void =>
              put({ people: { ...draft.people, [p.id]: { ...own, ...patch } } });
            return (
              <li
                key={p.id}
                className="grid grid-cols-2 items-end gap-x-6 border-b border-hairline py-1 sm:grid-cols-[minmax(0,1fr)_8rem_8rem_8rem]"
              >
                <span className="self-center text-lg font-semibold">{p.name}</span>
                {own.away ? (
                  <span className="col-span-1 self-center text-lg text-soft sm:col-span-2">
                    away
                  </span>
                ) : (
                  <>
                    {line("Own hours from", own.from, (from) => change({ from }))}
                    {line("to", own.to, (to) => change({ to }))}
                  </>
                )}
                <Button
                  look={own.away ? "lit" : "tool"}
                  disabled={!lead}
                  aria-pressed={own.away}
                  aria-label={`${p.name} is away`}
                  onClick={() => change({ away: !own.away })}
                >
                  Away
                </Button>
              </li>
            );
          })}
        </ul>
        <SaidLine said={said} />
        {lead && (
          <Button className="mt-2" onClick={() => void keep()}>
            Keep the hours
          </Button>
        )}
      </WhenAwake>
    </section>
  );
}
