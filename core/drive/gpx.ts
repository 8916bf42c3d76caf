import type { RoadPlace } from "./road";

/** A planned drive as GPX 1.1, for any receiver that guides along a track. */
export function asGpx(name: string, legs: readonly { points: readonly RoadPlace[] }[]): string {
  const escape = (s: string): string => s.replace(/[<>&"']/g, (c) => `&#${c.charCodeAt(0)};`);
  const points = legs.flatMap((l, i) => (i === 0 ? l.points : l.points.slice(1)));
  const lines = points.map(
    ([lon, lat, h]) =>
      `      <trkpt lat="${lat}" lon="${lon}">${h === undefined ? "" : `<ele>${h}</ele>`}</trkpt>`,
  );
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<gpx version="1.1" creator="Iridel" xmlns="http://www.topografix.com/GPX/1/1">',
    "  <trk>",
    `    <name>${escape(name)}</name>`,
    "    <trkseg>",
    ...lines,
    "    </trkseg>",
    "  </trk>",
    "</gpx>",
    "",
  ].join("\n");
}
