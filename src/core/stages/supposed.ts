import type { Board, Coupling } from '../circuit';
import type { Part } from '../part';
import type { Anatomy } from './anatomy';
import type { PowerSwitches } from './cells';
import type { Converter } from './converter';

/** How a part is named that is only supposed to be there: no traced part is called so. */
export const SUPPOSED = 'not traced ';

/** Whether a part is only supposed. */
export function isSupposed(ref: string): boolean {
  return ref.startsWith(SUPPOSED);
}
/** A part that a board must have and that nobody has traced yet: what stands around its place says so. */
export interface Supposed {
  readonly part: Part;
  readonly couplings: readonly Coupling[];
  /** What is missing and where, as a sentence of its own. */
  readonly words: string;
}

/** A board with a supposed part. */
export function withSupposed(board: Board, { part, couplings }: Supposed): Board {
  return { ...board, parts: [...board.parts, part], couplings: [...board.couplings, ...couplings] };
}

/** What completion looks at. */
export interface Half {
  readonly a: Anatomy;
  readonly switches: PowerSwitches;
  readonly converters: readonly Converter[];
}
