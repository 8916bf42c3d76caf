import type { Sheet, Target } from "@/core/sheet";
import { AROUND } from "./around";
import { BASELINE, maintainer, pressures } from "./checks";
import { MIRRORS } from "./mirror";
import { RADARS } from "./radar";
import { SURROUND } from "./surround";
import { TRAILER, TRAILER_MAT } from "./trailer";

/** Made-up procedure sheets. Figures, sources and people are invented. */
const READY: Sheet["ready"] = [
  BASELINE,
  maintainer(12.4, 30),
  pressures("A soft tyre tips the camera.", 12),
  {
    id: "tyre-sizes",
    ask: "Tyre sizes alike across each axle",
    why: "A smaller tyre lowers its corner, and the wheels no longer turn alike.",
    measure: { kind: "tyres", axlePercent: 1, nominalPercent: 3 },
  },
  {
    id: "load",
    ask: "Fuel above half, no people or cargo",
    why: "Load changes the height and pitch of the camera.",
    looksFor: "load",
    measure: { kind: "fuel", minShare: 0.5 },
  },
  {
    id: "stance",
    ask: "Body stands as it should: heights at the four arches",
    why: "A sagging spring turns the camera as surely as a bent bracket.",
    measure: { kind: "arches", cameraHeightMm: 18, pitchDeg: 0.3, rollDeg: 0.3 },
  },
  {
    id: "steering",
    ask: "Steering straight",
    why: "The routine refuses otherwise, or learns crooked.",
    measure: { kind: "steering", maxDeg: 3 },
  },
  {
    id: "floor",
    ask: "Floor read at the four tyres and at the stand",
    why: "The board's height counts from the car's plane, not from the floor it happens to stand on.",
    measure: { kind: "floor", slopeDeg: 0.6, twistMm: 5 },
  },
  {
    id: "shut",
    ask: "Doors and bonnet shut, lights and wipers off",
    why: "An open door tips the body; the routine refuses with the lights on.",
  },
  {
    id: "space",
    ask: "Clear zone measured, nothing board-like in it",
    why: "The camera must find one board only.",
    looksFor: "clutter",
    measure: { kind: "clear-zone", aheadMm: 4600, sideMm: 1300 },
  },
  {
    id: "light",
    ask: "Light even, no glare or sun on the board's place",
    why: "A bright patch hides the pattern; so does a shadow across it.",
    looksFor: "glare",
  },
];

const RESCAN: Sheet["prove"][number] = {
  id: "rescan",
  ask: "Codes cleared and read again: none from the camera",
  why: "A code that returns says the fault is still there.",
  measure: { kind: "rescan" },
};
const DASH: Sheet["prove"][number] = {
  id: "dash",
  ask: "Lamps of the dash as they were, or fewer",
  why: "A lamp that came with the work says that something is not done.",
  measure: { kind: "dash" },
};
const ON_THE_ROAD: Sheet["prove"][number] = {
  id: "road-check",
  ask: "Every function of the camera tried on a marked road, its setting put back",
  why: "The routine says it learned; only the road shows that it works.",
  measure: { kind: "road" },
};
const PROVE: Sheet["prove"] = [RESCAN, DASH, ON_THE_ROAD];

const CAUTIONS: Sheet["cautions"] = [
  { say: "Chocks in and park brake on before anyone works at the wheels.", when: "wheels" },
  { say: "Do not look into the board laser; keep it off when nobody reads it.", when: "laser" },
];

const book = (date: string): Sheet["source"] => ({
  name: "Maker's service information, shop licence",
  date,
  enteredBy: "Ines Tarbet",
  checkedBy: "Mara Quill",
  checkedOn: "2026-10-02",
});

/** The one place of a sheet that asks for one board. */
const oneBoard = (board: Omit<Target, "id" | "name" | "kind">): Sheet["setups"] => [
  {
    id: "first",
    name: "first place",
    targets: [{ id: "first", name: "first place", kind: "board", ...board }],
  },
];

