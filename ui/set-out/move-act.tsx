"use client";

import dynamic from "next/dynamic";
import type { TabletEvent } from "@/core/job";
import {
  instrumentFor,
  moveWords,
  predictedReadings,
  slotValue,
  thingOf,
  type Judged,
  type Move,
  type NextAct,
  type ProposedMove,
  type Slot,
  type Watched,
} from "@/core/setout";
import { cautionAt } from "@/core/sheet";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { Button } from "../primitives/button";
import { useSettings } from "../settings";

const LiveCrank = dynamic(() => import("./live-crank").then((m) => m.LiveCrank));

type Props = {
  judged: Judged;
  next: Extract<NextAct, { kind: "move" }>;
  /** Of which target, where several stand together. */
  name: string | null;
  /** What the touch before it did, in words; empty where nothing is known of it. */
  shift: string;
  onRead: () => void;
};

const bare = ({ predicted: _, ...move }: ProposedMove): Move => move;
const lines = (...parts: string[]): string => parts.filter(Boolean).join(" ");

/** What is to be moved next: a few moves of one plan on one card, one by itself, or one that is watched. */
export function MoveAct({ judged, next, name, shift, onRead }: Props) {
  const { ground, write, me } = useJob();
  const { lengths } = useSettings();
  const viewer = me.role === "viewer";
  const things = thingOf(judged.solution.plan.target);
  const all = [next.move, ...next.rest];
  const done = all.map((move, i): TabletEvent => ({
    kind: "move",
    move: bare(move),
    rest: all.slice(i + 1).map(bare),
  }));
  const when = (move: ProposedMove): string => rightWhen(judged, move, lengths);
  if (next.rest.length > 0 && all.length <= MOST_ON_A_CARD)
    return (
      <NextBar
        say={name ? `${name}: in this order` : "In this order"}
        detail={
          <>
            <ol className="mt-1 grid grid-cols-[auto_1fr] items-baseline gap-x-3 gap-y-1 text-lg text-ink md:text-xl">
              {all.map((m, i) => {
                const w = moveWords(m, ground.vehicle, lengths, things);
                return (
                  <li key={i} className="contents">
                    <span className="figure text-right text-2xl font-semibold whitespace-nowrap">
                      {w.figure}
                    </span>
                    <span>{w.say}</span>
                  </li>
                );
              })}
            </ol>
            <span className="mt-2 block">{lines(shift, when(all.at(-1)!))}</span>
          </>
        }
        caution={all.some((m) => m.kind === "crank") ? cautionAt(ground.sheet, "lift") : undefined}
      >
        {!viewer && (
          <div className="flex w-full flex-wrap gap-1 md:w-44 md:flex-col">
            <Button look="act" size="large" className="w-full" onClick={() => write(...done)}>
              All done
            </Button>
            <Button look="plain" className="flex-1" onClick={() => write(done[0]!)}>
              Only the first
            </Button>
            <Button look="quiet" className="flex-1" onClick={onRead}>
              Read instead
            </Button>
          </div>
        )}
      </NextBar>
    );
  const words = moveWords(next.move, ground.vehicle, lengths, things);
  const heavy =
    next.move.kind === "booster"
      ? "Take the board off first; two people lift the mast."
      : next.move.kind === "crank"
        ? cautionAt(ground.sheet, "lift")
        : undefined;
  const live = next.rest.length === 0 ? watchedLive(judged, next.move) : null;
  return (
    <NextBar
      say={name ? `${name}: ${words.say.charAt(0).toLowerCase()}${words.say.slice(1)}` : words.say}
      figure={live ? undefined : words.figure}
      detail={lines(shift, words.detail ?? "", when(next.move))}
      caution={heavy}
    >
      {!viewer && live && <LiveCrank judged={judged} {...live} onRead={onRead} />}
      {!viewer && !live && (
        <div className="flex w-full gap-1 md:w-44 md:flex-col">
          <Button look="act" size="large" className="flex-1" onClick={() => write(done[0]!)}>
            {next.rest.length > 0 ? `Done, ${next.rest.length} more` : "Done"}
          </Button>
          <Button look="quiet" onClick={onRead}>
            Read instead
          </Button>
        </div>
      )}
    </NextBar>
  );
}

/** More moves than this are told one after another. */
const MOST_ON_A_CARD = 4;

/** The crank with the slot that is watched on an instrument that posts; null where none does. */
function watchedLive(
  { solution: s }: Judged,
  move: ProposedMove,
): { move: Move & { kind: "crank"; until: Watched }; slot: Slot } | null {
  if (move.kind !== "crank" || !move.until) return null;
  const { until } = move;
  const slot = s.slots.find((x) => x.id === until.slotId);
  if (!slot || instrumentFor(s, slot)?.live !== "posts") return null;
  return { move: { ...(bare(move) as Move & { kind: "crank" }), until }, slot };
}

/**
 * The readings that change most, as they will be when the move is right; first those the technician
 * has just taken.
 */
function rightWhen(judged: Judged, move: ProposedMove, lengths: "mm" | "in"): string {
  // With another booster the scale means something else, and nothing may have been read yet.
  if (move.kind === "booster" || move.kind === "zero") return "";
  const now = predictedReadings(judged.solution);
  const taken = new Set(judged.solution.readings.map((r) => r.slotId));
  const telling = move.predicted
    .map((p) => ({
      ...p,
      change:
        Math.abs(p.shown - (now.get(p.slot.id) ?? p.shown)) *
        (p.slot.quantity.dimension === "angle" ? 1000 : 1),
    }))
    .filter((p) => p.change > 0.4)
    .sort(
      (a, b) => Number(taken.has(b.slot.id)) - Number(taken.has(a.slot.id)) || b.change - a.change,
    )
    .slice(0, 2);
  if (telling.length === 0) return "";
  return `Right when ${telling.map((p) => `${p.slot.short} reads ${slotValue(p.slot, p.shown, lengths)}`).join(" and ")}.`;
}
