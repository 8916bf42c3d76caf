import { gaussian, randomFrom, seedFrom, type Random } from "@/core/math/random";
import type { Forecast } from "@/core/drive/forecast";
import type { RoadPlace } from "@/core/drive/road";
import type { RouteLeg } from "@/core/drive/route";
import type { DriveSample, LineSeen } from "@/core/drive/sample";

/**
 * A made-up road that is driven second by second: a car that speeds up and brakes, other traffic,
 * signals that are red or not, lines that are lost, showers and clouds that come and go, a mobile network
 * that fails. It stands in for a receiver of places and for what a camera would tell.
 */

export type Tick = {
  sample: DriveSample;
  place: RoadPlace;
  /** Clockwise from north, degrees. */
  headingDeg: number;
  /** Which leg it is on. */
  leg: number;
  /** Whether the mobile network is there. */
  online: boolean;
};

export type Trip = {
  legs: readonly RouteLeg[];
  departMs: number;
  seed: string;
  forecast: Forecast;
  /** Hour of the day of a moment in the shop's zone, 0 to 24. */
  hourOfDay: (atMs: number) => number;
  /** Where the sun stands: clockwise from north and above the horizon, degrees. */
  sun: (atMs: number) => { azimuthDeg: number; altitudeDeg: number };
  /** Of each camera that learns, how it is turned to the left of ahead, and down, degrees. */
  cameras: readonly { turnDeg: number; downDeg: number }[];
  /** The speed the driver keeps where the road allows it, m/s. */
  keepsMps: number;
  /** No red light, no lost network: to see a rule by itself. */
  calm?: boolean;
};

type Vector = [number, number, number];
const RAD = Math.PI / 180;
const EARTH_M = 6_371_008.8;

/** A place on the sphere as a vector of one. */
const onSphere = ([lon, lat]: RoadPlace): Vector => [
  Math.cos(lat * RAD) * Math.cos(lon * RAD),
  Math.cos(lat * RAD) * Math.sin(lon * RAD),
  Math.sin(lat * RAD),
];
const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const norm = (a: Vector): number => Math.sqrt(dot(a, a));
const arcM = (a: Vector, b: Vector): number => Math.atan2(norm(cross(a, b)), dot(a, b)) * EARTH_M;

/** A leg as places at every few metres. */
type Track = {
  lengthM: number;
  spots: { place: RoadPlace; heading: number; slopeDeg: number; radiusM: number }[];
};
const STEP_M = 10;

function trackOf(points: readonly RoadPlace[]): Track {
  const track: Track["spots"] = [];
  let [carry, lengthM] = [0, 0];
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    const length = arcM(onSphere(a), onSphere(b));
    if (length <= 0) continue;
    lengthM += length;
    const east = Math.sin((b[0] - a[0]) * RAD) * Math.cos(b[1] * RAD);
    const north =
      Math.cos(a[1] * RAD) * Math.sin(b[1] * RAD) -
      Math.sin(a[1] * RAD) * Math.cos(b[1] * RAD) * Math.cos((b[0] - a[0]) * RAD);
    const climb = (b[2] ?? 0) - (a[2] ?? 0);
    for (let m = carry; m < length; m += STEP_M) {
      const t = m / length;
      track.push({
        place: [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t, (a[2] ?? 0) + climb * t],
        heading: (Math.atan2(east, north) / RAD + 360) % 360,
        slopeDeg: Math.atan(climb / length) / RAD,
        radiusM: Infinity,
      });
      carry = m + STEP_M - length;
    }
  }
  // The circle through three places that lie some way apart.
  const reach = 3;
  for (let i = reach; i < track.length - reach; i++) {
    const [p, q, r] = [track[i - reach]!, track[i]!, track[i + reach]!].map((s) =>
      onSphere(s.place),
    ) as [Vector, Vector, Vector];
    const [a, b, c] = [arcM(p, q), arcM(q, r), arcM(p, r)];
    const s = (a + b + c) / 2;
    const area = Math.sqrt(Math.max(0, s * (s - a) * (s - b) * (s - c)));
    track[i]!.radiusM = area < 1e-3 ? Infinity : (a * b * c) / (4 * area);
  }
  return { lengthM, spots: track };
}

