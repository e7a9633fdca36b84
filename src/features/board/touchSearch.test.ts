import { archetypeBoard } from '@/core/archetype';
import { readBoard, solverFor } from '@/core/meter';
import { deriveBoard, readShorthand } from '@/core/trace';
import type { TraceEntry } from '@/core/trace';
import type { Board } from '@/core/circuit';
import { exampleBoard } from '../../../bench/exampleBoards';
import { followed, nextTouch } from './touchSearch';
import type { TouchProposal } from './touchSearch';

const EMPTY: Board = { title: 't', parts: [], couplings: [], models: new Map(), subcircuits: new Map(), layout: [] };

function traced(...lines: string[]): { board: Board; entries: readonly TraceEntry[] } {
  const entries = lines.flatMap((text, i) => {
    const read = readShorthand(text);
    if (!read.ok || !read.value) throw new Error(text);
    return [{ id: `${i}`, fact: read.value }];
  });
  return { board: deriveBoard(EMPTY, entries).board, entries };
}

const LINES = [
  'M1 9N65 ? ? ?',
  'R4 220 ? ?',
  'R5 103 ? ?',
  'C1 "100uF 400V" HV+ HV-',
  'U1 KV51 HV- ? ? ?',
  'R6 R56 ? ?',
];

/** Follows the proposals, each answered by the line that says so, until there is none left. */
function follow(answer: (proposal: TouchProposal) => string): { asked: string[]; board: Board } {
  const lines = [...LINES];
  const asked: string[] = [];
  for (let i = 0; i < 400; i++) {
    const { board, entries } = traced(...lines);
    const proposal = nextTouch(board, entries, new Set());
    if (!proposal) return { asked, board };
    asked.push(proposal.key);
    lines.push(answer(proposal));
  }
  throw new Error('no end');
}

test('every proposal is one line of the shorthand, none comes twice, and silence everywhere comes to an end', () => {
  const { asked, board } = follow(({ kind, spots: [a, b] }) => `${a} ${kind === 'diode' ? '-OL-' : '-/-'} ${b}`);
  expect(new Set(asked).size).toBe(asked.length);
  expect(asked.length).toBeGreaterThan(20);
  expect(followed(board).done).toBeLessThan(followed(board).of);
});

test('joined everywhere: few touches follow every pin, and the two ends of a part never meet', () => {
  const { asked, board } = follow(({ kind, spots: [a, b] }) => `${a} ${kind === 'diode' ? '-0.6V-' : '--'} ${b}`);
  expect(asked.length).toBeLessThan(3 * followed(board).of);
  for (const part of board.parts.filter((p) => p.nets.length === 2)) expect(part.nets[0]).not.toBe(part.nets[1]);
});

test('beeps everywhere come to an end as well, whatever may have carried them', () => {
  const { asked } = follow(({ spots: [a, b] }) => `${a} -~- ${b}`);
  expect(asked.length).toBeLessThan(150);
});

/** What a meter on the true board says of a proposal, as the line that is written down. */
function measured(board: Board): (proposal: TouchProposal) => string {
  const solver = solverFor(board, []);
  const netOf = (spot: string): string => {
    const [ref, pin] = spot.split('.');
    return board.parts.find((p) => p.ref === ref)!.nets[Number(pin) - 1]!;
  };
  const shown = (mode: 'diode' | 'continuity', red: string, black: string): string => {
    const read = readBoard(board, solver, mode, netOf(red), netOf(black));
    return read.ok && read.value.reading.kind === 'figure' ? read.value.reading.value.toPrecision(4) : 'OL';
  };
  return ({ kind, spots, resting }) => {
    const [first, second] = resting === 'red' ? spots : ([spots[1], spots[0]] as const);
    if (netOf(first) === netOf(second)) return `${first} -- ${second}`;
    const figure = shown(kind === 'diode' ? 'diode' : 'continuity', first, second);
    if (kind === 'diode') return `${first} ${figure === 'OL' ? '-OL-' : `-${figure}V-`} ${second}`;
    return `${first} ${figure === 'OL' ? '-/-' : `-${figure}-`} ${second}`;
  };
}

test.each(['linear', 'buck-module'])(
  '%s: followed by touches alone, the board is what it is, in few of them',
  (name) => {
    const board = archetypeBoard(name)!;
    const start: Board = {
      ...board,
      parts: board.parts.map(
        (p) => ({ ...p, nets: p.nets.map((_, i) => `${p.ref}.${i + 1}`) }) as (typeof board.parts)[number],
      ),
    };
    const answer = measured(board);
    const entries: TraceEntry[] = [];
    let now = deriveBoard(start, entries);
    let rested = 0;
    for (;;) {
      const proposal = nextTouch(now.board, entries, new Set());
      if (!proposal) break;
      if (proposal.kind === 'diode') rested++;
      const read = readShorthand(answer(proposal));
      if (!read.ok || !read.value) throw new Error(answer(proposal));
      entries.push({ id: `${entries.length}`, fact: read.value });
      now = deriveBoard(start, entries);
    }
    const groups = (b: Board): string[] => {
      const nets = new Map<string, string[]>();
      for (const p of b.parts)
        p.nets.forEach((net, i) =>
          nets.set(net.toLowerCase(), [...(nets.get(net.toLowerCase()) ?? []), `${p.ref}.${i + 1}`]),
        );
      return [...nets.values()].map((pins) => pins.join(' ')).sort();
    };
    const pins = board.parts.reduce((sum, p) => sum + p.nets.length, 0);
    expect(groups(now.board)).toEqual(groups(board));
    expect(now.contradictions).toEqual([]);
    expect(rested).toBeGreaterThan(pins / 3);
    expect(entries.length).toBeLessThan(6 * pins);
  },
);

test('a place that cannot be reached is put aside', () => {
  const { board, entries } = traced(...LINES);
  const first = nextTouch(board, entries, new Set())!;
  const second = nextTouch(board, entries, new Set([first.key]))!;
  expect(second.key).not.toBe(first.key);
  expect(first.places[0]).toMatch(/\w/u);
});

test('nothing is asked on a board that is followed, or that has no parts', () => {
  const board = exampleBoard('lamp-supply-24v');
  expect(nextTouch(board, [], new Set())).toBeNull();
  expect(followed(board)).toMatchObject({ done: followed(board).of });
  expect(nextTouch(EMPTY, [], new Set())).toBeNull();
});
