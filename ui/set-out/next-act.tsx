"use client";

import dynamic from "next/dynamic";
import { useMemo } from "react";
import { boardUnchecked, eventsOf, standingAt, type JobEvent, type TabletEvent } from "@/core/job";
import {
  actOf,
  findSwap,
  instrumentFor,
  moveWords,
  predictedReadings,
  slotValue,
  zeroFirst,
  type Candidate,
  type Judged,
  type Move,
  type ProposedMove,
  type Slot,
  type Swap,
  type Watched,
} from "@/core/setout";
import { cautionAt } from "@/core/sheet";
import { formatChance, formatLength, formatNumber, formatQuantity } from "@/core/units";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { NextStage } from "../bench/next-stage";
import { Button } from "../primitives/button";
import { useSettings } from "../settings";
import { Catcher } from "./catcher";
import { called, useTogether } from "./together";

const Finish = dynamic(() => import("./finish").then((m) => m.Finish));
const LiveCrank = dynamic(() => import("./live-crank").then((m) => m.LiveCrank));
const RigPanel = dynamic(() => import("./rig-panel").then((m) => m.RigPanel));

type Props = {
  judged: Judged;
  /** The reading that is armed, by hand or by advice; null when the advice is not a reading. */
  candidate: Candidate | null;
  byHand: boolean;
  onTaken: () => void;
  onRead: () => void;
};

const bare = ({ predicted: _, ...move }: ProposedMove): Move => move;

/**
 * The next physical act at the stand: a reading to take, a move to make, or the board to settle.
 */
