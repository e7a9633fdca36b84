import { BOARD_LIMITS, DESIGNATOR } from '../circuit';
import type { Part } from '../part';
import { netlistError } from './problems';
import type { NetlistProblem } from './problems';
import type { Draft } from './draft';

/** A text that is too long to be read at all, found without reading it. */
export function lengthProblem(source: string): NetlistProblem | null {
  const { characters, lines } = BOARD_LIMITS;
  if (source.length > characters)
    return netlistError(1, 'the file is too long', `at most ${characters} characters`, `${source.length} characters`);
  let count = 1;
  for (let at = source.indexOf('\n'); at >= 0; at = source.indexOf('\n', at + 1)) count++;
  return count > lines
    ? netlistError(lines, 'the file has too many lines', `at most ${lines} lines`, `${count} lines`)
    : null;
}

/** What of a file is larger than a board may be. */
export function sizeProblems(title: string, draft: Draft): readonly NetlistProblem[] {
  const found: NetlistProblem[] = [];
  const over = (line: number, what: string, count: number, most: number): void => {
    if (count > most)
      found.push(
        netlistError(
          line,
          `${what} ${count === 1 ? 'is' : 'are'} too many or too long`,
          `at most ${most}`,
          String(count),
        ),
      );
  };
  over(1, 'the characters of the title', title.length, BOARD_LIMITS.titleLength);
  over(1, 'the parts', draft.parts.length, BOARD_LIMITS.parts);
  over(1, 'the couplings', draft.couplings.length, BOARD_LIMITS.couplings);
  over(1, 'the models', draft.models.size, BOARD_LIMITS.models);
  over(1, 'the insides', draft.subcircuits.size, BOARD_LIMITS.subcircuits);
  for (const { part, line } of [...draft.parts, ...draft.inner]) {
    if (!DESIGNATOR.test(part.ref))
      found.push(
        netlistError(
          line,
          `“${part.ref.slice(0, 40)}” cannot name a part`,
          'a name without . : ; = , + or brackets',
          part.ref,
        ),
      );
    over(line, `the nodes of ${part.ref.slice(0, 20)}`, part.nets.length, BOARD_LIMITS.pins);
    over(line, `the key=value pairs of ${part.ref.slice(0, 20)}`, part.keys.length, BOARD_LIMITS.keys);
    const names = [part.ref, ...part.nets, ...part.keys.map((k) => k.key), nameOf(part)];
    over(line, `the characters of a name at ${part.ref.slice(0, 20)}`, longest(names), BOARD_LIMITS.nameLength);
    over(
      line,
      `the characters of a value at ${part.ref.slice(0, 20)}`,
      longest(part.keys.map((k) => k.text)),
      BOARD_LIMITS.textLength,
    );
  }
  for (const { coupling, line } of draft.couplings)
    over(
      line,
      'the characters of a name',
      longest([coupling.name, coupling.first, coupling.second]),
      BOARD_LIMITS.nameLength,
    );
  for (const { name } of draft.models.values())
    over(1, 'the characters of a model’s name', name.length, BOARD_LIMITS.nameLength);
  for (const { name, pins } of draft.subcircuits.values()) {
    over(1, 'the characters of a name', longest([name, ...pins]), BOARD_LIMITS.nameLength);
    over(1, `the pins of ${name.slice(0, 20)}`, pins.length, BOARD_LIMITS.pins);
  }
  return found;
}

function nameOf(part: Part): string {
  return 'model' in part ? part.model : 'subcircuit' in part ? part.subcircuit : '';
}

const longest = (names: readonly string[]): number => names.reduce((most, n) => Math.max(most, n.length), 0);

/** Parts of the board with every inside unfolded; insides that hold themselves, or lie too deep, count as endless. */
export function unfolded(draft: Draft): number {
  const known = new Map<string, number>();
  const count = (name: string, depth: number): number => {
    const key = name.toLowerCase();
    const inside = draft.subcircuits.get(key);
    if (!inside) return 1;
    if (depth > BOARD_LIMITS.depth) return Infinity;
    const before = known.get(key);
    if (before !== undefined) return before;
    // While it is being counted it counts as endless, and so does whatever holds itself.
    known.set(key, Infinity);
    const sum = inside.parts.reduce((n, p) => n + (p.kind === 'ic' ? count(p.subcircuit, depth + 1) : 1), 0);
    known.set(key, sum);
    return sum;
  };
  return draft.parts.reduce((n, { part }) => n + (part.kind === 'ic' ? count(part.subcircuit, 1) : 1), 0);
}
