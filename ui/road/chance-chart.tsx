import { formatNumber } from "@/core/units";

const W = 300;
const H = 92;
const PAD = { left: 34, bottom: 20, top: 6 };

/**
 * Chance of being inside against the size of the tolerance; the sheet's own is the upright line.
 */
export function ChanceChart({ curve }: { curve: { factor: number; chance: number }[] }) {
  const widest = curve.at(-1)?.factor ?? 1;
  const u = (factor: number): number => PAD.left + ((W - PAD.left - 8) * factor) / widest;
  const v = (chance: number): number => PAD.top + (H - PAD.top - PAD.bottom) * (1 - chance);
  const line = curve
    .map((c, i) => `${i === 0 ? "M" : "L"}${u(c.factor).toFixed(1)} ${v(c.chance).toFixed(1)}`)
    .join("");
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      role="img"
      aria-label={`Chance inside at half, once and twice the tolerance: ${[0.5, 1, 2].map((f) => `${formatNumber(100 * (curve.find((c) => c.factor === f)?.chance ?? 0))} %`).join(", ")}`}
      className="w-full max-w-[340px]"
    >
      {[0, 0.5, 1].map((c) => (
        <g key={c}>
          <line x1={PAD.left} x2={W - 8} y1={v(c)} y2={v(c)} className="stroke-hairline" />
          <text
            x={PAD.left - 5}
            y={v(c) + 4}
            textAnchor="end"
            className="figure fill-soft text-[11px]"
          >{`${100 * c}`}</text>
        </g>
      ))}
      <line
        x1={u(1)}
        x2={u(1)}
        y1={PAD.top}
        y2={H - PAD.bottom}
        className="stroke-act"
        strokeWidth={1.5}
        strokeDasharray="4 3"
      />
      <path d={line} fill="none" className="stroke-ink" strokeWidth={2.2} />
      {[0.5, 1, 1.5, 2].map((f) => (
        <text
          key={f}
          x={u(f)}
          y={H - 5}
          textAnchor="middle"
          className="figure fill-soft text-[11px]"
        >{`×${f}`}</text>
      ))}
    </svg>
  );
}
