import { z } from "zod";
import { eventIdSchema } from "@/core/owed/schema";

/** What a sheet is made of, whatever its version. */
export const id = z.string().regex(/^[a-z0-9-]+$/, "use lower-case letters, figures and dashes");
const isoDate = z.iso.date();
export const say = z.string().min(3).max(240);

/** A number the routine asks the technician for; plausible range in millimetres. */
const input1 = z.object({
  id,
  kind: z.literal("input"),
  say,
  name: say,
  minMm: z.number(),
  maxMm: z.number(),
});
const input2 = input1.extend({
  /** What it is the figure of, where it is one that was measured before: it is not typed twice. */
  takes: z
    .enum([
      "arch-front",
      "arch-rear",
      "trailer-length",
      "trailer-camera-height",
      "camera-height-left",
      "camera-height-right",
      "hub-to-board",
      "target-height",
    ])
    .optional(),
});

const stepsWith = <R extends z.ZodType<string>, I extends typeof input1>(routine: R, input: I) =>
  z.discriminatedUnion("kind", [
    /** The technician does something and says so. */
    z.object({ id, kind: z.literal("prompt"), say, caution: say.optional() }),
    /** The ignition is turned; the routine then needs `waitSeconds` of rest before it goes on. */
    z.object({
      id,
      kind: z.literal("ignition"),
      say,
      to: z.enum(["on", "off"]),
      waitSeconds: z.number().min(0).max(1800),
      caution: say.optional(),
    }),
    /**
     * The board goes to another place of the sheet and is set out and proved there before the routine
     * goes on.
     */
    z.object({ id, kind: z.literal("position"), say, to: id, caution: say.optional() }),
    /**
     * A value the vehicle reports, compared with the book. The tool may speak another unit than the
     * book.
     */
    z.object({
      id,
      kind: z.literal("compare"),
      say,
      value: z.enum(["camera-height", "battery-voltage"]),
      unit: z.enum(["mm", "V"]),
      min: z.number(),
      max: z.number(),
    }),
    input,
    /**
     * The routine itself: the vehicle looks at the board and answers with a result and a quality
     * figure.
     */
    z.object({
      id,
      kind: z.literal("routine"),
      say,
      routine,
      minQuality: z.number().min(0).max(100),
      caution: say.optional(),
    }),
  ]);

/** What a step waits for beside what it says; shown as such, and what it endangers with it. */
export const WANTS = {
  "everybody-out": "Everybody out of the vehicle",
  "out-of-sight": "Out of the camera’s sight",
  "lamps-on": "Headlamps on",
  "lamps-off": "Headlamps off",
  "left-and-entered-again": "Out of the routine and in again",
  "maintainer-off": "Maintainer off; its time runs",
} as const;
export type Want = keyof typeof WANTS;

const [prompt1, ignition1, position1, compare1, input, routine] = stepsWith(
  z.enum([
    "forward-camera-static",
    "surround-view-static",
    "trailer-camera-static",
    "mirror-camera-static",
    "rear-camera-static",
    "side-camera-static",
    "front-radar-static",
  ]),
  input2,
).options;

const prompt = prompt1.extend({
  wants: z.enum(Object.keys(WANTS) as [Want, ...Want[]]).optional(),
});
/** `running`: the engine idles; its exhaust has to go somewhere. */
const ignition = ignition1.extend({ to: z.enum(["on", "off", "running"]) });
/** A place the vehicle waits for so long and no longer, counted from when it says so. */
const position = position1.extend({ withinSeconds: z.number().min(20).max(3600).optional() });
/** Angles of its camera as the vehicle has them stored, beside what it compared before. */
const compare = compare1.extend({
  value: z.enum(["camera-height", "battery-voltage", "stored-yaw", "stored-pitch"]),
  unit: z.enum(["mm", "V", "deg"]),
});

/**
 * The routine is entered by holding buttons of the vehicle, within so long of its ignition, for so
 * long. Where they are nobody's program knows: the maker's information says it, and the sheet.
 */
const hold = z.object({
  id,
  kind: z.literal("hold"),
  say,
  withinSeconds: z.number().min(2).max(120),
  forSeconds: z.number().min(0.5).max(60),
  caution: say.optional(),
});

/** The tool asks which target or which stand is used; what the set-out used is answered. */
const choose = z.object({
  id,
  kind: z.literal("choose"),
  say,
  options: z
    .array(
      z.object({
        id,
        name: say,
        board: z.string().max(16).optional(),
        stand: z.string().max(16).optional(),
      }),
    )
    .min(2)
    .max(8),
});

