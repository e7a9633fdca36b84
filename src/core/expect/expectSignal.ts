import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { MODE_UNITS } from '../meter';
import { formatQuantity } from '../quantity';
import { SIGNAL_HERTZ, figureChange, shownOf, signalSigma } from '../signal';
import type { OneTone, SignalBoard } from '../signal';
import { band, hasUnknownPin } from './expectReading';
import type { ExpectedReading } from './expectReading';
import { basisOf, sharesOf } from './shares';

/** What an unknown inside of an IC leaves alone: less than this between the leads, ohm. */
const FIRM_OHMS = 100;
/** What zeroed clips leave, ohm. */
const CLIP_OHMS = 0.02;

/** What an instrument that sends a small signal should show between two nets, which must be on the board. */
export function expectSignal(
  board: Board,
  signal: SignalBoard,
  mode: OneTone,
  red: string,
  black: string,
): ExpectedReading {
  const unit = MODE_UNITS[mode];
  const common = { mode, red, black, unit } as const;
  const leads = [netKey(red), netKey(black)] as const;
  const z = signal.impedance(...leads) ?? null;
  const size = z ? Math.hypot(z.re, z.im) : Infinity;
  const unknownInside = size > FIRM_OHMS && [red, black].some((net) => hasUnknownPin(board, net));
  const value = z && shownOf(mode, z);
  if (z === null || value === null) {
    const why = z === null ? 'nothing on this board joins the two nets' : whyBeyond(mode);
    return {
      ...common,
      nominal: null,
      low: null,
      high: null,
      sigma: 1,
      basis: 'seen',
      why,
      judged: z === null && !unknownInside,
      through: [],
    };
  }
  const effects = signal.effects(...leads);
  const felt = new Map<number, number>();
  for (const e of effects) felt.set(e.owner, (felt.get(e.owner) ?? 0) + Math.abs(figureChange(mode, z, e)) / e.sigma);
  const shares = sharesOf(board, felt);
  const parts = Math.hypot(...effects.map((e) => figureChange(mode, z, e)));
  const sigma = Math.hypot(signalSigma(mode, value), parts, mode === 'esr' ? CLIP_OHMS : 0);
  const basis = basisOf(shares);
  const hertz = formatQuantity(SIGNAL_HERTZ[mode], 'Hz');
  const through = shares.map((s) => s.ref);
  const by = through.length > 0 ? `: ${through.slice(0, 3).join(', ')}` : '';
  return {
    ...common,
    nominal: value,
    ...band(mode, value, sigma),
    sigma,
    basis,
    why: `${formatQuantity(value, unit, 3)} at ${hertz}${by}`,
    judged: basis !== 'assumed' && !unknownInside,
    through,
  };
}

function whyBeyond(mode: OneTone): string {
  return mode === 'esr' ? 'beyond the range' : 'resistance hides what capacity there is';
}
