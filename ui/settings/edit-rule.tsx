"use client";

import { useState } from "react";
import { EVENTS, KINDS, PLACES, SYSTEMS, type RuleBook } from "@/core/owed";
import { ChoiceField, SetField, TextField, YesNo } from "../book/fields";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";

export type Rule = RuleBook["rules"][number];
type Props = {
  editing: { rule: Partial<Rule>; at: number | null } | null;
  onClose: () => void;
  /** Answers with what is wrong, or null. */
  onKeep: (rule: unknown) => Promise<string | null>;
  onTakeOut: () => Promise<string | null>;
};

/** One rule, written as a sentence one could read to the customer. */
export function EditRule({ editing, onClose, onKeep, onTakeOut }: Props) {
  return (
    <Dialog open={editing !== null} onClose={onClose} title={editing?.at === null ? "New rule" : "Rule"} wide>
      {editing && <Form key={editing.rule.id ?? "new"} first={editing.rule} isNew={editing.at === null} onKeep={onKeep} onTakeOut={onTakeOut} />}
    </Dialog>
  ); // prettier-ignore
}

function Form({
  first,
  isNew,
  onKeep,
  onTakeOut,
}: { first: Partial<Rule>; isNew: boolean } & Pick<Props, "onKeep" | "onTakeOut">) {
  const [rule, setRule] = useState<Record<string, unknown>>(first);
  const [message, setMessage] = useState<string | null>(null);
  const at = (path: string, empty: unknown = undefined) => ({
    path,
    value: rule[path],
    problem: null,
    readOnly: false,
    onChange: (v: unknown) => setRule((r) => ({ ...r, [path]: v === undefined ? empty : v })),
  });
  const places = Array.isArray(rule.at) ? rule.at : [];
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        const { at: _, ...rest } = rule;
        void onKeep(places.length > 0 ? { ...rest, at: places } : rest).then(setMessage);
      }}
    >
      {isNew && <TextField label="Name of the rule, in small letters and dashes" {...at("id")} />}
      <SetField label="When any of these was done or happened" choices={Object.entries(EVENTS)} {...at("when")} />
      <SetField label="at one of these places; none: anywhere" choices={Object.entries(PLACES)} {...at("at")} />
      <ChoiceField label="this system" choices={Object.entries(SYSTEMS)} {...at("system")} />
      <YesNo label="if it sits where that was done" {...at("near")} />
      <ChoiceField label="owes this" choices={Object.entries(KINDS)} {...at("kind")} />
      <TextField label="Because, in one sentence for the customer" {...at("reason")} />
      <TextField label="Source: the shop’s own sheet or book" {...at("source")} />
      <TextField label="Cancelled by; never an empty fault memory" {...at("cancelledBy", null)} />
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
          Keep the rule
        </Button>
      </div>
    </form>
  ); // prettier-ignore
}
