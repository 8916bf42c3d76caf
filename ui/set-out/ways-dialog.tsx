"use client";

import { wrap, type Remote } from "comlink";
import { useEffect, useMemo, useState } from "react";
import {
  misses,
  schoolOf,
  SCHOOLS,
  schoolsFor,
  standsOf,
  type Judged,
  type SchoolChance,
  type SchoolId,
} from "@/core/setout";
import { LACKED_WORDS, SCHOOL_WORDS } from "@/core/setout/school-words";
import { formatChance, formatNumber, radToDeg } from "@/core/units";
import { DATUM_NAMES } from "@/core/vehicle";
import { useJob } from "../bench/job-store";
import type { Ways as WaysWorker } from "@/workers/ways/ways.worker";
import { AfterPaint } from "../primitives/after-paint";
import { Dialog } from "../primitives/dialog";

let worker: Remote<WaysWorker> | null = null;
const ways = (): Remote<WaysWorker> =>
  (worker ??= wrap<WaysWorker>(
    new Worker(new URL("../../workers/ways/ways.worker.ts", import.meta.url), { type: "module" }),
  ));

/**
 * The ways of setting out, with how sure each makes one on this vehicle before anything is
 * measured.
 */
export function WaysDialog({
  open,
  judged,
  onClose,
  onChoose,
}: {
  open: boolean;
  judged: Judged;
  onClose: () => void;
  onChoose: (school: SchoolId) => void;
}) {
  return (
    <Dialog open={open} onClose={onClose} title="How will you set out?" wide>
      <AfterPaint>
        <Ways judged={judged} onClose={onClose} onChoose={onChoose} />
      </AfterPaint>
    </Dialog>
  );
}

function Ways({
  judged,
  onClose,
  onChoose,
}: {
  judged: Judged;
  onClose: () => void;
  onChoose: (s: SchoolId) => void;
}) {
  const { head, me, ground } = useJob();
  const { plan } = judged.solution;
  const able = useMemo(() => schoolsFor(plan), [plan]);
  const [chances, setChances] = useState(new Map<SchoolId, SchoolChance>());
  useEffect(() => {
    let live = true;
    void ways()
      .chances(plan, able)
      .then((list) => live && setChances(new Map(list.map((c) => [c.school, c]))));
    return () => void (live = false);
  }, [plan, able]);
  const here = schoolOf(plan);
  const { kind } = plan.target;
  /** Ways that set out this kind of target at all. */
  const around = standsOf(plan.target) !== "ahead";
  const fits = (id: SchoolId): boolean =>
    id === "free" ||
    ((SCHOOLS[id].for ?? "board") === kind && (SCHOOLS[id].around ?? false) === around);
  return (
    <>
      <p className="mb-3 text-base text-soft">
        Every reading counts, whichever way it was taken. The chance is of ending inside the
        tolerance in the plan once all its readings are taken, each once; below it, how well the
        place across and the {kind === "mark" ? "place along" : "twist"} are then known, two
        standard deviations.
      </p>
      <ul className="flex flex-col gap-2">
        {(Object.keys(SCHOOLS) as SchoolId[]).filter(fits).map((id) => {
          const s = { ...SCHOOLS[id], ...SCHOOL_WORDS[id] };
          const chance = chances.get(id);
          const lacks = s.needs.filter((k) => !plan.instruments.some((i) => i.kind === k));
          const missed = misses(id, plan.target);
          const unparked = s.walls === true && plan.bay === undefined;
          const blind =
            !s.sees.includes(plan.target.datum) &&
            !(plan.target.datum === "thrust" && s.sees.includes("rear-axle-normal"));
          return (
            <li
              key={id}
              className={`rounded-md border-2 ${here === id ? "border-act" : "border-hairline"}`}
            >
              <button
                type="button"
                disabled={missed || unparked || lacks.length > 0 || me.role === "viewer"}
                aria-pressed={here === id}
                onClick={() => {
                  onChoose(id);
                  onClose();
                }}
                className="grid w-full grid-cols-[1fr_auto] gap-x-4 px-4 py-2.5 text-left enabled:hover:bg-wash disabled:opacity-60"
              >
                <span>
                  <span className="block text-xl font-semibold leading-tight">{s.name}</span>
                  <span className="block text-base leading-snug">{s.say}</span>
                  {lacks.length > 0 && (
                    <span className="block text-base text-loose">
                      The kit lacks {lacks.map((k) => LACKED_WORDS[k] ?? k).join(" and ")}.
                    </span>
                  )}
                  {unparked && !missed && (
                    <span className="block text-base text-loose">
                      Say at Owed where in its bay the vehicle stands.
                    </span>
                  )}
                  {missed && (
                    <span className="block text-base text-loose">
                      Its beams miss a board this far beside the line.
                    </span>
                  )}
                  {blind && (
                    <span className="block text-base text-loose">
                      It does not see the {DATUM_NAMES[plan.target.datum]} this sheet means.
                    </span>
                  )}
                  {here === id && s.note && (
                    <span className="block text-base text-soft">{s.note}</span>
                  )}
                </span>
                {id !== "free" && able.includes(id) && (
                  <span className="text-right">
                    <span className="figure block text-2xl font-semibold">
                      {chance ? formatChance(chance.chance) : "…"}
                    </span>
                    {chance && (
                      <>
                        <span className="block text-sm text-soft">{`${chance.readings} readings, ${Math.max(1, Math.round(chance.seconds / 60))} min`}</span>
                        <span className="figure block text-sm text-soft">{`± ${formatNumber(2 * chance.sigma.acrossMm, 1)} mm, ± ${kind === "mark" ? `${formatNumber(2 * chance.sigma.alongMm, 1)} mm` : `${formatNumber(2 * radToDeg(chance.sigma.twistRad), 2)}°`}`}</span>
                      </>
                    )}
                  </span>
                )}
              </button>
              {here === id && id !== "free" && (
                <p className="flex flex-wrap items-center gap-x-1 border-t border-hairline px-3 text-base">
                  <span className="mr-2 text-soft">Mark-out:</span>
                  {(["pdf", "dxf", "svg"] as const).map((as) => (
                    <a
                      key={as}
                      href={`/api/jobs/${head.id}/mark-out?as=${as}&way=${id}&calibration=${encodeURIComponent(ground.calibrationId)}&target=${encodeURIComponent(plan.target.id)}`}
                      target={as === "pdf" ? "_blank" : undefined}
                      rel="noreferrer"
                      download={as === "pdf" ? undefined : ""}
                      className="inline-flex min-h-12 items-center rounded-md px-3 font-semibold text-act hover:bg-wash"
                    >
                      {{ pdf: "Print, PDF", dxf: "DXF", svg: "SVG" }[as]}
                    </a>
                  ))}
                </p>
              )}
            </li>
          );
        })}
      </ul>
    </>
  );
}
