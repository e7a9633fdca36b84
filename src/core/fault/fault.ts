/**
 * One thing wrong with a part, as `netlist.md` section 2 writes it.
 *
 * ref   designator. pin: the one opened pin of `REF.PIN:open`. pins: the two terminals of a short or leak.
 * ohms  of a leak or a series resistance; value: of a drifted R, C or L in SI units.
 */
export type Fault =
  | { readonly kind: 'open'; readonly ref: string; readonly pin?: string }
  | { readonly kind: 'short'; readonly ref: string; readonly pins?: readonly [string, string] }
  | { readonly kind: 'value'; readonly ref: string; readonly value: number }
  | { readonly kind: 'esr'; readonly ref: string; readonly ohms: number }
  | { readonly kind: 'leak'; readonly ref: string; readonly ohms: number; readonly pins?: readonly [string, string] };

/** Ohm in series with an opened part or pin (contract). */
export const OPEN_OHMS = 1e9;
/** Ohm across a short (contract). */
export const SHORT_OHMS = 0.1;
