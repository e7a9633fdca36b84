import type { Model } from '../part';
import { MODEL_PARAMETERS } from './elementTable';
import { words } from './logicalLines';
import { netlistNumber } from './netlistNumber';
import { netlistError, netlistWarning } from './problems';
import type { NetlistProblem } from './problems';

const SHAPE = /^\.model\s+(\S+)\s+([a-z]+)\s*(?:\((.*)\)|(.*))$/iu;

/** Reads one `.model` line. Unknown parameters are kept as written, with a warning. */
export function readModel(
  line: number,
  text: string,
): { readonly model?: Model; readonly problems: readonly NetlistProblem[] } {
  const match = SHAPE.exec(text);
  const type = match?.[2]?.toUpperCase();
  if (!match || !(type && Object.hasOwn(MODEL_PARAMETERS, type))) {
    return {
      problems: [netlistError(line, 'this model is not complete', '.model NAME D|NPN|PNP|NMOS|PMOS(…)', text)],
    };
  }
  const known: readonly string[] = MODEL_PARAMETERS[type as Model['type']];
  const problems: NetlistProblem[] = [];
  const numbers: Record<string, number> = {};
  const name = match[1]!;
  for (const pair of words((match[3] ?? match[4] ?? '').replaceAll(',', ' ').replaceAll('"', ' ')) ?? []) {
    if (pair === '') continue;
    const [key = '', written = ''] = pair.split('=');
    const value = netlistNumber(written);
    if (value === null) {
      problems.push(netlistError(line, `${key} of model ${name} is not a number`, `${key}=number`, pair));
      continue;
    }
    const lower = key.toLowerCase();
    numbers[lower] = value;
    if (!known.includes(lower)) {
      problems.push(
        netlistWarning(line, `model ${name} has ${key}, which I keep but do not use`, known.join(' '), pair),
      );
    }
    if (lower === 'is' && value > 1e-3) {
      problems.push(netlistWarning(line, `IS of ${name} is ${value} A`, `${written}n or ${written}p`, pair));
    }
    if (['is', 'n', 'bf', 'br', 'nf', 'nr', 'bodyn'].includes(lower) && value <= 0) {
      problems.push(netlistError(line, `${key} of model ${name} must be above zero`, 'a positive number', pair));
    }
  }
  return { model: { name, type: type as Model['type'], numbers, written: text }, problems };
}
