import { z } from "zod";
import { plainly, problemsIn, type Draft, type Problem } from "@/core/book";
import { doubtfulFigures } from "./magnitude";
import {
  appliesTo,
  ask,
  board,
  caution,
  datum,
  distanceFrom,
  id,
  measuredTo,
  method,
  placement,
  readyItem,
  say,
  source,
  step,
  tolerance,
  upright,
} from "./parts";
import { upcastSheet } from "./upcast";

/**
 * A target: what has to be at a pose in the datum of a frame. Here a board, whose pose has six
 * parts: along, across and twist in the floor's plan, height, lean and level.
 */
const target = z.object({
  id,
  name: say,
  kind: z.literal("board"),
  object: board,
  datum,
  distanceFrom,
  placement,
  measuredTo,
  upright,
  tolerance,
});

/** The targets that stand at the same time. */
const setup = z.object({ id, name: say, targets: z.array(target).min(1).max(6) });

/**
 * A procedure sheet: what the shop's own current service information says about one calibration,
 * written down once by the shop, checked by a second person, and never changed again; a new version
 * is a new document. Its setups follow each other; the targets of one setup stand together.
 */
export const sheetSchema = z
  .object({
    format: z.literal("iridel.sheet/2"),
    id,
    version: z.number().int().min(1),
    /** Whether a second person has compared every figure with the source. */
    status: z.enum(["checked", "provisional"]),
    title: z.string().min(3).max(120),
    source,
    appliesTo,
    /** One sentence a customer understands: why this is owed. */
    reason: say,
    method,
    setups: z.array(setup).min(1).max(7),
    cautions: z.array(caution),
    ready: z.array(readyItem),
    run: z.array(step).min(1),
    prove: z.array(ask),
  })
  .superRefine((sheet, ctx) => {
    const wrong = (path: (string | number)[], message: string): void =>
      ctx.addIssue({ code: "custom", path, message });
    if (sheet.source.checkedBy === sheet.source.enteredBy)
      wrong(["source", "checkedBy"], "must be a second person, not the one who entered the sheet");
    if (!sheet.run.some((s) => s.kind === "routine"))
      wrong(["run"], "must contain the routine itself");

    const places = sheet.setups.flatMap((s, i) =>
      s.targets.map((t, j) => ({ target: t, at: ["setups", i, "targets", j] })),
    );
    const ids = places.map((p) => p.target.id);
    for (const [n, { target: t, at }] of places.entries()) {
      if (ids.indexOf(t.id) !== n) wrong([...at, "id"], `is used twice: "${t.id}"`);
      // The first stands before the routine begins; every other one waits for its step.
      if (n > 0 && !sheet.run.some((s) => s.kind === "position" && s.to === t.id))
        wrong(at, "no step of the routine moves the board there");
      if (t.upright !== "vehicle-plane") continue;
      const message = "is needed: the board is to stand square to the vehicle's plane";
      for (const part of ["pitchDeg", "rollDeg"] as const)
        if (t.tolerance[part] === undefined) wrong([...at, "tolerance", part], message);
      if (!sheet.ready.some((r) => r.measure?.kind === "floor"))
        wrong(
          ["ready"],
          "must measure the floor: the board is to stand square to the vehicle's plane",
        );
    }
    const seen = new Set<string>();
    sheet.run.forEach((s, i) => {
      if (s.kind === "position" && !ids.includes(s.to))
        wrong(["run", i, "to"], `names a place the sheet does not have: "${s.to}"`);
      if (seen.has(s.id)) wrong(["run", i, "id"], `is used twice: "${s.id}"`);
      seen.add(s.id);
      if (s.kind === "compare" && s.min > s.max) wrong(["run", i, "min"], "is above max");
      if (s.kind === "input" && s.minMm >= s.maxMm)
        wrong(["run", i, "minMm"], "must be below maxMm");
    });
  });

export type Sheet = z.infer<typeof sheetSchema>;
export type Setup = Sheet["setups"][number];
export type Target = Setup["targets"][number];
export type SheetStep = Sheet["run"][number];

/** The sheet's published JSON Schema (draft 2020-12). */
export const sheetJsonSchema = (): object => z.toJSONSchema(sheetSchema);

const problemsOf = (error: z.ZodError): Problem[] => problemsIn(error, "sheet");

/** Reads a sheet, or says which field is wrong and how: "tolerance.alongMm: ...". */
export function readSheet(
  json: unknown,
): { ok: true; sheet: Sheet } | { ok: false; problems: string[] } {
  const result = sheetSchema.safeParse(upcastSheet(json), plainly);
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
  const now = upcastSheet(draft) as Draft;
  const source = typeof now.source === "object" && now.source !== null ? now.source : {};
  const parsed = sheetSchema.safeParse(
    {
      ...now,
      status: "provisional",
      source: { ...source, ...UNSIGNED },
    },
    plainly,
  );
  // A figure in the wrong unit is better explained than by the schema's bare limits.
  const doubts = doubtfulFigures(now);
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
  const now = upcastSheet(draft) as Draft;
  return sheetSchema.parse({
    ...now,
    version,
    status: "checked",
    source: { ...(now.source as object), checkedBy, checkedOn },
  });
}
