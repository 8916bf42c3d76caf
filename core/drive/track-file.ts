import { XMLParser, XMLValidator } from "fast-xml-parser";
import Papa from "papaparse";
import { z } from "zod";
import { distanceM, headingDeg, turnDeg } from "./geometry";
import type { FileProblem } from "./geojson";
import type { LoggedSample } from "./log";
import type { RoadPlace } from "./road";
import { SPEED_UNITS } from "./speed-units";
import type { LineSeen } from "./sample";

/**
 * The log of a drive as another device kept it: GPX 1.1, or a table. What such a file does not tell is
 * not known; nothing is made up for it.
 */
export type TrackFile =
  { ok: true; samples: LoggedSample[] } | { ok: false; problems: FileProblem[] };

const MOST_BYTES = 20_000_000;
const MOST_POINTS = 40_000;
/** Between places that are no further apart in time one may have been anywhere between, seconds. */
const BRIDGED_S = 10;
const FAR_M = 300_000;
/** Nobody drives faster, m/s. */
const FASTEST_MPS = 90;

const refused = (where: string, say: string): TrackFile => ({
  ok: false,
  problems: [{ where, say }],
});

type Fix = { atMs: number; place: RoadPlace };
const NOTHING: Omit<LoggedSample, "atMs" | "place" | "speedMps" | "radiusM"> = {
  lines: null,
  gapM: null,
  light: null,
  weather: null,
  sunOffDeg: null,
  keyOn: null,
  online: null,
};

/** @param near where the shop stands; null where nobody knows */
export function trackFromGpx(text: string, near: RoadPlace | null): TrackFile {
  if (text.length > MOST_BYTES)
    return refused("file", "is larger than 20 MB. Cut it to the drive itself.");
  const valid = XMLValidator.validate(text);
  if (valid !== true)
    return refused(
      `line ${valid.err.line}`,
      /<gpx/i.test(text)
        ? "breaks off or is damaged. Fetch the file again, whole."
        : "is no GPX. Choose the file the receiver saved.",
    );
  const parser = new XMLParser({
    ignoreAttributes: false,
    attributeNamePrefix: "",
    parseTagValue: false,
    parseAttributeValue: false,
    processEntities: false,
    isArray: (name) => ["trk", "trkseg", "trkpt"].includes(name),
  });
  const points = gpx.safeParse(parser.parse(text));
  if (!points.success)
    return refused("gpx", "holds no track (trk with trkseg and trkpt). Save the drive as a track.");
  const raw = points.data.gpx.trk.flatMap((t) => t.trkseg.flatMap((s) => s.trkpt));
  if (raw.length > MOST_POINTS)
    return refused(
      "trkpt",
      `are ${raw.length}; a drive has at most ${MOST_POINTS}. Cut the file to the drive.`,
    );
  const fixes: Fix[] = [];
  for (const [i, p] of raw.entries()) {
    const at = `point ${i + 1}`;
    if (p.time === undefined)
      return refused(
        at,
        "has no time. A log without times says nothing of speed: save it with times.",
      );
    const atMs = Date.parse(p.time);
    if (Number.isNaN(atMs))
      return refused(at, `has a time that is none: “${p.time.slice(0, 40)}”.`);
    const place = placeOf(p.lon, p.lat);
    if (!place) return refused(at, "lies nowhere: latitude is -90 to 90, longitude -180 to 180.");
    fixes.push({ atMs, place });
  }
  if (fixes.length < 2) return refused("gpx", "holds less than two points.");
  const problem = awayFrom(fixes, near);
  return problem ? refused("lat, lon", problem) : { ok: true, samples: bridged(fixes) };
}

const gpx = z.object({
  gpx: z.object({
    trk: z.array(
      z.object({
        trkseg: z.array(
          z.object({
            trkpt: z.array(
              z.object({ lat: z.string(), lon: z.string(), time: z.string().optional() }),
            ),
          }),
        ),
      }),
    ),
  }),
});

function placeOf(lon: string, lat: string): RoadPlace | null {
  const [x, y] = [Number(lon), Number(lat)];
  const fits = lon.trim() !== "" && lat.trim() !== "" && Math.abs(x) <= 180 && Math.abs(y) <= 90;
  return fits ? [x, y] : null;
}

function awayFrom(fixes: readonly Fix[], near: RoadPlace | null): string | null {
  const [first] = fixes;
  if (!near || !first || distanceM(near, first.place) < FAR_M) return null;
  const [x, y] = first.place;
  return Math.abs(x) <= 90 && distanceM(near, [y, x]) < FAR_M
    ? "lie the other way round: with latitude and longitude changed it would be near the shop."
    : "lie more than 300 km from the shop. Choose the log of this drive.";
}

