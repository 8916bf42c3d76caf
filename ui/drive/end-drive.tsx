"use client";

import { useState } from "react";
import { vehicleSays } from "@/core/drive/words";
import type { FileProblem } from "@/core/drive/geojson";
import type { Driven } from "@/core/job/driven";
import { Stage } from "../bench/bench";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { WordsBar } from "../bench/words-bar";
import { CrewFields, type Crew } from "../checks/crew";
import { Button } from "../primitives/button";
import { FileButton } from "../primitives/file-button";
import { Field } from "../primitives/field";
import { Paper } from "../primitives/paper";
import { Afterwards } from "./afterwards";
import { partsOf } from "./parts";

/** A drive that is over: what the vehicle said, and who was in the car. */
export function EndDrive({
  driveId,
  drive,
  crew,
  onCrew,
  onDone,
}: {
  driveId: string;
  /** Null where nothing was logged: the shop's own tool did it. */
  drive: Driven | null;
  crew: Crew;
  onCrew: (crew: Crew) => void;
  onDone: () => void;
}) {
  const { ground, write } = useJob();
  const rules = ground.sheet.drive;
  const counted = drive?.progress ?? null;
  const showed = rules && counted ? vehicleSays(rules, counted) : "";
  const [says, setSays] = useState(showed);
  const [why, setWhy] = useState(false);
  const [problems, setProblems] = useState<FileProblem[]>([]);
  const end = (outcome: "learned" | "timed-out" | "given-up", remark: string): void => {
    write({
      kind: "drive-end",
      calibrationId: ground.calibrationId,
      driveId,
      outcome,
      says: says.trim(),
      remark,
      drove: crew.drove.trim(),
      watched: crew.watched.trim(),
    });
    onDone();
  };
  const takeLog = async (text: string): Promise<void> => {
    const { trackFromCsv, trackFromGpx } = await import("@/core/drive/track-file");
    const read = /^\s*</.test(text) ? trackFromGpx(text, null) : trackFromCsv(text, null);
    setProblems(read.ok ? [] : read.problems);
    if (read.ok) write(...partsOf(driveId, ground.calibrationId, read.samples));
  };
  const lacks = crew.drove.trim().length < 2 ? "Say who drove." : null;
  const learned = counted === null || counted.status === "done";
  return (
    <Stage
      title="Drive"
      next={
        why ? (
          <WordsBar
            say="Why did it end?"
            detail="It stands on the report; the next drive is planned anew."
            label="Reason"
            action="Keep it"
            most={400}
            onBack={() => setWhy(false)}
            onWords={(words) =>
              end(counted?.status === "timed-out" ? "timed-out" : "given-up", words)
            }
          />
        ) : (
          <NextBar
            tone={learned ? "act" : "loose"}
            say={
              learned
                ? "Does the vehicle say that it has learned?"
                : "By our count it has not gathered enough."
            }
            detail={lacks ?? "The vehicle’s own word decides."}
          >
            <Button
              look={learned ? "plain" : "act"}
              size="large"
              disabled={lacks !== null}
              onClick={() => setWhy(true)}
            >
              It has not
            </Button>
            <Button
              look={learned ? "act" : "plain"}
              size="large"
              disabled={lacks !== null}
              onClick={() => end("learned", "")}
            >
              It has learned
            </Button>
          </NextBar>
        )
      }
    >
      <Paper title="The drive is over">
        <CrewFields crew={crew} onChange={onCrew} />
        <Field
          label="What the vehicle showed"
          value={says}
          maxLength={120}
          onChange={(e) => setSays(e.target.value)}
        />
      </Paper>
      {drive && drive.samples.length > 0 ? (
        <Afterwards drive={drive} />
      ) : (
        <Paper title="A log of it" note="GPX, or a table with times and speeds">
          <p className="mb-3 max-w-[60ch] text-lg">
            A receiver or a telephone that logged the drive tells how much of it counted. What its
            log does not say is not counted and named.
          </p>
          <FileButton
            noun="drive log"
            accept=".gpx,.csv,.txt,application/gpx+xml,text/csv"
            say="Take a log"
            onText={(text) => void takeLog(text)}
          />
          {problems.map((x) => (
            <p key={x.where} role="alert" className="mt-2 text-lg text-stop">
              <b className="font-semibold">{x.where}</b> {x.say}
            </p>
          ))}
        </Paper>
      )}
    </Stage>
  );
}
