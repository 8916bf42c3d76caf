"use client";

import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import type { Bay } from "@/core/space/bay";
import type { Vec } from "@/core/space/convex";
import { dragged, moved, placesOf, without, type Hold, type Snapped } from "@/core/space/draw";
import { BayDrawing } from "./bay-drawing";

/** What an arrow key moves, mm; and with Shift. */
const NUDGE_MM = 10;
const SHOVE_MM = 100;

const KEYS: Record<string, Vec> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

export const sameHold = (a: Hold | null, b: Hold): boolean =>
  a !== null && a.kind === b.kind && a.i === b.i;

/** What a hold is called. */
export function holdName(bay: Bay, { kind, i }: Hold): string {
  switch (kind) {
    case "corner":
      return `Corner ${i + 1}`;
    case "thing":
      return bay.obstacles[i]!.name;
    case "door":
      return `Door ${i + 1}`;
    case "light":
      return bay.lights[i]!.name;
    case "likeness":
      return bay.likenesses[i]!.name;
    case "spot":
      return `Spot ${i + 1}`;
  }
}

/**
 * The drawing of a bay with everything on it to take hold of: by finger or pointer, or by Tab, the
 * arrows and Delete.
 */
export function BayCanvas({
  bay,
  floor,
  held,
  marks,
  onHold,
  onChange,
}: {
  bay: Bay;
  /** Whether the spots of the floor are what is worked at, instead of walls and things. */
  floor: boolean;
  held: Hold | null;
  /** What is written beside each spot. */
  marks: ReadonlyMap<number, { words: string; loose: boolean }>;
  onHold: (hold: Hold | null) => void;
  onChange: (where: string, bay: Bay) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<{ start: Bay; hold: Hold; from: Vec; now: Snapped } | null>(
    null,
  );
  const shown = drag?.now.bay ?? bay;
  const placeOf = (e: PointerEvent): Vec => {
    const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(
      svg.current!.getScreenCTM()!.inverse(),
    );
    return [at.x, -at.y];
  };
  const take = (e: PointerEvent, hold: Hold): void => {
    e.stopPropagation();
    svg.current!.setPointerCapture(e.pointerId);
    onHold(hold);
    const none = { x: null, y: null };
    setDrag({ start: bay, hold, from: placeOf(e), now: { bay, guides: none } });
  };
  const onPointerMove = (e: PointerEvent): void => {
    if (!drag) return;
    const [x, y] = placeOf(e);
    // A finger that only rests does not move anything.
    if (drag.now.bay === drag.start && Math.hypot(x - drag.from[0], y - drag.from[1]) < 60) return;
    setDrag({ ...drag, now: dragged(drag.start, drag.hold, [x - drag.from[0], y - drag.from[1]]) });
  };
  const onPointerUp = (): void => {
    if (drag && drag.now.bay !== drag.start) onChange("drag", drag.now.bay);
    setDrag(null);
  };
  const onKey = (e: KeyboardEvent, hold: Hold): void => {
    const way = KEYS[e.key];
    if (way) {
      e.preventDefault();
      const mm = e.shiftKey ? SHOVE_MM : NUDGE_MM;
      onChange(`key/${hold.kind}/${hold.i}`, moved(bay, hold, way[0] * mm, way[1] * mm));
    } else if (e.key === "Delete" || e.key === "Backspace") {
      e.preventDefault();
      onHold(null);
      onChange("delete", without(bay, hold));
    } else if (e.key === "Escape") onHold(null);
  };
  const handle = (hold: Hold) => ({
    role: "button",
    tabIndex: 0,
    "aria-label": holdName(shown, hold),
    "aria-pressed": sameHold(held, hold),
    onPointerDown: (e: PointerEvent) => take(e, hold),
    onFocus: () => onHold(hold),
    onKeyDown: (e: KeyboardEvent) => onKey(e, hold),
    className: "cursor-grab touch-none outline-none",
  });
  const frame = drag?.start.outline ?? bay.outline;
  return (
    <BayDrawing
      ref={svg}
      role="group"
      bay={shown}
      frame={frame}
      label={`${bay.name}, to draw on`}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerDown={() => onHold(null)}
    >
      {(flip) => (
        <>
          {drag && <Guides {...drag.now.guides} frame={frame} flip={flip} />}
          {floor ? (
            shown.floor?.spots.map((s, i) => (
              <g key={i} {...handle({ kind: "spot", i })}>
                <circle cx={s.xMm} cy={flip(s.yMm)} r={330} fill="transparent" />
                <SpotMark
                  x={s.xMm}
                  y={flip(s.yMm)}
                  n={i + 1}
                  held={sameHold(held, { kind: "spot", i })}
                  mark={marks.get(i)}
                />
              </g>
            ))
          ) : (
            <>
              {shown.obstacles.map((o, i) => (
                <g key={i} {...handle({ kind: "thing", i })}>
                  <polygon
                    points={o.outline.map(([x, y]) => `${x},${flip(y)}`).join(" ")}
                    fill="transparent"
                    stroke={sameHold(held, { kind: "thing", i }) ? "var(--act)" : "none"}
                    strokeWidth={60}
                  />
                </g>
              ))}
              {(["door", "light", "likeness"] as const).flatMap((kind) =>
                ({ door: shown.doors, light: shown.lights, likeness: shown.likenesses })[kind].map(
                  (_, i) => {
                    const [a, b] = placesOf(shown, { kind, i }) as [Vec, Vec];
                    const line = { x1: a[0], y1: flip(a[1]), x2: b[0], y2: flip(b[1]) };
                    return (
                      <g key={`${kind}${i}`} {...handle({ kind, i })}>
                        <polygon
                          points={about(a, b)
                            .map(([x, y]) => `${x},${flip(y)}`)
                            .join(" ")}
                          fill="transparent"
                        />
                        {sameHold(held, { kind, i }) && (
                          <line {...line} stroke="var(--act)" strokeWidth={70} />
                        )}
                      </g>
                    );
                  },
                ),
              )}
              {shown.outline.map(([x, y], i) => (
                <g key={i} {...handle({ kind: "corner", i })}>
                  <circle cx={x} cy={flip(y)} r={330} fill="transparent" />
                  <rect
                    x={x - 90}
                    y={flip(y) - 90}
                    width={180}
                    height={180}
                    fill={sameHold(held, { kind: "corner", i }) ? "var(--act)" : "var(--sheet)"}
                    stroke="var(--ink)"
                    strokeWidth={30}
                  />
                </g>
              ))}
              <Ends bay={shown} held={held} flip={flip} onTake={take} />
            </>
          )}
        </>
      )}
    </BayDrawing>
  );
}

/** Half of how wide a piece of wall is to the finger, mm. */
const FINGER_MM = 210;

/** What is taken hold of along a piece of wall. */
function about([ax, ay]: Vec, [bx, by]: Vec): Vec[] {
  const length = Math.hypot(bx - ax, by - ay) || 1;
  const [nx, ny] = [(-(by - ay) / length) * FINGER_MM, ((bx - ax) / length) * FINGER_MM];
  return [
    [ax + nx, ay + ny],
    [bx + nx, by + ny],
    [bx - nx, by - ny],
    [ax - nx, ay - ny],
  ];
}

/** The corners of a thing and the ends of a piece that is held, to be drawn each for itself. */
function Ends({
  bay,
  held,
  flip,
  onTake,
}: {
  bay: Bay;
  held: Hold | null;
  flip: (y: number) => number;
  onTake: (e: PointerEvent, hold: Hold) => void;
}) {
  if (!held || held.kind === "corner" || held.kind === "spot") return null;
  return placesOf(bay, { kind: held.kind, i: held.i }).map(([x, y], k) => (
    <g
      key={k}
      className="cursor-grab touch-none"
      onPointerDown={(e) =>
        onTake(
          e,
          held.kind === "thing"
            ? { kind: "thing", i: held.i, corner: k }
            : { kind: held.kind, i: held.i, end: k as 0 | 1 },
        )
      }
    >
      <circle cx={x} cy={flip(y)} r={220} fill="transparent" />
      <circle cx={x} cy={flip(y)} r={90} fill="var(--act)" />
    </g>
  ));
}

/** The lines that what is dragged came to lie on. */
function Guides({
  x,
  y,
  frame,
  flip,
}: Snapped["guides"] & { frame: readonly Vec[]; flip: (y: number) => number }) {
  const [xs, ys] = [frame.map((c) => c[0]), frame.map((c) => c[1])];
  const look = { stroke: "var(--act)", strokeWidth: 25, strokeDasharray: "100 70" };
  return (
    <>
      {x !== null && (
        <line x1={x} x2={x} y1={flip(Math.min(...ys))} y2={flip(Math.max(...ys))} {...look} />
      )}
      {y !== null && (
        <line x1={Math.min(...xs)} x2={Math.max(...xs)} y1={flip(y)} y2={flip(y)} {...look} />
      )}
    </>
  );
}

/** A spot of the floor: its number, and what was read there. */
function SpotMark({
  x,
  y,
  n,
  held,
  mark,
}: {
  x: number;
  y: number;
  n: number;
  held: boolean;
  mark: { words: string; loose: boolean } | undefined;
}) {
  return (
    <>
      <circle
        cx={x}
        cy={y}
        r={200}
        fill={held ? "var(--act)" : "var(--sheet)"}
        stroke={mark?.loose ? "var(--loose)" : "var(--ink)"}
        strokeWidth={mark?.loose ? 60 : 25}
      />
      <text
        x={x}
        y={y}
        fontSize={210}
        textAnchor="middle"
        dominantBaseline="central"
        fill={held ? "var(--on-act)" : "var(--ink)"}
        className="figure"
      >
        {n}
      </text>
      {mark && (
        <text
          x={x}
          y={y + 380}
          fontSize={230}
          textAnchor="middle"
          dominantBaseline="central"
          fill={mark.loose ? "var(--loose)" : "var(--soft)"}
          className="figure"
        >
          {mark.words}
        </text>
      )}
    </>
  );
}
