"use client";

import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import {
  codesAfter,
  eventsOf,
  itemOf,
  itemSettled,
  scanLogOf,
  wordKey,
  type CodesAfter,
} from "@/core/job";
import {
  askedOf,
  CODE_CHANGES,
  scanState,
  UNIT_CHANGES,
  type Asked,
  type UnitRow,
} from "@/core/scan";
import { useJob } from "../bench/job-store";
import { NextBar } from "../bench/next-bar";
import { useCommand } from "../bench/use-command";
import { Answers, FineAnswer } from "../checks/answers";
import { CheckFrame, type CheckPanel } from "../checks/check-frame";
import { Button, ButtonLink } from "../primitives/button";
import { Gateway, type ScanCommand } from "../ready/scan-panel";
import { CodeTable } from "../scan/code-table";
import { useTimes } from "../settings";
import { shopQueries } from "../shop-queries";

/**
 * The control units after the routine against what they said before: what is gone, what stayed, what
 * came, who fell silent; each that matters wants a word before the vehicle goes.
 */
export function CodesCheck({ item, onArm, onNext }: CheckPanel) {
  const { ground, own: events, head, me } = useJob();
  const { busy, command } = useCommand<ScanCommand>("scan");
  const codes = codesAfter(ground, events);
  const ran = events.some((e) => e.body.kind === "run" && e.body.event.type === "routine-result");
  const { last, gateway } = scanState(scanLogOf(events), ground.vehicle.gateway);
  const stored = last?.modules.some((m) => m.codes.length > 0) ?? false;
  const missing = codes?.missing.length ?? 0;
  useSelfAccepted(item.id, codes, onNext);
  useReadAfterClearing(codes, busy, () => void command("read"));
  const say = !ran
    ? "The routine has not run yet: what is read now is from before it."
    : !codes?.after
      ? stored && !codes?.cleared
        ? gateway === "locked"
          ? "The gateway is locked: sign in to it, then clear the codes."
          : "Clear the codes, then read all control units again."
        : "Read all control units again, after the routine."
      : missing > 0
        ? `${missing === 1 ? "One line needs" : `${missing} lines need`} a word.`
        : item.ask;
  return (
    <CheckFrame
      stage="prove"
      currentId={item.id}
      onArm={onArm}
      panel={<CodesPanel codes={codes} />}
      next={
        <NextBar
          tone={missing > 0 ? "loose" : "act"}
          say={say}
          detail={
            missing > 0
              ? "What it is, and why the vehicle may go with it: it stands on the report."
              : item.why
          }
        >
          {me.role !== "viewer" && (
            <Answers stage="prove" itemId={item.id} ask={item.ask} onAnswered={onNext}>
              {!ran ? (
                <ButtonLink href={`/jobs/${head.id}/run`} look="act" size="large">
                  5 Run
                </ButtonLink>
              ) : !codes?.after ? (
                <>
                  {stored && !codes?.cleared ? (
                    <Button
                      look="act"
                      size="large"
                      disabled={busy !== null || gateway === "locked"}
                      onClick={() => void command("clear")}
                    >
                      {busy === "clear" ? "Clearing" : "Clear codes"}
                    </Button>
                  ) : (
                    <Button
                      look="act"
                      size="large"
                      disabled={busy !== null}
                      onClick={() => void command("read")}
                    >
                      {busy === "read" ? "Scanning" : "Scan all control units"}
                    </Button>
                  )}
                </>
              ) : (
                <FineAnswer
                  stage="prove"
                  itemId={item.id}
                  disabled={missing > 0}
                  onAnswered={onNext}
                />
              )}
            </Answers>
          )}
        </NextBar>
      }
    />
  );
}

/** Once they are cleared, reading them again is what comes next: the tool does it by itself, once. */
function useReadAfterClearing(
  codes: CodesAfter | null,
  busy: string | null,
  read: () => void,
): void {
  const { own: events, me } = useJob();
  const done = useRef<string | null>(null);
  const last = eventsOf(events, "scan").at(-1);
  const due =
    codes !== null &&
    codes.after === null &&
    busy === null &&
    last?.body.event.type === "cleared" &&
    last.by.id === me.id;
  useEffect(() => {
    if (!due || done.current === last!.id) return;
    done.current = last!.id;
    read();
  }, [due, last, read]);
}

/**
 * What was read again for this person and has nothing in it that anybody has to say a word about needs
 * nobody to say so. The line says who had it read.
 */
function useSelfAccepted(itemId: string, codes: CodesAfter | null, onNext: () => void): void {
  const { ground, own: events, write, me } = useJob();
  const written = useRef<string | null>(null);
  const read = eventsOf(events, "scan").findLast((e) => e.body.event.type === "read");
  const item = itemOf(ground, "prove", itemId);
  const due =
    codes?.after != null &&
    codes.units.flatMap(askedOf).length === 0 &&
    read?.by.id === me.id &&
    me.role !== "viewer" &&
    item !== undefined &&
    !itemSettled(ground, events, "prove", item);
  useEffect(() => {
    if (!due || written.current === read!.id) return;
    // Once only, while the line is on its way.
    written.current = read!.id;
    write({ kind: "check", stage: "prove", itemId, outcome: "fine", reason: null });
    onNext();
  }, [due, itemId, onNext, read, write]);
}

