import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { readNetlist } from '../netlist';
import { BLOCK_PINS, boardNets, findPart, pinIndex, pinNames, pinsOnNet, placesOnNet } from '.';
import { isElectrolytic, marking, partText, safetyClass } from '../part';
import type { Board } from '.';

function boardOf(...lines: string[]): Board {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return read.value.board;
}

const folder = join(__dirname, '../../../fixtures/boards');
const boards = readdirSync(folder)
  .filter((f) => f.endsWith('.cir'))
  .map((file) => {
    const read = readNetlist(readFileSync(join(folder, file), 'utf8'));
    if (!read.ok) throw new Error(file);
    return [file, read.value.board] as const;
  });

const zoo = boardOf(
  'R1 a b 1k',
  'C1 a b 1u',
  'L1 a b 1m',
  'V1 a b 5',
  'I1 a b 1m',
  'D1 a b DD',
  'Q1 a b c QQ',
  'M1 a b c MM',
  'M2 a b c MI',
  'XF1 a b FUSE',
  'XS1 a b SWITCH',
  'XRT1 a b NTC r25=5',
  'XRV1 a b MOV',
  'XBD1 a b c d BRIDGE',
  'XU1 a b c d OPTO',
  'XU2 a b c SHUNTREF',
  'XU3 a b c REG3',
  'XK1 a b c d RELAY rcoil=400',
  'XLA1 a b LAMP r=60',
  'XTR1 a b c TRIAC',
  'XJ1 a b c CONN',
  'XU4 a b c d e CHIP',
  'XU5 a b INSIDE',
  '.subckt INSIDE vcc gnd',
  'R1 vcc gnd 1k',
  '.ends',
  '.model DD D()',
  '.model QQ NPN()',
  '.model MM NMOS()',
  '.model MI NMOS(IGBT=1)',
);

test.each([
  ['R1', '1 2'],
  ['C1', '1 2'],
  ['L1', '1 2'],
  ['V1', '1 2'],
  ['I1', '1 2'],
  ['D1', 'a k'],
  ['Q1', 'c b e'],
  ['M1', 'd g s'],
  ['F1', 'a b'],
  ['S1', 'a b'],
  ['RT1', 'a b'],
  ['RV1', 'a b'],
  ['BD1', 'ac1 ac2 plus minus'],
  ['U1', 'a k c e'],
  ['U2', 'ref anode cathode'],
  ['U3', 'in gnd out'],
  ['K1', 'coil1 coil2 com no'],
  ['LA1', 'a b'],
  ['TR1', 'mt2 mt1 gate'],
  ['J1', '1 2 3'],
  ['U4', '1 2 3 4 5'],
])('%s has the pins %s of the contract', (ref, names) => {
  const part = findPart(zoo, ref)!;
  expect(pinNames(part).join(' ')).toBe(names);
  expect(part.nets).toHaveLength(pinNames(part).length);
});

test.each([
  ['M1', 'G', 1],
  ['M1', 'c', -1],
  ['M2', 'c', 0],
  ['M2', 'e', 2],
  ['U5', 'GND', 1],
  ['U5', '2', 1],
  ['U5', 'nothing', -1],
  ['BD1', 'PLUS', 2],
])('pin %s.%s is number %p', (ref, name, index) => expect(pinIndex(zoo, findPart(zoo, ref)!, name)).toBe(index));

test('designators are found in any case, with or without the X of the netlist, and never by half', () => {
  expect(findPart(zoo, 'xu4')?.ref).toBe('U4');
  expect(findPart(zoo, 'u4')?.ref).toBe('U4');
  expect(findPart(zoo, 'U')).toBeUndefined();
  expect(findPart(zoo, 'XR1')?.ref).toBe('R1');
});

test('nets: in order of appearance, without case, NC is none', () => {
  const board = boardOf('R1 VIN out 1', 'R2 Out NC 1', 'XU1 vin nc OUT CHIP');
  expect(boardNets(board)).toEqual(['VIN', 'out']);
  expect(pinsOnNet(board, 'OUT').map(({ part, pin }) => `${part.ref}.${pin}`)).toEqual(['R1.1', 'R2.0', 'U1.2']);
  expect(pinsOnNet(board, 'NC')).toEqual([]);
});

