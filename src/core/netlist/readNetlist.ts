import { BOARD_LIMITS, netKey } from '../circuit';
import type { Board, Coupling, LayoutItem, Subcircuit } from '../circuit';
import type { Part } from '../part';
import { ok, refuse } from '../problem';
import type { Result } from '../problem';
import type { Draft } from './draft';
import { logicalLines } from './logicalLines';
import type { LogicalLine } from './logicalLines';
import { netlistError } from './problems';
import type { NetlistProblem } from './problems';
import { lengthProblem, sizeProblems, unfolded } from './netlistSizes';
import { readElement } from './readElement';
import { readModel } from './readModel';
import { couplingLine, elementName, partLine } from './writeNetlist';

/** A board that was read, with what was implausible about it. */
export interface NetlistReading {
  readonly board: Board;
  readonly warnings: readonly NetlistProblem[];
}

/**
 * Reads a board netlist (`netlist.md` section 1).
 *
 * source  the whole text; line 1 is the title.
 * Refuses with every error, each with its line; then nothing is half-read. Warnings come with the board.
 */
export function readNetlist(source: string): Result<NetlistReading, readonly NetlistProblem[]> {
  const tooLong = lengthProblem(source);
  if (tooLong) return refuse([tooLong]);
  const { title, lines } = logicalLines(source);
  const ownSubcircuits = new Set(lines.flatMap((l) => /^\.subckt\s+(\S+)/iu.exec(l.text)?.[1]?.toLowerCase() ?? []));
  const draft: Draft = {
    parts: [],
    inner: [],
    couplings: [],
    models: new Map(),
    subcircuits: new Map(),
    layout: [],
    problems: [],
  };
  for (let i = 0; i < lines.length; i++) {
    const line = lines[i]!;
    if (/^\.subckt\b/iu.test(line.text)) i = readSubcircuit(draft, lines, i, ownSubcircuits);
    else if (/^\.end\s*$/iu.test(line.text)) {
      draft.layout.push(...lines.slice(i).map((l): LayoutItem => ({ kind: 'verbatim', written: l.written })));
      break;
    } else readLine(draft, line, ownSubcircuits);
  }
  const outsized = sizeProblems(title, draft);
  if (outsized.length === 0) {
    nameWindings(draft);
    checkReferences(draft);
  }
  const errors = [...draft.problems.filter((p) => p.code === 'netlist-error'), ...outsized];
  const parts = errors.length === 0 ? unfolded(draft) : 0;
  if (parts > BOARD_LIMITS.unfoldedParts)
    errors.push(
      netlistError(
        1,
        'with every inside unfolded this board is too large',
        `at most ${BOARD_LIMITS.unfoldedParts} parts, insides at most ${BOARD_LIMITS.depth} deep`,
        Number.isFinite(parts) ? `${parts} parts` : 'insides without end',
      ),
    );
  if (draft.parts.length === 0 && errors.length === 0) {
    errors.push(netlistError(1, 'the file holds no part', 'element lines after the title', title));
  }
  if (errors.length > 0)
    return refuse([...errors].sort((a, b) => a.details!.line - b.details!.line).slice(0, MOST_PROBLEMS));
  return ok({
    board: {
      title,
      parts: draft.parts.map((p) => p.part),
      couplings: draft.couplings.map((c) => c.coupling),
      models: draft.models,
      subcircuits: draft.subcircuits,
      layout: draft.layout,
    },
    warnings: draft.problems.slice(0, MOST_PROBLEMS),
  });
}

/** Problems that are reported of one file; nobody reads more. */
const MOST_PROBLEMS = 200;

/** Couplings name elements; on the board a winding has the designator that is printed there. */
function nameWindings(draft: Draft): void {
  const printed = new Map(draft.parts.map(({ part }) => [elementName(part).toLowerCase(), part.ref] as const));
  const ref = (name: string): string => printed.get(name.toLowerCase()) ?? name;
  draft.couplings.forEach((c, i) => {
    draft.couplings[i] = {
      ...c,
      coupling: { ...c.coupling, first: ref(c.coupling.first), second: ref(c.coupling.second) },
    };
  });
}

function readLine(draft: Draft, line: LogicalLine, ownSubcircuits: ReadonlySet<string>): void {
  if (line.text === '' || line.text.startsWith('*')) {
    draft.layout.push({ kind: 'verbatim', written: line.written });
    return;
  }
  if (/^\.model\b/iu.test(line.text)) {
    addModel(draft, line);
    return;
  }
  if (line.text.startsWith('.')) {
    draft.problems.push(
      netlistError(
        line.line,
        `“${line.text.split(/\s/u)[0]}” is no command I know`,
        '.model, .subckt, .ends or .end',
        line.text,
      ),
    );
    return;
  }
  const { part, coupling, problems } = readElement(line.line, line.text, ownSubcircuits);
  draft.problems.push(...problems);
  if (part) {
    draft.parts.push({ part, line: line.line });
    draft.layout.push({ kind: 'part', name: part.ref, written: line.written, canonical: partLine(part) });
  }
  if (coupling) {
    draft.couplings.push({ coupling, line: line.line });
    draft.layout.push({
      kind: 'coupling',
      name: coupling.name,
      written: line.written,
      canonical: couplingLine(coupling, []),
    });
  }
}

