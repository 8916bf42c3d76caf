import type { Sheet } from "@/core/sheet";

/** Three made-up procedure sheets. Figures, sources and people are invented. */
const READY: Sheet["ready"] = [
  { id: "baseline-scan", ask: "Fault codes read before work and kept", why: "What was there before must be told apart from what the work left." },
  { id: "tyres", ask: "Tyre pressures at placard, sizes the same", why: "A soft tyre tips the camera." },
  { id: "load", ask: "No people or cargo; fuel above half", why: "Load changes the height and pitch of the camera." },
  { id: "steering", ask: "Steering straight, doors shut, lights off", why: "The routine refuses otherwise, or learns crooked." },
  { id: "maintainer", ask: "Battery maintainer on", why: "Ignition-on work drains the battery; a dip stops the routine." },
  { id: "space", ask: "Floor level, light even, nothing board-like behind", why: "The camera must find one board only." },
]; // prettier-ignore

const PROVE: Sheet["prove"] = [
  { id: "rescan", ask: "Codes cleared and read again: none from the camera", why: "A code that returns says the fault is still there." },
  { id: "road-check", ask: "Lane warning checked on a marked road, two people aboard", why: "The routine says it learned; only the road shows that it works." },
  { id: "settings", ask: "Customer's own settings put back", why: "The routine may have reset them." },
]; // prettier-ignore

const CAUTIONS = [
  "Chocks in and park brake on before anyone works at the wheels.",
  "Do not look into the board laser; keep it off when nobody reads it.",
];

const book = (date: string): Sheet["source"] => ({
  name: "Maker's service information, shop licence",
  date,
  enteredBy: "Ines Tarbet",
  checkedBy: "Mara Quill",
  checkedOn: "2026-10-02",
});

export const SHEETS: Sheet[] = [
  {
    format: "iridel.sheet/1",
    id: "lisse-forward",
    version: 2,
    title: "Lisse, forward camera, static",
    source: book("2026-09-14"),
    appliesTo: { vehicles: ["norvane-lisse"], system: "forward-camera", after: ["windshield-replaced", "camera-replaced", "bracket-touched"] },
    reason: "The forward camera looks through the windshield; new glass changes what it sees, so it must learn its aim again.",
    kind: "static",
    datum: "centreline",
    distanceFrom: "front-hub-line",
    board: { code: "HQ-14", widthMm: 1100 },
    placement: { alongMm: 2860, acrossMm: 0, twistDeg: 0, heightMm: 1245 },
    tolerance: { alongMm: 10, acrossMm: 10, twistDeg: 0.35, heightMm: 6 },
    cautions: CAUTIONS,
    ready: READY,
    run: [
      { id: "hood", kind: "prompt", say: "Keep the bonnet shut and stand clear of the camera's view." },
      { id: "volts", kind: "compare", say: "Supply voltage against the book", value: "battery-voltage", unit: "V", min: 12.4, max: 15 },
      { id: "ign-off", kind: "ignition", say: "Ignition off, then leave it to rest.", to: "off", waitSeconds: 6 },
      { id: "ign-on", kind: "ignition", say: "Ignition on. Do not start the engine.", to: "on", waitSeconds: 3, caution: "Hands away from the fans: they may start without warning." },
      { id: "camera-height", kind: "compare", say: "Camera height the vehicle has stored, against the book", value: "camera-height", unit: "mm", min: 1140, max: 1184 },
      { id: "arch", kind: "input", say: "The routine asks for the height of the front wheel arch.", name: "Front wheel arch height", minMm: 600, maxMm: 740 },
      { id: "learn", kind: "routine", say: "Let the camera look at the board. Nobody walks through its view.", routine: "forward-camera-static", minQuality: 80 },
    ],
    prove: PROVE,
  },
  {
    format: "iridel.sheet/1",
    id: "harrow-forward",
    version: 1,
    title: "Harrow, forward camera, static, upright board",
    source: book("2026-08-30"),
    appliesTo: { vehicles: ["tesmar-harrow"], system: "forward-camera", after: ["windshield-replaced", "camera-replaced", "wheel-alignment"] },
    reason: "The camera behind the windshield was disturbed; the van must be shown a board at a known place to see straight again.",
    kind: "static-then-dynamic",
    datum: "rear-axle-normal",
    distanceFrom: "front-badge",
    board: { code: "HQ-22", widthMm: 1400 },
    placement: { alongMm: 2140, acrossMm: 0, twistDeg: 0, heightMm: 1480 },
    tolerance: { alongMm: 15, acrossMm: 20, twistDeg: 0.6, heightMm: 8, pitchDeg: 0.5, rollDeg: 0.5 },
    cautions: [...CAUTIONS, "The board is heavy: tether it before it is cranked above your head."],
    ready: READY,
    run: [
      { id: "volts", kind: "compare", say: "Supply voltage against the book", value: "battery-voltage", unit: "V", min: 12.2, max: 15 },
      { id: "ign-on", kind: "ignition", say: "Ignition on. Do not start the engine.", to: "on", waitSeconds: 4, caution: "Hands away from the fans: they may start without warning." },
      { id: "door", kind: "prompt", say: "Open and shut the driver's door once." },
      { id: "learn", kind: "routine", say: "Let the camera look at the board. Nobody walks through its view.", routine: "forward-camera-static", minQuality: 75 },
    ],
    prove: PROVE,
  },
  {
    format: "iridel.sheet/1",
    id: "tarn-forward",
    version: 3,
    title: "Tarn, forward camera, static, on the thrust line",
    source: book("2026-09-21"),
    appliesTo: { vehicles: ["brannoch-tarn"], system: "forward-camera", after: ["windshield-replaced", "camera-replaced", "wheel-alignment"] },
    reason: "The camera must look where the car goes; after this work its aim is no longer proved.",
    kind: "static",
    datum: "thrust",
    distanceFrom: "bumper-face",
    board: { code: "HQ-17", widthMm: 1250 },
    placement: { alongMm: 1950, acrossMm: 0, twistDeg: 0, heightMm: 1310 },
    tolerance: { alongMm: 12, acrossMm: 18, twistDeg: 0.5, heightMm: 7 },
    cautions: CAUTIONS,
    ready: READY,
    run: [
      { id: "volts", kind: "compare", say: "Supply voltage against the book", value: "battery-voltage", unit: "V", min: 12.4, max: 15 },
      { id: "ign-off", kind: "ignition", say: "Ignition off, then leave it to rest.", to: "off", waitSeconds: 5 },
      { id: "ign-on", kind: "ignition", say: "Ignition on. Do not start the engine.", to: "on", waitSeconds: 3, caution: "Hands away from the fans: they may start without warning." },
      { id: "learn", kind: "routine", say: "Let the camera look at the board. Nobody walks through its view.", routine: "forward-camera-static", minQuality: 80 },
    ],
    prove: PROVE,
  },
]; // prettier-ignore
