"use client";

import { useState, type ReactNode } from "react";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";
import { Dictate } from "../primitives/dictate";

type Props = {
  open: boolean;
  title: string;
  label: string;
  action: string;
  note: string;
  onClose: () => void;
  onReason: (reason: string) => void;
  /** What else is asked with it. */
  more?: ReactNode;
};

/** Asks for the reason that goes on the record. */
export function ReasonDialog({ open, title, label, action, note, onClose, onReason, more }: Props) {
  const [reason, setReason] = useState("");
  const enough = reason.trim().length >= 3;
  return (
    <Dialog open={open} onClose={onClose} title={title}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (!enough) return;
          onReason(reason.trim());
          setReason("");
        }}
      >
        <p className="text-lg">{note}</p>
        {more}
        <label htmlFor="reason" className="text-sm font-semibold text-soft">
          {label}
        </label>
        <span className="flex items-center gap-2">
          <input
            id="reason"
            autoFocus
            value={reason}
            maxLength={400}
            onChange={(e) => setReason(e.target.value)}
            className="min-h-14 min-w-0 flex-1 border-b-2 border-ink bg-transparent px-1 text-lg outline-none focus:border-act"
          />
          <Dictate
            onWords={(heard) => setReason(`${reason.trim()} ${heard}`.trim().slice(0, 400))}
          />
        </span>
        <Button type="submit" look="act" size="large" disabled={!enough}>
          {action}
        </Button>
      </form>
    </Dialog>
  );
}
