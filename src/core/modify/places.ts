import { netKey } from '../circuit';
import { findDividers, operatingPoint, resistorsBetween } from '../operate';
import { sheetFact } from '../part';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { recogniseStages } from '../stages';

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

/** Said where no sweep can be laid down: it has nothing to be judged by. */
export const VOLTS_UNKNOWN =
  'What the output gives is not known, so no sweep is laid down: say it on the nameplate, or trace its divider and reference.';

/** Volts that a rail is held at by its divider, else what the nameplate prints for it; null where nobody says. */
export function heldVolts(board: Board, rail: string): number | null {
  return operatingPoint(board).net(rail)?.nominal ?? null;
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
