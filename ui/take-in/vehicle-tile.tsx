import type { Vehicle } from "@/core/vehicle";
import { formatNumber } from "@/core/units";
import { fitView, softPath, vehicleOutline } from "../floor/geometry";

const BOX = { width: 150, height: 62 };

/** A vehicle of the shop's list, drawn in plan from its real dimensions, all to one scale. */
export function VehicleTile({
  vehicle: v,
  longestMm,
  chosen,
  flat,
  onChoose,
}: {
  vehicle: Vehicle;
  longestMm: number;
  chosen: boolean;
  /** Lying: picture beside the words, for the one that is chosen. */
  flat: boolean;
  onChoose: () => void;
}) {
  const front = v.wheelbaseMm + v.frontOverhangMm;
  const rear = front - v.lengthMm;
  const extent = { minX: rear, maxX: rear + longestMm, minY: -1300, maxY: 1300 };
  const view = fitView(extent, BOX.width, BOX.height, 1, { u: 0, v: 0 });
  const hub = (x: number, y: number) => {
    const p = view.to({ x, y });
    return (
      <rect key={`${x}${y}`} x={p.u - 7} y={p.v - 2} width={14} height={4} className="fill-chalk" />
    );
  };
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={onChoose}
      className={`flex min-h-16 rounded-md ${flat ? "col-span-2 flex-row items-center gap-3" : "flex-col"} border-2 bg-sheet px-3 py-2 text-left ${chosen ? "border-act" : "border-hairline hover:border-ink"}`}
    >
      <svg
        viewBox={`-3 0 ${BOX.width + 6} ${BOX.height}`}
        aria-hidden
        className={flat ? "w-[132px] shrink-0" : "w-full"}
      >
        {[0, v.wheelbaseMm].flatMap((x) => [1, -1].map((s) => hub(x, (s * v.trackFrontMm) / 2)))}
        <path
          d={softPath(vehicleOutline(v).map(view.to))}
          className="fill-sheet stroke-ink"
          strokeWidth={1.6}
          fillOpacity={0.85}
        />
        <circle
          cx={view.to({ x: v.camera.xMm, y: 0 }).u}
          cy={view.to({ x: 0, y: v.camera.yMm }).v}
          r={2.5}
          className="fill-ink"
        />
      </svg>
      <span className="flex flex-col">
        <span className="mt-1 text-base font-semibold leading-tight">
          {v.make} {v.model}
        </span>
        <span className="text-sm leading-tight text-soft">{v.variant}</span>
        <span className="text-sm text-soft">{formatNumber(v.wheelbaseMm)} wheelbase</span>
      </span>
    </button>
  );
}
