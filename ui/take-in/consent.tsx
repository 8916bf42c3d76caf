"use client";

import SignaturePad from "signature_pad";
import { useEffect, useEffectEvent, useRef, useState } from "react";
import { CONSENT_WORDS, lastOf } from "@/core/job";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { Field } from "../primitives/field";
import { useTimes } from "../settings";

type Stroke = [number, number][];
/** The field's height in thousandths of its width. */
const HEIGHT = 300;
/** As many strokes and points as a signature has; a scribble beyond them is cut off. */
const MOST = { strokes: 60, points: 600 };

const pathOf = (strokes: readonly Stroke[]): string =>
  strokes
    .map(
      (s) =>
        s.map(([x, y], i) => `${i === 0 ? "M" : "L"}${x} ${y}`).join("") +
        (s.length === 1 ? "l1 0" : ""),
    )
    .join("");

/** The field a finger or a pen writes on; strokes are in thousandths of its width. */
function Pad({ empty, onStrokes }: { empty: boolean; onStrokes: (strokes: Stroke[]) => void }) {
  const field = useRef<HTMLCanvasElement>(null);
  const pad = useRef<SignaturePad | null>(null);
  const tell = useEffectEvent(onStrokes);
  useEffect(() => {
    const canvas = field.current!;
    const width = canvas.clientWidth;
    // A sharp screen has more dots than the page has pixels.
    const ratio = Math.max(1, window.devicePixelRatio);
    canvas.width = width * ratio;
    canvas.height = ((width * HEIGHT) / 1000) * ratio;
    canvas.getContext("2d")!.scale(ratio, ratio);
    const own = new SignaturePad(canvas, {
      penColor: getComputedStyle(canvas).color,
      throttle: 0,
      minDistance: 2,
    });
    const at = (v: number, most: number): number =>
      Math.round(Math.min(most, Math.max(0, (v / width) * 1000)));
    own.addEventListener("endStroke", () =>
      tell(
        own
          .toData()
          .slice(0, MOST.strokes)
          .map(({ points }) =>
            points
              .slice(0, MOST.points)
              .map(({ x, y }): [number, number] => [at(x, 1000), at(y, HEIGHT)]),
          ),
      ),
    );
    pad.current = own;
    return () => own.off();
  }, []);
  useEffect(() => {
    if (empty) pad.current?.clear();
  }, [empty]);
  return (
    <div className="relative max-w-[640px] border-b-2 border-ink bg-wash">
      <canvas
        ref={field}
        role="img"
        aria-label={empty ? "Field for the signature" : "Signature"}
        className="block aspect-[1000/300] w-full touch-none text-ink"
      />
      {empty && (
        <span className="pointer-events-none absolute bottom-4 left-5 text-xl text-soft">
          sign here with a finger or a pen
        </span>
      )}
    </div>
  );
}

/** The customer's consent to a drive on the road, signed with a finger or a pen. */
export function Consent() {
  const { dateAndTime } = useTimes();
  const { ground, events, write, me } = useJob();
  const signed = lastOf(events, "consent");
  const [again, setAgain] = useState(false);
  const [name, setName] = useState(ground.intake.customer);
  const [strokes, setStrokes] = useState<Stroke[]>([]);
  const enough = name.trim().length >= 2 && strokes.some((s) => s.length > 2);
  const writes = me.role !== "viewer" && (!signed || again);
  return (
    <section aria-label="Consent to drive" className="mt-6 border-t-2 border-ink pt-4">
      <h2 className="text-2xl font-semibold">Consent to drive</h2>
      <p className="mb-3 max-w-[62ch] text-lg">{CONSENT_WORDS}</p>
      {writes ? (
        <Pad empty={strokes.length === 0} onStrokes={setStrokes} />
      ) : signed ? (
        <svg
          viewBox={`0 0 1000 ${HEIGHT}`}
          role="img"
          aria-label="Signature"
          className="w-full max-w-[640px] border-b-2 border-ink bg-wash"
        >
          <path
            d={pathOf(signed.body.strokes)}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={5}
            strokeLinecap="round"
            strokeLinejoin="round"
          />
        </svg>
      ) : (
        <p className="text-lg text-soft">Not signed.</p>
      )}
      {signed && !again ? (
        <div className="mt-2 flex flex-wrap items-center gap-4">
          <p className="text-lg">
            {signed.body.name}, {dateAndTime(signed.at)}, before {signed.by.name}
          </p>
          {me.role !== "viewer" && (
            <Button look="quiet" onClick={() => setAgain(true)}>
              Sign again
            </Button>
          )}
        </div>
      ) : (
        me.role !== "viewer" && (
          <div className="mt-2 flex max-w-[640px] flex-wrap items-end gap-2">
            <Field
              label="Name of the one who signs"
              value={name}
              maxLength={120}
              className="min-w-52 flex-1"
              onChange={(e) => setName(e.target.value)}
            />
            <Button
              look="quiet"
              size="large"
              disabled={strokes.length === 0}
              onClick={() => setStrokes([])}
            >
              Wipe
            </Button>
            <Button
              look="act"
              size="large"
              disabled={!enough}
              onClick={() => {
                write({ kind: "consent", name: name.trim(), words: CONSENT_WORDS, strokes });
                setStrokes([]);
                setAgain(false);
              }}
            >
              Keep the signature
            </Button>
          </div>
        )
      )}
    </section>
  );
}
