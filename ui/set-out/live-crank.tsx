"use client";

import { useEffect, useState } from "react";
import {
  instrumentFor,
  readingSigma,
  type Judged,
  type Move,
  type Slot,
  type Watched,
} from "@/core/setout";
import { formatLength, formatNumber } from "@/core/units";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { useSettings } from "../settings";

/** So many looks that lie within so many millimetres of each other: the figure stands still. */
const STILL = { looks: 5, mm: 0.8 } as const;
/** An instrument that was silent for so long shows nothing of now, ms. */
const SILENT_MS = 3000;
/** Nearer than this nobody turns a crank, mm. */
const THERE_MM = 1;

/**
 * The figure runs while the crank is turned: how far to go, and which way. Where it stands still is
 * the end of the move and the reading that checks it, in one touch.
 */
export function LiveCrank({
  judged,
  move,
  slot,
  onRead,
}: {
  judged: Judged;
  move: Move & { kind: "crank"; until: Watched };
  slot: Slot;
  onRead: () => void;
}) {
  const { head, write, ground, target } = useJob();
  const { lengths } = useSettings();
  const [looks, setLooks] = useState<number[]>([]);
  const [cut, setCut] = useState(false);
  const { slotId, shown: wanted } = move.until;
  const asked = new URLSearchParams({
    calibration: ground.calibrationId,
    target: target?.id ?? "",
    slot: slotId,
    to: String(wanted),
  }).toString();
  // A figure from before the instrument fell silent is none of now.
  useEffect(() => {
    const timer = setTimeout(() => {
      setLooks([]);
      setCut(true);
    }, SILENT_MS);
    return () => clearTimeout(timer);
  }, [looks]);
  useEffect(() => {
    const source = new EventSource(`/api/jobs/${head.id}/figure?${asked}`);
    source.onmessage = (e) => {
      setCut(false);
      const { shown } = JSON.parse(String(e.data)) as { shown: number };
      setLooks((l) => [...l, shown].slice(-STILL.looks));
    };
    source.onerror = () => setCut(true);
    return () => source.close();
  }, [head.id, asked]);

  const instrument = instrumentFor(judged.solution, slot)!;
  const now = looks.at(-1);
  const still = looks.length >= STILL.looks && Math.max(...looks) - Math.min(...looks) <= STILL.mm;
  const toGo = now === undefined ? null : wanted - now;
  const end = (): void => {
    const mean = looks.reduce((a, b) => a + b, 0) / looks.length;
    const ended = Math.round(mean * 10) / 10;
    write(
      { kind: "move", move: { ...move, until: { slotId, shown: wanted, ended } }, rest: [] },
      {
        kind: "reading",
        slotId,
        typed: `${ended.toFixed(1)} mm`,
        shown: ended,
        sigma: readingSigma(instrument, slot, ended),
        instrumentId: instrument.id,
      },
    );
  };
  /** Where nothing posts, the scale itself is looked at, as with any other. */
  const byEye = (): void => write({ kind: "move", move, rest: [] });
  const there = toGo !== null && Math.abs(toGo) <= THERE_MM;
  const say = cut
    ? `${instrument.name} does not post: look at the scale itself.`
    : now === undefined
      ? `Waiting for ${instrument.name}.`
      : `shows ${formatNumber(now, 1)}, to ${formatLength(wanted, "mm")}`;
  return (
    <div className="flex w-full flex-wrap items-center gap-x-5 gap-y-2 md:w-auto">
      <div aria-label="Live figure" className="leading-none md:min-w-60 md:text-right">
        <p
          className={`figure text-5xl font-semibold tracking-tighter ${there ? "text-settled" : ""}`}
        >
          {toGo === null
            ? "–"
            : there
              ? "There"
              : `${formatLength(Math.abs(toGo), lengths)} ${toGo > 0 ? "up" : "down"}`}
        </p>
        <p
          aria-live="off"
          className={`mt-2 text-lg ${cut ? "font-semibold text-loose" : "text-soft"}`}
        >
          {say}
        </p>
      </div>
      <div className="flex w-full gap-1 md:w-44 md:flex-col">
        {cut ? (
          <Button look="act" size="large" className="flex-1" onClick={byEye}>
            Done by eye
          </Button>
        ) : (
          <Button look="act" size="large" className="flex-1" disabled={!still} onClick={end}>
            Done
          </Button>
        )}
        <Button look="quiet" onClick={onRead}>
          Read instead
        </Button>
      </div>
    </div>
  );
}
