import type { DriveSample } from "@/core/drive/sample";
import type { RoadPlace } from "@/core/drive/road";
import { driven, type Trip } from "./world";

/** What is heard of one second of a drive. */
export type Heard = {
  sample: DriveSample;
  place: RoadPlace | null;
  /** Clockwise from north, degrees. */
  headingDeg: number | null;
  /** Whether the mobile network is there; null where nobody knows. */
  online: boolean | null;
};

/** Whatever tells where the car is and what its camera finds: the one interface the product knows. */
export interface DriveReceiver {
  /**
   * Begins to listen. @param hear what came since the last call, in order @param over nothing more
   * comes @param trouble it may not, or cannot, tell where the car is @returns how to stop
   */
  listen(
    hear: (heard: readonly Heard[]) => void,
    over: () => void,
    trouble?: (why: "refused" | "no-place") => void,
  ): () => void;
}

/** How often it tells, milliseconds. */
const EVERY_MS = 250;

/** Drives a trip over a made-up road, as fast as it happens or so many times faster. */
export class SimulatedReceiver implements DriveReceiver {
  constructor(
    private readonly trip: Trip,
    private readonly faster: number,
  ) {}

  listen(hear: (heard: readonly Heard[]) => void, over: () => void): () => void {
    const road = driven(this.trip);
    let due = 0;
    const timer = setInterval(() => {
      due += (this.faster * EVERY_MS) / 1000;
      const heard: Heard[] = [];
      for (; due >= 1; due--) {
        const next = road.next();
        if (next.done) {
          clearInterval(timer);
          if (heard.length > 0) hear(heard);
          over();
          return;
        }
        heard.push(next.value);
      }
      if (heard.length > 0) hear(heard);
    }, EVERY_MS);
    return () => clearInterval(timer);
  }
}
