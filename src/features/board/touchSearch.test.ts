import { deriveBoard, readShorthand } from '@/core/trace';
import type { TraceEntry } from '@/core/trace';
import type { Board } from '@/core/circuit';
import { exampleBoard } from '../../../bench/exampleBoards';
import { followed, nextTouch } from './touchSearch';

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

/** Follows the proposals, each answered by the same link, until there is none left. */
function follow(link: (spots: readonly [string, string]) => string): { asked: string[]; board: Board } {
  const lines = [...LINES];
  const asked: string[] = [];
  for (let i = 0; i < 400; i++) {
    const { board, entries } = traced(...lines);
    const proposal = nextTouch(board, entries, new Set());
    if (!proposal) return { asked, board };
    asked.push(proposal.key);
    lines.push(`${proposal.spots[0]} ${link(proposal.spots)} ${proposal.spots[1]}`);
  }
  throw new Error('no end');
}

test('every proposal is one line of the shorthand, none comes twice, and silence everywhere comes to an end', () => {
  const { asked, board } = follow(() => '-/-');
  expect(new Set(asked).size).toBe(asked.length);
  expect(asked.length).toBeGreaterThan(20);
  expect(followed(board).done).toBeLessThan(followed(board).of);
});

test('joined everywhere: few touches follow every pin, and the two ends of a part never meet', () => {
  const { asked, board } = follow(() => '--');
  expect(asked.length).toBeLessThan(followed(board).of);
  for (const part of board.parts.filter((p) => p.nets.length === 2)) expect(part.nets[0]).not.toBe(part.nets[1]);
});

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
