"use client";

import dynamic from "next/dynamic";
import { useState, type ComponentProps } from "react";
import { standingAt, strikes, targetIn } from "@/core/job";
import { targetsOf } from "@/core/sheet";
import { Stage } from "../bench/bench";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { Floor } from "../floor/floor";
import { patiently } from "../primitives/patiently";
import { useLater } from "../primitives/use-later";
import type { JoinDialog as Join } from "../stand/join-dialog";
import { FloorActs } from "./floor-acts";
import { NextActBar } from "./next-act";
import { Tray } from "./tray";
import { useTogether } from "./together";
import { useAdvised } from "./use-advised";
import { draftPlace, useArmed } from "./use-catcher";
import { VerdictStrip } from "./verdict-strip";

// What is looked at now and then is loaded a while after the first page, so that it is there when
// the shop is out of reach.
const LATER = {
  rig: patiently(() => import("./rig-panel")),
  finish: patiently(() => import("./finish")),
  move: patiently(() => import("./move-act")),
  crank: patiently(() => import("./live-crank")),
  swap: patiently(() => import("./swap-bar")),
  stage: patiently(() => import("../bench/next-stage")),
  seldom: patiently(() => import("./seldom")),
};
const NextStage = dynamic(() => LATER.stage().then((m) => m.NextStage));
const LeftBar = dynamic(() => LATER.seldom().then((m) => m.LeftBar));
const BringBar = dynamic(() => LATER.seldom().then((m) => m.BringBar));
const BookFigures = dynamic(() => LATER.seldom().then((m) => m.BookFigures));
const Targets = dynamic(() => LATER.seldom().then((m) => m.Targets));
const BlindNote = dynamic(() => LATER.seldom().then((m) => m.BlindNote));

/** Set out: the floor to scale, what is known of the board, and the next act at the stand. */
export function SetOut({
  stand,
  left,
}: {
  stand: Pick<ComponentProps<typeof Join>, "code" | "squares">;
  /** Stands that another job left proved, by calibration and target. */
  left: Record<string, ComponentProps<typeof LeftBar>["left"]>;
}) {
  const { judged, problem, head, own, events, ground, target, turnTo, write, me } = useJob();
  const [armed, arm] = useArmed(draftPlace(head.id, target));
  const together = useTogether();
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

  if (!target)
    return (
      <Stage
        title="Set out"
        next={<NextStage after="set-out" say="This sheet sets nothing out." />}
      >
        <p className="p-4 text-lg text-soft">
          {ground.sheet.method === "dynamic"
            ? "What it calibrates is learned on the road: there is no board and no mat to place."
            : "What it calibrates looks at the vehicle itself: there is no board and no mat to place."}
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

  return (
    <Stage
      title="Set out"
      next={
        !standingAt(ground, events, target.id) ? (
          <BringBar />
        ) : asLeft && !byHand && me.role !== "viewer" ? (
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
          <FloorActs
            judged={judged}
            stand={stand}
            byHand={byHand !== null}
            onArm={arm}
            onAnother={another}
            onUndo={undo}
            onOther={other}
          />
        )}
      </div>
      <Tray judged={judged} armed={candidate?.slot.id ?? null} onArm={arm} />
    </Stage>
  );
}
