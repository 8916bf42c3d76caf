"use client";

import dynamic from "next/dynamic";
import { useState } from "react";
import { eventsOf, lastOf, runOf } from "@/core/job";
import { drivesOf } from "@/core/job/driven";
import { standingDrive } from "@/core/job/standing-drive";
import { breachWords, conditionWords, enoughWords } from "@/core/drive/words";
import type { DrivePlan } from "@/core/drive/plan";
import { Stage } from "../bench/bench";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { NextStage } from "../bench/next-stage";
import { CrewFields, type Crew } from "../checks/crew";
import { Button } from "../primitives/button";
import { Mark } from "../primitives/marks";
import { Paper } from "../primitives/paper";
import { useTimes } from "../settings";
import { Afterwards } from "./afterwards";
import { EndDrive } from "./end-drive";
import { OnTheRoad } from "./on-the-road";
import { PlanList } from "./plan-list";
import { usePlans } from "./use-plans";
import { useTrip } from "./use-trip";

const DriveMap = dynamic(() => import("./drive-map").then((m) => m.DriveMap), {
  ssr: false,
  loading: () => <div className="h-64 border border-hairline md:h-80" />,
});

const CAUTION =
  "One drives, another watches the screen. Traffic law and the maker’s instructions come first; stop before you touch anything.";

/** The drive of the calibration in hand: what is asked, when and where to go, the drive itself, what came of it. */
export function Drive() {
  const { ground, events, me } = useJob();
  const { sheet } = ground;
  if (sheet.method === "static")
    return (
      <Stage title="Drive" next={<NextStage after="drive" say="No drive is asked for." />}>
        <Paper title="No drive owed">
          <p className="max-w-[60ch] text-xl leading-snug">
            {`The sheet “${sheet.title}” is static only.`}
          </p>
        </Paper>
      </Stage>
    );
  const settled = standingDrive(ground, events);
  const drives = drivesOf(ground, events);
  const last = drives.at(-1);
  if (settled)
    return (
      <Stage
        title="Drive"
        next={<NextStage after="drive" say="The vehicle has learned on the road." />}
      >
        <Afterwards drive={drives.find((d) => d.end?.id === settled.id)!} />
      </Stage>
    );
  return (
    <Driving
      key={ground.calibrationId}
      left={last && !last.end ? last.id : null}
      writes={me.role !== "viewer"}
    />
  );
}

