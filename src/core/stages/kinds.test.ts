import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Board } from '../circuit';
import { readNetlist } from '../netlist';
import { recogniseStages } from '.';

const root = process.env['LANTERN_ROOT'] ?? process.cwd();

function boardOf(text: string): Board {
  const read = readNetlist(text);
  if (!read.ok) throw new Error(read.problem.map((p) => p.sentence).join('\n'));
  return read.value.board;
}

const kind = (name: string): Board => boardOf(readFileSync(join(root, `fixtures/kinds/${name}.cir`), 'utf8'));

/** Boards of kinds that no example is of: what they are, and parts by what they do. */
const WANTED: Readonly<Record<string, readonly [topology: string, stages: Readonly<Record<string, string>>]>> = {
  multiplier: [
    'half-bridge',
    { C11: 'multiplier', D12: 'multiplier', C13: 'multiplier', D14: 'multiplier', C9: 'transformer' },
  ],
  traction: [
    'boost+three-phase-inverter',
    { M1: 'switch', M3: 'inverter-bridge', RY1: 'inrush', R1: 'inrush', R11: 'sensing' },
  ],
  'pfc-llc': [
    'boost-pfc+half-bridge+flyback',
    {
      L1: 'pfc',
      M2: 'switch',
      M4: 'output-rectifier',
      M5: 'output-rectifier',
      LR: 'tank',
      D4: 'output-rectifier',
      R10: 'feedback',
    },
  ],
  inverting: ['buck-boost', { D1: 'output-rectifier', C3: 'output-filter', R1: 'feedback' }],
  'rectified-return': [
    'flyback',
    { D7: 'output-rectifier', C4: 'output-filter', D5: 'aux-supply', D1: 'rectifier', R2: 'startup' },
  ],
  'two-phases': ['boost', { M1: 'switch', M2: 'switch', R5: 'current-sense', R7: 'feedback', D2: 'output-rectifier' }],
  // The little bridge only measures the winding: what it makes of it carries milliamperes.
  'sensed-inverter': ['line-frequency-inverter', { M1: 'switch', R1: 'gate-drive', R7: 'aux-supply' }],
  'two-amplifier-charger': [
    'half-bridge',
    {
      LT2A: 'gate-drive',
      LT2C: 'gate-drive',
      LT1P: 'transformer',
      D4: 'output-rectifier',
      U4: 'regulator',
      R14: 'current-sense',
      RL1: 'protection',
      R33: 'indicator',
    },
  ],
  'solar-charger': [
    'synchronous-buck+buck',
    {
      M1: 'protection',
      M4: 'protection',
      M5: 'protection',
      U2: 'sensing',
      R13: 'sensing',
      RT1: 'sensing',
      L1: 'output-filter',
      R4: 'gate-drive',
    },
  ],
  'ac-switch-dropper': [
    'solid-state-relay',
    {
      TR1: 'switch',
      C3: 'aux-supply',
      DZ1: 'aux-supply',
      OK1: 'gate-drive',
      R7: 'sensing',
      C1: 'emi-filter',
      RV1: 'surge',
      R1: 'clamp',
    },
  ],
  // One diode for a rectifier: the line all the same.
  'ringing-choke': [
    'blocking-oscillator',
    {
      D1: 'rectifier',
      R1: 'mains-input',
      C1: 'bulk',
      R2: 'startup',
      C3: 'gate-drive',
      Q2: 'current-sense',
      OK1: 'feedback',
      D4: 'output-rectifier',
      C5: 'aux-supply',
    },
  ],
  'lamp-ballast': [
    'half-bridge',
    { LT1C: 'gate-drive', R1: 'startup', C2: 'startup', L2: 'tank', C4: 'tank', C5: 'tank', R5: 'current-sense' },
  ],
  'current-doubler': [
    'full-bridge',
    {
      LG1P: 'gate-drive',
      C6: 'gate-drive',
      LCT1: 'current-sense',
      D1: 'output-rectifier',
      L1: 'output-filter',
      U2: 'charge-control',
      R17: 'feedback',
    },
  ],
  'split-rails': [
    'push-pull',
    {
      D4: 'output-rectifier',
      C3: 'output-filter',
      R6: 'discharge',
      Q3: 'aux-supply',
      Q4: 'aux-supply',
      RT1: 'sensing',
      Q1: 'gate-drive',
      R12: 'feedback',
    },
  ],
  // The coil is off the board; no topology of the list fits it, the little buck beside it is one.
  'single-switch-cooker': [
    'buck',
    {
      M1: 'switch',
      C3: 'tank',
      R2: 'gate-drive',
      Q2: 'gate-drive',
      D2: 'rectifier',
      R21: 'inrush',
      LCT1: 'current-sense',
      R16: 'sensing',
      U4: 'regulator',
    },
  ],
  'bench-linear': ['linear', { Q1: 'regulator', Q3: 'regulator', R9: 'current-sense', R8: 'discharge' }],
};

test.each(Object.keys(WANTED))('%s', (name) => {
  const map = recogniseStages(kind(name));
  const [topology, stages] = WANTED[name]!;
  expect(map.topology).toBe(topology);
  expect(map.missing).toEqual([]);
  const found = Object.fromEntries(map.stages.flatMap((s) => s.parts.map((p) => [p, s.kind])));
  expect(Object.fromEntries(Object.keys(stages).map((ref) => [ref, found[ref]]))).toEqual(stages);
});

describe('what someone settles by hand', () => {
  const settled = (text: string, ref: string, key: string, value: string): Board => {
    const board = boardOf(text);
    const parts = board.parts.map((p) => (p.ref === ref ? { ...p, keys: [...p.keys, { key, text: value }] } : p));
    return { ...board, parts };
  };
  const text = readFileSync(join(root, 'fixtures/kinds/two-phases.cir'), 'utf8');

  test('a topology stands for good, with no rival, and the stages follow it', () => {
    const map = recogniseStages(settled(text, 'M1', 'topology', 'boost-pfc'));
    expect(map.converters.find((c) => c.topology === 'boost-pfc')).toMatchObject({ confidence: 1, rival: null });
    expect(map.stages.find((s) => s.parts.includes('M1'))?.kind).toBe('pfc');
  });

  test("a pin's role stands, and what hangs on it follows", () => {
    const map = recogniseStages(settled(text, 'U1', 'role4', 'EN'));
    expect(map.pins['U1']![3]).toMatchObject({ role: 'EN', score: 1, reasons: ['set by hand'] });
  });

  test("a core's purpose stands: a transformer called a drive transformer makes no converter", () => {
    const flyback = readFileSync(join(root, 'fixtures/kinds/rectified-return.cir'), 'utf8');
    const map = recogniseStages(settled(flyback, 'LT1P', 'core', 'drive'));
    expect(map.cores[0]).toMatchObject({ purpose: 'drive' });
    expect(map.topology).not.toContain('flyback');
  });
});

test('every explanation has a question that a meter or a look can answer, and its rival is another topology', () => {
  for (const name of Object.keys(WANTED)) {
    for (const c of recogniseStages(kind(name)).converters) {
      expect(c.ref).not.toBe('');
      expect(c.rival!.topology).not.toBe(c.topology);
      expect(c.rival!.question).toMatch(/^[A-Z].*\?$/u);
    }
  }
});
