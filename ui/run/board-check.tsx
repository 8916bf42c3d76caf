"use client";

import { useState } from "react";
import { checkBoard } from "@/core/kit";
import { isByHand } from "@/core/setout";
import type { Target } from "@/core/sheet";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { Button } from "../primitives/button";
import { CodePhoto } from "../scanning/code-photo";
import { WornReason } from "../set-out/worn-reason";

const BOARD = {
  noun: "board",
  arrow: "Does the arrow on its label point up?",
  side: "Vehicle left stays vehicle left: read the label from behind the board, facing the car.",
  never: "Do not let the vehicle look at this board.",
  wrongWay: "The board hangs upside down: turn it over.",
  turning: "Turning it touches the stand: say so in Set out and follow the re-checks.",
  yes: "Yes, it hangs right",
};

const MAT = {
  noun: "mat",
  arrow: "Does its arrow point forward, the way the vehicle faces?",
  side: "Vehicle left is where a driver’s left hand is, whoever looks.",
  never: "Do not let the vehicle look at this mat.",
  wrongWay: "The mat lies the wrong way round: turn it.",
  turning: "Then it lies anew: say so in Set out, and set it out again.",
  yes: "Yes, it lies right",
};

const REFLECTOR: typeof BOARD = {
  noun: "reflector",
  arrow: "Does its open corner face the car, the mark on it up?",
  side: "A reflector that looks aside sends a weak echo: the radar may take the door for it.",
  never: "Do not let the radar look at this one.",
  wrongWay: "The reflector hangs the wrong way: turn its open corner to the car.",
  turning: "Turning it touches the stand: say so in Set out and follow the re-checks.",
  yes: "Yes, it hangs right",
};

/**
 * Which board hangs: its code against kit and sheet, and its arrow, before the vehicle looks at it.
 */
export function BoardCheck({ target }: { target: Target }) {
  const { ground, write } = useJob();
  const wanted = target.object;
  const mat = isByHand(target);
  const words = mat ? MAT : wanted.is === "reflector" ? REFLECTOR : BOARD;
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
        say={
          mat
            ? `Scan or type the code of ${target.name}.`
            : `Scan or type the code of the ${words.noun} that hangs.`
        }
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
            aria-label={mat ? "Mat code" : "Board code"}
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
      <NextBar tone="stop" say={finding.say} detail={words.never}>
        <Button look="act" size="large" onClick={again}>
          Check another
        </Button>
      </NextBar>
    );
  if (over)
    return (
      <NextBar tone="stop" say={words.wrongWay} detail={words.turning}>
        <Button look="act" size="large" onClick={again}>
          It is turned
        </Button>
      </NextBar>
    );
  const needs = finding?.kind === "ask" && worn.trim().length < 3;
  return (
    <NextBar
      tone={finding ? "loose" : "act"}
      say={finding ? finding.say : `${asked} is the right ${words.noun}. ${words.arrow}`}
      detail={
        finding ? `And: ${words.arrow.charAt(0).toLowerCase()}${words.arrow.slice(1)}` : words.side
      }
    >
      {finding && <WornReason value={worn} onChange={setWorn} />}
      <Button look="quiet" size="large" onClick={() => setOver(true)}>
        No
      </Button>
      <Button
        look="act"
        size="large"
        disabled={needs}
        onClick={() =>
          write({
            kind: "board",
            targetId: target.id,
            code: asked,
            reason: finding ? worn.trim() : null,
          })
        }
      >
        {words.yes}
      </Button>
    </NextBar>
  );
}
