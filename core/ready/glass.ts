import { formatNumber, radToDeg, degToRad } from "@/core/units";
import {
  fitGlass,
  GLASS_SPOTS,
  type GlassSeat,
  type GlassSpot,
  type Vehicle,
} from "@/core/vehicle";

/** Standard uncertainty of one seating depth read with a depth gauge or a steel rule, mm. */
const DEPTH_SIGMA_MM = 0.3;

export type SeatVerdict = {
  seat: GlassSeat;
  inside: boolean;
  worst: { name: "yaw" | "pitch" | "roll"; deg: number; sigmaDeg: number };
};

/**
 * Both schools exist: only the maker's own glass, or an equivalent part where the reason is written
 * down.
 */
export type GlassPolicy = "maker-only" | "equivalent-with-reason";

/** What stands against a part under the shop's policy; null when it may stay. */
export function partProblem(
  v: Vehicle,
  policy: GlassPolicy,
  part: string,
  reason: string | null,
): { message: string; askReason: boolean } | null {
  const typed = part.trim().toUpperCase();
  if (typed === "") return { message: "Read the part number off the glass.", askReason: false };
  if (typed === v.glass.makerPart.toUpperCase()) return null;
  const known = v.glass.equivalentParts.some((p) => p.toUpperCase() === typed);
  if (policy === "maker-only")
    return {
      message: `The shop fits only the maker’s glass, ${v.glass.makerPart}, to the ${v.model}; this is ${known ? "an equivalent" : "another part"}.`,
      askReason: false,
    };
  if ((reason ?? "").trim().length >= 3) return null;
  const what = known ? "an equivalent part" : "a part nobody here knows for this vehicle";
  return {
    message: `This is ${what}, not the maker’s ${v.glass.makerPart}: say why it was fitted.`,
    askReason: true,
  };
}

/**
 * What the seating depths say of the bracket's turn, against the vehicle's limit; null while they
 * fix no plane.
 */
export function glassSeatOf(
  v: Vehicle,
  depths: Readonly<Record<string, number>>,
): SeatVerdict | null {
  const { limitDeg, rakeDeg, ...size } = v.glass;
  const known = Object.fromEntries(
    GLASS_SPOTS.filter((s) => depths[s] !== undefined).map((s) => [s, depths[s]!]),
  ) as Partial<Record<GlassSpot, number>>;
  let seat: GlassSeat;
  try {
    seat = fitGlass({ ...size, rakeRad: degToRad(rakeDeg) }, known, DEPTH_SIGMA_MM);
  } catch {
    return null; // fewer than three spots, or all in one line
  }
  const turns = (["yaw", "pitch", "roll"] as const).map((name) => ({
    name,
    deg: radToDeg(seat[`${name}Rad`].value),
    sigmaDeg: radToDeg(seat[`${name}Rad`].sigma),
  }));
  const worst = turns.reduce((a, b) => (Math.abs(b.deg) > Math.abs(a.deg) ? b : a));
  return { seat, inside: turns.every((t) => Math.abs(t.deg) <= limitDeg), worst };
}

/** The glass in one line for the slip. */
export function glassWords(
  v: Vehicle,
  g: { part: string; depths: Readonly<Record<string, number>> },
): string {
  const verdict = glassSeatOf(v, g.depths);
  const turn = verdict
    ? `${verdict.worst.name} ${formatNumber(verdict.worst.deg, 2)}° ± ${formatNumber(verdict.worst.sigmaDeg, 2)}°`
    : "seat not measured";
  return `${g.part || "part not named"}, ${turn}`;
}
