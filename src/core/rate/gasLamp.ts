import { netKey } from '../circuit';
import type { Board } from '../circuit';
import { partFigure, sheetFact } from '../part';
import type { Part } from '../part';
import { formatQuantity } from '../quantity';
import { peakOf } from '../work';
import type { Strains } from '../work';

/** Volts of a lit gas lamp as a share of those at which it strikes, where nobody told. */
const LIT_SHARE = 0.7;
const STEPS = 60;

/** What a resistor in series with a gas lamp alone bears and burns while the lamp is lit; null for any other. */
export function behindLamp(
  board: Board,
  part: Part,
  strains: Strains,
): { readonly volts: number; readonly watts: number; readonly words: string } | null {
  if (part.kind !== 'resistor') return null;
  const { unit } = strains.operation;
  for (const [near, hung] of [part.nets, [...part.nets].reverse()]) {
    const others = board.parts.filter((p) => p !== part && p.fitted && p.nets.some((n) => netKey(n) === netKey(hung!)));
    const [lamp] = others;
    if (others.length !== 1 || lamp?.kind !== 'lamp') continue;
    const strike = partFigure(lamp, 'strikeVolts');
    const lit = sheetFact(board.facts, lamp.ref, 'vLit') ?? (strike === undefined ? undefined : LIT_SHARE * strike);
    if (lit === undefined) continue;
    const far = lamp.nets.find((n) => netKey(n) !== netKey(hung!)) ?? hung!;
    const swing = strains.across(unit.node(near!), unit.node(far));
    const peak = peakOf(swing);
    if (peak < (strike ?? lit)) return { volts: peak, watts: 0, words: `${lamp.ref} is dark` };
    // A sine about nothing, or what stands.
    const alternates = Math.abs(swing.mean) < swing.rms / 4;
    let square = 0;
    for (let i = 0; i < STEPS; i++) {
      const now = peak * (alternates ? Math.sin(((i + 0.5) / STEPS) * Math.PI) : 1);
      square += Math.max(now - lit, 0) ** 2 / STEPS;
    }
    const words = `${formatQuantity(peak, 'V')} less the ${formatQuantity(lit, 'V')} of ${lamp.ref} lit`;
    return { volts: peak - lit, watts: square / part.value, words };
  }
  return null;
}
