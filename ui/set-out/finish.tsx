"use client";

import { useState } from "react";
import { checkBoard } from "@/core/kit";
import { LAST_ACTS, type LastActId } from "@/core/setout";
import type { Target } from "@/core/sheet";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { Button } from "../primitives/button";
import { CodePhoto } from "../scanning/code-photo";
import { WornReason } from "./worn-reason";

/** How each last act is done, in words for whoever has a hand on the stand. */
function actWords(id: LastActId, { object, beam }: Target): string {
  if (id !== "hung") return LAST_ACTS[id].say;
  if (beam) return `Hang every board of the beam, arrows up; here ${object.code}`;
  const side = object.side ? `, marked vehicle ${object.side}` : "";
  return `Hang board ${object.code}${side}, its arrow up`;
}

/**
 * The last acts at a stand on one card, with the code of the board that is hung: checked before
 * anything is called set.
 *
 * @param acts none where only the code is lacking
 */
export function Finish({ target, acts }: { target: Target; acts: readonly LastActId[] }) {
  const { ground, write, me } = useJob();
  const hangs = ground.boards !== undefined && (acts.includes("hung") || acts.length === 0);
  const [typed, setTyped] = useState("");
  const [worn, setWorn] = useState("");
  const code = typed.trim().toUpperCase();
  const finding = hangs && code !== "" ? checkBoard(code, ground.boards!, target.object) : null;
  // A code is judged once it is as long as the one asked for: half of it is no wrong board.
  const whole = code.length >= target.object.code.length;
  const stop = whole && finding?.kind === "stop" ? finding.say : null;
  const asks = finding?.kind === "ask" ? finding.say : null;
  const ready =
    !hangs || (code !== "" && !(finding?.kind === "stop") && (!asks || worn.trim().length >= 3));
  const done = (): void => {
    const board = {
      kind: "board" as const,
      targetId: target.id,
      code,
      reason: asks ? worn.trim() : null,
    };
    write(...acts.map((touch) => ({ kind: "touch" as const, touch })), ...(hangs ? [board] : []));
  };
  return (
    <NextBar
      tone={stop ? "stop" : asks ? "loose" : "act"}
      say={
        stop ??
        asks ??
        (acts.length === 0
          ? "Scan or type the code of the board that hangs."
          : "Nearly there. Finish the stand, then it is proved.")
      }
      detail={
        acts.length === 0 ? (
          `The sheet asks for ${target.object.code}.`
        ) : (
          <ol className="mt-1 grid gap-1 text-lg text-ink md:text-xl">
            {acts.map((id, i) => (
              <li key={id} className="flex items-baseline gap-3">
                <span className="figure w-6 shrink-0 text-right font-semibold text-soft">
                  {i + 1}
                </span>
                <span>{actWords(id, target)}</span>
              </li>
            ))}
          </ol>
        )
      }
    >
      {me.role !== "viewer" && (
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            if (ready) done();
          }}
        >
          {hangs && (
            <>
              <CodePhoto
                label="Photo"
                onCodes={(texts) => {
                  setTyped(texts[0]!.toUpperCase());
                  return null;
                }}
              />
              <label className="flex min-w-36 flex-1 flex-col md:flex-none">
                <span className="text-sm font-semibold text-soft">Board code</span>
                <input
                  value={typed}
                  autoComplete="off"
                  autoCapitalize="characters"
                  aria-invalid={stop !== null}
                  onChange={(e) => setTyped(e.target.value.toUpperCase())}
                  className={`figure min-h-14 w-full border-b-4 md:w-36 bg-sheet px-2 text-2xl font-semibold outline-none ${stop ? "border-stop" : "border-act"}`}
                />
              </label>
            </>
          )}
          {asks && <WornReason value={worn} onChange={setWorn} />}
          <Button
            type="submit"
            look="act"
            size="large"
            className="min-w-32 flex-1 md:flex-none"
            disabled={!ready}
          >
            {acts.length === 0 ? "It hangs right" : "All done"}
          </Button>
        </form>
      )}
    </NextBar>
  );
}
