import { BLOCK_PINS, BOARD_LIMITS } from '../circuit';
import type { Coupling } from '../circuit';
import type { KeyText, Part } from '../part';
import { ownValue } from '../problem';
import { BASES } from '../quantity';
import type { Basis } from '../quantity';
import { NUMERIC_KEYS, RESERVED_BLOCKS } from './elementTable';
import { words } from './logicalLines';
import { netlistNumber } from './netlistNumber';
import { netlistError, netlistWarning } from './problems';
import type { NetlistProblem } from './problems';

/** What one element line gave: a part or a coupling, or neither, and what was wrong with it. */
export interface ElementReading {
  readonly part?: Part;
  readonly coupling?: Coupling;
  readonly problems: readonly NetlistProblem[];
}

interface Draft {
  readonly line: number;
  readonly name: string;
  readonly operands: readonly string[];
  readonly keys: readonly KeyText[];
  readonly numbers: Readonly<Record<string, number>>;
  readonly problems: NetlistProblem[];
}

const NODE_COUNT: Readonly<Record<string, number>> = { R: 2, C: 2, L: 2, V: 2, I: 2, D: 2, Q: 3, M: 3 };

const SHAPES: Readonly<Record<string, string>> = {
  R: 'Rxx a b value',
  C: 'Cxx a b value',
  L: 'Lxx a b value',
  V: 'Vxx p n value',
  I: 'Ixx p n value',
  D: 'Dxx anode cathode MODEL',
  Q: 'Qxx c b e MODEL',
  M: 'Mxx d g s MODEL',
  K: 'Kxx L1 L2 k',
  X: 'Xxx node… NAME',
};

/**
 * Reads one element line of a board netlist.
 *
 * ownSubcircuits  lower-case names of the file's own `.subckt`s, which override reserved names.
 */
export function readElement(line: number, text: string, ownSubcircuits: ReadonlySet<string>): ElementReading {
  const split = words(text);
  if (split === null) {
    return { problems: [netlistError(line, 'a double quote is not closed', 'a closing "', text)] };
  }
  const [name = '', ...rest] = split;
  const letter = name.charAt(0).toUpperCase();
  const shape = ownValue(SHAPES, letter);
  if (shape === undefined) {
    return { problems: [netlistError(line, `“${name}” is no element I know`, 'one of R C L K D Q M V I X', name)] };
  }
  const draft = makeDraft(line, name, rest);
  const reading = readByLetter(draft, letter, ownSubcircuits);
  if (reading === null) {
    draft.problems.push(netlistError(line, `${name} is not complete`, shape, text));
    return { problems: draft.problems };
  }
  const broken = draft.problems.some((p) => p.code === 'netlist-error');
  const printed = reading.part?.keys.find((k) => k.key.toLowerCase() === 'printed')?.text;
  if (reading.part && printed !== undefined && name.slice(1) === printed && !broken) {
    const keys = reading.part.keys.filter((k) => k.key.toLowerCase() !== 'printed');
    return { part: { ...reading.part, ref: printed, keys }, problems: draft.problems };
  }
  return broken ? { problems: draft.problems } : { ...reading, problems: draft.problems };
}

function makeDraft(line: number, name: string, rest: readonly string[]): Draft {
  const operands: string[] = [];
  const keys: KeyText[] = [];
  const numbers: Record<string, number> = {};
  const problems: NetlistProblem[] = [];
  for (const word of rest) {
    const at = word.indexOf('=');
    if (at < 0) {
      if (keys.length > 0) {
        problems.push(netlistError(line, `“${word}” stands after the key=value pairs`, 'key=value', word));
      } else operands.push(word);
      continue;
    }
    const key = word.slice(0, at);
    const written = word.slice(at + 1);
    const text = written.replace(/^"(.*)"$/u, '$1');
    if (key === '' || written === '') {
      problems.push(netlistError(line, 'a key=value pair is not complete', 'key=value', word));
      continue;
    }
    keys.push({ key, text });
    const lower = key.toLowerCase();
    if (!NUMERIC_KEYS.has(lower)) continue;
    const percent = text.endsWith('%');
    const value = netlistNumber(percent ? text.slice(0, -1) : text);
    if (value === null || value < 0 || value > BOARD_LIMITS.value) {
      problems.push(netlistError(line, `${key}= of ${name} is not a number`, 'a number such as 4.7k', text));
    } else numbers[lower] = percent ? value / 100 : value;
  }
  return { line, name, operands, keys, numbers, problems };
}

