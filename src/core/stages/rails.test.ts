import { boardNets, netKey } from '../circuit';
import { readNetlist } from '../netlist';
import { seededRandom } from '../quantity';
import { testBoards } from '@/testing/boards';
import { rails } from '.';

function railsOf(...lines: string[]) {
  const read = readNetlist(['t', ...lines].join('\n'));
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return rails(read.value.board);
}

const GROUND = ['C9 VIN GND 100u vr=25', 'XJ1 VIN GND CONN', 'XU1 VOUT GND SW VF ICX'];

test.each([
  ['a fuse', ['XF1 VIN VF FUSE ir=2'], true],
  ['a fusible resistor', ['R1 VIN VF 10 fusible=yes'], true],
  ['a closed switch', ['XS1 VIN VF SWITCH'], true],
  ['an open switch', ['XS1 VIN VF SWITCH state=open'], false],
  ['an empty fuse', ['XF1 VIN VF FUSE ir=2 fit=no'], false],
  ['an inrush limiter', ['XN1 VIN VF NTC r25=5'], true],
  ['a sensor', ['XN1 VIN VF NTC r25=10k'], false],
  ['a shunt onto a capacitor', ['R1 VIN VF 0.1', 'C1 VF GND 10u'], true],
  ['a shunt onto what switches', ['R1 VIN VF 0.1'], false],
  ['a larger resistor', ['R1 VIN VF 10', 'C1 VF GND 10u'], false],
  ['a choke onto a capacitor', ['L1 VIN VF 10u', 'C1 VF GND 10u'], true],
  ['a choke onto a small capacitor', ['L1 VIN VF 10u', 'C1 VF GND 1n'], false],
  ['one winding of two', ['L1 VIN VF 10u', 'L2 VOUT SW 10u', 'K1 L1 L2 0.9', 'C1 VF GND 10u'], false],
  ['a contact of a relay', ['XK1 VOUT GND VIN VF RELAY rcoil=100'], false],
])('%s joins two nets into one rail: %p', (_name, lines, joined) => {
  const found = railsOf(...GROUND, ...(lines as string[]));
  expect(found.same('VIN', 'vf')).toBe(joined);
  expect(found.at('VIN').has('vf')).toBe(joined);
  expect(found.jointsAt('VIN').length).toBe(joined ? 1 : 0);
});

test('a choke onto a switching node is no rail, onto an output with nothing but its connector it is one', () => {
  const found = railsOf(...GROUND, 'L1 SW VOUT 10u', 'C1 VOUT GND 47u vr=10', 'L2 VOUT TIP 1u', 'XJ2 TIP GND CONN');
  expect(found.same('SW', 'VOUT')).toBe(false);
  expect(found.same('TIP', 'VOUT')).toBe(true);
});

test('what may burn open joins nothing for certain, and what merely is there does', () => {
  const found = railsOf(
    ...GROUND,
    'XF1 VIN VF FUSE',
    'C1 VF GND 10u',
    'L1 VF VB 1u',
    'C2 VB GND 10u',
    'R1 GND COM 0.01',
    'C3 VB COM 1u',
  );
  expect([...found.at('VB')].sort()).toEqual(['vb', 'vf', 'vin']);
  expect([...found.at('VB', 'burnt')].sort()).toEqual(['vb', 'vf']);
  expect(found.same('GND', 'COM')).toBe(true);
  expect(found.same('GND', 'COM', 'burnt')).toBe(false);
  expect(found.jointsAt('VIN').map((j) => [j.ref, j.kind, j.burnsOpen])).toEqual([
    ['F1', 'fuse', true],
    ['L1', 'choke', false],
  ]);
});

test('above a divider’s tap lies the rail with most capacitance', () => {
  const lines = ['R1 VOUT FB 10k', 'R2 FB GND 10k', 'R3 FB VIN 100k', 'C1 VOUT GND 10u', 'C2 FB GND 1n'];
  expect(railsOf(...GROUND, ...lines).above('FB', 'GND')).toBe('VIN');
  expect(railsOf(...GROUND, ...lines, 'C3 VOUT GND 470u').above('FB', 'GND')).toBe('VOUT');
  expect(railsOf('R1 A B 1k', 'R2 B C 1k').above('B', 'C')).toBe(null);
});

test.each(testBoards().map((t) => [t.name, t.board] as const))(
  '%s: rails part its nets, whatever their order',
  (_n, board) => {
    const found = rails(board);
    const random = seededRandom(7);
    const shuffled = rails({ ...board, parts: [...board.parts].sort(() => random() - 0.5) });
    for (const net of boardNets(board)) {
      const own = found.at(net);
      expect(own.has(netKey(net))).toBe(true);
      expect([...shuffled.at(net)].sort()).toEqual([...own].sort());
      for (const other of own) expect([...found.at(other)].sort()).toEqual([...own].sort());
      for (const burnt of found.at(net, 'burnt')) expect(own.has(burnt)).toBe(true);
    }
    for (const joint of found.joints) expect(found.same(joint.nets[0], joint.nets[1])).toBe(true);
  },
);
