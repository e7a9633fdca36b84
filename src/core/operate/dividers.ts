import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { parallelOhms, partFigure, sheetFact } from '../part';
import type { Part } from '../part';
import { rails, recogniseStages } from '../stages';
import { printedOutputs } from './supply';

/**
 * A divider that sets an output, as it stands on the board. Resistors of one place in parallel count as one.
 *
 * vRef     its reference with where it comes from; null where nothing tells.
 * implied  whether the reference is only what the printed volts of the rail imply.
 */
export interface Divider {
  readonly ref: string;
  readonly rail: string;
  readonly return: string;
  readonly tap: string;
  readonly top: readonly Part[];
  readonly bottom: readonly Part[];
  readonly rTop: number;
  readonly rBottom: number;
  readonly vRef: number | null;
  readonly vRefFrom: string;
  readonly implied: boolean;
}

/** Fitted resistors between two nets. */
export function resistorsBetween(board: Board, a: string, b: string): readonly Part[] {
  const wanted = [netKey(a), netKey(b)].sort().join(' ');
  return board.parts.filter((p) => p.kind === 'resistor' && p.fitted && p.nets.map(netKey).sort().join(' ') === wanted);
}

/** Dividers that set an output: at the feedback pins of controllers and at shunt references, outputs first. */
export function findDividers(board: Board): readonly Divider[] {
  const senses: { ref: string; tap: string; back: string; known: number | undefined }[] = [];
  for (const [ref, pins] of Object.entries(recogniseStages(board).pins)) {
    const part = board.parts.find((p) => p.ref === ref);
    const ground = pins.find((p) => p.role === 'GND');
    if (!part || !ground) continue;
    for (const pin of pins.filter((p) => p.role === 'FB'))
      senses.push({
        ref,
        tap: part.nets[Number(pin.pin) - 1]!,
        back: part.nets[Number(ground.pin) - 1]!,
        known: sheetFact(board.facts, ref, 'fbRef'),
      });
  }
  for (const p of board.parts)
    if (p.kind === 'shunt-reference' && p.fitted)
      senses.push({
        ref: p.ref,
        tap: p.nets[0]!,
        back: p.nets[1]!,
        known: partFigure(p, 'referenceVolts') ?? sheetFact(board.facts, p.ref, 'vRef'),
      });
  return senses.flatMap(({ ref, tap, back, known }): readonly Divider[] => {
    const rail = rails(board).above(tap, back);
    if (rail === null) return [];
    const [top, bottom] = [resistorsBetween(board, rail, tap), resistorsBetween(board, tap, back)];
    if (top.length === 0 || bottom.length === 0) return [];
    const [rTop, rBottom] = [parallelOhms(top), parallelOhms(bottom)];
    const printed = printedOutputs(board).find((o) => o.rail !== null && netKey(o.rail) === netKey(rail))?.volts;
    const implied = printed === undefined ? null : printed / (1 + rTop / rBottom);
    const vRef = known ?? implied;
    const vRefFrom =
      known !== undefined
        ? `what the data sheet of ${ref} says`
        : implied === null
          ? 'not known'
          : `what ${printed} V at ${rail} imply`;
    return [{ ref, rail, return: back, tap, top, bottom, rTop, rBottom, vRef, vRefFrom, implied: known === undefined }];
  });
}
