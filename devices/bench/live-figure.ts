import { gaussian, randomFrom, seedFrom } from "@/core/math/random";
import { trueReading, type BenchWorld } from "./world";

/** How fast a hand turns a crank, as the figure runs, mm a second. */
const RUNS = 40;
/** How far from the figure a hand stops that watches it, and how a figure trembles, mm. */
const STOPS_MM = 0.4;
const TREMBLES_MM = 0.1;

/**
 * What an instrument that posts shows, look by look, while somebody turns an adjuster until it shows
 * `toMm`. Pure: the same look of the same turning is always the same.
 *
 * @param nth which turning it is
 * @param seconds since it began
 */
export function liveFigure(
  world: BenchWorld,
  slotId: string,
  toMm: number,
  nth: number,
  seconds: number,
): number {
  const at = `${world.seed}/live/${slotId}/${nth}`;
  const from = trueReading(world, slotId);
  const end = toMm + STOPS_MM * gaussian(randomFrom(seedFrom(at)));
  const gone = Math.min(Math.abs(end - from), RUNS * Math.max(0, seconds));
  const tremble = TREMBLES_MM * gaussian(randomFrom(seedFrom(`${at}/${seconds.toFixed(2)}`)));
  return Math.round(10 * (from + Math.sign(end - from) * gone + tremble)) / 10;
}
