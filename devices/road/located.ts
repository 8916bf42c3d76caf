import type { Look } from "@/core/drive/look";
import type { DriveSample } from "@/core/drive/sample";
import { headingDeg, turnDeg, distanceM } from "@/core/drive/geometry";
import type { RoadPlace } from "@/core/drive/road";
import { sunAt, sunOffDeg } from "@/core/drive/sun";
import type { DriveReceiver, Heard } from "./receiver";

/** What only somebody in the car can tell; null while nobody has. */
export type SaidOnTheWay = {
  lines: DriveSample["lines"];
  sky: "sun" | "overcast" | "rain" | null;
};

type Locator = Pick<Geolocation, "watchPosition" | "clearWatch">;
type Fix = { atMs: number; place: RoadPlace; headingDeg: number | null };

/** A heading is known from places that lie so far apart, metres. */
const APART_M = 8;

/**
 * The tablet's own receiver of places. Speed, heading and curve come from it, light and sun from where and
 * when it is; of lines and sky it knows what is said on the way, of what is ahead nothing.
 */
export class LocatedReceiver implements DriveReceiver {
  private said: SaidOnTheWay = { lines: null, sky: null };
  private before: Fix | null = null;

  constructor(
    private readonly locator: Locator,
    private readonly looks: readonly Look[],
    private readonly online: () => boolean,
  ) {}

  say(said: SaidOnTheWay): void {
    this.said = said;
  }

  listen(
    hear: (heard: readonly Heard[]) => void,
    over: () => void,
    trouble?: (why: "refused" | "no-place") => void,
  ): () => void {
    const id = this.locator.watchPosition(
      (position) => hear([this.heard(position)]),
      ({ code }) => {
        // 1: nobody may know where this tablet is; else it does not know itself, and goes on trying.
        trouble?.(code === 1 ? "refused" : "no-place");
        if (code === 1) over();
      },
      { enableHighAccuracy: true, maximumAge: 0, timeout: 15_000 },
    );
    return () => this.locator.clearWatch(id);
  }

  private heard({ coords, timestamp }: GeolocationPosition): Heard {
    const place: RoadPlace = [coords.longitude, coords.latitude];
    const { before } = this;
    const movedM = before ? distanceM(before.place, place) : 0;
    const passedS = before ? (timestamp - before.atMs) / 1000 : 0;
    const heading =
      coords.heading !== null && Number.isFinite(coords.heading)
        ? coords.heading
        : before && movedM >= APART_M
          ? headingDeg(before.place, place)
          : (before?.headingDeg ?? null);
    const mps = coords.speed ?? (passedS > 0 && passedS < 5 ? movedM / passedS : null);
    const turned =
      heading !== null && before?.headingDeg != null
        ? (Math.abs(turnDeg(before.headingDeg, heading)) * Math.PI) / 180
        : null;
    const sun = sunAt(timestamp, place[1], place[0]);
    const sunOff = (): number | null => {
      if (sun.altitudeDeg <= 0 || this.said.sky === "overcast" || this.said.sky === "rain")
        return 180;
      if (heading === null) return null;
      const at = { headingDeg: heading, slopeDeg: 0 };
      return Math.min(180, ...this.looks.map((look) => sunOffDeg(sun, { ...at, ...look })));
    };
    // A place that hardly moved says nothing of where one heads.
    if (!before || movedM >= APART_M || heading !== before.headingDeg)
      this.before = { atMs: timestamp, place, headingDeg: heading };
    return {
      sample: {
        atMs: timestamp,
        speedMps: mps,
        lines: this.said.lines,
        radiusM:
          turned === null || movedM < APART_M ? null : turned < 1e-3 ? "straight" : movedM / turned,
        gapM: null,
        light: sun.altitudeDeg > -0.833 ? "day" : sun.altitudeDeg > -6 ? "dusk" : "night",
        weather:
          this.said.sky === null ? null : this.said.sky === "rain" ? ["rain", "wet-road"] : [],
        sunOffDeg: sunOff(),
        keyOn: null,
      },
      place,
      headingDeg: heading,
      online: this.online(),
    };
  }
}
