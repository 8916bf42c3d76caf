"use client";

import type { Remote } from "comlink";
import { useCallback } from "react";
import { SEAM_NAMES } from "@/core/ready";
import { CORNERS, type CornerId, type StepForecast } from "@/core/surround";
import { formatLength } from "@/core/units";
import type { SurroundWorker } from "@/workers/surround/surround.worker";
import { useJob } from "../bench/job-store";
import { Dialog } from "../primitives/dialog";
import { useSettings } from "../settings";
import { useSurround } from "./use-surround";

/** Nineteen times in twenty it is no more. */
const SURE = 1.96;
const most = ({ meanMm, sigmaMm }: { meanMm: number; sigmaMm: number }): number =>
  Math.abs(meanMm) + SURE * sigmaMm;

/** What the mats, as they lie, would make of the joined picture: the step at each seam. */
export function SeamsDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog open={open} onClose={onClose} title="What it means at the seams" wide>
      {open && <Forecast />}
    </Dialog>
  );
}

function Forecast() {
  const { ground, events } = useJob();
  const steps = useSurround(
    useCallback((s: Remote<SurroundWorker>) => s.stepsAhead(ground, events), [ground, events]),
  );
  if (!steps)
    return (
      <p className="py-16 text-center text-lg text-soft">Letting the unit learn in advance …</p>
    );
  const worst = CORNERS.reduce((a, b) => (mostAt(steps, b) > mostAt(steps, a) ? b : a));
  return <Steps steps={steps} worst={worst} />;
}

const mostAt = (steps: StepForecast, c: CornerId): number =>
  Math.max(most(steps[c].along), most(steps[c].across));

function Steps({ steps, worst }: { steps: StepForecast; worst: CornerId }) {
  const { lengths } = useSettings();
  const mm = (v: number): string => formatLength(v, lengths);
  return (
    <>
      <p className="mb-4 text-xl leading-snug">
        As the mats lie by all that was read, the joined picture would break by at most{" "}
        <b className="figure font-semibold">{mm(mostAt(steps, worst))}</b>, {SEAM_NAMES[worst]}.{" "}
        <span className="text-base text-soft">
          Nineteen times in twenty it is no more. What the cameras’ own noise adds comes on top.
        </span>
      </p>
      <div className="grid gap-3 sm:grid-cols-2">
        {CORNERS.map((c) => (
          <section
            key={c}
            aria-label={SEAM_NAMES[c]}
            className={`border-l-4 bg-wash/60 p-3 ${c === worst ? "border-loose" : "border-hairline"}`}
          >
            <h3 className="text-base font-semibold first-letter:uppercase">{SEAM_NAMES[c]}</h3>
            <dl className="grid grid-cols-[1fr_auto] gap-x-4 text-base">
              <dt className="text-soft">Lines along the car</dt>
              <dd className="figure">
                {mm(Math.abs(steps[c].across.meanMm))} ± {mm(SURE * steps[c].across.sigmaMm)}
              </dd>
              <dt className="text-soft">Lines across the car</dt>
              <dd className="figure">
                {mm(Math.abs(steps[c].along.meanMm))} ± {mm(SURE * steps[c].along.sigmaMm)}
              </dd>
            </dl>
          </section>
        ))}
      </div>
      <p className="mt-4 text-base text-soft">
        Worked out with a unit that takes each camera’s place and aim from the marks it sees.
        Another unit may share the error out otherwise; a camera takes over the error of its marks
        in any.
      </p>
    </>
  );
}
