"use client";

import { useEffect, useState, type ComponentProps } from "react";
import { boardsStanding, placeOf, standAt, strikes } from "@/core/job";
import { blindTo, nominalTarget, SCHOOLS } from "@/core/setout";
import { placeName, sheetAt } from "@/core/sheet";
import { Stage, useStageKeys } from "../bench/bench";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { Floor } from "../floor/floor";
import { Button } from "../primitives/button";
import { JoinDialog } from "../stand/join-dialog";
import { RoadDialog } from "../road/road-dialog";
import { NextActBar } from "./next-act";
import { TouchDialog } from "./touch-dialog";
import { LinesDialog } from "./lines-dialog";
import { Tray } from "./tray";
import { useArmed } from "./use-catcher";
import { WaysDialog } from "./ways-dialog";
import { VerdictStrip } from "./verdict-strip";

/** Set out: the floor to scale, what is known of the board, and the next act at the stand. */
export function SetOut({
  stand,
}: {
  stand: Pick<ComponentProps<typeof JoinDialog>, "code" | "squares">;
}) {
  const { judged, problem, head, ground, events, write, me } = useJob();
  const [armed, arm] = useArmed(head.id);
  const [touching, setTouching] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const [lines, setLines] = useState(false);
  const [onRoad, setOnRoad] = useState(false);
  const [joining, setJoining] = useState(false);
  const keys = useStageKeys();

  const byHand = judged?.candidates.find((c) => c.slot.id === armed) ?? null;
  const candidate = byHand ?? (judged?.next.kind === "read" ? judged.next.candidate : null);

  /** Arms the next best reading after the armed one. */
  const another = (): void => {
    if (!judged || judged.candidates.length === 0) return;
    const at = judged.candidates.findIndex((c) => c.slot.id === candidate?.slot.id);
    arm(judged.candidates[(at + 1) % judged.candidates.length]!.slot.id);
  };
  /** Strikes the last thing done at the stand; it stays readable. */
  const undo = (): void => {
    const struck = strikes(events);
    const last = events.findLast(
      (e) => ["reading", "move", "touch"].includes(e.body.kind) && !struck.has(e.id),
    );
    if (last && me.role !== "viewer") write({ kind: "strike", target: last.id, reason: "Undone" });
  };

  useEffect(() => {
    const held = keys.current;
    Object.assign(held, {
      t: () => setTouching(true),
      n: another,
      u: undo,
      w: () => setChoosing(true),
    });
    return () =>
      void Object.assign(held, { t: undefined, n: undefined, u: undefined, w: undefined });
  });

  if (!judged)
    return (
      <Stage
        title="Set out"
        next={<NextBar tone="stop" say={problem ?? "The set-out cannot be judged."} />}
      >
        {null}
      </Stage>
    );

  const acts = [
    ["Touched", "T", () => setTouching(true)],
    ["Another reading", "N", another],
    ["Undo", "U", undo],
  ] as const;
  const beside = boardsStanding(ground, events).slice(0, -1);
  const drawn = beside.map((b) => {
    const sheet = sheetAt(ground.sheet, b.place);
    const stand = ground.stands?.find((s) => s.id === b.standId) ?? ground.stand;
    return {
      name: b.standId,
      pose: nominalTarget({ ...judged.solution.plan, sheet }),
      halfMm: stand.beamHalfMm,
      boardMm: sheet.board.widthMm,
      proved: b.settled !== null,
    };
  });
  const school = judged.solution.plan.school ?? "tapes";
  const blind = blindTo(judged.solution);
  return (
    <Stage
      title="Set out"
      next={
        <NextActBar
          judged={judged}
          candidate={candidate}
          byHand={byHand !== null}
          onTaken={() => arm(null)}
          onRead={another}
        />
      }
    >
      <VerdictStrip judged={judged} />
      {ground.sheet.positions && (
        <p className="border-b border-hairline bg-sheet px-3 py-1.5 text-base">
          <span className="text-soft">
            Place {ground.sheet.positions.findIndex((p) => p.id === placeOf(events).id) + 2} of{" "}
            {ground.sheet.positions.length + 1}:
          </span>{" "}
          <b className="font-semibold">{placeName(ground.sheet, placeOf(events).id)}</b>
          {beside.length > 0 && (
            <span className="text-soft">
              , on {standAt(ground, events).id};{" "}
              {beside
                .map(
                  (b) =>
                    `${placeName(ground.sheet, b.place)} stays on ${b.standId}${b.settled ? "" : ", in doubt"}`,
                )
                .join("; ")}
            </span>
          )}
        </p>
      )}
      {blind && (
        <p
          role="note"
          className="flex flex-wrap items-center gap-x-4 border-b-2 border-dashed border-loose bg-sheet px-3 py-1.5 text-base"
        >
          <span className="min-w-0 flex-1">{blind.say}</span>
          {blind.slotId && me.role !== "viewer" && (
            <Button
              look="plain"
              className="!min-h-12 !px-3"
              onClick={() => {
                write({ kind: "school", school: "free" });
                arm(blind.slotId);
              }}
            >
              Read it
            </Button>
          )}
        </p>
      )}
      <div className="relative min-h-[220px] flex-1">
        <Floor judged={judged} armedSlot={candidate?.slot.id ?? null} onArm={arm} beside={drawn} />
        {me.role !== "viewer" && (
          <div className="absolute inset-x-2 top-2 flex gap-1 overflow-x-auto sm:right-48 sm:flex-wrap">
            {acts.map(([name, key, act]) => (
              <Button
                key={name}
                look="plain"
                className="shrink-0 !min-h-12 !border !border-hairline !px-3"
                onClick={act}
              >
                {name}{" "}
                <kbd className="figure hidden text-xs font-normal text-soft md:inline">{key}</kbd>
              </Button>
            ))}
            <Button
              look="plain"
              className="shrink-0 !min-h-12 !border !border-hairline !px-3"
              onClick={() => setChoosing(true)}
            >
              {SCHOOLS[school].name}{" "}
              <kbd className="figure hidden text-xs font-normal text-soft md:inline">W</kbd>
            </Button>
            <Button
              look="plain"
              className="shrink-0 !min-h-12 !border !border-hairline !px-3"
              onClick={() => setLines(true)}
            >
              Lines
            </Button>
            <Button
              look="plain"
              className="shrink-0 !min-h-12 !border !border-hairline !px-3"
              onClick={() => setOnRoad(true)}
            >
              Road
            </Button>
            <Button
              look="plain"
              className="shrink-0 !min-h-12 !border !border-hairline !px-3"
              onClick={() => setJoining(true)}
            >
              Phone
            </Button>
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
      <TouchDialog
        open={touching}
        onClose={() => setTouching(false)}
        onTouch={(touch) => write({ kind: "touch", touch })}
      />
      <WaysDialog
        open={choosing}
        judged={judged}
        onClose={() => setChoosing(false)}
        onChoose={(s) => {
          arm(null);
          write({ kind: "school", school: s });
        }}
      />
      <JoinDialog open={joining} onClose={() => setJoining(false)} {...stand} />
      <RoadDialog open={onRoad} judged={judged} onClose={() => setOnRoad(false)} />
      <LinesDialog open={lines} judged={judged} onClose={() => setLines(false)} />
    </Stage>
  );
}
