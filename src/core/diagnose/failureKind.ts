import { isElectrolytic, safetyClass, partFigure, junctionFigures } from '../part';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { assertNever } from '../problem';
import type { FailureKind } from './faultModes';

/** From this value a resistor counts as high-ohm: start-up chains, bleeders, dividers on high voltage. */
const HIGH_OHMS = 47e3;
/** Below this a resistor is a link: a joint or contact in all but name. */
const LINK_OHMS = 0.01;
/** From this rated current a diode counts as a power rectifier. */
const POWER_AMPS = 2;

/** What parts of a kind are called where several are told in one line. */
export const KIND_WORDS = {
  electrolytic: 'electrolytics',
  'small-capacitor': 'small capacitors',
  'safety-capacitor': 'X and Y capacitors',
  'high-resistor': 'high-ohm resistors',
  'low-resistor': 'resistors',
  winding: 'chokes and transformers',
  'power-rectifier': 'rectifiers',
  'small-diode': 'small diodes',
  zener: 'zeners and clamps',
  led: 'indicators',
  bjt: 'small transistors',
  'switch-transistor': 'switches',
  bridge: 'bridge',
  fuse: 'fuses',
  ntc: 'inrush limiters',
  mov: 'varistors',
  'opto-or-reference': 'optos and references',
  regulator: 'regulators',
  relay: 'relays',
  contact: 'contacts and joints',
  triac: 'thyristors',
  ic: 'controllers',
} as const satisfies Record<FailureKind, string>;

/** The row of the failure statistics that a part belongs to; null for parts that are not suspected (connectors, sources). */
export function failureKind(board: Board, part: Part): FailureKind | null {
  switch (part.kind) {
    case 'resistor':
      if (part.value <= LINK_OHMS) return 'contact';
      return part.value >= HIGH_OHMS ? 'high-resistor' : 'low-resistor';
    case 'capacitor':
      if (safetyClass(part) !== null) return 'safety-capacitor';
      return isElectrolytic(part) ? 'electrolytic' : 'small-capacitor';
    case 'inductor':
      return 'winding';
    case 'diode':
      return diodeKind(board, part.model, partFigure(part, 'ratedAmps') ?? 0);
    case 'bjt':
      return 'bjt';
    case 'mosfet':
      return 'switch-transistor';
    case 'fuse':
    case 'ntc':
    case 'mov':
    case 'bridge':
    case 'regulator':
    case 'relay':
    case 'triac':
    case 'ic':
      return part.kind;
    case 'opto':
    case 'shunt-reference':
      return 'opto-or-reference';
    case 'switch':
      return 'contact';
    case 'lamp':
      return 'led';
    case 'connector':
    case 'voltage-source':
    case 'current-source':
      return null;
    default:
      return assertNever(part);
  }
}

/** Tells diodes apart by their junction: an LED's saturation current is below 1e-15 A, a zener breaks below 60 V. */
function diodeKind(board: Board, modelName: string, ratedAmps: number): FailureKind {
  const { saturationAmps, emission, breakdownVolts } = junctionFigures(board.models.get(modelName.toLowerCase()));
  if (emission >= 1.9 && saturationAmps < 1e-14) return 'led';
  if (breakdownVolts < 60 && saturationAmps < 1e-11) return 'zener';
  return ratedAmps >= POWER_AMPS ? 'power-rectifier' : 'small-diode';
}
