"use client";

import { useMemo, type ReactNode } from "react";
import { eventsOf, type JobEvent, type TabletEvent } from "@/core/job";
import { findSwap, type Judged, type Swap } from "@/core/setout";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { Button } from "../primitives/button";

/** Left and right typed the wrong way round, where that explains what is suspect; else the act itself. */
export function SwapBar({
  judged,
  onRead,
  children,
}: {
  judged: Judged;
  onRead: () => void;
  children: ReactNode;
}) {
  const { own, write } = useJob();
  const swap = useMemo(() => findSwap(judged.solution), [judged.solution]);
  if (!swap) return children;
  return (
    <NextBar
      tone="loose"
      say="Left and right look swapped."
      detail={`As typed, ${swap.names.join(" and ")} contradict the rest; exchanged they agree.`}
    >
      <Button look="quiet" size="large" onClick={onRead}>
        Read instead
      </Button>
      <Button look="act" size="large" onClick={() => write(...exchanged(swap, own))}>
        Exchange them
      </Button>
    </NextBar>
  );
}

/** Both readings struck with the reason, and written again with their figures exchanged. */
function exchanged(swap: Swap, events: readonly JobEvent[]): TabletEvent[] {
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
