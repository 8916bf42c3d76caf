import { z } from "zod";
import { eventIdSchema } from "@/core/owed/schema";
import { problemsIn, type Draft, type Problem } from "@/core/book";
import { FIRST_PLACE } from "./first-place";
import { doubtfulFigures } from "./magnitude";

const id = z.string().regex(/^[a-z0-9-]+$/, "use lower-case letters, figures and dashes");
const isoDate = z.iso.date();
const say = z.string().min(3).max(240);

const step = z.discriminatedUnion("kind", [
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
  /** A number the routine asks the technician for; plausible range in millimetres. */
  z.object({ id, kind: z.literal("input"), say, name: say, minMm: z.number(), maxMm: z.number() }),
  /**
   * The routine itself: the vehicle looks at the board and answers with a result and a quality
   * figure.
   */
  z.object({
    id,
    kind: z.literal("routine"),
    say,
    routine: z.literal("forward-camera-static"),
    minQuality: z.number().min(0).max(100),
    caution: say.optional(),
  }),
]);

/**
 * The board of a place; the side where it matters, and the version of its print where the source
 * names one.
 */
const board = z.object({
  code: z.string().min(1),
  widthMm: z.number().min(200).max(4000),
  side: z.enum(["left", "right"]).optional(),
  version: z.number().int().min(1).optional(),
});

/**
 * Where the centre of the board belongs. `acrossMm` positive to vehicle left; height above the
 * floor.
 */
const placement = z.object({
  alongMm: z.number().min(300).max(12000),
  acrossMm: z.number().min(-4000).max(4000),
  twistDeg: z.number().min(-45).max(45),
  heightMm: z.number().min(100).max(3000),
});

const ask = z.object({ id, ask: say, why: say });

/** A readiness item that is measured, with what the sheet allows. */
const measure = z.discriminatedUnion("kind", [
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
]);
export type Measure = z.infer<typeof measure>;

/**
 * A procedure sheet: what the shop's own current service information says about one calibration,
 * written down once by the shop, checked by a second person, and never changed again; a new version
 * is a new document.
 */
export const sheetSchema = z
  .object({
    format: z.literal("iridel.sheet/1"),
    id,
    version: z.number().int().min(1),
    title: z.string().min(3).max(120),
    source: z.object({
      name: z.string().min(3),
      date: isoDate,
      enteredBy: z.string().min(1),
      checkedBy: z.string().min(1),
      checkedOn: isoDate,
    }),
    appliesTo: z.object({
      vehicles: z.array(id).min(1),
      system: z.enum(["forward-camera"]),
      after: z.array(eventIdSchema).min(1),
    }),
    /** One sentence a customer understands: why this is owed. */
    reason: say,
    kind: z.enum(["static", "static-then-dynamic"]),
    /** The line the board is placed on and squared to. */
    datum: z.enum(["centreline", "rear-axle-normal", "thrust"]),
    distanceFrom: z.enum(["front-hub-line", "front-badge", "bumper-face", "camera"]),
    board,
    placement,
    /**
     * What lean and level of the board count from: plumb (when it is not said), or square to the
     * plane the vehicle stands on.
     */
    upright: z.enum(["plumb", "vehicle-plane"]).optional(),
    /** Places after the first, in any number: another offset, another distance, a second board. */
    positions: z
      .array(
        z.object({
          id,
          name: say,
          placement,
          board: board.optional(),
          /**
           * The boards of the places before stay where they stand; another stand carries this one.
           */
          beside: z.literal(true).optional(),
        }),
      )
      .max(6)
      .optional(),
    /** Half-widths of what is allowed, each side of the placement. */
    tolerance: z.object({
      alongMm: z.number().min(0.5).max(200),
      acrossMm: z.number().min(0.5).max(200),
      twistDeg: z.number().min(0.02).max(10),
      heightMm: z.number().min(0.5).max(200),
      pitchDeg: z.number().min(0.02).max(10).optional(),
      rollDeg: z.number().min(0.02).max(10).optional(),
    }),
    cautions: z.array(say),
    ready: z.array(ask.extend({ measure: measure.optional() })),
    run: z.array(step).min(1),
    prove: z.array(ask),
  })
  .superRefine((sheet, ctx) => {
    if (sheet.source.checkedBy === sheet.source.enteredBy)
      ctx.addIssue({
        code: "custom",
        path: ["source", "checkedBy"],
        message: "must be a second person, not the one who entered the sheet",
      });
    if (!sheet.run.some((s) => s.kind === "routine"))
      ctx.addIssue({ code: "custom", path: ["run"], message: "must contain the routine itself" });
    if (sheet.upright === "vehicle-plane") {
      const message = "is needed: the board is to stand square to the vehicle's plane";
      for (const part of ["pitchDeg", "rollDeg"] as const)
        if (sheet.tolerance[part] === undefined)
          ctx.addIssue({ code: "custom", path: ["tolerance", part], message });
      if (!sheet.ready.some((r) => r.measure?.kind === "floor"))
        ctx.addIssue({
          code: "custom",
          path: ["ready"],
          message: "must measure the floor: the board is to stand square to the vehicle's plane",
        });
    }
    const places = (sheet.positions ?? []).map((p) => p.id);
    places.forEach((p, i) => {
      if (p === FIRST_PLACE || places.indexOf(p) !== i)
        ctx.addIssue({
          code: "custom",
          path: ["positions", i, "id"],
          message: `is used twice: "${p}"`,
        });
      if (!sheet.run.some((s) => s.kind === "position" && s.to === p))
        ctx.addIssue({
          code: "custom",
          path: ["positions", i],
          message: "no step of the routine moves the board there",
        });
    });
    sheet.run.forEach((s, i) => {
      if (s.kind === "position" && s.to !== FIRST_PLACE && !places.includes(s.to))
        ctx.addIssue({
          code: "custom",
          path: ["run", i, "to"],
          message: `names a place the sheet does not have: "${s.to}"`,
        });
    });
    const seen = new Set<string>();
    sheet.run.forEach((s, i) => {
      if (seen.has(s.id))
        ctx.addIssue({
          code: "custom",
          path: ["run", i, "id"],
          message: `is used twice: "${s.id}"`,
        });
      seen.add(s.id);
      if (s.kind === "compare" && s.min > s.max)
        ctx.addIssue({ code: "custom", path: ["run", i, "min"], message: "is above max" });
      if (s.kind === "input" && s.minMm >= s.maxMm)
        ctx.addIssue({ code: "custom", path: ["run", i, "minMm"], message: "must be below maxMm" });
    });
  });

