import { exampleBoard } from '../../../bench/exampleBoards';
import { readNetlist } from '../netlist';
import type { Board } from '../circuit';
import { netsCsv, partsCsv, pinsCsv } from '../tables';
import { deriveBoard, readShorthand } from '../trace';
import { compareBoards } from '.';
import { readPartsText } from '@/wire/csv';

function boardOf(...lines: string[]): Board {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return read.value.board;
}

test('a board is the same as itself, whatever its nets are called', () => {
  const board = exampleBoard('lamp-supply-24v');
  expect(compareBoards(board, board)).toEqual([]);
  const renamed = { ...board, parts: board.parts.map((p) => ({ ...p, nets: p.nets.map((n) => `X${n}`) })) };
  expect(compareBoards(board, renamed)).toEqual([]);
});

test('a changed resistor, another marking, a part on one side only, another connection', () => {
  const here = boardOf('R1 A B 4.7k mark=472', 'R2 B C 1k', 'C1 A C 1u vr=25', 'R9 A C 1MEG');
  const there = boardOf('R1 A B 5.6k mark=562', 'R2 B C 1k fit=no', 'C1 A B 1u vr=16', 'L3 A C 1u');
  const found = new Map(compareBoards(here, there).map((d) => [d.ref, d]));
  expect(found.get('R1')!.words).toMatch(/4\.7\skΩ here, 5\.6\skΩ there/u);
  expect(found.get('R1')!.words).toContain('“472” here, “562” there');
  expect(found.get('R2')!.words).toContain('fitted here only');
  expect(found.get('C1')!.words).toContain('pin 2 is joined to other parts');
  expect(found.get('C1')!.words).toContain('vr 25 here, 16 there');
  expect([found.get('R9')!.kind, found.get('L3')!.kind]).toEqual(['only-here', 'only-there']);
});

describe('tables as CSV', () => {
  const board = exampleBoard('lamp-supply-24v');
  const rows = (text: string): string[] => text.trim().split('\n');

  test('one row a part, a pin, a net, and every pin on its net', () => {
    expect(rows(partsCsv(board))).toHaveLength(board.parts.length + 1);
    expect(rows(pinsCsv(board))).toHaveLength(board.parts.reduce((n, p) => n + p.nets.length, 0) + 1);
    const nets = rows(netsCsv(board)).slice(1);
    expect(nets.find((r) => r.startsWith('DRAIN,'))).toContain('M1.d');
    expect(partsCsv(board)).toMatch(/^CX1,capacitor,\S+,\.22uF X2 310~,yes,seen,310,/mu);
  });

  test('a parts list read back says nothing new about its own board', () => {
    expect(readPartsText(partsCsv(board), board)).toEqual({ lines: [], troubles: [] });
  });

  test('changes come as lines of the shorthand; a bad row is named and the rest kept', () => {
    const text = 'ref;value;mark;nets\nR1;220k;224;\nR900;1k;;A B\n;;x;\n"Z,9";1k;;A B\nR2;;"2""04";\n';
    const { lines, troubles } = readPartsText(text, board);
    expect(lines).toEqual(['R1 "224" is=220k', 'R900 1k is=1k 1:A 2:B', 'R2 "2″04"']);
    expect(troubles.map((t) => t.row)).toEqual([4, 5]);
    const facts = lines.flatMap((l, i) => {
      const read = readShorthand(l);
      return read.ok && read.value ? [{ id: `${i}`, fact: read.value }] : [];
    });
    const traced = deriveBoard(board, facts);
    expect(traced.misfits).toEqual([]);
    expect(traced.board.parts.find((p) => p.ref === 'R900')).toMatchObject({ value: 1000, nets: ['A', 'B'] });
  });

  test('a table without designators is refused as a whole', () => {
    expect(readPartsText('a,b\n1,2', board)).toMatchObject({ lines: [], troubles: [{ row: 1 }] });
  });
});
