"use client";

import { useState } from "react";
import { ChoiceField, NumberField, TextField } from "../book/fields";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";

type Draft = { name?: string; sides: (number | undefined)[]; diagonalMm?: number; door: string };
const EMPTY: Draft = { sides: [undefined, undefined, undefined, undefined], door: "none" };
const SILENT = "The shop does not answer. Nothing was written; try again when it is back.";

/** A yard, a customer's drive: a working place with four sides, from a tape along each of them. */
export function QuickBay({ onKept }: { onKept: (name: string) => void }) {
  const [open, setOpen] = useState(false);
  const [draft, setDraft] = useState<Draft>(EMPTY);
  const [problem, setProblem] = useState<string | null>(null);
  const field = { path: "", problem: null, readOnly: false };
  const put = (patch: Partial<Draft>): void => {
    setDraft({ ...draft, ...patch });
    setProblem(null);
  };
  const keep = async (): Promise<void> => {
    const { name = "", sides, diagonalMm = null, door } = draft;
    const answer = await fetch("/api/bays/quick", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({
        name,
        sides: sides.map((s) => s ?? null),
        diagonalMm,
        door: door === "none" ? null : Number(door),
      }),
    }).catch(() => null);
    if (!answer) return setProblem(SILENT);
    if (!answer.ok) {
      const { error } = (await answer.json()) as { error?: string };
      return setProblem(error ?? SILENT);
    }
    setOpen(false);
    setDraft(EMPTY);
    onKept(name);
  };
  return (
    <>
      <Button onClick={() => setOpen(true)}>From four tapes</Button>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        title="A working place from its tapes"
        wide
      >
        <TextField
          label="Its name"
          {...field}
          value={draft.name}
          onChange={(v) => put({ name: v as string | undefined })}
        />
        <p className="mt-2 text-base text-soft">
          Stand in it, begin at any corner, and go round to the left: walls 1 to 4.
        </p>
        <div className="grid gap-x-6 gap-y-2 sm:grid-cols-2">
          {draft.sides.map((s, i) => (
            <NumberField
              key={i}
              label={`Wall ${i + 1}`}
              unit="mm"
              {...field}
              value={s}
              onChange={(v) =>
                put({ sides: draft.sides.map((x, k) => (k === i ? (v as number | undefined) : x)) })
              }
            />
          ))}
          <NumberField
            label="Across, first corner to third; if not square"
            unit="mm"
            {...field}
            value={draft.diagonalMm}
            onChange={(v) => put({ diagonalMm: v as number | undefined })}
          />
        </div>
        <div className="mt-2">
          <ChoiceField
            label="One drives in through"
            choices={[
              ["none", "No wall: it is open"],
              ...[1, 2, 3, 4].map((n): [string, string] => [String(n), `Wall ${n}`]),
            ]}
            {...field}
            value={draft.door}
            onChange={(v) => put({ door: v as string })}
          />
        </div>
        {problem && (
          <p
            role="alert"
            className="mt-3 whitespace-pre-line border-l-4 border-stop pl-3 text-lg text-stop"
          >
            {problem}
          </p>
        )}
        <Button look="act" className="mt-4" onClick={() => void keep()}>
          Keep it
        </Button>
      </Dialog>
    </>
  );
}
