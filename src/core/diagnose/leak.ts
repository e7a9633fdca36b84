import type { MainDraws } from '../solve';

/**
 * A reading in ohms beside which a junction leaks: its saturation current is spread so widely (a factor, not an amount) that
 * the reading comes out far lower more often than by its sigma, and never as far higher.
 *
 * at        the coordinate (log of ohm) of parts as they should be; effect: by how much one sigma of the junction lowers it.
 * share     of the current that goes through the junction; spread: one sigma of the log of its saturation current.
 * rest      one sigma of all else.
 */
export interface Leak {
  readonly at: number;
  readonly effect: number;
  readonly share: number;
  readonly spread: number;
  readonly rest: number;
}

/** What spreads by less than this, one sigma of its log, is straight enough; and less of an effect than this is not felt. */
const LEAST_SPREAD = 0.3;
const LEAST_EFFECT = 0.012;
const MOST_SHARE = 0.95;

/** The leak that counts the most in a reading at a coordinate, with one sigma of it all; null for none. */
export function leakOf(main: MainDraws, at: number, sigma: number): Leak | null {
  const { effects, spreads = [] } = main;
  let most = -1;
  effects.forEach((e, i) => {
    if ((spreads[i] ?? 0) >= LEAST_SPREAD && e > LEAST_EFFECT && e > (effects[most] ?? 0)) most = i;
  });
  const effect = effects[most];
  const spread = spreads[most];
  if (effect === undefined || spread === undefined) return null;
  const share = Math.min(effect / spread, MOST_SHARE);
  return { at, effect, share, spread, rest: Math.sqrt(Math.max(sigma * sigma - effect * effect, (0.1 * sigma) ** 2)) };
}

const STEPS = 12;
const out = { x: 0, slope: 1 };

/**
 * The coordinate where a reading would stand if the junction's effect were in proportion to its sigmas, and how fast that
 * goes with the reading: there it is spread by a normal distribution. What it returns is overwritten by the next call.
 *
 * The junction's draw is the likeliest one, given the reading and how far all else spreads. Higher than it should be
 * nothing is changed: no junction leaks less than nothing.
 * Source: the mode of two causes, by Gauss-Newton; density by Laplace's method (D. J. C. MacKay, Information Theory,
 * Inference, and Learning Algorithms (2003), chapter 27).
 */
export function straightened(leak: Leak, x: number): { readonly x: number; readonly slope: number } {
  const { at, effect, share, spread, rest } = leak;
  const away = x - at;
  out.x = x;
  out.slope = 1;
  if (away >= 0) return out;
  const square = rest * rest;
  let [z, shift, steep] = [0, 0, -effect];
  for (let i = 0; i < STEPS; i++) {
    const next = ((away - shift + steep * z) * steep) / (square + steep * steep);
    const moved = next - z;
    z = next;
    const grown = Math.exp(spread * z);
    const carried = 1 + share * (grown - 1);
    shift = -Math.log(carried);
    steep = (-share * spread * grown) / carried;
    if (Math.abs(moved) < 1e-4) break;
  }
  out.x = x - shift - effect * z;
  out.slope = Math.max(0.05, 1 - ((steep + effect) * steep) / (square + steep * steep));
  return out;
}
