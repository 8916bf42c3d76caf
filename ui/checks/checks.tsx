"use client";

import { useState } from "react";
import { checksOf, FUNCTIONS, lastOf, scanLogOf, STAGES, type FunctionId } from "@/core/job";
import { batteryTrend } from "@/core/ready";
import { scanState } from "@/core/scan";
import type { Measure, Sheet } from "@/core/sheet";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { NextStage } from "../bench/next-stage";
import { Button } from "../primitives/button";
import { BatteryPanel, ScanPanel } from "../ready/scan-panel";
import { Answers } from "./answers";
import { CheckFrame, type Outcome } from "./check-frame";
import { MeasuredCheck } from "./measured";

type Item = Sheet["ready"][number];
const isTyped = (m: Measure | undefined): m is Measure => m !== undefined && m.kind !== "scan" && m.kind !== "battery";

/** Ready and Prove: what the sheet asks to be checked, each measured where it can be, each with one answer. */
export function Checks({ stage }: { stage: "ready" | "prove" }) {
  const { ground, events, write, me } = useJob();
  const [armed, setArmed] = useState<string | null>(null);
  const items: Item[] = ground.sheet[stage];
  const done = checksOf(events, stage);
  const left = items.filter((i) => !done.has(i.id));
  const blocked = items.find((i) => done.get(i.id)?.body.outcome === "blocks");
  const current = items.find((i) => i.id === armed) ?? left[0] ?? (stage === "ready" ? blocked : undefined);
  // What is to be put back is what was written down when the vehicle came in.
  const found = Object.entries(lastOf(events, "walk")?.body.settings ?? {}).map(([f, as]) => `${FUNCTIONS[f as FunctionId].name} ${as}`).join(", "); // prettier-ignore
  const name = STAGES.find((s) => s.id === stage)!.name;
  const release = (): void => setArmed(null);

  if (current && isTyped(current.measure))
    return (
      <MeasuredCheck
        key={current.id}
        item={{ ...current, measure: current.measure }}
        onArm={setArmed}
        onNext={release}
      />
    );

  const answer = (itemId: string, outcome: Outcome): void => {
    write({ kind: "check", stage, itemId, outcome, reason: null });
    release();
  };
  const scanned = scanState(scanLogOf(events), ground.vehicle.gateway);
  const low = current?.measure?.kind === "battery" ? current.measure.minVolts : 0;
  const volts = scanned.voltsLog.at(-1)?.volts ?? null;
  const minutesLeft = low > 0 ? (batteryTrend(scanned.voltsLog, low)?.minutesLeft ?? null) : null;
  const minMinutes = current?.measure?.kind === "battery" ? current.measure.minMinutes : 0;
  /** What still keeps the current item from being called fine. */
  const lacks =
    current?.measure?.kind === "scan"
      ? !scanned.last
        ? "Scan all control units first."
        : scanned.last.modules.some((m) => !m.answers)
          ? "A control unit does not answer."
          : null
      : current?.measure?.kind === "battery"
        ? volts === null
          ? "Read the supply first."
          : volts < low
            ? `The supply is below ${low} V. Put the maintainer on.`
            : minutesLeft !== null && minutesLeft < minMinutes
              ? `The supply lasts ${Math.floor(minutesLeft)} min more; the sheet asks for ${minMinutes}. Put the maintainer on.`
              : null
        : null;
  const panel = current?.measure?.kind === "scan" || (stage === "prove" && current?.id === "rescan") ? <ScanPanel /> : current?.measure?.kind === "battery" ? <BatteryPanel minVolts={low} /> : null; // prettier-ignore

  const next = current ? (
    <NextBar
      tone={lacks && scanned.last ? "loose" : "act"}
      say={lacks ?? current.ask}
      detail={current.id === "settings" && found ? `As found: ${found}.` : current.why}
      caution={
        stage === "ready"
          ? ground.sheet.cautions[0]
          : "Test assistance functions only where no one else is put at risk."
      }
    >
      {me.role !== "viewer" && (
        <Answers stage={stage} itemId={current.id} ask={current.ask} onAnswered={release}>
          <Button look="plain" size="large" onClick={() => answer(current.id, "fixed")}>
            Fixed now
          </Button>
          <Button
            look="act"
            size="large"
            className="min-w-32"
            disabled={lacks !== null}
            onClick={() => answer(current.id, "fine")}
          >
            Fine
          </Button>
        </Answers>
      )}
    </NextBar>
  ) : (
    <NextStage after={stage} say={`${name}: all ${items.length} checked.`} />
  );
  return <CheckFrame stage={stage} currentId={current?.id ?? null} onArm={setArmed} panel={panel} next={next} />; // prettier-ignore
}
