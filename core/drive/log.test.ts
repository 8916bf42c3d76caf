import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { packed, unpacked, type DriveRow } from "./log";
import { driveRow } from "./log-row";

const START = Date.UTC(2026, 10, 3, 10);
const within = (min: number, max: number) => fc.option(fc.integer({ min, max }));
const rows: fc.Arbitrary<DriveRow> = fc
  .tuple(
    fc.integer({ min: 0, max: 36_000 }),
    within(0, 12_000),
    within(0, 2),
    within(0, 2),
    within(0, 20_000),
    within(-1, 2000),
    within(0, 2),
    within(0, 15),
    within(0, 1800),
    within(0, 1),
    within(-180_000_000, 180_000_000),
    within(-90_000_000, 90_000_000),
    within(0, 1),
  )
  // What is known of one line only, or of half a place, is not kept by halves.
  .map((r) => {
    const lines = r[2] === null || r[3] === null ? [null, null] : [r[2], r[3]];
    const place = r[10] === null || r[11] === null ? [null, null] : [r[10], r[11]];
    return [r[0], r[1], ...lines, ...r.slice(4, 10), ...place, r[12]] as DriveRow;
  });

describe("the log of a drive", () => {
  it("gives back every row as it was kept", () => {
    fc.assert(
      fc.property(rows, (row) => {
        expect(packed(unpacked(row, START), START)).toEqual(row);
      }),
    );
  });
  it("keeps a second to a hundredth of a metre a second, and what nobody knew as not known", () => {
    const sample = {
      atMs: START + 12_300,
      speedMps: 16.6667,
      lines: { left: "solid", right: "broken" },
      radiusM: "straight",
      gapM: "nobody",
      light: "day",
      weather: ["rain", "wet-road"],
      sunOffDeg: 88.04,
      keyOn: null,
      place: [1.900123, 56.4],
      online: false,
    } as const;
    expect(packed({ ...sample, place: [...sample.place] }, START)).toEqual([
      123,
      1667,
      2,
      1,
      0,
      -1,
      2,
      9,
      880,
      null,
      1_900_123,
      56_400_000,
      0,
    ]);
    expect(driveRow.safeParse([1, 2]).success).toBe(false);
  });
});
