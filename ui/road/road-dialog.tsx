"use client";

import { wrap, type Remote } from "comlink";
import { startTransition, useEffect, useMemo, useState } from "react";
import type { Spread } from "@/core/camera";
import { boardKnowledge, roadSetting, toleranceCase, type Judged } from "@/core/setout";
import { formatChance, formatNumber, radToDeg } from "@/core/units";
import type { Road } from "@/workers/road/road.worker";
import { AfterPaint } from "../primitives/after-paint";
import { Dialog } from "../primitives/dialog";
import { ChanceChart } from "./chance-chart";
import { RoadPicture } from "./road-picture";

let worker: Remote<Road> | null = null;
const road = (): Remote<Road> =>
  (worker ??= wrap<Road>(
    new Worker(new URL("../../workers/road/road.worker.ts", import.meta.url), { type: "module" }),
  ));

/** What the board as it stands would mean on the road. */
export function RoadDialog({
  open,
  judged,
  onClose,
}: {
  open: boolean;
  judged: Judged;
  onClose: () => void;
}) {
  return (
    <Dialog open={open} onClose={onClose} title="What it means on the road" wide>
      <AfterPaint>
        <RoadView judged={judged} />
      </AfterPaint>
    </Dialog>
  );
}

function RoadView({ judged }: { judged: Judged }) {
  const s = judged.solution;
  const known = useMemo(() => boardKnowledge(s), [s]);
  const setting = useMemo(() => roadSetting(s.plan), [s]);
  const read = s.readings.some((r) => r.state === "counts");
  const tolerance = useMemo(() => toleranceCase(s), [s]);
  const [answer, setAnswer] = useState<ReturnType<Road["outcome"]> | null>(null);
  const [times, setTimes] = useState(1);
  useEffect(() => {
    if (!known || !tolerance || !read) return;
    let live = true;
    void road()
      .outcome(setting, known, tolerance)
      // Drawn bit by bit: nothing waits for a picture that came from beside the page.
      .then((a) => live && startTransition(() => setAnswer(a)));
    return () => void (live = false);
  }, [known, setting, tolerance, read]);
  if (!known || !read)
    return <p className="text-lg">Nothing is read yet: take the first readings, then look here.</p>;
  if (!answer)
    return (
      <p className="py-16 text-center text-lg text-soft">
        Working out 20 000 boards that fit the readings …
      </p>
    );
  const { outcome, buys, curve } = answer;
  const { yaw, pitch, roll } = outcome.turn;
  const turn = { yaw: yaw.middle, pitch: pitch.middle, roll: roll.middle };
  return (
    <>
      <p className="mb-2 text-lg leading-snug">
        A camera that learns from the board as it stands now would take the lane for the dashed one.{" "}
        <span className="text-soft">Solid: where it is.</span>
      </p>
      <div className="relative">
        <RoadPicture
          setting={setting}
          turn={turn}
          band={[
            { ...turn, yaw: yaw.low },
            { ...turn, yaw: yaw.high },
          ]}
          times={times}
        />
        <button
          type="button"
          onClick={() => setTimes(times === 1 ? 10 : 1)}
          className="absolute right-2 top-2 min-h-12 rounded-md border border-hairline bg-sheet px-3 text-base font-semibold hover:bg-wash"
        >
          {times === 1 ? "Drawn true; show ×10" : "Drawn ×10; show true"}
        </button>
      </div>
      <div className="mt-3 grid gap-x-8 gap-y-3 md:grid-cols-[1.5fr_1fr]">
        <table className="w-full text-lg">
          <thead>
            <tr className="border-b-2 border-ink text-right text-sm text-soft">
              <th scope="col" className="text-left font-semibold">
                At
              </th>
              <th scope="col" className="px-3 font-semibold">
                Lane believed off by
              </th>
              <th scope="col" className="font-semibold">
                Range off by
              </th>
            </tr>
          </thead>
          <tbody>
            {outcome.lane.map((l, i) => (
              <tr key={l.distanceMm} className="border-b border-dashed border-hairline text-right">
                <td className="figure py-1.5 text-left">{l.distanceMm / 1000} m</td>
                <td className="figure px-3 font-semibold">
                  {side(l.offsetMm.middle)} <Between s={l.offsetMm} unit={1000} decimals={2} />
                </td>
                <td className="figure font-semibold">
                  {metres(outcome.range[i]!.errorMm.middle)}{" "}
                  <Between s={outcome.range[i]!.errorMm} unit={1000} decimals={1} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <div>
          <p className="text-sm text-soft">The camera would learn</p>
          <p className="figure text-lg">{`yaw ${deg(yaw.middle)}, pitch ${deg(pitch.middle)}, roll ${deg(roll.middle)}`}</p>
          <p className="mt-2 text-sm text-soft">What buys most</p>
          {buys.length === 0 ? (
            <p className="text-base">Nothing worth a hand on the stand.</p>
          ) : (
            buys
              .slice(0, 2)
              .map((g) => (
                <p
                  key={g.id}
                  className="text-base"
                >{`Right the ${g.name}: at 60 m ${[g.laneMm > 5 ? `the lane comes ${metres(g.laneMm)} nearer to where it is` : null, Math.abs(g.rangeMm) > 200 ? `the range by ${metres(g.rangeMm)}` : null].filter(Boolean).join(", ")}.`}</p>
              ))
          )}
          <p className="mt-2 text-sm text-soft">
            Chance inside, were the tolerance narrower or wider
          </p>
          <ChanceChart curve={curve} />
          <p className="text-sm text-soft">{`Now ${formatChance(judged.verdict.chance)} at the sheet’s own.`}</p>
        </div>
      </div>
      <p className="mt-3 text-sm text-soft">
        Brackets: 95 % of {formatNumber(outcome.samples)} boards that fit the readings. On a flat
        road; the vehicle’s own filters may hide or soften it.
      </p>
    </>
  );
}

const metres = (mm: number): string =>
  Number.isFinite(mm)
    ? `${formatNumber(mm / 1000, Math.abs(mm) < 2000 ? 2 : 1)} m`
    : "beyond the horizon";
const side = (mm: number): string =>
  `${formatNumber(Math.abs(mm) / 1000, 2)} m ${mm >= 0 ? "L" : "R"}`;
const deg = (rad: number): string => `${rad >= 0 ? "+" : ""}${formatNumber(radToDeg(rad), 2)}°`;

const Between = ({ s, unit, decimals }: { s: Spread; unit: number; decimals: number }) => (
  <span className="block text-sm font-normal text-soft">{`${formatNumber(s.low / unit, decimals)} … ${formatNumber(s.high / unit, decimals)}`}</span>
);
