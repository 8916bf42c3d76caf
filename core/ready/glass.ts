import { formatNumber, radToDeg, degToRad } from "@/core/units";
import { fitGlass, GLASS_SPOTS, type GlassSeat, type GlassSpot, type Vehicle } from "@/core/vehicle";

/** Standard uncertainty of one seating depth read with a depth gauge or a steel rule, mm. */
const DEPTH_SIGMA_MM = 0.3;

export type SeatVerdict = {
  seat: GlassSeat;
  inside: boolean;
  worst: { name: "yaw" | "pitch" | "roll"; deg: number; sigmaDeg: number };
};

/** What the seating depths say of the bracket's turn, against the vehicle's limit; null while they fix no plane. */
export function glassSeatOf(v: Vehicle, depths: Readonly<Record<string, number>>): SeatVerdict | null {
  const { limitDeg, rakeDeg, ...size } = v.glass;
  const known = Object.fromEntries(GLASS_SPOTS.filter((s) => depths[s] !== undefined).map((s) => [s, depths[s]!])) as Partial<Record<GlassSpot, number>>; // prettier-ignore
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
export function glassWords(v: Vehicle, g: { part: string; depths: Readonly<Record<string, number>> }): string {
  const verdict = glassSeatOf(v, g.depths);
  const turn = verdict ? `${verdict.worst.name} ${formatNumber(verdict.worst.deg, 2)}° ± ${formatNumber(verdict.worst.sigmaDeg, 2)}°` : "seat not measured"; // prettier-ignore
  return `${g.part || "part not named"}, ${turn}`;
}
