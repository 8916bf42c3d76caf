import type { Sheet, Target } from "@/core/sheet";
import { SURROUND } from "./surround";
import { BASELINE, maintainer } from "./checks";

/** Made-up sheets of mats all round, of rear and of side cameras, by mats and by boards. Every figure is invented. */
type Place = "left" | "right" | "ahead" | "behind";

const beside = (
  side: "left" | "right",
  code: string,
  {
    alongMm,
    acrossMm,
    lengthMm,
    aheadMm,
  }: Record<"alongMm" | "acrossMm" | "lengthMm" | "aheadMm", number>,
): Target => ({
  id: `mat-${side}`,
  name: `${side} mat`,
  kind: "mat",
  object: { code, widthMm: 900, lengthMm, aheadMm, side },
  datum: "rear-axle-normal",
  distanceFrom: "front-hub-line",
  placement: {
    alongMm,
    acrossMm: side === "left" ? acrossMm : -acrossMm,
    twistDeg: 0,
    heightMm: 0,
  },
  tolerance: { alongMm: 15, twistDeg: 0.3 },
});

export const across = (
  id: string,
  name: string,
  lies: Extract<Place, "ahead" | "behind">,
  object: Target["object"],
  alongMm: number,
  acrossMm = 0,
): Target => ({
  id,
  name,
  kind: "mat",
  lies,
  object,
  datum: "rear-axle-normal",
  distanceFrom: lies === "ahead" ? "front-hub-line" : "rear-hub-line",
  placement: { alongMm, acrossMm, twistDeg: 0, heightMm: 0 },
  tolerance: { alongMm: 15, acrossMm: 20, twistDeg: 0.4 },
});

const FLAT: Sheet["ready"] = [
  {
    id: "flat",
    ask: "Floor dry and dull where the mats lie; mats flat, no edge curled, no crease",
    why: "A crease moves a mark as surely as a pull; a wet floor shows it twice.",
  },
];
const RESCAN = (what: string): Sheet["prove"][number] => ({
  id: `${what}-rescan`,
  ask: "Codes read again: none from these cameras",
  why: "A code that returns says the fault is still there.",
  measure: { kind: "rescan" },
});
const MATS: [string, string] = ["mat-left", "mat-right"];
const apart = (minMm: number, maxMm: number): NonNullable<Sheet["setups"][number]["relations"]> => [
  { id: "apart", kind: "spacing", of: MATS, minMm, maxMm },
  { id: "parallel", kind: "parallel", of: MATS, toleranceDeg: 0.35 },
  { id: "even", kind: "equal-distance", of: MATS, toleranceMm: 20 },
];
const source = (name: string): Sheet["source"] => ({
  name,
  date: "2026-10-08",
  enteredBy: "Ines Tarbet",
  checkedBy: "Mara Quill",
  checkedOn: "2026-10-12",
});
const routine = (
  of: "surround-view-static" | "rear-camera-static" | "side-camera-static",
  say: string,
  wants: Sheet["run"] = [],
): Sheet["run"] => [
  {
    id: "ign-on",
    kind: "ignition",
    say: "Ignition on. Do not start the engine.",
    to: "on",
    waitSeconds: 3,
  },
  ...wants,
  { id: "clear", kind: "prompt", say: "Nobody and nothing stands on the mats or between them." },
  { id: "learn", kind: "routine", say, routine: of, minQuality: 65 },
];
const CAMERAS_MOVED: Sheet["appliesTo"]["after"] = [
  "camera-touched",
  "camera-replaced",
  "collision-near",
  "unit-replaced",
  "unit-programmed",
  "code-stored",
  "complaint",
];

/** Mats on every side, the rear one in two pieces. */
const ALL_ROUND: Sheet = {
  ...SURROUND,
  id: "fell-surround",
  title: "Fell, surround view, mats all round",
  source: source("Shop workbook, Hollin Quay, cameras all round"),
  appliesTo: { ...SURROUND.appliesTo, vehicles: ["brannoch-fell"] },
  setups: [
    {
      id: "mats",
      name: "mats all round",
      targets: [
        beside("left", "HQ-M1", { alongMm: 0, acrossMm: 1560, lengthMm: 5600, aheadMm: 1300 }),
        beside("right", "HQ-M3", { alongMm: 0, acrossMm: 1560, lengthMm: 5600, aheadMm: 1300 }),
        across(
          "mat-front",
          "front mat",
          "ahead",
          { code: "HQ-M5", widthMm: 3000, lengthMm: 900, aheadMm: 900 },
          1900,
        ),
        across(
          "mat-rear-left",
          "rear mat, left piece",
          "behind",
          { code: "HQ-M6", widthMm: 1500, lengthMm: 900, aheadMm: 0, side: "left" },
          -2100,
          750,
        ),
        across(
          "mat-rear-right",
          "rear mat, right piece",
          "behind",
          { code: "HQ-M7", widthMm: 1500, lengthMm: 900, aheadMm: 0, side: "right" },
          -2100,
          -750,
        ),
      ],
      relations: apart(3070, 3170),
    },
  ],
  ready: [
    ...SURROUND.ready,
    ...FLAT,
    {
      id: "mirrors-out",
      ask: "Both mirrors folded out: height and reach of their cameras",
      why: "A folded mirror looks at the door; the unit learns it as a camera that sits there.",
      measure: { kind: "camera-places", heightMm: 40, outMm: 60 },
    },
  ],
};

