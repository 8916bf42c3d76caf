import type { Target } from "@/core/sheet";
import { isAside } from "./aside";
import type { Instrument } from "./instrument";
import type { DatumKind } from "@/core/vehicle";
import { standsOf } from "./thing";
import type { BayWalls } from "./walls";

/**
 * The ways of setting out. All their readings join one adjustment; a school only says which ones
 * are walked.
 */
export type SchoolId =
  | "tapes"
  | "tapes-rear"
  | "floor-box"
  | "floor-box-rear"
  | "wheel-panels"
  | "wheel-lasers"
  | "beam-lasers"
  | "rig"
  | "walls"
  | "about"
  | "mat-tapes"
  | "mat-laser"
  | "mark-laser"
  | "mark-cord"
  | "free";

export type School = {
  name: string;
  /**
   * Readings in the order the path is walked; height and tilts belong to every school. Empty: all
   * there are.
   */
  path: readonly string[];
  /** Without these the kit cannot walk it. */
  needs: readonly Instrument["kind"][];
  /** Lines it sees on this very vehicle; another one is known from the book's dimensions only. */
  sees: readonly DatumKind[];
  /** What it sets out, where that is not a board. */
  for?: Target["kind"];
  /** For boards that stand behind the vehicle or beside it; the others are for those ahead. */
  around?: true;
  /** It measures to the walls of the bay, which have to be known about the vehicle. */
  walls?: true;
};

const TAPES = [
  "tape-fl-l",
  "tape-fr-r",
  "tape-fl-r",
  "tape-fr-l",
  "laser-badge",
  "tape-rl-l",
  "tape-rr-r",
] as const;
const BOX_ENDS = [
  "box-hub-l",
  "box-hub-r",
  "box-end-l",
  "box-end-r",
  "box-diag-l",
  "box-diag-r",
] as const;

/** Of a mat that lies across the vehicle's way. */
const ACROSS = ["edge-l", "edge-r", "l-r", "r-l", "far-l", "far-r"].map((of) => `across-${of}`);

export const SCHOOLS: Record<SchoolId, School> = {
  tapes: {
    name: "Four tapes",
    path: TAPES,
    needs: ["tape"],
    sees: ["centreline", "rear-axle-normal"],
  },
  "tapes-rear": {
    name: "Four tapes, laser from behind",
    path: TAPES.map((id) => (id === "laser-badge" ? "laser-behind" : id)),
    needs: ["tape", "floor-laser"],
    sees: ["centreline", "rear-axle-normal"],
  },
  "floor-box": {
    name: "Floor marks",
    path: ["box-centre", "box-ahead", ...BOX_ENDS],
    needs: ["plumb"],
    sees: ["centreline"],
  },
  "floor-box-rear": {
    name: "Floor marks, from the rear",
    path: ["box-rear-centre", "box-rear-ahead", ...BOX_ENDS],
    needs: ["plumb"],
    sees: ["rear-axle-normal"],
  },
  "wheel-panels": {
    name: "Wheel panels",
    path: ["panel-rl", "panel-rr", "panel-fl", "laser-badge"],
    needs: ["range", "laser"],
    sees: ["rear-axle-normal", "centreline"],
  },
  "wheel-lasers": {
    name: "Wheel lasers",
    path: ["scale-rl", "scale-rr", "tape-fl-l", "tape-fr-r", "laser-badge"],
    needs: ["wheel-laser", "tape"],
    sees: ["rear-axle-normal", "centreline"],
  },
  "beam-lasers": {
    name: "Beam lasers",
    path: [
      "beam-fl",
      "beam-fr",
      "beam-rl",
      "beam-rr",
      "mirror-rl",
      "mirror-rr",
      "tape-fl-l",
      "tape-fr-r",
    ],
    needs: ["beam-laser", "tape"],
    sees: ["rear-axle-normal"],
  },
  rig: {
    name: "Camera rig",
    path: [
      "rig-fl-x",
      "rig-fl-y",
      "rig-fr-x",
      "rig-fr-y",
      "rig-rl-x",
      "rig-rl-y",
      "rig-rr-x",
      "rig-rr-y",
    ],
    needs: ["rig"],
    sees: ["rear-axle-normal"],
  },
  walls: {
    name: "Walls of the bay",
    path: ["wall-*", "tape-fl-l", "tape-fr-r", "laser-badge"],
    needs: ["tape", "laser"],
    sees: ["centreline"],
    walls: true,
  },
  about: {
    name: "Hub tapes",
    path: ["about-*"],
    needs: ["tape"],
    sees: ["centreline", "rear-axle-normal"],
    around: true,
  },
  "mat-tapes": {
    name: "Tapes from the hubs",
    path: [
      "mat-beside-front",
      "mat-beside-rear",
      "mat-abeam",
      "mat-rear-front",
      "mat-front-rear",
      "mat-apart-front",
      "mat-apart-rear",
      ...ACROSS,
    ],
    needs: ["tape"],
    sees: ["rear-axle-normal"],
    for: "mat",
  },
  "mat-laser": {
    name: "Floor laser",
    path: [
      "mat-cross",
      "mat-line-front",
      "mat-line-rear",
      "mat-apart-front",
      "mat-apart-rear",
      "across-middle",
      ...ACROSS,
    ],
    needs: ["floor-laser", "tape"],
    sees: ["rear-axle-normal"],
    for: "mat",
  },
  "mark-laser": {
    name: "Laser through the hubs",
    path: ["mark-line", "mark-along", "mark-across", "mark-apart"],
    needs: ["floor-laser", "tape"],
    sees: ["side-line"],
    for: "mark",
  },
  "mark-cord": {
    name: "Cord through the hubs",
    path: ["mark-cord", "mark-along", "mark-across", "mark-apart"],
    needs: ["plumb", "tape"],
    sees: ["side-line"],
    for: "mark",
  },
  free: {
    name: "Any reading",
    path: [],
    needs: [],
    sees: ["centreline", "rear-axle-normal", "side-line"],
  },
};

