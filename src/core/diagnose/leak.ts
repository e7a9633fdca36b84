import type { MainDraws } from '../solve';

/**
 * A reading that hangs on something spread by a factor, not an amount, so widely that it comes out far to one side more often
 * than by its sigma, and never as far to the other.
 *
 * law       `leak`: ohms beside which a junction leaks, far lower; share: of the current that goes through it.
 *           `gain`: the diode test into a transistor whose base takes its current through a resistor: what stands across that
 *           is in proportion to one over the gain, so the volts come out far higher.
 * at        the coordinate (log of ohm, volts) of parts as they should be; effect: by how much one sigma lowers it.
 * spread    one sigma of the log of the saturation current or of the gain.
 * rest      one sigma of all else.
 */
export interface Leak {
  readonly law: 'leak' | 'gain';
  readonly at: number;
  readonly effect: number;
  readonly share: number;
  readonly spread: number;
  readonly rest: number;
}

/** What spreads by less than this, one sigma of its log, is straight enough; and less of an effect than this is not felt. */
const LEAST_SPREAD = 0.3;
const LEAST_EFFECT = { leak: 0.012, gain: 0.03 } as const;
const MOST_SHARE = 0.95;

/** The leak, or the gain, that counts the most in a reading at a coordinate, with one sigma of it all; null for none. */
export function leakOf(main: MainDraws, at: number, sigma: number, law: Leak['law'] = 'leak'): Leak | null {
  const { effects, spreads = [] } = main;
  let most = -1;
  effects.forEach((e, i) => {
    if ((spreads[i] ?? 0) >= LEAST_SPREAD && e > LEAST_EFFECT[law] && e > (effects[most] ?? 0)) most = i;
  });
  const effect = effects[most];
  const spread = spreads[most];
  if (effect === undefined || spread === undefined) return null;
  const share = Math.min(effect / spread, MOST_SHARE);
  const rest = Math.sqrt(Math.max(sigma * sigma - effect * effect, (0.1 * sigma) ** 2));
  return { law, at, effect, share, spread, rest };
}

/** Steps, and the most that one of them goes, sigmas: the exponential is followed, not jumped over. */
const STEPS = 16;
const MOST_MOVED = 1.5;
const out = { x: 0, slope: 1 };

/**
 * The coordinate where a reading would stand if the draw's effect were in proportion to its sigmas, and how fast that
 * goes with the reading: there it is spread by a normal distribution. What it returns is overwritten by the next call.
 *
 * The draw is the likeliest one, given the reading and how far all else spreads. Higher than it should be nothing is changed
 * by a leak: no junction leaks less than nothing.
 * Source: the mode of two causes, by Newton's method; density by Laplace's method (D. J. C. MacKay, Information Theory,
 * Inference, and Learning Algorithms (2003), chapter 27).
 */
export function straightened(leak: Leak, x: number): { readonly x: number; readonly slope: number } {
  const { law, at, effect, share, spread, rest } = leak;
  const away = x - at;
  out.x = x;
  out.slope = 1;
  if (law === 'leak' && away >= 0) return out;
  const square = rest * rest;
  let [z, shift, steep, bend] = [0, 0, -effect, 0];
  for (let i = 0; i < STEPS; i++) {
    const left = away - shift;
    const slope = z - (left * steep) / square;
    const moved = -slope / (1 + (steep * steep + Math.max(0, -left * bend)) / square);
    z += Math.min(Math.max(moved, -MOST_MOVED), MOST_MOVED);
    if (law === 'leak') {
      const grown = Math.exp(spread * z);
      const carried = 1 + share * (grown - 1);
      shift = -Math.log(carried);
      steep = (-share * spread * grown) / carried;
    } else {
      const taken = Math.exp(-spread * z);
      shift = (effect / spread) * (taken - 1);
      steep = -effect * taken;
      bend = effect * spread * taken;
    }
    if (Math.abs(moved) < 1e-4) break;
  }
  out.x = x - shift - effect * z;
  out.slope = Math.max(0.05, 1 - ((steep + effect) * steep) / (square + steep * steep));
  return out;
}
