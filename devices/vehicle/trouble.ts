import { gaussian, type Random } from "@/core/math/random";

/** What disturbs a look and stands on no sheet of readings. */
export type Trouble = {
  /** Something like the target stands behind it: some of its points are taken for others. */
  clutter?: boolean;
  /** Light glares off the print: what is left of its points is found badly. */
  glare?: boolean;
  /** Load in the vehicle turns it about its axle, nose down positive, rad. */
  loadRad?: number;
  /** Another print hangs: so many times as large. */
  print?: number;
};

/** How many points clutter draws away, and how far, px. */
const CLUTTER = { least: 2, most: 6, strayPx: 7 };
/** How much worse a point is found in glare. */
const GLARE = { least: 5, most: 22 };
/** How often a computer finds no target at all. */
const LOST = { clutter: 0.25, glare: 0.4, print: 0.2 };

/** Whether the computer finds no target at all. */
export function findsNothing(trouble: Trouble, random: Random): boolean {
  const share = trouble.clutter
    ? LOST.clutter
    : trouble.glare
      ? LOST.glare
      : trouble.print !== undefined
        ? LOST.print
        : 0;
  return share > 0 && random() < share;
}

/** Where the computer takes the points for: with the noise of its picture, and what disturbs it. */
export function blurred(
  points: [number, number][],
  noisePx: number,
  { clutter, glare }: Trouble,
  random: Random,
): [number, number][] {
  const noise = noisePx * (glare ? GLARE.least + (GLARE.most - GLARE.least) * random() : 1);
  const found = points.map(([u, v]): [number, number] => [
    u + noise * gaussian(random),
    v + noise * gaussian(random),
  ]);
  if (!clutter) return found;
  const { least, most, strayPx } = CLUTTER;
  const many = least + Math.floor((most - least + 1) * random());
  const order = found.map((_, i) => ({ i, at: random() })).sort((a, b) => a.at - b.at);
  for (const { i } of order.slice(0, many)) {
    found[i]![0] += strayPx * gaussian(random);
    found[i]![1] += strayPx * gaussian(random);
  }
  return found;
}
