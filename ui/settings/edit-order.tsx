"use client";

import { useState, type ReactNode } from "react";
import { SYSTEMS, type RuleBook } from "@/core/owed";
import { getAt, setAt } from "../book/paths";
import { ChoiceField, NumberField, SetField, TextField, YesNo } from "../book/fields";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";

export type Order = RuleBook["orders"][number];
export type Effort = RuleBook["efforts"][number];
type Draft = Record<string, unknown>;
type Props<T> = {
  editing: { item: Partial<T>; at: number | null } | null;
  onClose: () => void;
  /** Answers with what is wrong, or null. */
  onKeep: (item: unknown) => Promise<string | null>;
  onTakeOut: () => Promise<string | null>;
};

const ANY: [string, string] = ["", "any"];
const SYSTEM_CHOICES: [string, string][] = [ANY, ...(Object.entries(SYSTEMS) as [string, string][])];
const KIND_CHOICES: [string, string][] = [ANY, ["static", "static"], ["dynamic", "dynamic"], ["learn", "learn"], ["alignment", "wheel alignment"]]; // prettier-ignore

type At = (path: string) => { path: string; value: unknown; problem: null; readOnly: false; onChange: (v: unknown) => void }; // prettier-ignore

/** The frame both share: a dialog, its fields, what the shop says against it, keep and take out. */
function Form<T>({ editing, onClose, onKeep, onTakeOut, title, children }: Props<T> & { title: string; children: (at: At, doc: Draft, set: (d: Draft) => void) => ReactNode }) {
  return (
    <Dialog open={editing !== null} onClose={onClose} title={editing?.at === null ? `New ${title}` : title[0]!.toUpperCase() + title.slice(1)} wide>
      {editing && (
        <Body key={editing.at ?? "new"} first={editing.item as Draft} isNew={editing.at === null} onKeep={onKeep} onTakeOut={onTakeOut}>
          {children}
        </Body>
      )}
    </Dialog>
  );
} // prettier-ignore

function Body({ first, isNew, onKeep, onTakeOut, children }: { first: Draft; isNew: boolean; children: (at: At, doc: Draft, set: (d: Draft) => void) => ReactNode } & Pick<Props<unknown>, "onKeep" | "onTakeOut">) {
  const [doc, setDoc] = useState(first);
  const [message, setMessage] = useState<string | null>(null);
  const at: At = (path) => ({
    path,
    value: getAt(doc, path),
    problem: null,
    readOnly: false,
    // "Any" is no field at all: that is how the rule book's format has it.
    onChange: (v) => setDoc((d) => setAt(d, path, v === "" ? undefined : v)),
  });
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        void onKeep(doc).then(setMessage);
      }}
    >
      {children(at, doc, setDoc)}
      {message && (
        <p role="alert" className="text-lg text-stop">
          {message}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        {!isNew && (
          <Button look="stop" size="large" onClick={() => void onTakeOut().then(setMessage)}>
            Take it out
          </Button>
        )}
        <Button type="submit" look="act" size="large" className="flex-1">
          Keep it
        </Button>
      </div>
    </form>
  );
} // prettier-ignore

/** What comes before what. */
export const EditOrder = (props: Props<Order>) => (
  <Form {...props} title="order">
    {(at) => (
      <>
        {props.editing?.at === null && <TextField label="Name of the order, in small letters and dashes" {...at("id")} />}
        <ChoiceField label="First: what kind" choices={KIND_CHOICES} {...at("first.kind")} value={at("first.kind").value ?? ""} />
        <ChoiceField label="First: of which system" choices={SYSTEM_CHOICES} {...at("first.system")} value={at("first.system").value ?? ""} />
        <ChoiceField label="Then: what kind" choices={KIND_CHOICES} {...at("then.kind")} value={at("then.kind").value ?? ""} />
        <ChoiceField label="Then: of which system" choices={SYSTEM_CHOICES} {...at("then.system")} value={at("then.system").value ?? ""} />
        <YesNo label="Only within one system" {...at("sameSystem")} />
        <TextField label="Because" {...at("why")} />
      </>
    )}
  </Form>
); // prettier-ignore

const STATES: { path: string; label: string; choices: [string, string][] }[] = [
  { path: "needs.bonnet", label: "Bonnet", choices: [ANY, ["open", "open"], ["shut", "shut"]] },
  { path: "needs.lights", label: "Lights", choices: [ANY, ["on", "on"], ["off", "off"]] },
  { path: "needs.engine", label: "Engine", choices: [ANY, ["running", "running"], ["off", "off"]] },
  { path: "needs.doors", label: "Doors", choices: [ANY, ["open", "open"], ["shut", "shut"]] },
]; // prettier-ignore

/** What one calibration takes: time, boards, room, and how the vehicle has to be. */
export const EditEffort = ({ boards, ...props }: Props<Effort> & { boards: string[] }) => (
  <Form {...props} title="effort">
    {(at) => (
      <>
        <ChoiceField label="System" choices={SYSTEM_CHOICES.slice(1)} {...at("system")} />
        <ChoiceField label="Kind" choices={KIND_CHOICES.slice(1, 4)} {...at("kind")} />
        <div className="grid grid-cols-2 gap-x-6 gap-y-2 sm:grid-cols-5">
          <NumberField label="Bay, minutes" unit="" {...at("bayMinutes")} />
          <NumberField label="Road, minutes" unit="" {...at("roadMinutes")} />
          <NumberField label="Room ahead, m" unit="" {...at("roomM.ahead")} />
          <NumberField label="Room behind, m" unit="" {...at("roomM.behind")} />
          <NumberField label="Each side, m" unit="" {...at("roomM.sides")} />
        </div>
        <SetField label="Boards and mats" choices={[...new Set([...boards, ...(props.editing?.item.boards ?? [])])].map((b) => [b, b])} {...at("boards")} />
        <div className="grid gap-x-6 gap-y-2 sm:grid-cols-2">
          {STATES.map((s) => (
            <ChoiceField key={s.path} label={s.label} choices={s.choices} {...at(s.path)} value={at(s.path).value ?? ""} />
          ))}
        </div>
        <TextField label="Set-up it shares with others, by a name of your own; none: its own" {...at("setUp")} onChange={(v) => at("setUp").onChange(v ?? null)} />
      </>
    )}
  </Form>
); // prettier-ignore
