"use client";

import { useState } from "react";
import { releaseOf, releaseProblem, STAGES, type ReleaseProblem, type StageId } from "@/core/job";
import { useJob } from "../bench/job-store";
import { ReasonDialog } from "../owed/reason-dialog";
import { Button, ButtonLink } from "../primitives/button";

/** Where work can be sent back to. */
const BACK = ["owed", "ready", "set-out", "run", "prove"] as const;

/** What keeps this person from handing over; null where nothing does. */
export function useReleaseProblem(): ReleaseProblem | null {
  const { ground, events, me } = useJob();
  return releaseProblem(releaseOf(ground, events), me);
}

/** What may be decided of a vehicle that is ready: held back, signed by a second person, handed over. */
export function ReleaseActs() {
  const { ground, events, head, write, me } = useJob();
  const [asking, setAsking] = useState<"hold" | "lift" | null>(null);
  const [stage, setStage] = useState<(typeof BACK)[number] | null>(null);
  const state = releaseOf(ground, events);
  const problem = releaseProblem(state, me);
  const { held, rule, signed } = state;
  const name = (id: StageId): string => STAGES.find((s) => s.id === id)!.name;
  return (
    <>
      {held ? (
        <>
          {held.body.stage && (
            <ButtonLink href={`/jobs/${head.id}/${held.body.stage}`} look="act" size="large">
              {name(held.body.stage)}
            </ButtonLink>
          )}
          <Button look="plain" size="large" onClick={() => setAsking("lift")}>
            Lift the hold
          </Button>
        </>
      ) : (
        <>
          <Button look="quiet" size="large" onClick={() => setAsking("hold")}>
            Hold back
          </Button>
          {rule.second && !signed && (
            <Button look="plain" size="large" onClick={() => write({ kind: "sign-off" })}>
              Sign it
            </Button>
          )}
          <Button
            look="act"
            size="large"
            disabled={problem !== null}
            onClick={() => write({ kind: "hand-over" })}
          >
            Hand over
          </Button>
        </>
      )}
      <ReasonDialog
        open={asking !== null}
        title={asking === "lift" ? "Lift the hold" : "Hold the vehicle back"}
        note={
          asking === "lift"
            ? `Held back by ${held?.by.name ?? ""}: ${held?.body.reason ?? ""}`
            : "Nobody hands it over until the hold is lifted. The reason stands in the log."
        }
        label={asking === "lift" ? "What has changed" : "Why it does not go yet"}
        action={asking === "lift" ? "Lift it" : "Hold it back"}
        more={
          asking === "hold" && (
            <fieldset className="flex flex-wrap items-center gap-2">
              <legend className="mb-1 text-sm font-semibold text-soft">Back to</legend>
              {BACK.map((id) => (
                <Button
                  key={id}
                  type="button"
                  look={stage === id ? "lit" : "tool"}
                  aria-pressed={stage === id}
                  onClick={() => setStage(stage === id ? null : id)}
                >
                  {name(id)}
                </Button>
              ))}
            </fieldset>
          )
        }
        onClose={() => setAsking(null)}
        onReason={(reason) => {
          write(
            asking === "lift" ? { kind: "hold-lifted", reason } : { kind: "hold", reason, stage },
          );
          setAsking(null);
          setStage(null);
        }}
      />
    </>
  );
}
