import type { Cause, RankedCause } from "@/core/guide";
import type { Change } from "./causes";

/** A cause in words: what it is, how to settle it, and under which stage. */
type CauseWords = { name: string; todo: string; stage: "ready" | "set-out" };

export const CAUSE_WORDS: Record<Cause, CauseWords> = {
  twist: {
    name: "yaw of the board",
    todo: "Read its square again at both ends.",
    stage: "set-out",
  },
  along: { name: "distance of the board", todo: "Read its distance again.", stage: "set-out" },
  side: {
    name: "a board that stands to one side",
    todo: "Read its place across again.",
    stage: "set-out",
  },
  height: {
    name: "height of the board",
    todo: "Read its height again, at its centre.",
    stage: "set-out",
  },
  lean: { name: "lean of the board", todo: "Put the level on its face.", stage: "set-out" },
  level: {
    name: "a board that hangs askew",
    todo: "Put the level along its top edge.",
    stage: "set-out",
  },
  print: {
    name: "another board than the sheet’s",
    todo: "Read the code of the board again.",
    stage: "set-out",
  },
  seat: {
    name: "seat of the camera or its bracket",
    todo: "Take the trim off; look at clips and bracket, and measure the seat of the glass.",
    stage: "ready",
  },
  load: {
    name: "load in the vehicle",
    todo: "Empty it, nobody inside, and read the arches again.",
    stage: "ready",
  },
  clutter: {
    name: "clutter behind the board",
    todo: "Clear or cover what looks like a target, then say so at its check.",
    stage: "ready",
  },
  glare: {
    name: "glare or shadow on the board",
    todo: "Shade the light, then say so at its check.",
    stage: "ready",
  },
};

const capital = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1);

/** Odds as they are said: "9 : 1", "more than 99 : 1"; null where none comes clearly first. */
function odds(first: RankedCause, second: RankedCause): string | null {
  const r = second.share > 0 ? first.share / second.share : Infinity;
  if (r < 1.3) return null;
  if (r > 99) return "more than 99 : 1";
  return r < 9.5 && Math.abs(r - Math.round(r)) > 0.25
    ? `${r.toFixed(1)} : 1`
    : `${Math.round(r)} : 1`;
}

/** The likeliest cause against the next, as one sentence. */
export function causeOdds(ranked: readonly RankedCause[]): string {
  const [first, second] = ranked as [RankedCause, RankedCause];
  const [a, b] = [CAUSE_WORDS[first.cause].name, CAUSE_WORDS[second.cause].name];
  const r = odds(first, second);
  return r ? `${capital(a)}: ${r} before ${b}.` : `${capital(a)}, or as likely ${b}.`;
}

/** Causes worth naming: none that is less likely than one in twenty. */
const WORTH = 0.05;
export const worthNaming = (ranked: readonly RankedCause[]): RankedCause[] =>
  ranked.filter((r, i) => i === 0 || r.share >= WORTH).slice(0, 4);

/** What changed since a refusal, in a word each. */
export const CHANGE_WORDS: Record<Change, string> = {
  readings: "readings of the set-out",
  board: "the board or its stand",
  checks: "what is checked under Ready",
  vehicle: "what was read of the vehicle",
};
