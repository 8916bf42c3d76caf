import { slotValue, spanOf, type FloorSpot, type Judged } from "@/core/setout";
import { useSettings } from "../settings";
import type { Place, View } from "./geometry";

/** Where along its tape a figure sits, in turn. */
const PLACES = [0.36, 0.36, 0.24, 0.24, 0.5, 0.16, 0.16];
/** Those whose neighbours would cover them: along the edge of a mat everything runs the same way. */
const OWN_PLACES: Record<string, number> = {
  "laser-badge": 0.46,
  "about-laser": 0.2,
  "mat-abeam": -0.55,
  "mat-cross": -0.55,
  "mat-rear-front": 0.5,
  "mat-front-rear": 0.78,
  "mat-apart-front": 0.5,
  "mat-apart-rear": 0.5,
};
const SHORT_PX = 60;

/**
 * Every tape and the board laser as a thin arrow: armed, taken, suspect or in doubt, with its
 * value.
 */
export function Tapes({
  view,
  judged,
  armedSlot,
  onArm,
  board,
}: {
  view: View;
  judged: Judged;
  armedSlot: string | null;
  onArm: (slotId: string) => void;
  board: (Place & { heading: number }) | null;
}) {
  const { lengths } = useSettings();
  const suspects = new Set(judged.verdict.suspects);
  const drawnAt = board
    ? { xMm: board.x, yMm: board.y, headingRad: board.heading }
    : judged.solution.target.pose;
  const to = ({ xMm, yMm }: FloorSpot) => view.to({ x: xMm, y: yMm });
  return (
    <g>
      {judged.solution.slots.map((slot, i) => {
        const span = spanOf(slot, judged.solution, drawnAt);
        if (!span) return null;
        const readings = judged.solution.readings.filter((r) => r.slotId === slot.id);
        const last = readings.findLast((r) => r.state === "counts") ?? readings.at(-1);
        const armed = armedSlot === slot.id;
        if (!last && !armed) return null;
        const suspect = readings.some((r) => suspects.has(r.id));
        const doubt = last?.state === "doubt";
        const [a, b] = [to(span[0]), to(span[1])];
        const tone = armed ? "act" : suspect ? "loose" : "ink";
        // Values sit at different fractions of their tapes, so that crossing tapes do not cross
        // their figures.
        const f = slot.wall ? 0.5 : (OWN_PLACES[slot.id] ?? PLACES[i % PLACES.length]!);
        const text = last ? slotValue(slot, last.shown, lengths).replace("vehicle ", "") : "?";
        const width = text.length * 9.4 + 14;
        const far = Math.hypot(b.u - a.u, b.v - a.v);
        // A span shorter than its figure wears it beyond its first end.
        const t = far < SHORT_PX && !(slot.id in OWN_PLACES) ? -16 / Math.max(far, 1) : f;
        const at = { u: a.u + (b.u - a.u) * t, v: a.v + (b.v - a.v) * t };
        return (
          <g key={slot.id} onClick={() => onArm(slot.id)} className="cursor-pointer">
            <line x1={a.u} y1={a.v} x2={b.u} y2={b.v} stroke="transparent" strokeWidth={18} />
            <line
              x1={a.u}
              y1={a.v}
              x2={b.u}
              y2={b.v}
              stroke={`var(--${tone})`}
              strokeWidth={armed ? 3 : suspect ? 2.4 : 1.2}
              strokeDasharray={
                suspect ? "7 5" : doubt ? "2 5" : slot.id === "laser-badge" ? "1 4" : undefined
              }
              strokeLinecap="round"
              opacity={doubt ? 0.5 : 1}
            />
            <circle cx={a.u} cy={a.v} r={armed ? 5 : 3} fill={`var(--${tone})`} />
            <circle cx={b.u} cy={b.v} r={armed ? 5 : 3} fill={`var(--${tone})`} />
            <g opacity={doubt ? 0.6 : 1}>
              <rect
                x={at.u - width / 2}
                y={at.v - 12}
                width={width}
                height={24}
                rx={2}
                fill={armed ? "var(--act)" : "var(--sheet)"}
                stroke={`var(--${tone})`}
                strokeWidth={suspect ? 1.6 : 0.8}
                strokeDasharray={suspect ? "4 3" : undefined}
              />
              <text
                x={at.u}
                y={at.v + 6}
                textAnchor="middle"
                className="figure text-[16px] font-semibold"
                fill={armed ? "var(--on-act)" : `var(--${tone})`}
              >
                {text}
              </text>
            </g>
          </g>
        );
      })}
    </g>
  );
}
