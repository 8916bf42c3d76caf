"use client";

import { wrap } from "comlink";
import { useEffect, useMemo, useState } from "react";
import { lineName, type OwedPlan } from "@/core/owed";
import type { Bay } from "@/core/space/bay";
import type { Fit, Zone } from "@/core/space/fit";
import { noseOf, parkMarks, zonesFor } from "@/core/space/zones";
import { formatQuantity } from "@/core/units";
import type { SpaceWorker } from "@/workers/space/space.worker";
import { useJob } from "../bench/job-store";
import { Mark } from "../primitives/marks";
import { BayDrawing } from "./bay-drawing";

type Found = { bay: Bay; fit: Fit };

/** What a bay says of a job, in one sentence. */
function fitWords({ fit }: Found): string {
  if (fit.marginMm >= 0)
    return `Fits, with ${formatQuantity(Math.round(fit.marginMm), "mm")} to spare everywhere.`;
  const { zone, thing } = fit.nearest;
  return `Does not fit: at its best place ${zone} lacks ${formatQuantity(Math.round(-fit.marginMm), "mm")} at ${thing}.`;
}

/** Whether all of a job fits into each of the shop's bays at once, where the vehicle then stands, and what hinders. */
export function RoomInBays({ plan }: { plan: OwedPlan }) {
  const { ground } = useJob();
  const [found, setFound] = useState<Found[] | null>(null);
  const [lacking, setLacking] = useState<"bays" | "shop" | null>(null);
  const zones = useMemo<Zone[]>(
    () =>
      zonesFor(
        ground.vehicle,
        plan.steps.flatMap((s) =>
          s.effort && s.line.kind === "static"
            ? [{ name: lineName(s.line).toLowerCase(), roomM: s.effort.roomM }]
            : [],
        ),
      ),
    [ground.vehicle, plan],
  );
  useEffect(() => {
    let gone = false;
    const worker = new Worker(new URL("../../workers/space/space.worker.ts", import.meta.url), {
      type: "module",
    });
    const look = async (): Promise<void> => {
      const answer = await fetch("/api/bays");
      if (!answer.ok) throw new Error("no bays");
      const { bays } = (await answer.json()) as { bays: Bay[] };
      if (bays.length === 0) return setLacking("bays");
      const remote = wrap<SpaceWorker>(worker);
      const all: Found[] = [];
      for (const bay of bays) {
        all.push({ bay, fit: await remote.fit(bay, zones) });
        if (!gone) setFound([...all]);
      }
    };
    look().catch(() => !gone && setLacking("shop"));
    return () => {
      gone = true;
      worker.terminate();
    };
  }, [zones]);
  if (lacking)
    return (
      <p className="text-base text-soft">
        {lacking === "bays"
          ? "Whether it fits cannot be said: the shop has written down no bays yet."
          : "Whether it fits is not known: the shop does not answer."}
      </p>
    );
  return (
    <section aria-label="Room in the bays" className="bg-sheet px-5 py-4">
      <h2 className="border-b-2 border-ink pb-1 text-2xl font-semibold">Where it fits</h2>
      {!found && (
        <p className="py-2 text-lg text-soft" role="status">
          Looking for its place in each bay.
        </p>
      )}
      <div className="mt-2 grid gap-5 lg:grid-cols-2">
        {found?.map((f) => {
          const fits = f.fit.marginMm >= 0;
          const nose = noseOf(f.bay, f.fit.pose);
          return (
            <div key={f.bay.id}>
              <p className="flex items-baseline gap-2 text-lg font-semibold">
                <Mark state={fits ? "settled" : "stop"} size={16} />
                {f.bay.name}
                {fits && nose && (
                  <span className="font-normal">
                    {nose === "out" ? "nose to the door" : "nose in"}
                  </span>
                )}
              </p>
              <p className={fits ? "text-lg" : "text-lg text-stop"}>{fitWords(f)}</p>
              <BayDrawing
                bay={f.bay}
                zones={zones}
                pose={f.fit.pose}
                label={`${f.bay.name} with the vehicle at its best place`}
              />
              {fits && (
                <ul className="text-base text-soft">
                  {parkMarks(f.bay, ground.vehicle, f.fit.pose).map((m) => (
                    <li key={m.wheel}>
                      {m.wheel}:{" "}
                      {m.from
                        .map(({ wall, mm }) => `${formatQuantity(mm, "mm")} from wall ${wall}`)
                        .join(", ")}
                    </li>
                  ))}
                </ul>
              )}
            </div>
          );
        })}
      </div>
    </section>
  );
}
