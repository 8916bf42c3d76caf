"use client";

import "leaflet/dist/leaflet.css";
import L from "leaflet";
import { useEffect, useRef } from "react";
import type { Road, RoadPlace } from "@/core/drive/road";
import type { RouteLeg } from "@/core/drive/route";
import { flat, openMap, shopMark, themeColour } from "../roads/ground";

/** A part of what was driven: it counted, or it did not. */
export type Driven = { counted: boolean; points: readonly RoadPlace[] };

const NO_LEGS: readonly RouteLeg[] = [];
const NO_PARTS: readonly Driven[] = [];

/** A drive, drawn from the shop's own roads: what is planned, what was driven, and where the car is. */
export function DriveMap({
  legs = NO_LEGS,
  driven = NO_PARTS,
  others,
  at,
  tall = false,
}: {
  legs?: readonly RouteLeg[];
  driven?: readonly Driven[];
  /** The other roads about, drawn faintly. */
  others?: readonly Pick<Road, "points">[];
  /** Where the car is. */
  at: RoadPlace | null;
  /** It is what the page is for. */
  tall?: boolean;
}) {
  const box = useRef<HTMLDivElement>(null);
  const map = useRef<L.Map | null>(null);
  const car = useRef<L.CircleMarker | null>(null);
  useEffect(() => {
    const places = [...legs.flatMap((l) => l.points), ...driven.flatMap((d) => d.points)];
    const m = openMap(box.current!, places.length > 0 || !at ? places : [at]);
    map.current = m;
    if (others)
      L.polyline(
        others.map((o) => o.points.map(flat)),
        { color: themeColour("hairline"), weight: 2, interactive: false },
      ).addTo(m);
    L.polyline(
      legs.map((l) => l.points.map(flat)),
      { color: themeColour("ink"), weight: 7, opacity: 0.9 },
    ).addTo(m);
    for (const { lines, points } of legs) {
      const seen = Math.min(lines.left.seen, lines.right.seen);
      const marked = lines.left.kind !== "none" && lines.right.kind !== "none";
      L.polyline(
        points.map(flat),
        marked
          ? { color: themeColour("sheet"), weight: 3, dashArray: seen > 0.9 ? undefined : "8 6" }
          : { color: themeColour("soft"), weight: 3 },
      ).addTo(m);
    }
    // What counted is thick and whole, what waited thin and dashed: it is told apart without colour.
    for (const d of driven)
      L.polyline(
        d.points.map(flat),
        d.counted
          ? { color: themeColour("settled"), weight: 7 }
          : { color: themeColour("loose"), weight: 3, dashArray: "5 5" },
      ).addTo(m);
    const start = legs[0]?.points[0] ?? driven[0]?.points[0];
    if (start) shopMark(start).addTo(m);
    return () => {
      m.remove();
      map.current = null;
      car.current = null;
    };
    // Where the car is moves on the map that is there.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [legs, driven, others]);
  useEffect(() => {
    if (!map.current) return;
    if (!at) {
      car.current?.remove();
      car.current = null;
      return;
    }
    if (car.current) car.current.setLatLng(flat(at));
    else
      car.current = L.circleMarker(flat(at), {
        radius: 10,
        weight: 4,
        color: themeColour("act"),
        fillOpacity: 1,
      }).addTo(map.current);
    if (!map.current.getBounds().contains(flat(at))) map.current.panTo(flat(at));
  }, [at]);
  return (
    <div
      ref={box}
      role="img"
      aria-label="Map of the drive"
      className={`isolate w-full border border-hairline ${tall ? "h-64 md:h-[52vh]" : "h-64 md:h-80"}`}
      style={{ background: "var(--paper)" }}
    />
  );
}
