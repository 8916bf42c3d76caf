"use client";

import "leaflet/dist/leaflet.css";
import L from "leaflet";
import { useEffect, useRef } from "react";
import type { Road, RoadPlace } from "@/core/drive/road";

/** All roads of a shop, drawn from their own places: no picture comes from anywhere. */
export function RoadMap({ roads, shop }: { roads: readonly Road[]; shop: RoadPlace }) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const colour = (name: string): string =>
      getComputedStyle(document.documentElement).getPropertyValue(name).trim();
    const m = L.map(box.current!, {
      zoomControl: false,
      attributionControl: false,
      zoomSnap: 0.25,
      preferCanvas: true,
    });
    const all = L.featureGroup();
    for (const road of roads) {
      const { left, right } = road.along;
      const marked = left.kind !== "none" && right.kind !== "none";
      const seen = Math.min(left.seen, right.seen);
      L.polyline(
        road.points.map(([lon, lat]): [number, number] => [lat, lon]),
        {
          color: colour(marked ? "--color-ink" : "--color-soft"),
          weight: marked ? 4 : 1.5,
          dashArray: marked && seen < 0.8 ? "7 6" : undefined,
        },
      )
        .bindTooltip(
          `${road.name}, ${road.limitKmh} km/h${marked ? `, lines seen ${Math.round(100 * seen)} %` : ""}`,
        )
        .addTo(all);
    }
    // Where it looks is set first: nothing can be drawn on a map that looks nowhere.
    if (roads.length > 0) m.fitBounds(all.getBounds(), { padding: [16, 16] });
    all.addTo(m);
    L.circleMarker([shop[1], shop[0]], {
      radius: 8,
      color: colour("--color-act"),
      fillOpacity: 1,
      weight: 3,
    })
      .bindTooltip("Shop", { permanent: true, direction: "right" })
      .addTo(m);
    return () => void m.remove();
  }, [roads, shop]);
  return (
    <div
      ref={box}
      role="img"
      aria-label="Map of the roads"
      className="h-[60vh] w-full border border-hairline"
      style={{ background: "var(--paper)" }}
    />
  );
}
