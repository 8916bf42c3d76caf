"use client";

import { useMemo, useState } from "react";
import {
  Area,
  ComposedChart,
  Line,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from "recharts";
import type { LoggedSample } from "@/core/drive/log";
import type { RoadPlace } from "@/core/drive/road";
import type { DriveRules } from "@/core/drive/rules";
import { SPEED_UNITS } from "@/core/drive/speed-units";
import { stretchesOf, type Stretch } from "@/core/drive/stretches";
import { CAUSES } from "@/core/job/driven";
import { formatNumber } from "@/core/units";
import { AXIS, TIP } from "../primitives/chart";
import { DriveMap, type Driven } from "./drive-map";

/** So many points are drawn at most: more nobody tells apart. */
const POINTS = 600;

const clock = (s: number): string =>
  `${Math.floor(s / 60)}:${String(Math.round(s % 60)).padStart(2, "0")}`;

type Point = {
  /** Seconds since it began. */
  s: number;
  speed: number | null;
  /** How far the sun is off the lens, degrees; no more than half a circle is worth drawing. */
  sun: number | null;
  lines: number | null;
  counted: number;
  place: RoadPlace | null;
  why: string;
};

/** What was driven by whether it counted, for the map. */
function drivenParts(samples: readonly LoggedSample[], stretches: readonly Stretch[]): Driven[] {
  const parts: Driven[] = [];
  const after = stretches.at(-1)?.toMs ?? 0;
  let n = 0;
  for (const { atMs, place } of samples) {
    if (!place) continue;
    while (n < stretches.length - 1 && atMs >= stretches[n]!.toMs) n++;
    const counted = atMs < after && stretches[n]?.cause === null;
    const last = parts.at(-1);
    if (last && last.counted === counted) (last.points as RoadPlace[]).push(place);
    else parts.push({ counted, points: [...(last?.points.slice(-1) ?? []), place] });
  }
  return parts;
}

/** Seconds that had counted at each moment of a drive, and why it did or did not. */
function gatheredAt(
  { stretches, losses }: ReturnType<typeof stretchesOf>,
  times: readonly number[],
): { counted: number; why: string }[] {
  let [n, gathered, lost, from] = [0, 0, 0, -Infinity];
  return times.map((atMs) => {
    while (n < stretches.length && atMs >= stretches[n]!.toMs) {
      const { cause, fromMs, toMs } = stretches[n]!;
      if (cause === null) gathered += toMs - Math.max(from, fromMs);
      n++;
    }
    while (lost < losses.length && losses[lost]!.atMs <= atMs)
      [gathered, from] = [0, losses[lost++]!.atMs];
    const is = stretches[n];
    const now = is?.cause === null ? Math.max(0, atMs - Math.max(from, is.fromMs)) : 0;
    const why = !is ? "it was done" : is.cause === null ? "it counted" : CAUSES[is.cause];
    return { counted: (gathered + now) / 1000, why };
  });
}

/** What is drawn of a drive. */
function drawn(
  rules: DriveRules,
  samples: readonly LoggedSample[],
  mps: number,
): { points: Point[]; parts: Driven[]; losses: number[] } {
  const looked = stretchesOf(rules, samples);
  const from = samples[0]!.atMs;
  const every = Math.max(1, Math.ceil(samples.length / POINTS));
  const some = samples.filter((_, i) => i % every === 0);
  const gathered = gatheredAt(
    looked,
    some.map((s) => s.atMs),
  );
  const points = some.map((s, i): Point => ({
    s: (s.atMs - from) / 1000,
    speed: s.speedMps === null ? null : s.speedMps / mps,
    sun: s.sunOffDeg === null ? null : Math.min(90, s.sunOffDeg),
    lines: s.lines && (s.lines.left === "none" ? 0 : 1) + (s.lines.right === "none" ? 0 : 1),
    ...gathered[i]!,
    place: s.place,
  }));
  return {
    points,
    parts: drivenParts(samples, looked.stretches),
    losses: looked.losses.map((l) => (l.atMs - from) / 1000),
  };
}

/** A drive second by second: speed in its window, sun and lines, what had counted, and where it was. */
export function Timeline({
  rules,
  samples,
}: {
  rules: DriveRules;
  samples: readonly LoggedSample[];
}) {
  const [at, setAt] = useState<number | null>(null);
  const window = rules.conditions.find((c) => c.kind === "speed");
  const unit = window?.kind === "speed" ? window.unit : "km/h";
  const cone = rules.conditions.find((c) => c.kind === "sun");
  const { points, parts, losses } = useMemo(
    () => drawn(rules, samples, SPEED_UNITS[unit]),
    [rules, samples, unit],
  );
  const { seconds: needS } = rules.enough;
  const chart = {
    data: points,
    syncId: "drive",
    margin: { left: -8, right: 8, top: 6, bottom: 0 },
    onMouseMove: ({ activeTooltipIndex }: { activeTooltipIndex?: unknown }) =>
      setAt(activeTooltipIndex == null ? null : Number(activeTooltipIndex)),
    onMouseLeave: () => setAt(null),
  };
  const time = (
    <XAxis
      dataKey="s"
      type="number"
      domain={[0, "dataMax"]}
      tickFormatter={clock}
      minTickGap={40}
      {...AXIS}
    />
  );
  const tip = (
    <Tooltip
      {...TIP}
      labelFormatter={(s) => {
        const p = points.find((x) => x.s === Number(s));
        return `${clock(Number(s))} min: ${p?.why ?? ""}`;
      }}
      formatter={(v, name) => [formatNumber(Number(v), 0), name]}
    />
  );
  const marks = losses.map((s) => (
    <ReferenceLine key={s} x={s} stroke="var(--stop)" strokeWidth={2} />
  ));
  const name = "mt-2 text-base text-soft";
  return (
    <div className="mt-4 grid gap-5 lg:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)]">
      <div>
        <p className={name}>Speed, {unit}; the band is the window</p>
        <ResponsiveContainer width="100%" height={140}>
          <ComposedChart {...chart}>
            {window?.kind === "speed" && (
              <ReferenceArea
                y1={window.min}
                y2={window.max}
                fill="var(--settled)"
                fillOpacity={0.14}
              />
            )}
            {time}
            <YAxis {...AXIS} domain={[0, "auto"]} />
            {tip}
            {marks}
            <Line
              dataKey="speed"
              dot={false}
              stroke="var(--ink)"
              strokeWidth={1.5}
              isAnimationActive={false}
            />
          </ComposedChart>
        </ResponsiveContainer>
        <p className={name}>
          Minutes that counted{losses.length > 0 ? "; a red line: all of it was thrown away" : ""}
        </p>
        <ResponsiveContainer width="100%" height={110}>
          <ComposedChart {...chart}>
            {time}
            <YAxis
              {...AXIS}
              tickFormatter={(v: number) => formatNumber(v / 60, 0)}
              domain={[0, needS ? Math.max(needS, 60) : "auto"]}
            />
            {tip}
            {marks}
            <Area
              dataKey="counted"
              stroke="var(--settled)"
              fill="var(--settled)"
              fillOpacity={0.35}
              isAnimationActive={false}
            />
          </ComposedChart>
        </ResponsiveContainer>
        <p className={name}>Lines the camera found (none, one, both) and degrees off the sun</p>
        <ResponsiveContainer width="100%" height={110}>
          <ComposedChart {...chart}>
            {cone?.kind === "sun" && (
              <ReferenceArea
                yAxisId="sun"
                y1={0}
                y2={cone.coneDeg}
                fill="var(--loose)"
                fillOpacity={0.16}
              />
            )}
            {time}
            <YAxis yAxisId="lines" {...AXIS} domain={[0, 2]} ticks={[0, 1, 2]} />
            <YAxis
              yAxisId="sun"
              orientation="right"
              {...AXIS}
              domain={[0, 90]}
              unit="°"
              width={44}
            />
            {tip}
            <Line
              yAxisId="lines"
              type="stepAfter"
              dataKey="lines"
              dot={false}
              stroke="var(--act)"
              isAnimationActive={false}
            />
            <Line
              yAxisId="sun"
              dataKey="sun"
              dot={false}
              stroke="var(--loose)"
              strokeDasharray="4 4"
              isAnimationActive={false}
            />
          </ComposedChart>
        </ResponsiveContainer>
      </div>
      {parts.length > 0 && (
        <div>
          <p className={name}>Thick: it counted. Dashed: it waited, or it was done.</p>
          <DriveMap driven={parts} at={at === null ? null : (points[at]?.place ?? null)} />
        </div>
      )}
    </div>
  );
}
