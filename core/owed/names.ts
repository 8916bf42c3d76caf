/** What was done to a vehicle, or what happened to it. */
export const EVENTS = {
  "glass-out": "Windshield taken out or replaced",
  "camera-touched": "Camera taken off and put back",
  "camera-replaced": "Camera replaced",
  "bracket-touched": "Camera bracket touched",
  "mirror-touched": "Outside mirror taken off or replaced",
  "grille-touched": "Grille taken off or replaced",
  "bumper-touched": "Bumper taken off or replaced",
  "tailgate-touched": "Tailgate taken off or replaced",
  "door-touched": "Door taken off or replaced",
  "unit-replaced": "Control unit replaced",
  "unit-programmed": "Control unit programmed",
  alignment: "Wheels aligned",
  suspension: "Suspension worked on",
  steering: "Steering worked on",
  "ride-height": "Ride height changed",
  "tyre-size": "Tyre size changed",
  "collision-near": "Collision repair near a sensor",
  airbag: "Airbag deployed",
  "code-stored": "Fault code stored",
  complaint: "Customer complains of an assistance function",
  bulletin: "Bulletin of the maker applies",
} as const;
export type EventId = keyof typeof EVENTS;

/** Where on the vehicle something was done or something sits. */
export const PLACES = {
  windshield: "windshield",
  front: "front",
  rear: "rear",
  left: "vehicle left",
  right: "vehicle right",
  chassis: "chassis",
  trailer: "trailer",
} as const;
export type PlaceId = keyof typeof PLACES;

/** What can be fitted and can owe something. */
export const SYSTEMS = {
  "forward-camera": "Forward camera",
  "surround-view": "Surround-view cameras",
  "side-camera": "Side cameras",
  "mirror-camera": "Mirror cameras",
  "rear-camera": "Rear camera",
  "trailer-camera": "Trailer camera",
  "front-radar": "Front radar",
  "corner-radar": "Corner radars",
  "steering-angle": "Steering angle sensor",
} as const;
export type SystemId = keyof typeof SYSTEMS;

/**
 * static: in the bay. dynamic: on the road. both: in the bay, then on the road. learn: a value the
 * unit is taught.
 */
export const KINDS = {
  static: "static",
  dynamic: "dynamic",
  both: "static, then dynamic",
  learn: "learn",
} as const;
export type Kind = keyof typeof KINDS;

/** Where each event can have happened. One place: nobody is asked. None: it has no place. */
export const EVENT_PLACES: Record<EventId, readonly PlaceId[]> = {
  "glass-out": ["windshield"],
  "camera-touched": ["windshield", "front", "rear", "left", "right", "trailer"],
  "camera-replaced": ["windshield", "front", "rear", "left", "right", "trailer"],
  "bracket-touched": ["windshield"],
  "mirror-touched": ["left", "right"],
  "grille-touched": ["front"],
  "bumper-touched": ["front", "rear"],
  "tailgate-touched": ["rear"],
  "door-touched": ["left", "right"],
  "unit-replaced": ["windshield", "front", "rear", "left", "right", "chassis", "trailer"],
  "unit-programmed": ["windshield", "front", "rear", "left", "right", "chassis", "trailer"],
  alignment: ["chassis"],
  suspension: ["chassis"],
  steering: ["chassis"],
  "ride-height": ["chassis"],
  "tyre-size": ["chassis"],
  "collision-near": ["windshield", "front", "rear", "left", "right", "trailer"],
  airbag: [],
  "code-stored": ["windshield", "front", "rear", "left", "right", "trailer"],
  complaint: ["windshield", "front", "rear", "left", "right", "trailer"],
  bulletin: ["windshield", "front", "rear", "left", "right", "trailer"],
};
