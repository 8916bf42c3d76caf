"use client";

import dynamic from "next/dynamic";
import { useRef, useState } from "react";
import { eventsOf, lastOf, runOf } from "@/core/job";
import { drivesOf } from "@/core/job/driven";
import { standingDrive } from "@/core/job/standing-drive";
import { bayFirst } from "@/core/sheet/methods";
import { breachWords, conditionWords, enoughWords } from "@/core/drive/words";
import { looksOf } from "@/core/drive/look";
import { ANY_DRIVE, leavingProblem, mayKeep } from "@/core/drive/policy";
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
import { BayOrRoad } from "./bay-or-road";
import { EndDrive } from "./end-drive";
import { OnTheRoad } from "./on-the-road";
import { FAST, LeaveFields, type Said, type Source } from "./leave-fields";
import { RoadRatings } from "./road-ratings";
import { PlanList, type Choice } from "./plan-list";
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
  const inBay =
    sheet.method === "static-or-dynamic" && runOf(ground, events).state.status === "passed";
  const drives = drivesOf(ground, events);
  const last = drives.at(-1);
  if (!settled && inBay)
    return (
      <Stage title="Drive" next={<NextStage after="drive" say="No drive is needed." />}>
        <Paper title="It has passed in the bay">
          <p className="max-w-[60ch] text-xl leading-snug">
            The sheet asks for the bay or the road; the vehicle has learned in the bay.
          </p>
        </Paper>
      </Stage>
    );
  if (settled)
    return (
      <Stage
        title="Drive"
        next={<NextStage after="drive" say="The vehicle has learned on the road." />}
      >
        <Afterwards drive={drives.find((d) => d.end?.id === settled.id)!} />
        <RoadRatings
          key={settled.id}
          samples={drives.find((d) => d.end?.id === settled.id)!.samples}
          writes={me.role !== "viewer"}
        />
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
  const { ground, events, me, head } = useJob();
  const rules = ground.sheet.drive;
  const plans = usePlans(rules, looksOf(ground.sheet.appliesTo.system));
  const { trip, leave, stop, say } = useTrip(rules);
  const times = useTimes();
  const allowed = mayKeep(rules?.keeps, ground.drivePolicy ?? ANY_DRIVE);
  const [choice, setChoice] = useState<Choice | null>(null);
  const [told, setTold] = useState<Omit<Said, "rains"> & { rains: boolean | null }>({
    keeps: allowed.length === 1 ? allowed[0]! : null,
    hotspot: false,
    rains: null,
    rainReason: "",
  });
  const [source, setSource] = useState<Source>(head.simulated ? FAST : { kind: "tablet" });
  const fields = useRef<HTMLDivElement>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const [ending, setEnding] = useState<string | null>(null);
  const before = eventsOf(events, "drive-leave").at(-1) ?? eventsOf(events, "drive-end").at(-1);
  const [crew, setCrew] = useState<Crew>({
    drove: before?.body.drove ?? "",
    watched: before?.body.watched ?? me.name,
  });
  const hours = plans.kind === "found" ? plans.hours.filter((h) => h.plans.length > 0) : [];
  const hour = hours.find((h) => h.departMs === choice?.departMs) ?? hours[0];
  const plan = hour?.plans[choice?.nth ?? 0] ?? hour?.plans[0];
  // What is foretold is only a proposal: whoever stands there looks at the sky.
  const said: Said = { ...told, rains: told.rains ?? (hour?.rain ?? 0) >= 0.5 };

  if (trip)
    return (
      <OnTheRoad
        trip={trip}
        plans={plans}
        rules={rules!}
        crew={crew}
        gateway={ground.vehicle.gateway}
        onSay={say}
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
  const first = bayFirst(ground.sheet.method) && runOf(ground, events).state.status !== "passed";
  const { gateway } = ground.vehicle;
  // Without a plan one drives by the conditions, with the tablet's own receiver.
  const mayLeave = rules && (plan ?? source.kind === "tablet");
  const go = (): void => {
    const problem = leavingProblem(
      { ...said, drove: crew.drove },
      { gateway, keeps: rules?.keeps, policy: ground.drivePolicy ?? ANY_DRIVE },
    );
    setRefused(problem);
    // What is lacking is where it can be said.
    if (problem) return fields.current?.scrollIntoView({ block: "center" });
    leave({
      plan: plan ?? null,
      forecast: plans.kind === "found" ? plans.forecast : [],
      zoneHours: plan ? times.zoneHours(new Date(plan.departMs).toISOString()) : 0,
      source,
      said,
      crew,
    });
  };
  const tried = drivesOf(ground, events).filter((d) => d.end);
  return (
    <Stage
      title="Drive"
      next={
        first ? (
          <NextStage
            after="drive"
            to="run"
            tone="loose"
            say={
              ground.sheet.method === "dynamic"
                ? "Run comes first: there the vehicle is made ready to learn."
                : "The static part comes first."
            }
          />
        ) : (
          <NextBar
            tone="act"
            say={
              plan
                ? `Leave at ${times.clockTime(new Date(plan.departMs).toISOString())}: ${plan.names.slice(0, 2).join(", ")}.`
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
                {mayLeave && (
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
      {ground.sheet.method === "static-or-dynamic" && rules && <BayOrRoad plans={plans} />}
      {rules && (
        <PlanList
          plans={plans}
          choice={plan ? { departMs: plan.departMs, nth: hour!.plans.indexOf(plan) } : null}
          onChoose={setChoice}
        >
          {plan && plans.kind === "found" && (
            <DriveMap legs={plan.legs} others={plans.roads} at={null} />
          )}
        </PlanList>
      )}
      <div ref={fields}>
        <Paper title="Before you leave">
          <p
            className={`mb-2 flex items-center gap-2 text-lg ${consent ? "" : "font-semibold text-loose"}`}
          >
            <Mark state={consent ? "settled" : "loose"} size={16} />
            {consent
              ? `${consent.body.name} has signed for the drive.`
              : "Nobody has signed for a drive yet: the field for it is on Take in."}
          </p>
          <CrewFields crew={crew} disabled={!writes} onChange={setCrew} />
          {rules && (
            <LeaveFields
              said={said}
              allowed={allowed}
              gateway={gateway}
              source={source}
              simulated={head.simulated}
              disabled={!writes}
              onChange={(s) => {
                setTold(s);
                setRefused(null);
              }}
              onSource={setSource}
            />
          )}
        </Paper>
      </div>
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

const newDriveId = (): string => crypto.randomUUID().slice(0, 12);