/** Something that is on or off, each for a while that is drawn anew. */
class Spells {
  private left = 0;
  private on = false;
  private begun = false;
  constructor(
    private readonly random: Random,
    private readonly meanOn: number,
  ) {}
  /** @param share of all time that it is on @param by how much has passed since it was last asked */
  at(share: number, by: number): boolean {
    if (share <= 0 || share >= 1) return share >= 1;
    this.left -= by;
    if (this.left > 0) return this.on;
    this.on = this.begun ? !this.on : this.random() < share;
    this.begun = true;
    const mean = this.on ? this.meanOn : (this.meanOn * (1 - share)) / share;
    this.left = -Math.log(1 - this.random()) * mean;
    return this.on;
  }
}

/** Someone ahead: how far, drawn anew when he turns off. */
class Ahead {
  private left = 0;
  private gap = Infinity;
  constructor(private readonly random: Random) {}
  at(perKm: number, seconds: number): number {
    this.left -= seconds;
    if (this.left > 0) return this.gap;
    this.left = -Math.log(1 - this.random()) * 40;
    this.gap = perKm <= 0 ? Infinity : (-Math.log(1 - this.random()) * 1000) / perKm;
    return this.gap;
  }
}

const ACCELERATES = 1.5;
const IN_CURVE = 2.2;

