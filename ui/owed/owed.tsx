"use client";

import { DISTANCE_FROM_NAMES, OPERATION_NAMES } from "@/core/sheet";
import { formatQuantity } from "@/core/units";
import { DATUM_NAMES } from "@/core/vehicle";
import { Stage } from "../bench/bench";
import { useJob } from "../bench/job-store";
import { NextStage } from "../bench/next-stage";
import { Facts, Paper } from "../primitives/paper";

const KINDS = { static: "Static, in the bay", "static-then-dynamic": "Static in the bay, then a drive" } as const;

/** What this job owes and why: done to the vehicle, times what is fitted. */
export function Owed() {
  const { ground } = useJob();
  const { intake, sheet } = ground;
  const because = intake.operations.filter((o) => sheet.appliesTo.after.includes(o)).map((o) => OPERATION_NAMES[o]);
  return (
    <Stage title="Owed" next={<NextStage after="owed" say="One calibration is owed." />}>
      <Paper title={sheet.title} note={KINDS[sheet.kind]}>
        <p className="mb-4 max-w-[60ch] text-xl leading-snug">{sheet.reason}</p>
        <Facts
          facts={[
            ["Owed after", because.join(", ")],
            ["Fitted", "Forward camera behind the windshield"],
            ["An empty fault memory", "Does not cancel it: a vehicle can scan clean and look the wrong way."],
            ["Board", `${sheet.board.code}, ${formatQuantity(sheet.placement.alongMm, "mm")} from ${DISTANCE_FROM_NAMES[sheet.distanceFrom]}, on the ${DATUM_NAMES[sheet.datum]}, centre ${formatQuantity(sheet.placement.heightMm, "mm")} above the floor`],
            ["Sheet", `${sheet.id}, version ${sheet.version}`],
            ["Source", `${sheet.source.name}, ${sheet.source.date}`],
            ["Entered and checked", `${sheet.source.enteredBy}; ${sheet.source.checkedBy} on ${sheet.source.checkedOn}`],
          ]}
        />
        <p className="mt-4 text-base text-soft">
          The maker’s current service information decides. If it differs from this sheet, stop and have the sheet renewed.
        </p>
      </Paper>
    </Stage>
  ); // prettier-ignore
}
