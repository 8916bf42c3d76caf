"use client";

import { useState, type ReactNode } from "react";
import { getAt, setAt } from "../book/paths";
import { UndoBar } from "../book/undo-bar";
import { useDocument } from "../book/use-document";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";

type Draft = Record<string, unknown>;
export type RuleFormProps<T> = {
  editing: { item: Partial<T>; at: number | null } | null;
  onClose: () => void;
  /** Answers with what is wrong, or null. */
  onKeep: (item: unknown) => Promise<string | null>;
  onTakeOut: () => Promise<string | null>;
};

type At = (path: string) => {
  path: string;
  value: unknown;
  problem: null;
  readOnly: false;
  onChange: (v: unknown) => void;
};

/**
 * What every part of the rule book is written in: a dialog, its fields, what the shop says against
 * it, keep and take out.
 */
export function RuleForm<T>({
  editing,
  onClose,
  onKeep,
  onTakeOut,
  title,
  children,
}: RuleFormProps<T> & { title: string; children: (at: At) => ReactNode }) {
  return (
    <Dialog
      open={editing !== null}
      onClose={onClose}
      title={editing?.at === null ? `New ${title}` : title[0]!.toUpperCase() + title.slice(1)}
      wide
    >
      {editing && (
        <Body
          key={editing.at ?? "new"}
          // By what is written anew: a place in the list may be another one's by then.
          place={`iridel:edit:${title}:${editing.at === null ? "new" : JSON.stringify(editing.item)}`}
          first={editing.item as Draft}
          isNew={editing.at === null}
          onKeep={onKeep}
          onTakeOut={onTakeOut}
        >
          {children}
        </Body>
      )}
    </Dialog>
  );
}

function Body({
  place,
  first,
  isNew,
  onKeep,
  onTakeOut,
  children,
}: { place: string; first: Draft; isNew: boolean; children: (at: At) => ReactNode } & Pick<
  RuleFormProps<unknown>,
  "onKeep" | "onTakeOut"
>) {
  const { doc, change, undo, canUndo, restored, letGo } = useDocument(place, first);
  const [message, setMessage] = useState<string | null>(null);
  const at: At = (path) => ({
    path,
    value: getAt(doc, path),
    problem: null,
    readOnly: false,
    // "Any" is no field at all: that is how the rule book's format has it.
    onChange: (v) => change(path, (d) => setAt(d, path, v === "" ? undefined : v)),
  });
  const told = (problem: string | null): void => {
    if (problem === null) letGo();
    setMessage(problem);
  };
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        void onKeep(doc).then(told);
      }}
    >
      <UndoBar can={canUndo} restored={restored} onUndo={undo} />
      {children(at)}
      {message && (
        <p role="alert" className="text-lg text-stop">
          {message}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        {!isNew && (
          <Button look="stop" size="large" onClick={() => void onTakeOut().then(told)}>
            Take it out
          </Button>
        )}
        <Button type="submit" look="act" size="large" className="flex-1">
          Keep it
        </Button>
      </div>
    </form>
  );
}
