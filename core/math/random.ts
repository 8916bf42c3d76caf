/**
 * Seeded pseudo-random numbers for stand-ins and tests. Nothing in core/ draws numbers it was not
 * handed.
 */

/** A source of uniform numbers in [0, 1). */
export type Random = () => number;

/**
 * Mixes any string into a 32-bit seed (FNV-1a), so that one world can derive many independent
 * streams by name.
 */
export function seedFrom(text: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  return h >>> 0;
}

/** Mulberry32: 32-bit state, period 2^32, good enough for noise and reproducible everywhere. */
export function randomFrom(seed: number): Random {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = a;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** One standard normal number (Box-Muller, the cosine branch). */
export function gaussian(random: Random): number {
  const u = 1 - random();
  return Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * random());
}
