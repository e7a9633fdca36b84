/** A source of numbers evenly spread over 0..1; always an argument, so that a test can fix it. */
export type Random = () => number;

/**
 * A small seeded generator, the same on every machine.
 * Source: mulberry32 by T. Ettinger (2017), public domain; period 2^32, enough for bench draws.
 */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** One standard normal number. Source: G. E. P. Box and M. E. Muller, Ann. Math. Statist. 29 (1958). */
export function gaussian(random: Random): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}
