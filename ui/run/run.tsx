"use client";

import { aimForetold, allProved, runOf } from "@/core/job";
import dynamic from "next/dynamic";
import type { DriftSight } from "@/core/setout";
import { formatNumber } from "@/core/units";
import { Stage } from "../bench/bench";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { NextRun } from "./next-run";
import { Result } from "./result";
import { Steps } from "./steps";
import { useCommand } from "../bench/use-command";
import type { RunCommand } from "./use-run";

// What is said beside the routine is fetched once that stands.
const AimPanel = dynamic(() => import("./aim-panel").then((m) => m.AimPanel));
const Causes = dynamic(() => import("./refused").then((m) => m.Causes));
const Limits = dynamic(() => import("./refused").then((m) => m.Limits));
const ProofNow = dynamic(() => import("../proof/proof-now").then((m) => m.ProofNow));

const UNPROVED = {
  board:
    "The board is not proved in place. The vehicle looks at it where it truly stands, so settle Set out first.",
  mat: "The mats are not all proved in place. The vehicle looks at them where they truly lie, so settle Set out first.",
  mark: "The floor marks are not all proved in place. The cameras are aimed at them where they truly lie, so settle Set out first.",
};

const UNPROVED_REFLECTOR =
  "The reflector is not proved in place. The radar takes whatever stands there for right, so settle Set out first.";

/** Run: the sheet's routine step by step through the scan tool, and what the vehicle answers. */
export function Run({ sights }: { sights: Readonly<Record<string, DriftSight[]>> }) {
  const { events, ground, head, write, me, target } = useJob();
  const { busy, command: send } = useCommand<RunCommand>("run");
  const { sheet, calibrationId } = ground;
  const { state, step } = runOf(ground, events);
  const command = (c: RunCommand, quiet?: boolean) => send({ ...c, calibrationId }, quiet);
  const proved = allProved(ground, events);

  return (
    <Stage
      title="Run"
      next={<NextRun state={state} step={step} proved={proved} busy={busy} command={command} />}
    >
      <div className="flex flex-wrap items-center gap-x-8 gap-y-1 border-b border-hairline px-4 py-2">
        <p className="text-lg">
          <span className="text-soft">Scan tool</span>{" "}
          <b className="font-semibold">
            {state.tool ? `${state.tool.name} ${state.tool.serial}` : "not connected"}
          </b>
        </p>
        {state.volts !== null && (
          <p className="text-lg">
            <span className="text-soft">Supply</span>{" "}
            <b className="figure font-semibold">{formatNumber(state.volts, 2)} V</b>
          </p>
        )}
        {state.attempt > 0 && (
          <p className="text-lg">
            <span className="text-soft">Attempt</span>{" "}
            <b className="figure font-semibold">{state.attempt}</b>
          </p>
        )}
        {head.simulated && me.role !== "viewer" && target && (
          <Button look="faint" className="ml-auto" onClick={() => write({ kind: "bump" })}>
            {
              {
                board: "Simulate a knock at the stand",
                mat: "Simulate a step on the mat",
                mark: "Simulate a mark that was drawn elsewhere",
              }[target.kind]
            }
          </Button>
        )}
      </div>
      {!proved && (
        <p
          className="border-b border-dashed border-loose bg-sheet px-4 py-2 text-base text-loose"
          role="note"
        >
          {target?.object.is ? UNPROVED_REFLECTOR : UNPROVED[target?.kind ?? "board"]}
        </p>
      )}
      {state.result && (
        <Result state={state} sheet={sheet} foretold={aimForetold(ground, events)}>
          {state.status === "failed" ? <Causes /> : <Limits />}
        </Result>
      )}
      {step?.kind === "aim" && proved && (
        <AimPanel key={step.id} step={step} aim={state.aims[step.id]} />
      )}
      {proved && step?.kind !== "aim" && <ProofNow sights={sights} />}
      <Steps state={state} sheet={sheet} current={step} />
    </Stage>
  );
}
