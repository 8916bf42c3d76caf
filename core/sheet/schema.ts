import { z } from "zod";
import { plainly, problemsIn, type Draft, type Problem } from "@/core/book";
import { driveRulesSchema } from "@/core/drive/rules";
import { doubtfulFigures } from "./magnitude";
import {
  appliesTo,
  board,
  caution,
  datum,
  distanceFrom,
  frame,
  id,
  lies,
  mark,
  markPlacement,
  mat,
  matPlacement,
  matTolerance,
  measuredTo,
  method,
  placement,
  proveItem,
  readyItem,
  relation,
  say,
  sideLine,
  sourceMaybeChecked,
  stands,
  step,
  tolerance,
  upright,
  type Measure,
} from "./parts";
import { standsAlong } from "./along";
import { ownLimit, ownLimitProblems } from "./own-limit";
import { upcastSheet } from "./upcast";

const inDatum = { id, name: say, frame, datum, distanceFrom };

/**
 * A board: its pose has six parts, along, across and twist in the floor's plan, height, lean and
 * level. Several may hang on one beam, each where the beam's rail scale says.
 */
const boardTarget = z.object({
  ...inDatum,
  kind: z.literal("board"),
  object: board,
  stands,
  placement,
  measuredTo,
  upright,
  tolerance,
  /** Its tolerance is the shop's own, because the source names none. */
  ownLimit: ownLimit.optional(),
  /** It shares the beam of its sheet's other such boards; where the middle of the beam belongs. */
  beam: z.object({ acrossMm: z.number().min(-4000).max(4000) }).optional(),
});

/** A mat on the floor: along and across of its cross line's middle, and its heading. */
const matTarget = z.object({
  ...inDatum,
  kind: z.literal("mat"),
  object: mat,
  /** Where about the vehicle; beside it where it is not said. */
  lies,
  placement: matPlacement,
  tolerance: matTolerance,
});

/** A cross on the floor, measured along the line through the hubs of its own side. */
const markTarget = z.object({
  id,
  name: say,
  kind: z.literal("mark"),
  datum: z.literal("side-line").default("side-line"),
  distanceFrom: z.literal("line-hub").default("line-hub"),
  line: sideLine,
  object: mark,
  placement: markPlacement,
  tolerance: tolerance.pick({ alongMm: true, acrossMm: true }),
});

/** What has to be at a pose in the datum of a frame. */
const target = z.discriminatedUnion("kind", [boardTarget, matTarget, markTarget]);

/** The targets that stand at the same time, and what they have to be to each other. */
const setup = z.object({
  id,
  name: say,
  targets: z.array(target).min(1).max(6),
  relations: z.array(relation).max(6).optional(),
});

/**
 * A procedure sheet: what the shop's own current service information says about one calibration,
 * written down once by the shop, checked by a second person, and never changed again; a new version
 * is a new document. Its setups follow each other; the targets of one setup stand together.
 */
