"use client";

import dynamic from "next/dynamic";
import { useEffect, useState } from "react";
import { boardUnchecked, standingAt, type TabletEvent } from "@/core/job";
import { actOf, moveWords, thingOf, type Move, type ProposedMove } from "@/core/setout";
import { formatChance } from "@/core/units";
import { Calibrations } from "../bench/calibrations";
import { Conflict } from "../bench/conflict";
import { KeptHere } from "../outbox/kept-here";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { Catcher } from "../set-out/catcher";
import { Targets } from "../set-out/targets";
import { called } from "../set-out/together";
import { TouchDialog } from "../set-out/touch-dialog";
import { useSettings } from "../settings";
import { useLive } from "./use-live";

const Finish = dynamic(() => import("../set-out/finish").then((m) => m.Finish));

const bare = ({ predicted: _, ...move }: ProposedMove): Move => move;

/**
 * The next act alone, on a phone at the stand: large, live from the tablet, and written back to it.
 */
export function StandView() {
  const {
    head,
    ground,
    target,
    judged,
    events,
    write,
    pending,
    connection,
    confirmedHead,
    absorb,
    me,
    notice,
    dismissNotice,
  } = useJob();
  const { lengths } = useSettings();
  const live = useLive(head.id, confirmedHead, absorb);
  const [touching, setTouching] = useState(false);
  const [again, setAgain] = useState(false);
  const [now, setNow] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  const settled = (target && standingAt(ground, events, target.id)?.settled) ?? null;
  const next = judged?.next;
  const { say, detail, figure } = (() => {
    if (!judged || !next)
      return { say: "The set-out cannot be judged. Look at the tablet.", detail: "", figure: null };
    if (settled && !again)
      return {
        say: {
          board: "Set. Do not touch the stand.",
          mat: "Set. Do not step on it.",
          mark: "Set. Do not wipe it away.",
        }[target?.kind ?? "board"],
        detail: "It is on the slip.",
        figure: formatChance(settled.body.chance),
      };
    switch (next.kind) {
      case "read":
        return {
          say: actOf(
            next.candidate,
            next.again ? `Read again: ${next.candidate.slot.name}` : next.candidate.slot.act,
          ),
          detail: next.candidate.instrument.name,
          figure: null,
        };
      case "move": {
        const words = moveWords(
          next.move,
          ground.vehicle,
          lengths,
          target ? thingOf(target) : undefined,
        );
        return { say: words.say, detail: words.detail ?? "", figure: words.figure ?? null };
      }
      case "finish":
        return { say: "Finish the stand.", detail: "As listed below.", figure: null };
      case "settle":
        return {
          say: `${called(target)} is where it must be.`,
          detail: "Print it to the slip, here or on the tablet.",
          figure: formatChance(judged.verdict.chance),
        };
      case "stuck":
        return { say: next.message, detail: "", figure: null };
    }
  })();
  const done: TabletEvent | null =
    next?.kind === "move"
      ? { kind: "move", move: bare(next.move), rest: next.rest.map(bare) }
      : null;
  const finishing =
    next?.kind === "finish"
      ? next.acts
      : target && next?.kind === "settle" && boardUnchecked(ground, events, target.id)
        ? []
        : null;
  const stale = live.kind === "stale";
  // A phone takes back its own person’s readings; a colleague’s are struck on the tablet.
  const lastTaken = events.findLast((e) => e.body.kind === "reading" && e.by.id === me.id);
  return (
    <div className="flex min-h-dvh flex-col bg-paper">
      <header
        className={`flex min-h-12 items-center gap-3 px-4 text-base ${stale || connection.kind === "offline" ? "bg-loose/15 font-semibold text-loose" : "text-soft"}`}
        role="status"
      >
        <span className="figure font-semibold text-ink">{head.number}</span>
        <span className="min-w-0 flex-1 truncate">{ground.vehicle.model}</span>
        <span>
          {pending.length > 0
            ? `${pending.length} kept here, not sent`
            : stale
              ? `No word for ${Math.max(10, Math.round((now - live.since) / 1000))} s`
              : "Live"}
        </span>
      </header>
      <Calibrations />
      <Targets />
      <Conflict />
      <KeptHere />
      {notice && (
        <button
          type="button"
          role="alert"
          onClick={dismissNotice}
          className="border-y-2 border-loose bg-sheet px-4 py-3 text-left text-lg"
        >
          {notice}
        </button>
      )}
      <main aria-label="Stand" className="flex flex-1 flex-col justify-center px-4 py-3">
        <p className="text-balance text-[clamp(34px,10.5vw,64px)] font-semibold leading-[1.08]">
          {say}
        </p>
        {figure && (
          <p className="figure mt-3 text-[clamp(56px,20vw,120px)] font-semibold leading-none tracking-tighter text-act">
            {figure}
          </p>
        )}
        {detail && <p className="mt-3 text-xl text-soft">{detail}</p>}
      </main>
      {target && finishing && <Finish target={target} acts={finishing} />}
      <section
        aria-label={finishing ? "At hand" : "Next"}
        className="border-t-4 border-act bg-sheet px-4 py-3"
      >
        {next?.kind === "read" && (!settled || again) ? (
          next.candidate.slot.instrument === "rig" ? (
            <p className="text-lg">The rig’s figures are taken on the tablet.</p>
          ) : (
            <Catcher
              key={next.candidate.slot.id}
              candidate={next.candidate}
              again={next.again}
              decides={next.decides}
              onTaken={() => setAgain(false)}
            />
          )
        ) : done ? (
          <Button look="act" size="great" onClick={() => write(done)}>
            Done
          </Button>
        ) : next?.kind === "settle" && !settled && !finishing ? (
          <Button look="act" size="great" onClick={() => write({ kind: "settle" })}>
            Print to the slip
          </Button>
        ) : null}
        {me.role !== "viewer" && (
          <div className="mt-2 grid grid-cols-2 gap-2">
            <Button look="plain" size="large" onClick={() => setTouching(true)}>
              Touched
            </Button>
            <Button
              look="plain"
              size="large"
              disabled={!lastTaken}
              onClick={() =>
                lastTaken &&
                write({ kind: "strike", target: lastTaken.id, reason: "Read again at the stand" })
              }
            >
              Re-read last
            </Button>
          </div>
        )}
      </section>
      <TouchDialog
        kind={target?.kind ?? "board"}
        open={touching}
        onClose={() => setTouching(false)}
        onTouch={(touch) => write({ kind: "touch", touch })}
      />
    </div>
  );
}
