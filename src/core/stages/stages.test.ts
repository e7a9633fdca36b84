import { isFuse } from '../part';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { findPart, netKey } from '../circuit';
import type { Board, Nameplate } from '../circuit';
import { parseFault } from '../fault';
import { readNetlist } from '../netlist';
import { findPowerPath, inputPole, shortsPower } from '.';

function boardOf(plate: Nameplate | undefined, ...lines: string[]): Board {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return plate ? { ...read.value.board, nameplate: plate } : read.value.board;
}

const mains: Nameplate = {
  source: 'mains',
  inputRail: 'L',
  inputReturn: 'N',
  outputs: [{ rail: 'OUT', return: 'GND', volts: 12, amps: 1, kind: 'dc' }],
};
const front = [
  'XF1 L LF FUSE ir=2',
  'XRT1 LF LR NTC r25=5',
  'XRV1 LF N MOV',
  'XBD1 LR N HV+ HV- BRIDGE',
  'C1 HV+ HV- 47u',
  'LT1 HV+ D 1m',
  'M1 D G S MM',
  'RS1 S HV- 0.5',
  'RB1 HV+ B 470k',
  'D5 SEC OUT DD',
  'LO1 OUT OUTF 3u',
  'C8 OUTF GND 470u',
  'LT2 SEC GND 50u',
  '.model MM NMOS()',
  '.model DD D()',
];

test('the poles of a mains front end, followed through fuse, choke, bridge and winding', () => {
  const path = findPowerPath(boardOf(mains, ...front));
  const poles = path.input.map((p) => [...p].sort().join(' '));
  expect(poles).toEqual(['l lf lr', 'n', 'd hv+', 'hv- s']);
  expect(path.outputs.map((pair) => pair.map((p) => [...p].sort().join(' ')))).toEqual([['out outf', 'gnd sec']]);
});

test('four diodes in place of the block bridge make the same poles', () => {
  const discrete = front.flatMap((line) =>
    line.startsWith('XBD1') ? ['DB1 LR HV+ DD', 'DB2 N HV+ DD', 'DB3 HV- LR DD', 'DB4 HV- N DD'] : [line],
  );
  const poles = (board: Board): string[] => findPowerPath(board).input.map((p) => [...p].sort().join(' '));
  expect(poles(boardOf(mains, ...discrete))).toEqual(poles(boardOf(mains, ...front)));
});

test('a winding straight across the line, or two in series, leaves a pole at either end', () => {
  for (const windings of [['LT1 LF N 2'], ['LT1A LF MID 1', 'LT1B MID N 1']]) {
    const board = boardOf(mains, 'XF1 L LF FUSE ir=2', 'XRV1 LF N MOV', ...windings, 'C1 LF N 100n');
    const path = findPowerPath(board);
    expect(inputPole(path, 'LF')).toBe(0);
    expect(inputPole(path, 'N')).toBe(1);
    for (const ref of ['RV1', 'C1'])
      expect(shortsPower(board, path, findPart(board, ref)!, { kind: 'short', ref })).toBe('input');
  }
});

test('names mean nothing: renamed nets and designators give the same poles', () => {
  const rename = (text: string): string => text.replace(/\b(L|N|LF|LR|HV|D|S|B|OUT|OUTF|SEC|GND)\b(?!=)/gu, 'q$1');
  const board = boardOf(mains, ...front);
  const changed = {
    ...board,
    nameplate: { ...mains, inputRail: 'qL', inputReturn: 'qN', outputs: [] },
    parts: board.parts.map((p, i) => ({ ...p, ref: `Z${i}`, nets: p.nets.map(rename) })),
  };
  const sizes = (b: Board): number[] => findPowerPath(b).input.map((p) => p.size);
  expect(sizes(changed)).toEqual(sizes(board));
});

test('without a nameplate the fused connector is the inlet', () => {
  const board = boardOf(undefined, 'XJ1 L N CONN', ...front);
  expect(findPowerPath(board).input.map((p) => p.size)).toEqual([3, 1, 2, 2]);
  expect(findPowerPath(boardOf(undefined, 'R1 a b 1')).input).toEqual([]);
});

test('an empty position and a large resistor do not pass the current on', () => {
  const path = findPowerPath(boardOf(mains, ...front, 'R9 HV+ X 10 fit=no', 'R10 HV+ Y 10'));
  expect(inputPole(path, 'X')).toBe(-1);
  expect(inputPole(path, 'B')).toBe(-1);
  expect(inputPole(path, 'y')).toBe(2);
});

test.each([
  ['RV1:short', 'input'],
  ['C1:short', 'input'],
  ['M1:short(d,s)', 'input'],
  ['M1:short(g,s)', null],
  ['M1:short', 'input'],
  ['BD1:short(ac1,plus)', 'input'],
  ['BD1:short(plus,minus)', 'input'],
  ['F1:short', null],
  ['F1:open', null],
  ['C1:leak=50', 'input'],
  ['C1:leak=1k', null],
  ['RS1:short', null],
  ['RB1:short', null],
  ['C8:short', 'output'],
  ['D5:short', 'output'],
  ['LO1:short', null],
] as const)('%s shorts %p', (text, wanted) => {
  const board = boardOf(mains, ...front);
  const fault = parseFault(board, text);
  if (!fault.ok) throw new Error(fault.problem.sentence);
  const part = findPart(board, fault.value.ref)!;
  expect(shortsPower(board, findPowerPath(board), part, fault.value)).toBe(wanted);
});

test('a resistor marked as fusible is a fuse', () => {
  const board = boardOf(undefined, 'RF1 a b 4.7 fusible=yes', 'R1 a b 4.7', 'XF1 a b FUSE');
  expect(board.parts.map(isFuse)).toEqual([true, false, true]);
});

const folder = join(__dirname, '../../../fixtures/boards');
test.each(readdirSync(folder).filter((f) => f.endsWith('.cir')))(
  '%s: poles are apart from each other, and hold the nets of the nameplate',
  (file) => {
    const read = readNetlist(readFileSync(join(folder, file), 'utf8'));
    const labels = JSON.parse(readFileSync(join(folder, file.replace('.cir', '.labels.json')), 'utf8')) as {
      nameplate: Nameplate;
    };
    if (!read.ok) throw new Error(file);
    const path = findPowerPath({ ...read.value.board, nameplate: labels.nameplate });
    expect(path.input.length).toBeGreaterThanOrEqual(2);
    expect(path.input[0]!.has(netKey(labels.nameplate.inputRail!))).toBe(true);
    expect(path.input[1]!.has(netKey(labels.nameplate.inputReturn!))).toBe(true);
    for (const net of path.input[0]!) expect(path.input[1]!.has(net)).toBe(false);
    for (const [rail, back] of path.outputs) for (const net of rail) expect(back.has(net)).toBe(false);
  },
);
