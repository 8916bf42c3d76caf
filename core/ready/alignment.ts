import { normalCdf } from "@/core/math/distributions";
import { degToRad, formatNumber, radToDeg } from "@/core/units";
import { thrustAngleRad, type Vehicle } from "@/core/vehicle";
import type { Judgement } from "./judgement";

/** What a printout claims for each wheel, where nobody says how well its toe is known, rad. */
export const PRINTED_SIGMA_RAD = degToRad(0.03);
/** A wheel is inside its limits when that is as sure as this. */
const SURE = 0.95;

/** Rear toe as it was printed, rolled or read: toe-in positive, rad, each wheel's standard deviation. */
export type ToeValues = { left: number; right: number; sigma?: number };

/**
 * Rear toe and thrust against the vehicle's limits. An axle that steers the car aside makes it drive
 * past what its camera takes for straight: alignment comes first then, and the camera after it.
 * Where what is measured lies too near a limit for its own uncertainty, that is said.
 */
export function judgeAlignment(values: ToeValues, v: Vehicle): Judgement {
  const limits = v.alignment;
  if (!limits)
    return {
      ok: null,
      headline: "the vehicle’s book has no limits for its rear axle: enter them under Vehicles",
      lines: [],
    };
  const sigma = values.sigma ?? PRINTED_SIGMA_RAD;
  const { toeMinDeg, toeMaxDeg, thrustDeg } = limits;
  const thrust = thrustAngleRad({ leftRad: values.left, rightRad: values.right });
  const line = (name: string, rad: number, s: number, min: number, max: number, wanted: string) => {
    const inside = normalCdf((degToRad(max) - rad) / s) - normalCdf((degToRad(min) - rad) / s);
    const deg = radToDeg(rad);
    return {
      name,
      value: `${formatNumber(deg, 2)}° ± ${formatNumber(radToDeg(s), 2)}°`,
      wanted,
      ok: inside >= SURE,
      outside: deg < min || deg > max,
    };
  };
  const toe = `${formatNumber(toeMinDeg, 2)} to ${formatNumber(toeMaxDeg, 2)}°`;
  const lines = [
    line("rear left toe", values.left, sigma, toeMinDeg, toeMaxDeg, toe),
    line("rear right toe", values.right, sigma, toeMinDeg, toeMaxDeg, toe),
    line(
      "thrust, left +",
      thrust,
      sigma / Math.SQRT2,
      -thrustDeg,
      thrustDeg,
      `± ${formatNumber(thrustDeg, 2)}°`,
    ),
  ];
  const out = lines.find((l) => l.outside);
  const near = lines.find((l) => !l.ok);
  const headline = out
    ? `alignment first: ${out.name} ${out.value}, allowed ${out.wanted}. A camera that learns now would have to learn again`
    : near
      ? `${near.name} ${near.value} is too near its limit of ${near.wanted} to tell: measure it better`
      : `thrust ${lines[2]!.value}, inside the vehicle’s limits`;
  return {
    ok: !near && !out,
    headline,
    lines: lines.map(({ outside: _, ...l }) => l),
  };
}
