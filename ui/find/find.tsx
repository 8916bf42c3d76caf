"use client";

import dynamic from "next/dynamic";
import { useEffect, useState } from "react";
import { inField } from "../primitives/in-field";
import { useLater } from "../primitives/use-later";

// Nobody needs it before it is asked for; then the first letters must find it there.
const LATER = { box: () => import("./command-box") };
const CommandBox = dynamic(() => LATER.box().then((m) => m.CommandBox));

const OPEN = "iridel:find";
/** Opens the command box from anywhere on the page. */
export const openFind = (): boolean => window.dispatchEvent(new Event(OPEN));

/** The command box, under `/` on every page of the shop; a job's bench has it among its own keys. */
export function Find() {
  const [open, setOpen] = useState<boolean | null>(null);
  useLater(LATER);
  useEffect(() => {
    const show = (): void => setOpen(true);
    const onKey = (e: KeyboardEvent): void => {
      if (e.key !== "/" || e.ctrlKey || e.metaKey || e.altKey || inField(e)) return;
      if (document.querySelector('[role="dialog"]')) return;
      e.preventDefault();
      show();
    };
    window.addEventListener("keydown", onKey);
    window.addEventListener(OPEN, show);
    return () => {
      window.removeEventListener("keydown", onKey);
      window.removeEventListener(OPEN, show);
    };
  }, []);
  return open === null ? null : <CommandBox open={open} onClose={() => setOpen(false)} />;
}