const written = z
  .object({
    format: z.literal("iridel.sheet/2"),
    id,
    version: z.number().int().min(1),
    /** Whether a second person has compared every figure with the source. */
    status: z.enum(["checked", "provisional"]),
    title: z.string().min(3).max(120),
    source: sourceMaybeChecked,
    appliesTo,
    /** One sentence a customer understands: why this is owed. */
    reason: say,
    method,
    setups: z.array(setup).max(7),
    cautions: z.array(caution),
    ready: z.array(readyItem),
    run: z.array(step).min(1),
    prove: z.array(proveItem),
    /** What is asked of the drive it is learned on; absent where the source does not say it in figures. */
    drive: driveRulesSchema.optional(),
  })
  .superRefine((sheet, ctx) => {
    const wrong = (path: (string | number)[], message: string): void =>
      ctx.addIssue({ code: "custom", path, message });
    if (sheet.status === "checked" && !(sheet.source.checkedBy && sheet.source.checkedOn))
      wrong(["source", "checkedBy"], "is needed: a second person compares it with the source");
    if (sheet.source.checkedBy === sheet.source.enteredBy)
      wrong(["source", "checkedBy"], "must be a second person, not the one who entered the sheet");
    if (sheet.drive && sheet.method === "static")
      wrong(["drive"], "is for a sheet with a drive: choose its method, or leave the drive out");
    const looks = sheet.run.findIndex((s) => s.kind === "routine");
    if (sheet.method === "dynamic" && looks >= 0)
      wrong(
        ["run", looks],
        "is of the bay: what is learned on the road begins with a prompt instead",
      );
    if (sheet.method !== "dynamic" && !sheet.run.some((s) => s.kind === "routine" && !s.only))
      wrong(["run"], "must contain the routine itself");
    // A trailer's camera looks at its own trailer: what stands in line is the target.
    const bare = sheet.appliesTo.system === "trailer-camera";
    if (sheet.method === "dynamic" ? sheet.setups.length > 0 : !bare && sheet.setups.length === 0)
      wrong(
        ["setups"],
        sheet.method === "dynamic"
          ? "must be left out: what is learned on the road alone sets nothing out"
          : "needs at least one target",
      );

    const places = sheet.setups.flatMap((s, i) =>
      s.targets.map((t, j) => ({ target: t, nth: j, at: ["setups", i, "targets", j] })),
    );
    const ids = places.map((p) => p.target.id);
    for (const [n, { target: t, nth, at }] of places.entries()) {
      if (ids.indexOf(t.id) !== n) wrong([...at, "id"], `is used twice: "${t.id}"`);
      // The first stands before the routine begins; every other one waits for its step.
      const comesAlong = nth > 0 && standsAlong(t);
      if (n > 0 && !comesAlong && !sheet.run.some((s) => s.kind === "position" && s.to === t.id))
        wrong(at, "no step of the routine moves the board there");
      if (t.kind === "mat" && t.object.aheadMm > t.object.lengthMm)
        wrong([...at, "object", "aheadMm"], "is more than the mat is long");
      if (t.kind === "mark" && t.placement.acrossMm * (t.object.side === "left" ? 1 : -1) < 0)
        wrong([...at, "placement", "acrossMm"], `does not lie on vehicle ${t.object.side}`);
      if (t.kind === "mat" && lieProblem(t)) wrong([...at, "placement", "alongMm"], lieProblem(t)!);
      const reflects = t.kind === "board" && t.object.is === "reflector";
      if (reflects !== (sheet.appliesTo.system === "front-radar"))
        wrong(
          [...at, "object", "is"],
          reflects ? "is looked at by a radar only" : "must be a reflector: a radar sees no print",
        );
      const towed = t.kind !== "mark" && t.frame === "trailer";
      if (towed !== (sheet.appliesTo.system === "trailer-camera"))
        wrong(
          [...at, "frame"],
          towed
            ? "is of a trailer’s camera only"
            : "must be the trailer: its camera looks at what lies or stands behind it",
        );
      if (towed && (t.kind === "mat" ? t.lies : t.stands) !== "behind")
        wrong([...at, t.kind === "mat" ? "lies" : "stands"], "must be behind the trailer");
      if (towed && (t.datum !== "rear-axle-normal" || t.distanceFrom !== "rear-hub-line"))
        wrong(
          [...at, "distanceFrom"],
          "must be the rear hub line, square to the axle: a trailer has no other marks",
        );
      if (t.kind === "board")
        for (const [field, message] of standProblems(t)) wrong([...at, ...field], message);
      if (t.kind !== "board" || t.upright !== "vehicle-plane") continue;
      const message = "is needed: the board is to stand square to the vehicle's plane";
      for (const part of ["pitchDeg", "rollDeg"] as const)
        if (t.tolerance[part] === undefined) wrong([...at, "tolerance", part], message);
      if (!sheet.ready.some((r) => r.measure?.kind === "floor"))
        wrong(
          ["ready"],
          "must measure the floor: the board is to stand square to the vehicle's plane",
        );
    }
    sheet.setups.forEach((s, i) =>
      relationProblems(s, (path, m) => wrong(["setups", i, ...path], m)),
    );
    const seen = new Set<string>();
    sheet.run.forEach((s, i) => {
      if (s.kind === "position" && !ids.includes(s.to))
        wrong(["run", i, "to"], `names a place the sheet does not have: "${s.to}"`);
      if (seen.has(s.id)) wrong(["run", i, "id"], `is used twice: "${s.id}"`);
      seen.add(s.id);
      if (s.kind === "compare" && s.min > s.max) wrong(["run", i, "min"], "is above max");
      const before = sheet.run.slice(0, i);
      const turned = before.findLast((b) => b.kind === "ignition");
      if (s.kind === "hold" && (turned?.kind !== "ignition" || turned.to === "off"))
        wrong(["run", i], "needs the ignition on before it: the time counts from there");
      if (s.kind === "compare" && (s.unit === "deg") !== s.value.startsWith("stored-"))
        wrong(["run", i, "unit"], "must be deg for a stored angle, and for nothing else");
      if (s.kind === "choose" && new Set(s.options.map((o) => o.id)).size < s.options.length)
        wrong(["run", i, "options"], "names one option twice");
      if (s.kind === "input" && s.minMm >= s.maxMm)
        wrong(["run", i, "minMm"], "must be below maxMm");
      if (s.kind === "routine" && !ROUTINES[sheet.appliesTo.system].includes(s.routine))
        wrong(["run", i, "routine"], "is the routine of another system");
      if (s.kind === "aim") {
        const aimedAt = places.find((p) => p.target.id === s.mark)?.target;
        if (aimedAt?.kind !== "mark")
          wrong(["run", i, "mark"], `names no floor mark of the sheet: "${s.mark}"`);
        else if (aimedAt.object.side !== s.side)
          wrong(["run", i, "mark"], `lies on vehicle ${aimedAt.object.side}, not ${s.side}`);
      }
    });
    // One camera alone would leave the driver two displays that differ.
    if (sheet.appliesTo.system === "mirror-camera")
      for (const side of ["left", "right"] as const)
        if (!sheet.run.some((s) => s.kind === "aim" && s.side === side && !s.only))
          wrong(
            ["run"],
            `must aim the camera on vehicle ${side} too: both sides are done together`,
          );
  });

