"use client";

import { useRouter } from "next/navigation";
import { useState, useTransition } from "react";
import { Button, ButtonLink } from "../primitives/button";
import { Mark } from "../primitives/marks";

/** One thing a shop needs before it can calibrate, as the shop says it. */
type Step = {
  id: string;
  name: string;
  why: string;
  done: boolean;
  href: string;
  example: string | null;
};

/**
 * The way from an empty shop to its first job: what is there, what is missing and why, the next of
 * them with the one button that matters. Gone with the first job.
 */
export function FirstSteps({
  steps,
  lead,
  takeStarter,
}: {
  steps: Step[];
  lead: boolean;
  takeStarter: () => Promise<{ ok: true } | { ok: false; message: string }>;
}) {
  const router = useRouter();
  const [message, setMessage] = useState<string | null>(null);
  const [busy, start] = useTransition();
  const done = steps.filter((s) => s.done).length;
  const next = steps.find((s) => !s.done);
  const bare = steps.every((s) => !["rules", "kit", "vehicle", "sheet"].includes(s.id) || !s.done);
  const take = (): void =>
    start(async () => {
      const answer = await takeStarter().catch(() => ({
        ok: false as const,
        message: "The shop does not answer. Nothing was changed; try again when it is back.",
      }));
      if (answer.ok) router.refresh();
      else setMessage(answer.message);
    });
  return (
    <section aria-label="First steps" className="mt-4">
      <div className="flex items-center gap-4">
        <h2 className="text-2xl font-semibold">First steps</h2>
        <div
          role="progressbar"
          aria-label="Set up"
          aria-valuemin={0}
          aria-valuemax={steps.length}
          aria-valuenow={done}
          className="flex h-2 min-w-24 flex-1 gap-1"
        >
          {steps.map((s) => (
            <span
              key={s.id}
              className={`flex-1 ${s.done ? "bg-settled" : s === next ? "bg-act" : "bg-hairline"}`}
            />
          ))}
        </div>
        <span className="figure text-lg font-semibold">{`${done} of ${steps.length}`}</span>
      </div>
      {message && (
        <p
          role="alert"
          className="mt-3 border-l-4 border-stop bg-sheet px-4 py-3 text-lg text-stop"
        >
          {message}
        </p>
      )}
      {bare && lead && (
        <div className="mt-3 flex flex-wrap items-center gap-x-6 gap-y-3 border-l-4 border-act bg-sheet px-4 py-3">
          <p className="min-w-64 flex-1 text-lg leading-snug">
            <b className="font-semibold">Begin with the starter set:</b> a general rule book,
            typical kit, and one vehicle and one sheet that are examples and say so. All of it can
            be changed or taken out; check every figure against your own source and tape.
          </p>
          <Button look="act" size="large" disabled={busy} onClick={take}>
            {busy ? "Taking it in" : "Take in the starter set"}
          </Button>
        </div>
      )}
      <ol className="mt-3 border-t-2 border-ink">
        {steps.map((s) => (
          <li
            key={s.id}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-dashed border-hairline px-2 py-2"
          >
            <Mark state={s.done ? "settled" : s === next ? "loose" : "open"} size={18} />
            <span className="min-w-56 flex-1">
              <span className={`block text-lg leading-tight ${s.done ? "" : "font-semibold"}`}>
                {s.name}
              </span>
              {!s.done && <span className="block text-base leading-snug text-soft">{s.why}</span>}
            </span>
            {!s.done && s.example && (
              <a
                href={s.example}
                download
                className="inline-flex min-h-12 items-center rounded-md px-3 font-semibold hover:bg-wash"
              >
                Example file
              </a>
            )}
            {!s.done && (
              <ButtonLink href={s.href} look={s === next && !bare ? "act" : "plain"}>
                {s.id === "job" ? "Take in" : "Go there"}
              </ButtonLink>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}
