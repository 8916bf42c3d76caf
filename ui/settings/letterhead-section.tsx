"use client";

import { useId, useState } from "react";
import { Button } from "../primitives/button";
import { Field } from "../primitives/field";

/** The shop as it stands at the head of its reports. */
export type Letterhead = { name: string; address: string };

/** Whose reports these are. */
export function LetterheadSection({
  kept,
  lead,
  onWrite,
}: {
  kept: Letterhead | null;
  lead: boolean;
  onWrite: (letterhead: Letterhead) => void;
}) {
  const id = useId();
  const [draft, setDraft] = useState<Letterhead>(kept ?? { name: "", address: "" });
  const changed = draft.name !== (kept?.name ?? "") || draft.address !== (kept?.address ?? "");
  return (
    <section aria-label="Letterhead" className="mt-6">
      <h2 className="border-b-2 border-ink pb-1 text-2xl font-semibold">Letterhead</h2>
      <form
        className="mt-2 grid items-start gap-x-8 gap-y-3 md:grid-cols-2"
        onSubmit={(e) => {
          e.preventDefault();
          onWrite(draft);
        }}
      >
        <Field
          label="Name of the shop"
          value={draft.name}
          maxLength={80}
          readOnly={!lead}
          hint="It stands at the head of every report made from now on."
          onChange={(e) => setDraft({ ...draft, name: e.target.value })}
        />
        <div>
          <label htmlFor={id} className="mb-1 block text-sm font-semibold text-soft">
            Address, up to four lines
          </label>
          <textarea
            id={id}
            rows={3}
            value={draft.address}
            maxLength={240}
            readOnly={!lead}
            onChange={(e) => setDraft({ ...draft, address: e.target.value })}
            className="w-full border-b-2 border-ink bg-transparent px-1 text-lg outline-none focus:border-act"
          />
          {lead && changed && (
            <Button type="submit" look="act" disabled={draft.name.trim().length < 2}>
              Keep the letterhead
            </Button>
          )}
        </div>
      </form>
    </section>
  );
}
