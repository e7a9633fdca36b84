/** Modes that send a steady current into an unpowered board. */
export const COLD_MODES = ['diode', 'ohms', 'continuity'] as const;
export type ColdMode = (typeof COLD_MODES)[number];
/** Modes with a small signal whose figures are evidence: series resistance, capacitance, the ringing of a winding. */
export const SIGNAL_EVIDENCE = ['esr', 'cap', 'ring'] as const;
export type SignalEvidence = (typeof SIGNAL_EVIDENCE)[number];
/** All readings of an unpowered board that are kept, weighed and judged. */
export const UNPOWERED_MODES = [...COLD_MODES, ...SIGNAL_EVIDENCE] as const;
export type UnpoweredMode = (typeof UNPOWERED_MODES)[number];
export const METER_MODES = ['diode', 'ohms', 'continuity', 'esr', 'cap', 'ring', 'dcv'] as const;
export type MeterMode = (typeof METER_MODES)[number];

/** What a meter shows: a figure in volts, ohm, farads or cycles, or overload. `sigma` is set by prediction only. */
export type MeterReading = { readonly kind: 'figure'; readonly value: number } | { readonly kind: 'overload' };

/** Unit of each mode. */
export const MODE_UNITS = {
  diode: 'V',
  ohms: 'ohm',
  continuity: 'ohm',
  esr: 'ohm',
  cap: 'F',
  ring: 'cycles',
} as const satisfies Record<UnpoweredMode, 'V' | 'ohm' | 'F' | 'cycles'>;

/** Whether a mode sends a steady current, and not a signal. */
export function isCold(mode: UnpoweredMode): mode is ColdMode {
  return (COLD_MODES as readonly string[]).includes(mode);
}