/** One mat behind, for the camera over the rear doors. */
const rear = (id: string, vehicle: string, title: string, alongMm: number): Sheet => ({
  format: "iridel.sheet/2",
  id,
  version: 1,
  status: "checked",
  title,
  source: source("Shop workbook, Hollin Quay, cameras behind"),
  appliesTo: {
    vehicles: [vehicle],
    system: "rear-camera",
    after: ["tailgate-touched", "bumper-touched", ...CAMERAS_MOVED],
  },
  reason:
    "The guide lines in the rear picture are drawn from where the camera sits; moved, they lead beside the gap.",
  method: "static",
  setups: [
    {
      id: "behind",
      name: "mat behind",
      targets: [
        across(
          "mat-rear",
          "rear mat",
          "behind",
          { code: "HQ-M8", widthMm: 2400, lengthMm: 1200, aheadMm: 0 },
          alongMm,
        ),
      ],
    },
  ],
  cautions: [
    { say: "Park brake on and chocks in before anyone works at the wheels.", when: "wheels" },
    { say: "A floor laser shines at ankle height: do not look along its line.", when: "laser" },
  ],
  ready: [
    ...SURROUND.ready.filter((i) => i.id === "maintainer" || i.id === "tyres"),
    {
      id: "rear-lens",
      ask: "Rear doors or tailgate shut and latched, lens clean and dry, nothing hung on the rear",
      why: "The camera sits on what opens.",
    },
    ...FLAT,
  ],
  run: routine("rear-camera-static", "Let the rear camera look at the mat."),
  prove: [
    RESCAN("rear"),
    {
      id: "guide-lines",
      ask: "Guide lines lie along the mat’s edges on the display",
      why: "Lines that cross the edges say the camera learned another place.",
    },
  ],
});

/** A mat on each side, for cameras on the doors. */
const SIDES: Sheet = {
  format: "iridel.sheet/2",
  id: "carrier-sides",
  version: 1,
  status: "checked",
  title: "Carrier 7, side cameras, two mats",
  source: source("Shop workbook, Hollin Quay, cameras at the sides"),
  appliesTo: {
    vehicles: ["keld-carrier"],
    system: "side-camera",
    after: ["door-touched", "mirror-touched", ...CAMERAS_MOVED],
  },
  reason:
    "The cameras on the doors show what drives beside the box; a door that was off hangs elsewhere.",
  method: "static",
  setups: [
    {
      id: "sides",
      name: "mats on both sides",
      targets: [
        beside("left", "HQ-M1", { alongMm: 300, acrossMm: 1750, lengthMm: 5600, aheadMm: 1300 }),
        beside("right", "HQ-M3", { alongMm: 300, acrossMm: 1750, lengthMm: 5600, aheadMm: 1300 }),
      ],
      relations: apart(3440, 3560),
    },
  ],
  cautions: SURROUND.cautions,
  ready: [
    ...SURROUND.ready.filter((i) => i.id === "tyres"),
    BASELINE,
    maintainer(24.4, 20),
    {
      id: "doors",
      ask: "Both doors shut and latched, mirrors folded out: height and reach of the cameras",
      why: "Door and mirror carry the camera: ajar or folded it looks elsewhere.",
      measure: { kind: "camera-places", heightMm: 40, outMm: 60 },
    },
    ...FLAT,
  ],
  run: routine("side-camera-static", "Let both side cameras look at their mats.", [
    {
      id: "again",
      kind: "prompt",
      say: "The routine shows only the second time: leave it, then enter it again.",
      wants: "left-and-entered-again",
    },
  ]),
  prove: [
    RESCAN("side"),
    {
      id: "side-lines",
      ask: "Edges of both mats straight and alike in both pictures",
      why: "A driver compares them without knowing it.",
    },
  ],
};

