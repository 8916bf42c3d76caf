import { XMLValidator } from "fast-xml-parser";
import { describe, expect, it } from "vitest";
import { SHOP_PLACE } from "@/demo/data/island";
import { qualifyAll } from "./qualify";
import { driveRulesSchema } from "./rules";
import { asGpx } from "./gpx";
import { trackFromCsv, trackFromGpx, type TrackFile } from "./track-file";

const time = (s: number): string => new Date(Date.UTC(2026, 10, 3, 10, 0, s)).toISOString();
/** A drive north at so many metres a second, a point every few seconds. */
const north = (mps: number, points: number, every = 1) =>
  Array.from({ length: points }, (_, i) => ({
    lat: 56.4 + (i * every * mps) / 111_195,
    lon: 1.9,
    time: time(i * every) as string | undefined,
  }));
type Point = ReturnType<typeof north>[number];
const gpx = (points: Point[]): string =>
  `<?xml version="1.0"?><gpx version="1.1"><trk><name>a &amp; b</name><trkseg>${points
    .map(
      (p) =>
        `<trkpt lat="${p.lat}" lon="${p.lon}">${p.time ? `<time>${p.time}</time>` : ""}</trkpt>`,
    )
    .join("")}</trkseg></trk></gpx>`;
const said = (f: TrackFile): string =>
  f.ok ? "taken" : f.problems.map((p) => `${p.where} ${p.say}`).join(" | ");
const rules = driveRulesSchema.parse({
  conditions: [{ kind: "speed", unit: "km/h", min: 50, max: 90, breach: "pauses" }],
  enough: { seconds: 1000 },
});

describe("a drive that another device logged", () => {
  it("counts by its places: speed within a hundredth, a second for each second", () => {
    for (const every of [1, 5]) {
      const read = trackFromGpx(gpx(north(20, 60 / every + 1, every)), SHOP_PLACE);
      if (!read.ok) throw new Error(said(read));
      expect(read.samples).toHaveLength(61);
      expect(Math.abs(read.samples[10]!.speedMps! / 20 - 1)).toBeLessThan(0.01);
      expect(qualifyAll(rules, read.samples).seconds).toBe(60);
      expect(read.samples[10]).toMatchObject({ lines: null, gapM: null, radiusM: "straight" });
    }
  });
  it("leaves out the time between places that lie too far apart", () => {
    const points = [
      ...north(20, 11),
      ...north(20, 10).map((p, i) => ({ ...p, time: time(100 + i) })),
    ];
    const read = trackFromGpx(gpx(points), SHOP_PLACE);
    if (!read.ok) throw new Error(said(read));
    const { seconds, cost } = qualifyAll(rules, read.samples);
    expect(seconds).toBe(19);
    expect(cost["no-log"]).toBe(90);
  });
  it("reads a table with what it tells, in its own units", () => {
    const csv = `time,mph,left,right,gap_m,key\n${[0, 1, 2].map((s) => `${time(s)},40,solid,broken,nobody,1`).join("\n")}\n`;
    const read = trackFromCsv(csv, SHOP_PLACE);
    if (!read.ok) throw new Error(said(read));
    expect(read.samples[0]!.speedMps).toBeCloseTo(17.8816, 4);
    expect(read.samples[2]).toMatchObject({
      lines: { left: "solid", right: "broken" },
      gapM: "nobody",
      keyOn: true,
      weather: null,
    });
  });
  it.each([
    [
      "one without times",
      gpx(north(20, 5).map((p) => ({ ...p, time: undefined }))),
      "point 1 has no time",
    ],
    ["one cut off", gpx(north(20, 50)).slice(0, 900), "breaks off or is damaged"],
    ["no GPX", "lat,lon\n56,1", "is no GPX"],
    ["one without a track", '<?xml version="1.0"?><gpx version="1.1"></gpx>', "holds no track"],
    [
      "one turned round",
      gpx(north(20, 5).map((p) => ({ ...p, lat: p.lon, lon: p.lat }))),
      "other way round",
    ],
    [
      "places that are none",
      gpx(north(20, 5).map((p) => ({ ...p, lat: 401_000 }))),
      "point 1 lies nowhere",
    ],
    [
      "another island",
      gpx(north(20, 5).map((p) => ({ ...p, lat: p.lat - 30 }))),
      "more than 300 km",
    ],
    ["a huge one", " ".repeat(20_000_001), "larger than 20 MB"],
  ])("answers %s", (_, text, words) => {
    expect(said(trackFromGpx(text, SHOP_PLACE))).toContain(words);
  });
  it.each([
    ["no time", "kmh\n50\n60", "no column “time”"],
    ["a wrong time", `time,kmh\n${time(0)},50\nnoon,60`, "line 3, time is no time: “noon”"],
    ["two units", `time,kmh,mph\n${time(0)},50,31\n${time(1)},50,31`, "kmh and mph"],
    ["no speed", `time,left\n${time(0)},solid\n${time(1)},solid`, "names no speed"],
    [
      "a word for a speed",
      `time,kmh\n${time(0)},fast\n${time(1)},50`,
      "line 2, kmh is no speed: “fast”",
    ],
    [
      "a line that is none",
      `time,kmh,left\n${time(0)},50,dotted\n${time(1)},50,solid`,
      "line 2, left is “dotted”",
    ],
    [
      "one cut off",
      `time,kmh,left\n${time(0)},50,solid\n${time(1)},50`,
      "line 3 has another number of columns",
    ],
  ])("answers a table with %s", (_, text, words) => {
    expect(said(trackFromCsv(text, SHOP_PLACE))).toContain(words);
  });
  it("goes out as sound XML, whatever its roads are called", () => {
    const legs = [
      { points: [[1.9, 56.4, 3] as [number, number, number], [1.91, 56.41] as [number, number]] },
    ];
    const out = asGpx("Cooper’s <Row> & “Quay”", legs);
    expect(XMLValidator.validate(out)).toBe(true);
    expect(out).toContain('<trkpt lat="56.4" lon="1.9"><ele>3</ele></trkpt>');
  });
});
