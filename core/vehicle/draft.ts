import { z } from "zod";
import { plainly, problemsIn, type Draft, type Problem } from "@/core/book";
import { vehicleSchema, type Vehicle } from "./schema";

const UNITS = [
  { name: "metres", toMm: 1000 },
  { name: "centimetres", toMm: 10 },
  { name: "inches", toMm: 25.4 },
] as const;

type Path = readonly PropertyKey[];
const at = (doc: unknown, path: Path): unknown =>
  path.reduce<unknown>(
    (v, k) =>
      typeof v === "object" && v !== null ? (v as Record<PropertyKey, unknown>)[k] : undefined,
    doc,
  );
function put(doc: unknown, [key, ...rest]: Path, value: unknown): unknown {
  if (key === undefined) return value;
  const copy = (Array.isArray(doc) ? [...(doc as unknown[])] : { ...(doc as object) }) as Record<
    PropertyKey,
    unknown
  >;
  copy[key] = put(copy[key], rest, value);
  return copy;
}

/**
 * A length out of its bounds, as it would read in another unit: the first that the schema itself
 * would take.
 */
function likely(doc: unknown, path: Path): string {
  const value = at(doc, path);
  if (typeof value !== "number" || !path.some((k) => String(k).endsWith("Mm"))) return "";
  const name = path.join(".");
  const meant = UNITS.find(
    (u) =>
      !vehicleSchema
        .safeParse(put(doc, path, value * u.toMm))
        .error?.issues.some((i) => i.path.join(".") === name),
  );
  return meant
    ? ` Typed in ${meant.name}? That would be ${Math.round(value * meant.toMm * 10) / 10} mm.`
    : "";
}

/** What no single field can show: dimensions that contradict each other. */
function contradictions(v: Vehicle): Problem[] {
  const rearOverhang = v.lengthMm - v.wheelbaseMm - v.frontOverhangMm;
  const found: [boolean, string, string][] = [
    [
      rearOverhang < 200,
      "lengthMm",
      `leaves ${Math.round(rearOverhang)} mm behind the rear axle: length, wheelbase and front overhang do not fit together.`,
    ],
    [v.trackFrontMm > v.widthMm, "trackFrontMm", "is wider than the vehicle."],
    [v.trackRearMm > v.widthMm, "trackRearMm", "is wider than the vehicle."],
    [Math.abs(v.camera.yMm) > v.widthMm / 2, "camera.yMm", "lies outside the vehicle."],
    [
      v.frontBadge.xMm < v.wheelbaseMm,
      "frontBadge.xMm",
      "lies behind the front axle; it counts from the rear axle.",
    ],
    ...(v.centreMarks ?? []).map((m, i): [boolean, string, string] => [
      m.xMm < v.wheelbaseMm,
      `centreMarks.${i}.xMm`,
      "lies behind the front axle; a laser before the car does not reach it.",
    ]),
    [v.rearBadge.xMm > 0, "rearBadge.xMm", "lies before the rear axle; behind it is negative."],
    [
      v.glass.equivalentParts.includes(v.glass.makerPart),
      "glass.equivalentParts",
      "names the maker’s own part again.",
    ],
  ];
  return found.filter(([wrong]) => wrong).map(([, field, message]) => ({ field, message }));
}

const problemsOf = (doc: unknown, error: z.ZodError): Problem[] =>
  problemsIn(error, "vehicle").map((p, k) => ({
    ...p,
    message: `${p.message}${likely(doc, error.issues[k]!.path)}`,
  }));

/**
 * Everything that keeps a draft from being checked. The second person's own signature is not asked
 * for here.
 */
export function vehicleProblems(draft: Draft): Problem[] {
  const { checked: _, ...rest } = draft;
  const parsed = vehicleSchema.safeParse(rest, plainly);
  return parsed.success ? contradictions(parsed.data) : problemsOf(rest, parsed.error);
}

/** Reads a vehicle from a file, or says which field is wrong and how. */
export function readVehicle(
  json: unknown,
): { ok: true; vehicle: Vehicle } | { ok: false; problems: string[] } {
  const parsed = vehicleSchema.safeParse(json, plainly);
  const problems = parsed.success ? contradictions(parsed.data) : problemsOf(json, parsed.error);
  if (parsed.success && problems.length === 0) return { ok: true, vehicle: parsed.data };
  return { ok: false, problems: problems.map((p) => `${p.field}: ${p.message}`) };
}

/**
 * The draft with the second person's signature, as it goes into the shop's book. @throws when it
 * has problems left
 */
export function signVehicle(
  draft: Draft,
  version: number,
  checkedBy: string,
  checkedOn: string,
): Vehicle {
  const problems = vehicleProblems(draft);
  if (problems.length > 0) throw new Error(`${problems[0]!.field}: ${problems[0]!.message}`);
  const entered = typeof draft.checked === "object" && draft.checked !== null ? draft.checked : {};
  return vehicleSchema.parse({ ...draft, version, checked: { ...entered, checkedBy, checkedOn } });
}

/** The vehicle's published JSON Schema (draft 2020-12). */
export const vehicleJsonSchema = (): object => z.toJSONSchema(vehicleSchema);
