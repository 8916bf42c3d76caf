import type { Sheet, SheetStep, Target } from "@/core/sheet";
import { BASELINE, maintainer, pressures } from "./checks";

/** Made-up sheets of cameras that take the mirrors' place. Every figure is invented. */
type Side = "left" | "right";

/** What the unit must be told of anew after these. */
const REPLACED = ["camera-replaced", "unit-replaced", "unit-programmed"] as const;

type Figures = {
  id: string;
  vehicle: string;
  title: string;
  /** The axle the marks are measured from, and what it is called in the plate's words. */
  from: string;
  behindMm: number;
  outMm: number;
  divisionDeg: number;
  most: number;
  /** Where the mark belongs: toward the vehicle, and up. */
  inward: number;
  up: number;
};

const of = (side: Side): 1 | -1 => (side === "left" ? 1 : -1);

const mark = (side: Side, f: Figures): Target => ({
  id: `mark-${side}`,
  name: `${side} floor mark`,
  kind: "mark",
  datum: "side-line",
  distanceFrom: "line-hub",
  line: { from: f.from, through: "front" },
  object: { code: "floor mark", widthMm: 60, side },
  placement: {
    alongMm: -f.behindMm,
    acrossMm: of(side) * f.outMm,
    twistDeg: 0,
    heightMm: 0,
  },
  tolerance: { alongMm: 30, acrossMm: 15 },
});

const aim = (side: Side, f: Figures): SheetStep => ({
  id: `aim-${side}`,
  kind: "aim",
  say: `Look at the ${side} display: where does the floor mark stand?`,
  side,
  mark: `mark-${side}`,
  scale: { divisionDeg: f.divisionDeg, most: f.most },
  at: { right: of(side) * f.inward, up: f.up },
  steps: { panDeg: 0.12, tiltDeg: 0.1 },
  within: 0.4,
  caution: "One person sits in the cabin and reads; nobody stands under a moving arm.",
});

const sheet = (f: Figures): Sheet => ({
  format: "iridel.sheet/2",
  id: f.id,
  version: 1,
  status: "checked",
  title: f.title,
  source: {
    name: "Shop workbook, Hollin Quay, mirror cameras",
    date: "2026-10-20",
    enteredBy: "Oskar Veld",
    checkedBy: "Mara Quill",
    checkedOn: "2026-10-22",
  },
  appliesTo: {
    vehicles: [f.vehicle],
    system: "mirror-camera",
    after: [
      "door-touched",
      "mirror-touched",
      "camera-touched",
      "camera-replaced",
      "collision-near",
      "unit-replaced",
      "unit-programmed",
      "code-stored",
      "complaint",
    ],
  },
  reason:
    "The driver sees the lane beside the truck through these cameras; an arm that was moved shows it where it is not.",
  method: "static",
  setups: [
    { id: "marks", name: "marks on both sides", targets: [mark("left", f), mark("right", f)] },
  ],
  cautions: [
    { say: "Park brake on and chocks in before anyone works at the wheels.", when: "wheels" },
    { say: "A floor laser shines at ankle height: do not look along its line.", when: "laser" },
    { say: "The arms fold by motor when the doors are locked: keep hands away.", when: "start" },
  ],
  ready: [
    BASELINE,
    maintainer(24.4, 30),
    pressures("A soft tyre leans the cab, and with it both arms.", 30),
    {
      id: "arms",
      ask: "Both camera arms in driving position: height and reach",
      why: "A folded arm is learned as a crooked camera, and its height goes into the aim.",
      measure: { kind: "camera-places", heightMm: 45, outMm: 60 },
    },
    {
      id: "cab",
      ask: "Cab down and locked, air suspension at driving height, lenses clean",
      why: "Both cameras stand on the cab.",
    },
  ],
  run: [
    {
      id: "ign-on",
      kind: "ignition",
      say: "Ignition on. Do not start the engine.",
      to: "on",
      waitSeconds: 2,
      caution: "Hands away from the arms: they unfold by themselves.",
    },
    {
      id: "height-left",
      kind: "input",
      say: "Type the height of the left camera above the floor.",
      name: "Height of the left camera",
      minMm: 1800,
      maxMm: 3200,
      takes: "camera-height-left",
      only: [...REPLACED],
    },
    {
      id: "height-right",
      kind: "input",
      say: "Type the height of the right camera above the floor.",
      name: "Height of the right camera",
      minMm: 1800,
      maxMm: 3200,
      takes: "camera-height-right",
      only: [...REPLACED],
    },
    {
      id: "end",
      kind: "input",
      say: "Type how far the end of the body or the trailer lies behind the front axle.",
      name: "End behind the front axle",
      minMm: 3000,
      maxMm: 19000,
      only: [...REPLACED],
    },
    aim("left", f),
    aim("right", f),
    {
      id: "learn",
      kind: "routine",
      say: "Let the unit store both aims.",
      routine: "mirror-camera-static",
      minQuality: 70,
    },
  ],
  prove: [
    {
      id: "mirror-rescan",
      ask: "Codes read again: none from the mirror cameras",
      why: "A code that returns says the fault is still there.",
      measure: { kind: "rescan" },
    },
    {
      id: "end-line",
      ask: "The line for the end lies on the end of the body in both displays",
      why: "A line that lies short or long is a length that was typed wrong, or a camera that looks too high.",
    },
    {
      id: "both",
      ask: "Both displays show the body’s side as far in from the edge",
      why: "A driver compares them without knowing it.",
    },
  ],
});

export const MIRRORS: Sheet[] = [
  sheet({
    id: "hauler-mirrors",
    vehicle: "tesmar-hauler",
    title: "Hauler 12, mirror cameras, two floor marks",
    from: "rear",
    behindMm: 5000,
    outMm: 700,
    divisionDeg: 1,
    most: 12,
    inward: 2,
    up: -1,
  }),
  sheet({
    id: "longhaul-mirrors",
    vehicle: "tesmar-longhaul",
    title: "Longhaul 40, mirror cameras, two floor marks",
    from: "third",
    behindMm: 6200,
    outMm: 900,
    divisionDeg: 0.8,
    most: 14,
    inward: 3,
    up: 0,
  }),
];
