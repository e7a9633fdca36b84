import type { Board } from '../circuit';
import { operatingPoint } from '../operate';
import { formatQuantity } from '../quantity';
import type { WantedWords } from './onWires';

/** The rails of a board with the volts that they stand at by nameplate, regulation or computing; ratings tell nothing of it. */
export function railWords(board: Board): readonly WantedWords[] {
  const told = new Set<string>();
  return operatingPoint(board).statements.flatMap(({ plus, nominal, alternating, source }) => {
    if (source === 'rating' || [...plus].some((net) => told.has(net))) return [];
    for (const net of plus) told.add(net);
    return [{ nets: plus, words: `${formatQuantity(nominal, 'V')}${alternating ? ' AC' : ''}` }];
  });
}