/** Whether a step of a path is this reading; one that ends in a star is all that begin like it. */
export const walks = (step: string, id: string): boolean =>
  step.endsWith("*") ? id.startsWith(step.slice(0, -1)) : step === id;

/**
 * Whether the way a plan is set out walks this reading. Where the sheet means the thrust line, the
 * lasers on the rear wheels belong to every way: nothing else in a shop sees where the car drives.
 */
export function inSchool(
  plan: { target: Pick<Target, "kind" | "datum" | "stands">; school?: SchoolId },
  slot: { id: string; like?: string; instrument: Instrument["kind"]; observes: { in: string } },
): boolean {
  const { path } = SCHOOLS[schoolOf(plan)];
  return (
    slot.observes.in !== "plan" ||
    path.length === 0 ||
    path.some((p) => walks(p, slot.like ?? slot.id)) ||
    (plan.target.datum === "thrust" && slot.instrument === "wheel-laser")
  );
}

/**
 * Whether a reading is walked as things stand: that of the way, and every other one where the board
 * hangs in the laser's place and the way's own line cannot be read any more.
 */
export const isWalked = (
  s: { plan: Parameters<typeof inSchool>[0]; laserOff: boolean },
  slot: Parameters<typeof inSchool>[1],
): boolean => s.laserOff || inSchool(s.plan, slot);

/** Ways whose beams run along the car: they miss a board that stands beside the line. */
const ALONG_CAR: readonly SchoolId[] = [
  "tapes-rear",
  "wheel-panels",
  "wheel-lasers",
  "beam-lasers",
];

/** Whether this way cannot see the board where the sheet puts it. */
export const misses = (
  school: SchoolId,
  target: Pick<Target, "kind" | "placement" | "beam" | "stands">,
): boolean =>
  (school !== "free" &&
    ((SCHOOLS[school].for ?? "board") !== target.kind ||
      (SCHOOLS[school].around ?? false) !== (standsOf(target) !== "ahead"))) ||
  (ALONG_CAR.includes(school) && isAside(target));

const USUAL: Record<Target["kind"], SchoolId> = {
  board: "tapes",
  mat: "mat-tapes",
  mark: "mark-laser",
};

/** The way a plan is set out: the one that was chosen, or the usual one of its kind of target. */
export const schoolOf = (plan: {
  target: Pick<Target, "kind" | "stands">;
  school?: SchoolId;
}): SchoolId =>
  plan.school ?? (standsOf(plan.target) === "ahead" ? USUAL[plan.target.kind] : "about");

/** The schools a kit can walk to where the sheet puts the board. */
export const schoolsFor = (plan: {
  instruments: readonly Instrument[];
  target: Pick<Target, "kind" | "placement" | "beam" | "stands">;
  bay?: BayWalls;
}): SchoolId[] =>
  (Object.keys(SCHOOLS) as SchoolId[]).filter(
    (id) =>
      !misses(id, plan.target) &&
      (!SCHOOLS[id].walls || plan.bay !== undefined) &&
      SCHOOLS[id].needs.every((kind) => plan.instruments.some((i) => i.kind === kind)),
  );
