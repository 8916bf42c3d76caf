import { SYSTEMS } from "@/core/owed";
import type { DashNow, RoadTrial } from "./road-check";
import { LAMPS, type FunctionId, type LampId } from "./walk";

/** How a function is tried where nobody is put at risk, and how it has to be set for that. */
export const TRIALS: Record<FunctionId, { setting: string; how: string }> = {
  "lane-keeping": {
    setting: "on, with its warning",
    how: "On a marked, empty road by day, hands on the wheel: near the line within your own lane it warns, or steers back.",
  },
  "collision-warning": {
    setting: "on, early",
    how: "Never provoke it. Follow at a safe distance and see that the vehicle ahead is shown, and is lost when it turns off.",
  },
  signs: { setting: "on", how: "Pass three signs; each appears as it stands at the road." },
  "high-beam": {
    setting: "automatic",
    how: "On an unlit road: it comes on by itself, and goes down for a vehicle ahead. Be ready to dip by hand.",
  },
  "cruise-gap": {
    setting: "longest gap",
    how: "On a clear road behind a vehicle that keeps its speed: it takes up the gap. Foot ready at the brake.",
  },
  "blind-spot": {
    setting: "on",
    how: "Let a vehicle pass on a road with two lanes: the lamp lights on its side, and goes out after it.",
  },
  "parking-view": {
    setting: "on",
    how: "In the yard, a second person watching: the picture has no gap, and the lines run where the wheels go.",
  },
  "mirror-view": {
    setting: "on",
    how: "Standing: a person walks along each side and is never lost between display and mirror.",
  },
};

const named = (lamps: readonly LampId[]): string => lamps.map((l) => LAMPS[l]).join(", ");

/** The same in a sentence. */
export function dashWords({ now, came, went, stayed }: DashNow): string {
  const parts = [
    ...(came.length > 0 ? [`lit since the work: ${named(came)}`] : []),
    ...(stayed.length > 0 ? [`lit as before: ${named(stayed)}`] : []),
    ...(went.length > 0 ? [`out now: ${named(went)}`] : []),
  ];
  return now.length === 0 && went.length === 0 ? "no lamp lit, as before" : parts.join("; ");
}

/** What a trial stands for, in a word. */
export const trialBecause = ({ because }: Pick<RoadTrial, "because">): string =>
  because.map((s) => SYSTEMS[s]).join(", ");