test.each([
  ['C1 a b 470u vr=35', true],
  ['C1 a b 2.2u mark="2.2uF 400V"', true],
  ['C1 a b 100n', false],
  ['C1 a b 2.2u', false],
  ['C1 a b 4.7u esr=5m', false],
  ['C1 a b 4.7u esr=1', true],
  ['C1 a b 10u mark="10uF X2"', false],
  ['R1 a b 1k', false],
])('%s: electrolytic? %p', (line, is) => expect(isElectrolytic(boardOf(line).parts[0]!)).toBe(is));

test.each([
  ['C1 a b 100n mark=".1uF X2 310~"', 'X'],
  ['C1 a b 2.2n mark="222M Y1 400~"', 'Y'],
  ['C1 a b 2.2n class=Y2', 'Y'],
  ['C1 a b 2.2n CLASS=Y1', 'Y'],
  ['C1 a b 100n class=X1', 'X'],
  ['C1 a b 100n mark="104K 50V"', null],
  ['C1 a b 100n mark="XY7R"', null],
  ['R1 a b 100 mark="X2"', null],
])('%s: safety class %p', (line, wanted) => expect(safetyClass(boardOf(line).parts[0]!)).toBe(wanted));

test('keys are read without case and kept as written', () => {
  const [part] = boardOf('R1 a b 1k Mark="1 k brown" MYKEY=7').parts;
  expect(marking(part!)).toBe('1 k brown');
  expect(part!.keys).toContainEqual({ key: 'MYKEY', text: '7' });
  expect(partText(part!, 'tol')).toBeUndefined();
});

test.each(boards)('%s: every pin has a place in words, the easiest first, each words once per net', (_file, board) => {
  for (const net of boardNets(board)) {
    const places = placesOnNet(board, net);
    expect(places).toHaveLength(pinsOnNet(board, net).length);
    for (let i = 1; i < places.length; i++) expect(places[i]!.ease).toBeGreaterThanOrEqual(places[i - 1]!.ease);
    for (const p of places) {
      expect(p.words.startsWith(`${p.ref} `)).toBe(true);
      expect(p.words).not.toMatch(/undefined|NaN/u);
    }
  }
});

test.each([
  ['XJ1 n x CONN mark="DC OUT"', 'J1 pin 1 (DC OUT)'],
  ['C1 n x 470u vr=35', 'C1 plus (big capacitor)'],
  ['D1 x n DD', 'D1 cathode, banded end'],
  ['M1 n g x MM', 'M1 drain, middle leg or tab'],
  ['Q1 x n y QQ', 'Q1 base leg'],
  ['XBD1 x y n z BRIDGE', 'BD1 plus leg'],
  ['XU3 x n y REG3', 'U3 ground leg or tab'],
  ['XU1 n x y z OPTO', 'U1 pin 1, LED anode'],
])('a place on %s', (line, words) => {
  const board = boardOf(line, '.model DD D()', '.model MM NMOS()', '.model QQ NPN()');
  expect(placesOnNet(board, 'n')[0]?.words).toBe(words);
});

test('the two ends of a small part are told apart by what they run to', () => {
  const board = boardOf('XF1 l n FUSE', 'R1 n o 1k', 'M1 o g s MM', '.model MM NMOS()');
  const words = (net: string): string | undefined => placesOnNet(board, net).find((p) => p.ref === 'R1')?.words;
  expect(words('n')).toBe('R1 end towards F1');
  expect(words('o')).toBe('R1 end towards M1');
});

test('an assumed part makes an assumed place, an empty position comes last', () => {
  const board = boardOf('C1 n x 470u fit=no', 'R1 n x 1k basis=assumed', 'R2 n x 1k');
  const places = placesOnNet(board, 'n');
  expect(places.at(-1)?.ref).toBe('C1');
  expect(places.find((p) => p.ref === 'R1')?.assumed).toBe(true);
  expect(places.find((p) => p.ref === 'R2')?.assumed).toBe(false);
});

test('the table of reserved pins has no name twice in a part', () => {
  for (const pins of Object.values(BLOCK_PINS)) expect(new Set(pins).size).toBe(pins.length);
});
