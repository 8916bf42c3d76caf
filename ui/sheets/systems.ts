import type { Draft } from "@/core/book";
import type { Sheet, SheetStep } from "@/core/sheet";

export type GuidedSystem = Sheet["appliesTo"]["system"];
type Routine = Extract<SheetStep, { kind: "routine" }>["routine"];

const HUBS = { datum: "rear-axle-normal", distanceFrom: "front-hub-line" } as const;
const sides = ["left", "right"] as const;
const sign = (side: "left" | "right"): 1 | -1 => (side === "left" ? 1 : -1);

const beside = (side: "left" | "right"): Draft => ({
  id: `mat-${side}`,
  name: `${side} mat`,
  kind: "mat",
  object: { side },
  ...HUBS,
  placement: { alongMm: 0, acrossMm: 1500 * sign(side), twistDeg: 0, heightMm: 0 },
  tolerance: {},
});
const mark = (side: "left" | "right"): Draft => ({
  id: `mark-${side}`,
  name: `${side} floor mark`,
  kind: "mark",
  line: { from: "rear", through: "front" },
  object: { side },
  placement: { twistDeg: 0, heightMm: 0 },
  tolerance: {},
});
const board = (object: Draft, name: string): Draft => ({
  id: "first",
  name,
  kind: "board",
  object,
  datum: "centreline",
  distanceFrom: "front-hub-line",
  placement: { acrossMm: 0, twistDeg: 0 },
  tolerance: {},
});
const stood = (stands: "behind" | "left" | "right", name: string, distanceFrom: string): Draft => ({
  ...board({}, name),
  id: `board-${stands}`,
  stands,
  datum: "rear-axle-normal",
  distanceFrom,
});
const matBehind: Draft = {
  id: "mat-rear",
  name: "rear mat",
  kind: "mat",
  lies: "behind",
  object: { aheadMm: 0 },
  datum: "rear-axle-normal",
  distanceFrom: "rear-hub-line",
  placement: { acrossMm: 0, twistDeg: 0, heightMm: 0 },
  tolerance: {},
};
const setup = (id: string, name: string, targets: Draft[]): Draft[] => [{ id, name, targets }];

/** What a camera at a side or behind looks at: some makers want mats, some a board on a stand. */
export type LooksAt = "none" | "mats" | "boards";

type Other = Partial<Record<LooksAt, { setups: Draft[]; steps: Draft[] }>>;
const boardBehind = stood("behind", "board behind", "rear-hub-line");

/** What a sheet sets out that wants something else than usual, and the steps between its boards. */
const OTHERS: Partial<Record<GuidedSystem, Other>> = {
  "rear-camera": {
    boards: { setups: setup("behind", "board behind", [boardBehind]), steps: [] },
  },
  "trailer-camera": {
    mats: {
      setups: setup("behind", "mat behind the trailer", [{ ...matBehind, frame: "trailer" }]),
      steps: [],
    },
    boards: {
      setups: setup("behind", "board behind the trailer", [{ ...boardBehind, frame: "trailer" }]),
      steps: [],
    },
  },
  "side-camera": {
    boards: {
      setups: sides.flatMap((side) =>
        setup(side, `board on vehicle ${side}`, [
          stood(side, `board on vehicle ${side}`, "front-hub-line"),
        ]),
      ),
      steps: [
        {
          id: "to-right",
          kind: "position",
          say: "Take the board round to vehicle right.",
          to: "board-right",
        },
        {
          id: "learn-right",
          kind: "routine",
          say: "Let the right camera look at the board.",
          routine: "side-camera-static",
          minQuality: 60,
        },
      ],
    },
  },
};

/** The choices a system leaves; none where it has but one. */
export const looksAtChoices = (system: unknown): [LooksAt, string][] =>
  system === "rear-camera"
    ? [
        ["mats", "A mat behind"],
        ["boards", "A board behind"],
      ]
    : system === "side-camera"
      ? [
          ["mats", "Mats on both sides"],
          ["boards", "A board on either side"],
        ]
      : system === "trailer-camera"
        ? [
            ["none", "Its own trailer alone"],
            ["mats", "A mat behind it"],
            ["boards", "A board behind it"],
          ]
        : [];

/** What a sheet of each system begins with: what it sets out, without a figure that only its source has. */
const BEGINNINGS: Record<GuidedSystem, { setups: Draft[]; routine: Routine }> = {
  "forward-camera": {
    setups: setup("first", "first place", [board({}, "first place")]),
    routine: "forward-camera-static",
  },
  "surround-view": {
    setups: setup("mats", "mats on both sides", sides.map(beside)),
    routine: "surround-view-static",
  },
  "side-camera": {
    setups: setup("mats", "mats on both sides", sides.map(beside)),
    routine: "side-camera-static",
  },
  "rear-camera": {
    setups: setup("behind", "mat behind", [matBehind]),
    routine: "rear-camera-static",
  },
  "mirror-camera": {
    setups: setup("marks", "marks on both sides", sides.map(mark)),
    routine: "mirror-camera-static",
  },
  "trailer-camera": { setups: [], routine: "trailer-camera-static" },
  "front-radar": {
    setups: setup("reflector", "reflector before the radar", [
      board({ is: "reflector" }, "the reflector"),
    ]),
    routine: "front-radar-static",
  },
};

export const GUIDED = Object.keys(BEGINNINGS) as GuidedSystem[];

/** The routine of a system, for a new step. */
export const routineOf = (system: unknown): Routine =>
  BEGINNINGS[system as GuidedSystem]?.routine ?? "forward-camera-static";

/**
 * A draft for another system: what is set out begins anew, its routine is that system's, all else stays.
 */
export function forSystem(doc: Draft, system: GuidedSystem, at?: LooksAt): Draft {
  const { setups: usual, routine } = BEGINNINGS[system];
  const { setups, steps } = (at && OTHERS[system]?.[at]) ?? { setups: usual, steps: [] };
  const appliesTo = { ...(doc.appliesTo as Draft | undefined), system };
  const run = (Array.isArray(doc.run) ? (doc.run as Draft[]) : [])
    .filter((s) => s.kind !== "aim" && s.kind !== "position" && s.id !== "learn-right")
    .map((s) => (s.kind === "routine" ? { ...s, routine } : s));
  return {
    ...doc,
    appliesTo,
    setups: structuredClone(setups),
    run: [...run, ...structuredClone(steps)],
  };
}
