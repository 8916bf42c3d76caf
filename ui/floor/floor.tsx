"use client";

import dynamic from "next/dynamic";
import {
  useEffect,
  useRef,
  useState,
  type ComponentProps,
  type PointerEvent as ReactPointerEvent,
} from "react";
import { standingNow } from "@/core/job";
import {
  datumLine,
  isByHand,
  nominalTarget,
  proofHalfWidths,
  quantityWords,
  spanOf,
  targetOn,
  wallsOf,
  type FloorWall,
  type Judged,
  type PlanPose,
  type SetOutPlan,
} from "@/core/setout";
import type { Target as SheetTarget } from "@/core/sheet";
import { formatNumber } from "@/core/units";
import { DATUM_NAMES, vehiclePoints } from "@/core/vehicle";
import { fitView, magnification, type Place, type View } from "./geometry";
import { useJob } from "../bench/job-store";
import { Ellipse, Grid, Label, Line, StandPlan, Target, TWO_D_95, VehiclePlan } from "./shapes";
import { Tapes } from "./tapes";

const MatPlan = dynamic(() => import("./around-plans").then((m) => m.MatPlan));
const TrailerPlan = dynamic(() => import("./around-plans").then((m) => m.TrailerPlan));

const BUTTONS_PX = 56;

/** A target that is there beside the one in hand, where it stands or should stand. */
type Beside = {
  target: SheetTarget;
  name: string;
  pose: PlanPose;
  halfMm: number;
  proved: boolean;
  known: boolean;
};

/** Everything else that is there: mats where they are known to lie, boards where they belong. */
function useBeside(judged: Judged): Beside[] {
  const { ground, events, target } = useJob();
  if (!target) return [];
  const { plan, mates, adjustment } = judged.solution;
  return standingNow(ground, events, target.id)
    .filter((b) => b.target.id !== target.id)
    .map((b) => {
      const mat = isByHand(b.target);
      const stand = ground.stands?.find((s) => s.id === b.standId) ?? ground.stand;
      const body = mates[b.target.id];
      const lies = mat ? adjustment?.bodies.find((x) => x.id === body) : undefined;
      const on = mat ? b.target : targetOn(b.target, stand);
      return {
        target: b.target,
        name: mat ? b.target.name : b.target.beam ? b.target.name : b.standId,
        pose: lies ?? placeOf({ ...plan, target: on }),
        halfMm: mat ? b.target.object.widthMm / 2 : stand.beamHalfMm,
        proved: b.settled !== null,
        known: !mat || lies !== undefined,
      };
    });
}

/** Where a target itself belongs: on a beam beside its middle. */
function placeOf(plan: SetOutPlan): PlanPose {
  const { beam: _, ...alone } = plan.target;
  return nominalTarget({ ...plan, target: alone });
}

/**
 * The floor, to scale: vehicle, datum, target, stand, tapes. Drag to pan, wheel or pinch to zoom.
 */
