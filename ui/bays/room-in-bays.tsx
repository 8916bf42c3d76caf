"use client";

import { wrap } from "comlink";
import { useEffect, useMemo, useState } from "react";
import { lineName, type OwedPlan } from "@/core/owed";
import type { Bay } from "@/core/space/bay";
import { isRoomy, type RoomAsk, type RoomFound } from "@/core/space/room";
import { noseOf, parkMarks } from "@/core/space/zones";
import { floorAsked } from "@/core/job/floor-asked";
import { parkedOf } from "@/core/job/parked";
import { formatNumber, formatQuantity } from "@/core/units";
import type { SpaceWorker } from "@/workers/space/space.worker";
import { useJob } from "../bench/job-store";
import { Button } from "../primitives/button";
import { Mark } from "../primitives/marks";
import { BayDrawing } from "./bay-drawing";

/** `without`: single things that would have to go; null while they are looked for. */
type Found = { bay: Bay; places: RoomFound[]; without: string[] | null };

/** What a place says, in one sentence. */
function fitWords({ fit, floor, seen }: RoomFound): string {
  if (seen.length > 0)
    return `There is room, but wherever it stands a camera looks at ${seen.join(" and ")}.`;
  if (floor && fit.floorUsed !== null && fit.floorUsed > 1)
    return `The floor is not level enough wherever there is room: it falls ${formatNumber(Math.max(Math.abs(floor.aheadDeg), Math.abs(floor.leftDeg), floor.targetDeg), 1)}°, twist ${formatNumber(Math.abs(floor.twistMm), 1)} mm.`;
  if (fit.marginMm >= 0)
    return `Fits, with ${formatQuantity(Math.round(fit.marginMm), "mm")} to spare everywhere.`;
  const { zone, thing } = fit.nearest;
  return `Does not fit: at its best place ${zone} lacks ${formatQuantity(Math.round(-fit.marginMm), "mm")} at ${thing}.`;
}

/** Whether all of a job fits into each of the shop's bays, where the vehicle then stands, and what hinders. */
export function RoomInBays({ plan }: { plan: OwedPlan }) {
  const { ground } = useJob();
  const [found, setFound] = useState<Found[] | null>(null);
  const [lacking, setLacking] = useState<"bays" | "shop" | null>(null);
  const asks = useMemo((): RoomAsk[] => {
    const floor = floorAsked(ground);
    return plan.steps.flatMap(({ line, effort }) =>
      effort && line.kind === "static"
        ? [
            {
              name: lineName(line).toLowerCase(),
              system: line.system,
              room: effort.roomM,
              floor,
            },
          ]
        : [],
    );
  }, [ground, plan]);
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
        const places = await remote.roomIn(bay, ground.vehicle, asks);
        all.push({ bay, places, without: places.every(isRoomy) ? [] : null });
        if (!gone) setFound([...all]);
      }
      for (const [i, { bay, places, without }] of all.entries()) {
        if (without !== null || gone) continue;
        all[i] = { bay, places, without: await remote.roomWithout(bay, ground.vehicle, asks) };
        if (!gone) setFound([...all]);
      }
    };
    look().catch(() => !gone && setLacking("shop"));
    return () => {
      gone = true;
      worker.terminate();
    };
  }, [asks, ground.vehicle]);
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
        {found?.map(({ bay, places, without }) => (
          <div key={bay.id}>
            <p className="flex items-baseline gap-2 text-lg font-semibold">
              <Mark state={places.every(isRoomy) ? "settled" : "stop"} size={16} />
              {bay.name}
            </p>
            {places.length > 1 && (
              <p className="text-lg text-loose">
                Not at one place: the vehicle stands at {places.length}, one after another.
              </p>
            )}
            {without === null && (
              <p className="text-base text-soft" role="status">
                Looking for what would have to go.
              </p>
            )}
            {without !== null && without.length > 0 && (
              <p className="text-lg">All of it fits without {without.join(", or without ")}.</p>
            )}
            {places.map((p) => (
              <PlaceInBay key={p.needs.join()} bay={bay} place={p} named={places.length > 1} />
            ))}
          </div>
        ))}
      </div>
    </section>
  );
}

/** One place of the vehicle in a bay: drawn, with its room to spare and how it is found with a tape. */
function PlaceInBay({ bay, place, named }: { bay: Bay; place: RoomFound; named: boolean }) {
  const { ground, events, write, me, head } = useJob();
  const { pose } = place.fit;
  const drawing = (as: "dxf" | "svg"): string =>
    `/api/jobs/${head.id}/bay-marks?${new URLSearchParams({
      bay: bay.id,
      x: pose.xMm.toFixed(1),
      y: pose.yMm.toFixed(1),
      heading: pose.headingRad.toFixed(6),
      as,
    }).toString()}`;
  const nose = noseOf(bay, pose);
  const parked = parkedOf(events)?.body;
  const stands =
    parked?.bay === bay.id &&
    Math.hypot(parked.xMm - pose.xMm, parked.yMm - pose.yMm) < 1 &&
    Math.abs(parked.headingRad - pose.headingRad) < 1e-3;
  return (
    <div className="mt-1">
      {named && <p className="text-base font-semibold">{place.needs.join("; ")}</p>}
      <p className={isRoomy(place) ? "text-lg" : "text-lg text-stop"}>
        {fitWords(place)}
        {isRoomy(place) && nose && ` ${nose === "out" ? "Nose to the door." : "Nose in."}`}
      </p>
      <BayDrawing
        bay={bay}
        zones={place.zones}
        pose={pose}
        label={`${bay.name} with the vehicle at its best place`}
      />
      {place.cover.length > 0 && (
        <p className="text-lg text-loose">
          Put off or cover: {place.cover.join(", ")}. It would fall into a camera.
        </p>
      )}
      {place.floor && isRoomy(place) && (
        <p className="text-base text-soft">
          Floor there: {formatNumber(place.floor.aheadDeg, 2)}° ahead,{" "}
          {formatNumber(place.floor.leftDeg, 2)}° across, twist{" "}
          {formatNumber(place.floor.twistMm, 1)} mm.
        </p>
      )}
      {isRoomy(place) && me.role !== "viewer" && (
        <Button
          look={stands ? "lit" : "tool"}
          className="my-1"
          aria-pressed={stands}
          onClick={() => {
            const { xMm, yMm, headingRad } = pose;
            write({ kind: "parked", bay: bay.id, name: bay.name, xMm, yMm, headingRad });
          }}
        >
          {stands ? "It stands here" : "It stands here now"}
        </Button>
      )}
      {isRoomy(place) && (
        <ul className="text-base text-soft">
          {parkMarks(bay, ground.vehicle, pose).map((m) => (
            <li key={m.wheel}>
              {m.wheel}:{" "}
              {m.from
                .map(({ wall, mm }) => `${formatQuantity(mm, "mm")} from wall ${wall}`)
                .join(", ")}
            </li>
          ))}
          <li className="flex flex-wrap items-center gap-x-1">
            Mark-out in the bay:
            {(["dxf", "svg"] as const).map((as) => (
              <a
                key={as}
                href={drawing(as)}
                download=""
                className="inline-flex min-h-12 items-center rounded-md px-3 font-semibold text-act hover:bg-wash"
              >
                {as.toUpperCase()}
              </a>
            ))}
          </li>
        </ul>
      )}
    </div>
  );
}
