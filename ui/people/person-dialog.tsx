"use client";

import { useState, type FormEvent } from "react";
import { UndoBar } from "../book/undo-bar";
import { useDocument } from "../book/use-document";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";
import { Field } from "../primitives/field";
import { ROLES } from "./roles";

type Answer = Promise<{ ok: true } | { ok: false; message: string }>;
type Given = { name: string; initials: string; role: string };
type Somebody = Given & { retiredAt: string | null };

/** What the shop answered, and sending once. */
export function useSend(onDone: () => void) {
  const [message, setMessage] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const send = (answer: Answer): void => {
    setBusy(true);
    setMessage(null);
    answer
      .catch(() => ({
        ok: false as const,
        message: "The shop does not answer. Nothing was kept; try again when it is back.",
      }))
      .then((a) => (a.ok ? onDone() : setMessage(a.message)))
      .finally(() => setBusy(false));
  };
  return { message, busy, send };
}

/** Initials from a name: first letters of the first and last word. */
const initialsOf = (name: string): string => {
  const words = name.trim().split(/\s+/).filter(Boolean);
  return words.length < 2 ? "" : `${words[0]![0]}${words.at(-1)![0]}`.toUpperCase();
};

const figures = (text: string): string => text.replace(/\D/g, "").slice(0, 12);

/** Six figures or more, typed twice so that nobody locks themselves out by a slip. */
export function NewPin({
  pin,
  again,
  onPin,
  onAgain,
}: {
  pin: string;
  again: string;
  onPin: (pin: string) => void;
  onAgain: (pin: string) => void;
}) {
  return (
    <div className="grid gap-x-6 sm:grid-cols-2">
      <Field
        label="PIN, six figures or more"
        type="password"
        inputMode="numeric"
        autoComplete="off"
        value={pin}
        onChange={(e) => onPin(figures(e.target.value))}
      />
      <Field
        label="The same again"
        type="password"
        inputMode="numeric"
        autoComplete="off"
        value={again}
        onChange={(e) => onAgain(figures(e.target.value))}
        problem={
          again.length >= pin.length && again !== "" && again !== pin
            ? "It differs from the first."
            : null
        }
      />
    </div>
  );
}

/** Somebody's name, initials and role; for a new person the PIN too. */
export function PersonDialog({
  editing,
  onClose,
  onDone,
  send,
}: {
  editing: Somebody | "new" | null;
  onClose: () => void;
  onDone: () => void;
  send: (person: Given, pin: string, gone: boolean) => Answer;
}) {
  return (
    <Dialog
      open={editing !== null}
      onClose={onClose}
      title={editing === "new" ? "Enter somebody" : "Write down anew"}
    >
      {editing && (
        <PersonForm now={editing === "new" ? null : editing} onDone={onDone} send={send} />
      )}
    </Dialog>
  );
}

function PersonForm({
  now,
  onDone,
  send,
}: {
  now: Somebody | null;
  onDone: () => void;
  send: (person: Given, pin: string, gone: boolean) => Answer;
}) {
  // A PIN is kept nowhere.
  const { doc, change, undo, canUndo, restored, letGo } = useDocument(
    `iridel:edit:person:${now?.initials ?? "new"}`,
    {
      name: now?.name ?? "",
      initials: now?.initials ?? (null as string | null),
      role: now?.role ?? "technician",
    },
  );
  const { name, initials, role } = doc;
  const [pin, setPin] = useState("");
  const [again, setAgain] = useState("");
  const {
    message,
    busy,
    send: go,
  } = useSend(() => {
    letGo();
    onDone();
  });
  const shown = initials ?? initialsOf(name);
  const ready =
    name.trim().length >= 3 &&
    shown.length >= 2 &&
    (now !== null || (pin.length >= 6 && pin === again));
  const keep = (gone: boolean): void => go(send({ name, initials: shown, role }, pin, gone));
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e: FormEvent) => {
        e.preventDefault();
        if (ready) keep(false);
      }}
    >
      <UndoBar can={canUndo} restored={restored} onUndo={undo} />
      <div className="grid gap-x-6 sm:grid-cols-[1fr_120px]">
        <Field
          label="Name"
          autoFocus
          value={name}
          maxLength={60}
          onChange={(e) => change("name", (d) => ({ ...d, name: e.target.value }))}
        />
        <Field
          label="Initials"
          value={shown}
          maxLength={3}
          onChange={(e) =>
            change("initials", (d) => ({ ...d, initials: e.target.value.toUpperCase() }))
          }
        />
      </div>
      <fieldset>
        <legend className="mb-1 text-sm font-semibold text-soft">Role</legend>
        <div className="flex flex-col gap-1">
          {ROLES.map((r) => (
            <button
              key={r.id}
              type="button"
              aria-pressed={role === r.id}
              onClick={() => change("role", (d) => ({ ...d, role: r.id }))}
              className={`min-h-14 rounded-md border-2 px-4 text-left ${role === r.id ? "border-act" : "border-hairline"}`}
            >
              <b className="text-lg font-semibold">{r.name}</b>{" "}
              <span className="text-base text-soft">{r.may}</span>
            </button>
          ))}
        </div>
      </fieldset>
      {!now && <NewPin pin={pin} again={again} onPin={setPin} onAgain={setAgain} />}
      {message && (
        <p role="alert" className="text-lg text-stop">
          {message}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button type="submit" look="act" size="large" className="flex-1" disabled={!ready || busy}>
          {now?.retiredAt ? "Take back" : now ? "Write it down" : "Enter"}
        </Button>
        {now && !now.retiredAt && (
          <Button look="stop" size="large" disabled={busy} onClick={() => keep(true)}>
            Has left
          </Button>
        )}
      </div>
    </form>
  );
}

/** A new PIN for oneself (the old one in hand) or, by the lead, for somebody else. */
export function PinDialog({
  open,
  name,
  onClose,
  onDone,
  send,
}: {
  open: boolean;
  name: string | null;
  onClose: () => void;
  onDone: () => void;
  send: (old: string, pin: string) => Answer;
}) {
  return (
    <Dialog open={open} onClose={onClose} title={name ? `New PIN for ${name}` : "Change my PIN"}>
      {open && <PinForm own={name === null} onDone={onDone} send={send} />}
    </Dialog>
  );
}

function PinForm({
  own,
  onDone,
  send,
}: {
  own: boolean;
  onDone: () => void;
  send: (old: string, pin: string) => Answer;
}) {
  const [old, setOld] = useState("");
  const [pin, setPin] = useState("");
  const [again, setAgain] = useState("");
  const { message, busy, send: go } = useSend(onDone);
  const ready = pin.length >= 6 && pin === again && (!own || old.length >= 4);
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (ready) go(send(old, pin));
      }}
    >
      <p className="text-lg">
        {own
          ? "It counts from the next sign-in."
          : "Tell it to them in person. Tablets they are signed in on ask again."}
      </p>
      {own && (
        <Field
          label="The PIN until now"
          type="password"
          inputMode="numeric"
          autoComplete="off"
          autoFocus
          value={old}
          onChange={(e) => setOld(figures(e.target.value))}
        />
      )}
      <NewPin pin={pin} again={again} onPin={setPin} onAgain={setAgain} />
      {message && (
        <p role="alert" className="text-lg text-stop">
          {message}
        </p>
      )}
      <Button type="submit" look="act" size="large" disabled={!ready || busy}>
        {own ? "Change it" : "Give it"}
      </Button>
    </form>
  );
}
