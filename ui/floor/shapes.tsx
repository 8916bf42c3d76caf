import { eigen2 } from "@/core/math/linear";
import { proofHalfWidths, type Judged } from "@/core/setout";
import { softPath, vehicleOutline, type Place, type View } from "./geometry";

/** 95 % of a two-dimensional Gaussian lies within this many standard deviations. */
export const TWO_D_95 = 2.4477;

export function Grid({
  view,
  extent,
}: {
  view: View;
  extent: { minX: number; maxX: number; minY: number; maxY: number };
}) {
  const lines = [];
  for (let x = Math.ceil(extent.minX / 1000) * 1000; x <= extent.maxX; x += 1000)
    lines.push(
      <Line
        key={`x${x}`}
        view={view}
        from={{ x, y: extent.minY }}
        to={{ x, y: extent.maxY }}
        className="stroke-hairline"
        width={1}
      />,
    );
  for (let y = Math.ceil(extent.minY / 1000) * 1000; y <= extent.maxY; y += 1000)
    lines.push(
      <Line
        key={`y${y}`}
        view={view}
        from={{ x: extent.minX, y }}
        to={{ x: extent.maxX, y }}
        className="stroke-hairline"
        width={1}
      />,
    );
  return <g opacity={0.7}>{lines}</g>;
}

export function Line({
  view,
  from,
  to,
  className,
  width,
  dash,
}: {
  view: View;
  from: Place;
  to: Place;
  className: string;
  width: number;
  dash?: string;
}) {
  const [a, b] = [view.to(from), view.to(to)];
  return (
    <line
      x1={a.u}
      y1={a.v}
      x2={b.u}
      y2={b.v}
      className={className}
      strokeWidth={width}
      strokeDasharray={dash}
      strokeLinecap="round"
    />
  );
}

export function Label({
  view,
  at,
  text,
  className,
  anchor = "start",
  dv = 0,
}: {
  view: View;
  at: Place;
  text: string;
  className: string;
  anchor?: "start" | "middle" | "end";
  dv?: number;
}) {
  const { u, v } = view.to(at);
  return (
    <text
      x={Math.min(view.width - 6, Math.max(6, u))}
      y={v + dv}
      textAnchor={view.upright && anchor === "end" ? "start" : anchor}
      className={`${className} text-[15px] font-semibold`}
      paintOrder="stroke"
      stroke="var(--paper)"
      strokeWidth={4}
    >
      {text}
    </text>
  );
}

export function VehiclePlan({
  view,
  vehicle,
}: {
  view: View;
  vehicle: Judged["solution"]["plan"]["vehicle"];
}) {
  const wheel = (x: number, y: number) => (
    <Wheel key={`${x}${y}`} view={view} at={{ x, y }} radius={vehicle.hubHeightMm} />
  );
  const roof = (x0: number, x1: number, inset: number): Place[] => {
    const h = vehicle.widthMm / 2 - inset;
    return [
      { x: x0, y: h },
      { x: x1, y: h * 0.93 },
      { x: x1 + 90, y: 0 },
      { x: x1, y: -h * 0.93 },
      { x: x0, y: -h },
    ];
  };
  const rear = vehicle.wheelbaseMm + vehicle.frontOverhangMm - vehicle.lengthMm;
  const camera = view.to({ x: vehicle.camera.xMm, y: vehicle.camera.yMm });
  return (
    <g>
      {[vehicle.trackFrontMm, vehicle.trackRearMm].flatMap((t, i) =>
        [1, -1].map((side) => wheel(i === 0 ? vehicle.wheelbaseMm : 0, (side * t) / 2)),
      )}
      <path
        d={softPath(vehicleOutline(vehicle).map(view.to))}
        className="fill-sheet stroke-ink"
        strokeWidth={1.8}
        fillOpacity={0.86}
      />
      <path
        d={softPath(roof(rear + vehicle.lengthMm * 0.16, vehicle.camera.xMm, 190).map(view.to))}
        className="fill-none stroke-chalk"
        strokeWidth={1.4}
      />
      <circle
        cx={camera.u}
        cy={camera.v}
        r={5}
        className="fill-sheet stroke-ink"
        strokeWidth={1.8}
      />
      <circle cx={camera.u} cy={camera.v} r={1.6} className="fill-ink" />
    </g>
  );
}

