"use client";

import { lineViews, type Judged } from "@/core/setout";
import { formatNumber, formatQuantity, radToDeg } from "@/core/units";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { Dialog } from "../primitives/dialog";
import { Mark } from "../primitives/marks";

/**
 * Which line: all three as far as they are known on this vehicle, and what taking the wrong one
 * would cost.
 */
export function LinesDialog({
  open,
  judged,
  onClose,
}: {
  open: boolean;
  judged: Judged;
  onClose: () => void;
}) {
  const { head, write, say, me } = useJob();
  const views = open ? lineViews(judged.solution) : [];
  const { target, instruments, school } = judged.solution.plan;
  const rig = instruments.some((i) => i.kind === "rig") && school === "rig";
  const roll = async (): Promise<void> => {
    const response = await fetch(`/api/jobs/${head.id}/bay?roll=1`, { cache: "no-store" }).catch(
      () => null,
    );
    const body = (await response?.json().catch(() => null)) as {
      toe?: { leftDeg: number; rightDeg: number };
      error?: string;
    } | null;
    if (body?.toe) {
      write({ kind: "rear-toe", ...body.toe, how: "rolled" });
      say(
        "The car has moved: park brake on and chocks in first. What was read of it before no longer counts.",
      );
    } else say(body?.error ?? "The rig does not answer.");
  };
  return (
    <Dialog open={open} onClose={onClose} title="Which line?" wide>
      <p className="mb-3 text-base">
        The sheet means the line with the flag. The others are shown against it, at the board: what
        taking one of them instead would cost.
      </p>
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="The three lines">
        <table className="w-full text-lg">
          <thead>
            <tr className="border-b-2 border-ink text-left text-sm text-soft">
              <th scope="col" className="py-1 font-semibold">
                Line
              </th>
              <th scope="col" className="px-2 text-right font-semibold">
                Turned
              </th>
              <th scope="col" className="px-2 text-right font-semibold">
                At the board
              </th>
              <th scope="col" className="pl-2 font-semibold">
                Known from
              </th>
            </tr>
          </thead>
          <tbody>
            {views.map((v) => (
              <tr
                key={v.kind}
                className={`border-b border-dashed border-hairline ${v.isSheets ? "font-semibold" : ""}`}
              >
                <td className="flex items-center gap-2 py-2">
                  <Mark state={v.isSheets ? "settled" : v.matters ? "loose" : "open"} size={12} />{" "}
                  {v.name}
                  {v.isSheets && (
                    <span className="rounded-md bg-act px-1.5 text-sm text-on-act">sheet</span>
                  )}
                </td>
                <td className={`figure px-2 text-right ${v.matters ? "text-loose" : ""}`}>
                  {v.turnRad === null
                    ? "–"
                    : v.isSheets
                      ? "0"
                      : `${formatQuantity(Math.abs(v.turnRad), "deg")} ${v.turnRad >= 0 ? "L" : "R"}`}
                  {!v.isSheets && v.turnRad !== null && (
                    <span className="block text-sm font-normal text-soft">
                      ± {formatNumber(radToDeg(v.sigmaRad), 2)}°
                    </span>
                  )}
                </td>
                <td className={`figure px-2 text-right ${v.matters ? "text-loose" : ""}`}>
                  {v.atBoardMm === null
                    ? "–"
                    : v.isSheets
                      ? "0"
                      : `${formatNumber(Math.abs(v.atBoardMm), 1)} mm ${v.atBoardMm >= 0 ? "L" : "R"}`}
                  {!v.isSheets && v.atBoardMm !== null && (
                    <span className="block text-sm font-normal text-soft">
                      ± {formatNumber(v.sigmaMm, 1)} mm
                    </span>
                  )}
                </td>
                <td className="pl-2 text-base font-normal">
                  {v.turnRad === null
                    ? "not known: no rear toe"
                    : v.seen
                      ? "readings on this vehicle"
                      : "the book’s dimensions only"}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-3 text-base text-soft">
        {target.tolerance.twistDeg !== undefined &&
          `Allowed: ${formatNumber(target.tolerance.twistDeg, 2)}° of twist${target.tolerance.acrossMm === undefined ? "" : ` and ${formatNumber(target.tolerance.acrossMm)} mm across`}. `}
        A difference above a third of what is allowed is marked.
      </p>
      {rig && me.role !== "viewer" && (
        <div className="mt-4 border-t border-hairline pt-3">
          <p className="mb-2 text-base">
            Roll the car half a wheel turn forward and back under the rig: it then knows where the
            rear wheels really point. Nobody before or behind the car while it rolls.
          </p>
          <Button look="act" size="large" onClick={() => void roll()}>
            The car was rolled
          </Button>
        </div>
      )}
    </Dialog>
  );
}
