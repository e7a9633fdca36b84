import { marking } from '../part';
import type { Part } from '../part';
import { formatQuantity, withMark } from '../quantity';
import { STRAIN_UNITS } from './partStrain';
import type { StrainQuantity } from './partStrain';

/** Ratings that parts are sold with. */
const SOLD: Readonly<Record<'V' | 'A' | 'W', readonly number[]>> = {
  V: [
    6.3, 10, 16, 20, 25, 30, 35, 40, 50, 60, 63, 80, 100, 150, 160, 200, 250, 300, 350, 400, 450, 500, 600, 630, 650,
    800, 900, 1000, 1200, 1600, 2000, 3000,
  ],
  A: [0.1, 0.2, 0.3, 0.5, 1, 1.5, 2, 3, 4, 5, 6, 8, 10, 12, 15, 16, 20, 25, 30, 40, 50, 60, 80, 100, 120, 150, 200],
  W: [0.063, 0.1, 0.125, 0.25, 0.5, 0.75, 1, 2, 3, 5, 7, 10, 15, 25, 50, 100],
};

/** What would bring a stress back within its limit: the least rating that is sold and bears it, or sharing it. */
export function remedyFor(part: Part, quantity: StrainQuantity, stress: number, factor: number): string {
  const unit = STRAIN_UNITS[quantity];
  const least = stress / factor;
  const sold = SOLD[unit].find((v) => v >= least * (1 - 1e-9));
  const one = sold === undefined ? `one for ${formatQuantity(least, unit)}` : `one for ${formatQuantity(sold, unit)}`;
  switch (quantity) {
    case 'power':
      return part.kind === 'resistor'
        ? `fit ${one}, or two of twice the ohms side by side`
        : `fit ${one}, or a heat sink`;
    case 'ripple-current':
      return `fit ${one} of ripple, or share it between two`;
    case 'current':
      return part.kind === 'fuse' ? `fit ${one} only if the wiring bears it` : `fit ${one}, or two that share it`;
    default:
      return part.kind === 'resistor' ? `fit ${one}, or two in series` : `fit ${one}`;
  }
}

/** The cheapest way to learn a rating that nobody noted. */
export function learnRating(part: Part, quantity: StrainQuantity): string {
  const print = marking(part);
  switch (part.kind) {
    case 'resistor':
      return quantity === 'power'
        ? 'measure its body: length and thickness tell its watts'
        : `its size tells: 0805 150 V, 1206 200 V, ${withMark('0.25')} W leaded 250 V`;
    case 'capacitor':
      return quantity === 'voltage'
        ? 'read the volts on its sleeve'
        : 'look its series up: ripple at 105 °C and the frequency here';
    case 'fuse':
      return 'read its cap or its body';
    case 'inductor':
      return 'wire gauge and core tell; or watch its current for the knee of saturation';
    default:
      return quantity === 'gate-voltage' || print !== undefined
        ? `look ${print ?? 'its marking'} up`
        : 'read its marking, then look it up';
  }
}
