import type { SystemId } from "@/core/owed";

/**
 * Lamps on the dash that matter before a calibration: as found, so that none is later laid at the
 * shop's door.
 */
export const LAMPS = {
  assistance: "Assistance function off",
  camera: "Camera blocked",
  engine: "Engine",
  brakes: "Brakes",
  stability: "Stability control",
  airbag: "Airbag",
  tyres: "Tyre pressure",
  steering: "Steering",
  battery: "Battery",
  other: "Another",
} as const;
export type LampId = keyof typeof LAMPS;

/** Assistance functions a customer has set to taste; each lives on a system that must be fitted. */
export const FUNCTIONS = {
  "lane-keeping": { name: "Lane keeping", on: ["forward-camera"] },
  "collision-warning": { name: "Collision warning", on: ["forward-camera", "front-radar"] },
  signs: { name: "Traffic signs", on: ["forward-camera"] },
  "high-beam": { name: "High beam by itself", on: ["forward-camera"] },
  "cruise-gap": { name: "Cruise control gap", on: ["front-radar"] },
  "blind-spot": { name: "Blind spot", on: ["corner-radar", "side-camera"] },
  "parking-view": { name: "Parking view", on: ["surround-view", "rear-camera", "trailer-camera"] },
  "mirror-view": { name: "Mirror display", on: ["mirror-camera"] },
} as const satisfies Record<string, { name: string; on: readonly SystemId[] }>;
export type FunctionId = keyof typeof FUNCTIONS;

/** How a drive ended. */
export const DRIVE_OUTCOMES = {
  learned: "the vehicle has learned",
  "timed-out": "the vehicle gave up",
  "given-up": "given up",
} as const;

/** How a function did on the road. */
export const ROAD_RESULTS = {
  works: "works",
  fails: "does not work",
  untried: "not tried",
} as const;
export type RoadResult = keyof typeof ROAD_RESULTS;

/** The functions a vehicle with these systems can have. */
export const functionsOf = (fitted: readonly { system: SystemId }[]): FunctionId[] =>
  (Object.keys(FUNCTIONS) as FunctionId[]).filter((f) =>
    FUNCTIONS[f].on.some((s) => fitted.some((x) => x.system === s)),
  );

/** What a photo shows. */
export const PHOTO_SUBJECTS = {
  vehicle: "Vehicle",
  odometer: "Odometer",
  dash: "Dash",
  damage: "Damage",
  glass: "Glass part and seat",
  bracket: "Bracket and camera",
  film: "Film inside the glass",
  "set-out": "Set-out",
  tool: "Scan tool’s screen",
  other: "Other",
} as const;
export type PhotoSubject = keyof typeof PHOTO_SUBJECTS;

/** What the glass check looks at besides depths: each is right or not. */
export const MOUNT_PARTS = {
  bracket: { ask: "Bracket seated, no adhesive under it", bad: "Bracket not seated" },
  camera: { ask: "Camera clicked home, cover on", bad: "Camera not seated" },
  film: {
    ask: "Glass clear before the camera: no film, no label",
    bad: "Film or label before the camera",
  },
} as const;
export type MountPart = keyof typeof MOUNT_PARTS;

/** What the customer signs, word for word; the record keeps the words with the signature. */
export const CONSENT_WORDS =
  "I agree that the shop drives this vehicle on public roads as far as the calibration and its road check need.";

const KM_PER_MILE = 1.609344;

/**
 * Reads an odometer as typed: "84 210", "84,210 km", "52330 mi". Kilometres unless miles are named;
 * null if it is none.
 */
export function readOdometer(text: string): number | null {
  const m = /^\s*(\d{1,3}(?:[ ,.\u202f]\d{3})+|\d+)\s*(km|mi|miles|mls)?\s*$/i.exec(text);
  if (!m) return null;
  const figure = Number(m[1]!.replace(/\D/g, ""));
  const km = Math.round(m[2] && /^m/i.test(m[2]) ? figure * KM_PER_MILE : figure);
  return km <= 3_000_000 ? km : null;
}
