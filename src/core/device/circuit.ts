import type { DeviceModel } from './evaluation';

/**
 * One device of a circuit.
 *
 * nodes       circuit node of each terminal.
 * owners      for each terminal the index of the board's part whose pin, or inside, it belongs to.
 * at          index of its first parameter in the circuit's `parameters`, laid out as the model's own file says.
 * sigmas      one sigma of the natural log of each drawn parameter; draws: the number of the draw that each follows, the
 *             same for what of a part is drawn together, and on every circuit of the same parts.
 * name        the part, with the inner part's name after a slash inside a subcircuit.
 */
export interface Device {
  readonly model: DeviceModel;
  readonly nodes: readonly number[];
  readonly owners: readonly number[];
  readonly at: number;
  readonly sigmas: readonly number[];
  readonly draws: readonly number[];
  readonly name: string;
}

/** Whether a device is a capacitor, with or without a loss. */
export const isCapacitor = ({ model }: Device): boolean =>
  model.kind === 'capacitor' || model.kind === 'lossy-capacitor';

/**
 * Part of a board that conducts only when something works it: the dark side of an opto, an open contact, a triac that is
 * off, a varistor, the inside of an integrated circuit. `nodes` in the order of its pins.
 */
export interface Dormant {
  readonly owner: number;
  readonly nodes: readonly number[];
}

/**
 * A board with its faults and part draws as devices on nodes; nothing is left out.
 *
 * nodeNames  nodes are 0..nodeNames.length-1; a name for each, for messages (`NC` for a pin that is not connected).
 * pins       for each part of the board the nodes of its pins, inside what a fault has opened.
 * nodeOfNet  node of each net of the board, keyed by lower-case net name.
 */
export interface Circuit {
  readonly nodeNames: readonly string[];
  readonly nodeOfNet: ReadonlyMap<string, number>;
  readonly devices: readonly Device[];
  readonly parameters: Float64Array;
  readonly dormant: readonly Dormant[];
  readonly pins: readonly (readonly number[])[];
}