export type Sheet = z.infer<typeof sheetSchema>;
export type SheetStep = Sheet["run"][number];

/** The sheet's published JSON Schema (draft 2020-12). */
export const sheetJsonSchema = (): object => z.toJSONSchema(sheetSchema);

const problemsOf = (error: z.ZodError): Problem[] => problemsIn(error, "sheet");

/** Reads a sheet, or says which field is wrong and how: "tolerance.alongMm: ...". */
export function readSheet(
  json: unknown,
): { ok: true; sheet: Sheet } | { ok: false; problems: string[] } {
  const result = sheetSchema.safeParse(json);
  if (result.success) return { ok: true, sheet: result.data };
  return { ok: false, problems: problemsOf(result.error).map((p) => `${p.field}: ${p.message}`) };
}

/** Stands in for the second person while a draft is looked over; never stored. */
const UNSIGNED = { checkedBy: "(not checked yet)", checkedOn: "2000-01-01" };

/**
 * Everything that keeps a draft from being checked: fields the schema refuses, and figures that
 * cannot be meant. The second person's own signature is not asked for here.
 */
export function draftProblems(draft: Draft): Problem[] {
  const source = typeof draft.source === "object" && draft.source !== null ? draft.source : {};
  const parsed = sheetSchema.safeParse({ ...draft, source: { ...source, ...UNSIGNED } });
  // A figure in the wrong unit is better explained than by the schema's bare limits.
  const doubts = doubtfulFigures(draft);
  const doubted = new Set(doubts.map((d) => d.field));
  const refused = parsed.success
    ? []
    : problemsOf(parsed.error).filter((p) => !doubted.has(p.field));
  return [...doubts.map(({ field, message }) => ({ field, message })), ...refused];
}

/**
 * The draft with the second person's signature, as it goes into the shop's book. @throws when it
 * has problems left
 */
export function signSheet(
  draft: Draft,
  version: number,
  checkedBy: string,
  checkedOn: string,
): Sheet {
  const problems = draftProblems(draft);
  if (problems.length > 0) throw new Error(`${problems[0]!.field}: ${problems[0]!.message}`);
  return sheetSchema.parse({
    ...draft,
    version,
    source: { ...(draft.source as object), checkedBy, checkedOn },
  });
}
