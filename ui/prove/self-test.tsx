"use client";

import { eventsOf } from "@/core/job";
import { selfTestOf } from "@/core/job/item";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { useCommand } from "../bench/use-command";
import { Answers, FineAnswer } from "../checks/answers";
import { CheckFrame, type CheckPanel } from "../checks/check-frame";
import { Button } from "../primitives/button";
import { Mark } from "../primitives/marks";
import { useTimes } from "../settings";

type Ask = { type: "self-test"; calibrationId: string; itemId: string; told?: boolean };

/** The unit tests itself by its own routine; a shop whose tool speaks to nobody says what it showed. */
export function SelfTest({ item, onArm, onNext }: CheckPanel) {
  const { ground, own: events, me } = useJob();
  const { clockTime } = useTimes();
  const { busy, command } = useCommand<Ask>("scan");
  const last = selfTestOf(events, item.id);
  const tests = eventsOf(events, "scan").flatMap(({ id, at, by, body: { event } }) =>
    event.type === "self-test" && event.itemId === item.id ? [{ id, at, by, event }] : [],
  );
  const ask = (told: boolean): void =>
    void command({
      type: "self-test",
      calibrationId: ground.calibrationId,
      itemId: item.id,
      ...(told && { told }),
    });
  return (
    <CheckFrame
      stage="prove"
      currentId={item.id}
      onArm={onArm}
      panel={
        <section aria-label="Self-tests" className="bg-sheet p-4">
          {tests.length === 0 && <p className="text-lg text-soft">It has not tested itself yet.</p>}
          <ul>
            {tests.toReversed().map(({ id, at, by, event }) => (
              <li
                key={id}
                className="flex items-center gap-3 border-b border-dashed border-hairline py-2 text-lg last:border-0"
              >
                <Mark state={event.passed ? "settled" : "stop"} size={16} />
                <span className="flex-1">{event.says}</span>
                <span className="text-base text-soft">
                  {event.told ? "told, " : ""}
                  {clockTime(at)} {by.initials}
                </span>
              </li>
            ))}
          </ul>
          {me.role !== "viewer" && !last?.passed && (
            <p className="mt-3 flex flex-wrap items-center gap-x-3 border-t border-hairline pt-3 text-base text-soft">
              Tested on the shop’s own tool, which speaks to nobody?
              <Button look="plain" disabled={busy !== null} onClick={() => ask(true)}>
                It is content there
              </Button>
            </p>
          )}
        </section>
      }
      next={
        <NextBar
          tone={last && !last.passed ? "loose" : "act"}
          say={last ? (last.passed ? item.ask : last.says) : item.ask}
          detail={item.why}
        >
          {me.role !== "viewer" && (
            <Answers stage="prove" itemId={item.id} ask={item.ask} onAnswered={onNext}>
              {last?.passed ? (
                <FineAnswer stage="prove" itemId={item.id} onAnswered={onNext} />
              ) : (
                <Button look="act" size="large" disabled={busy !== null} onClick={() => ask(false)}>
                  {busy ? "Testing" : last ? "Test again" : "Start the self-test"}
                </Button>
              )}
            </Answers>
          )}
        </NextBar>
      }
    />
  );
}
