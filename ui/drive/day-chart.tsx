"use client";

import {
  Bar,
  Cell,
  ComposedChart,
  ErrorBar,
  Line,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from "recharts";
import { formatNumber } from "@/core/units";
import { AXIS, TIP } from "../primitives/chart";
import { useTimes } from "../settings";
import type { Hour } from "./use-plans";

/** Minutes of a drive over the hour one leaves in, with the rain; a touch chooses the hour. */
export function DayChart({
  hours,
  chosen,
  onChoose,
}: {
  hours: readonly Hour[];
  /** The hour that is looked at. */
  chosen: number | null;
  onChoose: (departMs: number) => void;
}) {
  const { clockTime } = useTimes();
  const data = hours.map(({ departMs, plans: [best], rain }) => ({
    departMs,
    hour: clockTime(new Date(departMs).toISOString()),
    minutes: best ? best.seconds / 60 : null,
    within: best
      ? [(best.seconds - best.band[0]) / 60, (best.band[1] - best.seconds) / 60]
      : undefined,
    rain: rain === null ? null : 100 * rain,
  }));
  const least = Math.min(...data.map((d) => d.minutes ?? Infinity));
  return (
    <figure aria-label="Minutes by departure" className="m-0">
      <ResponsiveContainer width="100%" height={200}>
        <ComposedChart
          data={data}
          margin={{ left: -14, right: -14, top: 8 }}
          onClick={({ activeIndex }) => {
            const at = data[Number(activeIndex)];
            if (at?.minutes != null) onChoose(at.departMs);
          }}
        >
          <XAxis dataKey="hour" {...AXIS} interval="preserveStartEnd" minTickGap={14} />
          <YAxis yAxisId="minutes" {...AXIS} allowDecimals={false} />
          <YAxis yAxisId="rain" orientation="right" domain={[0, 100]} unit=" %" {...AXIS} />
          <Tooltip
            {...TIP}
            formatter={(v, name) =>
              name === "rain"
                ? [`${formatNumber(Number(v), 0)} %`, "rain"]
                : [`${formatNumber(Number(v), 0)} min`, "the drive"]
            }
          />
          <Bar yAxisId="minutes" dataKey="minutes" isAnimationActive={false} cursor="pointer">
            {data.map((d) => (
              <Cell
                key={d.departMs}
                fill={
                  d.departMs === chosen
                    ? "var(--act)"
                    : d.minutes === least
                      ? "var(--settled)"
                      : "var(--hairline)"
                }
              />
            ))}
            <ErrorBar dataKey="within" stroke="var(--soft)" width={4} strokeWidth={1.5} />
          </Bar>
          <Line
            yAxisId="rain"
            dataKey="rain"
            dot={false}
            stroke="var(--loose)"
            strokeDasharray="5 4"
            strokeWidth={2}
            isAnimationActive={false}
          />
        </ComposedChart>
      </ResponsiveContainer>
      <figcaption className="text-base text-soft">
        Bars: minutes until it is back, four of five drives within the whiskers; the shortest is
        green. Dashed: rain. No bar: no drive.
      </figcaption>
    </figure>
  );
}
