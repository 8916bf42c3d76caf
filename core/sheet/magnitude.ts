/** A figure of a sheet that cannot be meant: which field, why, and what was probably meant. */
export type Doubt = { field: string; message: string; likely: number | null };

type Expectation = { field: string; min: number; max: number; unit: "mm" | "deg" };

type Part = Partial<Record<string, unknown>>;
/** The figures of a target, as far as they are there: a draft may lack any of them. */
type Figures = { [K in "placement" | "tolerance" | "object"]?: Part };

/**
 * What boards, bays and tolerances really measure. Tighter than the schema: the schema says
 * possible, this says meant.
 */
const EXPECTED: Expectation[] = [
  { field: "placement.alongMm", min: 600, max: 9000, unit: "mm" },
  { field: "placement.heightMm", min: 250, max: 2600, unit: "mm" },
  { field: "object.widthMm", min: 250, max: 3600, unit: "mm" },
  { field: "tolerance.alongMm", min: 1.5, max: 120, unit: "mm" },
  { field: "tolerance.acrossMm", min: 1.5, max: 120, unit: "mm" },
  { field: "tolerance.heightMm", min: 1.5, max: 80, unit: "mm" },
  { field: "tolerance.twistDeg", min: 0.05, max: 4, unit: "deg" },
  { field: "tolerance.pitchDeg", min: 0.05, max: 4, unit: "deg" },
  { field: "tolerance.rollDeg", min: 0.05, max: 4, unit: "deg" },
];

const OTHER_UNITS = [
  { name: "metres", toMm: 1000 },
  { name: "centimetres", toMm: 10 },
  { name: "inches", toMm: 25.4 },
] as const;

/**
 * Finds figures typed in another unit than the sheet's millimetres and degrees: metres, centimetres
 * or inches for millimetres, arc minutes or radians for degrees. A figure is doubted when it lies
 * outside what is ever meant.
 */
export function doubtfulFigures(sheet: { setups?: unknown }): Doubt[] {
  const list = (v: unknown): Part[] =>
    Array.isArray(v) ? (v as (Part | null)[]).map((x) => x ?? {}) : [];
  return list(sheet.setups).flatMap((setup, i) =>
    list(setup.targets).flatMap((target, j) =>
      doubtsOf(target as Figures).map((d) => ({
        ...d,
        field: `setups.${i}.targets.${j}.${d.field}`,
      })),
    ),
  );
}

/** What mats measure; their twist and cross line are limited as those of boards. */
const EXPECTED_OF_MATS: Expectation[] = [
  { field: "object.widthMm", min: 250, max: 5200, unit: "mm" },
  { field: "object.lengthMm", min: 400, max: 9000, unit: "mm" },
  ...EXPECTED.filter((e) =>
    ["tolerance.alongMm", "tolerance.acrossMm", "tolerance.twistDeg"].includes(e.field),
  ),
];

/** A reflector is small, and may stand low. */
const EXPECTED_OF_REFLECTORS: Expectation[] = [
  { field: "placement.alongMm", min: 600, max: 9000, unit: "mm" },
  { field: "placement.heightMm", min: 150, max: 1600, unit: "mm" },
  { field: "object.widthMm", min: 80, max: 900, unit: "mm" },
  ...EXPECTED.filter((e) => e.field.startsWith("tolerance.")),
];

/** A board behind the vehicle counts backward; one beside it stands off by what it lies across. */
function expectedOfBoards(stands: unknown): Expectation[] {
  const [along, ...others] = EXPECTED;
  if (stands === "behind") return [{ ...along!, min: -along!.max, max: -along!.min }, ...others];
  if (stands !== "left" && stands !== "right") return EXPECTED;
  const [min, max] = stands === "left" ? [600, 4000] : [-4000, -600];
  return [{ field: "placement.acrossMm", min, max, unit: "mm" }, ...others];
}

/** A floor mark lies within a lorry's length of its hub, and is drawn to a few millimetres. */
const EXPECTED_OF_MARKS: Expectation[] = EXPECTED.filter((e) =>
  ["tolerance.alongMm", "tolerance.acrossMm"].includes(e.field),
);

function doubtsOf(target: Figures & { kind?: unknown; stands?: unknown }): Doubt[] {
  const expected =
    target.object?.is === "reflector"
      ? EXPECTED_OF_REFLECTORS
      : target.kind === "mark"
        ? EXPECTED_OF_MARKS
        : target.kind === "mat"
          ? EXPECTED_OF_MATS
          : expectedOfBoards(target.stands);
  return expected.flatMap(({ field, min, max, unit }): Doubt[] => {
    const [part, name] = field.split(".") as ["placement" | "tolerance" | "object", string];
    const value = target[part]?.[name];
    if (typeof value !== "number" || !Number.isFinite(value)) return [];
    if (value >= min && value <= max) return [];
    const candidates =
      unit === "mm"
        ? OTHER_UNITS.map((u) => ({ name: u.name, value: value * u.toMm }))
        : [
            { name: "arc minutes", value: value / 60 },
            { name: "radians", value: (value * 180) / Math.PI },
          ];
    const meant = candidates.find((c) => c.value >= min && c.value <= max);
    const likely = meant ? Math.round(meant.value * 100) / 100 : null;
    const symbol = unit === "mm" ? " mm" : "°";
    return [
      {
        field,
        likely,
        message: `${value}${symbol} cannot be meant; it lies between ${min} and ${max}${symbol}.${meant ? ` Typed in ${meant.name}? That would be ${likely}${symbol}.` : ""}`,
      },
    ];
  });
}