function addModel(draft: Draft, line: LogicalLine): void {
  const { model, problems } = readModel(line.line, line.text);
  draft.problems.push(...problems);
  if (!model) return;
  if (draft.models.has(model.name.toLowerCase())) {
    draft.problems.push(
      netlistError(line.line, `model ${model.name} is there twice`, 'one model of a name', model.name),
    );
    return;
  }
  draft.models.set(model.name.toLowerCase(), { ...model, written: line.written });
  draft.layout.push({ kind: 'model', name: model.name });
}

/** Reads from `.subckt` to `.ends`; gives the index of its last line. */
function readSubcircuit(
  draft: Draft,
  lines: readonly LogicalLine[],
  start: number,
  ownSubcircuits: ReadonlySet<string>,
): number {
  const head = lines[start]!;
  const [, name = '', ...pins] = head.text.split(/\s+/u);
  let end = start + 1;
  while (end < lines.length && !/^\.(?:ends|end)\b/iu.test(lines[end]!.text)) end++;
  const closed = end < lines.length && /^\.ends\b/iu.test(lines[end]!.text);
  if (!closed) draft.problems.push(netlistError(head.line, `.subckt ${name} is not closed`, '.ends', ''));
  if (name === '' || pins.length === 0) {
    draft.problems.push(
      netlistError(head.line, 'this .subckt has no name or no pins', '.subckt NAME pins …', head.text),
    );
  }
  if (draft.subcircuits.has(name.toLowerCase())) {
    draft.problems.push(netlistError(head.line, `.subckt ${name} is there twice`, 'one inside of a name', name));
  }
  const parts: Part[] = [];
  const couplings: Coupling[] = [];
  for (const line of lines.slice(start + 1, end)) {
    if (line.text === '' || line.text.startsWith('*')) continue;
    if (/^\.model\b/iu.test(line.text)) {
      addModel(draft, line);
      draft.layout.pop();
      continue;
    }
    const reading = readElement(line.line, line.text, ownSubcircuits);
    draft.problems.push(...reading.problems);
    if (reading.part) {
      parts.push(reading.part);
      draft.inner.push({ part: reading.part, line: line.line });
    }
    if (reading.coupling) couplings.push(reading.coupling);
  }
  const last = closed ? end : end - 1;
  const written = lines.slice(start, last + 1).map((l) => l.written);
  draft.subcircuits.set(name.toLowerCase(), { name, pins, parts, couplings, written });
  draft.layout.push({ kind: 'subcircuit', name });
  return last;
}

function checkReferences(draft: Draft): void {
  const seen = new Map<string, number>();
  for (const { part, line } of draft.parts) {
    const earlier = seen.get(part.ref.toLowerCase());
    if (earlier !== undefined) {
      draft.problems.push(
        netlistError(line, `${part.ref} is already on line ${earlier}`, 'one part of a designator', part.ref),
      );
    }
    seen.set(part.ref.toLowerCase(), line);
    draft.problems.push(...partProblems(draft, part, line));
  }
  for (const { part, line } of draft.inner) draft.problems.push(...partProblems(draft, part, line));
  for (const subcircuit of draft.subcircuits.values()) {
    if (nests(draft, subcircuit)) {
      draft.problems.push(
        netlistError(1, `.subckt ${subcircuit.name} holds itself`, 'an inside that ends', subcircuit.name),
      );
    }
  }
  const windings = new Set(draft.parts.filter((p) => p.part.kind === 'inductor').map((p) => p.part.ref.toLowerCase()));
  for (const { coupling, line } of draft.couplings) {
    for (const winding of [coupling.first, coupling.second]) {
      if (!windings.has(winding.toLowerCase())) {
        draft.problems.push(
          netlistError(
            line,
            `${coupling.name} names ${winding}, which is not here`,
            'an inductor of this file',
            winding,
          ),
        );
      }
    }
  }
}

function partProblems(draft: Draft, part: Part, line: number): readonly NetlistProblem[] {
  if (part.kind === 'ic') {
    const inside = draft.subcircuits.get(part.subcircuit.toLowerCase());
    return inside && inside.pins.length !== part.nets.length
      ? [
          netlistError(
            line,
            `${part.ref} has ${part.nets.length} nodes`,
            `${inside.pins.length} pins as in .subckt ${inside.name}`,
            part.nets.join(' '),
          ),
        ]
      : [];
  }
  if (part.kind !== 'diode' && part.kind !== 'bjt' && part.kind !== 'mosfet') return [];
  const model = draft.models.get(netKey(part.model));
  if (!model)
    return [
      netlistError(
        line,
        `${part.ref} uses model ${part.model}, which is not here`,
        'a .model of this file',
        part.model,
      ),
    ];
  const fits = { diode: ['D'], bjt: ['NPN', 'PNP'], mosfet: ['NMOS', 'PMOS'] }[part.kind];
  return fits.includes(model.type)
    ? []
    : [netlistError(line, `model ${model.name} is ${model.type}`, `${fits.join(' or ')} for ${part.ref}`, model.type)];
}

/** Whether an inside holds itself, by any way; each inside is looked into once. */
function nests(draft: Draft, subcircuit: Subcircuit, state: Map<string, 'open' | 'done'> = new Map()): boolean {
  const key = subcircuit.name.toLowerCase();
  if (state.get(key) === 'open') return true;
  if (state.get(key) === 'done') return false;
  state.set(key, 'open');
  const found = subcircuit.parts.some((part) => {
    const next = part.kind === 'ic' ? draft.subcircuits.get(part.subcircuit.toLowerCase()) : undefined;
    return next !== undefined && nests(draft, next, state);
  });
  state.set(key, 'done');
  return found;
}
