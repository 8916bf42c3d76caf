import { formatNumber } from "@/core/units";
import { piecesOf } from "./geometry";
import type { DrivePlan } from "./plan";

/** From this share of glared roads on the sun is worth a word. */
const GLARE = 0.05;
/** From this chance on rain is worth a word. */
const RAINY = 0.1;
/** A line that is seen so often is called good. */
const GOOD = 0.8;

const percent = (share: number): string => `${formatNumber(100 * share, 0)} %`;
const sunS = (p: DrivePlan): number => p.barred.find((b) => b.kind === "sun")?.seconds ?? 0;
const rainOf = (p: DrivePlan): number => p.weather?.rain ?? 0;

/** The road with both lines that a drive is longest on, without the number of its part; null without one. */
function goodRoad({ legs }: DrivePlan): string | null {
  const metres = new Map<string, number>();
  for (const { name, lines, points } of legs) {
    if (lines.left.kind === "none" || lines.right.kind === "none") continue;
    if (Math.min(lines.left.seen, lines.right.seen) < GOOD) continue;
    const road = name.replace(/,? \d+$/, "");
    const m = piecesOf(points).reduce((s, piece) => s + piece.lengthM, 0);
    metres.set(road, (metres.get(road) ?? 0) + m);
  }
  const longest = [...metres].toSorted((a, b) => b[1] - a[1])[0];
  return longest ? longest[0] : null;
}

/**
 * Why a drive is as good or as bad as it is, beside the other hours: sun, rain, lines.
 *
 * @param others plans of other departures
 */
export function whyWords(plan: DrivePlan, others: readonly DrivePlan[]): string {
  const words: string[] = [];
  const [sun, rain] = [sunS(plan), rainOf(plan)];
  if (sun >= 60) words.push(`the sun stands in the lens for ${formatNumber(sun / 60, 0)} min`);
  else if (plan.glare >= GLARE)
    words.push(`round the low sun, which stands ahead on ${percent(plan.glare)} of the good roads`);
  else if (others.some((o) => o.glare >= GLARE || sunS(o) >= 60)) words.push("sun off the lens");
  if (rain >= RAINY) words.push(`rain ${percent(rain)} of the time`);
  else if (plan.weather && others.some((o) => rainOf(o) >= 2 * RAINY)) words.push("dry");
  const road = goodRoad(plan);
  if (road) words.push(`both lines on ${road}`);
  return words.join(", ");
}
