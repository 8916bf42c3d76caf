"use client";

import { useRouter } from "next/navigation";
import { standUsedFor, type RunGate } from "@/core/job";
import { isByHand } from "@/core/setout";
import type { RunState } from "@/core/run";
import type { SheetStep } from "@/core/sheet";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { Button, ButtonLink } from "../primitives/button";
import { BoardCheck } from "./board-check";

type Props = { gate: RunGate; state: RunState; step: SheetStep | null };

const NO_STAND =
  "The board before it stays, and the kit has no other stand that reaches its height and passed its zero check. Put one right under Kit; a new job will have it.";

/** What has to be done with the boards before the routine goes on. */
export function RunGateBar({ gate, state, step }: Props) {
  const { head, ground, events, write, turnTo: take } = useJob();
  const router = useRouter();
  const caution = step && "caution" in step ? step.caution : undefined;
  /** Turns to another target; it is set out and proved there like the first. */
  const turnTo = (to: string, brought: boolean, standId?: string): void => {
    if (!brought) write({ kind: "position", to, ...(standId ? { standId } : {}) });
    take(ground.calibrationId, to);
    router.push(`/jobs/${head.id}/set-out`);
  };
  if (gate.kind === "check-board") return <BoardCheck key={gate.target.id} target={gate.target} />;
  if (gate.kind === "check-first")
    return (
      <NextBar
        tone="loose"
        say={`${gate.item.ask}: not proved yet.`}
        caution={caution}
        detail={gate.item.why}
      >
        <ButtonLink href={`/jobs/${head.id}/ready`} look="act" size="large">
          3 Ready
        </ButtonLink>
      </NextBar>
    );
  const { target } = gate;
  const mat = isByHand(target);
  if (gate.kind === "prove")
    return (
      <NextBar
        tone="loose"
        say={
          mat || target.object.is
            ? `Prove ${target.name} first.`
            : `Prove the board at ${target.name} first.`
        }
        caution={caution}
      >
        <ButtonLink href={`/jobs/${head.id}/set-out`} look="act" size="large">
          4 Set out
        </ButtonLink>
      </NextBar>
    );
  if (gate.kind === "choose-stand")
    return (
      <NextBar
        tone={gate.free.length > 0 ? "act" : "stop"}
        say={step?.say ?? ""}
        caution={caution}
        detail={
          gate.free.length > 0
            ? "The board before it stays where it is. Which stand carries this one?"
            : NO_STAND
        }
      >
        {gate.free.map((s) => (
          <Button
            key={s.id}
            look="act"
            size="large"
            title={s.name}
            onClick={() => turnTo(target.id, false, s.id)}
          >
            {s.id}
          </Button>
        ))}
      </NextBar>
    );
  const words = {
    first: {
      say: "The routine begins with the board at its first place.",
      detail: state.message ?? "Bring it back, then set it out and prove it there.",
      act: "Set it out there",
    },
    next: {
      say: step?.say ?? "",
      detail: `To ${target.name}: it is set out and proved there like at the first place.`,
      act: "Set it out there",
    },
    loose:
      mat || target.object.is
        ? {
            say: `${target.name} is not proved in place.`,
            detail: target.object.is
              ? "The radar takes whatever stands there for right."
              : target.kind === "mark"
                ? "Both cameras are aimed in one go: both marks are set out and proved first."
                : "The vehicle looks at all mats at once: each is set out and proved first.",
            act: "Set it out",
          }
        : {
            say: `The board belongs at ${target.name}, and is not proved there.`,
            detail:
              "Something was touched since it was, or it went elsewhere. Set it out there again.",
            act: "Set it out again",
          },
  }[gate.why === "back" ? "loose" : gate.why];
  return (
    <NextBar
      tone={gate.why === "next" ? "act" : "loose"}
      say={words.say}
      detail={words.detail}
      caution={gate.why === "next" ? caution : undefined}
    >
      <Button
        look="act"
        size="large"
        onClick={() => turnTo(target.id, gate.brought, standUsedFor(ground, events, target.id))}
      >
        {words.act}
      </Button>
    </NextBar>
  );
}
