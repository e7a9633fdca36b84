/** Frequencies of the instruments that have one. */
export const SIGNAL_HERTZ = { esr: 100e3, cap: 100 } as const;
/** One sigma of the instruments: shares of the figure, and what an ESR meter adds, ohm (contract, section 3). */
export const SIGNAL_NOISE = { esr: { share: 0.03, floor: 0.01 }, cap: { share: 0.02, floor: 0 } } as const;
/** Above this, ohm, an ESR meter shows overload. */
export const ESR_LIMIT_OHMS = 10e3;
/** A capacitance is shown where this share of the impedance is reactive, and no more than `CAP_LIMIT_OHMS` of it. */
export const LEAST_REACTIVE = 0.02;
/** Above this, ohm, a capacitance meter shows overload. */
export const CAP_LIMIT_OHMS = 10e6;
