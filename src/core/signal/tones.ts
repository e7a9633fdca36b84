/** Frequencies of the instruments that have one. */
export const SIGNAL_HERTZ = { esr: 100e3, cap: 100 } as const;
/** One sigma of the instruments: shares of the figure, and what is added: ohm, cycles that are counted whole (contract, section 3). */
export const SIGNAL_NOISE = {
  esr: { share: 0.03, floor: 0.01 },
  cap: { share: 0.02, floor: 0 },
  ring: { share: 0.05, floor: 0.3 },
} as const;
/** Above this, ohm, an ESR meter shows overload. */
export const ESR_LIMIT_OHMS = 10e3;
/** A capacitance is shown where this share of the impedance is reactive, and no more than `CAP_LIMIT_OHMS` of it. */
export const LEAST_REACTIVE = 0.02;
/** Above this, ohm, a capacitance meter shows overload. */
export const CAP_LIMIT_OHMS = 10e6;
/** From so many cycles on a ring tester shows overload. */
export const RING_LIMIT = 10_000;
/** A sound winding rings at least so long, whatever its core takes (`engine.md` section 7), if the rest of the board lets it. */
export const GOOD_CYCLES = 10;
/** A winding that rings for fewer cycles than this, sound and in circuit, tells nothing. */
export const LEAST_CYCLES = 4;
