import { eventsOf, itemsOf, strikes, viewOf, type JobEvent } from "@/core/job";
import { gaussian, randomFrom, seedFrom } from "@/core/math/random";
import { pullAdvised } from "@/core/ready";
import type { Vehicle } from "@/core/vehicle";
import {
  angleOf,
  cameToStand,
  coupled,
  pulled,
  steeredBy,
  tapeBetween,
  type TrainBody,
  type TrainShape,
} from "@/devices/bench/trailer-sim";
import type { JobRow } from "./store";

/** The coupling of a simulated bay: what it is like, and how it stands as the log has left it. */
type Coupling = { shape: TrainShape; body: TrainBody };

const shapeOf = (v: Vehicle, seed: string): TrainShape | null => {
  const { trailer } = v;
  if (!trailer) return null;
  const random = randomFrom(seedFrom(`${seed}/coupling`));
  return {
    wheelbase: v.wheelbaseMm,
    behind: trailer.hitchBehindMm + trailer.hitchSigmaMm * gaussian(random),
    bar: trailer.hitchToAxleMm + trailer.hitchSigmaMm * gaussian(random),
  };
};

/**
 * The trailer behind the vehicle: it came to stand at an angle, and was pulled as advised each time the
 * technician said so, with hands that never steer quite as told.
 */
export function couplingOf(job: JobRow, events: readonly JobEvent[]): Coupling | null {
  const { vehicle } = job.ground;
  const shape = shapeOf(vehicle, job.seed);
  if (!shape) return null;
  const random = randomFrom(seedFrom(`${job.seed}/trailer`));
  let body = coupled(shape, cameToStand(random));
  const item = itemsOf(viewOf(job.ground, null), "ready").find(
    (i) => i.measure?.kind === "articulation",
  );
  if (item?.measure?.kind !== "articulation") return { shape, body };
  let values: Readonly<Record<string, number>> | null = null;
  const struck = strikes(events);
  for (const e of events) {
    // What was struck was never read, or never done.
    if (struck.has(e.id)) continue;
    if (e.body.kind === "measured" && e.body.itemId === item.id) values = e.body.values;
    if (e.body.kind !== "put-right" || e.body.itemId !== item.id || !values) continue;
    const { limitDeg, roomMm } = item.measure;
    const pull = pullAdvised(limitDeg, roomMm, values, vehicle);
    if (pull) body = pulled(body, shape, steeredBy(random, pull.steerRad), pull.distanceMm);
  }
  return { shape, body };
}

export const articulationOf = ({ shape, body }: Coupling): number => angleOf(body, shape);

/** What the four tapes between the hubs show. */
export function holdTapes(
  job: JobRow,
  events: readonly JobEvent[],
  itemId: string,
): Record<string, number> | null {
  const coupling = couplingOf(job, events);
  const { vehicle } = job.ground;
  if (!coupling || !vehicle.trailer) return null;
  const { shape, body } = coupling;
  const nth = eventsOf(events, "measured").filter((e) => e.body.itemId === itemId).length;
  const hubs = randomFrom(seedFrom(`${job.seed}/hubs`));
  const noise = randomFrom(seedFrom(`${job.seed}/tapes/${nth}`));
  const { trailer } = vehicle;
  const end = (side: 1 | -1, half: number, sigma: number, high: number) => ({
    side,
    half: half + sigma * gaussian(hubs),
    high,
  });
  const rear = vehicle.trackRearMm / 2 + vehicle.hubCapOutMm;
  const tow = (side: 1 | -1) => end(side, rear, vehicle.hubSigmaMm, vehicle.hubHeightMm);
  const other = (side: 1 | -1) =>
    end(side, trailer.hubHalfMm, trailer.hubSigmaMm, trailer.hubHeightMm);
  const [towL, towR, trL, trR] = [tow(1), tow(-1), other(1), other(-1)];
  const tape = (a: typeof towL, b: typeof towL): number =>
    Math.round(tapeBetween(body, shape, a, b) + 2 * gaussian(noise));
  return {
    left: tape(towL, trL),
    right: tape(towR, trR),
    "left-right": tape(towL, trR),
    "right-left": tape(towR, trL),
  };
}