type Written = z.infer<typeof written>;
type BoardTarget = z.infer<typeof boardTarget>;
type MatTarget = z.infer<typeof matTarget>;
type MarkTarget = z.infer<typeof markTarget>;

/** Any target as the arithmetic sees it: what one kind does not have is not there. */
export type Target = Pick<BoardTarget, "id" | "name" | "placement"> & {
  kind: "board" | "mat" | "mark";
  datum: (BoardTarget | MarkTarget)["datum"];
  distanceFrom: (BoardTarget | MarkTarget)["distanceFrom"];
  object: Partial<MatTarget["object"]> & BoardTarget["object"];
  tolerance: Partial<BoardTarget["tolerance"]>;
} & Partial<Pick<BoardTarget, "upright" | "measuredTo" | "beam" | "ownLimit" | "stands">> &
  Partial<Pick<MatTarget, "lies" | "frame">> &
  Partial<Pick<MarkTarget, "line">>;
export type Setup = Omit<Written["setups"][number], "targets"> & { targets: Target[] };
export type Sheet = Omit<Written, "setups"> & { setups: Setup[] };
/** One thing to be checked, before the work or after it. */
export type CheckItem = Omit<Written["ready"][number], "measure"> & {
  measure?: Measure | undefined;
};
export type SheetStep = Written["run"][number];

/** {@link written}, read as the arithmetic sees it. */
export const sheetSchema: z.ZodType<Sheet> = written;

/** A mat that lies ahead of the vehicle or behind it, and a place that says otherwise. */
function lieProblem({ lies: where, placement, distanceFrom: from }: MatTarget): string | null {
  if (where === "ahead" && (placement.alongMm <= 0 || from === "rear-hub-line"))
    return "must count ahead from the front of the vehicle: the mat lies ahead of it";
  if (where === "behind" && (placement.alongMm >= 0 || from !== "rear-hub-line"))
    return "must count behind the rear hub line, negative: the mat lies behind it";
  return null;
}

