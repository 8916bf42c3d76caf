"use client";

import { useRef, useState, type PointerEvent } from "react";
import { CONSENT_WORDS, lastOf } from "@/core/job";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { Field } from "../primitives/field";
import { useTimes } from "../settings";

type Stroke = [number, number][];
/** The field's height in thousandths of its width. */
const HEIGHT = 300;

const pathOf = (strokes: readonly Stroke[]): string =>
  strokes
    .map(
      (s) =>
        s.map(([x, y], i) => `${i === 0 ? "M" : "L"}${x} ${y}`).join("") +
        (s.length === 1 ? "l1 0" : ""),
    )
    .join("");

/** The customer's consent to a drive on the road, signed with a finger or a pen. */
export function Consent() {
  const { dateAndTime } = useTimes();
  const { ground, events, write, me } = useJob();
  const signed = lastOf(events, "consent");
  const [again, setAgain] = useState(false);
  const [name, setName] = useState(ground.intake.customer);
  const [strokes, setStrokes] = useState<Stroke[]>([]);
  const field = useRef<SVGSVGElement>(null);

  const place = (e: PointerEvent): [number, number] => {
    const box = field.current!.getBoundingClientRect();
    const at = (v: number, max: number): number => Math.round(Math.min(max, Math.max(0, v)));
    return [
      at(((e.clientX - box.left) / box.width) * 1000, 1000),
      at(((e.clientY - box.top) / box.height) * HEIGHT, HEIGHT),
    ];
  };
  const begin = (e: PointerEvent): void => {
    field.current!.setPointerCapture(e.pointerId);
    const at = place(e);
    setStrokes((s) => (s.length < 60 ? [...s, [at]] : s));
  };
  const draw = (e: PointerEvent): void => {
    if (!field.current!.hasPointerCapture(e.pointerId)) return;
    const at = place(e);
    setStrokes((s) =>
      s.map((stroke, i) => (i === s.length - 1 && stroke.length < 600 ? [...stroke, at] : stroke)),
    );
  };
  const enough = name.trim().length >= 2 && strokes.some((s) => s.length > 2);
  const show = signed && !again ? signed.body.strokes : strokes;
  return (
    <section aria-label="Consent to drive" className="mt-6 border-t-2 border-ink pt-4">
      <h2 className="text-2xl font-semibold">Consent to drive</h2>
      <p className="mb-3 max-w-[62ch] text-lg">{CONSENT_WORDS}</p>
      <svg
        ref={field}
        viewBox={`0 0 1000 ${HEIGHT}`}
        role="img"
        aria-label={show.length > 0 ? "Signature" : "Field for the signature"}
        onPointerDown={signed && !again ? undefined : begin}
        onPointerMove={signed && !again ? undefined : draw}
        className="w-full max-w-[640px] touch-none border-b-2 border-ink bg-wash"
      >
        <path
          d={pathOf(show)}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={5}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
        {show.length === 0 && (
          <text x={30} y={HEIGHT - 34} fontSize={34} fill="var(--soft)">
            {me.role === "viewer" ? "not signed" : "sign here with a finger or a pen"}
          </text>
        )}
      </svg>
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
