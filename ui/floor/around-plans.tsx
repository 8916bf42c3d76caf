import type { Judged } from "@/core/setout";
import type { Target as SheetTarget } from "@/core/sheet";
import type { Place, View } from "./geometry";
import { TONES, Wheel } from "./shapes";

/** What is drawn only where a job has more than boards ahead of the vehicle: fetched with those. */

/** How far behind the hitch a trailer's box begins, mm. */
const DRAWBAR_MM = 1100;

/** A trailer by itself: its box, its wheels, and the bars to the hitch. */
export function TrailerPlan({
  view,
  trailer,
}: {
  view: View;
  trailer: Judged["solution"]["plan"]["vehicle"];
}) {
  const half = trailer.widthMm / 2;
  const hitch = trailer.wheelbaseMm;
  const [front, rear] = [hitch - DRAWBAR_MM, hitch - trailer.lengthMm];
  const path = (points: Place[], closed: boolean): string =>
    `M${points.map((p) => `${view.to(p).u} ${view.to(p).v}`).join("L")}${closed ? "Z" : ""}`;
  const tip = view.to({ x: hitch, y: 0 });
  return (
    <g>
      {[half, -half].map((y) => (
        <Wheel key={y} view={view} at={{ x: 0, y }} radius={trailer.hubHeightMm} />
      ))}
      <path
        d={path(
          [
            { x: front, y: 0.6 * half },
            { x: hitch, y: 0 },
            { x: front, y: -0.6 * half },
          ],
          false,
        )}
        className="fill-none stroke-ink"
        strokeWidth={1.8}
      />
      <path
        d={path(
          [
            { x: front, y: half },
            { x: front, y: -half },
            { x: rear, y: -half },
            { x: rear, y: half },
          ],
          true,
        )}
        className="fill-sheet stroke-ink"
        strokeWidth={1.8}
        fillOpacity={0.86}
      />
      <circle cx={tip.u} cy={tip.v} r={5} className="fill-sheet stroke-ink" strokeWidth={1.8} />
    </g>
  );
}

/** A mat to scale: its edge, its cross line, and the arrow that points the vehicle's way. */
export function MatPlan({
  view,
  at,
  target,
  ghost,
  tone,
}: {
  view: View;
  at: Place & { heading: number };
  target: Pick<SheetTarget, "kind" | "object">;
  ghost: boolean;
  tone: "set" | "move" | "read";
}) {
  const { u, v } = view.to(at);
  const k = view.pxPerMm;
  if (target.kind === "mark")
    return (
      <g
        transform={`translate(${u} ${v}) rotate(${view.turn(at.heading)})`}
        className={TONES[tone]}
        strokeDasharray={ghost ? "4 3" : undefined}
        opacity={ghost ? 0.6 : 1}
        strokeWidth={3.5}
      >
        <line x1={-13} y1={0} x2={13} y2={0} />
        <line x1={0} y1={-13} x2={0} y2={13} />
      </g>
    );
  const { aheadMm = 0, lengthMm = 0, widthMm } = target.object;
  const [front, half] = [aheadMm * k, (widthMm / 2) * k];
  const tip = front - 10;
  return (
    <g
      transform={`translate(${u} ${v}) rotate(${view.turn(at.heading)})`}
      className={TONES[tone]}
      strokeDasharray={ghost ? "6 5" : undefined}
      opacity={ghost ? 0.6 : 1}
      style={{ transition: "transform 160ms ease-out" }}
    >
      <rect
        x={front - lengthMm * k}
        y={-half}
        width={lengthMm * k}
        height={2 * half}
        className="fill-sheet"
        fillOpacity={0.75}
        strokeWidth={2}
      />
      <line x1={0} y1={-half} x2={0} y2={half} strokeWidth={2.5} />
      <path
        d={`M ${tip - 34} 0 H ${tip} M ${tip - 12} -8 L ${tip} 0 L ${tip - 12} 8`}
        className="fill-none"
        strokeWidth={2}
        strokeDasharray="none"
      />
    </g>
  );
}
