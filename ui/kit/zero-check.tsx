"use client";

import { useState } from "react";
import { ZERO_READINGS, type ZeroJudgement } from "@/core/kit";
import { formatNumber, parseQuantity } from "@/core/units";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";
import { Mark } from "../primitives/marks";

type Props = {
  stand: { id: string; name: string } | null;
  onClose: () => void;
  zero: (
    standId: string,
    readings: Record<string, number>,
  ) => Promise<{ ok: true; judged: ZeroJudgement } | { ok: false; message: string }>;
};

/** The morning's zero check, one reading after another, then the judgement. */
export function ZeroCheck({ stand, onClose, zero }: Props) {
  const [values, setValues] = useState<Record<string, number>>({});
  const [text, setText] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const [judged, setJudged] = useState<ZeroJudgement | null>(null);
  const next = ZERO_READINGS.find((r) => values[r.id] === undefined);
  const close = (): void => {
    setValues({});
    setText("");
    setProblem(null);
    setJudged(null);
    onClose();
  };
  const take = async (): Promise<void> => {
    if (!stand || !next) return;
    const signed = next.id === "dot";
    const parsed = parseQuantity(
      text,
      { name: next.name, dimension: "length", min: signed ? -300 : 100, max: signed ? 300 : 4000 },
      "mm",
    );
    if (!parsed.ok) return setProblem(parsed.problem);
    const all = { ...values, [next.id]: parsed.value };
    setValues(all);
    setText("");
    setProblem(null);
    if (Object.keys(all).length < ZERO_READINGS.length) return;
    const answer = await zero(stand.id, all).catch(() => ({
      ok: false as const,
      message: "The shop does not answer. Press Take again when it is back.",
    }));
    if (answer.ok) return setJudged(answer.judged);
    setValues(values);
    setText(text);
    setProblem(answer.message);
  };
  const done = Object.keys(values).length;
  return (
    <Dialog open={stand !== null} onClose={close} title={stand ? `Zero check, ${stand.id}` : ""}>
      {judged ? (
        <>
          <p
            className={`mb-3 flex items-center gap-3 text-2xl font-semibold ${judged.ok ? "text-settled" : "text-stop"}`}
          >
            <Mark state={judged.ok ? "settled" : "stop"} size={22} />{" "}
            {judged.ok
              ? "The stand is as it was written down."
              : "Do not use it before it is put right."}
          </p>
          <table className="w-full text-lg">
            <tbody>
              {judged.lines.map((l) => (
                <tr key={l.name} className="border-b border-dashed border-hairline">
                  <td className="py-1.5 pr-2">
                    <Mark state={l.ok ? "settled" : "stop"} size={12} />
                  </td>
                  <td className="w-full">{l.name}</td>
                  <td className="figure text-right font-semibold">{formatNumber(l.off, 1)} mm</td>
                  <td className="figure pl-3 text-right text-sm text-soft">
                    ± {formatNumber(l.allowed)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <Button look="act" size="large" className="mt-5 w-full" onClick={close}>
            Done
          </Button>
        </>
      ) : (
        <form
          className="flex flex-col gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            void take();
          }}
        >
          <p className="text-base text-soft">
            Reading {Math.min(done + 1, ZERO_READINGS.length)} of {ZERO_READINGS.length}
          </p>
          <p className="text-2xl font-semibold leading-tight">{next?.say}</p>
          <label className="flex items-baseline border-b-4 border-act px-2">
            <span className="sr-only">{next?.name}</span>
            <input
              autoFocus
              value={text}
              inputMode="decimal"
              autoComplete="off"
              placeholder="–"
              onChange={(e) => {
                setText(e.target.value);
                setProblem(null);
              }}
              className="figure min-h-16 w-full bg-transparent text-5xl font-semibold outline-none placeholder:text-chalk"
            />
            <span className="text-2xl text-soft">mm</span>
          </label>
          <p role="alert" className="min-h-6 text-base text-stop">
            {problem}
          </p>
          <Button type="submit" look="act" size="large" disabled={text.trim() === ""}>
            Take
          </Button>
        </form>
      )}
    </Dialog>
  );
}