export function Wheel({ view, at, radius }: { view: View; at: Place; radius: number }) {
  const [a, b] = [
    view.to({ x: at.x - radius, y: at.y - 105 }),
    view.to({ x: at.x + radius, y: at.y + 105 }),
  ];
  return (
    <rect
      x={Math.min(a.u, b.u)}
      y={Math.min(a.v, b.v)}
      width={Math.abs(a.u - b.u)}
      height={Math.abs(a.v - b.v)}
      rx={2}
      className="fill-chalk"
      opacity={0.75}
    />
  );
}

/** What nothing limits is drawn this wide. */
const FAR_MM = 300;

/** A taped cross at the target, with its tolerance box magnified like the errors. */
export function Target({ view, judged, factor }: { view: View; judged: Judged; factor: number }) {
  const { target, plan } = judged.solution;
  const { u, v } = view.to({ x: target.pose.xMm, y: target.pose.yMm });
  const [alongMm, acrossMm] = proofHalfWidths(plan);
  const along = Math.min(alongMm, FAR_MM) * factor * view.pxPerMm;
  const across = Math.min(acrossMm, FAR_MM) * factor * view.pxPerMm;
  const turn = view.turn(target.pose.headingRad);
  return (
    <g transform={`translate(${u} ${v}) rotate(${turn})`}>
      <rect
        x={-along}
        y={-across}
        width={2 * along}
        height={2 * across}
        className="fill-settled stroke-settled"
        fillOpacity={0.09}
        strokeWidth={1.6}
        strokeDasharray="5 4"
      />
      <g className="stroke-ink" strokeWidth={5} opacity={0.22} strokeLinecap="butt">
        <line x1={-20} y1={0} x2={20} y2={0} />
        <line x1={0} y1={-20} x2={0} y2={20} />
      </g>
      <g className="stroke-ink" strokeWidth={1.2}>
        <line x1={-20} y1={0} x2={20} y2={0} />
        <line x1={0} y1={-20} x2={0} y2={20} />
      </g>
    </g>
  );
}

export function Ellipse({
  view,
  at,
  covariance,
  factor,
}: {
  view: View;
  at: Place;
  covariance: number[][];
  factor: number;
}) {
  const e = eigen2(covariance[0]![0]!, covariance[0]![1]!, covariance[1]![1]!);
  const { u, v } = view.to(at);
  const k = TWO_D_95 * factor * view.pxPerMm;
  return (
    <ellipse
      cx={u}
      cy={v}
      rx={Math.max(2, k * Math.sqrt(e.large))}
      ry={Math.max(2, k * Math.sqrt(e.small))}
      transform={`rotate(${view.turn(e.angleRad)} ${u} ${v})`}
      className="fill-act stroke-act"
      fillOpacity={0.14}
      strokeWidth={1.5}
    />
  );
}

export const TONES = { set: "stroke-settled", move: "stroke-ink", read: "stroke-ink" } as const;

export function StandPlan({
  view,
  at,
  half,
  board,
  aside = 0,
  ghost,
  tone,
}: {
  view: View;
  at: Place & { heading: number };
  half: number;
  board: number;
  /** How far to vehicle left of the beam's middle the board hangs, mm: the stand faces the car. */
  aside?: number;
  ghost: boolean;
  tone: "set" | "move" | "read";
}) {
  const { u, v } = view.to(at);
  const k = view.pxPerMm;
  return (
    <g
      transform={`translate(${u} ${v}) rotate(${view.turn(at.heading)})`}
      className={`${TONES[tone]} fill-none`}
      strokeDasharray={ghost ? "6 5" : undefined}
      opacity={ghost ? 0.55 : 1}
      style={{ transition: "transform 160ms ease-out" }}
    >
      <line x1={0} y1={-half * k} x2={0} y2={half * k} strokeWidth={2.5} />
      <line
        x1={0}
        y1={(aside - board) * k}
        x2={0}
        y2={(aside + board) * k}
        strokeWidth={8}
        strokeLinecap="butt"
      />
      <line x1={0} y1={0} x2={26} y2={0} strokeWidth={2} />
      <circle cx={0} cy={-half * k} r={5} strokeWidth={2} className="fill-sheet" />
      <circle cx={0} cy={half * k} r={5} strokeWidth={2} className="fill-sheet" />
    </g>
  );
}
