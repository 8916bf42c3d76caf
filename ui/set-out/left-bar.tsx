"use client";

import { useMemo, useState } from "react";
import { judgeTarget, type EventOf } from "@/core/job";
import { readingsToSet } from "@/core/setout";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { Button } from "../primitives/button";

type Left = Pick<EventOf<"kept">["body"], "from" | "standing">;

const minutes = (ms: number): string => {
  const all = Math.max(1, Math.round(ms / 60_000));
  return all < 60 ? `${all} min` : `${Math.floor(all / 60)} h ${all % 60} min`;
};

/**
 * The stand is still before this car as it was proved for the last one: asked before anything is read,
 * with the few readings that are left to take where nobody touched it.
 */
export function LeftBar({ left, onFresh }: { left: Left; onFresh: () => void }) {
  const { ground, events, target, write, me } = useJob();
  const { from } = left;
  const [ago] = useState(() => Date.now() - Date.parse(from.at));
  const few = useMemo(() => {
    if (!target) return null;
    const { calibrationId } = ground;
    const last = events.at(-1);
    const body = { kind: "kept" as const, ...left, calibrationId, targetId: target.id };
    const line = {
      id: "as left",
      seq: (last?.seq ?? 0) + 1,
      at: new Date().toISOString(),
      by: me,
      body,
    };
    return readingsToSet(judgeTarget(ground, [...events, line], target.id));
  }, [ground, events, target, left, me]);
  const names = [...new Set(few?.slots.map((s) => s.short))].join(", ");
  const rest = few
    ? ` Left to read: ${names} (${few.slots.length} readings, about ${minutes(few.seconds * 1000)}).`
    : "";
  return (
    <NextBar
      tone="act"
      say={`Has anybody touched this stand since ${from.called}, ${minutes(ago)} ago?`}
      detail={`Same model, same board. If nobody did, and the car stands on the same marks, height and level still hold.${rest}`}
    >
      <Button look="quiet" size="large" onClick={onFresh}>
        Set out anew
      </Button>
      <Button look="act" size="large" onClick={() => write({ kind: "kept", ...left })}>
        Nobody touched it
      </Button>
    </NextBar>
  );
}
