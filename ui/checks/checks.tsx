"use client";

import dynamic from "next/dynamic";
import { useEffect, useRef, useState } from "react";
import {
  checksOf,
  eventsOf,
  FUNCTIONS,
  itemReading,
  itemsOf,
  itemSettled,
  lastOf,
  putRight,
  STAGES,
  type FunctionId,
} from "@/core/job";
import type { CheckItem, Measure } from "@/core/sheet";
import { useJob } from "../bench/job-store";
import { useCommand } from "../bench/use-command";
import { NextBar } from "../bench/next-bar";
import { NextStage } from "../bench/next-stage";
import { Button } from "../primitives/button";
import { BatteryPanel, ScanPanel, type ScanCommand } from "../ready/scan-panel";
import { Answers } from "./answers";
import { cautionOf } from "./caution";
import { CheckFrame, type Outcome } from "./check-frame";
import { MeasuredCheck } from "./measured";

// Only Prove holds codes against codes.
const CodesCheck = dynamic(() => import("../prove/codes-check").then((m) => m.CodesCheck));

const RoadCheck = dynamic(() => import("../prove/road-check").then((m) => m.RoadCheck));
const SelfTest = dynamic(() => import("../prove/self-test").then((m) => m.SelfTest));
const DashCheck = dynamic(() => import("../prove/dash-check").then((m) => m.DashCheck));

type Item = CheckItem;
const isTyped = (m: Measure | undefined): m is Measure =>
  m !== undefined && !["scan", "battery", "rescan", "road", "dash", "self-test"].includes(m.kind);

/**
 * Ready and Prove: what the sheet asks to be checked, each measured where it can be, each with one
 * answer.
 */
