import { slotValue, type Judged, type Slot } from "@/core/setout";
import { vehiclePoints } from "@/core/vehicle";
import { useSettings } from "../settings";
import type { Place, View } from "./geometry";

const HUBS: Record<string, string> = { fl: "hubFL", fr: "hubFR", rl: "hubRL", rr: "hubRR" };

/** Where a plan reading runs on the floor: from a hub to a beam end, or from the board to the badge. */
function spanOf(slot: Slot, judged: Judged, board: (Place & { heading: number }) | null): [Place, Place] | null {
  const { plan, target } = judged.solution;
  const at = board ?? { x: target.pose.xMm, y: target.pose.yMm, heading: target.pose.headingRad };
  const places = new Map(vehiclePoints(plan.vehicle).map((p) => [p.id as string, { x: p.xMm, y: p.yMm }]));
  const [family, from, end] = slot.id.split("-");
  if (family === "tape") {
    const along = end === "l" ? -plan.stand.beamHalfMm : plan.stand.beamHalfMm;
    return [
      places.get(HUBS[from!]!)!,
      { x: at.x - Math.sin(at.heading) * along, y: at.y + Math.cos(at.heading) * along },
    ];
  }
  if (slot.id === "laser-badge") return [{ x: at.x, y: at.y }, places.get("badgeF")!];
  return null;
}

/** Every tape and the board laser as a thin arrow: armed, taken, suspect or in doubt, with its value. */
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
  return (
    <g>
      {judged.solution.slots.map((slot, i) => {
        const span = spanOf(slot, judged, board);
        if (!span) return null;
        const readings = judged.solution.readings.filter((r) => r.slotId === slot.id);
        const last = readings.findLast((r) => r.state === "counts") ?? readings.at(-1);
        const armed = armedSlot === slot.id;
        if (!last && !armed) return null;
        const suspect = readings.some((r) => suspects.has(r.id));
        const doubt = last?.state === "doubt";
        const [a, b] = [view.to(span[0]), view.to(span[1])];
        const tone = armed ? "act" : suspect ? "loose" : "ink";
        // Values sit at different fractions of their tapes, so that crossing tapes do not cross their figures.
        const f = slot.id === "laser-badge" ? 0.46 : [0.36, 0.36, 0.24, 0.24, 0.5, 0.16, 0.16][i % 7]!;
        const at = { u: a.u + (b.u - a.u) * f, v: a.v + (b.v - a.v) * f };
        const text = last ? slotValue(slot, last.shown, lengths).replace("vehicle ", "") : "?";
        const width = text.length * 9.4 + 14;
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
              strokeDasharray={suspect ? "7 5" : doubt ? "2 5" : slot.id === "laser-badge" ? "1 4" : undefined}
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
