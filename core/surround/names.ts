/** The four cameras of a surround view, by the way they look. */
export const SIDES = ["front", "left", "rear", "right"] as const;
export type SideId = (typeof SIDES)[number];

/** The four seams, each between a camera at an end of the car and one at a side. */
export const CORNERS = ["front-left", "front-right", "rear-left", "rear-right"] as const;
export type CornerId = (typeof CORNERS)[number];
