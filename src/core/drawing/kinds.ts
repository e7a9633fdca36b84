import { netKey } from '../circuit';
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
    case 'triac':
      return isThyristor(board, part) ? 'thyristor' : 'triac';
    case 'ic':
      return part.nets.length === 2 ? twoPinKind(board, part) : 'ic';
    default:
      return part.kind;
  }
}

/** One of two that stand the other way round beside each other, or called so: it conducts one way. */
function isThyristor(board: Board, part: Part): boolean {
  if (/SCR|THY|^X?TH\d/u.test(wordsOf(part))) return true;
  const [a, b] = part.nets.map(netKey);
  return board.parts.some(
    (p) => p !== part && p.kind === 'triac' && netKey(p.nets[0]!) === b && netKey(p.nets[1]!) === a,
  );
}

/** What things with two pins of their own that the netlist knows no kind for are drawn as, by what they are called. */
const CALLED: readonly (readonly [RegExp, string])[] = [
  [/DIAC/u, 'diac'],
  [/XTAL|CRYST|RESON/u, 'crystal'],
  [/FAN|BLOWER/u, 'fan'],
  [/SPARK|GAP\b|GDT/u, 'spark-gap'],
  [/SWITCH|^SW\d|THERMOSTAT/u, 'switch'],
];

/** A part of its own with two pins: two diodes in it against each other break over like a diac. */
function twoPinKind(board: Board, part: Extract<Part, { kind: 'ic' }>): string {
  const inside = board.subcircuits.get(part.subcircuit.toLowerCase())?.parts ?? [];
  if (inside.length === 2 && inside.every((p) => p.kind === 'diode')) return 'diac';
  return CALLED.find(([words]) => words.test(wordsOf(part)))?.[1] ?? 'ic';
}

/** What a part is called: on the board, in the netlist, by its marking. */
const wordsOf = (part: Part): string => {
  const type = part.kind === 'ic' ? part.subcircuit : 'model' in part ? part.model : '';
  return `${part.ref} ${type} ${marking(part) ?? ''}`.toUpperCase();
};

function diodeKind(board: Board, part: Part, model: string): string {
  const words = wordsOf(part);
  if (/LED/u.test(words)) return 'led';
  const { breakdownVolts, saturationAmps, emission } = junctionFigures(board.models.get(model.toLowerCase()));
  if (/TVS|P6KE|SMAJ|SMBJ|SMCJ|1\.5KE/u.test(words)) return 'tvs';
  const metal = saturationAmps >= SCHOTTKY_AMPS && emission <= SCHOTTKY_EMISSION;
  if (metal) return 'schottky';
  if (/^D?Z/u.test(part.ref.toUpperCase()) || /^DZ/u.test(model.toUpperCase())) return 'zener';
  return breakdownVolts <= ZENER_VOLTS && /ZEN|BZX|1N47|1N52|1N53/u.test(words) ? 'zener' : 'diode';
}