/**
 * A camera is turned by commands of the scan tool until a floor mark stands where it belongs on the
 * scale of its display in the cabin.
 */
const aim = z.object({
  id,
  kind: z.literal("aim"),
  say,
  side: z.enum(["left", "right"]),
  /** The mark that is looked at. */
  mark: id,
  scale: z.object({
    /** The angle that one division next to the middle of the display stands for. */
    divisionDeg: z.number().min(0.02).max(10),
    /** How many divisions there are from the middle to each edge. */
    most: z.number().min(1).max(60),
  }),
  /** Where on the scale the mark belongs, divisions from the middle. */
  at: z.object({ right: z.number().min(-60).max(60), up: z.number().min(-60).max(60) }),
  /** What one command turns the camera by. */
  steps: z.object({ panDeg: z.number().min(0.005).max(3), tiltDeg: z.number().min(0.005).max(3) }),
  /** How many divisions it may be off, each way. */
  within: z.number().min(0.05).max(10),
  caution: say.optional(),
});

/**
 * Pictures that hang at a step: where the switches are, which mark is the centre, a page of the
 * source. Each is named by the SHA-256 of the JPEG the shop keeps.
 */
const pictures = z
  .array(
    z.object({
      photo: z.string().regex(/^[0-9a-f]{64}$/, "must be the name of a kept picture"),
      says: z.string().trim().max(160),
    }),
  )
  .max(4, "four pictures are enough for one step")
  .optional();
export type Picture = NonNullable<z.infer<typeof pictures>>[number];

/** A step that is asked only where one of these was done to the vehicle; always where it is not said. */
const only = z.array(eventIdSchema).min(1).optional();
const more = { pictures, only };

export const step = z.discriminatedUnion("kind", [
  prompt.extend(more),
  ignition.extend(more),
  position.extend(more),
  compare.extend(more),
  input.extend(more),
  routine.extend(more),
  aim.extend(more),
  hold.extend(more),
  choose.extend(more),
]);
/** As it was while a forward camera was all there was. */
export const step1 = stepsWith(z.literal("forward-camera-static"), input1);

/**
 * The board itself; the side where it matters, and the version of its print where the source
 * names one.
 */
export const board = z.object({
  code: z.string().min(1),
  widthMm: z.number().min(60).max(4000),
  side: z.enum(["left", "right"]).optional(),
  version: z.number().int().min(1).optional(),
  /** What it is, where it is no printed board: a radar looks at a corner of metal. */
  is: z.literal("reflector").optional(),
});

/** As it was before anything as small as a reflector was one. */
export const board1 = board.omit({ is: true }).extend({ widthMm: z.number().min(200).max(4000) });

/**
 * A mat on the floor: what its label says, its size, and how far its front end lies ahead of the
 * cross line printed on it. Its arrow points the way the vehicle faces.
 */
export const mat = board.omit({ is: true }).extend({
  lengthMm: z.number().min(300).max(12000),
  aheadMm: z.number().min(0).max(12000),
});

/** The same while every board stood ahead of the vehicle. */
export const placement1 = z.object({
  alongMm: z.number().min(300).max(12000),
  acrossMm: z.number().min(-4000).max(4000),
  twistDeg: z.number().min(-45).max(45),
  heightMm: z.number().min(100).max(3000),
});

/**
 * Where the centre of the board belongs. `alongMm` negative behind what it counts from, `acrossMm`
 * positive to vehicle left; height above the floor.
 */
export const placement = placement1.extend({ alongMm: z.number().min(-12000).max(12000) });

/** Where the cross line of a mat meets its middle; it lies on the floor. */
export const matPlacement = z.object({
  alongMm: z.number().min(-12000).max(12000),
  acrossMm: z.number().min(-6000).max(6000),
  twistDeg: z.number().min(-45).max(45),
  heightMm: z.literal(0).default(0),
});

/**
 * A cross drawn on the floor beside the vehicle: along and across count from the line through the hubs
 * of its side. It has no heading and no label.
 */
export const markPlacement = z.object({
  alongMm: z.number().min(-20000).max(20000),
  acrossMm: z.number().min(-4000).max(4000),
  twistDeg: z.literal(0).default(0),
  heightMm: z.literal(0).default(0),
});
export const mark = z.object({
  code: z.literal("floor mark").default("floor mark"),
  widthMm: z.literal(60).default(60),
  side: z.enum(["left", "right"]),
});
/** An axle by its name: front, rear, or a further one of the vehicle. */
const axle = z.string().regex(/^[a-z0-9]{1,12}$/, "use front, rear or the id of a further axle");
/** The line a mark is measured on runs through these hubs of its side; figures count from the first. */
export const sideLine = z
  .object({ from: axle, through: axle })
  .refine((l) => l.from !== l.through, { path: ["through"], message: "must be another axle" });

