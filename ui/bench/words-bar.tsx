"use client";

import { useState } from "react";
import { Button } from "../primitives/button";
import { Dictate } from "../primitives/dictate";
import { NextBar } from "./next-bar";

/** So few letters say nothing. */
const LEAST = 3;

/** The next act is to say something in a few words, which stand on the record. */
export function WordsBar({
  say,
  detail,
  label,
  action,
  most = 200,
  busy = false,
  onBack,
  onWords,
}: {
  say: string;
  detail: string;
  label: string;
  action: string;
  /** How many letters there is room for. */
  most?: number;
  busy?: boolean;
  onBack: () => void;
  onWords: (words: string) => void;
}) {
  const [words, setWords] = useState("");
  const said = words.trim();
  return (
    <NextBar tone="loose" say={say} detail={detail}>
      <form
        className="flex flex-wrap items-center gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (said.length >= LEAST) onWords(said);
        }}
      >
        <input
          autoFocus
          aria-label={label}
          value={words}
          maxLength={most}
          onChange={(e) => setWords(e.target.value)}
          className="min-h-16 w-72 border-b-4 border-act bg-sheet px-2 text-xl outline-none"
        />
        <Dictate onWords={(heard) => setWords(`${said} ${heard}`.trim().slice(0, most))} />
        <Button type="button" look="quiet" size="large" onClick={onBack}>
          Back
        </Button>
        <Button type="submit" look="act" size="large" disabled={busy || said.length < LEAST}>
          {action}
        </Button>
      </form>
    </NextBar>
  );
}
