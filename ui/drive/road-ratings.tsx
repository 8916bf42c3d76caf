"use client";

import { useEffect, useState } from "react";
import type { LoggedSample } from "@/core/drive/log";
import type { RoadRating } from "@/core/drive/rate";
import type { Road, RoadLine } from "@/core/drive/road";
import { formatNumber } from "@/core/units";
import { Button } from "../primitives/button";
import { Paper } from "../primitives/paper";
import { useTimes } from "../settings";

const percent = ({ seen }: RoadLine): string => `${formatNumber(100 * seen, 0)} %`;
const lineWords = (line: RoadLine): string =>
  line.kind === "none" ? "none" : `${line.kind} ${percent(line)}`;
/** What is the same of a line before and after is said once. */
const changeWords = (was: RoadLine, is: RoadLine): [before: string, after: string] =>
  was.kind !== is.kind || is.kind === "none"
    ? [lineWords(was), lineWords(is)]
    : [`${is.kind} ${formatNumber(100 * was.seen, 0)}`, percent(is)];

/** By how much a line has to be known otherwise to be worth a word. */
const CHANGE = 0.03;
const changes = ({ was, is }: RoadRating): boolean =>
  (["left", "right"] as const).some(
    (s) => was[s].kind !== is[s].kind || Math.abs(was[s].seen - is[s].seen) >= CHANGE,
  );
const SHOWN = 8;

type State =
  | { kind: "looking" | "none" | "silent" }
  | { kind: "found"; ratings: RoadRating[] }
  | { kind: "kept"; count: number };

/** What a drive tells of the roads, to be taken over or left: the next drive is planned with it. */
export function RoadRatings({
  samples,
  writes,
}: {
  samples: readonly LoggedSample[];
  writes: boolean;
}) {
  const [state, setState] = useState<State>({ kind: "looking" });
  const [left, setLeft] = useState<readonly string[]>([]);
  const { day } = useTimes();
  useEffect(() => {
    let gone = false;
    const look = async (): Promise<void> => {
      const [answer, { ratingsFrom }] = await Promise.all([
        fetch("/api/roads"),
        import("@/core/drive/rate"),
      ]);
      if (!answer.ok) throw new Error("no roads");
      const { roads } = (await answer.json()) as { roads: { roads: Road[] } | null };
      if (gone) return;
      const ratings = ratingsFrom(roads?.roads ?? [], samples, (ms) =>
        day(new Date(ms).toISOString()),
      );
      setState(ratings.length > 0 ? { kind: "found", ratings } : { kind: "none" });
    };
    look().catch(() => !gone && setState({ kind: "silent" }));
    return () => void (gone = true);
    // The log of a drive that is over does not change.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [day]);
  if (state.kind === "looking" || state.kind === "none") return null;
  if (state.kind !== "found")
    return (
      <Paper title="What it tells of the roads">
        <p className="text-lg text-soft" role="status">
          {state.kind === "kept"
            ? `${state.count} roads are known anew. Drives are planned with it from now on.`
            : "The shop does not answer. Look again when it is back; nothing is lost."}
        </p>
      </Paper>
    );
  const { ratings } = state;
  const keyOf = (r: RoadRating): string => `${r.roadId}/${r.back}`;
  const taken = ratings.filter((r) => !left.includes(keyOf(r)));
  const shown = ratings.filter(changes).slice(0, SHOWN);
  const keep = async (): Promise<void> => {
    const body = taken.map(({ roadId, back, is }) => ({ roadId, back, is }));
    const answer = await fetch("/api/roads/ratings", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ ratings: body }),
    }).catch(() => null);
    setState(answer?.ok ? { kind: "kept", count: taken.length } : { kind: "silent" });
  };
  return (
    <Paper
      title="What it tells of the roads"
      note={`${ratings.length} roads driven, ${ratings.filter(changes).length} otherwise than known`}
    >
      <ul aria-label="Roads" className="flex flex-col">
        {shown.map((r) => (
          <li
            key={keyOf(r)}
            className="grid grid-cols-[auto_1fr] items-center gap-x-4 border-b border-dashed border-hairline py-1 text-lg md:grid-cols-[auto_1.2fr_1fr_1fr]"
          >
            <input
              type="checkbox"
              aria-label={`Take over ${r.name}`}
              checked={!left.includes(keyOf(r))}
              disabled={!writes}
              onChange={(e) =>
                setLeft(e.target.checked ? left.filter((k) => k !== keyOf(r)) : [...left, keyOf(r)])
              }
              className="size-7 accent-[var(--act)]"
            />
            <span>
              {r.name}
              {r.back && <span className="text-base text-soft">, the other way</span>}
            </span>
            {(["left", "right"] as const).map((side) => {
              const [before, after] = changeWords(r.was[side], r.is[side]);
              return (
                <span key={side} className="col-start-2 text-base md:col-start-auto">
                  <span className="text-soft">
                    {side} {before} →
                  </span>{" "}
                  <b className="whitespace-nowrap font-semibold">{after}</b>
                </span>
              );
            })}
          </li>
        ))}
      </ul>
      {shown.length === 0 && (
        <p className="text-lg text-soft">The lines are as they were known; their day is new.</p>
      )}
      {ratings.filter(changes).length > SHOWN && (
        <p className="mt-2 text-base text-soft">
          And {ratings.filter(changes).length - SHOWN} shorter ones, taken over with them.
        </p>
      )}
      {writes && (
        <Button className="mt-3" disabled={taken.length === 0} onClick={() => void keep()}>
          Take over {taken.length} roads
        </Button>
      )}
    </Paper>
  );
}
