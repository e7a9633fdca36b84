import type { Basis } from '../quantity';

/** A `key=value` pair exactly as it was written; order is kept. */
export interface KeyText {
  readonly key: string;
  readonly text: string;
}

/**
 * What every part has.
 *
 * ref      designator, without the leading X of the netlist.
 * nets     net name of each pin, in pin order; `NC` means that the pin is not connected.
 * keys     all key=value pairs as written, known and unknown.
 * numbers  the numeric keys in SI units (`tol` as a fraction), keyed by lower-case key.
 * fitted   false for an empty position.
 * basis    how well the value is known.
 */
interface PartCommon {
  readonly ref: string;
  readonly nets: readonly string[];
  readonly keys: readonly KeyText[];
  readonly numbers: Readonly<Record<string, number>>;
  readonly fitted: boolean;
  readonly basis: Basis;
}

/** Two-terminal parts with a value: ohm, farad, henry. */
export interface PassivePart extends PartCommon {
  readonly kind: 'resistor' | 'capacitor' | 'inductor';
  readonly value: number;
  readonly valueText: string;
}

/** Supplies: volts or amperes. */
export interface SourcePart extends PartCommon {
  readonly kind: 'voltage-source' | 'current-source';
  readonly value: number;
  readonly valueText: string;
}

/** Parts whose behaviour stands in a `.model`. */
export interface ModelPart extends PartCommon {
  readonly kind: 'diode' | 'bjt' | 'mosfet';
  readonly model: string;
}

/** Parts with a reserved name of the netlist contract. */
export interface BlockPart extends PartCommon {
  readonly kind: BlockKind;
}

/** Any other X part: an integrated circuit, its inside known (`subcircuit` exists) or not. */
export interface IcPart extends PartCommon {
  readonly kind: 'ic';
  readonly subcircuit: string;
}

export const BLOCK_KINDS = [
  'fuse',
  'switch',
  'ntc',
  'mov',
  'bridge',
  'opto',
  'shunt-reference',
  'regulator',
  'relay',
  'lamp',
  'triac',
  'connector',
] as const;
export type BlockKind = (typeof BLOCK_KINDS)[number];

export type Part = PassivePart | SourcePart | ModelPart | BlockPart | IcPart;
export type PartKind = Part['kind'];
