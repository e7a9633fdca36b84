import type { StrainQuantity } from './partStrain';

const WORDS: Readonly<Record<StrainQuantity, string>> = {
  voltage: 'volts across it',
  'peak-inverse': 'volts backwards',
  current: 'current',
  'ripple-current': 'ripple current',
  power: 'heat',
  'gate-voltage': 'volts at its gate',
};

/** A stress in the words of the trade. */
export const quantityWords = (quantity: StrainQuantity): string => WORDS[quantity];