/** Before the drive, on it, and at its end. @param left a drive that was begun and not ended */
function Driving({ left, writes }: { left: string | null; writes: boolean }) {
  const { ground, events, me } = useJob();
  const rules = ground.sheet.drive;
  const plans = usePlans(rules);
  const { trip, leave, stop } = useTrip(rules);
  const times = useTimes();
  const [chosen, setChosen] = useState(0);
  const [hotspot, setHotspot] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const [ending, setEnding] = useState<string | null>(null);
  const ended = eventsOf(events, "drive-end").at(-1)?.body;
  const [crew, setCrew] = useState<Crew>({
    drove: ended?.drove ?? "",
    watched: ended?.watched ?? me.name,
  });
  const found = plans.kind === "found" ? plans.plans : [];
  const plan: DrivePlan | undefined = found[chosen] ?? found[0];

  if (trip)
    return (
      <OnTheRoad
        trip={trip}
        others={plans.kind === "found" ? plans.roads : undefined}
        rules={rules!}
        crew={crew}
        gateway={ground.vehicle.gateway}
        onEnd={() => {
          setEnding(trip.driveId);
          stop();
        }}
      />
    );
  const openDrive = ending ?? left;
  if (openDrive && writes) {
    const drive = drivesOf(ground, events).find((d) => d.id === openDrive);
    return (
      <EndDrive
        driveId={openDrive}
        drive={drive ?? null}
        crew={crew}
        onCrew={setCrew}
        onDone={() => setEnding(null)}
      />
    );
  }

  const consent = lastOf(events, "consent");
  const first =
    ground.sheet.method === "static-then-dynamic" &&
    runOf(ground, events).state.status !== "passed";
  const needsNetwork = ground.vehicle.gateway;
  const go = (): void => {
    if (plans.kind !== "found" || !plan) return;
    if (crew.drove.trim().length < 2) return setRefused("Say who drives.");
    if (needsNetwork && !hotspot)
      return setRefused(
        "This vehicle’s gateway hangs on the network: without a hotspot its session ends on the way, and the drive was for nothing. Take one, switch it on, and tick it.",
      );
    leave(plan, plans.forecast, times.zoneHours(new Date(plan.departMs).toISOString()), FASTER);
  };
  const tried = drivesOf(ground, events).filter((d) => d.end);
  return (
    <Stage
      title="Drive"
      next={
        first ? (
          <NextStage after="drive" to="run" tone="loose" say="The static part comes first." />
        ) : (
          <NextBar
            tone="act"
            say={
              plan
                ? `Leave at ${times.clockTime(new Date(plan.departMs).toISOString())}: ${plan.names.slice(0, 3).join(", ")}.`
                : "Drive by what the sheet asks."
            }
            figure={plan ? `${Math.round(plan.seconds / 60)} min` : undefined}
            caution={refused ?? CAUTION}
          >
            {writes && (
              <>
                <Button look="plain" size="large" onClick={() => setEnding(newDriveId())}>
                  Driven by the tool alone
                </Button>
                {plan && (
                  <Button look="act" size="large" onClick={go}>
                    Leave
                  </Button>
                )}
              </>
            )}
          </NextBar>
        )
      }
    >
      <Paper title="Before you leave">
        <div className="mb-2 flex flex-wrap items-center gap-x-8 gap-y-1">
          <p
            className={`flex items-center gap-2 text-lg ${consent ? "" : "font-semibold text-loose"}`}
          >
            <Mark state={consent ? "settled" : "loose"} size={16} />
            {consent
              ? `${consent.body.name} has signed for the drive.`
              : "Nobody has signed for a drive yet: the field for it is on Take in."}
          </p>
          {needsNetwork && (
            <label className="flex min-h-14 items-center gap-3 text-lg">
              <input
                type="checkbox"
                checked={hotspot}
                onChange={(e) => {
                  setHotspot(e.target.checked);
                  setRefused(null);
                }}
                className="size-7 accent-[var(--act)]"
              />
              A hotspot is in the car and on
            </label>
          )}
        </div>
        <CrewFields crew={crew} disabled={!writes} onChange={setCrew} />
      </Paper>
      {rules && (
        <PlanList plans={plans} chosen={found.indexOf(plan!)} onChoose={setChosen}>
          {plan && (
            <DriveMap
              key={plan.departMs}
              legs={plan.legs}
              others={plans.kind === "found" ? plans.roads : undefined}
              at={null}
            />
          )}
        </PlanList>
      )}
      <Paper
        title="What the sheet asks of the drive"
        note={rules ? `${enoughWords(rules)} that count` : undefined}
      >
        {rules ? (
          <ul className="grid gap-x-8 md:grid-cols-2">
            {rules.conditions.map((c) => (
              <li
                key={c.kind}
                className="flex items-baseline justify-between gap-3 border-b border-dashed border-hairline py-2 text-lg"
              >
                <span>{conditionWords(c)}</span>
                <span
                  className={c.breach === "pauses" ? "text-base text-soft" : "text-base text-loose"}
                >
                  {breachWords(c)}
                </span>
              </li>
            ))}
          </ul>
        ) : (
          <p className="max-w-[60ch] text-xl leading-snug">
            The sheet names no figures for its drive. Do it by the maker’s instructions, and write
            down here what the vehicle said.
          </p>
        )}
      </Paper>
      {tried.map((d) => (
        <Afterwards key={d.id} drive={d} />
      ))}
    </Stage>
  );
}

/** The made-up road runs so many times faster than a real one. */
const FASTER = 30;

const newDriveId = (): string => crypto.randomUUID().slice(0, 12);
