import { useCallback, useEffect, useRef, useState } from "react";
import { nanoid } from "nanoid";
import type { Forecast } from "@/core/drive/forecast";
import { GATEWAY_OPEN, watchGateway, type GatewayWatch } from "@/core/drive/gateway";
import { looksOf } from "@/core/drive/look";
import type { DrivePlan } from "@/core/drive/plan";
import { DRIVE_START, qualify, type DriveProgress } from "@/core/drive/qualify";
import type { RoadPlace } from "@/core/drive/road";
import type { DriveConditionKind, DriveRules } from "@/core/drive/rules";
import { SPEED_UNITS } from "@/core/drive/speed-units";
import { sunAt } from "@/core/drive/sun";
import { LocatedReceiver, type SaidOnTheWay } from "@/devices/road/located";
import { SimulatedReceiver, type DriveReceiver, type Heard } from "@/devices/road/receiver";
import { useJob } from "../bench/job-store";
import type { Crew } from "../checks/crew";
import type { Said, Source } from "./leave-fields";
import { PART_S, partsOf } from "./parts";

/** A drive under way, as far as it was heard. */
export type Trip = {
  driveId: string;
  /** Null where nobody planned it. */
  plan: DrivePlan | null;
  source: Source["kind"];
  progress: DriveProgress;
  /** Conditions that nobody in the car can tell: they are left out, and named. */
  untold: DriveConditionKind[];
  gateway: GatewayWatch;
  last: Heard | null;
  /** Seconds since it left. */
  seconds: number;
  /** Back at the shop, or the receiver says no more. */
  over: boolean;
  /** What is wrong with the receiver. */
  trouble: "refused" | "no-place" | null;
  track: RoadPlace[];
  /** What was said on the way of what the receiver cannot tell. */
  said: SaidOnTheWay;
};

/** What is taken along: how it was planned, and what was said before leaving. */
export type Departure = {
  plan: DrivePlan | null;
  forecast: Forecast;
  zoneHours: number;
  source: Source;
  said: Said;
  crew: Crew;
};

/** The speed a driver keeps who means to be inside a window, m/s. */
function keeps(rules: DriveRules): number {
  const window = rules.conditions.find((c) => c.kind === "speed");
  if (window?.kind !== "speed") return 25;
  return (window.max - (window.max - window.min) / 4) * SPEED_UNITS[window.unit];
}

const NOTHING_SAID: SaidOnTheWay = { lines: null, sky: null };

/** What a tablet's receiver tells nobody, by condition; lines and sky until somebody says them. */
const untoldBy = (source: Source["kind"], said: SaidOnTheWay): DriveConditionKind[] =>
  source === "made-up"
    ? []
    : [
        "gap",
        "key",
        ...(said.lines === null ? (["lines"] as const) : []),
        ...(said.sky === null ? (["weather"] as const) : []),
      ];

/** Drives, counts and keeps: what was heard is written part by part, also while the shop is silent. */
export function useTrip(rules: DriveRules | undefined): {
  trip: Trip | null;
  leave: (departure: Departure) => void;
  stop: () => void;
  say: (said: SaidOnTheWay) => void;
} {
  const { ground, write } = useJob();
  const [trip, setTrip] = useState<Trip | null>(null);
  const stopping = useRef<(() => void) | null>(null);
  const located = useRef<LocatedReceiver | null>(null);
  const kept = useRef<Heard[]>([]);
  const { calibrationId, sheet, vehicle } = ground;

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

  const say = (said: SaidOnTheWay): void => {
    located.current?.say(said);
    setTrip((t) => t && { ...t, said, untold: untoldBy(t.source, said) });
  };

  const leave = ({ plan, forecast, zoneHours, source, said, crew }: Departure): void => {
    if (!rules) return;
    const driveId = nanoid(12);
    const departMs = source.kind === "tablet" || !plan ? Date.now() : plan.departMs;
    const looks = looksOf(sheet.appliesTo.system);
    kept.current = [];
    let receiver: DriveReceiver;
    if (source.kind === "made-up" && plan) {
      const [lon, lat] = plan.legs[0]!.points[0]!;
      receiver = new SimulatedReceiver(
        {
          legs: plan.legs,
          departMs,
          // The same vehicle at the same hour meets the same road.
          seed: `${vehicle.id}/${departMs}`,
          forecast,
          hourOfDay: (atMs) => (((atMs / 3_600_000 + zoneHours) % 24) + 24) % 24,
          sun: (atMs) => sunAt(atMs, lat, lon),
          cameras: looks,
          keepsMps: keeps(rules),
        },
        source.faster,
      );
    } else {
      located.current = new LocatedReceiver(navigator.geolocation, looks, () => navigator.onLine);
      receiver = located.current;
    }
    write({
      kind: "drive-leave",
      calibrationId,
      driveId,
      source: source.kind,
      departMs,
      planned: plan && {
        seconds: Math.round(plan.seconds),
        from: Math.max(0, Math.round(plan.band[0])),
        to: Math.round(plan.band[1]),
        chance: plan.chance,
      },
      keeps: said.keeps!,
      hotspot: said.hotspot,
      rains: said.rains,
      rainReason: said.rainReason.trim(),
      drove: crew.drove.trim(),
      watched: crew.watched.trim(),
    });
    setTrip({
      driveId,
      plan,
      source: source.kind,
      progress: DRIVE_START,
      untold: untoldBy(source.kind, NOTHING_SAID),
      gateway: GATEWAY_OPEN,
      last: null,
      seconds: 0,
      over: false,
      trouble: null,
      track: [],
      said: NOTHING_SAID,
    });
    const mine = (change: (t: Trip) => Trip): void =>
      setTrip((t) => (t?.driveId === driveId ? change(t) : t));
    stopping.current = receiver.listen(
      (heard) => {
        kept.current.push(...heard);
        keep(driveId, PART_S);
        mine((t) => takenIn(t, heard, rules));
      },
      () => {
        keep(driveId, 1);
        mine((t) => ({ ...t, over: true }));
      },
      (trouble) => mine((t) => ({ ...t, trouble })),
    );
  };
  return { trip, leave, stop, say };
}

/** A trip with what was heard since. */
function takenIn(t: Trip, heard: readonly Heard[], rules: DriveRules): Trip {
  const told = {
    ...rules,
    conditions: rules.conditions.filter((c) => !t.untold.includes(c.kind)),
  };
  const before = t.last?.sample.atMs;
  const last = heard.at(-1) ?? t.last;
  return {
    ...t,
    trouble: null,
    progress: heard.reduce((p, h) => qualify(told, p, h.sample), t.progress),
    gateway: heard.reduce((w, h) => watchGateway(w, h.sample.atMs, h.online), t.gateway),
    last,
    seconds:
      t.seconds +
      (before === undefined || !last
        ? heard.length
        : Math.max(0, (last.sample.atMs - before) / 1000)),
    track: [...t.track, ...heard.flatMap(({ place }) => (place ? [place] : []))],
  };
}
