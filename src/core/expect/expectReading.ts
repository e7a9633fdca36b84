import { netKey, pinsOnNet } from '../circuit';
import type { Board } from '../circuit';
import { MODE_UNITS, meterSigma, probe } from '../meter';
import type { ColdMode, UnpoweredMode } from '../meter';
import { formatQuantity, formatVolts, withMark } from '../quantity';
import type { Basis } from '../quantity';
import type { DcSolver } from '../solve';
import { basisOf, sharesOf } from './shares';
import type { Share } from './shares';

/**
 * What the meter should show at a point on the healthy board.
 *
 * nominal     volts, ohm, farads or cycles; null where OL is expected.
 * low, high   band of two combined sigma (meter, parts, leads); null where the end is overload.
 * sigma       one combined sigma in the unit of the mode.
 * basis       of the least known part that matters to it.
 * why         the sum by hand: which part contributes what.
 * judged      false where an assumed part or an unknown IC pin decides: a figure is then noted, not judged.
 */
export interface ExpectedReading {
  readonly mode: UnpoweredMode;
  readonly red: string;
  readonly black: string;
  readonly nominal: number | null;
  readonly low: number | null;
  readonly high: number | null;
  readonly sigma: number;
  readonly unit: 'V' | 'ohm' | 'F' | 'cycles';
  readonly basis: Basis;
  readonly why: string;
  readonly judged: boolean;
  /** Parts that make the reading, largest share first. */
  readonly through: readonly string[];
}

const LEAD_OHMS = 0.2;

/** Computes the expected reading between two nets with a solver of the healthy board. Nets must be on the board. */
export function expectReading(
  board: Board,
  solver: DcSolver,
  mode: ColdMode,
  red: string,
  black: string,
): ExpectedReading {
  const { nodeOfNet } = solver.network;
  const unit = MODE_UNITS[mode];
  const redNode = nodeOfNet.get(netKey(red))!;
  const blackNode = nodeOfNet.get(netKey(black))!;
  const unknownInside = [red, black].some((net) => hasUnknownPin(board, net));
  const common = { mode, red, black, unit } as const;
  const computed = probe(solver, mode, redNode, blackNode, { withSigma: true });
  if (!computed.ok) {
    return {
      ...common,
      nominal: null,
      low: null,
      high: null,
      sigma: 1,
      basis: 'assumed',
      why: computed.problem.sentence,
      judged: false,
      through: [],
    };
  }
  const { reading, raw, sigma: partSigma } = computed.value;
  if (!solver.connected(redNode, blackNode)) {
    const why = 'nothing on this board joins the two nets for direct current';
    return {
      ...common,
      nominal: null,
      low: null,
      high: null,
      sigma: 1,
      basis: 'seen',
      why,
      judged: !unknownInside,
      through: [],
    };
  }
  if (redNode !== blackNode) probe(solver, mode, redNode, blackNode);
  const shares = redNode === blackNode ? [] : sharesOf(board, wattsOf(solver, redNode));
  const basis = basisOf(shares);
  const through = shares.map((s) => s.ref);
  const judged = basis !== 'assumed' && !unknownInside;
  if (reading.kind === 'overload') {
    const why = mode === 'diode' ? `less than 1 mA flows at ${withMark('2.5')} V` : 'beyond the range';
    return {
      ...common,
      nominal: null,
      low: mode === 'diode' ? 2.5 : Math.min(raw / 2, 60e6),
      high: null,
      sigma: 1,
      basis,
      why: `${why}${blockers(shares)}`,
      judged,
      through,
    };
  }
  const value = reading.value;
  const leads = unit === 'ohm' ? LEAD_OHMS : 0;
  const sigma = Math.hypot(meterSigma(mode, value), partSigma, leads);
  const { low, high } = band(mode, value, sigma);
  return { ...common, nominal: value, low, high, sigma, basis, why: sumByHand(mode, value, shares), judged, through };
}

/** Two sigma either side; on a ratio scale where the spread of a resistance is large. */
export function band(
  mode: UnpoweredMode,
  value: number,
  sigma: number,
): { readonly low: number; readonly high: number } {
  if (mode === 'diode' || sigma < 0.2 * value || value <= 0)
    return { low: Math.max(0, value - 2 * sigma), high: value + 2 * sigma };
  const factor = Math.exp(Math.min(3, (2 * sigma) / value));
  return { low: value / factor, high: value * factor };
}

/** What each part takes in a reading: volts times amps in it (Tellegen: together the whole). */
function wattsOf(solver: DcSolver, red: number): ReadonlyMap<number, number> {
  const watts = new Map<number, number>();
  for (const flow of solver.flows(red)) {
    const power = flow.amps.reduce((sum, amps, t) => sum + amps * flow.volts[t]!, 0);
    watts.set(flow.owner, (watts.get(flow.owner) ?? 0) + power);
  }
  return watts;
}

function sumByHand(mode: ColdMode, value: number, shares: readonly Share[]): string {
  const show = (v: number): string => (mode === 'diode' ? formatVolts(v) : formatQuantity(v, 'ohm'));
  if (shares.length === 0) return `${show(value)}: the two nets are one`;
  const terms = shares.slice(0, 5).map((s) => `${s.ref} ${show(s.share * value)}`);
  const rest = shares.length > 5 ? ' + the rest' : '';
  return `${show(value)} = ${terms.join(' + ')}${rest}`;
}

function blockers(shares: readonly Share[]): string {
  return shares.length > 0
    ? `; ${shares
        .slice(0, 3)
        .map((s) => s.ref)
        .join(', ')} hold it back`
    : '';
}

export function hasUnknownPin(board: Board, net: string): boolean {
  return pinsOnNet(board, net).some(
    ({ part }) => part.kind === 'ic' && part.fitted && !board.subcircuits.has(part.subcircuit.toLowerCase()),
  );
}
