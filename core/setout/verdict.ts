import { degToRad } from "@/core/units";
import { normalCdfFast } from "@/core/math/distributions";
import { centredProbability } from "./chance";
import { asTooFar, countingMisreads } from "./misread";
import { floorStep, wantedHeight, wantedTilt } from "./plan";
import { carries, reliabilityOf, weakIn, type Weighed } from "./reliability";
import type { ScalarId } from "./slot";
import type { SetOutSolution } from "./solve";

export type Verdict = {
  /** set: it may be run. move: well enough known, and off. read: not known well enough yet. */
  kind: "set" | "move" | "read";
  /** Why: the word the screens and the next act hang on. */
  why:
    | "in-tolerance"
    | "outside"
    | "off-centre"
    | "suspect"
    | "not-known"
    | "unproved"
    | "owing"
    | "unchecked"
    | "unsolved";
  /** Probability that every toleranced quantity is inside at once. */
  chance: number;
  /**
   * The same, were the board nulled with the present knowledge: what a perfect move could reach.
   */
  chanceIfNulled: number;
  /** Readings that contradict the rest, likeliest first. */
  suspects: string[];
  /**
   * Only the floor is not known well enough: nobody measured how it falls between the car and the
   * stand.
   */
  lacksFloor: boolean;
  /**
   * Readings in which a slip could hide and carry a quantity out of its tolerance. Only asked once
   * everything else is as it should be.
   */
  unchecked: string[];
  /** The slips that could, as they are weighed: what one more reading is chosen for. */
  weak: Weighed[];
  /**
   * What a "set" takes for granted: readings of this way in which a slip could hide, and that nothing
   * this kit can read would show.
   */
  assumes: string[];
};

/** Numbers outside the plan that have limits of their own. */
type LevelId = Exclude<ScalarId, "rail">;

/** The toleranced quantities outside the plan: error, standard deviation, half-width. */
export function scalarErrors(
  s: SetOutSolution,
): { id: LevelId; error: number; sigma: number; half: number }[] {
  const t = s.plan.target.tolerance;
  const one = (id: LevelId, wanted: { value: number; sigma: number }, half: number) => ({
    id,
    error: s.scalars[id].value - wanted.value,
    sigma: Math.hypot(Math.sqrt(s.scalars[id].variance), wanted.sigma),
    half,
  });
  const tilt = wantedTilt(s.plan);
  return [
    ...(t.heightMm === undefined
      ? []
      : [
          one(
            "height",
            { value: wantedHeight(s.plan), sigma: floorStep(s.plan).sigma },
            t.heightMm,
          ),
        ]),
    ...(t.pitchDeg === undefined ? [] : [one("pitch", tilt.pitch, degToRad(t.pitchDeg))]),
    ...(t.rollDeg === undefined ? [] : [one("roll", tilt.roll, degToRad(t.rollDeg))]),
  ];
}

/** P(|error + sigma Z| < half) for one Gaussian quantity. */
export const insideChance = (error: number, sigma: number, half: number): number =>
  normalCdfFast((half - error) / sigma) - normalCdfFast((-half - error) / sigma);

/**
 * Judges a solution.
 *
 * The plan quantities are correlated and integrated together; height and tilts are read on their
 * own, hence independent of the plan and of each other, and multiply. "Well enough known" means: if
 * the board were moved to zero error with today's uncertainty, it would count as set.
 */
