import type { Board } from '../circuit';
import { partFigure, sheetFact } from '../part';
import type { Part } from '../part';
import { capacitorKind, clampVolts } from '../stress';
import type { StressKind } from '../stress';
import type { Strain } from './partStrain';

/** Above this a capacitor of a mains unit stands behind its rectifier, V. */
const BULK_VOLTS = 100;

/** What a part is made for and which derating it is held to. rating: SI units; null where nobody noted it. */
export interface Rating {
  readonly rating: number | null;
  readonly kind: StressKind;
}

/** The rating of a part for a stress; a resistor's volts are printed as direct ones or rms: the peak of a sine may be higher. */
export function ratingOf(board: Board, part: Part, { quantity, value: stress, alternates }: Strain): Rating {
  const made = (figure: 'ratedVolts' | 'ratedAmps' | 'ratedWatts', kind: StressKind): Rating => ({
    rating: partFigure(part, figure) ?? null,
    kind,
  });
  if (quantity === 'gate-voltage') return { rating: null, kind: 'transistor-voltage' };
  switch (part.kind) {
    case 'resistor':
      if (quantity === 'power') return made('ratedWatts', 'resistor-power');
      return {
        rating: (partFigure(part, 'ratedVolts') ?? NaN) * (alternates ? Math.SQRT2 : 1) || null,
        kind: 'resistor-voltage',
      };
    case 'capacitor':
      return quantity === 'voltage'
        ? made('ratedVolts', capacitorKind(part, board.nameplate?.source === 'mains' && stress > BULK_VOLTS))
        : made('ratedAmps', 'ripple');
    case 'inductor':
      return made('ratedAmps', 'saturation');
    case 'diode':
      if (quantity === 'power') return made('ratedWatts', 'transistor-power');
      if (quantity === 'current') return made('ratedAmps', 'semiconductor-current');
      return quantity === 'voltage'
        ? { rating: clampVolts(board, part), kind: 'clamp' }
        : made('ratedVolts', 'rectifier');
    case 'bridge':
      return quantity === 'current' ? made('ratedAmps', 'semiconductor-current') : made('ratedVolts', 'rectifier');
    case 'mosfet':
    case 'bjt':
    case 'triac':
    case 'opto':
    case 'regulator':
      if (quantity === 'power') return made('ratedWatts', 'transistor-power');
      return quantity === 'current'
        ? made('ratedAmps', 'semiconductor-current')
        : made('ratedVolts', 'transistor-voltage');
    case 'ic': {
      if (quantity === 'current') return made('ratedAmps', 'semiconductor-current');
      const told = partFigure(part, 'ratedVolts') ?? sheetFact(board.facts, part.ref, 'switchVr') ?? null;
      return { rating: told, kind: 'transistor-voltage' };
    }
    case 'fuse':
      return made('ratedAmps', 'fuse');
    case 'mov':
      return made('ratedVolts', 'safety-capacitor');
    default:
      return made('ratedAmps', 'contact');
  }
}
