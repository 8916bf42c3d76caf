"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Bay } from "@/core/space/bay";
import { formatNumber } from "@/core/units";
import { Button, ButtonLink } from "../primitives/button";
import { FileButton } from "../primitives/file-button";
import { SaidLine, type Said } from "../primitives/said-line";
import { BayDrawing } from "./bay-drawing";
import { QuickBay } from "./quick-bay";

const SILENT = "The shop does not answer. The file was not taken; try again when it is back.";

/** The shop's bays, each drawn to its own scale with what stands in it. */
export function BaysPage({ bays, lead, writes }: { bays: Bay[]; lead: boolean; writes: boolean }) {
  const router = useRouter();
  const [said, setSaid] = useState<Said | null>(null);
  /** A bay that was asked to be taken out; it is asked twice. */
  const [leaving, setLeaving] = useState<string | null>(null);
  const take = async (text: string): Promise<void> => {
    const answer = await fetch("/api/bays", {
      method: "POST",
      headers: { "content-type": "application/octet-stream" },
      body: text,
    }).catch(() => null);
    if (!answer) return setSaid({ ok: false, words: SILENT });
    const { bays: n, error } = (await answer.json()) as { bays?: number; error?: string };
    setSaid(
      answer.ok
        ? { ok: true, words: `${n} bays taken. Where a vehicle fits is worked out in them.` }
        : { ok: false, words: error ?? SILENT },
    );
    if (answer.ok) router.refresh();
  };
  const drop = async ({ id, name }: Bay): Promise<void> => {
    const answer = await fetch(`/api/bays/quick?id=${encodeURIComponent(id)}`, {
      method: "DELETE",
    }).catch(() => null);
    setSaid(
      answer?.ok
        ? { ok: true, words: `${name} is taken out.` }
        : { ok: false, words: "The shop does not answer. Nothing was changed." },
    );
    if (answer?.ok) router.refresh();
  };
  return (
    <main className="mx-auto w-full max-w-[1240px] flex-1 px-3 py-4 lg:px-6">
      <header className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <h1 className="mr-auto text-4xl font-semibold">Bays</h1>
        <a
          href="/api/bays?file"
          download
          className="inline-flex min-h-12 items-center px-3 text-base font-semibold"
        >
          Export
        </a>
        {writes && (
          <QuickBay
            onKept={(name) => {
              setSaid({ ok: true, words: `${name} is kept.` });
              router.refresh();
            }}
          />
        )}
        {lead && <FileButton noun="bays" onText={(text) => void take(text)} />}
      </header>
      <SaidLine said={said} />
      {bays.length === 0 ? (
        <p className="py-16 text-center text-xl text-soft">
          No bays yet: whether a job fits cannot be said.{" "}
          {lead ? "Export shows the form of the file." : "The lead takes in a file of them."}
        </p>
      ) : (
        <div className="mt-3 grid gap-4 lg:grid-cols-2">
          {bays.map((b) => (
            <section key={b.id} aria-label={b.name} className="bg-sheet p-4">
              <div className="flex items-baseline border-b-2 border-ink pb-1">
                <h2 className="mr-auto text-2xl font-semibold">{b.name}</h2>
                <ButtonLink look="quiet" href={`/bays/${b.id}`}>
                  {writes ? "Draw and survey" : "Look closer"}
                </ButtonLink>
                {lead && (
                  <Button
                    look={leaving === b.id ? "stop" : "faint"}
                    onClick={() => (leaving === b.id ? void drop(b) : setLeaving(b.id))}
                    onBlur={() => setLeaving(null)}
                  >
                    {leaving === b.id ? "Yes, take it out" : "Take out"}
                  </Button>
                )}
              </div>
              <BayDrawing bay={b} label={`${b.name} from above`} />
              <p className="text-base text-soft">
                {b.obstacles.length === 0
                  ? "Nothing stands in it."
                  : b.obstacles
                      .map(
                        (o) =>
                          `${o.name}${o.fromMm > 0 ? ` from ${formatNumber(o.fromMm / 1000, 1)} m up` : ""}`,
                      )
                      .join(", ")}
              </p>
            </section>
          ))}
        </div>
      )}
    </main>
  );
}
