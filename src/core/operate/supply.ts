import type { Board, Nameplate } from '../circuit';
import type { Basis } from '../quantity';

/**
 * What a unit is fed from, as far as its nameplate tells.
 *
 * kind      `mains` volts are rms; null where nobody says.
 * lowest, nominal, highest  volts at the inlet in normal use; null where nothing tells. `highest` is
 *           taken from the nominal where it is not printed: see `highestWhy`.
 * peak      the highest volts behind its rectifier, or of the direct source; null like `highest`.
 */
export interface Supply {
  readonly kind: NonNullable<Nameplate['source']> | null;
  readonly rail: string | null;
  readonly return: string | null;
  readonly lowest: number | null;
  readonly nominal: number | null;
  readonly highest: number | null;
  readonly highestBasis: Basis;
  readonly highestWhy: string;
  readonly peak: number | null;
  readonly hertz: number | null;
}

/** How far a source stands above its nominal volts in normal use: the tolerance of the public mains, a battery on charge. */
const ABOVE_NOMINAL = { mains: 1.1, dc: 1.1, battery: 1.2 } as const;

/** What feeds a board. Without a nameplate nothing of it is known. */
export function supplyOf(board: Board): Supply {
  const plate = board.nameplate ?? {};
  const kind = plate.source ?? null;
  const [lowest, nominal] = [plate.inputMin ?? null, plate.inputNominal ?? null];
  const above = ABOVE_NOMINAL[kind ?? 'dc'];
  const highest = plate.inputMax ?? (nominal === null ? null : above * nominal);
  const highestWhy =
    plate.inputMax !== undefined
      ? `${plate.inputMax} V, the highest input of the nameplate`
      : nominal === null
        ? 'the input’s highest volts are not known'
        : `${Number((above * nominal).toPrecision(4))} V = ${nominal} V x ${above}, as high as such a source stands`;
  return {
    kind,
    rail: plate.inputRail ?? null,
    return: plate.inputReturn ?? null,
    lowest,
    nominal,
    highest,
    highestBasis: plate.inputMax === undefined ? 'assumed' : 'seen',
    highestWhy,
    // Of a source whose kind nobody noted the worse: it may be mains.
    peak: highest === null ? null : kind === 'mains' || kind === null ? Math.SQRT2 * highest : highest,
    hertz: plate.hertz ?? null,
  };
}

/**
 * An output or a further supply that the nameplate prints. volts: rms of an ac output. peak: the highest that may stand
 * there. watts: null where it is no steady direct load.
 */
export interface PrintedRail {
  readonly name: string;
  readonly rail: string | null;
  readonly return: string | null;
  readonly kind: 'dc' | 'ac' | 'pulse' | 'supply';
  readonly volts: number;
  /** The lowest in normal use. */
  readonly lowest: number;
  readonly peak: number;
  readonly amps: number;
  readonly watts: number | null;
}

/** Outputs in the order of the nameplate. */
export function printedOutputs(board: Board): readonly PrintedRail[] {
  return (board.nameplate?.outputs ?? []).map((o, i) => ({
    name: o.rail ?? `output ${i + 1}`,
    rail: o.rail ?? null,
    return: o.return ?? null,
    kind: o.kind,
    volts: o.volts,
    lowest: o.volts,
    peak: Math.max(o.volts * (o.kind === 'ac' ? Math.SQRT2 : 1), o.voltsMax ?? 0),
    amps: o.amps,
    watts: o.kind === 'dc' ? o.volts * o.amps : null,
  }));
}

/** Further supplies and commands from outside, in the order of the nameplate. */
export function furtherSupplies(board: Board): readonly PrintedRail[] {
  return (board.nameplate?.auxInputs ?? []).map((x) => ({
    name: x.rail,
    rail: x.rail,
    return: x.return,
    kind: 'supply',
    volts: x.volts,
    lowest: Math.min(x.volts, x.voltsMin ?? x.volts),
    peak: Math.max(x.volts, x.voltsMax ?? x.volts),
    amps: 0,
    watts: null,
  }));
}