export function NextActBar({ judged, candidate, byHand, onTaken, onRead }: Props) {
  const { ground, events, own, target, turnTo, write, me } = useJob();
  const together = useTogether();
  const { lengths } = useSettings();
  const { next, verdict } = judged;
  const viewer = me.role === "viewer";
  const rolled = own.findLast((e) => e.body.kind === "reading" || e.body.kind === "rear-toe")?.body;
  const caution =
    rolled?.kind === "rear-toe" && rolled.how === "rolled"
      ? "Park brake on and chocks in before anyone works at the wheels again."
      : judged.solution.readings.length === 0
        ? (cautionAt(ground.sheet, "start") ?? cautionAt(ground.sheet, "wheels"))
        : undefined;

  const swap = useMemo(
    () => (verdict.why === "suspect" ? findSwap(judged.solution) : null),
    [verdict.why, judged.solution],
  );
  if (swap && !byHand && !viewer)
    return (
      <NextBar
        tone="loose"
        say="Left and right look swapped."
        detail={`As typed, ${swap.names.join(" and ")} contradict the rest; exchanged they agree.`}
      >
        <Button look="quiet" size="large" onClick={onRead}>
          Read instead
        </Button>
        <Button look="act" size="large" onClick={() => write(...exchanged(judged, swap, own))}>
          Exchange them
        </Button>
      </NextBar>
    );

  const mat = target?.kind === "mat";
  const name = called(target);
  const isSet = (id: string): boolean => standingAt(ground, events, id)?.settled != null;
  if (!byHand && target && isSet(target.id)) {
    const say = mat
      ? `${name} is set and on the slip. Do not step on it now.`
      : `${name} is set and on the slip. Do not touch the stand now.`;
    const other = together.find((t) => !isSet(t.id));
    if (!other) return <NextStage after="set-out" say={say} />;
    return (
      <NextBar tone="settled" say={say} detail={`Next: ${other.name}.`}>
        <Button look="act" size="large" onClick={() => turnTo(ground.calibrationId, other.id)}>
          Set out {other.name}
        </Button>
      </NextBar>
    );
  }

  if (candidate) {
    const asked =
      !byHand && next.kind === "read" && next.candidate.slot.id === candidate.slot.id ? next : null;
    const again = asked?.again ?? null;
    const act = actOf(candidate);
    // Where two targets lie there together, the act says which it is of.
    const spoken =
      together.length > 1 ? `${name}: ${act.charAt(0).toLowerCase()}${act.slice(1)}` : act;
    return (
      <NextBar
        tone={again ? "loose" : "act"}
        say={again ? actOf(candidate, `Read again: ${candidate.slot.name}.`) : spoken}
        detail={
          again
            ? suspectWords(judged, again, lengths)
            : [
                zeroFirst(judged.solution),
                byHand ? "Chosen by hand." : candidate.why,
                candidate.slot.hint,
                judged.solution.strayed && shiftWords(judged),
              ]
                .filter(Boolean)
                .join(" ")
        }
        caution={
          candidate.slot.instrument.endsWith("laser") ? cautionAt(ground.sheet, "laser") : caution
        }
      >
        {candidate.slot.instrument === "rig" && !viewer ? (
          <RigPanel judged={judged} onTaken={onTaken} />
        ) : (
          <Catcher
            key={candidate.slot.id}
            candidate={candidate}
            again={again}
            decides={asked?.decides}
            onTaken={onTaken}
          />
        )}
      </NextBar>
    );
  }

  if (next.kind === "move") {
    const words = moveWords(next.move, ground.vehicle, lengths);
    const said =
      together.length > 1
        ? `${name}: ${words.say.charAt(0).toLowerCase()}${words.say.slice(1)}`
        : words.say;
    const heavy =
      next.move.kind === "booster"
        ? "Take the board off first; two people lift the mast."
        : next.move.kind === "crank"
          ? cautionAt(ground.sheet, "lift")
          : undefined;
    const live = watchedLive(judged, next.move);
    const all = [next.move, ...next.rest];
    const done = all.map((move, i): TabletEvent => ({
      kind: "move",
      move: bare(move),
      rest: all.slice(i + 1).map(bare),
    }));
    if (next.rest.length > 0 && all.length <= MOST_ON_A_CARD)
      return (
        <NextBar
          say={together.length > 1 ? `${name}: in this order` : "In this order"}
          detail={
            <>
              <ol className="mt-1 grid gap-1 text-lg text-ink md:text-xl">
                {all.map((m, i) => {
                  const w = moveWords(m, ground.vehicle, lengths);
                  return (
                    <li key={i} className="flex items-baseline gap-3">
                      <span className="figure w-24 shrink-0 text-right text-2xl font-semibold">
                        {w.figure}
                      </span>
                      <span>{w.say}</span>
                    </li>
                  );
                })}
              </ol>
              <span className="mt-2 block">
                {[shiftWords(judged), rightWhen(judged, all.at(-1)!, lengths)]
                  .filter(Boolean)
                  .join(" ")}
              </span>
            </>
          }
          caution={
            all.some((m) => m.kind === "crank") ? cautionAt(ground.sheet, "lift") : undefined
          }
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
    return (
      <NextBar
        say={said}
        figure={live && next.rest.length === 0 ? undefined : words.figure}
        detail={[
          zeroFirst(judged.solution),
          shiftWords(judged),
          words.detail,
          rightWhen(judged, next.move, lengths),
        ]
          .filter(Boolean)
          .join(" ")}
        caution={heavy}
      >
        {!viewer && live && next.rest.length === 0 && (
          <LiveCrank judged={judged} {...live} onRead={onRead} />
        )}
        {!viewer && !(live && next.rest.length === 0) && (
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

  if (target && next.kind === "finish") return <Finish target={target} acts={next.acts} />;
  if (target && next.kind === "settle" && boardUnchecked(ground, events, target.id))
    return <Finish target={target} acts={[]} />;
  if (next.kind === "settle")
    return (
      <NextBar
        tone="settled"
        say={`${name} is where it must be.`}
        detail={[
          shiftWords(judged),
          "Every quantity is inside its tolerance at once, with this chance. Print it to the slip.",
        ]
          .filter(Boolean)
          .join(" ")}
        figure={formatChance(verdict.chance)}
      >
        {!viewer && (
          <Button look="act" size="large" onClick={() => write({ kind: "settle" })}>
            Print to the slip
          </Button>
        )}
      </NextBar>
    );

  const leaveOut = next.kind === "stuck" ? next.leaveOut : undefined;
  return (
    <NextBar tone="stop" say={next.kind === "stuck" ? next.message : "Nothing can be proposed."}>
      {leaveOut && !viewer && (
        <Button
          look="plain"
          size="large"
          onClick={() =>
            write(
              ...leaveOut.ids.map((target) => ({
                kind: "strike" as const,
                target,
                reason: leaveOut.reason,
              })),
            )
          }
        >
          Leave it out
        </Button>
      )}
      {!viewer && (
        <Button look="quiet" size="large" onClick={onRead}>
          Read anew
        </Button>
      )}
    </NextBar>
  );
}

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

/** More moves than this are told one after another. */
const MOST_ON_A_CARD = 4;

/** Both readings struck with the reason, and written again with their figures exchanged. */
function exchanged(judged: Judged, swap: Swap, events: readonly JobEvent[]): TabletEvent[] {
  const [l, r] = [swap.left, swap.right].map((id) =>
    eventsOf(events, "reading").find((e) => e.id === id)!,
  );
  const strike = (target: string): TabletEvent => ({
    kind: "strike",
    target,
    reason: "Left and right were exchanged",
  });
  const again = (slotOf: typeof l, figureOf: typeof l): TabletEvent => ({
    ...figureOf!.body,
    slotId: slotOf!.body.slotId,
    sigma: slotOf!.body.sigma,
  });
  return [strike(swap.left), strike(swap.right), again(l, r), again(r, l)];
}

/** What is wrong with a suspect reading, in one sentence. */
function suspectWords(judged: Judged, readingId: string, lengths: "mm" | "in"): string {
  const reading = judged.solution.readings.find((r) => r.id === readingId);
  const slot = judged.solution.slots.find((s) => s.id === reading?.slotId);
  if (!reading?.result || !slot) return "It does not agree with the others.";
  const { residual, redundancy } = reading.result;
  // The residual shows only the checked share of a slip; dividing by the redundancy estimates the
  // slip itself.
  const slip = -residual / Math.max(redundancy, 0.05);
  const size =
    slot.quantity.dimension === "angle"
      ? formatQuantity(Math.abs(slip), "deg")
      : formatLength(Math.abs(slip), lengths);
  const others = judged.verdict.suspects.length - 1;
  return `It reads about ${size} too ${slip > 0 ? "much" : "little"} against the others.${others > 0 ? ` ${others} more could be at fault instead.` : ""}`;
}

/**
 * What a touch did to the stand, or that a move went astray, as readings before and after it say; empty while nothing is
 * known of it.
 */
function shiftWords({ solution: { shifted, strayed } }: Judged): string {
  if (!shifted)
    return strayed
      ? "It did not end where the last move should have left it; what was read since says where it is."
      : "";
  if (!shifted.sure) return "The touch moved nothing that the readings can tell.";
  return `The touch moved it: ${formatNumber(shifted.mm, 1)} ± ${formatNumber(shifted.sigmaMm, 1)} mm, ${formatQuantity(Math.abs(shifted.turnRad), "deg")}.`;
}

/**
 * The readings that change most, as they will be when the move is right; first those the technician
 * has just taken.
 */
function rightWhen(judged: Judged, move: ProposedMove, lengths: "mm" | "in"): string {
  // With another booster the scale means something else, and nothing may have been read yet.
  if (move.kind === "booster") return "";
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