export function Checks({ stage }: { stage: "ready" | "prove" }) {
  const { ground, own: events, write, me } = useJob();
  const [armed, setArmed] = useState<string | null>(null);
  const items: Item[] = itemsOf(ground, stage);
  const done = checksOf(events, stage);
  const left = items.filter((i) => !itemSettled(ground, events, stage, i));
  const blocked = items.find((i) => done.get(i.id)?.body.outcome === "blocks");
  const current =
    items.find((i) => i.id === armed) ?? left[0] ?? (stage === "ready" ? blocked : undefined);
  // What is to be put back is what was written down when the vehicle came in.
  const found = Object.entries(lastOf(events, "walk")?.body.settings ?? {})
    .map(([f, as]) => `${FUNCTIONS[f as FunctionId].name} ${as}`)
    .join(", ");
  const name = STAGES.find((s) => s.id === stage)!.name;
  const release = (): void => setArmed(null);
  useSelfAccepted(stage, current);

  if (current?.measure?.kind === "rescan")
    return <CodesCheck item={current} onArm={setArmed} onNext={release} />;
  if (current?.measure?.kind === "road")
    return <RoadCheck item={current} onArm={setArmed} onNext={release} />;
  if (current?.measure?.kind === "dash")
    return <DashCheck item={current} onArm={setArmed} onNext={release} />;
  if (current?.measure?.kind === "self-test")
    return <SelfTest item={current} onArm={setArmed} onNext={release} />;
  if (current && isTyped(current.measure))
    return (
      <MeasuredCheck
        key={current.id}
        stage={stage}
        item={{ ...current, measure: current.measure }}
        onArm={setArmed}
        onNext={release}
      />
    );

  // What is only looked at is looked at in one walk round, and said in one touch.
  const looked = left.filter((i) => !i.measure);
  const together = current && looked.length > 1 && looked.includes(current) ? looked : [];
  const others = together.filter((i) => i !== current).map((i) => i.ask);
  const allFine = (): void => {
    write(
      ...together.map((i) => ({
        kind: "check" as const,
        stage,
        itemId: i.id,
        outcome: "fine" as const,
        reason: null,
      })),
    );
    release();
  };
  const answer = (itemId: string, outcome: Outcome): void => {
    write({ kind: "check", stage, itemId, outcome, reason: null });
    release();
  };
  /** What still keeps the current item from being called fine. */
  const reading = current ? itemReading(ground, events, current) : null;
  const lacks = reading && reading.kind !== "inside" ? reading.say : null;
  const low = current?.measure?.kind === "battery" ? current.measure.minVolts : 0;
  const righted = current !== undefined && putRight(events, current.id) > 0;
  const tool: ScanCommand | null =
    current?.measure?.kind === "scan"
      ? "read"
      : current?.measure?.kind === "battery"
        ? "volts"
        : null;
  /** The tool has to read first: the Next bar carries that, and the panel does not say it again. */
  const unread = reading?.kind === "unread" || reading?.kind === "put-right";
  const panel =
    tool === "read" ? (
      <ScanPanel carried={unread} />
    ) : tool === "volts" ? (
      <BatteryPanel minVolts={low} carried={unread} />
    ) : null;

  const next = current ? (
    <NextBar
      tone={reading?.kind === "outside" ? "loose" : "act"}
      say={lacks ?? current.ask}
      detail={
        <>
          {current.id === "settings" && found ? `As found: ${found}.` : current.why}
          {others.length > 0 && (
            <>
              <span className="mt-1 block">Also only to be looked at: {others.join("; ")}.</span>
              {me.role !== "viewer" && (
                <Button look="plain" className="mt-2" onClick={allFine}>
                  All {together.length} fine
                </Button>
              )}
            </>
          )}
        </>
      }
      caution={
        stage === "ready"
          ? cautionOf(ground, events, current)
          : "Test assistance functions only where no one else is put at risk."
      }
    >
      {me.role !== "viewer" && (
        <Answers stage={stage} itemId={current.id} ask={current.ask} onAnswered={release}>
          {current.measure ? (
            reading?.kind === "outside" && (
              <Button
                look="plain"
                size="large"
                onClick={() => write({ kind: "put-right", itemId: current.id })}
              >
                Put right, read again
              </Button>
            )
          ) : (
            <Button look="plain" size="large" onClick={() => answer(current.id, "fixed")}>
              Fixed now
            </Button>
          )}
          {tool && unread ? (
            <ToolButton command={tool} again={reading.kind === "put-right"} />
          ) : (
            <Button
              look="act"
              size="large"
              className="min-w-32"
              disabled={lacks !== null}
              onClick={() => answer(current.id, current.measure && righted ? "fixed" : "fine")}
            >
              Fine
            </Button>
          )}
        </Answers>
      )}
    </NextBar>
  ) : (
    <NextStage after={stage} say={`${name}: all ${items.length} checked.`} />
  );
  return (
    <CheckFrame
      stage={stage}
      currentId={current?.id ?? null}
      onArm={setArmed}
      panel={panel}
      next={next}
    />
  );
}

/** What the tool is to do next: read all units, or the supply. */
function ToolButton({ command: what, again }: { command: ScanCommand; again: boolean }) {
  const { busy, command } = useCommand<ScanCommand>("scan");
  const say =
    what === "volts"
      ? busy
        ? "Reading"
        : "Read the supply"
      : busy
        ? "Scanning"
        : again
          ? "Scan again"
          : "Scan all control units";
  return (
    <Button look="act" size="large" disabled={busy !== null} onClick={() => void command(what)}>
      {say}
    </Button>
  );
}

/**
 * What the tool has read for this person and found in order needs nobody to say so; stored codes do.
 * The line says who had it read.
 */
function useSelfAccepted(stage: "ready" | "prove", item: Item | undefined): void {
  const { ground, own: events, write, me } = useJob();
  const written = useRef<string | null>(null);
  const scan = eventsOf(events, "scan").at(-1);
  const reading = item ? itemReading(ground, events, item) : null;
  const due =
    reading?.kind === "inside" &&
    reading.clean &&
    scan?.by.id === me.id &&
    me.role !== "viewer" &&
    !itemSettled(ground, events, stage, item!);
  useEffect(() => {
    if (!due) return;
    // Once only, while the line is on its way.
    const id = `${item!.id}/${scan.id}`;
    if (written.current === id) return;
    written.current = id;
    const outcome = putRight(events, item!.id) > 0 ? "fixed" : "fine";
    write({ kind: "check", stage, itemId: item!.id, outcome, reason: null });
  }, [due, events, item, scan, stage, write]);
}
