import { pinNames } from '../circuit';
import { isElectrolytic, partText, safetyClass, partFigure } from '../part';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { junctionDrop } from '../stages';

/** Ohms at which resistors of different use part. */
const RESISTOR_CLASSES: readonly (readonly [number, string])[] = [
  [0.02, 'link'],
  [5, 'shunt'],
  [100, 'small'],
  [5000, 'low'],
  [100e3, 'middle'],
  [Infinity, 'high'],
];

/**
 * What is known of a pin before anything is traced: the kind of its part, what its marking says, and which pin it is.
 * Pins that nothing tells apart (the ends of a resistor) have one type.
 */
export function pinType(board: Board, part: Part, pin: number): string {
  const name = pinNames(part)[pin] ?? '';
  switch (part.kind) {
    case 'resistor':
      return `R ${RESISTOR_CLASSES.find(([limit]) => part.value <= limit)![1]}`;
    case 'capacitor': {
      const safety = safetyClass(part);
      if (safety !== null) return `C ${safety}`;
      if (isElectrolytic(part))
        return `C ${(partFigure(part, 'ratedVolts') ?? 0) >= 160 ? 'bulk' : 'electrolytic'} ${pin === 0 ? 'plus' : 'minus'}`;
      return `C ${(partFigure(part, 'ratedVolts') ?? 0) >= 200 ? 'high-voltage' : part.value >= 90e-9 ? 'bypass' : 'small'}`;
    }
    case 'inductor':
      return `L ${windingClass(board, part)}`;
    case 'diode':
      return `D ${diodeUse(board, part)} ${name}`;
    case 'bridge':
      return `B ${pin < 2 ? 'ac' : name}`;
    case 'ic':
      return `U ${part.nets.length <= 2 ? 'two' : 'pin'}`;
    case 'connector':
      return part.nets.length <= 2 ? 'J two' : 'J many';
    case 'fuse':
    case 'mov':
    case 'ntc':
    case 'switch':
    case 'lamp':
      return part.kind;
    default:
      return `${part.kind} ${name}`;
  }
}

function windingClass(board: Board, part: Part): string {
  const ref = part.ref.toLowerCase();
  const coupled = board.couplings.filter((k) => k.first.toLowerCase() === ref || k.second.toLowerCase() === ref);
  if (coupled.length === 0) return 'choke';
  const value = (name: string): number => {
    const found = board.parts.find((p) => p.ref.toLowerCase() === name.toLowerCase());
    return found && 'value' in found ? found.value : 1;
  };
  const equal = coupled.length === 1 && Math.abs(value(coupled[0]!.first) / value(coupled[0]!.second) - 1) < 0.01;
  return equal ? 'pair' : 'winding';
}

function diodeUse(board: Board, part: Part): string {
  const drop = junctionDrop(board, part);
  if (drop > 1.4) return 'led';
  if (partFigure(part, 'ratedWatts') !== undefined || (partText(part, 'mark') ?? '').startsWith('P6KE')) return 'zener';
  const amps = partFigure(part, 'ratedAmps') ?? 1;
  if (amps < 0.5) return 'signal';
  return drop < 0.42 ? 'schottky' : amps >= 2 ? 'power' : 'small';
}
