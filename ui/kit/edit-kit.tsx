"use client";

import { useMemo, useState } from "react";
import { kitFields, kitProblems, type KitField, type KitKind } from "@/core/kit";
import { LAST_ACTS, LAST_ACT_IDS, type LastActId } from "@/core/setout";
import { degToRad, radToDeg } from "@/core/units";
import { ChoiceField, NumberField, TextField } from "../book/fields";
import { UndoBar } from "../book/undo-bar";
import { useDocument } from "../book/use-document";
import { getAt, setAt } from "../book/paths";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";

export type Editing = { kind: KitKind; doc: Record<string, unknown>; isNew: boolean };
type Props = {
  editing: Editing | null;
  onClose: (changed: boolean) => void;
  write: (
    kind: KitKind,
    doc: unknown,
    isNew: boolean,
  ) => Promise<{ ok: true } | { ok: false; message: string }>;
};

const NAMES: Record<KitKind, string> = {
  board: "Board",
  stand: "Stand",
  instrument: "Instrument",
  tool: "Scan tool",
};

/** Writes a piece of kit down as it is measured, each field judged as it is typed. */
export function EditKit({ editing, onClose, write }: Props) {
  return (
    <Dialog
      open={editing !== null}
      onClose={() => onClose(false)}
      title={
        editing
          ? editing.isNew
            ? `New ${NAMES[editing.kind].toLowerCase()}`
            : NAMES[editing.kind]
          : ""
      }
      wide
    >
      {editing && <Form editing={editing} onDone={() => onClose(true)} write={write} />}
    </Dialog>
  );
}

/** Angles are kept in radians and read in degrees, without the last digits of the turning. */
const shownAs = (f: KitField, value: unknown): unknown =>
  f.as === "rad" && typeof value === "number" ? Math.round(radToDeg(value) * 1e6) / 1e6 : value;

type Part = {
  list: "joints" | "feet" | "boosters";
  name: string;
  fresh: object;
  least: number;
  most: number;
};

/** The unit of a figure a piece of kit is described by. */
const FIGURE_OF = { mm: "mm", rad: "°", days: "d", number: "" } as const;

/**
 * What a stand has more or fewer of; the figures of each stand among the fields above. Joints from
 * the floor upward.
 */
const PARTS: Part[] = [
  {
    list: "joints",
    name: "Turning joint",
    fresh: { kind: "yaw", xMm: 0, yMm: 0, limitRad: 0.1 },
    least: 0,
    most: 4,
  },
  {
    list: "joints",
    name: "Slide across",
    fresh: { kind: "slide", axis: "cross", limitMm: 100 },
    least: 0,
    most: 4,
  },
  {
    list: "joints",
    name: "Slide fore and aft",
    fresh: { kind: "slide", axis: "fore-aft", limitMm: 100 },
    least: 0,
    most: 4,
  },
  { list: "feet", name: "Foot", fresh: {}, least: 3, most: 4 },
  { list: "boosters", name: "Booster", fresh: {}, least: 0, most: 4 },
];
const LAST: Record<Part["list"], string> = {
  joints: "the last joint",
  feet: "the fourth foot",
  boosters: "the last booster",
};

function Parts({
  doc,
  onChange,
}: {
  doc: Record<string, unknown>;
  onChange: (doc: Record<string, unknown>) => void;
}) {
  const listOf = (list: Part["list"]): unknown[] =>
    Array.isArray(doc[list]) ? (doc[list] as unknown[]) : [];
  const put = (list: Part["list"], next: unknown[]): void => {
    const { [list]: _, ...rest } = doc;
    // A stand without boosters has no such field at all: that is how the kit's format has it.
    onChange(next.length > 0 || list !== "boosters" ? { ...rest, [list]: next } : rest);
  };
  return (
    <p className="mt-2 flex flex-wrap gap-1">
      {PARTS.map((p) => (
        <Button
          key={p.name}
          look="quiet"
          disabled={listOf(p.list).length >= p.most}
          onClick={() => put(p.list, [...listOf(p.list), p.fresh])}
        >
          + {p.name}
        </Button>
      ))}
      {(Object.keys(LAST) as Part["list"][]).map((list) =>
        listOf(list).length > PARTS.find((p) => p.list === list)!.least ? (
          <Button key={list} look="faint" onClick={() => put(list, listOf(list).slice(0, -1))}>
            Take {LAST[list]} out
          </Button>
        ) : null,
      )}
    </p>
  );
}