function readByLetter(
  draft: Draft,
  letter: string,
  ownSubcircuits: ReadonlySet<string>,
): Omit<ElementReading, 'problems'> | null {
  if (letter === 'K') return readCoupling(draft);
  if (letter === 'X') return readBlock(draft, ownSubcircuits);
  const count = NODE_COUNT[letter]!;
  if (draft.operands.length !== count + 1) return null;
  const nets = draft.operands.slice(0, count);
  const last = draft.operands[count]!;
  const common = { ...commonOf(draft), ref: draft.name, nets };
  if (letter === 'D') return { part: { ...common, kind: 'diode', model: last } };
  if (letter === 'Q') return { part: { ...common, kind: 'bjt', model: last } };
  if (letter === 'M') return { part: { ...common, kind: 'mosfet', model: last } };
  const value = netlistNumber(last);
  if (value === null) {
    draft.problems.push(
      netlistError(draft.line, `the value of ${draft.name} is not a number`, 'a number such as 4.7k', last),
    );
    return {};
  }
  if (Math.abs(value) > BOARD_LIMITS.value)
    draft.problems.push(
      netlistError(draft.line, `the value of ${draft.name} is beyond all parts`, `at most ${BOARD_LIMITS.value}`, last),
    );
  if (value < 0 && 'RCL'.includes(letter)) {
    draft.problems.push(netlistError(draft.line, `the value of ${draft.name} is negative`, 'zero or more', last));
  }
  warnImplausible(draft, letter, value, last);
  const kinds = { R: 'resistor', C: 'capacitor', L: 'inductor' } as const;
  if (letter === 'V' || letter === 'I') {
    return { part: { ...common, kind: letter === 'V' ? 'voltage-source' : 'current-source', value, valueText: last } };
  }
  return { part: { ...common, kind: kinds[letter as 'R' | 'C' | 'L'], value, valueText: last } };
}

function warnImplausible(draft: Draft, letter: string, value: number, text: string): void {
  if (letter === 'R' && value > 0 && value < 1e-3 && /m/iu.test(text) && !/meg/iu.test(text)) {
    draft.problems.push(
      netlistWarning(draft.line, `${draft.name} is ${value} ohm: M is milli here`, text.replace(/m/iu, 'MEG'), text),
    );
  } else if (letter === 'R' && value > 0 && value < 1 && /^[\d.]+M$/u.test(text)) {
    draft.problems.push(
      netlistWarning(draft.line, `${draft.name} is ${value} ohm: M is milli here`, text.replace(/m/iu, 'MEG'), text),
    );
  }
  if (letter === 'C' && value > 0 && value < 1e-12 && /f/iu.test(text)) {
    draft.problems.push(
      netlistWarning(draft.line, `${draft.name} is ${value} farad: F is femto here`, text.replace(/f/iu, ''), text),
    );
  }
}

function commonOf(draft: Draft): Pick<Part, 'keys' | 'numbers' | 'fitted' | 'basis'> {
  const text = (key: string): string | undefined =>
    draft.keys.find((k) => k.key.toLowerCase() === key)?.text.toLowerCase();
  const basis = BASES.find((b) => b === text('basis')) ?? ('seen' satisfies Basis);
  return { keys: draft.keys, numbers: draft.numbers, fitted: text('fit') !== 'no', basis };
}

function readCoupling(draft: Draft): Omit<ElementReading, 'problems'> | null {
  const [first, second, factorText] = draft.operands;
  if (first === undefined || second === undefined || factorText === undefined) return null;
  const factor = netlistNumber(factorText);
  if (factor === null || Math.abs(factor) > 1) {
    draft.problems.push(
      netlistError(draft.line, `${draft.name} has no usable coupling`, 'a factor from -1 to 1', factorText),
    );
    return {};
  }
  return { coupling: { name: draft.name, first, second, factor } };
}

function readBlock(draft: Draft, ownSubcircuits: ReadonlySet<string>): Omit<ElementReading, 'problems'> | null {
  const name = draft.operands.at(-1);
  const nets = draft.operands.slice(0, -1);
  if (name === undefined || nets.length === 0 || draft.name.length < 2) return null;
  const common = { ...commonOf(draft), ref: draft.name.slice(1), nets };
  const reserved = ownSubcircuits.has(name.toLowerCase()) ? undefined : ownValue(RESERVED_BLOCKS, name.toLowerCase());
  if (reserved === undefined) return { part: { ...common, kind: 'ic', subcircuit: name } };
  const wanted = BLOCK_PINS[reserved.kind];
  if (reserved.kind !== 'connector' && nets.length !== wanted.length) {
    draft.problems.push(
      netlistError(
        draft.line,
        `${draft.name} has ${nets.length} nodes`,
        `${wanted.length} nodes for ${name}: ${wanted.join(' ')}`,
        nets.join(' '),
      ),
    );
  }
  for (const key of reserved.required) {
    if (draft.numbers[key] === undefined) {
      draft.problems.push(netlistError(draft.line, `${draft.name} lacks ${key}=`, `${key}= in ohm`, ''));
    }
  }
  return { part: { ...common, kind: reserved.kind } };
}
