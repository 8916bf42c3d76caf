"use client";

import { useState } from "react";
import { lastOf } from "@/core/job";
import { roadLacks, roadTrials, type RoadTrial } from "@/core/job/road-check";
import { trialBecause, TRIALS } from "@/core/job/road-words";
import { ROAD_RESULTS, type RoadResult } from "@/core/job/walk";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { WordsBar } from "../bench/words-bar";
import { Answers, FineAnswer } from "../checks/answers";
import { CheckFrame, type CheckPanel } from "../checks/check-frame";
import { CrewFields } from "../checks/crew";
import { Button } from "../primitives/button";
import { Mark } from "../primitives/marks";

const CAUTION =
  "One drives, another watches. Try it only where no one else is put at risk; traffic law and the maker’s instructions come first.";

/** Every function that hangs on what was calibrated, one after another, and then its own setting. */
export function RoadCheck({ item, onArm, onNext }: CheckPanel) {
  const { ground, events, me, write } = useJob();
  const [chosen, setChosen] = useState<string | null>(null);
  const [asking, setAsking] = useState<RoadResult | null>(null);
  const last = lastOf(events, "road-check")?.body;
  const [crew, setCrew] = useState({ drove: last?.drove ?? me.name, watched: last?.watched ?? "" });
  const trials = roadTrials(ground, events);
  const untried = trials.filter((t) => t.said === null);
  const current = trials.find((t) => t.id === chosen) ?? untried[0];
  const away = trials.filter((t) => t.found !== null && t.said && !t.said.body.putBack);
  const lacks = roadLacks(trials);
  const works = (t: RoadTrial): boolean => t.said?.body.result === "works";
  const fine = {
    kind: "check",
    stage: "prove",
    itemId: item.id,
    outcome: "fine",
    reason: null,
  } as const;
  /** The last of them that works, with nothing to put back, answers the item: that needs no tap of its own. */
  const answered = (done: boolean) => (done ? [fine] : []);
  const trialOf = (t: RoadTrial, result: RoadResult, remark: string) =>
    ({
      kind: "road-check",
      functionId: t.id,
      result,
      remark,
      ...crew,
      // What nobody wrote down cannot be put back.
      putBack: t.found === null,
    }) as const;
  const say = (of: readonly RoadTrial[], result: RoadResult, words: string): void => {
    const done =
      result === "works" &&
      away.length === 0 &&
      trials.every((x) => (of.includes(x) ? x.found === null : works(x)));
    write(...of.map((t) => trialOf(t, result, words)), ...answered(done));
    setChosen(null);
    setAsking(null);
    if (done) onNext();
  };
  const putBack = (): void => {
    const done = trials.every(works);
    write(
      ...away.map((t) => {
        const { kind, functionId, result, remark: kept, drove, watched } = t.said!.body;
        return { kind, functionId, result, remark: kept, drove, watched, putBack: true };
      }),
      ...answered(done),
    );
    if (done) onNext();
  };
  const writes = me.role !== "viewer";
  const answers = (
    <Answers stage="prove" itemId={item.id} ask={item.ask} onAnswered={onNext}>
      {!current && lacks === null && (
        <FineAnswer stage="prove" itemId={item.id} onAnswered={onNext} />
      )}
    </Answers>
  );
  return (
    <CheckFrame
      stage="prove"
      currentId={item.id}
      onArm={onArm}
      panel={
        <Trials trials={trials} currentId={current?.id ?? null} onChoose={setChosen}>
          <CrewFields crew={crew} disabled={!writes} onChange={setCrew} />
        </Trials>
      }
      next={
        current && asking ? (
          <WordsBar
            say={
              asking === "fails"
                ? `${current.name}: how did it do?`
                : `${current.name}: why is it not tried?`
            }
            detail="It stands on the report, and the customer is told."
            label="Remark"
            action="Keep it"
            most={400}
            onBack={() => setAsking(null)}
            onWords={(words) => say([current], asking, words)}
          />
        ) : current ? (
          <NextBar
            say={`${current.name}: set it to ${TRIALS[current.id].setting}.`}
            caution={CAUTION}
            detail={TRIALS[current.id].how}
          >
            {writes && (
              <>
                <Button look="quiet" size="large" onClick={() => setAsking("untried")}>
                  Not tried
                </Button>
                <Button look="plain" size="large" onClick={() => setAsking("fails")}>
                  It does not
                </Button>
                {chosen === null && untried.length > 1 && (
                  <Button look="plain" size="large" onClick={() => say(untried, "works", "")}>
                    All {untried.length} work
                  </Button>
                )}
                <Button look="act" size="large" onClick={() => say([current], "works", "")}>
                  It works
                </Button>
              </>
            )}
          </NextBar>
        ) : away.length > 0 ? (
          <NextBar
            tone="loose"
            say={`Put back as the customer had it: ${away.map((t) => `${t.name} ${t.found}`).join(", ")}.`}
            detail="As it was found when the vehicle came in."
          >
            {writes && (
              <Button look="act" size="large" onClick={putBack}>
                All put back
              </Button>
            )}
          </NextBar>
        ) : (
          <NextBar tone={lacks ? "loose" : "act"} say={lacks ?? item.ask} detail={item.why}>
            {writes && answers}
          </NextBar>
        )
      }
    />
  );
}

function Trials({
  trials,
  currentId,
  onChoose,
  children,
}: {
  trials: readonly RoadTrial[];
  currentId: string | null;
  onChoose: (id: string) => void;
  children: React.ReactNode;
}) {
  return (
    <section aria-label="Functions to try" className="bg-sheet p-4">
      {children}
      {trials.length === 0 && (
        <p className="text-lg text-soft">Nothing of what was calibrated shows on the road.</p>
      )}
      <ul className="flex flex-col">
        {trials.map((t) => {
          const result = t.said?.body.result;
          return (
            <li key={t.id} className="border-b border-dashed border-hairline last:border-0">
              <button
                type="button"
                aria-current={t.id === currentId ? "step" : undefined}
                onClick={() => onChoose(t.id)}
                className={`grid w-full grid-cols-[1fr_auto] items-center gap-3 border-l-4 px-3 py-2.5 text-left hover:bg-wash ${t.id === currentId ? "border-act" : "border-transparent"}`}
              >
                <span>
                  <b className="block text-lg font-semibold">{t.name}</b>
                  <span className="block text-base text-soft">
                    {trialBecause(t)}
                    {t.found ? `; the customer has it ${t.found}` : ""}
                    {t.said?.body.remark ? `. ${t.said.body.remark}` : ""}
                  </span>
                </span>
                <span className="flex items-center gap-2 text-base">
                  {result ? ROAD_RESULTS[result] : "to be tried"}
                  {t.said && t.found && (t.said.body.putBack ? ", put back" : ", not put back")}
                  <Mark
                    state={
                      result === "works"
                        ? "settled"
                        : result === "fails"
                          ? "stop"
                          : result
                            ? "loose"
                            : "open"
                    }
                    size={16}
                  />
                </span>
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
