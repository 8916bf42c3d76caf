"use client";

import { eventsOf } from "@/core/job";
import { happeningName } from "@/core/owed";
import { dateAndTime, formatNumber } from "@/core/units";
import { Stage } from "../bench/bench";
import { useJob } from "../bench/job-store";
import { NextStage } from "../bench/next-stage";
import { GlassCheck } from "./glass-check";
import { Facts, Paper } from "../primitives/paper";

/** What was settled when the vehicle was taken in. */
export function TakeInFacts() {
  const { ground, events } = useJob();
  const { intake, vehicle: v, stand } = ground;
  const taken = eventsOf(events, "taken-in")[0];
  return (
    <Stage title="Take in" next={<NextStage after="take-in" say="Taken in." />}>
      <Paper title={`${v.make} ${v.model}`} note={v.variant}>
        <Facts
          facts={[
            ["VIN", intake.vin],
            ...(intake.vinReason ? ([["Kept although it fails its check", intake.vinReason]] as [string, string][]) : []),
            ["Plate", intake.plate || "not given"],
            ["Customer", intake.customer],
            ["Repair order", intake.order || "not given"],
            ["Done to the vehicle", intake.happenings.map(happeningName).join(", ")],
            ["Driver’s side", `vehicle ${v.driverSide}`],
            ["Wheelbase", `${formatNumber(v.wheelbaseMm)} mm`],
            ["Track, front and rear", `${formatNumber(v.trackFrontMm)} and ${formatNumber(v.trackRearMm)} mm`],
            ["Camera above the floor", `${formatNumber(v.camera.zMm)} mm`],
            ["Dimensions from", v.source],
            ["Stand", `${stand.id}, ${stand.name}`],
            ...(intake.rearToeDeg
              ? ([["Rear toe, left and right", `${formatNumber(intake.rearToeDeg.left, 2)}° and ${formatNumber(intake.rearToeDeg.right, 2)}°`]] as [string, string][])
              : []),
            ...(taken ? ([["Taken in", `${dateAndTime(taken.at)} by ${taken.by.name}`]] as [string, string][]) : []),
          ]}
        />
        {ground.intake.happenings.some((h) => h.place === "windshield") && <GlassCheck />}
      </Paper>
    </Stage>
  ); // prettier-ignore
}