export const SHEETS: Sheet[] = [
  {
    format: "iridel.sheet/2",
    id: "lisse-forward",
    version: 2,
    status: "checked",
    title: "Lisse, forward camera, static",
    source: book("2026-09-14"),
    appliesTo: {
      vehicles: ["norvane-lisse"],
      system: "forward-camera",
      after: ["glass-out", "camera-replaced", "bracket-touched"],
    },
    reason:
      "The forward camera looks through the windshield; new glass changes what it sees, so it must learn its aim again.",
    method: "static",
    setups: oneBoard({
      object: { code: "HQ-14", widthMm: 1100 },
      datum: "centreline",
      distanceFrom: "front-hub-line",
      placement: { alongMm: 2860, acrossMm: 0, twistDeg: 0, heightMm: 1245 },
      tolerance: { alongMm: 10, acrossMm: 10, twistDeg: 0.35, heightMm: 6 },
    }),
    cautions: CAUTIONS,
    ready: READY,
    run: [
      {
        id: "hood",
        kind: "prompt",
        say: "Take the maintainer off, shut the bonnet, and stand clear of the camera's view.",
        wants: "maintainer-off",
      },
      {
        id: "volts",
        kind: "compare",
        say: "Supply voltage against the book",
        value: "battery-voltage",
        unit: "V",
        min: 12.4,
        max: 15,
      },
      {
        id: "ign-off",
        kind: "ignition",
        say: "Ignition off, then leave it to rest.",
        to: "off",
        waitSeconds: 6,
      },
      {
        id: "ign-on",
        kind: "ignition",
        say: "Ignition on. Do not start the engine.",
        to: "on",
        waitSeconds: 3,
        caution: "Hands away from the fans: they may start without warning.",
      },
      {
        id: "camera-height",
        kind: "compare",
        say: "Camera height the vehicle has stored, against the book",
        value: "camera-height",
        unit: "mm",
        min: 1140,
        max: 1184,
      },
      {
        id: "arch",
        kind: "input",
        say: "The routine asks for the height of the front wheel arch.",
        name: "Front wheel arch height",
        minMm: 600,
        maxMm: 740,
        takes: "arch-front",
      },
      {
        id: "learn",
        kind: "routine",
        say: "Let the camera look at the board. Nobody walks through its view.",
        routine: "forward-camera-static",
        minQuality: 80,
      },
    ],
    prove: PROVE,
  },
  {
    format: "iridel.sheet/2",
    id: "harrow-forward",
    version: 1,
    status: "checked",
    title: "Harrow, forward camera, static, upright board",
    source: book("2026-08-30"),
    appliesTo: {
      vehicles: ["tesmar-harrow"],
      system: "forward-camera",
      after: ["glass-out", "camera-replaced", "alignment"],
    },
    reason:
      "The camera behind the windshield was disturbed; the van must be shown a board at a known place to see straight again.",
    method: "static-then-dynamic",
    setups: oneBoard({
      object: { code: "HQ-22", widthMm: 1400 },
      datum: "rear-axle-normal",
      distanceFrom: "front-badge",
      placement: { alongMm: 2140, acrossMm: 0, twistDeg: 0, heightMm: 1480 },
      upright: "vehicle-plane",
      tolerance: {
        alongMm: 15,
        acrossMm: 20,
        twistDeg: 0.6,
        heightMm: 8,
        pitchDeg: 0.5,
        rollDeg: 0.5,
      },
    }),
    cautions: [
      ...CAUTIONS,
      { say: "The board is heavy: tether it before it is cranked above your head.", when: "lift" },
    ],
    ready: READY,
    run: [
      {
        id: "volts",
        kind: "compare",
        say: "Supply voltage against the book",
        value: "battery-voltage",
        unit: "V",
        min: 12.2,
        max: 15,
      },
      {
        id: "ign-on",
        kind: "ignition",
        say: "Ignition on. Do not start the engine.",
        to: "on",
        waitSeconds: 4,
        caution: "Hands away from the fans: they may start without warning.",
      },
      { id: "door", kind: "prompt", say: "Open and shut the driver's door once." },
      {
        id: "learn",
        kind: "routine",
        say: "Let the camera look at the board. Nobody walks through its view.",
        routine: "forward-camera-static",
        minQuality: 75,
      },
    ],
    // Its unit keeps a code until it was driven: read again after the road, not before.
    prove: [DASH, ON_THE_ROAD, RESCAN],
  },
  {
    format: "iridel.sheet/2",
    id: "tarn-forward",
    version: 3,
    status: "checked",
    title: "Tarn, forward camera, static, on the thrust line",
    source: book("2026-09-21"),
    appliesTo: {
      vehicles: ["brannoch-tarn"],
      system: "forward-camera",
      after: ["glass-out", "camera-replaced", "alignment"],
    },
    reason: "The camera must look where the car goes; after this work its aim is no longer proved.",
    method: "static",
    setups: oneBoard({
      object: { code: "HQ-17", widthMm: 1250 },
      datum: "thrust",
      distanceFrom: "bumper-face",
      placement: { alongMm: 1950, acrossMm: 0, twistDeg: 0, heightMm: 1310 },
      tolerance: { alongMm: 12, acrossMm: 18, twistDeg: 0.5, heightMm: 7 },
    }),
    cautions: CAUTIONS,
    ready: [
      ...READY,
      {
        id: "alignment",
        ask: "Rear toe and thrust inside the vehicle's limits",
        why: "The board stands square to the thrust line: an axle that is put right later moves it.",
        measure: { kind: "alignment" },
      },
    ],
    run: [
      {
        id: "volts",
        kind: "compare",
        say: "Supply voltage against the book",
        value: "battery-voltage",
        unit: "V",
        min: 12.4,
        max: 15,
      },
      {
        id: "ign-off",
        kind: "ignition",
        say: "Ignition off, then leave it to rest.",
        to: "off",
        waitSeconds: 5,
      },
      {
        id: "ign-on",
        kind: "ignition",
        say: "Ignition on. Do not start the engine.",
        to: "on",
        waitSeconds: 3,
        caution: "Hands away from the fans: they may start without warning.",
      },
      {
        id: "learn",
        kind: "routine",
        say: "Let the camera look at the board. Nobody walks through its view.",
        routine: "forward-camera-static",
        minQuality: 80,
      },
    ],
    prove: PROVE,
  },
  {
    format: "iridel.sheet/2",
    id: "sandling-forward",
    version: 1,
    status: "checked",
    title: "Sandling, forward camera, static",
    source: book("2026-09-02"),
    appliesTo: {
      vehicles: ["ardvale-sandling"],
      system: "forward-camera",
      after: ["glass-out", "camera-replaced", "bracket-touched"],
    },
    reason:
      "The forward camera looks through the windshield; new glass changes what it sees, so it must learn its aim again.",
    method: "static",
    setups: oneBoard({
      object: { code: "HQ-14", widthMm: 1100 },
      datum: "centreline",
      distanceFrom: "camera",
      placement: { alongMm: 3400, acrossMm: 0, twistDeg: 0, heightMm: 1190 },
      tolerance: { alongMm: 12, acrossMm: 12, twistDeg: 0.4, heightMm: 8 },
    }),
    cautions: CAUTIONS,
    ready: READY.map((r) =>
      r.id === "shut"
        ? { ...r, ask: "Doors and bonnet shut, wipers off", why: "An open door tips the body." }
        : r,
    ),
    run: [
      {
        id: "volts",
        kind: "compare",
        say: "Supply voltage against the book",
        value: "battery-voltage",
        unit: "V",
        min: 12.4,
        max: 15,
      },
      {
        id: "ign-on",
        kind: "ignition",
        say: "Ignition on. Do not start the engine.",
        to: "on",
        waitSeconds: 3,
        caution: "Hands away from the fans: they may start without warning.",
      },
      { id: "lamps", kind: "prompt", say: "Headlamps on, low beam.", wants: "lamps-on" },
      {
        id: "learn",
        kind: "routine",
        say: "Let the camera look at the board. Nobody walks through its view.",
        routine: "forward-camera-static",
        minQuality: 80,
      },
    ],
    prove: PROVE,
  },
  {
    format: "iridel.sheet/2",
    id: "lisse-forward-two",
    version: 1,
    status: "checked",
    title: "Lisse, forward camera, static, near and far",
    source: book("2026-10-06"),
    appliesTo: { vehicles: ["norvane-lisse"], system: "forward-camera", after: ["camera-touched"] },
    reason:
      "The camera was taken off its bracket; it is shown a board near and far, so that its aim and its sight agree.",
    method: "static",
    setups: [
      {
        id: "first",
        name: "first place",
        targets: [
          {
            id: "first",
            name: "first place",
            kind: "board",
            object: { code: "HQ-14", widthMm: 1100, version: 2 },
            datum: "centreline",
            distanceFrom: "front-hub-line",
            placement: { alongMm: 2600, acrossMm: 0, twistDeg: 0, heightMm: 1245 },
            tolerance: { alongMm: 15, acrossMm: 15, twistDeg: 0.5, heightMm: 8 },
          },
        ],
      },
      {
        id: "far",
        name: "the far place",
        targets: [
          {
            id: "far",
            name: "the far place",
            kind: "board",
            object: { code: "HQ-17", widthMm: 1250 },
            datum: "centreline",
            distanceFrom: "front-hub-line",
            placement: { alongMm: 3900, acrossMm: 0, twistDeg: 0, heightMm: 1245 },
            tolerance: { alongMm: 15, acrossMm: 15, twistDeg: 0.5, heightMm: 8 },
          },
        ],
      },
    ],
    cautions: CAUTIONS,
    ready: READY.filter((r) => ["baseline-scan", "maintainer", "light"].includes(r.id)),
    run: [
      {
        id: "ign-on",
        kind: "ignition",
        say: "Ignition on. Do not start the engine.",
        to: "on",
        waitSeconds: 0,
        caution: "Hands away from the fans: they may start without warning.",
      },
      {
        id: "near",
        kind: "routine",
        say: "Let the camera look at the near board.",
        routine: "forward-camera-static",
        minQuality: 75,
      },
      {
        id: "to-far",
        kind: "position",
        say: "Move the stand to the far place and hang the bars.",
        to: "far",
        caution: "Tether the board before it goes up.",
      },
      {
        id: "far-look",
        kind: "routine",
        say: "Let the camera look at the far board.",
        routine: "forward-camera-static",
        minQuality: 75,
      },
    ],
    prove: PROVE,
  },
  {
    format: "iridel.sheet/2",
    id: "lisse-forward-three",
    version: 1,
    status: "checked",
    title: "Lisse, forward camera, static, three places in the vehicle’s time",
    source: book("2026-10-19"),
    appliesTo: {
      vehicles: ["norvane-lisse"],
      system: "forward-camera",
      after: ["unit-replaced"],
    },
    reason:
      "A new unit knows nothing of its camera: it is shown a board at three places, each within its own time.",
    method: "static",
    setups: (
      [
        ["first", "first place", 2860],
        ["middle", "the middle place", 3200],
        ["far", "the far place", 3600],
      ] as const
    ).map(([id, name, alongMm]) => ({
      id,
      name,
      targets: [
        {
          id,
          name,
          kind: "board",
          object: { code: "HQ-14", widthMm: 1100, version: 2 },
          datum: "centreline",
          distanceFrom: "front-hub-line",
          placement: { alongMm, acrossMm: 0, twistDeg: 0, heightMm: 1245 },
          tolerance: { alongMm: 20, acrossMm: 20, twistDeg: 0.7, heightMm: 10 },
        },
      ],
    })),
    cautions: CAUTIONS,
    ready: READY.filter((r) => ["baseline-scan", "maintainer", "light"].includes(r.id)),
    run: [
      {
        id: "out",
        kind: "prompt",
        say: "Leave the vehicle and shut its doors.",
        wants: "everybody-out",
      },
      {
        id: "ign-off",
        kind: "ignition",
        say: "Ignition off.",
        to: "off",
        waitSeconds: 0,
      },
      {
        id: "ign-on",
        kind: "ignition",
        say: "Ignition on. Do not start the engine.",
        to: "on",
        waitSeconds: 0,
        caution: "Hands away from the fans: they may start without warning.",
      },
      {
        id: "enter",
        kind: "hold",
        say: "Hold both service buttons together.",
        withinSeconds: 6,
        forSeconds: 2,
      },
      {
        id: "stored-yaw",
        kind: "compare",
        say: "Yaw the new unit has stored, against the book",
        value: "stored-yaw",
        unit: "deg",
        min: -0.8,
        max: 0.8,
      },
      {
        id: "which",
        kind: "choose",
        say: "Which board does the tool ask for?",
        options: [
          { id: "narrow", name: "Narrow print", board: "HQ-14" },
          { id: "wide", name: "Wide print", board: "HQ-17" },
        ],
      },
      {
        id: "how-far",
        kind: "input",
        say: "The routine asks how far the board stands from the front hub line.",
        name: "Front hub line to board",
        minMm: 2000,
        maxMm: 5000,
        takes: "hub-to-board",
      },
      {
        id: "near-look",
        kind: "routine",
        say: "Let the camera look at the first place.",
        routine: "forward-camera-static",
        minQuality: 75,
      },
      {
        id: "to-middle",
        kind: "position",
        say: "Move the stand to the middle place.",
        to: "middle",
        withinSeconds: 600,
        caution: "Look behind you: the stand rolls backward.",
      },
      {
        id: "middle-look",
        kind: "routine",
        say: "Let the camera look at the middle place.",
        routine: "forward-camera-static",
        minQuality: 75,
      },
      {
        id: "to-far",
        kind: "position",
        say: "Move the stand to the far place.",
        to: "far",
        withinSeconds: 600,
        caution: "Look behind you: the stand rolls backward.",
      },
      {
        id: "far-look",
        kind: "routine",
        say: "Let the camera look at the far place.",
        routine: "forward-camera-static",
        minQuality: 75,
      },
    ],
    prove: PROVE,
  },
  {
    format: "iridel.sheet/2",
    id: "sandling-forward-pair",
    version: 1,
    status: "checked",
    title: "Sandling, forward camera, static, two boards at once",
    source: book("2026-10-14"),
    appliesTo: {
      vehicles: ["ardvale-sandling"],
      system: "forward-camera",
      after: ["camera-touched"],
    },
    reason:
      "The camera was taken off its bracket; it is shown two boards at once, so that it knows its turn and its tilt apart.",
    method: "static",
    setups: [
      {
        id: "first",
        name: "first place",
        targets: [
          {
            id: "first",
            name: "first place",
            kind: "board",
            object: { code: "HQ-14", widthMm: 1100, version: 2 },
            datum: "centreline",
            distanceFrom: "camera",
            placement: { alongMm: 3400, acrossMm: -1180, twistDeg: 0, heightMm: 1190 },
            tolerance: { alongMm: 15, acrossMm: 15, twistDeg: 0.6, heightMm: 8 },
          },
          {
            id: "left",
            name: "the left place",
            kind: "board",
            object: { code: "HQ-17", widthMm: 1250 },
            datum: "centreline",
            distanceFrom: "camera",
            placement: { alongMm: 3400, acrossMm: 1180, twistDeg: 0, heightMm: 1190 },
            tolerance: { alongMm: 15, acrossMm: 15, twistDeg: 0.6, heightMm: 8 },
          },
        ],
      },
    ],
    cautions: CAUTIONS,
    ready: READY.filter((r) => ["baseline-scan", "maintainer", "light"].includes(r.id)),
    run: [
      {
        id: "ign-on",
        kind: "ignition",
        say: "Ignition on. Do not start the engine.",
        to: "on",
        waitSeconds: 0,
        caution: "Hands away from the fans: they may start without warning.",
      },
      {
        id: "to-left",
        kind: "position",
        say: "Bring a second stand to the left place and hang the bars.",
        to: "left",
        caution: "Two stands before the car: mind their feet.",
      },
      { id: "lamps", kind: "prompt", say: "Headlamps on, low beam.", wants: "lamps-on" },
      {
        id: "learn",
        kind: "routine",
        say: "Let the camera look at both boards. Nobody walks through its view.",
        routine: "forward-camera-static",
        minQuality: 75,
      },
    ],
    prove: PROVE,
  },
  SURROUND,
  TRAILER,
  TRAILER_MAT,
  ...MIRRORS,
  ...RADARS,
  ...AROUND,
];
