"use client";

import type { JobRecord } from "@/core/record";
import { degToRad, formatNumber } from "@/core/units";
import { Button } from "../primitives/button";
import { useTimes } from "../settings";

const TURNS = { yaw: "to the side", pitch: "up or down", roll: "in its plane" } as const;
const FAR_M = 60;

/** A notice with figures and no blame: what was measured, what it does, what is asked. */
export function GlassLetter({
  record,
  glass,
}: {
  record: JobRecord;
  glass: NonNullable<JobRecord["glass"]>;
}) {
  const { dateAndTime } = useTimes();
  const { vehicle, job } = record;
  const { turnDeg, limitDeg, depthsMm, inside } = glass;
  const depths = Object.entries(depthsMm);
  const deepest = Math.max(...depths.map(([, d]) => d));
  const aside = turnDeg && Math.tan(degToRad(turnDeg.yaw)) * FAR_M * 100;
  const wrong = glass.mount.filter((m) => !m.right);
  return (
    <main className="mx-auto max-w-[780px] bg-sheet p-8 print:p-0">
      <div className="no-print mb-6 flex justify-end">
        <Button look="act" onClick={() => window.print()}>
          Print
        </Button>
      </div>
      <h1 className="text-3xl font-semibold">How the windshield sits</h1>
      <p className="mt-2 text-lg text-soft">
        {glass.fitter ? `To ${glass.fitter}. ` : ""}
        {vehicle.make} {vehicle.model}, {vehicle.plate || "no plate"}, VIN {vehicle.vin}. Part{" "}
        {glass.part || "not named"}, measured {dateAndTime(glass.at)} by {glass.by.name} under job{" "}
        {job.number}.
      </p>
      <p className="mt-4 text-xl font-semibold">
        {inside === null
          ? "Its seat could not be told from what was measured."
          : inside && wrong.length === 0
            ? "It sits inside what the vehicle allows."
            : "It does not sit as the vehicle’s camera needs it."}
      </p>
      {depths.length > 0 && (
        <>
          <h2 className="mt-6 text-xl font-semibold">Seating depths</h2>
          <table className="mt-1 w-full text-left text-lg">
            <tbody>
              {depths.map(([spot, mm]) => (
                <tr key={spot} className="border-t border-hairline">
                  <td className="py-1 first-letter:uppercase">{spot.replace("-", " ")}</td>
                  <td className="figure text-right">{formatNumber(mm, 1)} mm</td>
                  <td className="pl-6 text-soft">
                    {deepest - mm < 0.5
                      ? "level with the deepest"
                      : `stands ${formatNumber(deepest - mm, 1)} mm proud of the deepest`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      {turnDeg && (
        <>
          <h2 className="mt-6 text-xl font-semibold">What that does to the camera</h2>
          <p className="text-lg">
            {(["yaw", "pitch", "roll"] as const)
              .map((k) => `${formatNumber(Math.abs(turnDeg[k]), 2)}° ${TURNS[k]}`)
              .join(", ")}
            ; the vehicle allows {formatNumber(limitDeg, 2)}°. Sixty metres ahead it looks{" "}
            {formatNumber(Math.abs(aside!))} cm to vehicle {aside! >= 0 ? "left" : "right"} of where
            it should.
          </p>
        </>
      )}
      {wrong.length > 0 && (
        <>
          <h2 className="mt-6 text-xl font-semibold">At its mount</h2>
          <ul className="list-disc pl-6 text-lg">
            {wrong.map((m) => (
              <li key={m.name}>{m.name}</li>
            ))}
          </ul>
        </>
      )}
      <h2 className="mt-6 text-xl font-semibold">What is asked</h2>
      <p className="text-lg">
        {inside && wrong.length === 0
          ? "Nothing: these figures are for your own file."
          : "Look at the seat of this glass before its adhesive is hard, or set it anew. A calibration can only turn the picture; it cannot put the glass right. The maker’s fitting instructions decide."}
      </p>
      <p className="mt-6 text-sm text-soft">{record.notice}</p>
    </main>
  );
}