/** Drives a trip to its end. A tick a second. */
export function* driven(trip: Trip): Generator<Tick> {
  const stream = (name: string): Random => randomFrom(seedFrom(`${trip.seed}/${name}`));
  const [noise, lights, network] = [stream("speed"), stream("lights"), stream("network")];
  const lost = { left: new Spells(stream("left"), 25), right: new Spells(stream("right"), 25) };
  const [rain, cloud, fog, snow] = ["rain", "cloud", "fog", "snow"].map(
    (n) => new Spells(stream(n), 720),
  ) as [Spells, Spells, Spells, Spells];
  const ahead = new Ahead(stream("ahead"));
  const away = new Spells(network, 25);
  let [atMs, mps, wander, wetS, m] = [trip.departMs, 0, 0, 0, 0];
  const tracks = trip.legs.map((l) => trackOf(l.points));
  for (const [n, leg] of trip.legs.entries()) {
    const { lengthM, spots: track } = tracks[n]!;
    if (track.length === 0) continue;
    const { end } = leg;
    const last = n === trip.legs.length - 1;
    const red = !trip.calm && end.control === "signals" && lights() < end.redShare;
    let waits = red ? lights() * end.redS : end.round ? 15 : 0;
    // How fast its end may be taken.
    const endMps =
      last || red || end.round
        ? 0
        : end.control === "roundabout"
          ? 8
          : Math.abs(end.turnDeg) > 35
            ? 6
            : Infinity;
    while (m < lengthM) {
      const here = track[Math.min(track.length - 1, Math.floor(m / STEP_M))]!;
      const hour = trip.hourOfDay(atMs);
      const full = between(leg.traffic, hour);
      const hourly = trip.forecast.find((h) => atMs >= h.fromMs && atMs < h.fromMs + 3_600_000);
      const rains = rain.at(hourly?.rain ?? 0, 1);
      wetS = rains ? 1800 : Math.max(0, wetS - 1);
      // Speed: what is meant, as traffic lets one, and as far as one can still brake.
      const meant =
        Math.min(leg.limitMps, trip.keepsMps, Math.sqrt(IN_CURVE * here.radiusM)) *
        (1 - 0.6 * full * full);
      wander = wander * Math.exp(-1 / 8) + gaussian(noise) * Math.sqrt(1 - Math.exp(-2 / 8));
      const wish = Math.max(1, meant * (1 + wander * (0.02 + 0.1 * full)));
      const canStop = Math.sqrt(endMps ** 2 + 2 * ACCELERATES * Math.max(0, lengthM - m));
      const curve = upcoming(track, m, mps);
      const aim = Math.min(wish, canStop, curve);
      mps = aim > mps ? Math.min(aim, mps + ACCELERATES) : Math.max(aim, mps - 3);
      const stands = endMps === 0 && lengthM - m < 1.5 + mps && waits > 0;
      if (stands) {
        mps = 0;
        waits -= 1;
      } else if (mps < 0.8) mps = 0.8;
      const gap = ahead.at(full * 25, 1);
      const sun = trip.sun(atMs);
      const shines = sun.altitudeDeg > 0 && !rains && !cloud.at(hourly?.cloud ?? 0, 1);
      const sees = (side: "left" | "right"): LineSeen => {
        const { kind, seen } = leg.lines[side];
        return kind === "none" || lost[side].at(1 - seen, mps) ? "none" : kind;
      };
      const weather: ("rain" | "fog" | "snow" | "wet-road")[] = [];
      if (rains) weather.push("rain");
      if (fog.at(hourly?.fog ?? 0, 1)) weather.push("fog");
      if (snow.at(hourly?.snow ?? 0, 1)) weather.push("snow");
      if (wetS > 0) weather.push("wet-road");
      yield {
        sample: {
          atMs,
          speedMps: mps,
          lines: { left: sees("left"), right: sees("right") },
          radiusM: here.radiusM > 20_000 ? "straight" : here.radiusM,
          gapM: gap > 300 ? "nobody" : gap,
          light: sun.altitudeDeg > -0.833 ? "day" : sun.altitudeDeg > -6 ? "dusk" : "night",
          weather,
          sunOffDeg: shines
            ? Math.min(180, ...trip.cameras.map((c) => offAxis(sun, here, c)))
            : 180,
          keyOn: true,
        },
        place: here.place,
        headingDeg: here.heading,
        leg: n,
        online: trip.calm === true || !away.at(0.06, 1),
      };
      atMs += 1000;
      m += mps;
    }
    // What was driven beyond its end is driven on the next.
    m -= lengthM;
  }
}

/** The speed at which the tightest curve within braking distance can still be met. */
function upcoming(track: Track["spots"], m: number, mps: number): number {
  let most = Infinity;
  const far = (mps * mps) / (2 * ACCELERATES) + 2 * STEP_M;
  for (let d = 0; d <= far; d += STEP_M) {
    const at = track[Math.floor((m + d) / STEP_M)];
    if (!at) break;
    if (at.radiusM < 1000)
      most = Math.min(most, Math.sqrt(IN_CURVE * at.radiusM + 2 * ACCELERATES * d));
  }
  return most;
}

function between(traffic: readonly number[], hour: number): number {
  const at = (hour + 23.5) % 24;
  const i = Math.floor(at);
  return traffic[i]! * (1 - (at - i)) + traffic[(i + 1) % 24]! * (at - i);
}

/** Between the sun and where the camera looks, by the law of cosines on the sphere. */
function offAxis(
  sun: { azimuthDeg: number; altitudeDeg: number },
  here: { heading: number; slopeDeg: number },
  camera: Trip["cameras"][number],
): number {
  const up = here.slopeDeg * Math.cos(camera.turnDeg * RAD) - camera.downDeg;
  const [h, a] = [sun.altitudeDeg * RAD, up * RAD];
  const turn = (sun.azimuthDeg - (here.heading - camera.turnDeg)) * RAD;
  const c = Math.sin(h) * Math.sin(a) + Math.cos(h) * Math.cos(a) * Math.cos(turn);
  return Math.acos(Math.max(-1, Math.min(1, c))) / RAD;
}
