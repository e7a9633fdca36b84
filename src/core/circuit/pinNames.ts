import { channelFigures } from '../part';
import { assertNever } from '../problem';
import type { Board } from './board';
import type { BlockKind, Part } from '../part';

/** Pins of the reserved parts in netlist order; `connector` has one pin per node, numbered. */
export const BLOCK_PINS = {
  fuse: ['a', 'b'],
  switch: ['a', 'b'],
  ntc: ['a', 'b'],
  mov: ['a', 'b'],
  bridge: ['ac1', 'ac2', 'plus', 'minus'],
  opto: ['a', 'k', 'c', 'e'],
  'shunt-reference': ['ref', 'anode', 'cathode'],
  regulator: ['in', 'gnd', 'out'],
  relay: ['coil1', 'coil2', 'com', 'no'],
  lamp: ['a', 'b'],
  triac: ['mt2', 'mt1', 'gate'],
  connector: [],
} as const satisfies Record<BlockKind, readonly string[]>;

/** The pin names of a part in node order, as faults and screens use them. */
export function pinNames(part: Part): readonly string[] {
  switch (part.kind) {
    case 'resistor':
    case 'capacitor':
    case 'inductor':
    case 'voltage-source':
    case 'current-source':
      return ['1', '2'];
    case 'diode':
      return ['a', 'k'];
    case 'bjt':
      return ['c', 'b', 'e'];
    case 'mosfet':
      return ['d', 'g', 's'];
    case 'connector':
    case 'ic':
      return part.nets.map((_, i) => String(i + 1));
    case 'fuse':
    case 'switch':
    case 'ntc':
    case 'mov':
    case 'bridge':
    case 'opto':
    case 'shunt-reference':
    case 'regulator':
    case 'relay':
    case 'lamp':
    case 'triac':
      return BLOCK_PINS[part.kind];
    default:
      return assertNever(part);
  }
}

/**
 * The index of a pin by any accepted name: its own, an IGBT's `c g e`, or a subcircuit's pin name.
 * Gives -1 when the part has no such pin.
 */
export function pinIndex(board: Board, part: Part, name: string): number {
  const wanted = name.toLowerCase();
  const own = pinNames(part).findIndex((pin) => pin.toLowerCase() === wanted);
  if (own >= 0) return own;
  if (part.kind === 'mosfet' && channelFigures(board.models.get(part.model.toLowerCase())).insulatedBipolar) {
    return ['c', 'g', 'e'].indexOf(wanted);
  }
  if (part.kind === 'ic') {
    const pins = board.subcircuits.get(part.subcircuit.toLowerCase())?.pins ?? [];
    return pins.findIndex((pin) => pin.toLowerCase() === wanted);
  }
  return -1;
}
