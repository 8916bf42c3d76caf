import { formatNumber } from "@/core/units";
import type { Vehicle } from "@/core/vehicle";
import { fitView, softPath, vehicleOutline } from "../floor/geometry";

const BOX = { width: 700, height: 300 };

/** A vehicle in plan, nose to the right, with the dimensions a set-out counts from. */
export function VehiclePlan({ vehicle: v }: { vehicle: Vehicle }) {
  const front = v.wheelbaseMm + v.frontOverhangMm;
  const rear = front - v.lengthMm;
  const half = v.widthMm / 2;
  const view = fitView(
    { minX: rear - 700, maxX: front + 500, minY: -half - 900, maxY: half + 700 },
    BOX.width,
    BOX.height,
    1,
    { u: 0, v: 0 },
  );
  const at = (x: number, y: number) => view.to({ x, y });
  const wheels = [
    [v.wheelbaseMm, v.trackFrontMm],
    [0, v.trackRearMm],
  ].flatMap(([x, t]) => [1, -1].map((s) => at(x!, (s * t!) / 2)));
  const dims: {
    from: { u: number; v: number };
    to: { u: number; v: number };
    text: string;
    upright?: boolean;
  }[] = [
    {
      from: at(0, -half - 420),
      to: at(v.wheelbaseMm, -half - 420),
      text: `wheelbase ${formatNumber(v.wheelbaseMm)}`,
    },
    {
      from: at(rear, half + 420),
      to: at(front, half + 420),
      text: `length ${formatNumber(v.lengthMm)}`,
    },
    {
      from: at(front + 300, v.trackFrontMm / 2),
      to: at(front + 300, -v.trackFrontMm / 2),
      text: formatNumber(v.trackFrontMm),
      upright: true,
    },
    {
      from: at(rear - 300, v.trackRearMm / 2),
      to: at(rear - 300, -v.trackRearMm / 2),
      text: formatNumber(v.trackRearMm),
      upright: true,
    },
  ];
  return (
    <svg
      viewBox={`0 0 ${BOX.width} ${BOX.height}`}
      role="img"
      aria-label={`${v.make} ${v.model} in plan with wheelbase, length and tracks in millimetres`}
      className="w-full max-w-[760px]"
    >
      {wheels.map((p) => (
        <rect
          key={`${p.u} ${p.v}`}
          x={p.u - 24}
          y={p.v - 8}
          width={48}
          height={16}
          rx={3}
          className="fill-chalk"
        />
      ))}
      <path
        d={softPath(vehicleOutline(v).map(view.to))}
        className="fill-sheet stroke-ink"
        strokeWidth={1.6}
        fillOpacity={0.9}
      />
      <line
        {...{ x1: at(rear - 100, 0).u, y1: at(0, 0).v, x2: at(front + 200, 0).u, y2: at(0, 0).v }}
        className="stroke-soft"
        strokeDasharray="8 5"
      />
      {[v.camera, v.frontBadge, v.rearBadge, ...(v.centreMarks ?? [])].map((p, i) => (
        <circle
          key={i}
          cx={at(p.xMm, 0).u}
          cy={at(0, p.yMm).v}
          r={i === 0 ? 6 : 4}
          className={i === 0 ? "fill-act" : "fill-ink"}
        />
      ))}
      <text
        x={at(v.camera.xMm, 0).u}
        y={at(0, 0).v - 12}
        textAnchor="middle"
        className="fill-act text-[14px] font-semibold"
      >{`camera ${formatNumber(v.camera.zMm)} up`}</text>
      {dims.map((d) => (
        <g key={d.text + d.from.u} className="stroke-ink">
          <line x1={d.from.u} y1={d.from.v} x2={d.to.u} y2={d.to.v} />
          {[d.from, d.to].map((e, i) => (
            <line
              key={i}
              x1={e.u - (d.upright ? 6 : 0)}
              x2={e.u + (d.upright ? 6 : 0)}
              y1={e.v - (d.upright ? 0 : 6)}
              y2={e.v + (d.upright ? 0 : 6)}
            />
          ))}
          <text
            x={(d.from.u + d.to.u) / 2}
            y={(d.from.v + d.to.v) / 2 - 8}
            textAnchor="middle"
            transform={
              d.upright
                ? `rotate(-90 ${(d.from.u + d.to.u) / 2} ${(d.from.v + d.to.v) / 2})`
                : undefined
            }
            className="figure fill-ink text-[16px] font-semibold"
            stroke="none"
          >
            {d.text}
          </text>
        </g>
      ))}
    </svg>
  );
}
