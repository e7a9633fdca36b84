/**
 * How large a board, and what it is written in, may be: one place for the readers, which say it as an error, and for
 * the schema, which holds it on the way in and out.
 */
export const BOARD_LIMITS = {
  titleLength: 300,
  nameLength: 64,
  textLength: 500,
  parts: 2000,
  pins: 400,
  keys: 100,
  couplings: 2000,
  models: 1000,
  subcircuits: 500,
  /** Lines of a board netlist, comments and continuations counted. */
  lines: 10_000,
  /** Characters of a board netlist. */
  characters: 1_000_000,
  /** Parts with every known inside unfolded, and how deep insides may hold each other. */
  unfoldedParts: 20_000,
  depth: 8,
  /** Ohm, farad, henry, volts, amperes: beyond this a figure is a slip. */
  value: 1e15,
} as const;

/** What a designator may be made of: nothing that the notations of faults, pins and lists part words with. */
export const DESIGNATOR = /^[^\s.:;="()+,]+$/u;
