/** What a piece of work was planned for, and what it took. */
export type Sample = {
  part: "bay" | "road" | "desk";
  method: string;
  person: string;
  plannedMin: number;
  tookMin: number;
};

/** How many times longer than planned something takes, and how widely that goes. */
export type Pace = { factor: number; spread: number; many: number };

/** As many pieces of work as the shop's own count for: with fewer the sheet's figure still holds more. */
const SHOP_WORTH = 6;
/** A person's own against the shop's. */
const PERSON_WORTH = 8;
/** How widely the logarithm of what work takes goes where nothing is known yet. */
const SPREAD = 0.3;
/** What took longer or shorter than so many times was something else: a lunch, a forgotten tablet. */
const ODD = 5;

/**
 * The mean of logarithms, drawn toward what is known without them as far as they are few; and their
 * spread, drawn alike.
 */
function drawn(logs: readonly number[], to: { mean: number; spread: number }, worth: number) {
  const n = logs.length;
  const mean = (logs.reduce((s, v) => s + v, 0) + worth * to.mean) / (n + worth);
  const squares = logs.reduce((s, v) => s + (v - mean) ** 2, 0);
  const spread = Math.sqrt((squares + worth * to.spread ** 2) / (n + worth));
  return { mean, spread };
}

/**
 * What the shop's history makes of planned minutes: by part of the work and method, and by person.
 *
 * @returns how many times the planned minutes are to be expected, and their spread
 */
export function paceOf(
  samples: readonly Sample[],
  of: { part: Sample["part"]; method: string; person: string | null },
): Pace {
  const fair = samples.filter(
    (s) =>
      s.part === of.part &&
      s.plannedMin > 0 &&
      s.tookMin > s.plannedMin / ODD &&
      s.tookMin < s.plannedMin * ODD,
  );
  const log = (s: Sample): number => Math.log(s.tookMin / s.plannedMin);
  const same = fair.filter((s) => s.method === of.method);
  const shop = drawn(fair.map(log), { mean: 0, spread: SPREAD }, SHOP_WORTH);
  const method = drawn(same.map(log), shop, SHOP_WORTH);
  const own = same.filter((s) => s.person === of.person);
  const { mean, spread } = drawn(own.map(log), method, PERSON_WORTH);
  // The mean of what has a normal logarithm lies above its middle.
  return { factor: Math.exp(mean + (spread * spread) / 2), spread, many: fair.length };
}
