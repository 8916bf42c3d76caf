"use client";

import "leaflet/dist/leaflet.css";
import L from "leaflet";
import { useEffect, useRef } from "react";
import type { Road, RoadPlace } from "@/core/drive/road";
import { flat, openMap, shopMark, themeColour } from "./ground";

/** All roads of a shop, drawn from their own places; a touch chooses one. */
export function RoadMap({
  roads,
  shop,
  chosen,
  onChoose,
}: {
  roads: readonly Road[];
  shop: RoadPlace;
  chosen: Road | null;
  onChoose: (id: string) => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const map = useRef<L.Map | null>(null);
  const choose = useRef(onChoose);
  useEffect(() => {
    choose.current = onChoose;
  }, [onChoose]);
  useEffect(() => {
    const m = openMap(
      box.current!,
      roads.flatMap((r) => r.points),
    );
    map.current = m;
    for (const road of roads) {
      const { left, right } = road.along;
      const marked = left.kind !== "none" && right.kind !== "none";
      const seen = Math.min(left.seen, right.seen);
      L.polyline(road.points.map(flat), {
        color: themeColour(marked ? "ink" : "soft"),
        weight: marked ? 4 : 1.5,
        dashArray: marked && seen < 0.8 ? "7 6" : undefined,
      })
        .bindTooltip(
          `${road.name}, ${road.limitKmh} km/h${marked ? `, lines seen ${Math.round(100 * seen)} %` : ""}`,
        )
        .on("click", () => choose.current(road.id))
        .addTo(m);
    }
    shopMark(shop).addTo(m);
    return () => {
      m.remove();
      map.current = null;
    };
  }, [roads, shop]);
  useEffect(() => {
    if (!map.current || !chosen) return;
    const mark = L.polyline(chosen.points.map(flat), {
      color: themeColour("act"),
      weight: 9,
      interactive: false,
    }).addTo(map.current);
    if (!map.current.getBounds().contains(mark.getBounds())) map.current.panTo(mark.getCenter());
    return () => void mark.remove();
  }, [chosen, roads]);
  return (
    <div
      ref={box}
      role="img"
      aria-label="Map of the roads"
      className="isolate h-[44vh] w-full border border-hairline lg:h-[68vh]"
      style={{ background: "var(--paper)" }}
    />
  );
}