/** A sample a second between places that are near enough in time; speed and curve by the places. */
function bridged(fixes: readonly Fix[]): LoggedSample[] {
  const samples: LoggedSample[] = [];
  fixes.forEach((a, i) => {
    const b = fixes[i + 1];
    const passed = b ? (b.atMs - a.atMs) / 1000 : 0;
    if (!b || passed <= 0 || passed > BRIDGED_S)
      return void samples.push({ ...NOTHING, ...a, speedMps: null, radiusM: null });
    const far = distanceM(a.place, b.place);
    const mps = far / passed;
    const c = fixes[i + 2];
    const turn = c
      ? Math.abs(turnDeg(headingDeg(a.place, b.place), headingDeg(b.place, c.place)))
      : 0;
    // Where one hardly moves a heading is noise.
    const radius = far < 3 || !c ? null : turn < 0.2 ? Infinity : far / ((turn * Math.PI) / 180);
    for (let s = 0; s < passed; s++) {
      const t = s / passed;
      samples.push({
        ...NOTHING,
        atMs: a.atMs + s * 1000,
        place: [
          a.place[0] + (b.place[0] - a.place[0]) * t,
          a.place[1] + (b.place[1] - a.place[1]) * t,
        ],
        speedMps: mps > FASTEST_MPS ? null : mps,
        radiusM: radius === null ? null : radius > 20_000 ? "straight" : radius,
      });
    }
  });
  return samples;
}

type Column =
  "time" | "lat" | "lon" | "kmh" | "mph" | "left" | "right" | "gap_m" | "radius_m" | "key";
type Row = Partial<Record<Column, string>>;
const LINE_WORDS: Record<string, LineSeen> = { solid: "solid", broken: "broken", none: "none" };

/**
 * A table with a heading: `time` (ISO 8601) and any of `lat`, `lon`, `kmh` or `mph`, `left`, `right`
 * (solid, broken, none), `gap_m` (empty: not known, `nobody`), `radius_m` (`straight`), `key` (1 or 0).
 */
export function trackFromCsv(text: string, near: RoadPlace | null): TrackFile {
  if (text.length > MOST_BYTES)
    return refused("file", "is larger than 20 MB. Cut it to the drive itself.");
  const read = Papa.parse<Row>(text.trim(), { header: true, skipEmptyLines: true });
  const names = (read.meta.fields ?? []).map((f) => f.trim());
  if (!names.includes("time"))
    return refused(
      "heading",
      "names no column “time”. The first line names the columns: time, lat, lon, kmh.",
    );
  if (!["kmh", "mph", "lat"].some((n) => names.includes(n)))
    return refused("heading", "names no speed: a column kmh, mph, or lat and lon.");
  if (names.includes("kmh") && names.includes("mph"))
    return refused("heading", "names kmh and mph. Keep the one that is meant.");
  const broken = read.errors[0];
  if (broken)
    return refused(
      `line ${(broken.row ?? 0) + 2}`,
      "has another number of columns than the heading. The file may be cut off.",
    );
  if (read.data.length < 2) return refused("file", "holds less than two lines.");
  if (read.data.length > MOST_POINTS)
    return refused("file", `holds ${read.data.length} lines; a drive has at most ${MOST_POINTS}.`);
  const samples: LoggedSample[] = [];
  for (const [i, row] of read.data.entries()) {
    const at = `line ${i + 2}`;
    const atMs = Date.parse(row.time ?? "");
    if (Number.isNaN(atMs))
      return refused(
        `${at}, time`,
        `is no time: “${(row.time ?? "").slice(0, 40)}”. Write it as 2026-11-03T10:15:00Z.`,
      );
    const found = sampleOf(row, atMs);
    if ("field" in found) return refused(`${at}, ${found.field}`, found.say);
    samples.push(found);
  }
  const fixes = samples.flatMap(({ atMs, place }): Fix[] => (place ? [{ atMs, place }] : []));
  const problem = awayFrom(fixes, near);
  if (problem) return refused("lat, lon", problem);
  if (!names.includes("kmh") && !names.includes("mph"))
    return { ok: true, samples: bridged(fixes) };
  return { ok: true, samples };
}

function sampleOf(row: Row, atMs: number): LoggedSample | { field: string; say: string } {
  const said = (name: keyof Row): string | null => row[name]?.trim() || null;
  const number = (name: keyof Row, max: number): number | null | undefined => {
    const text = said(name);
    if (text === null) return null;
    const v = Number(text);
    return Number.isFinite(v) && v >= 0 && v <= max ? v : undefined;
  };
  const unit = said("mph") === null ? "kmh" : "mph";
  const speed = number(unit, 400);
  if (speed === undefined) return { field: unit, say: `is no speed: “${said(unit)}”.` };
  const mps = speed === null ? null : speed * SPEED_UNITS[unit === "mph" ? "mph" : "km/h"];
  const [left, right] = [said("left"), said("right")];
  for (const [field, text] of [
    ["left", left],
    ["right", right],
  ] as const)
    if (text !== null && !LINE_WORDS[text])
      return { field, say: `is “${text}”: write solid, broken or none.` };
  const gap = said("gap_m") === "nobody" ? "nobody" : number("gap_m", 2000);
  if (gap === undefined) return { field: "gap_m", say: "is no distance in metres, nor “nobody”." };
  const radius = said("radius_m") === "straight" ? "straight" : number("radius_m", 1e6);
  if (radius === undefined)
    return { field: "radius_m", say: "is no radius in metres, nor “straight”." };
  const [lon, lat] = [said("lon"), said("lat")];
  const place = lon !== null && lat !== null ? placeOf(lon, lat) : null;
  if (lon !== null && lat !== null && !place) return { field: "lat, lon", say: "lies nowhere." };
  const key = said("key");
  return {
    ...NOTHING,
    atMs,
    place,
    speedMps: mps,
    lines: left && right ? { left: LINE_WORDS[left]!, right: LINE_WORDS[right]! } : null,
    gapM: gap,
    radiusM: radius === 0 ? null : radius,
    keyOn: key === null ? null : key === "1",
  };
}
