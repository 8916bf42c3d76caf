import type { SetOutSolution } from "@/core/setout";
import { formatLength } from "@/core/units";
import { useSettings } from "../settings";

/** One case of an error, and what follows from it: figures by the columns' order. */
export type MeaningRow = { case: string; figures: (string | string[])[]; now?: boolean };

/**
 * What an error means, case by case: the one that holds now first, then what a hand's slip would do.
 */
export function MeaningTable({ columns, rows }: { columns: string[]; rows: MeaningRow[] }) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full min-w-[560px] border-collapse text-left text-lg">
        <thead>
          <tr className="border-b-2 border-ink align-bottom">
            <th className="py-2 pr-4 font-semibold">If it is</th>
            {columns.map((c) => (
              <th key={c} className="py-2 pl-4 text-right font-semibold">
                {c}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr
              key={r.case}
              className={`border-b border-dashed border-hairline ${r.now ? "bg-wash/60 font-semibold" : ""}`}
            >
              <th className="min-w-40 py-2.5 pr-4 font-[inherit]">{r.case}</th>
              {r.figures.map((f, i) => (
                <td key={columns[i]} className="figure py-2.5 pl-4 text-right">
                  {typeof f === "string"
                    ? f
                    : f.map((part) => (
                        <span key={part} className="block">
                          {part}
                        </span>
                      ))}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Whether anything of a target was read that still counts: before that nobody knows how it lies. */
export const isRead = (s: SetOutSolution): boolean =>
  s.aim !== null && s.readings.some((r) => r.state === "counts");

/** Lengths as this tablet writes them; long ones in metres. */
export function useLengths(): {
  mm: (v: number) => string;
  far: (v: number) => string;
} {
  const { lengths } = useSettings();
  return {
    mm: (v) => formatLength(Math.abs(v), lengths),
    far: (v) =>
      lengths === "mm"
        ? `${(Math.abs(v) / 1000).toFixed(2)}\u00a0m`
        : formatLength(Math.abs(v), lengths),
  };
}
