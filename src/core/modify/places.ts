import { netKey } from '../circuit';
import { parallelOhms, partFigure, sheetFact } from '../part';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { recogniseStages } from '../stages';

/**
 * A divider that sets an output, as it stands on the board. Resistors of one place in parallel count as one.
 *
 * vRef  its reference with where it comes from; null where nothing tells.
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
}

/** A pin that lets a converter run, with the divider before it if there is one. */
export interface LockPin {
  readonly ref: string;
  readonly pin: string;
  readonly net: string;
  readonly rail: string;
  readonly return: string;
  readonly top: readonly Part[];
  readonly bottom: readonly Part[];
  readonly vTh: number | null;
}

/** An output connector at which a load can be sensed. */
export interface LoadPlace {
  readonly connector: string;
  readonly pin: string;
  readonly rail: string;
  readonly return: string;
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
    const rail = railAbove(board, tap, back);
    if (rail === null) return [];
    const [top, bottom] = [resistorsBetween(board, rail, tap), resistorsBetween(board, tap, back)];
    if (top.length === 0 || bottom.length === 0) return [];
    const [rTop, rBottom] = [parallelOhms(top), parallelOhms(bottom)];
    const printed = board.nameplate?.outputs?.find(
      (o) => o.rail !== undefined && netKey(o.rail) === netKey(rail),
    )?.volts;
    const implied = printed === undefined ? null : printed / (1 + rTop / rBottom);
    const vRef = known ?? implied;
    const vRefFrom =
      known !== undefined
        ? `what the data sheet of ${ref} says`
        : implied === null
          ? 'not known'
          : `what ${printed} V at ${rail} imply`;
    return [{ ref, rail, return: back, tap, top, bottom, rTop, rBottom, vRef, vRefFrom }];
  });
}

/** Said where no sweep can be laid down: it has nothing to be judged by. */
export const VOLTS_UNKNOWN =
  'What the output gives is not known, so no sweep is laid down: say it on the nameplate, or trace its divider and reference.';

/** Volts that a rail is held at by its divider, else what the nameplate prints for it; null where nobody says. */
export function heldVolts(board: Board, rail: string): number | null {
  const divider = findDividers(board).find((d) => netKey(d.rail) === netKey(rail));
  if (divider && divider.vRef !== null) return divider.vRef * (1 + divider.rTop / divider.rBottom);
  const printed = board.nameplate?.outputs?.find((o) => o.rail !== undefined && netKey(o.rail) === netKey(rail));
  return printed?.volts ?? null;
}

/** The rail at the far end of a resistor on this net: of several the one with most capacitance to the return. */
function railAbove(board: Board, net: string, back: string): string | null {
  const ends = board.parts
    .filter((p) => p.kind === 'resistor' && p.fitted && p.nets.some((n) => netKey(n) === netKey(net)))
    .map((p) => p.nets.find((n) => netKey(n) !== netKey(net)) ?? net)
    .filter((n) => netKey(n) !== netKey(back) && netKey(n) !== netKey(net));
  const smooth = (n: string): number =>
    board.parts.reduce(
      (sum, p) =>
        p.kind === 'capacitor' &&
        p.fitted &&
        p.nets.some((x) => netKey(x) === netKey(n)) &&
        p.nets.some((x) => netKey(x) === netKey(back))
          ? sum + p.value
          : sum,
      0,
    );
  const best = [...ends].sort((a, b) => smooth(b) - smooth(a))[0];
  return best !== undefined && smooth(best) > 0 ? best : null;
}

/** Pins at which a converter can be held off until its input is high enough. */
export function findLockPins(board: Board): readonly LockPin[] {
  return Object.entries(recogniseStages(board).pins).flatMap(([ref, pins]) => {
    const part = board.parts.find((p) => p.ref === ref);
    const ground = pins.find((p) => p.role === 'GND');
    const supply = pins.find((p) => p.role === 'VIN') ?? pins.find((p) => p.role === 'VCC');
    if (!part || !ground || !supply) return [];
    const back = part.nets[Number(ground.pin) - 1]!;
    const rail = part.nets[Number(supply.pin) - 1]!;
    return pins
      .filter((p) => p.role === 'EN')
      .map((p): LockPin => {
        const net = part.nets[Number(p.pin) - 1]!;
        const divided = netKey(net) !== netKey(rail) && netKey(net) !== 'nc';
        return {
          ref,
          pin: p.pin,
          net,
          rail,
          return: back,
          top: divided ? resistorsBetween(board, rail, net) : [],
          bottom: divided ? resistorsBetween(board, net, back) : [],
          vTh: sheetFact(board.facts, ref, 'uvOn') ?? sheetFact(board.facts, ref, 'enableOn') ?? null,
        };
      });
  });
}

/** Connectors with an output's rail and return on them. */
export function findLoadPlaces(board: Board): readonly LoadPlace[] {
  const dividers = findDividers(board);
  return board.parts.flatMap((part) => {
    if (part.kind !== 'connector') return [];
    const nets = part.nets.map(netKey);
    return dividers.flatMap((d) => {
      const pin = nets.indexOf(netKey(d.return));
      return nets.includes(netKey(d.rail)) && pin >= 0
        ? [{ connector: part.ref, pin: String(pin + 1), rail: d.rail, return: d.return }]
        : [];
    });
  });
}

/** The next free designator with these letters: one above the highest there is. */
export function freeRef(board: Board, letters: string, taken = 0): string {
  const used = board.parts.flatMap((p) => {
    const match = new RegExp(`^${letters}(\\d+)$`, 'iu').exec(p.ref);
    return match ? [Number(match[1])] : [];
  });
  return `${letters}${Math.max(0, ...used) + 1 + taken}`;
}
