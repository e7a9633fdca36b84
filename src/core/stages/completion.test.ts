import { labelledBoard } from '../../../bench/stageAccuracy';
import { sameTopology } from '../../../bench/stageLabels';
import { ALL_BOARDS } from '../../../bench/exampleBoards';
import type { Board } from '../circuit';
import { readNetlist } from '../netlist';
import { recogniseStages } from '.';

function without(board: Board, ...refs: readonly string[]): Board {
  return {
    ...board,
    parts: board.parts.filter((p) => !refs.includes(p.ref)),
    couplings: board.couplings.filter((k) => !refs.includes(k.first) && !refs.includes(k.second)),
  };
}

function boardOf(...lines: readonly string[]): Board {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return read.value.board;
}

test('whichever single part is not traced yet, the board is read as what it is: of a hundred parts two may matter', () => {
  let [asked, changed] = [0, 0];
  for (const name of ALL_BOARDS) {
    const { board, labels } = labelledBoard(name);
    board.parts.forEach((part, i) => {
      if (i % 4 !== 0 || !part.fitted) return;
      asked++;
      if (!sameTopology(recogniseStages(without(board, part.ref)).topology, labels)) changed++;
    });
  }
  expect(asked).toBeGreaterThan(260);
  expect(changed / asked).toBeLessThan(0.02);
}, 60_000);

const BUCK = [
  'XJ1 VIN GND CONN',
  'XF1 VIN VB FUSE ir=5',
  'C1 VB GND 220u vr=35 esr=0.1',
  'M1 VB GH SW NN',
  'M2 SW GL GND NN',
  'XU1 VCC GND FB HO SW BST LO CHIP',
  'R1 HO GH 4.7',
  'R2 LO GL 4.7',
  'R3 GL GND 10k',
  'C2 BST SW 100n',
  'D1 VCC BST DD',
  'L1 SW OUT 22u',
  'C3 OUT GND 470u vr=10 esr=0.03',
  'R4 OUT FB 10k',
  'R5 FB GND 2.2k',
  'C4 VCC GND 1u',
  'R6 VB VCC 47',
  'XJ2 OUT GND CONN',
  '.model NN NMOS()',
  '.model DD D()',
];
const board = boardOf(...BUCK);

test('the whole board lacks nothing and is sure', () => {
  const map = recogniseStages(board);
  expect(map.topology).toBe('synchronous-buck');
  expect(map.missing).toEqual([]);
  expect(map.topologyConfidence).toBeGreaterThan(0.9);
});

test.each([
  ['M1', 'the upper transistor', /transistor found yet at SW|gate net GH/u],
  ['M2', 'the lower transistor', /gate net GL/u],
  ['L1', 'the choke', /choke found yet at SW/u],
])('without %s, %s is named as missing, the topology stays, and it is less sure', (ref, _what, words) => {
  const map = recogniseStages(without(board, ref));
  expect(map.topology).toBe('synchronous-buck');
  expect(map.missing.join(' ')).toMatch(words);
  expect(map.topologyConfidence).toBeLessThan(recogniseStages(board).topologyConfidence);
});

test('what is only supposed is no part of the board: neither in a stage nor without one nor in a core', () => {
  const map = recogniseStages(without(board, 'M2', 'L1'));
  expect(map.missing.length).toBeGreaterThan(0);
  const told = [
    ...map.stages.flatMap((s) => s.parts),
    ...map.unplaced.map((u) => u.ref),
    ...map.cores.flatMap((c) => c.refs),
    ...map.converters.map((c) => c.ref),
  ];
  expect(told.filter((ref) => !board.parts.some((p) => p.ref === ref))).toEqual([]);
});

test('a driver of a relay is not taken for a switch that lost its choke', () => {
  const map = recogniseStages(
    boardOf(
      'XJ1 VIN GND CONN',
      'C1 VIN GND 220u vr=35 esr=0.1',
      'XU1 VIN GND GO CHIP',
      'R1 GO B 1k',
      'Q1 RC B GND QN',
      'D1 RC VIN DD',
      '.model QN NPN()',
      '.model DD D()',
    ),
  );
  expect(map.missing).toEqual([]);
  expect(map.topology).toBe('unknown');
});

test('parts of one kind of board in another order and under other names lack the same', () => {
  const parts = without(board, 'M2').parts.map((p, i) => ({ ...p, ref: `P${i}` }));
  const map = recogniseStages({ ...board, parts: [...parts].reverse() });
  expect(map.topology).toBe('synchronous-buck');
  expect(map.missing).toEqual(recogniseStages(without(board, 'M2')).missing);
});