/** The comparison: what needs a word first, then unit by unit. */
function CodesPanel({ codes }: { codes: CodesAfter | null }) {
  const { clockTime } = useTimes();
  const { ground, own: events, me } = useJob();
  const { busy, command } = useCommand<ScanCommand>("scan");
  const known = useKnownWords(codes);
  const s = scanState(scanLogOf(events), ground.vehicle.gateway);
  if (!codes)
    return (
      <p className="text-lg text-soft">
        Nobody has read the control units yet. Before the work they are read under Ready.
      </p>
    );
  const asked = (codes.after ? codes.units : []).flatMap((u) =>
    askedOf(u).map((a) => ({ asked: a, unit: u })),
  );
  return (
    <div className="flex flex-col gap-4">
      <Gateway state={s} busy={busy} command={command} />
      {s.trouble && (
        <p role="alert" className="text-lg text-loose">
          {s.trouble}
        </p>
      )}
      <p className="text-base text-soft">
        {codes.before
          ? `First read ${clockTime(codes.before.at)}`
          : "Nobody read before the work: what stands now cannot be told from what stood before"}
        {codes.after
          ? `, read again ${clockTime(codes.after.at)}. ${codes.cleared ? "Codes were cleared in between." : "Nothing was cleared since the routine."}`
          : ". Not read again since the routine."}
      </p>
      {asked.length > 0 && (
        <ul className="flex flex-col gap-2" aria-label="What needs a word">
          {asked.map(({ asked: a, unit }) => (
            <WordRow
              key={wordKey(a)}
              asked={a}
              unit={unit}
              said={codes.words.get(wordKey(a))?.body.word ?? null}
              known={(a.code && known[a.code]) || []}
              readOnly={me.role === "viewer"}
            />
          ))}
        </ul>
      )}
      <CodeTable units={codes.units} changes={codes.after !== null} />
      {me.role !== "viewer" && (codes.after !== null || !codes.cleared) && (
        <p className="flex flex-wrap gap-2">
          {(codes.after ? (["clear", "read"] as const) : (["read"] as const)).map((what) => (
            <Button
              key={what}
              look="quiet"
              disabled={busy !== null}
              onClick={() => void command(what)}
            >
              {what === "clear"
                ? "Clear codes"
                : codes.after
                  ? "Scan again"
                  : "Read without clearing"}
            </Button>
          ))}
        </p>
      )}
    </div>
  );
}

/** One line that needs a word: typed, or taken from what the shop said of this code before. */
function WordRow({
  asked,
  unit,
  said,
  known,
  readOnly,
}: {
  asked: Asked;
  unit: UnitRow;
  said: string | null;
  known: readonly string[];
  readOnly: boolean;
}) {
  const { write } = useJob();
  const [text, setText] = useState("");
  const code = unit.codes.find((c) => c.code === asked.code);
  const keep = (word: string): void => {
    if (word.trim().length < 3) return;
    write({ kind: "code-word", unit: asked.unit, code: asked.code, word: word.trim() });
    setText("");
  };
  const name = code ? code.code : unit.name;
  return (
    <li
      className={`border-l-4 bg-sheet px-4 py-3 ${said ? "border-settled" : "border-dashed border-loose"}`}
    >
      <p className="flex flex-wrap items-baseline gap-x-3 text-lg">
        <b className={code ? "figure" : ""}>{name}</b>
        <span className="min-w-0 grow">{code ? `${unit.name}: ${code.text}` : ""}</span>
        <span className="text-base text-loose">
          {code
            ? `${code.after ?? code.before}, ${CODE_CHANGES[code.change]}`
            : UNIT_CHANGES[unit.change]}
        </span>
      </p>
      {said ? (
        <p className="mt-1 text-lg">“{said}”</p>
      ) : (
        !readOnly && (
          <form
            className="mt-2 flex flex-col gap-2"
            onSubmit={(e) => {
              e.preventDefault();
              keep(text);
            }}
          >
            <span className="flex gap-2">
              <input
                value={text}
                maxLength={400}
                onChange={(e) => setText(e.target.value)}
                aria-label={`A word on ${name}`}
                placeholder="What it is, and why it may stay"
                className="min-h-12 min-w-0 grow border-b-2 border-ink bg-transparent px-1 text-lg"
              />
              <Button look="plain" type="submit" disabled={text.trim().length < 3}>
                Keep
              </Button>
            </span>
            {known.length > 0 && (
              <span className="flex flex-wrap items-center gap-2 text-base text-soft">
                Said before:
                {known.map((word) => (
                  <Button key={word} look="tool" onClick={() => keep(word)}>
                    {word}
                  </Button>
                ))}
              </span>
            )}
          </form>
        )
      )}
    </li>
  );
}

/** What the shop has said before of the codes that stand here. */
function useKnownWords(codes: CodesAfter | null): Record<string, string[]> {
  const { head } = useJob();
  const asked = [...new Set(codes?.missing.flatMap((a) => a.code ?? []) ?? [])];
  const query = useQuery(
    {
      queryKey: ["code-words", head.id, asked.join()],
      enabled: asked.length > 0,
      queryFn: async (): Promise<Record<string, string[]>> => {
        const list = new URLSearchParams(asked.map((c) => ["code", c]));
        const response = await fetch(`/api/jobs/${head.id}/code-words?${list}`);
        if (!response.ok) throw new Error(`The shop answers ${response.status}.`);
        return (await response.json()) as Record<string, string[]>;
      },
    },
    shopQueries(),
  );
  return query.data ?? {};
}
