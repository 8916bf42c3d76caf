import type { ComponentProps, ReactNode } from "react";
import type { Bay } from "@/core/space/bay";
import { placed, type Pose, type Zone } from "@/core/space/fit";
import type { Vec } from "@/core/space/convex";

/** Room about a drawing for the numbers of its walls, mm. */
const EDGE_MM = 600;

/** A bay to scale, seen from above; with what is set out about a vehicle where one stands in it. */
export function BayDrawing({
  bay,
  frame = bay.outline,
  zones = [],
  pose = null,
  label,
  children,
  ...rest
}: {
  bay: Bay;
  /** What the drawing has room for; it stays while corners are moved. */
  frame?: readonly Vec[];
  zones?: readonly Zone[];
  pose?: Pose | null;
  label: string;
  /** What lies on top, given how a bay's y is turned to the sheet's. */
  children?: (flip: (y: number) => number) => ReactNode;
} & Pick<
  ComponentProps<"svg">,
  "ref" | "onPointerMove" | "onPointerUp" | "onPointerDown" | "role"
>) {
  const { x0, x1, y0, y1 } = boundsOf(frame);
  // The bay's y grows upward on the sheet.
  const d = (shape: readonly Vec[]): string =>
    `M${shape.map(([x, y]) => `${x.toFixed(0)} ${(y0 + y1 - y).toFixed(0)}`).join("L")}Z`;
  const flip = (y: number): number => y0 + y1 - y;
  const [vehicle, ...others] = zones;
  return (
    <svg
      role="img"
      {...rest}
      aria-label={label}
      viewBox={`${x0 - EDGE_MM} ${y0 - EDGE_MM} ${x1 - x0 + 2 * EDGE_MM} ${y1 - y0 + 2 * EDGE_MM}`}
      className="h-auto w-full"
    >
      <path d={d(bay.outline)} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={70} />
      {bay.doors.map(([a, b], i) => (
        <line
          key={i}
          x1={a[0]}
          y1={flip(a[1])}
          x2={b[0]}
          y2={flip(b[1])}
          stroke="var(--paper)"
          strokeWidth={90}
          strokeDasharray="220 120"
        />
      ))}
      {pose &&
        others.map((z, i) =>
          // Of the two looks of a camera the shorter one says which way it looks.
          z.eye?.minds === "light" ? null : (
            <path
              key={i}
              d={d(placed(z.shape, pose))}
              fill="var(--act)"
              fillOpacity={z.eye ? 0 : 0.08}
              stroke={z.eye ? "var(--chalk)" : "var(--act)"}
              strokeWidth={20}
              strokeDasharray="120 80"
            />
          ),
        )}
      {pose && vehicle && (
        <>
          <path
            d={d(placed(vehicle.shape, pose))}
            fill="var(--wash)"
            stroke="var(--ink)"
            strokeWidth={40}
          />
          <Nose shape={placed(vehicle.shape, pose)} flip={flip} />
        </>
      )}
      {bay.obstacles.map((o) => (
        <path
          key={o.name}
          d={d(o.outline)}
          fill="var(--hairline)"
          stroke="var(--soft)"
          strokeWidth={25}
          strokeDasharray={o.fromMm > 0 ? "90 60" : undefined}
        >
          <title>{o.name}</title>
        </path>
      ))}
      {bay.lights.map((l) => (
        <Piece key={l.name} {...l} flip={flip} color="var(--loose)" dash={l.kind === "lamp"} />
      ))}
      {bay.likenesses.map((l) => (
        <Piece key={l.name} {...l} flip={flip} color="var(--stop)" />
      ))}
      {bay.outline.map((a, i) => {
        const b = bay.outline[(i + 1) % bay.outline.length]!;
        const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
        const [nx, ny] = [(b[1] - a[1]) / length, -(b[0] - a[0]) / length];
        return (
          <text
            key={i}
            x={(a[0] + b[0]) / 2 + nx * 330}
            y={flip((a[1] + b[1]) / 2 + ny * 330)}
            fontSize={300}
            textAnchor="middle"
            dominantBaseline="central"
            fill="var(--soft)"
            className="figure"
          >
            {i + 1}
          </text>
        );
      })}
      {children?.(flip)}
    </svg>
  );
}

/** The least and the most of some places, along both axes. */
const boundsOf = (places: readonly Vec[]) => {
  const xs = places.map((c) => c[0]);
  const ys = places.map((c) => c[1]);
  return { x0: Math.min(...xs), x1: Math.max(...xs), y0: Math.min(...ys), y1: Math.max(...ys) };
};

/** A window, a lamp, or a part of a wall that looks like a target. */
function Piece({
  name,
  from,
  to,
  flip,
  color,
  dash = false,
}: {
  name: string;
  from: Vec;
  to: Vec;
  flip: (y: number) => number;
  color: string;
  dash?: boolean;
}) {
  return (
    <line
      x1={from[0]}
      y1={flip(from[1])}
      x2={to[0]}
      y2={flip(to[1])}
      stroke={color}
      strokeWidth={110}
      strokeDasharray={dash ? "120 80" : undefined}
    >
      <title>{name}</title>
    </line>
  );
}

/** A stroke where the vehicle's front is: its corners are rear right, front right, front left, rear left. */
function Nose({ shape, flip }: { shape: readonly Vec[]; flip: (y: number) => number }) {
  const [, right, left] = shape as [Vec, Vec, Vec];
  const [rearRight] = shape as [Vec];
  const back = (p: Vec): Vec => [
    p[0] + (rearRight[0] - right[0]) * 0.12,
    p[1] + (rearRight[1] - right[1]) * 0.12,
  ];
  const [a, b] = [back(right), back(left)];
  return (
    <line
      x1={a[0]}
      y1={flip(a[1])}
      x2={b[0]}
      y2={flip(b[1])}
      stroke="var(--ink)"
      strokeWidth={40}
    />
  );
}
