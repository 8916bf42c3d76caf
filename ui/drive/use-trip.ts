import { useCallback, useEffect, useRef, useState } from "react";
import { nanoid } from "nanoid";
import type { DrivePlan } from "@/core/drive/plan";
import { DRIVE_START, qualify, type DriveProgress } from "@/core/drive/qualify";
import type { DriveRules } from "@/core/drive/rules";
import { SPEED_UNITS } from "@/core/drive/speed-units";
import { sunAt } from "@/core/drive/sun";
import type { Forecast } from "@/core/drive/forecast";
import { SimulatedReceiver, type Heard } from "@/devices/road/receiver";
import { useJob } from "../bench/job-store";
import { PART_S, partsOf } from "./parts";

/** A drive under way, as far as it was heard. */
export type Trip = {
  driveId: string;
  plan: DrivePlan;
  progress: DriveProgress;
  last: Heard | null;
  /** Seconds since it left. */
  seconds: number;
  /** Back at the shop, or the receiver says no more. */
  over: boolean;
  track: [lon: number, lat: number][];
};

/** The speed a driver keeps who means to be inside a window, m/s. */
function keeps(rules: DriveRules): number {
  const window = rules.conditions.find((c) => c.kind === "speed");
  if (window?.kind !== "speed") return 25;
  return (window.max - (window.max - window.min) / 4) * SPEED_UNITS[window.unit];
}

/** Drives, counts and keeps: what was heard is written part by part, also while the shop is silent. */
export function useTrip(rules: DriveRules | undefined): {
  trip: Trip | null;
  leave: (plan: DrivePlan, forecast: Forecast, zoneHours: number, faster: number) => void;
  stop: () => void;
} {
  const { ground, write } = useJob();
  const [trip, setTrip] = useState<Trip | null>(null);
  const stopping = useRef<(() => void) | null>(null);
  const kept = useRef<Heard[]>([]);
  const { calibrationId } = ground;

  const keep = useCallback(
    (driveId: string, least: number): void => {
      while (kept.current.length >= least && kept.current.length > 0) {
        const part = kept.current.splice(0, PART_S);
        const samples = part.map(({ sample, place, online }) => ({ ...sample, place, online }));
        write(...partsOf(driveId, calibrationId, samples));
      }
    },
    [calibrationId, write],
  );
  const stop = useCallback((): void => {
    stopping.current?.();
    stopping.current = null;
    if (trip) keep(trip.driveId, 1);
    setTrip(null);
  }, [trip, keep]);
  useEffect(() => () => stopping.current?.(), []);

  const leave = (plan: DrivePlan, forecast: Forecast, zoneHours: number, faster: number): void => {
    if (!rules) return;
    const driveId = nanoid(12);
    kept.current = [];
    const [lon, lat] = plan.legs[0]!.points[0]!;
    const receiver = new SimulatedReceiver(
      {
        legs: plan.legs,
        departMs: plan.departMs,
        seed: driveId,
        forecast,
        hourOfDay: (atMs) => (((atMs / 3_600_000 + zoneHours) % 24) + 24) % 24,
        sun: (atMs) => sunAt(atMs, lat, lon),
        camera: { turnDeg: 0, downDeg: 2 },
        keepsMps: keeps(rules),
      },
      faster,
    );
    setTrip({
      driveId,
      plan,
      progress: DRIVE_START,
      last: null,
      seconds: 0,
      over: false,
      track: [],
    });
    stopping.current = receiver.listen(
      (heard) => {
        kept.current.push(...heard);
        keep(driveId, PART_S);
        setTrip((t) => {
          if (t?.driveId !== driveId) return t;
          const places = heard.flatMap(({ place }): [number, number][] =>
            place ? [[place[0], place[1]]] : [],
          );
          return {
            ...t,
            progress: heard.reduce((p, h) => qualify(rules, p, h.sample), t.progress),
            last: heard.at(-1) ?? t.last,
            seconds: t.seconds + heard.length,
            track: [...t.track, ...places],
          };
        });
      },
      () => {
        keep(driveId, 1);
        setTrip((t) => (t?.driveId === driveId ? { ...t, over: true } : t));
      },
    );
  };
  return { trip, leave, stop };
}