/** What is done to a stand last: it is asked for before a board on it is called set. */
function LastActs({
  doc,
  onChange,
}: {
  doc: Record<string, unknown>;
  onChange: (doc: Record<string, unknown>) => void;
}) {
  const chosen = new Set(Array.isArray(doc.lastActs) ? (doc.lastActs as unknown[]) : []);
  const turn = (id: LastActId): void =>
    onChange({
      ...doc,
      lastActs: LAST_ACT_IDS.filter((x) => (x === id ? !chosen.has(x) : chosen.has(x))),
    });
  return (
    <fieldset className="mt-3">
      <legend className="text-sm font-semibold text-soft">
        Done last, before a board on it is called set
      </legend>
      <div className="mt-1 flex flex-wrap gap-1">
        {LAST_ACT_IDS.map((id) => (
          <Button
            key={id}
            look={chosen.has(id) ? "plain" : "quiet"}

            aria-pressed={chosen.has(id)}
            onClick={() => turn(id)}
          >
            {LAST_ACTS[id].say}
          </Button>
        ))}
      </div>
    </fieldset>
  );
}

function Form({
  editing,
  onDone,
  write,
}: {
  editing: Editing;
  onDone: () => void;
  write: Props["write"];
}) {
  const { kind, isNew } = editing;
  const { doc, change, undo, canUndo, restored, letGo } = useDocument(
    `iridel:edit:${kind}:${isNew ? "new" : String(editing.doc.code ?? editing.doc.id)}`,
    editing.doc,
  );
  const [message, setMessage] = useState<string | null>(null);
  const problems = useMemo(() => kitProblems(kind, doc), [kind, doc]);
  const at = (f: KitField) => ({
    path: f.path,
    label: f.label,
    value: shownAs(f, getAt(doc, f.path)),
    // A new piece is not scolded for what nobody has come to yet.
    problem:
      (isNew && getAt(doc, f.path) === undefined
        ? null
        : problems.find((p) => p.field === f.path)?.message) ?? null,
    readOnly: f.fixed === true && !isNew,
    // A date that is taken out is "nobody knows", not a missing field.
    onChange: (v: unknown) =>
      change(f.path, (d) =>
        setAt(
          d,
          f.path,
          f.as === "date" ? (v ?? null) : f.as === "rad" && typeof v === "number" ? degToRad(v) : v,
        ),
      ),
  });
  const keep = async (): Promise<void> => {
    const answer = await write(kind, doc, isNew).catch(() => ({
      ok: false as const,
      message: "The shop does not answer. Nothing was kept; try again when it is back.",
    }));
    if (answer.ok) {
      letGo();
      onDone();
    } else setMessage(answer.message);
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        void keep();
      }}
    >
      <UndoBar can={canUndo} restored={restored} onUndo={undo} />
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
        {kitFields(kind, doc).map((f) =>
          Array.isArray(f.as) ? (
            <div key={f.path} className="sm:col-span-2">
              <ChoiceField choices={f.as} {...at(f)} />
            </div>
          ) : f.as === "text" || f.as === "date" ? (
            <TextField key={f.path} {...at(f)} />
          ) : (
            <NumberField key={f.path} unit={FIGURE_OF[f.as]} {...at(f)} />
          ),
        )}
      </div>
      {kind === "stand" && <Parts doc={doc} onChange={(next) => change("parts", () => next)} />}
      {kind === "stand" && (
        <LastActs doc={doc} onChange={(next) => change("last acts", () => next)} />
      )}
      {message && (
        <p role="alert" className="mt-3 text-lg text-stop">
          {message}
        </p>
      )}
      <p className="mt-3 text-base text-soft">
        Jobs that are open keep the kit they were opened with.
      </p>
      <Button
        type="submit"
        look="act"
        size="large"
        className="mt-3 w-full"
        disabled={problems.length > 0}
      >
        {isNew ? "Put it into the kit" : "Write it down"}
      </Button>
    </form>
  );
}
