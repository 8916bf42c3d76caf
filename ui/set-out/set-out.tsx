"use client";

import dynamic from "next/dynamic";
import { startTransition, useEffect, useState, type ComponentProps } from "react";
import { strikes, targetIn } from "@/core/job";
import { schoolOf, SCHOOLS } from "@/core/setout";
import { targetsOf } from "@/core/sheet";
import { Stage, useStageKeys } from "../bench/bench";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { Floor } from "../floor/floor";
import { Button } from "../primitives/button";
import { useLater } from "../primitives/use-later";
import type { JoinDialog as Join } from "../stand/join-dialog";
import { NextActBar } from "./next-act";
import { Tray } from "./tray";
import { useTogether } from "./together";
import { useAdvised } from "./use-advised";
import { draftPlace, useArmed } from "./use-catcher";
import { VerdictStrip } from "./verdict-strip";

// What is looked at now and then is loaded a while after the first page, so that it is there when
// the shop is out of reach.
const LATER = {
  road: () => import("../road/road-dialog"),
  lines: () => import("./lines-dialog"),
  ways: () => import("./ways-dialog"),
  join: () => import("../stand/join-dialog"),
  rig: () => import("./rig-panel"),
  touch: () => import("./touch-dialog"),
  finish: () => import("./finish"),
  move: () => import("./move-act"),
  swap: () => import("./swap-bar"),
  stage: () => import("../bench/next-stage"),
  care: () => import("../proof/care-dialog"),
  photo: () => import("../photos/photo-button"),
  blind: () => import("./blind-note"),
};
const NextStage = dynamic(() => LATER.stage().then((m) => m.NextStage));
const LeftBar = dynamic(() => import("./left-bar").then((m) => m.LeftBar));
const BookFigures = dynamic(() => import("./book-figures").then((m) => m.BookFigures));
const Targets = dynamic(() => import("./targets").then((m) => m.Targets));
const RoadDialog = dynamic(() => LATER.road().then((m) => m.RoadDialog));
const LinesDialog = dynamic(() => LATER.lines().then((m) => m.LinesDialog));
const WaysDialog = dynamic(() => LATER.ways().then((m) => m.WaysDialog));
const JoinDialog = dynamic(() => LATER.join().then((m) => m.JoinDialog));
const TouchDialog = dynamic(() => LATER.touch().then((m) => m.TouchDialog));
const PhotoButton = dynamic(() => LATER.photo().then((m) => m.PhotoButton));
const BlindNote = dynamic(() => LATER.blind().then((m) => m.BlindNote));
const CareDialog = dynamic(() => LATER.care().then((m) => m.CareDialog));

