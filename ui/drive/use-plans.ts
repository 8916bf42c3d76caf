import { wrap } from "comlink";
import { useEffect, useState } from "react";
import type { Forecast } from "@/core/drive/forecast";
import type { Look } from "@/core/drive/look";
import type { DrivePlan } from "@/core/drive/plan";
import type { Road, RoadPlace, Roads } from "@/core/drive/road";
import type { DriveRules } from "@/core/drive/rules";
import { sunAt } from "@/core/drive/sun";
import type { DriveWorker } from "@/workers/drive/drive.worker";
import { useTimes } from "../settings";

/** What the shop knows of roads and weather; of the weather perhaps nothing, or what it heard a while ago. */
type Ground = {
  roads: (Roads & { shop: RoadPlace }) | null;
  forecast: Forecast | null;
  heardAt: string | null;
  /** How long ago that is, milliseconds. */
  oldMs: number | null;
};

/** An hour one may leave in: its drives, the soonest first, or why there is none. */
export type Hour = {
  departMs: number;
  plans: DrivePlan[];
  /** Of an hour without a drive. */
  why: "dark" | "wet" | "spent" | "no-road" | null;
  /** Chance of rain; null where nobody knows. */
  rain: number | null;
};

export type Plans =
  | { kind: "looking" }
  | { kind: "no-roads" }
  | { kind: "trouble"; message: string }
  | {
      kind: "found";
      hours: Hour[];
      forecast: Forecast;
      /** When the weather was heard of, where that is long ago; "never" where nothing is known of it. */
      weatherOf: string | "never" | null;
      roads: readonly Road[];
      whole: boolean;
    };

/** How far ahead it looks, and how often one may leave, milliseconds. */
const AHEAD_MS = 24 * 3_600_000;
const EVERY_MS = 3_600_000;
/** A forecast that is older than this is called old. */
const OLD_MS = 2 * 3_600_000;
/** From this chance of rain on an hour without a drive is called wet. */
const WET = 0.3;

const SILENT =
  "The shop does not answer, so no road can be proposed. Drive by the conditions below, or try again when it is back.";

/** The soonest drives of the next hours, worked out beside the page, one departure after another. */
export function usePlans(rules: DriveRules | undefined, looks: readonly Look[]): Plans {
  const [plans, setPlans] = useState<Plans>({ kind: "looking" });
  const times = useTimes();
  useEffect(() => {
    if (!rules) return;
    let gone = false;
    const from = Math.ceil(Date.now() / 300_000) * 300_000;
    const worker = new Worker(new URL("../../workers/drive/drive.worker.ts", import.meta.url), {
      type: "module",
    });
    const look = async (): Promise<void> => {
      const answer = await fetch(`/api/roads?from=${from}`);
      if (!answer.ok) throw new Error("no roads");
      const { roads, forecast, heardAt, oldMs } = (await answer.json()) as Ground;
      if (!roads) return setPlans({ kind: "no-roads" });
      const { shop } = roads;
      const remote = wrap<DriveWorker>(worker);
      await remote.know({ roads: roads.roads, junctions: roads.junctions });
      const weatherOf =
        forecast === null || heardAt === null ? "never" : oldMs! > OLD_MS ? heardAt : null;
      const hours: Hour[] = [];
      for (let departMs = from; departMs < from + AHEAD_MS && !gone; departMs += EVERY_MS) {
        const { plans: found, spent } = await remote.plans({
          shop,
          rules,
          forecast: forecast ?? [],
          cameras: looks,
          departs: [departMs],
          zoneHours: times.zoneHours(new Date(departMs).toISOString()),
          loops: 3,
        });
        const weather = forecast?.find(
          (h) => departMs >= h.fromMs && departMs < h.fromMs + 3_600_000,
        );
        const rain = weather?.rain ?? null;
        const dark = sunAt(departMs, shop[1], shop[0]).altitudeDeg < 0;
        const why =
          found.length > 0
            ? null
            : spent.length > 0
              ? "spent"
              : dark
                ? "dark"
                : (rain ?? 0) >= WET
                  ? "wet"
                  : "no-road";
        hours.push({ departMs, plans: found, why, rain });
        if (!gone)
          setPlans({
            kind: "found",
            hours: [...hours],
            forecast: forecast ?? [],
            weatherOf,
            roads: roads.roads,
            whole: departMs + EVERY_MS >= from + AHEAD_MS,
          });
      }
    };
    look().catch(() => !gone && setPlans({ kind: "trouble", message: SILENT }));
    return () => {
      gone = true;
      worker.terminate();
    };
  }, [rules, looks, times]);
  return plans;
}
