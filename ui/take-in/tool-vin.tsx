"use client";

import { Plug } from "lucide-react";
import { useState } from "react";

type Answer = { ok: true; vin: string } | { ok: false; message: string };

/** The VIN from a scan tool that is plugged in before anything is written down. */
export function ToolVin({
  ask,
  typed,
  onVin,
}: {
  ask: (asked: number) => Promise<Answer>;
  /** The VIN that stands in the field, where it is a whole one. */
  typed: string | null;
  /** Takes it over; the words of a problem, or null. */
  onVin: (vin: string) => string | null;
}) {
  const [asked, setAsked] = useState(0);
  const [asking, setAsking] = useState(false);
  const [message, setMessage] = useState<string | null>(null);
  const go = async (): Promise<void> => {
    setAsking(true);
    setMessage(null);
    const answer = await ask(asked).catch((): Answer => ({
      ok: false,
      message: "The shop does not answer. Ask again when it is back.",
    }));
    setAsked(asked + 1);
    setAsking(false);
    if (!answer.ok) setMessage(answer.message);
    else if (typed !== null && typed !== answer.vin)
      setMessage(
        `The tool is plugged into another car: it says ${answer.vin}. Empty the field to take that one, or plug the tool into this car.`,
      );
    else setMessage(onVin(answer.vin));
  };
  return (
    <>
      <button
        type="button"
        disabled={asking}
        onClick={() => void go()}
        className="inline-flex min-h-12 items-center gap-2 rounded-md px-2 text-base font-semibold text-act hover:bg-wash disabled:text-soft"
      >
        <Plug size={20} aria-hidden />
        {asking ? "Asking the vehicle…" : "Ask the scan tool (simulated)"}
      </button>
      {message && (
        <p role="alert" className="w-full border-l-4 border-loose bg-sheet px-3 py-1.5 text-base">
          {message}
        </p>
      )}
    </>
  );
}