/** Set out: the floor to scale, what is known of the board, and the next act at the stand. */
export function SetOut({
  stand,
  left,
}: {
  stand: Pick<ComponentProps<typeof Join>, "code" | "squares">;
  /** Stands that another job left proved, by calibration and target. */
  left: Record<string, ComponentProps<typeof LeftBar>["left"]>;
}) {
  const { judged, problem, head, own, ground, target, turnTo, write, me } = useJob();
  const [armed, arm] = useArmed(draftPlace(head.id, target));
  const together = useTogether();
  /** A dialog is drawn bit by bit: what is on the floor meanwhile answers all the same. */
  const opened = (set: (open: boolean) => void): void => startTransition(() => set(true));
  const [touching, setTouching] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const [lines, setLines] = useState(false);
  const [onRoad, setOnRoad] = useState(false);
  const [joining, setJoining] = useState(false);
  const [caring, setCaring] = useState(false);
  const keys = useStageKeys();
  const restful = useLater(LATER);

  const [fresh, setFresh] = useState(false);
  const kept = fresh || !target ? undefined : left[`${ground.calibrationId}/${target.id}`];
  // Whatever was done at it already, it is no longer as it was left.
  const asLeft = kept && !own.some((e) => targetIn(e.body) === target?.id) ? kept : null;

  const advised = useAdvised(judged);
  const byHand = judged?.candidates.find((c) => c.slot.id === armed && !c.anew) ?? null;
  const candidate = byHand ?? advised;

  /** Arms the next best reading after the armed one. */
  const another = (): void => {
    if (!judged || judged.candidates.length === 0) return;
    const at = judged.candidates.findIndex((c) => c.slot.id === candidate?.slot.id);
    arm(judged.candidates[(at + 1) % judged.candidates.length]!.slot.id);
  };
  /** Strikes the last thing done at the stand; it stays readable. */
  const undo = (): void => {
    const struck = strikes(own);
    const last = own.findLast(
      (e) =>
        ["reading", "move", "touch", "kept"].includes(e.body.kind) &&
        !struck.has(e.id) &&
        [target?.id, null].includes(targetIn(e.body) ?? null),
    );
    if (last && me.role !== "viewer") write({ kind: "strike", target: last.id, reason: "Undone" });
  };

  /** Turns to the other target that lies there. */
  const other = (): void => {
    const at = together.findIndex((t) => t.id === target?.id);
    const next = together[(at + 1) % Math.max(1, together.length)];
    if (next) turnTo(ground.calibrationId, next.id);
  };

  useEffect(() => {
    const held = keys.current;
    Object.assign(held, {
      t: () => opened(setTouching),
      n: another,
      u: undo,
      w: () => opened(setChoosing),
      x: other,
    });
    return () => {
      for (const key of ["t", "n", "u", "w", "x"] as const) held[key] = undefined;
    };
  });

  if (!target)
    return (
      <Stage
        title="Set out"
        next={<NextStage after="set-out" say="This sheet sets nothing out." />}
      >
        <p className="p-4 text-lg text-soft">
          What it calibrates is learned on the road: there is no board and no mat to place.
        </p>
      </Stage>
    );
  if (!judged)
    return (
      <Stage
        title="Set out"
        next={<NextBar tone="stop" say={problem ?? "The set-out cannot be judged."} />}
      >
        {null}
      </Stage>
    );

  const school = schoolOf(judged.solution.plan);
  const acts: [string, string, () => void][] = [
    ["Touched", "T", () => opened(setTouching)],
    ["Another reading", "N", another],
    ["Undo", "U", undo],
    [SCHOOLS[school].name, "W", () => opened(setChoosing)],
    ["Lines", "", () => opened(setLines)],
    ["Care", "", () => opened(setCaring)],
    ...(target.kind === "board"
      ? [["Road", "", () => opened(setOnRoad)] as [string, string, () => void]]
      : []),
    ["Phone", "", () => opened(setJoining)],
  ];
  return (
    <Stage
      title="Set out"
      next={
        asLeft && !byHand && me.role !== "viewer" ? (
          <LeftBar left={asLeft} onFresh={() => setFresh(true)} />
        ) : (
          <NextActBar
            judged={judged}
            candidate={candidate}
            byHand={byHand !== null}
            onTaken={() => arm(null)}
            onRead={another}
          />
        )
      }
    >
      <VerdictStrip judged={judged} />
      {targetsOf(ground.sheet).length > 1 && <Targets />}
      {target.measuredTo && <BookFigures target={target} on={judged.solution.plan.target} />}
      {restful && <BlindNote judged={judged} onArm={arm} />}
      <div className="relative min-h-[220px] flex-1">
        <Floor judged={judged} armedSlot={candidate?.slot.id ?? null} onArm={arm} />
        {me.role !== "viewer" && (
          <div className="absolute inset-x-2 top-2 flex gap-1 overflow-x-auto sm:right-42 sm:flex-wrap">
            {acts.map(([name, key, act]) => (
              <Button
                key={name}
                look="plain"
                className="shrink-0 !min-h-12 !border !border-hairline !px-2.5"
                onClick={act}
              >
                {name}{" "}
                {key && (
                  <kbd className="figure hidden text-xs font-normal text-soft md:inline">{key}</kbd>
                )}
              </Button>
            ))}
            {restful && <PhotoButton subject="set-out" />}
            {byHand && (
              <Button
                look="plain"
                className="shrink-0 !min-h-12 !border !border-act !px-3 !text-act"
                onClick={() => arm(null)}
              >
                Back to the advice
              </Button>
            )}
          </div>
        )}
      </div>
      <Tray judged={judged} armed={candidate?.slot.id ?? null} onArm={arm} />
      {touching && (
        <TouchDialog
          kind={target.kind}
          open
          onClose={() => setTouching(false)}
          onTouch={(touch) => write({ kind: "touch", touch })}
        />
      )}
      {choosing && (
        <WaysDialog
          open
          judged={judged}
          onClose={() => setChoosing(false)}
          onChoose={(s) => {
            arm(null);
            write({ kind: "school", school: s });
          }}
        />
      )}
      {joining && <JoinDialog open onClose={() => setJoining(false)} {...stand} />}
      {onRoad && <RoadDialog open judged={judged} onClose={() => setOnRoad(false)} />}
      {caring && <CareDialog open onClose={() => setCaring(false)} />}
      {lines && <LinesDialog open judged={judged} onClose={() => setLines(false)} />}
    </Stage>
  );
}
