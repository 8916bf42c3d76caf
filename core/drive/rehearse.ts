import { gaussian, randomFrom, type Random } from "@/core/math/random";
import { SHOWER_S, type Outlook, type Span } from "./expect";
import type { Way } from "./network";

/**
 * How single drives stray from what is expected: each is gone through once with its own showers, clouds,
 * lost lines and red lights, drawn by chance.
 */

/** Something in the sky that holds or does not, for a while each. */
class Sky {
  private holds: boolean | null = null;
  private share = 1;
  constructor(private readonly random: Random) {}

  /** It goes on while nobody minds it. */
  pass(seconds: number): void {
    if (this.holds !== null && this.share > 0 && this.share < 1) this.during(this.share, seconds);
  }

  /** For how many of some seconds it holds, where it does on a share of all time. */
  during(share: number, seconds: number): number {
    this.share = share;
    if (share >= 1 || share <= 0) {
      this.holds = share >= 1;
      return this.holds ? seconds : 0;
    }
    this.holds ??= this.random() < share;
    let [left, held] = [seconds, 0];
    while (left > 0) {
      const mean = this.holds ? (SHOWER_S * share) / (1 - share) : SHOWER_S;
      const spell = -Math.log(1 - this.random()) * mean;
      if (this.holds) held += Math.min(spell, left);
      if (spell < left) this.holds = !this.holds;
      left -= spell;
    }
    return held;
  }
}

/** Of all spans of a drive and what lies between its ways, in order. */
type Step =
  { kind: "span"; span: Span } | { kind: "junction"; loss: number; takesS: number; takesM: number };

function stepsOf(outlook: Outlook, ways: readonly Way[], departMs: number): Step[] {
  const steps: Step[] = [];
  let seconds = 0;
  ways.forEach((w, i) => {
    const before = ways[i - 1];
    if (before) {
      const pass = outlook.pass(before, w, departMs + seconds * 1000);
      steps.push({ kind: "junction", ...pass });
      seconds += pass.seconds;
    }
    const is = outlook.way(w, departMs + seconds * 1000);
    for (const span of is.spans) steps.push({ kind: "span", span });
    seconds += is.seconds;
  });
  return steps;
}

/** The chance that a drive gathers enough before it is back. */
export function chanceOf(
  outlook: Outlook,
  ways: readonly Way[],
  departMs: number,
  seed: number,
  runs = 1000,
): number {
  const steps = stepsOf(outlook, ways, departMs);
  const { seconds: wantS = 0, metres: wantM = 0 } = outlook.going.rules.enough;
  const random = randomFrom(seed);
  const once = (): boolean => {
    const [dry, shade] = [new Sky(random), new Sky(random)];
    let [countS, countM] = [0, 0];
    for (const step of steps) {
      if (step.kind === "junction") {
        countS = Math.max(0, countS - step.takesS);
        countM = Math.max(0, countM - step.takesM);
        if (step.loss > 0 && random() < step.loss) [countS, countM] = [0, 0];
        continue;
      }
      const { seconds, mps, loss, lossRate, quick, strays } = step.span;
      if (loss > 0 && random() < loss) [countS, countM] = [0, 0];
      const dryS = dry.during(step.span.dry, seconds);
      // Off the lens the sun is nobody's matter, but clouds move on.
      const offLens = step.span.shade >= 1;
      if (offLens) shade.pass(seconds);
      const fair = Math.min(dryS, offLens ? seconds : shade.during(step.span.shade, seconds));
      // Of a short span alone this strays too far, either way; over a drive it comes out right.
      const adds = quick * fair + gaussian(random) * Math.sqrt(strays * fair);
      if (lossRate > 0 && random() < -Math.expm1(-lossRate * seconds)) {
        // What was gathered before it is lost; of what the span adds, what comes after.
        const after = random();
        [countS, countM] = [adds * after, adds * after * mps];
      } else {
        countS += adds;
        countM += adds * mps;
      }
      if (countS >= wantS && countM >= wantM) return true;
    }
    return false;
  };
  let done = 0;
  for (let n = 0; n < runs; n++) if (once()) done++;
  return done / runs;
}
