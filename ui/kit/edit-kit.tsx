"use client";

import { useMemo, useState } from "react";
import { kitFields, kitProblems, type KitField, type KitKind } from "@/core/kit";
import { ChoiceField, NumberField, TextField } from "../book/fields";
import { getAt, setAt } from "../book/paths";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";

export type Editing = { kind: KitKind; doc: Record<string, unknown>; isNew: boolean };
type Props = {
  editing: Editing | null;
  onClose: (changed: boolean) => void;
  write: (kind: KitKind, doc: unknown, isNew: boolean) => Promise<{ ok: true } | { ok: false; message: string }>;
};

const NAMES: Record<KitKind, string> = { board: "Board", stand: "Stand", instrument: "Instrument" };

/** Writes a piece of kit down as it is measured, each field judged as it is typed. */
export function EditKit({ editing, onClose, write }: Props) {
  return (
    <Dialog
      open={editing !== null}
      onClose={() => onClose(false)}
      title={editing ? (editing.isNew ? `New ${NAMES[editing.kind].toLowerCase()}` : NAMES[editing.kind]) : ""}
      wide
    >
      {editing && <Form editing={editing} onDone={() => onClose(true)} write={write} />}
    </Dialog>
  );
}

/** A stand with a booster more or less; what is written of each stands among the fields above. */
function Boosters({
  doc,
  onChange,
}: {
  doc: Record<string, unknown>;
  onChange: (doc: Record<string, unknown>) => void;
}) {
  const { boosters, ...rest } = doc;
  const list = Array.isArray(boosters) ? (boosters as unknown[]) : [];
  const put = (next: unknown[]): void => onChange(next.length > 0 ? { ...rest, boosters: next } : rest);
  return (
    <p className="mt-2 flex gap-2">
      <Button look="quiet" className="!px-3" disabled={list.length >= 4} onClick={() => put([...list, {}])}>
        + Booster
      </Button>
      {list.length > 0 && (
        <Button look="quiet" className="!px-3" onClick={() => put(list.slice(0, -1))}>
          Take the last booster out
        </Button>
      )}
    </p>
  ); // prettier-ignore
}

function Form({ editing, onDone, write }: { editing: Editing; onDone: () => void; write: Props["write"] }) {
  const { kind, isNew } = editing;
  const [doc, setDoc] = useState(editing.doc);
  const [message, setMessage] = useState<string | null>(null);
  const problems = useMemo(() => kitProblems(kind, doc), [kind, doc]);
  const at = (f: KitField) => ({
    path: f.path,
    label: f.label,
    value: getAt(doc, f.path),
    // A new piece is not scolded for what nobody has come to yet.
    problem: (isNew && getAt(doc, f.path) === undefined ? null : problems.find((p) => p.field === f.path)?.message) ?? null, // prettier-ignore
    readOnly: f.fixed === true && !isNew,
    // A date that is taken out is "nobody knows", not a missing field.
    onChange: (v: unknown) => setDoc((d) => setAt(d, f.path, f.as === "date" ? (v ?? null) : v)),
  });
  const keep = async (): Promise<void> => {
    const answer = await write(kind, doc, isNew).catch(() => ({
      ok: false as const,
      message: "The shop does not answer. Nothing was kept; try again when it is back.",
    }));
    if (answer.ok) onDone();
    else setMessage(answer.message);
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        void keep();
      }}
    >
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
        {kitFields(kind, doc).map((f) =>
          Array.isArray(f.as) ? (
            <div key={f.path} className="sm:col-span-2">
              <ChoiceField choices={f.as} {...at(f)} />
            </div>
          ) : f.as === "text" || f.as === "date" ? (
            <TextField key={f.path} {...at(f)} />
          ) : (
            <NumberField key={f.path} unit={f.as === "number" ? "" : f.as} {...at(f)} />
          ),
        )}
      </div>
      {kind === "stand" && <Boosters doc={doc} onChange={setDoc} />}
      {message && (
        <p role="alert" className="mt-3 text-lg text-stop">
          {message}
        </p>
      )}
      <p className="mt-3 text-base text-soft">Jobs that are open keep the kit they were opened with.</p>
      <Button type="submit" look="act" size="large" className="mt-3 w-full" disabled={problems.length > 0}>
        {isNew ? "Put it into the kit" : "Write it down"}
      </Button>
    </form>
  );
}
