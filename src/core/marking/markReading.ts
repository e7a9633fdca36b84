/** Kinds of part that a marking can tell of. */
export const MARK_KINDS = [
  'resistor',
  'capacitor',
  'inductor',
  'diode',
  'schottky',
  'bridge',
  'mosfet',
  'igbt',
  'zener',
  'tvs',
  'regulator',
  'ntc',
  'mov',
  'fuse',
] as const;
export type MarkKind = (typeof MARK_KINDS)[number];

/**
 * One way to read a marking.
 *
 * value, unit    ohm, F, H, V or A as the kind has it; null where the marking gives ratings only.
 * tolerance      fraction; toleranceBand [low, high] where it is unsymmetrical.
 * voltage, current  rated volts and amperes, null where not printed.
 * system         the system of marking that was applied.
 * weight         how likely this reading is beside the others, before the kind is known; not normalised.
 * why            the derivation, with the figures in it.
 * convention     true where the system is only a habit of the trade: confirm against the data sheet.
 */
export interface MarkReading {
  readonly kind: MarkKind;
  readonly value: number | null;
  readonly unit: 'ohm' | 'F' | 'H' | 'V' | 'A' | null;
  readonly tolerance: number | null;
  readonly toleranceBand?: readonly [number, number];
  readonly voltage: number | null;
  readonly current: number | null;
  readonly tempcoPpm?: number;
  readonly diameterMm?: number;
  readonly polarity?: 'N' | 'P';
  readonly speed?: 'FF' | 'F' | 'M' | 'T' | 'TT';
  readonly breaking?: 'L' | 'E' | 'H';
  readonly safetyClass?: 'X1' | 'X2' | 'Y1' | 'Y2';
  readonly system: string;
  readonly weight: number;
  readonly why: string;
  readonly convention: boolean;
}

/** A reader of one system: gives every reading it can make of a marking, none where it does not apply. */
export type MarkSystem = (mark: string) => readonly MarkReading[];

/** Fills in what most readings leave out. */
export function markReading(
  kind: MarkKind,
  system: string,
  weight: number,
  why: string,
  more: Partial<Omit<MarkReading, 'kind' | 'system' | 'weight' | 'why'>>,
): MarkReading {
  return {
    kind,
    value: null,
    unit: null,
    tolerance: null,
    voltage: null,
    current: null,
    convention: false,
    ...more,
    system,
    weight,
    why,
  };
}

/** A decimal number times a power of ten without the rounding of a multiplication: `scaled('47', -7)` is exactly 4.7e-6. */
export function scaled(mantissa: string | number, exponent: number): number {
  return Number(`${mantissa}e${exponent}`);
}
