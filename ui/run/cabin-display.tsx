"use client";

import { useQuery } from "@tanstack/react-query";
import type { SheetStep } from "@/core/sheet";
import { formatNumber } from "@/core/units";
import type { CabinDisplay, Spot } from "@/devices/vehicle/mirror-camera";
import { useJob } from "../bench/job-store";
import { shopQueries } from "../shop-queries";

type AimStep = Extract<SheetStep, { kind: "aim" }>;

/** The display of the simulated vehicle; a real one hangs in the cabin. */
export function useCabinDisplay(step: AimStep): CabinDisplay | null {
  const { head, ground, own } = useJob();
  const query = useQuery(
    {
      queryKey: ["display", head.id, ground.calibrationId, step.id, own.at(-1)?.seq],
      queryFn: async (): Promise<CabinDisplay> => {
        const asked = new URLSearchParams({ calibration: ground.calibrationId, step: step.id });
        const response = await fetch(`/api/jobs/${head.id}/display?${asked}`, {
          cache: "no-store",
        });
        if (!response.ok) throw new Error(`The shop answers ${response.status}.`);
        return (await response.json()) as CabinDisplay;
      },
      enabled: head.simulated,
      placeholderData: (before) => before,
      retry: 1,
    },
    shopQueries(),
  );
  return query.data ?? null;
}

/** The middle of a cross as the display shows it. */
export const middleOf = (strokes: readonly [Spot, Spot][]): Spot | null =>
  strokes[0]
    ? {
        right: (strokes[0][0].right + strokes[0][1].right) / 2,
        up: (strokes[0][0].up + strokes[0][1].up) / 2,
      }
    : null;

/**
 * The display with its scale: where the mark belongs, and, of a simulated vehicle, what the camera
 * truly shows. One unit of the drawing is a division.
 */
export function CabinDisplayPanel({
  step,
  then,
}: {
  step: AimStep;
  /** Where the mark will stand when the camera is turned as advised. */
  then: Spot | null;
}) {
  const shown = useCabinDisplay(step);
  const { most } = step.scale;
  const divisions = Array.from(
    { length: 2 * Math.floor(most) + 1 },
    (_, n) => n - Math.floor(most),
  );
  const high = 0.66 * most;
  // Numbers stand only where there is room for them.
  const every = most > 12 ? 5 : 2;
  // The vehicle's own side hides what lies within it: toward the edge of the display next to it.
  const flank = shown?.lines.find((l) => l.id === "flank")?.spots;
  const inner = step.side === "left" ? most : -most;
  const line = (spots: readonly Spot[]): string =>
    spots.map((s) => `${s.right},${-s.up}`).join(" ");
  return (
    <figure className="m-3 lg:m-5">
      <svg
        viewBox={`${-most} ${-high} ${2 * most} ${2 * high}`}
        className="block max-h-[46vh] min-h-56 border-2 border-ink bg-wash"
        role="img"
        aria-label={`Display of the camera on vehicle ${step.side}`}
      >
        {shown && (
          <g>
            <rect
              x={-most}
              y={-shown.horizonUp}
              width={2 * most}
              height={3 * most}
              fill="var(--sheet)"
            />
            <line
              x1={-most}
              x2={most}
              y1={-shown.horizonUp}
              y2={-shown.horizonUp}
              stroke="var(--soft)"
              strokeWidth={1.5}
              vectorEffect="non-scaling-stroke"
            />
            {flank && flank.length > 1 && (
              <polygon
                points={`${line(flank)} ${inner},${-flank.at(-1)!.up} ${inner},${-flank[0]!.up}`}
                fill="var(--hairline)"
                fillOpacity={0.6}
              />
            )}
            {shown.lines.map((l) => (
              <polyline
                key={l.id}
                points={line(l.spots)}
                fill="none"
                stroke={l.id === "flank" ? "var(--ink)" : "var(--hairline)"}
                strokeWidth={l.id === "flank" ? 3 : 1.5}
                vectorEffect="non-scaling-stroke"
              />
            ))}
            {shown.crosses.map((c) => (
              <g
                key={c.id}
                data-cross={c.id}
                stroke={c.id === step.mark ? "var(--act)" : "var(--soft)"}
                strokeWidth={4}
              >
                {c.strokes.map(([a, b], i) => (
                  <line
                    key={i}
                    x1={a.right}
                    y1={-a.up}
                    x2={b.right}
                    y2={-b.up}
                    vectorEffect="non-scaling-stroke"
                  />
                ))}
                {c.id === step.mark && middleOf(c.strokes) && (
                  <circle
                    cx={middleOf(c.strokes)!.right}
                    cy={-middleOf(c.strokes)!.up}
                    r={most / 26}
                    fill="none"
                    strokeWidth={2}
                    vectorEffect="non-scaling-stroke"
                  />
                )}
              </g>
            ))}
          </g>
        )}
        <g stroke="var(--ink)" strokeWidth={1} vectorEffect="non-scaling-stroke">
          <line x1={-most} x2={most} y1={0} y2={0} vectorEffect="non-scaling-stroke" />
          <line y1={-most} y2={most} x1={0} x2={0} vectorEffect="non-scaling-stroke" />
          {divisions.map((n) => (
            <g key={n}>
              <line
                x1={n}
                x2={n}
                y1={n % every === 0 ? -most / 40 : -most / 80}
                y2={n % every === 0 ? most / 40 : most / 80}
                vectorEffect="non-scaling-stroke"
              />
              <line
                y1={n}
                y2={n}
                x1={n % every === 0 ? -most / 40 : -most / 80}
                x2={n % every === 0 ? most / 40 : most / 80}
                vectorEffect="non-scaling-stroke"
              />
            </g>
          ))}
        </g>
        <g fill="var(--ink)" fontSize={most / 18} className="figure" textAnchor="middle">
          {divisions
            .filter((n) => n !== 0 && n % every === 0 && Math.abs(n) < most - 0.4)
            .map((n) => (
              <g key={n}>
                <text x={n} y={most / 11}>
                  {Math.abs(n)}
                </text>
                {Math.abs(n) < 0.92 * high && (
                  <text x={-most / 14} y={-n + most / 50}>
                    {Math.abs(n)}
                  </text>
                )}
              </g>
            ))}
        </g>
        <rect
          x={step.at.right - step.within}
          y={-step.at.up - step.within}
          width={2 * step.within}
          height={2 * step.within}
          fill="none"
          stroke="var(--settled)"
          strokeWidth={4}
          vectorEffect="non-scaling-stroke"
        />
        {then && (
          <circle
            cx={then.right}
            cy={-then.up}
            r={most / 60}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={2}
            strokeDasharray="4 3"
            vectorEffect="non-scaling-stroke"
          />
        )}
      </svg>
      <figcaption className="mt-1 text-base text-soft">
        {shown
          ? `The display of the simulated vehicle, camera on vehicle ${step.side}. `
          : `The scale of the display, camera on vehicle ${step.side}. `}
        The mark belongs in the frame, {spotWords(step.at)}.
      </figcaption>
    </figure>
  );
}

/** A place on the scale: "2 right, 1 down". */
function spotWords({ right, up }: Spot): string {
  const one = (v: number, more: string, less: string): string[] =>
    v === 0 ? [] : [`${formatNumber(Math.abs(v), 1)} ${v > 0 ? more : less}`];
  const all = [...one(right, "right", "left"), ...one(up, "up", "down")];
  return all.length > 0 ? all.join(", ") : "in the middle";
}
