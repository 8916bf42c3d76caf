"use client";

import { eventsOf, jobOwed, lastOf } from "@/core/job";
import { happeningName } from "@/core/owed";
import { formatNumber } from "@/core/units";
import { Stage } from "../bench/bench";
import { useJob } from "../bench/job-store";
import { NextStage } from "../bench/next-stage";
import { Consent } from "./consent";
import { GlassCheck } from "./glass-check";
import { WalkRound } from "./walk-round";
import { Facts, Paper } from "../primitives/paper";
import { useTimes } from "../settings";

/** What was settled when the vehicle was taken in. */
export function TakeInFacts() {
  const { dateAndTime } = useTimes();
  const { ground, events } = useJob();
  const { intake, vehicle: v, stand } = ground;
  const taken = eventsOf(events, "taken-in")[0];
  // Nobody knows the maker’s part of a vehicle that stands in no book.
  const glass = intake.happenings.some((h) => h.place === "windshield") && !v.provisional;
  const owed = jobOwed(ground, events);
  const road = owed.plan?.roadMinutes ?? 0;
  // What a good intake still lacks; none of it holds the job up.
  const lacks = [
    lastOf(events, "walk") ? null : "the vehicle as it came in",
    glass && !lastOf(events, "glass") ? "the glass and its mount" : null,
    road > 0 && !lastOf(events, "consent") ? "the consent to drive" : null,
  ].filter((l) => l !== null);
  const say =
    lacks.length === 0 ? "Taken in, all of it." : `Still to write down: ${lacks.join(", ")}.`;
  return (
    <Stage
      title="Take in"
      next={
        <NextStage
          after="take-in"
          to="owed"
          tone={lacks.length === 0 ? "settled" : "loose"}
          say={say}
          detail={`Owed: ${owed.lines.filter((l) => !l.declined).length === 1 ? "one calibration" : `${owed.lines.filter((l) => !l.declined).length} calibrations`}, and why.`}
        />
      }
    >
      <Paper title={`${v.make} ${v.model}`} note={v.variant}>
        <WalkRound />
        {glass && <GlassCheck />}
        <Consent />
        <h2 className="mb-1 mt-6 border-t-2 border-ink pt-4 text-2xl font-semibold">
          What the job stands on
        </h2>
        <Facts
          facts={[
            ["VIN", intake.vin],
            ...(intake.vinReason
              ? ([["Kept although it fails its check", intake.vinReason]] as [string, string][])
              : []),
            ["Plate", intake.plate || "not given"],
            ["Customer", intake.customer],
            ["Repair order", intake.order || "not given"],
            ["Done to the vehicle", intake.happenings.map(happeningName).join(", ")],
            ["Driver’s side", `vehicle ${v.driverSide}`],
            ["Wheelbase", `${formatNumber(v.wheelbaseMm)} mm`],
            [
              "Track, front and rear",
              `${formatNumber(v.trackFrontMm)} and ${formatNumber(v.trackRearMm)} mm`,
            ],
            ["Camera above the floor", `${formatNumber(v.camera.zMm)} mm`],
            ["Dimensions from", v.source],
            ["Stand", `${stand.id}, ${stand.name}`],
            ...(intake.promisedAt
              ? ([["Promised for", dateAndTime(intake.promisedAt)]] as [string, string][])
              : []),
            ...(intake.rearToeDeg
              ? ([
                  [
                    "Rear toe, left and right",
                    `${formatNumber(intake.rearToeDeg.left, 2)}° and ${formatNumber(intake.rearToeDeg.right, 2)}°`,
                  ],
                ] as [string, string][])
              : []),
            ...(taken
              ? ([["Taken in", `${dateAndTime(taken.at)} by ${taken.by.name}`]] as [
                  string,
                  string,
                ][])
              : []),
          ]}
        />
      </Paper>
    </Stage>
  );
}
