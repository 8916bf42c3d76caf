import { formatNumber } from "@/core/units";
import type { DriveProgress } from "./qualify";
import type { DriveCondition, DriveRules } from "./rules";

const LINE = { solid: "a solid line", broken: "a broken line", either: "a line" } as const;
const FALLS = { rain: "rain", fog: "fog", snow: "snow", "wet-road": "a wet road" } as const;

/** One condition of a drive as a sheet says it. */
export function conditionWords(c: DriveCondition): string {
  switch (c.kind) {
    case "speed":
      return `${formatNumber(c.min, 0)} to ${formatNumber(c.max, 0)} ${c.unit}`;
    case "steadiness":
      return `Speed steady within ${formatNumber(c.within, 0)} ${c.unit} over ${formatNumber(c.overS, 0)} s`;
    case "lines": {
      const sides = (["left", "right"] as const).flatMap((s) =>
        c[s] ? [`${LINE[c[s]]} ${s}`] : [],
      );
      const said = sides.join(" and ");
      return said[0]!.toUpperCase() + said.slice(1);
    }
    case "curve":
      return `No curve tighter than ${formatNumber(c.minRadiusM, 0)} m`;
    case "gap":
      return `Nobody nearer ahead than ${formatNumber(c.minM, 0)} m`;
    case "light":
      return c.needs === "day" ? "Daylight" : "Daylight or dusk";
    case "weather":
      return `Without ${c.without.map((w) => FALLS[w]).join(", ")}`;
    case "sun":
      return `Sun more than ${formatNumber(c.coneDeg, 0)}° off where the camera looks`;
    case "rolling":
      return "Without standing still";
    case "key":
      return "Ignition on all the way";
  }
}

/** What a breach of a condition does. */
export const breachWords = ({ breach, graceS }: DriveCondition): string =>
  breach === "pauses"
    ? "waits"
    : graceS > 0
      ? `begins anew after ${formatNumber(graceS, 0)} s`
      : "begins anew";

/** How much has to count. */
export function enoughWords({ enough: { seconds, metres } }: DriveRules): string {
  const minutes = seconds && `${formatNumber(seconds / 60, seconds % 60 === 0 ? 0 : 1)} min`;
  const km = metres && `${formatNumber(metres / 1000, 1)} km`;
  return [minutes, km].filter(Boolean).join(" and ");
}

/** How a condition is called. */
export const CONDITION_NAMES: Record<DriveCondition["kind"], string> = {
  speed: "speed",
  steadiness: "steadiness",
  lines: "lines",
  curve: "curves",
  gap: "the gap ahead",
  light: "light",
  weather: "weather",
  sun: "sun",
  rolling: "standing",
  key: "ignition",
};

/** What to do about a breach, to whoever watches. */
export const REMEDY: Record<DriveCondition["kind"], string> = {
  speed: "Come into the speed window.",
  steadiness: "Hold the speed.",
  lines: "Lines are not seen. Keep to the middle of the lane.",
  curve: "Too tight a curve. It goes on where the road is straight.",
  gap: "Leave more room ahead.",
  light: "Too dark for the camera.",
  weather: "It waits for the weather.",
  sun: "The sun stands in the lens. It goes on when the road turns.",
  rolling: "It waits until you roll.",
  key: "Ignition on.",
};

/** What a vehicle shows of how far it is, in one line. */
export function vehicleSays(rules: DriveRules, p: DriveProgress): string {
  const { shown, meaning } = vehicleShows(rules, p);
  return meaning ? `${shown}: ${meaning}` : shown;
}

/** What a vehicle shows of how far it is; of a code also what it means. */
export function vehicleShows(
  rules: DriveRules,
  p: DriveProgress,
): { shown: string; meaning: string | null } {
  const { seconds: needS, metres: needM } = rules.enough;
  const share =
    p.status === "done"
      ? 1
      : Math.min(0.99, needS ? p.seconds / needS : 1, needM ? p.metres / needM : 1);
  const { progress } = rules;
  if (progress.as === "percent") return { shown: `${Math.floor(100 * share)} %`, meaning: null };
  if (progress.as === "bar")
    return { shown: `${Math.floor(progress.of * share)} of ${progress.of} bars`, meaning: null };
  const [done, on] = [progress.codes.find((c) => c.done)!, progress.codes.filter((c) => !c.done)];
  const code = share === 1 ? done : on[Math.min(on.length - 1, Math.floor(share * on.length))]!;
  return { shown: code.code, meaning: code.says };
}
