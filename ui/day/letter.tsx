"use client";

import { useState } from "react";
import type { LetterBefore, Request } from "@/core/schedule/requests";
import { dayInWords, formatNumber } from "@/core/units";
import { WhenAwake } from "../primitives/awake";
import { Button } from "../primitives/button";

import { clockOf } from "@/core/units/minute";

const SILENT = "The shop does not answer. Nothing was written; try again when it is back.";

/** What is asked of a keeper, as one asks it. */
export function requestWords(r: Request): string {
  switch (r.kind) {
    case "fuel":
      return `Fill the tank to ${formatNumber(100 * r.minShare)} % at least: the vehicle has to stand as high as it does in use.`;
    case "load":
      return "Take out what does not belong to the vehicle: boxes, tools, roof boxes, bicycle racks.";
    case "printout":
      return "Bring the printout of the last wheel alignment.";
    case "trailer":
      return "Bring the trailer, with its own hitch and cable.";
    case "trim":
      return "If another shop has it now: leave the cover about the windshield camera off, so that its bracket can be seen.";
    case "papers":
      return `Have the vehicle’s papers at hand. We will ask: ${r.questions.join(" ")}`;
    case "room":
      return `Keep level floor free: ${formatNumber(r.aheadM, 1)} m ahead of the vehicle, ${formatNumber(r.behindM, 1)} m behind, ${formatNumber(r.sidesM, 1)} m at each side.`;
    case "network":
      return "We need a mobile network where the vehicle stands.";
  }
}

/** What is asked for before a vehicle comes, to be printed or read out; what is answered is written down. */
export function LetterPage({
  letter,
  by,
}: {
  letter: LetterBefore;
  /** Who reads it: somebody of the shop who may write, one who may not, or whoever has its link. */
  by: "shop" | "viewer" | "keeper";
}) {
  const { card, requests, day, shop } = letter;
  const [said, setSaid] = useState<Record<string, string>>(card.said);
  const [state, setState] = useState<{ ok: boolean; words: string } | null>(null);
  const keep = async (): Promise<void> => {
    const answer = await fetch(by === "keeper" ? "/api/before" : "/api/day/said", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ id: card.id.slice("booking:".length), said }),
    }).catch(() => null);
    if (!answer) return setState({ ok: false, words: SILENT });
    if (answer.ok)
      return setState({
        ok: true,
        words:
          by === "keeper"
            ? "Thank you. The shop has your answers."
            : "Written down as said; it is still to be seen.",
      });
    setState({ ok: false, words: ((await answer.json()) as { error?: string }).error ?? SILENT });
  };
  const answers = by !== "viewer" && card.kind === "booking";
  const link = async (): Promise<void> => {
    const address = `${window.location.origin}/before/${card.id.slice("booking:".length)}`;
    await navigator.clipboard?.writeText(address).catch(() => {});
    setState({ ok: true, words: address });
  };
  return (
    <main className="mx-auto max-w-[780px] bg-sheet p-8 print:p-0">
      <WhenAwake>
        <div className="no-print mb-6 flex justify-end gap-2">
          {answers && (
            <Button look="plain" onClick={() => void keep()}>
              {by === "keeper" ? "Send the answers" : "Keep the answers"}
            </Button>
          )}
          {by === "shop" && card.kind === "booking" && (
            <Button look="quiet" onClick={() => void link()}>
              Link for its keeper
            </Button>
          )}
          <Button look="act" onClick={() => window.print()}>
            Print
          </Button>
        </div>
        <p className="text-lg text-soft">{shop}</p>
        <h1 className="text-3xl font-semibold">Before your vehicle comes</h1>
        <p className="mt-2 text-lg">
          {card.customer}, {card.title}
          {card.plate ? `, ${card.plate}` : ""}.{" "}
          {card.place === "van" ? "We come" : "Please bring it"} on {dayInWords(day)} at{" "}
          {clockOf(card.arriveMin)}
          {card.promiseMin !== null ? `; it is done by ${clockOf(card.promiseMin)}` : ""}.
        </p>
        <p className="mt-2 text-lg">{card.done}.</p>
        {requests.length === 0 ? (
          <p className="mt-4 text-lg">There is nothing you have to do before.</p>
        ) : (
          <ol className="mt-4 flex flex-col gap-3">
            {requests.map((r) => (
              <li key={r.kind} className="break-inside-avoid border-t border-hairline pt-2">
                <p className="text-lg">{requestWords(r)}</p>
                {answers && (
                  <label className="no-print text-sm font-semibold text-soft">
                    {by === "keeper" ? "Your answer" : "What they said"}
                    <input
                      value={said[r.kind] ?? ""}
                      onChange={(e) => {
                        setSaid({ ...said, [r.kind]: e.target.value });
                        setState(null);
                      }}
                      className="min-h-12 w-full border-b-2 border-ink bg-transparent px-1 text-lg text-ink outline-none focus:border-act"
                    />
                  </label>
                )}
              </li>
            ))}
          </ol>
        )}
        {state && (
          <p
            role={state.ok ? "status" : "alert"}
            className={`no-print mt-4 text-lg ${state.ok ? "text-settled" : "text-stop"}`}
          >
            {state.words}
          </p>
        )}
        <p className="mt-6 text-base text-soft">
          After glass or body work the cameras of a vehicle are set anew. What its maker says now
          decides how; we see to every point again when it is here.
        </p>
      </WhenAwake>
    </main>
  );
}