/** Boards on a stand that is taken round: behind the van, or to either of its sides. */
const stood = (
  id: string,
  name: string,
  placement: Pick<Target["placement"], "alongMm" | "acrossMm">,
  at: Pick<Target, "stands" | "datum" | "distanceFrom">,
): Target => ({
  id,
  name,
  kind: "board",
  object: { code: "HQ-14", widthMm: 1100 },
  ...at,
  placement: { ...placement, twistDeg: 0, heightMm: 960 },
  tolerance: { alongMm: 20, acrossMm: 20, twistDeg: 0.6, heightMm: 45 },
});
const BESIDE_CAUTIONS: Sheet["cautions"] = [
  { say: "Chocks in and park brake on before anyone works at the wheels.", when: "wheels" },
  { say: "Do not look into the board’s laser; keep it off when nobody reads it.", when: "laser" },
];
const BOARD_REAR: Sheet = {
  ...rear("motto-rear", "ardvale-motto", "Motto, rear camera, board behind", -2700),
  setups: [
    {
      id: "behind",
      name: "board behind",
      targets: [
        stood(
          "board-rear",
          "board behind",
          { alongMm: -2700, acrossMm: 0 },
          { stands: "behind", datum: "rear-axle-normal", distanceFrom: "rear-badge" },
        ),
      ],
    },
  ],
  cautions: BESIDE_CAUTIONS,
  ready: [
    ...SURROUND.ready.filter((i) => i.id === "maintainer" || i.id === "tyres"),
    {
      id: "rear-lens",
      ask: "Both rear doors shut and latched, lens clean and dry, nothing hung on the rear",
      why: "The camera sits on what opens.",
    },
  ],
  run: routine("rear-camera-static", "Let the rear camera look at the board.", [
    { id: "lamps", kind: "prompt", say: "Headlamps off.", wants: "lamps-off" },
  ]),
  prove: [
    RESCAN("rear"),
    {
      id: "guide-lines",
      ask: "Guide lines on the display lead along a straight joint of the floor",
      why: "Lines that lead beside it say the camera learned another place.",
    },
  ],
};

/** One board, first on vehicle left and then on vehicle right: each camera learns by itself. */
const BOARD_SIDES: Sheet = {
  ...SIDES,
  id: "motto-sides",
  title: "Motto, side cameras, board on either side",
  reason:
    "The cameras in the mirrors show what drives beside the van; a door that was off hangs elsewhere.",
  source: source("Shop workbook, Hollin Quay, cameras at the sides"),
  appliesTo: { ...SIDES.appliesTo, vehicles: ["ardvale-motto"] },
  setups: (["left", "right"] as const).map((side) => ({
    id: side,
    name: `board on vehicle ${side}`,
    targets: [
      stood(
        `board-${side}`,
        `board on vehicle ${side}`,
        { alongMm: -640, acrossMm: side === "left" ? 2600 : -2600 },
        { stands: side, datum: "rear-axle-normal", distanceFrom: "front-hub-line" },
      ),
    ],
  })),
  prove: [
    RESCAN("side"),
    {
      id: "side-lines",
      ask: "A straight joint of the floor runs straight and alike in both pictures",
      why: "A driver compares them without knowing it.",
    },
  ],
  cautions: BESIDE_CAUTIONS,
  ready: [
    ...SURROUND.ready.filter((i) => i.id === "maintainer" || i.id === "tyres"),
    {
      id: "doors",
      ask: "Both doors shut and latched, mirrors folded out: height and reach of the cameras",
      why: "Door and mirror carry the camera: ajar or folded it looks elsewhere.",
      measure: { kind: "camera-places", heightMm: 40, outMm: 60 },
    },
  ],
  run: [
    ...routine("side-camera-static", "Let the left side camera look at the board.")
      .filter((s) => s.id !== "clear")
      .map((s) => (s.id === "learn" ? { ...s, id: "learn-left" } : s)),
    {
      id: "to-right",
      kind: "position",
      say: "Take the board round to vehicle right.",
      to: "board-right",
    },
    {
      id: "learn-right",
      kind: "routine",
      say: "Let the right side camera look at the board.",
      routine: "side-camera-static",
      minQuality: 65,
    },
  ],
};

export const AROUND: Sheet[] = [
  ALL_ROUND,
  SIDES,
  {
    ...rear("carrier-rear", "keld-carrier", "Carrier 7, rear camera, mat behind", -4200),
    run: routine("rear-camera-static", "Let the rear camera look at the mat.", [
      {
        id: "idle",
        kind: "ignition",
        say: "Engine running, at idle.",
        to: "running",
        waitSeconds: 5,
        caution: "Exhaust: lead it outside, or open the doors. Park brake on, chocks in.",
      },
    ]),
  },
  BOARD_REAR,
  BOARD_SIDES,
];
