import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Board } from '../circuit';
import { parseFault } from '../fault';
import { readNetlist } from '../netlist';
import { POWERED_MODES, PoweredReader } from '.';
import type { OperatingCondition, PoweredMode } from '.';

const fixtures = join(__dirname, '../../../fixtures');

interface Point {
  readonly mode: PoweredMode;
  readonly red: string;
  readonly black: string;
  readonly low: number;
  readonly high: number;
}

interface Case extends OperatingCondition {
  readonly name: string;
  readonly faults: readonly string[];
  readonly state: string;
  readonly period: readonly [number, number] | null;
  readonly points: readonly Point[];
}

function boardOf(name: string): Board {
  const read = readNetlist(readFileSync(join(fixtures, 'boards', `${name}.cir`), 'utf8'));
  if (!read.ok) throw new Error(name);
  const labels = JSON.parse(readFileSync(join(fixtures, 'boards', `${name}.labels.json`), 'utf8')) as Pick<
    Board,
    'nameplate' | 'facts'
  >;
  const { nameplate, facts } = labels;
  return { ...read.value.board, ...(nameplate ? { nameplate } : {}), ...(facts ? { facts } : {}) };
}

function readerOf(board: Board, condition: OperatingCondition, faults: readonly string[]): PoweredReader {
  const parsed = faults.map((text) => {
    const fault = parseFault(board, text);
    if (!fault.ok) throw new Error(fault.problem.sentence);
    return fault.value;
  });
  return PoweredReader.at(board, condition, parsed);
}

/**
 * Numbers computed by others by other means: of each board its healthy conditions and some of its faults. The share of
 * points inside their limits, and the state of every case.
 */
test.each([
  ['lamp-supply-24v', 10, 1],
  ['weather-buck-5v', 10, 1],
  ['radio-charger-5v', 10, 0.93],
  ['pump-aux-buck', 5, 1],
  ['bench-supply-13v8', 4, 1],
  ['ups-frontend-pfc', 3, 1],
  ['galley-inverter-600', 1, 1],
  ['fence-energiser', 10, 1],
] as const)('%s at work, %d cases', (name, count, share) => {
  const board = boardOf(name);
  const { cases } = JSON.parse(readFileSync(join(fixtures, 'reference', `powered-${name}.json`), 'utf8')) as {
    readonly cases: readonly Case[];
  };
  const wrong: unknown[] = [];
  let points = 0;
  for (const c of cases.slice(0, count)) {
    const reader = readerOf(board, { source: c.source, load: c.load }, c.faults);
    const { unitState, period } = reader.operation;
    expect([c.name, unitState]).toEqual([c.name, c.state]);
    if (c.period) {
      expect(period).toBeGreaterThan(c.period[0] * 0.8);
      expect(period).toBeLessThan(c.period[1] * 1.25);
    }
    for (const p of c.points) {
      points++;
      const { value } = reader.read(p.mode, p.red, p.black) ?? { value: null };
      if (value === null || value < p.low - 1e-9 || value > p.high + 1e-9) wrong.push([c.name, p, value]);
    }
  }
  if (points - wrong.length < share * points) expect(wrong).toEqual([]);
  expect(points).toBeGreaterThan(15);
});

interface Expected {
  readonly red: string;
  readonly black: string;
  readonly volts: number;
  readonly tolerance: number;
}

/** The powered points that the labels of further boards tell, at half load. */
test.each([
  ['buoy-boost-28', 12],
  ['winch-forward-12v', 12],
  ['dock-pushpull-48', 12],
  ['bilge-drive-48v', 12],
  ['kiln-relay-25a', 10],
  ['sign-royer-12', 12],
  ['shelf-lamp-led', 11],
] as const)('%s reads as its labels say', (name, least) => {
  const board = boardOf(name);
  const labels = JSON.parse(readFileSync(join(fixtures, 'boards', `${name}.labels.json`), 'utf8')) as {
    readonly hot_expect: readonly Expected[];
    readonly nameplate: { readonly inputNominal: number };
  };
  const reader = readerOf(board, { source: labels.nameplate.inputNominal, load: 'half' }, []);
  const right = labels.hot_expect.filter(({ red, black, volts, tolerance }) => {
    const { value } = reader.read('dcv', red, black)!;
    const band = tolerance < 1 ? tolerance * Math.abs(volts) : tolerance;
    return value !== null && Math.abs(value - volts) <= band + 1e-9;
  });
  expect(right.length).toBeGreaterThanOrEqual(least);
});

test('a resonant push-pull gives what its ballast passes, and nothing with a transistor open', () => {
  const board = boardOf('sign-royer-12');
  const halved = readerOf(board, { source: 12, load: 'half' }, ['C9:open']).read('dcv', 'HV+', 'HV-')!;
  // V = peak / (1 + 1 / (4 f C R)) with 945 V, 30.3 kHz, 220 pF, 59 kohm.
  expect(Math.abs(halved.value! / 578 - 1)).toBeLessThan(0.08);
  expect(readerOf(board, { source: 12, load: 'half' }, ['Q1:open']).read('dcv', 'HV+', 'HV-')!.value).toBeCloseTo(0, 1);
});

test('a valley fill that never charges in series holds nothing', () => {
  const volts = (faults: readonly string[]): number =>
    readerOf(boardOf('shelf-lamp-led'), { source: 230, load: 'half' }, faults).read('dcv', 'HV+', 'HV-')!.value!;
  // Without the chain only 100 nF smooth the rectified sine: its mean is 2 / pi of 325 V, less where it is loaded.
  expect(volts(['R3:open'])).toBeLessThan(volts([]));
  expect(volts(['R3:open'])).toBeGreaterThan(150);
});

test('a winding that hangs on a bridge alone stands half way between its rails', () => {
  const reader = readerOf(boardOf('galley-inverter-600'), { source: 12, load: 'half' }, []);
  const rail = reader.read('dcv', 'HV+', 'HV-')!.value!;
  expect(Math.abs(reader.read('dcv', 'SA', 'HV-')!.value! / rail - 0.5)).toBeLessThan(0.02);
});

test('a net that is not there reads nothing; every mode answers on one that is', () => {
  const reader = readerOf(boardOf('weather-buck-5v'), { source: 12, load: 'half' }, []);
  expect(reader.read('dcv', '5V', 'NOPE')).toBeUndefined();
  for (const mode of POWERED_MODES) expect(reader.read(mode, 'SW', 'GND')!.value).toBeGreaterThan(0.1);
  expect(reader.read('freq', '5V', 'GND')!.value).toBeNull();
});
