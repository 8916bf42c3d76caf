"use client";

import { useEffect, useState } from "react";
import { readingSigma, typedFigure, type Judged } from "@/core/setout";
import { formatNumber } from "@/core/units";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";

/** One look, and up to which line of the log what was done at the stand is in it. */
type Frame = { n: number; upTo: number; values: Record<string, number>; lost: string[] };

/** Looks that are averaged, and how many of them each wheel must be seen in. */
const WINDOW = 20;
const ENOUGH = 12;

/** The rig's live figures, averaged; they are taken all at once when they stand still. */
export function RigPanel({ judged, onTaken }: { judged: Judged; onTaken: () => void }) {
  const { head, write, ground, target, events } = useJob();
  const of = new URLSearchParams({
    calibration: ground.calibrationId,
    target: target?.id ?? "",
  }).toString();
  const [all, setFrames] = useState<Frame[]>([]);
  // Looks from before the last move say where the stand was: a line may still be on its way.
  const known = events.at(-1)?.seq ?? 0;
  const frames = all.filter((f) => f.upTo >= known);
  const [cut, setCut] = useState(false);
  useEffect(() => {
    const source = new EventSource(`/api/jobs/${head.id}/rig?${of}`);
    source.onmessage = (e) => {
      setCut(false);
      setFrames((f) => [...f, JSON.parse(String(e.data)) as Frame].slice(-WINDOW));
    };
    source.onerror = () => setCut(true);
    return () => source.close();
  }, [head.id, of]);

  const slots = judged.solution.slots.filter((s) => s.instrument === "rig");
  const rig = judged.solution.plan.instruments.find((i) => i.kind === "rig");
  const seen = slots.map((slot) => {
    const values = frames.flatMap((f) => f.values[slot.id] ?? []);
    const mean = values.reduce((a, b) => a + b, 0) / Math.max(1, values.length);
    const spread = Math.sqrt(
      values.reduce((a, v) => a + (v - mean) ** 2, 0) / Math.max(1, values.length - 1),
    );
    return { slot, mean, spread, count: values.length };
  });
  const fewest = Math.min(...seen.map((s) => s.count), WINDOW);
  const steady = fewest >= ENOUGH && rig !== undefined;
  const lost = frames.at(-1)?.lost ?? [];
  const take = (): void => {
    write(
      ...seen.map(({ slot, mean }) => {
        const shown = Math.round(mean * 100) / 100;
        const typed = typedFigure(
          slot,
          `${Math.abs(shown).toFixed(2)} mm`,
          slot.sides ? (shown < 0 ? -1 : 1) : 0,
        );
        const sigma = readingSigma(rig!, slot, mean);
        return {
          kind: "reading" as const,
          slotId: slot.id,
          typed,
          shown,
          sigma,
          instrumentId: rig!.id,
        };
      }),
    );
    setFrames([]);
    onTaken();
  };
  return (
    <div className="flex w-full flex-col gap-2 md:w-[430px]">
      <div aria-live="off" className="grid grid-cols-4 gap-x-3 text-right">
        {seen.map(({ slot, mean, spread, count }) => (
          <span key={slot.id} title={slot.name} className="leading-tight">
            <span className="block text-xs text-soft">{slot.short}</span>
            <span
              className={`figure block text-base font-semibold ${count < ENOUGH ? "text-soft" : ""}`}
            >
              {count > 0 ? formatNumber(mean, 1) : "–"}
            </span>
            <span className="figure block text-xs text-soft">
              {count > 1 ? `± ${formatNumber(spread / Math.sqrt(count), 1)}` : " "}
            </span>
          </span>
        ))}
      </div>
      <div className="flex items-center gap-3">
        <p
          className={`flex-1 text-sm ${lost.length > 0 || cut ? "font-semibold text-loose" : "text-soft"}`}
        >
          {cut
            ? "The rig’s stream is cut; it is tried again."
            : lost.length > 0
              ? `No target seen at the ${lost.join(", ")} wheel: clear its view.`
              : steady
                ? `${fewest} looks at every wheel.`
                : "Looking …"}
        </p>
        <Button look="act" size="large" disabled={!steady} onClick={take}>
          Take them
        </Button>
      </div>
    </div>
  );
}
