import { oscillatorStrain, royerStrain } from './drivenStrain';
import { factorStrain } from './factorStrain';
import { inverterStrain } from './inverterStrain';
import type { Modelled } from './modelled';
import type { Operation } from './operate';
import { plainStrain } from './plainStrain';
import { isInverter, isSimple } from './simpleConverter';

/** What the converters of a unit do that are worked out by their power, in closed form. crest: volts of the nodes at their crest. */
export function modelledConverters(operation: Operation, crest: Float64Array): readonly Modelled[] {
  const { unit, state } = operation;
  return unit.plan.converters.flatMap((c, i) => {
    const running = state.running.has(i);
    if (running ? unit.cells[i]?.result : isSimple(c) || unit.cells[i] || state.powered.size === 0) return [];
    if (isInverter(c)) return inverterStrain(operation, c, crest) ?? [];
    if (c.topology === 'boost-pfc') return factorStrain(operation, c, crest) ?? [];
    if (c.topology === 'royer') return royerStrain(operation, c) ?? [];
    const made = c.topology === 'blocking-oscillator' ? oscillatorStrain : plainStrain;
    return made(operation, c, crest) ?? [];
  });
}