export function Floor({
  judged,
  armedSlot,
  onArm,
}: {
  judged: Judged;
  armedSlot: string | null;
  onArm: (slotId: string) => void;
}) {
  const beside = useBeside(judged);
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [zoom, setZoom] = useState(1);
  const [pan, setPan] = useState({ u: 0, v: 0 });

  useEffect(() => {
    const element = box.current!;
    const observer = new ResizeObserver(() =>
      setSize({ width: element.clientWidth, height: element.clientHeight }),
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const gestures = useGestures(setZoom, setPan);
  const fit = (): void => {
    setZoom(1);
    setPan({ u: 0, v: 0 });
  };

  const s = judged.solution;
  const { vehicle, stand, target: wanted } = s.plan;
  const front = vehicle.wheelbaseMm + vehicle.frontOverhangMm;
  const mat = isByHand(wanted);
  const reaches = [
    reachOf(s.target.pose, wanted, mat ? wanted.object.widthMm / 2 : stand.beamHalfMm),
    ...beside.map((b) => reachOf(b.pose, b.target, b.halfMm)),
  ];
  const walls = wallsOf(s);
  // As far as a wall is measured to, and a little more: the rest of it is of no matter here.
  const feet = s.slots.flatMap((slot) => {
    const used = slot.id === armedSlot || s.readings.some((r) => r.slotId === slot.id);
    const span = slot.wall && used ? spanOf(slot, s) : null;
    return span ? [span[0]] : [];
  });
  const [xs, ys] = [feet.map((f) => f.xMm), feet.map((f) => f.yMm)];
  // A cross at the edge of the picture would lie under its labels.
  const edge = wanted.kind === "mark" ? 700 : 250;
  // Beside the vehicle a stand is drawn as much off as one ahead of it, and toward the picture's edge.
  const room = wanted.stands === "left" || wanted.stands === "right" ? 700 : 170;
  const extent = {
    minX:
      Math.min(front - vehicle.lengthMm, ...reaches.map((r) => r.rear), ...xs) -
      (wanted.stands === "behind" ? 650 : edge),
    maxX: Math.max(
      front + 350,
      ...reaches.map((r) => r.front + (isByHand(r.of) ? 350 : 650)),
      ...xs.map((x) => x + 200),
    ),
    minY: Math.min(
      Math.min(-vehicle.widthMm / 2, ...reaches.map((r) => r.right)) - edge - room,
      ...ys.map((y) => y - 200),
    ),
    maxY: Math.max(
      Math.max(vehicle.widthMm / 2, ...reaches.map((r) => r.left)) + edge + room,
      ...ys.map((y) => y + 200),
    ),
  };
  // The row of buttons lies over the top edge.
  const view = fitView(extent, size.width, size.height - BUTTONS_PX, zoom, {
    u: pan.u,
    v: pan.v + BUTTONS_PX,
  });

  const points = s.adjustment?.points ?? vehiclePoints(vehicle);
  const line = datumLine(s.frame, points);
  const target = s.target.pose;
  const sigma = s.aim
    ? Math.sqrt(Math.max(s.aim.covariance[0]![0]!, s.aim.covariance[1]![1]!))
    : Infinity;
  const known = sigma < 60;
  const off = Math.hypot(s.board.pose.xMm - target.xMm, s.board.pose.yMm - target.yMm);
  // Of a mat its tolerance has to stay on the picture as well: it is as large as the vehicle.
  const widest = mat ? 1.6 * Math.min(...proofHalfWidths(s.plan).slice(0, 2)) : 0;
  const factor = known
    ? magnification(Math.max(off, TWO_D_95 * sigma, widest), mat ? 260 : 420)
    : 1;
  const shown = {
    x: target.xMm + factor * (s.board.pose.xMm - target.xMm),
    y: target.yMm + factor * (s.board.pose.yMm - target.yMm),
    heading:
      target.headingRad + Math.min(factor, 10) * (s.board.pose.headingRad - target.headingRad),
  };
  const ahead = (from: Place, heading: number, far: number): Place => ({
    x: from.x + Math.cos(heading) * far,
    y: from.y + Math.sin(heading) * far,
  });
  const lineStart = ahead(
    { x: line.xMm, y: line.yMm },
    line.headingRad,
    extent.minX - line.xMm + 60,
  );
  const lineEnd = ahead({ x: line.xMm, y: line.yMm }, line.headingRad, extent.maxX - line.xMm - 60);

  // A mat lies under what is read of it; a board stands over it.
  const tapes = (
    <Tapes
      view={view}
      judged={judged}
      armedSlot={armedSlot}
      onArm={onArm}
      board={known ? shown : null}
    />
  );
  return (
    <div
      ref={box}
      className="relative h-full min-h-0 w-full touch-none overflow-hidden bg-paper"
      {...gestures}
    >
      {size.width > 0 && (
        <svg
          width={size.width}
          height={size.height}
          role="img"
          aria-label={describe(judged)}
          className="block select-none"
        >
          <Grid view={view} extent={extent} />
          {walls.map((w) => (
            <Wall key={w.id} view={view} wall={w} />
          ))}
          {wanted.frame === "trailer" ? (
            <TrailerPlan view={view} trailer={vehicle} />
          ) : (
            <VehiclePlan view={view} vehicle={vehicle} />
          )}
          <Line
            view={view}
            from={lineStart}
            to={lineEnd}
            className="stroke-act"
            dash="14 6 3 6"
            width={1.6}
          />
          <Label
            view={view}
            at={
              // What lies behind the vehicle would cover its name there.
              wanted.lies === "behind" || wanted.stands === "behind"
                ? ahead(lineEnd, line.headingRad, -1500)
                : ahead(lineStart, line.headingRad, 520)
            }
            dv={-9}
            className="fill-act"
            text={wanted.frame ? "trailer’s axle line" : DATUM_NAMES[wanted.datum]}
          />
          {beside.map((b) => (
            <g key={b.target.id} opacity={0.55}>
              <Plan
                view={view}
                at={{ x: b.pose.xMm, y: b.pose.yMm, heading: b.pose.headingRad }}
                half={b.halfMm}
                target={b.target}
                ghost={isByHand(b.target) ? !b.known : !b.proved}
                tone={b.proved ? "set" : "read"}
              />
              <Label
                view={view}
                at={labelPlace(b)}
                dv={b.target.kind === "mark" ? 24 : isByHand(b.target) ? 5 : -9}
                className="fill-soft"
                // A mat across the way is narrow, and the strip above names it.
                text={b.target.lies && b.target.lies !== "beside" ? "" : b.name}
              />
            </g>
          ))}
          <Target view={view} judged={judged} factor={factor} />
          {!mat && tapes}
          {known && s.boardCovariance && (
            <Ellipse view={view} at={shown} covariance={s.boardCovariance} factor={factor} />
          )}
          <Plan
            view={view}
            at={known ? shown : { x: target.xMm, y: target.yMm, heading: target.headingRad }}
            half={stand.beamHalfMm}
            target={wanted}
            railMm={s.scalars.rail.value}
            ghost={!known}
            tone={judged.verdict.kind}
          />
          {mat && tapes}
        </svg>
      )}
      <div className="pointer-events-none absolute bottom-2 left-3 text-sm text-soft">
        {known ? (
          <>
            Errors drawn <b className="figure text-ink">×{factor}</b>, ellipse 95 %
          </>
        ) : (
          `${{ board: "Stand", mat: "Mat", mark: "Mark" }[wanted.kind]} drawn where it should be: not read yet`
        )}
      </div>
      <div
        className="absolute right-2 top-2 hidden gap-1 sm:flex"
        onPointerDown={(e) => e.stopPropagation()}
      >
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

/** A wall of the bay; the readings to it say which. */
function Wall({ view, wall }: { view: View; wall: FloorWall }) {
  const [from, to] = [wall.from, wall.to].map(({ xMm: x, yMm: y }) => ({ x, y })) as [Place, Place];
  return <Line view={view} from={from} to={to} className="stroke-soft" width={7} />;
}

/** Where the name of a target beside stands: on a mat behind its cross line, where nothing is drawn. */
function labelPlace({ target, pose }: Beside): Place {
  const on = isByHand(target) ? -0.6 * (target.object.lengthMm ?? 0) : 0;
  return {
    x: pose.xMm + Math.cos(pose.headingRad) * on,
    y: pose.yMm + Math.sin(pose.headingRad) * on,
  };
}

/** How far a target reaches each way: a mat by its own size, a board by the beam it hangs on. */
function reachOf({ xMm: x, yMm: y, headingRad }: PlanPose, of: SheetTarget, halfMm: number) {
  const { aheadMm = 0, lengthMm = 0 } = of.object;
  const half = isByHand(of)
    ? { x: 0, y: halfMm }
    : { x: Math.abs(Math.sin(headingRad)) * halfMm, y: Math.abs(Math.cos(headingRad)) * halfMm };
  return {
    of,
    front: x + aheadMm + half.x,
    rear: x + aheadMm - lengthMm - half.x,
    left: y + half.y,
    right: y - half.y,
  };
}

/** A target in plan: a mat, or the stand with its board, on its rail where it has one. */
function Plan({
  target,
  half,
  railMm = 0,
  ...drawn
}: Pick<ComponentProps<typeof StandPlan>, "view" | "at" | "half" | "ghost" | "tone"> & {
  target: SheetTarget;
  railMm?: number;
}) {
  if (isByHand(target)) return <MatPlan target={target} {...drawn} />;
  return (
    <StandPlan
      {...drawn}
      half={half}
      board={target.object.widthMm / 2}
      aside={target.beam ? railMm : 0}
    />
  );
}

/** The picture in words, for those who cannot see it. */
function describe(judged: Judged): string {
  const { aim } = judged.solution;
  const { target } = judged.solution.plan;
  const name = isByHand(target) ? target.name : "board";
  const words = (id: "along" | "across"): [string, string] => {
    const { more, less } = quantityWords(id, target);
    return [more, less];
  };
  if (!aim) return `Floor plan. The ${name} is not placed yet.`;
  const mm = (v: number, plus: string, minus: string): string =>
    `${formatNumber(Math.abs(v))} mm ${v >= 0 ? plus : minus}`;
  return `Floor plan. The ${name}: ${mm(aim.alongMm, ...words("along"))}, ${mm(aim.acrossMm, ...words("across"))}.`;
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
      if (fingers.current.size === 1)
        setPan((p) => ({ u: p.u + e.clientX - before.x, v: p.v + e.clientY - before.y }));
      if (fingers.current.size === 2) {
        const [a, b] = [...fingers.current.values()] as [
          { x: number; y: number },
          { x: number; y: number },
        ];
        const now = Math.hypot(a.x - b.x, a.y - b.y);
        const ratio = spread.current > 0 ? now / spread.current : 1;
        setZoom((z) => Math.min(12, Math.max(0.5, z * ratio)));
        spread.current = now;
      }
    },
    onPointerUp: (e: ReactPointerEvent) => void fingers.current.delete(e.pointerId),
    onPointerLeave: (e: ReactPointerEvent) => void fingers.current.delete(e.pointerId),
    onWheel: (e: React.WheelEvent) =>
      setZoom((z) => Math.min(12, Math.max(0.5, z * Math.exp(-e.deltaY / 600)))),
  };
}
