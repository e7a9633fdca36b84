import { valueTolerance } from '../part';
import type { Part } from '../part';

/** What of a part can differ from the printed value. */
export type DrawnProperty = 'value' | 'saturation' | 'gain' | 'threshold' | 'winding' | 'series';

/**
 * Says how far a part's property is from its nominal value: a factor (for `threshold` too). 1 is nominal.
 * `owner` is the designator, with the inner part's name after a slash inside a subcircuit.
 */
export type PartDraw = (owner: string, part: Part, property: DrawnProperty) => number;

/** Every part at its nominal value. */
export const NOMINAL_DRAW: PartDraw = () => 1;

/**
 * One sigma of the natural log of a property, by the default spread of the contract (`netlist.md` section 3).
 * `tol=` is two sigma. An assumed value counts as a factor of 2 for two sigma.
 */
export function partSigma(part: Part, property: DrawnProperty): number {
  switch (property) {
    case 'saturation':
      return Math.log(1.6);
    case 'gain':
      return Math.log(1.5);
    case 'threshold':
      return 0.15;
    case 'winding':
      return 0.1;
    case 'series':
      return Math.log(2) / 2;
    case 'value':
      return valueTolerance(part) / 2;
  }
}
