import { describe, expect, it } from "vitest";
import { islandDrive, roads } from "@/tests/island-drive";
import type { LoggedSample } from "./log";
import { ratingsFrom, withRatings } from "./rate";
import type { Road, RoadPlace } from "./road";

const line = (seen: number, on: string | null = null) => ({ kind: "solid" as const, seen, on });
const ROAD: Road = {
  id: "r1",
  name: "Quay",
  oneWay: false,
  limitKmh: 80,
  lanes: 1,
  surface: "asphalt",
  along: { left: line(0.9), right: line(0.9) },
  traffic: Array<number>(24).fill(0),
  // Some 1.1 km to the north.
  points: [
    [1.9, 56.4],
    [1.9, 56.41],
  ],
};
/** Twenty metres a second along it, to the north or back. */
const drive = (
  seconds: number,
  back: boolean,
  left: (s: number) => "solid" | "none",
): LoggedSample[] =>
  Array.from({ length: seconds + 1 }, (_, s): LoggedSample => {
    const north = (20 * s) / 111_195;
    const place: RoadPlace = [1.9001, back ? 56.41 - north : 56.4 + north];
    return {
      atMs: 1_762_160_000_000 + s * 1000,
      speedMps: 20,
      lines: { left: left(s), right: "solid" },
      radiusM: "straight",
      gapM: "nobody",
      light: "day",
      weather: [],
      sunOffDeg: 180,
      keyOn: true,
      place,
      online: true,
    };
  });
const day = (atMs: number): string => new Date(atMs).toISOString().slice(0, 10);

describe("what a drive tells of its roads", () => {
  it("weighs what was known with what was seen, by hand", () => {
    // The first second has no heading yet: of 30 seconds 29 are known, of them 10 with the left line.
    const [rating, ...more] = ratingsFrom(
      [ROAD],
      drive(30, false, (s) => (s <= 10 ? "solid" : "none")),
      day,
    );
    expect(more).toEqual([]);
    expect(rating).toMatchObject({ roadId: "r1", back: false, seconds: 29 });
    // (0.9 x 15 + 10) / (15 + 29)
    expect(rating!.is.left).toEqual({ kind: "solid", seen: 0.53, on: "2025-11-03" });
    expect(rating!.is.right.seen).toBe(0.97);
  });
  it("is of the direction that was driven alone, and of a road that is near", () => {
    const samples = drive(30, true, () => "none");
    const [rating] = ratingsFrom([ROAD], samples, day);
    expect(rating!.back).toBe(true);
    const [known] = withRatings([ROAD], [rating!]);
    expect(known!.along).toEqual(ROAD.along);
    expect(known!.back!.left.seen).toBeLessThan(0.4);
    const far = samples.map((s) => ({
      ...s,
      place: [s.place![0] + 0.001, s.place![1]] as RoadPlace,
    }));
    expect(ratingsFrom([ROAD], far, day)).toEqual([]);
  });
  it("finds the roads of a driven loop", () => {
    const { plan, drive: go } = islandDrive(Date.UTC(2026, 10, 3, 11));
    const samples = [...go("rate")].map(({ sample, place, online }) => ({
      ...sample,
      place,
      online,
    }));
    const ratings = ratingsFrom(roads.roads, samples, day);
    const names = new Set(plan.legs.map((l) => l.name));
    const seconds = (of: typeof ratings): number => of.reduce((s, r) => s + r.seconds, 0);
    const right = ratings.filter((r) => names.has(r.name));
    expect(seconds(right) / seconds(ratings)).toBeGreaterThan(0.97);
    expect(seconds(ratings) / samples.length).toBeGreaterThan(0.85);
    const known = withRatings(roads.roads, ratings);
    expect(known.filter((r, i) => r !== roads.roads[i]).length).toBe(
      new Set(ratings.map((r) => r.roadId)).size,
    );
  });
});
