import { netKey, pinNames } from '../circuit';
import { partText, PART_FIGURES, partFigure } from '../part';
import type { Board } from '../circuit';
import type { Part } from '../part';
import { formatQuantity } from '../quantity';

/** One part that differs between two boards. */
export interface Difference {
  readonly ref: string;
  readonly kind: 'only-here' | 'only-there' | 'changed';
  readonly words: string;
}

/**
 * What differs between two boards of one design: parts on one only, values, markings, fitted or not, connections.
 * Designators are compared; net names are not: a connection differs when a pin's neighbours do.
 */
export function compareBoards(here: Board, there: Board): readonly Difference[] {
  const other = new Map(there.parts.map((p) => [p.ref.toLowerCase(), p]));
  // A part on one board only changes no connection of the others.
  const common = new Set(here.parts.map((p) => p.ref.toLowerCase()).filter((ref) => other.has(ref)));
  const [mine, theirs] = [neighbours(here, common), neighbours(there, common)];
  const found: Difference[] = [];
  for (const part of here.parts) {
    const twin = other.get(part.ref.toLowerCase());
    other.delete(part.ref.toLowerCase());
    if (!twin) {
      found.push({ ref: part.ref, kind: 'only-here', words: `${part.kind} ${valueWords(part)}`.trim() });
      continue;
    }
    const said = changes(part, twin, mine, theirs);
    if (said.length > 0) found.push({ ref: part.ref, kind: 'changed', words: said.join('; ') });
  }
  for (const part of other.values())
    found.push({ ref: part.ref, kind: 'only-there', words: `${part.kind} ${valueWords(part)}`.trim() });
  return found;
}

function changes(
  a: Part,
  b: Part,
  mine: ReadonlyMap<string, string>,
  theirs: ReadonlyMap<string, string>,
): readonly string[] {
  if (a.kind !== b.kind) return [`${a.kind} here, ${b.kind} there`];
  const said: string[] = [];
  if (a.fitted !== b.fitted) said.push(a.fitted ? 'fitted here only' : 'fitted there only');
  if ('value' in a && 'value' in b && Math.abs(a.value - b.value) > 1e-9 * Math.max(a.value, b.value))
    said.push(`${valueWords(a)} here, ${valueWords(b)} there`);
  const marks = [partText(a, 'mark') ?? '', partText(b, 'mark') ?? ''];
  if (marks[0] !== marks[1]) said.push(`“${marks[0]}” here, “${marks[1]}” there`);
  for (const figure of ['ratedVolts', 'ratedAmps', 'ratedWatts'] as const) {
    const [here, there] = [partFigure(a, figure), partFigure(b, figure)];
    if (here !== there) said.push(`${PART_FIGURES[figure].key} ${here ?? 'unknown'} here, ${there ?? 'unknown'} there`);
  }
  pinNames(a).forEach((name, i) => {
    if (mine.get(`${a.ref.toLowerCase()} ${i}`) !== theirs.get(`${b.ref.toLowerCase()} ${i}`))
      said.push(`pin ${name} is joined to other parts`);
  });
  return said;
}

/** For each pin the pins that share its net, by designator, as one text. */
function neighbours(board: Board, common: ReadonlySet<string>): ReadonlyMap<string, string> {
  const nets = new Map<string, string[]>();
  const each = (visit: (key: string, pin: string) => void): void => {
    for (const p of board.parts)
      if (common.has(p.ref.toLowerCase())) p.nets.forEach((n, i) => visit(netKey(n), `${p.ref.toLowerCase()} ${i}`));
  };
  each((net, pin) => nets.set(net, [...(nets.get(net) ?? []), pin]));
  const told = new Map<string, string>();
  each((net, pin) =>
    told.set(
      pin,
      net === 'nc'
        ? ''
        : nets
            .get(net)!
            .filter((p) => p !== pin)
            .sort()
            .join(', '),
    ),
  );
  return told;
}

function valueWords(part: Part): string {
  if (part.kind === 'resistor') return formatQuantity(part.value, 'ohm');
  if (part.kind === 'capacitor') return formatQuantity(part.value, 'F');
  return part.kind === 'inductor' ? formatQuantity(part.value, 'H') : (partText(part, 'mark') ?? '');
}
