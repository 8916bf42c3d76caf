"use client";

import type { Remote } from "comlink";
import { useCallback, useEffect, useMemo } from "react";
import { targetsOf } from "@/core/sheet";
import { seamAct, type Cause, type SeamAct, type SideId, type Weighed } from "@/core/surround";
import { formatChance, formatLength, formatNumber, radToDeg } from "@/core/units";
import type { SurroundWorker } from "@/workers/surround/surround.worker";
import { useJob } from "../bench/job-store";
import { useSettings } from "../settings";
import { useSurround } from "./use-surround";

/** Fewer of a hundred than this are not worth a line. */
const SLIGHT = 0.02;

/** What may be behind the steps, the likeliest first, and what to do about it. */
export function CauseList({
  values,
  show,
  onAct,
}: {
  values: Readonly<Record<string, number>>;
  show: boolean;
  /** What is to be done, in words; null while nobody knows. */
  onAct: (words: string | null) => void;
}) {
  const { ground, events } = useJob();
  const { lengths } = useSettings();
  const text = JSON.stringify(values);
  const found = useSurround(
    useMemo(
      () =>
        show
          ? (s: Remote<SurroundWorker>) =>
              s.causes(ground, events, JSON.parse(text) as Record<string, number>)
          : null,
      [show, ground, events, text],
    ),
  );
  const nameOf = useCallback(
    (id: string): string => targetsOf(ground.sheet).find((t) => t.id === id)?.name ?? id,
    [ground.sheet],
  );
  const words = show && found ? doWords(seamAct(found), nameOf) : null;
  useEffect(() => onAct(words), [onAct, words]);
  if (!show) return null;
  if (!found) return <p className="text-base text-soft">Playing through what may be behind it …</p>;
  return (
    <section aria-label="What may be behind it" className="border-t-2 border-ink pt-3">
      <h3 className="text-xl font-semibold">What may be behind it</h3>
      <p className="mb-2 text-lg leading-snug">{words}</p>
      <ol className={found.fits ? "" : "text-soft"}>
        {found.groups
          .filter((g) => g.chance >= SLIGHT)
          .slice(0, 4)
          .map((g, i) => (
            <li
              key={g.causes.map((c) => JSON.stringify(c.cause)).join()}
              className="grid grid-cols-[116px_1fr] items-baseline gap-x-4 border-b border-dashed border-hairline py-2"
            >
              <span className={`figure text-right text-2xl ${i === 0 ? "font-semibold" : ""}`}>
                {formatChance(g.chance)}
              </span>
              <span className="text-lg leading-snug">
                {g.causes
                  .filter((c) => c.chance >= 0.1 * g.chance)
                  .map((c) => causeWords(c, nameOf, lengths))
                  .join("; or ")}
                {g.causes.length > 1 && (
                  <span className="block text-sm text-soft">
                    The picture alone does not part these.
                  </span>
                )}
              </span>
            </li>
          ))}
      </ol>
    </section>
  );
}

const turned = (rad: number, more: string, less: string): string =>
  `${formatNumber(Math.abs(radToDeg(rad)), 1)}° ${rad > 0 ? more : less}`;

function causeWords(
  { cause, at }: Weighed,
  nameOf: (id: string) => string,
  lengths: "mm" | "in",
): string {
  switch (cause.kind) {
    case "none":
      return "nothing: an eye reads no better";
    case "camera":
      return `the ${cause.side} camera looks ${CAMERA[cause.part](at)}`;
    case "lens":
      return `the ${cause.side} camera’s lens: a drop or film on it, or another part than the unit believes`;
    case "mat":
      return `the ${nameOf(cause.matId)} lay ${MAT[cause.part](at, lengths)} when the unit looked`;
  }
}

const CAMERA: Record<Extract<Cause, { kind: "camera" }>["part"], (at: number) => string> = {
  left: (at) => turned(at, "to its left", "to its right"),
  down: (at) => turned(at, "too low", "too high"),
  roll: (at) => turned(at, "tilted clockwise", "tilted counter-clockwise"),
};

const MAT: Record<
  Extract<Cause, { kind: "mat" }>["part"],
  (at: number, lengths: "mm" | "in") => string
> = {
  along: (at, lengths) =>
    `${formatLength(Math.abs(at), lengths)} too far ${at > 0 ? "forward" : "back"}`,
  across: (at, lengths) =>
    `${formatLength(Math.abs(at), lengths)} too far to vehicle ${at > 0 ? "left" : "right"}`,
  heading: (at) => turned(at, "turned to the left", "turned to the right"),
};

/** What to look at about each camera. */
const SEAT: Record<SideId, string> = {
  front: "grille and its clips home, nothing bent",
  left: "mirror folded out, its cap and glass home",
  right: "mirror folded out, its cap and glass home",
  rear: "tailgate shut, the handle’s trim home, nothing bent",
};

function doWords(act: SeamAct, nameOf: (id: string) => string): string {
  switch (act.kind) {
    case "leave":
      return "Look at the picture once more from straight above the display; what is left is within an eye’s error.";
    case "again":
      return "No single cause makes such steps. Read them again from straight before the display; if they stay, two things are off: prove the mats first.";
    case "seat":
      return `Look how the ${act.side} camera sits: ${SEAT[act.side]}. Seat it, then let the unit learn again.`;
    case "lens":
      return `Clean the ${act.side} camera’s lens and compare its part number, then let the unit learn again.`;
    case "lay":
      return `Lay the ${nameOf(act.matId)} where it belongs, prove it, and let the unit learn again.`;
    case "read":
      return `Read the ${nameOf(act.matId)} again before anything is touched: that tells ${act.side ? `it from the ${act.side} camera` : "which mat it is"}.`;
  }
}
