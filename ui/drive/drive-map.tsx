"use client";

import "leaflet/dist/leaflet.css";
import L from "leaflet";
import { useEffect, useRef } from "react";
import type { Road } from "@/core/drive/road";
import type { RouteLeg } from "@/core/drive/route";

/** The drive on the island, drawn from its own roads: no picture comes from anywhere. */
export function DriveMap({
  legs,
  others = [],
  at,
}: {
  legs: readonly RouteLeg[];
  /** The other roads about, drawn faintly. */
  others?: readonly Pick<Road, "points">[];
  /** Where the car is. */
  at: [lon: number, lat: number] | null;
}) {
  const box = useRef<HTMLDivElement>(null);
  const map = useRef<L.Map | null>(null);
  const car = useRef<L.CircleMarker | null>(null);
  useEffect(() => {
    const colour = (name: string): string =>
      getComputedStyle(document.documentElement).getPropertyValue(name).trim();
    const m = L.map(box.current!, {
      zoomControl: false,
      attributionControl: false,
      preferCanvas: true,
      zoomSnap: 0.25,
    });
    map.current = m;
    const flat = (points: Road["points"]): [number, number][] => points.map(([x, y]) => [y, x]);
    const lines = legs.map((l) => l.points.map(([lon, lat]): [number, number] => [lat, lon]));
    // Where it looks is set first: nothing can be drawn on a map that looks nowhere.
    m.fitBounds(L.latLngBounds(lines.flat()), { padding: [24, 24] });
    L.polyline(
      others.map((o) => flat(o.points)),
      { color: colour("--color-hairline"), weight: 2, interactive: false },
    ).addTo(m);
    L.polyline(lines, {
      color: colour("--color-ink"),
      weight: 7,
      opacity: 0.9,
    }).addTo(m);
    for (const leg of legs) {
      const seen = Math.min(leg.lines.left.seen, leg.lines.right.seen);
      const marked = leg.lines.left.kind !== "none" && leg.lines.right.kind !== "none";
      L.polyline(
        leg.points.map(([lon, lat]): [number, number] => [lat, lon]),
        marked
          ? { color: colour("--color-sheet"), weight: 3, dashArray: seen > 0.9 ? undefined : "8 6" }
          : { color: colour("--color-soft"), weight: 3 },
      ).addTo(m);
    }
    const [lon, lat] = legs[0]!.points[0]!;
    L.circleMarker([lat, lon], {
      radius: 8,
      color: colour("--color-ink"),
      fillColor: colour("--color-paper"),
      fillOpacity: 1,
      weight: 3,
    })
      .bindTooltip("Shop", { permanent: true, direction: "right" })
      .addTo(m);
    return () => {
      m.remove();
      map.current = null;
      car.current = null;
    };
  }, [legs, others]);
  useEffect(() => {
    if (!map.current || !at) return;
    const place: [number, number] = [at[1], at[0]];
    if (car.current) car.current.setLatLng(place);
    else
      car.current = L.circleMarker(place, {
        radius: 10,
        weight: 4,
        color: getComputedStyle(document.documentElement).getPropertyValue("--color-act").trim(),
        fillOpacity: 1,
      }).addTo(map.current);
  }, [at]);
  return (
    <div
      ref={box}
      role="img"
      aria-label="Map of the drive"
      className="h-64 w-full border border-hairline md:h-80"
      style={{ background: "var(--paper)" }}
    />
  );
}
