"use client";

import { useCallback } from "react";
import type { Slop } from "@/core/setout";
import { formatChance, formatLength, formatNumber, radToDeg } from "@/core/units";
import { useJob } from "../bench/job-store";
import { Dialog } from "../primitives/dialog";
import { useSettings } from "../settings";
import { useProof } from "./proof-worker";

/** Where to be careful: how far each reading and mark may be off, and whether two halves agree. */
export function CareDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title="Where to be careful" wide>
      {open && <CareView />}
    </Dialog>
  );
}

/** More than this is as good as anything: nobody misreads a tape by it. */
const PLENTY = { mm: 40, rad: 0.02 };

function CareView() {
  const { ground, events, target, judged } = useJob();
  const answer = useProof(
    useCallback(
      (proof) => proof.care(ground, events, target?.id ?? ""),
      [ground, events, target?.id],
    ),
  );
  if (!answer)
    return <p className="py-16 text-center text-lg text-soft">Leaning on each reading in turn …</p>;
  const { slops, halves } = answer;
  if (slops.length === 0)
    return (
      <p className="text-lg">
        Too little is read yet: once the board could be called set, it says here how far each
        reading may be off.
      </p>
    );
  const set = judged?.verdict.kind === "set";
  return (
    <>
      <p className="mb-3 text-lg leading-snug">
        How far each may be off before the chance falls below{" "}
        {formatChance(judged?.solution.plan.thresholds.setChance ?? 0.99)}
        {set ? "." : ", as if the board stood where it belongs."}{" "}
        <span className="text-soft">Short bars are where care pays.</span>
      </p>
      <Bars title="Readings" slops={slops.filter((s) => s.of === "reading")} />
      <Bars title="Marks of the vehicle" slops={slops.filter((s) => s.of === "mark")} />
      <section aria-label="Two halves" className="mt-5 border-t-2 border-ink pt-3">
        <h3 className="text-sm font-semibold text-soft">Two halves of the readings, taken apart</h3>
        {halves ? (
          <>
            <p className="text-xl leading-snug">
              agree within{" "}
              <b className="figure font-semibold">
                {formatNumber(halves.mm, 1)} ± {formatNumber(halves.sigmaMm, 1)} mm
              </b>{" "}
              and{" "}
              <b className="figure font-semibold">
                {formatNumber(radToDeg(Math.abs(halves.turnRad)), 2)} ±{" "}
                {formatNumber(radToDeg(halves.sigmaRad), 2)}°
              </b>
              .
            </p>
            <p className="text-base text-soft">
              {halves.of[0].join(", ")}; against {halves.of[1].join(", ")}.
            </p>
          </>
        ) : (
          <p className="text-lg">
            No two halves both fix the board by themselves: more readings of other kinds would make
            two.
          </p>
        )}
      </section>
    </>
  );
}

const byCare = (a: Slop, b: Slop): number => a.most / PLENTY[a.unit] - b.most / PLENTY[b.unit];

function Bars({ title, slops }: { title: string; slops: readonly Slop[] }) {
  const { lengths } = useSettings();
  if (slops.length === 0) return null;
  return (
    <section aria-label={title} className="mb-4">
      <h3 className="text-sm font-semibold text-soft">{title}</h3>
      <table className="w-full text-base">
        <tbody>
          {[...slops].sort(byCare).map(({ id, name, unit, most }) => {
            const share = Math.min(1, most / PLENTY[unit]);
            const figure =
              most >= PLENTY[unit]
                ? "hardly matters"
                : unit === "mm"
                  ? `± ${formatLength(most, lengths)}`
                  : `± ${formatNumber(radToDeg(most), 2)}°`;
            return (
              <tr key={id} className="border-b border-dashed border-hairline">
                <th scope="row" className="w-1/2 py-1.5 pr-3 text-left font-normal">
                  {name}
                </th>
                <td className="hidden w-1/3 sm:table-cell">
                  <span className="block h-3 bg-wash">
                    <span
                      className={`block h-3 ${share < 0.15 ? "bg-loose" : "bg-ink"}`}
                      style={{ width: `${Math.max(2, 100 * share)}%` }}
                    />
                  </span>
                </td>
                <td
                  className={`whitespace-nowrap pl-3 text-right ${share === 1 ? "text-soft" : "figure"} ${share < 0.15 ? "font-semibold" : ""}`}
                >
                  {figure}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
