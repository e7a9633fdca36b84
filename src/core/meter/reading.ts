/** The meter's modes that exist; `esr`, `cap`, `ring` and `dcv` are named by the contract but not built yet. */
export const COLD_MODES = ['diode', 'ohms', 'continuity'] as const;
export type ColdMode = (typeof COLD_MODES)[number];
export const METER_MODES = ['diode', 'ohms', 'continuity', 'esr', 'cap', 'ring', 'dcv'] as const;
export type MeterMode = (typeof METER_MODES)[number];

/** What a meter shows: a figure in volts or ohm, or overload. `sigma` is set by prediction only. */
export type MeterReading = { readonly kind: 'figure'; readonly value: number } | { readonly kind: 'overload' };

/** Unit of each built mode. */
export const MODE_UNITS = { diode: 'V', ohms: 'ohm', continuity: 'ohm' } as const satisfies Record<
  ColdMode,
  'V' | 'ohm'
>;
