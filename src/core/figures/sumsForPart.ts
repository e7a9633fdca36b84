import type { Board } from '../circuit';
import type { Part, PartKind } from '../part';
import { figureOf } from './boardFigures';
import { suggestFigures } from './suggestFigures';

/** A sum that a part asks for, with the figures its inputs take from the board, by input key. */
export interface PartSum {
  readonly sum: string;
  readonly figures: Readonly<Record<string, string>>;
}

/** Which inputs of which sums a part's own figures answer, by kind of part. */
const OWN: Partial<Record<PartKind, readonly (readonly [string, Readonly<Record<string, string>>])[]>> = {
  capacitor: [
    ['discharge-time', { c: 'value', vStart: 'store' }],
    ['stored-energy', { c: 'value', v: 'store' }],
    ['precharge', { c: 'value', vPeak: 'store' }],
  ],
  resistor: [
    ['resistor-heat', { r: 'value', pRated: 'pr' }],
    ['discharge-time', { r: 'value' }],
  ],
  inductor: [['flyback-power', { lp: 'value' }]],
};

/**
 * The sums that a part asks for: its own figures bound, the other inputs as the board suggests where it knows them.
 * A part that is not fitted asks for none.
 */
export function sumsForPart(board: Board, part: Part): readonly PartSum[] {
  if (!part.fitted) return [];
  return (OWN[part.kind] ?? []).map(([sum, own]) => {
    const figures: Record<string, string> = { ...suggestFigures(board, sum) };
    for (const [input, name] of Object.entries(own)) {
      const key = `${part.ref}.${name}`;
      if (figureOf(board, key)) figures[input] = key;
      else delete figures[input];
    }
    return { sum, figures };
  });
}
