"use client";

import dynamic from "next/dynamic";
import { boardUnchecked, standingAt } from "@/core/job";
import { actOf, type Candidate, type Judged } from "@/core/setout";
import { cautionAt, type Target } from "@/core/sheet";
import { formatChance, formatLength, formatNumber, formatQuantity } from "@/core/units";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { Button } from "../primitives/button";
import { useSettings } from "../settings";
import { Catcher } from "./catcher";
import { called, useTogether } from "./together";

const NextStage = dynamic(() => import("../bench/next-stage").then((m) => m.NextStage));
const Finish = dynamic(() => import("./finish").then((m) => m.Finish));
const SwapBar = dynamic(() => import("./swap-bar").then((m) => m.SwapBar));
const MoveAct = dynamic(() => import("./move-act").then((m) => m.MoveAct));
const RigPanel = dynamic(() => import("./rig-panel").then((m) => m.RigPanel));

type Props = {
  judged: Judged;
  /** The reading that is armed, by hand or by advice; null when the advice is not a reading. */
  candidate: Candidate | null;
  byHand: boolean;
  onTaken: () => void;
  onRead: () => void;
};

/**
 * The next physical act at the stand: a reading to take, a move to make, or the board to settle.
 */
export function NextActBar(props: Props) {
  const { me } = useJob();
  const act = <Act {...props} />;
  const { judged, byHand, onRead } = props;
  if (judged.verdict.why !== "suspect" || byHand || me.role === "viewer") return act;
  return (
    <SwapBar judged={judged} onRead={onRead}>
      {act}
    </SwapBar>
  );
}

/** What must not happen to a target that is set. */
const LEAVE: Record<Target["kind"], string> = {
  board: "Do not touch the stand now.",
  mat: "Do not step on it now.",
  mark: "Do not wipe it away.",
};

function Act({ judged, candidate, byHand, onTaken, onRead }: Props) {
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

  const name = called(target);
  const isSet = (id: string): boolean => standingAt(ground, events, id)?.settled != null;
  if (!byHand && target && isSet(target.id)) {
    const say = `${name} is set and on the slip. ${LEAVE[target.kind]}`;
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

  if (next.kind === "move")
    return (
      <MoveAct
        judged={judged}
        next={next}
        name={together.length > 1 ? name : null}
        shift={shiftWords(judged)}
        onRead={onRead}
      />
    );

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
