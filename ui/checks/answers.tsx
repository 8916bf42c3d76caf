"use client";

import { useState, type ReactNode } from "react";
import type { TabletEvent } from "@/core/job";
import { useJob } from "../bench/job-store";
import { ReasonDialog } from "../owed/reason-dialog";
import { Button } from "../primitives/button";
import type { Outcome } from "./check-frame";

type Props = {
  stage: "ready" | "prove";
  itemId: string;
  ask: string;
  /** What is written before the answer: figures that were read for it. */
  also?: TabletEvent[];
  onAnswered: () => void;
  children?: ReactNode;
};

/**
 * Accept as it is, or stop the job, each with its reason; the children are the answers that need
 * none.
 */
export function Answers({ stage, itemId, ask, also = [], onAnswered, children }: Props) {
  const { write } = useJob();
  const [asking, setAsking] = useState<"accepted" | "blocks" | null>(null);
  return (
    <>
      <Button look="quiet" size="large" onClick={() => setAsking("blocks")}>
        Blocks
      </Button>
      <Button look="quiet" size="large" onClick={() => setAsking("accepted")}>
        Accept as it is
      </Button>
      {children}
      <ReasonDialog
        open={asking !== null}
        title={asking === "blocks" ? "This stops the job" : "Accept as it is"}
        note={ask}
        label={
          asking === "blocks"
            ? "What stands in the way"
            : "Why it may stay so; this goes on the report"
        }
        action={asking === "blocks" ? "Stop the job" : "Accept with this reason"}
        onClose={() => setAsking(null)}
        onReason={(reason) => {
          write(...also, { kind: "check", stage, itemId, outcome: asking as Outcome, reason });
          setAsking(null);
          onAnswered();
        }}
      />
    </>
  );
}

/** The answer that needs no reason. */
export function FineAnswer({
  stage,
  itemId,
  disabled = false,
  onAnswered,
}: Pick<Props, "stage" | "itemId" | "onAnswered"> & { disabled?: boolean }) {
  const { write } = useJob();
  return (
    <Button
      look="act"
      size="large"
      className="min-w-32"
      disabled={disabled}
      onClick={() => {
        write({ kind: "check", stage, itemId, outcome: "fine", reason: null });
        onAnswered();
      }}
    >
      Fine
    </Button>
  );
}