/** As it was before pictures hung at it. */
export const ask1 = z.object({ id, ask: say, why: say });
export const ask = ask1.extend({ pictures });

/** The sides of a vehicle where something stands. */
const SIDES = ["ahead", "behind", "left", "right"] as const;
export type BoardSide = (typeof SIDES)[number];

const measures1 = [
  z.object({
    kind: z.literal("pressures"),
    load: z.enum(["half", "full"]),
    toleranceKPa: z.number().min(1).max(60),
  }),
  /**
   * Sizes read off the four tyres: largest difference of overall diameter across an axle, and from
   * the maker's size.
   */
  z.object({
    kind: z.literal("tyres"),
    axlePercent: z.number().min(0.1).max(5),
    nominalPercent: z.number().min(0.5).max(10),
  }),
  /**
   * Free floor before the front bumper and to each side of the centreline, with nothing board-like
   * in it.
   */
  z.object({
    kind: z.literal("clear-zone"),
    aheadMm: z.number().min(500).max(20000),
    sideMm: z.number().min(300).max(10000),
  }),
  z.object({
    kind: z.literal("arches"),
    cameraHeightMm: z.number().min(2).max(100),
    pitchDeg: z.number().min(0.05).max(3),
    rollDeg: z.number().min(0.05).max(3),
  }),
  z.object({
    kind: z.literal("floor"),
    slopeDeg: z.number().min(0.05).max(3),
    twistMm: z.number().min(1).max(40),
  }),
  z.object({ kind: z.literal("fuel"), minShare: z.number().min(0).max(1) }),
  z.object({ kind: z.literal("steering"), maxDeg: z.number().min(0.2).max(20) }),
  z.object({
    kind: z.literal("battery"),
    minVolts: z.number().min(9).max(30),
    minMinutes: z.number().min(1).max(240),
  }),
  z.object({ kind: z.literal("scan") }),
] as const;
/** A readiness item that is measured, with what the sheet allows. */
const measure = z.discriminatedUnion("kind", [
  ...measures1,
  /** Rear toe and thrust, against the vehicle's own limits. */
  z.object({ kind: z.literal("alignment") }),
  /** How nearly tow vehicle and trailer stand in line, from tapes between their hubs. */
  z.object({
    kind: z.literal("articulation"),
    limitDeg: z.number().min(0.1).max(10),
    /** Free floor ahead to pull into. */
    roomMm: z.number().min(0).max(60000),
  }),
  /**
   * Where the cameras at the sides sit, against the vehicle's book: one whose arm or mirror is folded
   * sits lower, higher or nearer to the body.
   */
  z.object({
    kind: z.literal("camera-places"),
    heightMm: z.number().min(2).max(200),
    outMm: z.number().min(2).max(300),
  }),
]);
/** What is read after the routine: the steps at the seams of a picture, or the control units again. */
const measureAfter = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("seams"), limitMm: z.number().min(2).max(200) }),
  /** All control units are read again, and what changed since they were first read has a word. */
  z.object({ kind: z.literal("rescan") }),
  /** Each function of what was calibrated is tried on the road, and its setting put back. */
  z.object({ kind: z.literal("road") }),
  /** The lamps of the dash now, against those that were lit when the vehicle came in. */
  z.object({ kind: z.literal("dash") }),
  /** The unit tests itself by its own routine, and says whether it is content. */
  z.object({ kind: z.literal("self-test") }),
]);
type Written = z.infer<typeof measure> | z.infer<typeof measureAfter>;
type WrittenFloor = Extract<Written, { kind: "floor" }>;
export type Measure =
  | Exclude<Written, WrittenFloor>
  /** With the sides where a job's boards stand, by its sheets; ahead alone where it is not said. */
  | (WrittenFloor & { stands?: readonly BoardSide[] });

/** What a check looks for that would disturb a camera's look. */
const DISTURBERS = ["clutter", "glare", "load"] as const;
export type Disturber = (typeof DISTURBERS)[number];

export const readyItem = ask.extend({
  measure: measure.optional(),
  looksFor: z.enum(DISTURBERS).optional(),
});
export const proveItem = ask.extend({ measure: measureAfter.optional() });
/** As it was before alignment was asked for. */
export const readyItem1 = ask1.extend({
  measure: z.discriminatedUnion("kind", measures1).optional(),
});

