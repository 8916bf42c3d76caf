import L from "leaflet";
import type { RoadPlace } from "@/core/drive/road";

/** A colour of the theme that is on. */
export const themeColour = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();

/** A place as the map wants it. */
export const flat = ([lon, lat]: RoadPlace): [number, number] => [lat, lon];

/** A map in a box that looks at some places. Nothing comes from outside: all that is on it is drawn. */
export function openMap(box: HTMLElement, places: readonly RoadPlace[]): L.Map {
  const map = L.map(box, {
    zoomControl: false,
    attributionControl: false,
    preferCanvas: true,
    zoomSnap: 0.25,
  });
  // Where it looks is set first: nothing can be drawn on a map that looks nowhere.
  if (places.length === 0) return map.setView([0, 0], 2);
  const bounds = L.latLngBounds(places.map(flat));
  const fit = (): L.Map => map.fitBounds(bounds, { padding: [24, 24] });
  if (box.clientWidth > 0 && box.clientHeight > 0) fit();
  else map.setView(bounds.getCenter(), 12);
  // A box that has another size, a tablet that is turned: all of it is seen again.
  const seen = new ResizeObserver(() => {
    map.invalidateSize();
    if (box.clientWidth > 0 && box.clientHeight > 0) fit();
  });
  seen.observe(box);
  map.on("unload", () => seen.disconnect());
  return map;
}

/** The shop on a map. */
export const shopMark = (place: RoadPlace): L.CircleMarker =>
  L.circleMarker(flat(place), {
    radius: 8,
    color: themeColour("ink"),
    fillColor: themeColour("paper"),
    fillOpacity: 1,
    weight: 3,
  }).bindTooltip("Shop", { permanent: true, direction: "right" });
