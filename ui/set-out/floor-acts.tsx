"use client";

import dynamic from "next/dynamic";
import { startTransition, useEffect, useState, type ComponentProps } from "react";
import { schoolOf, SCHOOLS } from "@/core/setout";
import type { Sheet as CheckedSheet } from "@/core/sheet";
import { useStageKeys } from "../bench/bench";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { patiently } from "../primitives/patiently";
import { useLater } from "../primitives/use-later";
import type { JoinDialog as Join } from "../stand/join-dialog";
import type { VerdictStrip } from "./verdict-strip";

// What is looked at now and then is loaded a while after the first page, so that it is there when
// the shop is out of reach.
const LATER = { sheets: patiently(() => import("./sheets")) };
const MeansDialog = dynamic(() => LATER.sheets().then((m) => m.MeansDialog));
const LinesDialog = dynamic(() => LATER.sheets().then((m) => m.LinesDialog));
const WaysDialog = dynamic(() => LATER.sheets().then((m) => m.WaysDialog));
const JoinDialog = dynamic(() => LATER.sheets().then((m) => m.JoinDialog));
const TouchDialog = dynamic(() => LATER.sheets().then((m) => m.TouchDialog));
const PhotoButton = dynamic(() => LATER.sheets().then((m) => m.PhotoButton));
const CareDialog = dynamic(() => LATER.sheets().then((m) => m.CareDialog));

/** What is said of an error, by what it is an error of. */
const MEANS: Partial<Record<CheckedSheet["appliesTo"]["system"], string>> = {
  "forward-camera": "Road",
  "surround-view": "Seams",
};

type Sheet = "touch" | "ways" | "lines" | "care" | "road" | "phone";

/**
 * The acts over the floor and the sheets they open. They hold what is open themselves: opening one
 * draws nothing else anew.
 */
export function FloorActs({
  judged,
  stand,
  byHand,
  onArm,
  onAnother,
  onUndo,
  onOther,
}: {
  judged: ComponentProps<typeof VerdictStrip>["judged"];
  stand: Pick<ComponentProps<typeof Join>, "code" | "squares">;
  /** Whether a reading was armed by hand, against the advice. */
  byHand: boolean;
  onArm: (slot: string | null) => void;
  onAnother: () => void;
  onUndo: () => void;
  /** Turns to the other target that lies there. */
  onOther: () => void;
}) {
  const { target, write, ground } = useJob();
  const [sheet, setSheet] = useState<Sheet | null>(null);
  /** A sheet is drawn bit by bit: what is on the floor meanwhile answers all the same. */
  const open = (one: Sheet) => (): void => startTransition(() => setSheet(one));
  const close = (): void => setSheet(null);
  const keys = useStageKeys();
  const restful = useLater(LATER);

  useEffect(() => {
    const held = keys.current;
    Object.assign(held, {
      t: open("touch"),
      n: onAnother,
      u: onUndo,
      w: open("ways"),
      x: onOther,
    });
    return () => {
      for (const key of ["t", "n", "u", "w", "x"] as const) held[key] = undefined;
    };
  });

  if (!target) return null;
  const acts: [string, () => void][] = [
    ["Touched", open("touch")],
    ["Another reading", onAnother],
    ["Undo", onUndo],
    [SCHOOLS[schoolOf(judged.solution.plan)].name, open("ways")],
    ["Lines", open("lines")],
    ["Care", open("care")],
    [MEANS[ground.sheet.appliesTo.system] ?? "Means", open("road")],
    ["Phone", open("phone")],
  ];
  return (
    <>
      <div className="absolute inset-x-2 top-2 flex gap-1 overflow-x-auto sm:right-40 sm:flex-wrap">
        {acts.map(([name, act]) => (
          <Button key={name} look="tool" onClick={act}>
            {name}
          </Button>
        ))}
        {restful && <PhotoButton subject="set-out" />}
        {byHand && (
          <Button look="lit" onClick={() => onArm(null)}>
            Back to the advice
          </Button>
        )}
      </div>
      {sheet === "touch" && (
        <TouchDialog
          kind={target.kind}
          open
          onClose={close}
          onTouch={(touch) => write({ kind: "touch", touch })}
        />
      )}
      {sheet === "ways" && (
        <WaysDialog
          open
          judged={judged}
          onClose={close}
          onChoose={(s) => {
            onArm(null);
            write({ kind: "school", school: s });
          }}
        />
      )}
      {sheet === "phone" && <JoinDialog open onClose={close} {...stand} />}
      {sheet === "road" && <MeansDialog open judged={judged} onClose={close} />}
      {sheet === "care" && <CareDialog open onClose={close} />}
      {sheet === "lines" && <LinesDialog open judged={judged} onClose={close} />}
    </>
  );
}
