"use client";

import { useEffect, useEffectEvent } from "react";
import { Button } from "../primitives/button";

/** Takes the last change back, also by Ctrl+Z where no line is being typed on. */
export function UndoBar({
  can,
  restored,
  onUndo,
}: {
  can: boolean;
  /** What was typed before a reload is here again. */
  restored: boolean;
  onUndo: () => void;
}) {
  const undo = useEffectEvent(onUndo);
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      const typing =
        e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement;
      if (typing || !(e.ctrlKey || e.metaKey) || e.shiftKey || e.key.toLowerCase() !== "z") return;
      e.preventDefault();
      undo();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <p className="flex min-h-12 items-center justify-between gap-4 text-base text-soft">
      <span role="status">{restored ? "What was typed here before is here again." : ""}</span>
      <Button look="quiet" disabled={!can} onClick={onUndo}>
        Undo
      </Button>
    </p>
  );
}