export function judgeSetOut(s: SetOutSolution): Verdict {
  const scalars = scalarErrors(s);
  const { plane } = s;
  if (!plane)
    return {
      kind: "read",
      why: "unsolved",
      chance: 0,
      chanceIfNulled: 0,
      lacksFloor: false,
      suspects: [],
      unchecked: [],
      weak: [],
      assumes: [],
    };

  const halves = plane.quantities.map((q) => q.half);
  const across = (nulled: boolean): number =>
    scalars.reduce(
      (p, q) => p * insideChance(nulled ? 0 : q.error, q.sigma, q.half),
      centredProbability(
        nulled ? plane.nulled : plane.quantities.map((q) => q.error),
        plane.covariance,
        halves,
      ),
    );
  const chance = across(false);
  const chanceIfNulled = across(true);

  const planSuspects = s.suspects;
  // Two readings of one number contradict each other equally: neither can be preferred.
  const scalarSuspects = scalars.flatMap(({ id }) =>
    s.scalars[id].suspect
      ? s.scalars[id].residuals.filter((r) => Math.abs(r.w) > 3.29).map((r) => r.id)
      : [],
  );
  const suspects = [...new Set([...planSuspects, ...scalarSuspects])];

  const { setChance } = s.plan.thresholds;
  const lacksFloor =
    chanceIfNulled < setChance && chanceIfNulled * floorShare(s, scalars) >= setChance;
  const verdict = (kind: Verdict["kind"], why: Verdict["why"], weak: Weighed[] = []): Verdict => ({
    kind,
    why,
    chance,
    chanceIfNulled,
    lacksFloor,
    suspects,
    unchecked: [...new Set(weak.flatMap((w) => w.hidden.readings))],
    weak,
    assumes: [],
  });
  if (suspects.length > 0) return verdict("read", "suspect");
  // Whether a slip hides is asked before "set", not before a move: a coarse move made on a slip is
  // found out by what is read after it.
  if (worthMoving(s)) return verdict("move", "outside");
  if (s.unproved.length > 0) return verdict("read", "unproved");
  if (chance >= setChance && s.owing.length > 0) return verdict("read", "owing");
  if (chance >= setChance) {
    const height = scalars.find((q) => q.id === "height") ?? null;
    const reliability = reliabilityOf(s, height);
    const weak = weakIn(s, reliability);
    if (weak.length > 0) return verdict("read", "unchecked", weak);
    const { chance: plan, doubts } = countingMisreads(s, reliability.hidden);
    const counted = scalars.reduce((p, q) => p * insideChance(q.error, q.sigma, q.half), plan);
    if (counted >= setChance) return { ...verdict("set", "in-tolerance"), chance: counted };
    const { room } = reliability;
    const heightVariance = s.scalars.height.variance;
    const doubted = doubts
      .slice(0, MOST_DOUBTED)
      .map((hidden) => ({ hidden, room, s, heightVariance }));
    return {
      ...verdict(
        "read",
        "unchecked",
        doubted.map((w) => asTooFar(w, carries(w))),
      ),
      chance: counted,
    };
  }
  if (chanceIfNulled >= setChance) return verdict("move", "off-centre");
  return verdict("read", "not-known");
}

/** A chance that readings in doubt hold down is raised by looking at the dearest of them. */
const MOST_DOUBTED = 2;

/** Up to this share of its half-width a part is known well enough for a coarse move. */
const COARSELY = 0.8;

/**
 * Whether a coarse move pays before anything more is read: something is surely outside, something was
 * read since the last disturbance, and where everything belongs is known well enough that the move
 * will not have to be undone.
 */
function worthMoving(s: SetOutSolution): boolean {
  const { quantities, covariance } = s.plane!;
  return (
    !s.unproved.includes("plan") &&
    quantities.every((q, i) => Math.sqrt(covariance[i]![i]!) < COARSELY * q.half) &&
    surelyOutside(s)
  );
}

/** By how much the chance would rise, as a factor, were an unmeasured floor known. */
function floorShare(s: SetOutSolution, scalars: ReturnType<typeof scalarErrors>): number {
  const height = scalars.find((q) => q.id === "height");
  if (s.plan.floorStepMm || !height) return 1;
  const alone = Math.sqrt(s.scalars.height.variance);
  return (
    insideChance(0, alone, height.half) /
    Math.max(1e-12, insideChance(0, height.sigma, height.half))
  );
}

/**
 * Whether one quantity alone is outside with the shop's confidence (so that a coarse move is no
 * gamble).
 */
function surelyOutside(s: SetOutSolution): boolean {
  const { quantities, covariance } = s.plane!;
  const plan = quantities.map((q, i) =>
    insideChance(q.error, Math.sqrt(covariance[i]![i]!), q.half),
  );
  const others = scalarErrors(s).map((q) => insideChance(q.error, q.sigma, q.half));
  return Math.min(...plan, ...others) <= 1 - s.plan.thresholds.outsideChance;
}
