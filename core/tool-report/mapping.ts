import { z } from "zod";
import type { RoutineResult } from "@/core/run";
import type { Field } from "./fields";

/** What of a report is looked for. */
export const FACTS = {
  outcome: "Whether it passed",
  quality: "Quality",
  yaw: "Yaw it learned",
  pitch: "Pitch it learned",
  roll: "Roll it learned",
  reason: "Why it refused",
  vin: "VIN",
} as const;
export type Fact = keyof typeof FACTS;

const label = z.string().trim().min(1).max(80);
const angle = z.object({
  label,
  /** The report's own unit, and whether its plus is the other way from ours. */
  unit: z.enum(["deg", "arcmin", "mrad"]),
  flipped: z.boolean(),
});

/**
 * How a shop's tool names what Iridel asks for: taught once, kept under a name. Plus is to vehicle left
 * for yaw, nose down for pitch, to the right for roll.
 */
export const mappingSchema = z.object({
  id: z.string().regex(/^[a-z0-9-]{1,40}$/),
  name: z.string().trim().min(2, "name the tool").max(60),
  outcome: z.object({
    label,
    /** What it says where the routine passed, as it stands in the report. */
    passed: z.string().trim().min(1).max(60),
  }),
  quality: z.object({ label, of: z.number().positive().max(1000) }).optional(),
  yaw: angle.optional(),
  pitch: angle.optional(),
  roll: angle.optional(),
  reason: z.object({ label }).optional(),
  vin: z.object({ label }).optional(),
});
export type ToolMapping = z.infer<typeof mappingSchema>;

/** The result of a report, and which vehicle it is of where it says so. */
export type ReportRead =
  { ok: true; result: RoutineResult; vin: string | null } | { ok: false; problem: string };

const same = (a: string, b: string): boolean =>
  a.trim().toLocaleLowerCase("en") === b.trim().toLocaleLowerCase("en");

const valueOf = (fields: readonly Field[], name: string): string | null =>
  fields.find((f) => same(f.label, name))?.value ?? null;

/** The first number of a text: "93 %", "-0,42 deg", "quality 0.93". */
function numberIn(text: string): number | null {
  const found = /[-−+]?\d+(?:[.,]\d+)?/.exec(text.replace(/\u2212/g, "-"));
  return found ? Number(found[0].replace("−", "-").replace(",", ".")) : null;
}

const DEG = { deg: 1, arcmin: 1 / 60, mrad: 180 / Math.PI / 1000 } as const;

/** Farther than this no unit turns its idea of a camera, degrees. */
const FARTHEST_DEG = 15;

/**
 * Reads a report by how its tool was taught.
 *
 * @returns what is wrong with which line where it cannot be read: nothing is guessed
 */
export function readReport(fields: readonly Field[], mapping: ToolMapping): ReportRead {
  const missing = (name: string): ReportRead => ({
    ok: false,
    problem: `The report has no line “${name}”. Teach it again, or type the result.`,
  });
  const outcome = valueOf(fields, mapping.outcome.label);
  if (outcome === null) return missing(mapping.outcome.label);
  const passed = same(outcome, mapping.outcome.passed);
  const figures: Partial<Record<"quality" | "yaw" | "pitch" | "roll", number>> = {};
  for (const fact of ["quality", "yaw", "pitch", "roll"] as const) {
    const at = mapping[fact];
    if (!at) continue;
    const text = valueOf(fields, at.label);
    // A refusal need not say what it would have learned.
    if (text === null) {
      if (passed) return missing(at.label);
      continue;
    }
    const number = numberIn(text);
    if (number === null)
      return {
        ok: false,
        problem: `“${at.label}” is “${text}”, which is no figure. Type the result.`,
      };
    figures[fact] =
      "of" in at ? (100 * number) / at.of : number * DEG[at.unit] * (at.flipped ? -1 : 1);
  }
  const { quality, yaw, pitch, roll } = figures;
  if (quality !== undefined && (quality < 0 || quality > 100))
    return {
      ok: false,
      problem: `“${mapping.quality!.label}” makes ${quality.toFixed(0)} %: teach anew what its whole is.`,
    };
  const far = [yaw, pitch, roll].find((v) => v !== undefined && Math.abs(v) > FARTHEST_DEG);
  if (far !== undefined)
    return {
      ok: false,
      problem: `An angle of ${far.toFixed(0)}° cannot be meant: teach its unit anew.`,
    };
  const reason = mapping.reason && valueOf(fields, mapping.reason.label);
  return {
    ok: true,
    vin:
      (mapping.vin && valueOf(fields, mapping.vin.label))?.replace(/\s/g, "").toUpperCase() ?? null,
    result: {
      passed,
      // A tool that gives no quality says only whether it passed.
      qualityPercent: quality ?? (passed ? 100 : 0),
      ...(yaw !== undefined && { learnedYawDeg: yaw }),
      ...(pitch !== undefined && { learnedPitchDeg: pitch }),
      ...(roll !== undefined && { learnedRollDeg: roll }),
      reason: passed ? null : (reason ?? outcome),
    },
  };
}

/** The mapping a report was written for: the one all of whose lines it has; the most lines win. */
export function mappingFor(
  fields: readonly Field[],
  mappings: readonly ToolMapping[],
): ToolMapping | null {
  const labels = (m: ToolMapping): string[] =>
    (["outcome", "quality", "yaw", "pitch", "roll", "vin"] as const).flatMap((f) =>
      m[f] ? [m[f].label] : [],
    );
  const fits = mappings.filter((m) => labels(m).every((l) => valueOf(fields, l) !== null));
  return fits.toSorted((a, b) => labels(b).length - labels(a).length)[0] ?? null;
}
