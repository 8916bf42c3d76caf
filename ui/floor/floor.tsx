"use client";

import { useEffect, useRef, useState, type PointerEvent as ReactPointerEvent } from "react";
import { eigen2 } from "@/core/math/linear";
import { datumLine, type Judged } from "@/core/setout";
import { formatNumber } from "@/core/units";
import { DATUM_NAMES, vehiclePoints } from "@/core/vehicle";
import { fitView, magnification, softPath, vehicleOutline, type Place, type View } from "./geometry";
import { Tapes } from "./tapes";

/** 95 % of a two-dimensional Gaussian lies within this many standard deviations. */
const TWO_D_95 = 2.4477;

/** The floor, to scale: vehicle, datum, target, stand, tapes. Drag to pan, wheel or pinch to zoom. */
export function Floor({
  judged,
  armedSlot,
  onArm,
}: {
  judged: Judged;
  armedSlot: string | null;
  onArm: (slotId: string) => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [zoom, setZoom] = useState(1);
  const [pan, setPan] = useState({ u: 0, v: 0 });

  useEffect(() => {
    const element = box.current!;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const gestures = useGestures(setZoom, setPan);
  const fit = (): void => {
    setZoom(1);
    setPan({ u: 0, v: 0 });
  };

  const s = judged.solution;
  const { vehicle, stand, sheet } = s.plan;
  const front = vehicle.wheelbaseMm + vehicle.frontOverhangMm;
  const extent = {
    minX: front - vehicle.lengthMm - 250,
    maxX: s.target.pose.xMm + 650,
    minY: -Math.max(vehicle.widthMm / 2, stand.beamHalfMm) - 420,
    maxY: Math.max(vehicle.widthMm / 2, stand.beamHalfMm) + 420,
  };
  const view = fitView(extent, size.width, size.height, zoom, pan);

  const points = s.adjustment?.points ?? vehiclePoints(vehicle);
  const line = datumLine(s.frame, points);
  const target = s.target.pose;
  const sigma = s.aim ? Math.sqrt(Math.max(s.aim.covariance[0]![0]!, s.aim.covariance[1]![1]!)) : Infinity;
  const known = sigma < 60;
  const off = Math.hypot(s.board.pose.xMm - target.xMm, s.board.pose.yMm - target.yMm);
  const factor = known ? magnification(Math.max(off, TWO_D_95 * sigma), 420) : 1;
  const shown = {
    x: target.xMm + factor * (s.board.pose.xMm - target.xMm),
    y: target.yMm + factor * (s.board.pose.yMm - target.yMm),
    heading: target.headingRad + Math.min(factor, 10) * (s.board.pose.headingRad - target.headingRad),
  };
  const ahead = (from: Place, heading: number, far: number): Place => ({
    x: from.x + Math.cos(heading) * far,
    y: from.y + Math.sin(heading) * far,
  });
  const lineStart = ahead({ x: line.xMm, y: line.yMm }, line.headingRad, extent.minX - line.xMm + 60);
  const lineEnd = ahead({ x: line.xMm, y: line.yMm }, line.headingRad, extent.maxX - line.xMm - 60);

  return (
    <div ref={box} className="relative h-full min-h-0 w-full touch-none overflow-hidden bg-paper" {...gestures}>
      {size.width > 0 && (
        <svg
          width={size.width}
          height={size.height}
          role="img"
          aria-label={describe(judged)}
          className="block select-none"
        >
          <Grid view={view} extent={extent} />
          <VehiclePlan view={view} vehicle={vehicle} />
          <Line view={view} from={lineStart} to={lineEnd} className="stroke-act" dash="14 6 3 6" width={1.6} />
          <Label
            view={view}
            at={ahead(lineStart, line.headingRad, 520)}
            dv={-9}
            className="fill-act"
            text={DATUM_NAMES[sheet.datum]}
          />
          <Target view={view} judged={judged} factor={factor} />
          <Tapes view={view} judged={judged} armedSlot={armedSlot} onArm={onArm} board={known ? shown : null} />
          {known && s.adjustment && (
            <Ellipse view={view} at={shown} covariance={s.adjustment.bodies[0]!.covariance} factor={factor} />
          )}
          <StandPlan
            view={view}
            at={known ? shown : { x: target.xMm, y: target.yMm, heading: target.headingRad }}
            half={stand.beamHalfMm}
            board={sheet.board.widthMm / 2}
            ghost={!known}
            tone={judged.verdict.kind}
          />
        </svg>
      )}
      <div className="pointer-events-none absolute bottom-2 left-3 text-sm text-soft">
        {known ? (
          <>
            Errors drawn <b className="figure text-ink">×{factor}</b>, ellipse 95 %
          </>
        ) : (
          "Stand drawn where it should be: not read yet"
        )}
      </div>
      <div className="absolute right-2 top-2 hidden gap-1 sm:flex" onPointerDown={(e) => e.stopPropagation()}>
        {(
          [
            ["−", "Zoom out", () => setZoom((z) => Math.max(0.5, z / 1.3))],
            ["Fit", "Fit the drawing", fit],
            ["+", "Zoom in", () => setZoom((z) => Math.min(12, z * 1.3))],
          ] as const
        ).map(([text, name, act]) => (
          <button
            key={name}
            type="button"
            aria-label={name}
            onClick={act}
            className="min-h-12 min-w-12 rounded-md border border-hairline bg-sheet px-2 text-lg font-semibold hover:bg-wash"
          >
            {text}
          </button>
        ))}
      </div>
    </div>
  );
}

/** The picture in words, for those who cannot see it. */
function describe(judged: Judged): string {
  const { aim } = judged.solution;
  if (!aim) return "Floor plan. The board is not placed yet.";
  const mm = (v: number, plus: string, minus: string): string =>
    `${formatNumber(Math.abs(v))} mm ${v >= 0 ? plus : minus}`;
  return `Floor plan. Board ${mm(aim.alongMm, "too far", "too near")}, ${mm(aim.acrossMm, "to vehicle left", "to vehicle right")}.`;
}

/** Wheel, drag and two-finger pinch. */
function useGestures(
  setZoom: (f: (z: number) => number) => void,
  setPan: (f: (p: { u: number; v: number }) => { u: number; v: number }) => void,
) {
  const fingers = useRef(new Map<number, { x: number; y: number }>());
  const spread = useRef(0);
  return {
    onPointerDown: (e: ReactPointerEvent) => {
      fingers.current.set(e.pointerId, { x: e.clientX, y: e.clientY });
      spread.current = 0;
    },
    onPointerMove: (e: ReactPointerEvent) => {
      const before = fingers.current.get(e.pointerId);
      if (!before) return;
      fingers.current.set(e.pointerId, { x: e.clientX, y: e.clientY });
      if (fingers.current.size === 1) setPan((p) => ({ u: p.u + e.clientX - before.x, v: p.v + e.clientY - before.y }));
      if (fingers.current.size === 2) {
        const [a, b] = [...fingers.current.values()] as [{ x: number; y: number }, { x: number; y: number }];
        const now = Math.hypot(a.x - b.x, a.y - b.y);
        const ratio = spread.current > 0 ? now / spread.current : 1;
        setZoom((z) => Math.min(12, Math.max(0.5, z * ratio)));
        spread.current = now;
      }
    },
    onPointerUp: (e: ReactPointerEvent) => void fingers.current.delete(e.pointerId),
    onPointerLeave: (e: ReactPointerEvent) => void fingers.current.delete(e.pointerId),
    onWheel: (e: React.WheelEvent) => setZoom((z) => Math.min(12, Math.max(0.5, z * Math.exp(-e.deltaY / 600)))),
  };
}

function Grid({ view, extent }: { view: View; extent: { minX: number; maxX: number; minY: number; maxY: number } }) {
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

function Line({
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

function Label({
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

function VehiclePlan({ view, vehicle }: { view: View; vehicle: Judged["solution"]["plan"]["vehicle"] }) {
  const wheel = (x: number, y: number) => {
    const [a, b] = [
      view.to({ x: x - vehicle.hubHeightMm, y: y - 105 }),
      view.to({ x: x + vehicle.hubHeightMm, y: y + 105 }),
    ];
    return (
      <rect
        key={`${x}${y}`}
        x={Math.min(a.u, b.u)}
        y={Math.min(a.v, b.v)}
        width={Math.abs(a.u - b.u)}
        height={Math.abs(a.v - b.v)}
        rx={2}
        className="fill-chalk"
        opacity={0.75}
      />
    );
  };
  const roof = (x0: number, x1: number, inset: number): Place[] => {
    const h = vehicle.widthMm / 2 - inset;
    return [{ x: x0, y: h }, { x: x1, y: h * 0.93 }, { x: x1 + 90, y: 0 }, { x: x1, y: -h * 0.93 }, { x: x0, y: -h }]; // prettier-ignore
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
      <circle cx={camera.u} cy={camera.v} r={5} className="fill-sheet stroke-ink" strokeWidth={1.8} />
      <circle cx={camera.u} cy={camera.v} r={1.6} className="fill-ink" />
    </g>
  );
}

/** A taped cross at the target, with its tolerance box magnified like the errors. */
function Target({ view, judged, factor }: { view: View; judged: Judged; factor: number }) {
  const { target, plan } = judged.solution;
  const { u, v } = view.to({ x: target.pose.xMm, y: target.pose.yMm });
  const along = plan.sheet.tolerance.alongMm * factor * view.pxPerMm;
  const across = plan.sheet.tolerance.acrossMm * factor * view.pxPerMm;
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

function Ellipse({ view, at, covariance, factor }: { view: View; at: Place; covariance: number[][]; factor: number }) {
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

const TONES = { set: "stroke-settled", move: "stroke-ink", read: "stroke-ink" } as const;

function StandPlan({
  view,
  at,
  half,
  board,
  ghost,
  tone,
}: {
  view: View;
  at: Place & { heading: number };
  half: number;
  board: number;
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
      <line x1={0} y1={-board * k} x2={0} y2={board * k} strokeWidth={8} strokeLinecap="butt" />
      <line x1={0} y1={0} x2={26} y2={0} strokeWidth={2} />
      <circle cx={0} cy={-half * k} r={5} strokeWidth={2} className="fill-sheet" />
      <circle cx={0} cy={half * k} r={5} strokeWidth={2} className="fill-sheet" />
    </g>
  );
}
