import { wrap } from "comlink";
import { useEffect, useState } from "react";
import type { Forecast } from "@/core/drive/forecast";
import type { DrivePlan } from "@/core/drive/plan";
import type { Road, RoadPlace, Roads } from "@/core/drive/road";
import type { DriveRules } from "@/core/drive/rules";
import type { DriveWorker } from "@/workers/drive/drive.worker";
import { useTimes } from "../settings";

type Ground = { roads: (Roads & { shop: RoadPlace }) | null; forecast: Forecast };
export type Plans =
  | { kind: "looking" }
  | { kind: "no-roads" }
  | { kind: "trouble"; message: string }
  | {
      kind: "found";
      plans: DrivePlan[];
      forecast: Forecast;
      roads: readonly Road[];
      whole: boolean;
    };

/** How far ahead it looks, and how often one may leave, milliseconds. */
const AHEAD_MS = 24 * 3_600_000;
const EVERY_MS = 3_600_000;
/** A camera behind a windshield looks ahead, and a little down. */
const AHEAD = { turnDeg: 0, downDeg: 2 };

const SILENT =
  "The shop does not answer, so no road can be proposed. Drive by the conditions below, or try again when it is back.";

/** The soonest drives of the next hours, worked out beside the page, one departure after another. */
export function usePlans(rules: DriveRules | undefined): Plans {
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
      const answer = await fetch("/api/roads");
      if (!answer.ok) throw new Error("no roads");
      const { roads, forecast } = (await answer.json()) as Ground;
      if (!roads) return setPlans({ kind: "no-roads" });
      const { shop } = roads;
      const remote = wrap<DriveWorker>(worker);
      const found: DrivePlan[] = [];
      for (let departMs = from; departMs < from + AHEAD_MS && !gone; departMs += EVERY_MS) {
        const zoneHours = times.zoneHours(new Date(departMs).toISOString());
        const some = await remote.plans({
          roads,
          shop,
          rules,
          forecast,
          camera: AHEAD,
          departs: [departMs],
          zoneHours,
          loops: 2,
        });
        found.push(...some);
        if (!gone)
          setPlans({
            kind: "found",
            plans: [...found],
            forecast,
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
  }, [rules, times]);
  return plans;
}
