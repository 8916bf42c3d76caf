"use client";

import { useEffect, useRef, useState } from "react";
import type { Candidate } from "@/core/setout";
import {
  agree,
  decideByThird,
  pairOf,
  plainFigure,
  readCaught,
  readPair,
  sideKeys,
  slotUnit,
  slotValue,
  typedFigure,
} from "@/core/setout";
import type { Meaning } from "@/core/units";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { useSettings } from "../settings";
import { draftPlace, useBurst, useDraft } from "./use-catcher";

/** The reading catcher: a value typed, scanned or sent by an instrument lands in the armed slot. */
export function Catcher({
  candidate,
  again,
  decides,
  onTaken,
}: {
  candidate: Candidate;
  again: string | null;
  /** The two readings of this slot that disagree: this one decides which of them stands. */
  decides?: [string, string] | undefined;
  onTaken: () => void;
}) {
  const { head, ground, target, judged, events, write, say, me } = useJob();
  const { lengths } = useSettings();
  const { slot, instrument } = candidate;
  const others = ground.instruments.filter(
    (i) =>
      i.kind === instrument.kind &&
      i.id !== instrument.id &&
      // What was read on one vial cannot be told in the divisions of another.
      i.divisionRad === instrument.divisionRad,
  );
  const [text, setText] = useDraft(draftPlace(head.id, target), slot.id);
  const [side, setSide] = useState<1 | -1 | 0>(0);
  const [tried, setTried] = useState(false);
  const [reading, setReading] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const burst = useBurst();
  const caught = readCaught(text, slot, side, lengths);
  // A reading that decides between others is taken alone.
  const pair =
    judged && !again && !decides && pairOf(judged.solution, judged.candidates, candidate);
  const both = pair && readPair(text, [pair[0].slot, pair[1].slot], lengths);
  const signed = slot.sides !== undefined;
  const keys = sideKeys(slot);

  useEffect(() => {
    // A finger tablet would raise its keyboard over the drawing; only a fine pointer or a keyboard
    // gets the focus.
    if (window.matchMedia("(pointer: fine)").matches) input.current?.focus();
  }, [slot.id]);

  const take = (shown: number, typed: string, meant?: string): void => {
    const readingOf = (id: string) => judged?.solution.readings.find((r) => r.id === id);
    const [one, two] = (decides ?? []).map(readingOf);
    if (one && two)
      for (const { strike, stands } of decideByThird([one, two], shown, candidate.sigma))
        write({
          kind: "strike",
          target: strike,
          reason: stands
            ? `Read a third time: ${slotValue(slot, shown)} agrees and stands in its place`
            : `Read a third time: ${slotValue(slot, shown)} contradicts it`,
        });
    const old = again && readingOf(again);
    if (old) {
      // Beyond what both can be right in, the old one yields.
      if (agree(old.shown, old.sigma, shown, candidate.sigma))
        say(`${slot.name} reads the same again: it stands. Another reading is at fault.`);
      else
        write({
          kind: "strike",
          target: old.id,
          reason: `Read again: ${slotValue(slot, shown)} instead of ${slotValue(slot, old.shown)}`,
        });
    }
    const told = {
      slotId: slot.id,
      typed,
      lengths,
      instrumentId: instrument.id,
      ...(meant && { meant }),
    };
    write({
      kind: "reading",
      ...told,
      shown,
      sigma: candidate.sigma,
      ...(candidate.anew ? { anew: true } : {}),
    });
    setText("");
    setSide(0);
    setTried(false);
    onTaken();
  };

  const takeBoth = (): void => {
    if (!pair || !both) return;
    write(
      ...pair.map((c, i) => ({
        kind: "reading" as const,
        slotId: c.slot.id,
        typed: both.typed[i]!,
        lengths,
        instrumentId: c.instrument.id,
        shown: both.values[i]!,
        sigma: c.sigma,
      })),
    );
    setText("");
    setTried(false);
    onTaken();
  };

  const submit = (): void => {
    const scanned = burst.isCode(text);
    burst.clear();
    if (scanned) {
      const code = text.trim();
      const asked = target?.object.code ?? "";
      const right = code.toUpperCase() === asked.toUpperCase();
      const noun = target?.kind ?? "board";
      say(
        right
          ? `Code ${code}: this is the ${noun} the sheet asks for.`
          : `Code ${code} was scanned, not measured. The sheet asks for ${noun} ${asked}.`,
      );
      setText("");
      return;
    }
    setTried(true);
    if (both) return takeBoth();
    if (caught.kind === "value") take(caught.shown, typedFigure(slot, text.trim(), side));
  };

  /** What was typed stays as it is; the chosen meaning stands beside it, on the pressed side. */
  const takeMeant = (m: Meaning): void => {
    const side = slot.sides ? (m.value < 0 ? -1 : 1) : 0;
    take(m.value, text.trim(), typedFigure(slot, m.text, side));
  };

  const hold = async (): Promise<void> => {
    setReading(true);
    try {
      const asked = new URLSearchParams({
        slot: slot.id,
        calibration: ground.calibrationId,
        target: target?.id ?? "",
        // A move may still be on its way to the shop: what is read comes after it.
        upTo: String(events.at(-1)?.seq ?? 0),
        ...(candidate.anew ? { anew: "" } : {}),
      });
      const response = await fetch(`/api/jobs/${head.id}/bay?${asked}`, { cache: "no-store" });
      const body = (await response.json()) as { shown?: number; error?: string };
      if (body.shown === undefined)
        return say(body.error ?? "The instrument does not answer. Read it by eye and type it.");
      const size = Math.abs(body.shown);
      setText(plainFigure(slot, size, lengths));
      setSide(signed ? (body.shown >= 0 ? 1 : -1) : 0);
      input.current?.focus();
    } catch {
      say("The instrument does not answer. Read it by eye and type it.");
    } finally {
      setReading(false);
    }
  };

  if (me.role === "viewer")
    return <p className="text-soft">You may look; a technician takes the reading.</p>;
  return (
    <form
      className="flex w-full flex-col gap-2 md:w-[430px]"
      onSubmit={(e) => {
        e.preventDefault();
        submit();
      }}
    >
      <div className="flex items-stretch gap-2">
        <label className="flex min-w-0 flex-1 items-baseline border-b-4 border-act px-2">
          <span className="sr-only">Reading: {slot.name}</span>
          <input
            ref={input}
            data-catcher=""
            value={text}
            inputMode="decimal"
            autoComplete="off"
            spellCheck={false}
            placeholder="–"
            aria-invalid={tried && !both && caught.kind === "problem"}
            onKeyDown={(e) => e.key.length === 1 && burst.note()}
            onChange={(e) => {
              if (e.target.value === "") burst.clear();
              setTried(false);
              setText(e.target.value);
            }}
            className={`figure min-h-16 w-full min-w-0 bg-transparent font-semibold outline-none placeholder:text-chalk ${text.length > 7 ? "text-3xl md:text-4xl" : "text-5xl md:text-[56px]"}`}
          />
          <span className="pl-1 text-2xl text-soft">{slotUnit(slot, lengths)}</span>
        </label>
        {signed &&
          ([1, -1] as const).map((s) => (
            <button
              key={s}
              type="button"
              aria-pressed={side === s}
              aria-label={s > 0 ? slot.sides!.positive : slot.sides!.negative}
              onClick={() => setSide(s)}
              className={`min-h-16 min-w-14 rounded-md border-2 text-2xl font-semibold ${side === s ? "border-act bg-act text-on-act" : "border-ink"}`}
            >
              {keys[s > 0 ? 0 : 1]}
            </button>
          ))}
        <Button type="submit" look="act" size="large" disabled={caught.kind === "empty"}>
          Take
        </Button>
      </div>
      {both ? (
        <p className="text-base text-soft">
          = {slotValue(pair[0].slot, both.values[0], lengths)} left,{" "}
          {slotValue(pair[1].slot, both.values[1], lengths)} right
        </p>
      ) : (
        pair && <p className="text-base text-soft">Or both sides in one: left, then right.</p>
      )}
      {keys[0] === "+" && signed && (
        <p className="text-sm text-soft">
          + {slot.sides!.positive}, − {slot.sides!.negative}
        </p>
      )}
      {caught.kind === "value" && /[,'"½¼¾⅛⅜⅝⅞a-z]/i.test(text.replace(/[lr]\s*$/i, "")) && (
        <p className="text-base text-soft">= {slotValue(slot, caught.shown, lengths)}</p>
      )}
      {tried && !both && caught.kind === "problem" ? (
        <p role="alert" className="text-base text-stop">
          {caught.message}{" "}
          {(caught.either ?? (caught.guess ? [caught.guess] : [])).map((m) => (
            <button
              key={m.text}
              type="button"
              className="mr-4 min-h-12 font-semibold text-act underline"
              onClick={() => takeMeant(m)}
            >
              Take it as {m.text}: {slotValue(slot, m.value, lengths)}
            </button>
          ))}
        </p>
      ) : (
        head.simulated && (
          <button
            type="button"
            onClick={() => void hold()}
            disabled={reading}
            className="min-h-12 self-start rounded-md px-2 text-base font-semibold text-act underline decoration-dotted underline-offset-4 hover:bg-wash"
          >
            {reading ? "Reading…" : `Hold ${instrument.name} (simulated)`}
          </button>
        )
      )}
      {others.length > 0 && (
        <p className="flex flex-wrap items-center gap-x-3 text-base text-soft">
          In hand: {instrument.name}
          {others.map((i) => (
            <button
              key={i.id}
              type="button"
              onClick={() => write({ kind: "instrument", instrumentId: i.id })}
              className="min-h-12 font-semibold text-act underline underline-offset-4"
            >
              Take {i.name}
            </button>
          ))}
        </p>
      )}
    </form>
  );
}
