"use client";

import { useState } from "react";
import { targetNow } from "@/core/job";
import { checkBoard } from "@/core/kit";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { Button } from "../primitives/button";
import { CodePhoto } from "../scanning/code-photo";

/**
 * Which board hangs: its code against kit and sheet, and its arrow, before the vehicle looks at it.
 */
export function BoardCheck() {
  const { ground, events, write } = useJob();
  const wanted = targetNow(ground, events).object;
  const [typed, setTyped] = useState("");
  const [asked, setAsked] = useState<string | null>(null);
  const [over, setOver] = useState(false);
  const [worn, setWorn] = useState("");
  const finding = asked === null ? null : checkBoard(asked, ground.boards ?? [], wanted);
  const again = (): void => {
    setAsked(null);
    setOver(false);
    setTyped("");
  };
  const check = (text: string): void => {
    if (text.trim() !== "") setAsked(text.trim().toUpperCase());
  };
  if (asked === null)
    return (
      <NextBar
        say="Scan or type the code of the board that hangs."
        detail={`The sheet asks for ${wanted.code}${wanted.side ? `, vehicle ${wanted.side}` : ""}.`}
      >
        <form
          className="flex flex-wrap items-center gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            check(typed);
          }}
        >
          <CodePhoto
            label="Photo"
            onCodes={(texts) => {
              check(texts[0]!);
              return null;
            }}
          />
          <input
            aria-label="Board code"
            value={typed}
            autoFocus
            autoComplete="off"
            autoCapitalize="characters"
            onChange={(e) => setTyped(e.target.value.toUpperCase())}
            className="figure min-h-16 w-44 border-b-4 border-act bg-sheet px-2 text-3xl font-semibold outline-none"
          />
          <Button type="submit" look="act" size="large" disabled={typed.trim() === ""}>
            Check it
          </Button>
        </form>
      </NextBar>
    );
  if (finding?.kind === "stop")
    return (
      <NextBar tone="stop" say={finding.say} detail="Do not let the vehicle look at this board.">
        <Button look="act" size="large" onClick={again}>
          Check another
        </Button>
      </NextBar>
    );
  if (over)
    return (
      <NextBar
        tone="stop"
        say="The board hangs upside down: turn it over."
        detail="Turning it touches the stand: say so in Set out and follow the re-checks."
      >
        <Button look="act" size="large" onClick={again}>
          It is turned
        </Button>
      </NextBar>
    );
  const needs = finding?.kind === "ask" && worn.trim().length < 3;
  return (
    <NextBar
      tone={finding ? "loose" : "act"}
      say={
        finding ? finding.say : `${asked} is the right board. Does the arrow on its label point up?`
      }
      detail={
        finding
          ? "And does the arrow on its label point up?"
          : "Vehicle left stays vehicle left: read the label from behind the board, facing the car."
      }
    >
      {finding && (
        <input
          aria-label="Why the worn board may hang"
          value={worn}
          placeholder="its pattern is whole"
          onChange={(e) => setWorn(e.target.value)}
          className="min-h-14 w-56 border-b-2 border-ink bg-transparent px-1 text-lg outline-none placeholder:text-soft focus:border-act"
        />
      )}
      <Button look="quiet" size="large" onClick={() => setOver(true)}>
        No
      </Button>
      <Button
        look="act"
        size="large"
        disabled={needs}
        onClick={() => write({ kind: "board", code: asked, reason: finding ? worn.trim() : null })}
      >
        Yes, it hangs right
      </Button>
    </NextBar>
  );
}