/** Nearer than this to what it counts from no board stands, mm. */
const NEAREST_MM = 300;
const FROM_REAR: readonly BoardTarget["distanceFrom"][] = [
  "rear-hub-line",
  "rear-badge",
  "rear-face",
];

/** A board's place that is not where it says it stands: field and message of each. */
function standProblems(t: BoardTarget): [string[], string][] {
  const { stands: where = "ahead", placement, distanceFrom: from } = t;
  const least = `at least ${NEAREST_MM} mm`;
  const found: [string[], string][] = [];
  if (where === "ahead" && placement.alongMm < NEAREST_MM)
    found.push([["placement", "alongMm"], `is ${least}: the board stands ahead of the vehicle`]);
  if (where === "behind" && placement.alongMm > -NEAREST_MM)
    found.push([
      ["placement", "alongMm"],
      `is negative, ${least} behind: the board stands behind the vehicle`,
    ]);
  if (where === "behind" && !FROM_REAR.includes(from))
    found.push([["distanceFrom"], "must be at the rear: the board stands behind the vehicle"]);
  const out = where === "left" ? placement.acrossMm : -placement.acrossMm;
  if ((where === "left" || where === "right") && out < NEAREST_MM)
    found.push([
      ["placement", "acrossMm"],
      `does not lie ${least} to vehicle ${where}, where the board stands`,
    ]);
  if (where === "ahead") return found;
  if (t.beam) found.push([["beam"], "is for boards ahead of the vehicle only"]);
  if (t.measuredTo?.along)
    found.push([["measuredTo", "along"], "is for boards ahead of the vehicle only"]);
  if (t.object.is)
    found.push([["object", "is"], "stands ahead of the vehicle: a radar looks forward"]);
  return found;
}

/** The routine of each system. */
const ROUTINES: Record<
  Written["appliesTo"]["system"],
  readonly Extract<Written["run"][number], { kind: "routine" }>["routine"][]
> = {
  "forward-camera": ["forward-camera-static"],
  "surround-view": ["surround-view-static"],
  "trailer-camera": ["trailer-camera-static"],
  "mirror-camera": ["mirror-camera-static"],
  "rear-camera": ["rear-camera-static"],
  "side-camera": ["side-camera-static"],
  "front-radar": ["front-radar-static"],
};

/** What is wrong with what the targets of a setup have to be to each other. */
function relationProblems(
  setup: Pick<Written["setups"][number], "targets" | "relations">,
  wrong: (path: (string | number)[], message: string) => void,
): void {
  const ids = setup.targets.map((t) => t.id);
  setup.relations?.forEach((r, k) => {
    r.of.forEach((of, n) => {
      if (!ids.includes(of))
        wrong(["relations", k, "of", n], `names no target of its setup: "${of}"`);
    });
    if (r.of[0] === r.of[1]) wrong(["relations", k, "of"], "must name two targets");
    if (r.kind === "spacing" && r.minMm >= r.maxMm)
      wrong(["relations", k, "minMm"], "must be below maxMm");
    if (setup.relations!.findIndex((x) => x.id === r.id) !== k)
      wrong(["relations", k, "id"], `is used twice: "${r.id}"`);
  });
}

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
  const own = ownLimitsIn(now);
  const doubts = doubtfulFigures(now).filter((d) => !own.some((p) => p.field === d.field));
  const doubted = new Set(doubts.map((d) => d.field));
  const refused = parsed.success
    ? []
    : problemsOf(parsed.error).filter((p) => !doubted.has(p.field));
  return [...doubts.map(({ field, message }) => ({ field, message })), ...own, ...refused];
}

/** What is wrong with limits that a draft says come from the road. */
function ownLimitsIn({ setups }: Draft): Problem[] {
  const list = (v: unknown): unknown[] => (Array.isArray(v) ? (v as unknown[]) : []);
  return list(setups).flatMap((setup, i) =>
    list((setup as { targets?: unknown } | null)?.targets).flatMap((target, j) =>
      ownLimitProblems(target ?? {}, `setups.${i}.targets.${j}`),
    ),
  );
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
