import type { Board } from '../circuit';
import { channelFigures, isElectrolytic, junctionFigures, marking, safetyClass, transistorFigures } from '../part';
import type { Part } from '../part';

/** A diode that breaks down at no more than this is there for that. */
const ZENER_VOLTS = 110;
/** More than this much saturation current, with hardly more than one for its exponent, is a metal junction. */
const SCHOTTKY_AMPS = 1e-8;
const SCHOTTKY_EMISSION = 1.15;

/** A coil of more than this has a core. */
const CORE_HENRIES = 8e-6;

/** The symbol that a part is drawn with. */
export function symbolKind(board: Board, part: Part): string {
  switch (part.kind) {
    case 'capacitor':
      return isElectrolytic(part) ? 'electrolytic' : safetyClass(part) === null ? 'capacitor' : 'safety-capacitor';
    case 'inductor':
      return part.value >= CORE_HENRIES ? 'core-inductor' : 'inductor';
    case 'diode':
      return diodeKind(board, part, part.model);
    case 'bjt':
      return transistorFigures(board.models.get(part.model.toLowerCase())).polarity > 0 ? 'npn' : 'pnp';
    case 'mosfet': {
      const model = board.models.get(part.model.toLowerCase());
      if (channelFigures(model).insulatedBipolar) return 'igbt';
      return model?.type === 'PMOS' ? 'pmos' : 'nmos';
    }
    default:
      return part.kind;
  }
}

function diodeKind(board: Board, part: Part, model: string): string {
  const words = `${part.ref} ${model} ${marking(part) ?? ''}`.toUpperCase();
  if (/LED/u.test(words)) return 'led';
  const { breakdownVolts, saturationAmps, emission } = junctionFigures(board.models.get(model.toLowerCase()));
  if (/TVS|P6KE|SMAJ|SMBJ|SMCJ|1\.5KE/u.test(words)) return 'tvs';
  const metal = saturationAmps >= SCHOTTKY_AMPS && emission <= SCHOTTKY_EMISSION;
  if (metal) return 'schottky';
  if (/^D?Z/u.test(part.ref.toUpperCase()) || /^DZ/u.test(model.toUpperCase())) return 'zener';
  return breakdownVolts <= ZENER_VOLTS && /ZEN|BZX|1N47|1N52|1N53/u.test(words) ? 'zener' : 'diode';
}