/** The line a target is placed on and squared to. */
export const datum = z.enum(["centreline", "rear-axle-normal", "thrust"]);
export const distanceFrom1 = z.enum(["front-hub-line", "front-badge", "bumper-face", "camera"]);
export const distanceFrom = z.enum([
  "front-hub-line",
  "front-badge",
  "bumper-face",
  "camera",
  "rear-hub-line",
  "rear-badge",
  "rear-face",
]);
/** Whose hubs a target is measured from; the vehicle's own where it is not said. */
export const frame = z.literal("trailer").optional();
/** Where a board stands about the vehicle, looking at it; ahead where it is not said. */
export const stands = z.enum(SIDES).optional();
/** Where a mat lies about the vehicle; beside it where it is not said. */
export const lies = z.enum(["beside", "ahead", "behind"]).optional();

/**
 * What lean and level of a board count from: plumb (when it is not said), or square to the plane the
 * vehicle stands on.
 */
export const upright = z.enum(["plumb", "vehicle-plane"]).optional();

/**
 * Which points the figures of a placement are to, where that is not the centre of the board's face:
 * the back of the beam, the figure on the stand's own scale, where the stand's laser comes out.
 */
export const measuredTo = z
  .object({
    along: z.enum(["face", "beam-back"]).optional(),
    height: z.enum(["centre", "scale", "laser"]).optional(),
  })
  .optional();

/** Half-widths of what is allowed, each side of the placement. */
export const tolerance = z.object({
  alongMm: z.number().min(0.5).max(200),
  acrossMm: z.number().min(0.5).max(200),
  twistDeg: z.number().min(0.02).max(10),
  heightMm: z.number().min(0.5).max(200),
  pitchDeg: z.number().min(0.02).max(10).optional(),
  rollDeg: z.number().min(0.02).max(10).optional(),
});

/** The same of a mat; what a relation of two mats limits need not be limited of each. */
export const matTolerance = tolerance
  .pick({ alongMm: true, acrossMm: true, twistDeg: true })
  .partial();

/**
 * What two targets of a setup have to be to each other. Spacing is between their middles, squared to
 * the datum; equal distance is each from the hubs of its own side.
 */
export const relation = z.discriminatedUnion("kind", [
  z.object({
    id,
    kind: z.literal("spacing"),
    of: z.tuple([id, id]),
    minMm: z.number().min(100).max(12000),
    maxMm: z.number().min(100).max(12000),
  }),
  z.object({
    id,
    kind: z.literal("parallel"),
    of: z.tuple([id, id]),
    toleranceDeg: z.number().min(0.02).max(10),
  }),
  z.object({
    id,
    kind: z.literal("equal-distance"),
    of: z.tuple([id, id]),
    toleranceMm: z.number().min(0.5).max(400),
  }),
]);
export type Relation = z.infer<typeof relation>;

/** Where the figures come from, who wrote them down, and the second person who compared them. */
export const source = z.object({
  name: z.string().min(3),
  date: isoDate,
  enteredBy: z.string().min(1),
  checkedBy: z.string().min(1),
  checkedOn: isoDate,
});

/** Of a sheet that was typed on the spot: nobody has compared it yet. */
export const sourceMaybeChecked = source.partial({ checkedBy: true, checkedOn: true });

/** For which vehicles it is, which of their systems, and what work it is owed after. */
export const appliesTo = z.object({
  vehicles: z.array(id).min(1),
  system: z.enum([
    "forward-camera",
    "surround-view",
    "trailer-camera",
    "mirror-camera",
    "rear-camera",
    "side-camera",
    "front-radar",
  ]),
  after: z.array(eventIdSchema).min(1),
});
export const appliesTo1 = appliesTo.extend({ system: z.enum(["forward-camera"]) });

/** Dynamic is learned on the road alone: such a sheet has no setup. */
export const method = z.enum(["static", "static-then-dynamic", "static-or-dynamic", "dynamic"]);
export const method1 = z.enum(["static", "static-then-dynamic"]);

/** When a caution protects somebody: that is when it is shown. */
export const CAUTION_MOMENTS = {
  start: "Before anything else",
  wheels: "Before work at the wheels",
  laser: "While a laser is read",
  lift: "When the board goes up",
} as const;
export type CautionMoment = keyof typeof CAUTION_MOMENTS;

/** One plain line for something that can hurt somebody. */
export const caution = z.object({
  say,
  when: z.enum(Object.keys(CAUTION_MOMENTS) as [CautionMoment, ...CautionMoment[]]),
});
