import { netKey } from '../circuit';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { formatQuantity } from '../quantity';
import type { Strains } from '../work';

/**
 * What a resistor between a rail and a small transistor burns while that is on, whatever it does now; null where it hangs on
 * none, or on one that switches the power.
 */
export function pulledDown(
  board: Board,
  part: Part,
  strains: Strains,
): { readonly watts: number; readonly words: string } | null {
  if (part.kind !== 'resistor') return null;
  const { unit, volts } = strains.operation;
  const power = new Set(unit.plan.converters.flatMap((c) => c.switches.flatMap((s) => s.refs)));
  for (const [rail, end] of [part.nets, [...part.nets].reverse()] as [string, string][]) {
    const a = unit.node(rail);
    if (a < 0 || !unit.isSteady(a) || unit.isSteady(unit.node(end))) continue;
    const on = board.parts.find(
      (p) =>
        p.fitted &&
        (p.kind === 'bjt' || p.kind === 'mosfet') &&
        !power.has(p.ref) &&
        netKey(p.nets[0]!) === netKey(end),
    );
    const b = on ? unit.node(on.nets[2]!) : -1;
    if (!on || b < 0 || !unit.isSteady(b)) continue;
    const across = Math.abs(volts[a]! - volts[b]!);
    // One that is on already shows what it burns.
    if (Math.abs(volts[unit.node(end)]! - volts[b]!) < across / 2) continue;
    const words = `V² / R while ${on.ref} is on: (${formatQuantity(across, 'V')})² / ${formatQuantity(part.value, 'ohm')}`;
    return { watts: across ** 2 / part.value, words };
  }
  return null;
}
