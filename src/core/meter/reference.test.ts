import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { parseFault } from '../fault';
import { readNetlist } from '../netlist';
import { beeps, coldMode, meterSigma, readBoard, solverFor } from '.';

const fixtures = join(__dirname, '../../../fixtures');

interface Line {
  readonly faults: readonly string[];
  readonly mode: string;
  readonly red: string;
  readonly black: string;
  readonly value: number | null;
  readonly overload: boolean;
  readonly beep?: boolean;
}

/** Numbers from an independent computation: diode within 2 mV, ohms within 0.5 %, OL and beep always equal. */
describe.each(readdirSync(join(fixtures, 'reference')).filter((f) => f.startsWith('cold-')))('%s', (file) => {
  const read = readNetlist(readFileSync(join(fixtures, 'boards', `${file.slice(5, -6)}.cir`), 'utf8'));
  if (!read.ok) throw new Error(file);
  const { board } = read.value;
  const lines = readFileSync(join(fixtures, 'reference', file), 'utf8')
    .trim()
    .split('\n')
    .map((l) => JSON.parse(l) as Line)
    .filter((l) => coldMode(l.mode).ok);

  test.each(['diode', 'ohms', 'continuity'])('%s', (mode) => {
    const wrong: unknown[] = [];
    const own = lines.filter((l) => l.mode === mode);
    expect(own.length).toBeGreaterThan(0);
    for (const line of own) {
      const faults = line.faults.map((text) => {
        const fault = parseFault(board, text);
        if (!fault.ok) throw new Error(fault.problem.sentence);
        return fault.value;
      });
      const answer = readBoard(board, solverFor(board, faults), mode as 'diode', line.red, line.black);
      if (!answer.ok) {
        wrong.push([line, answer.problem.sentence]);
        continue;
      }
      const { reading } = answer.value;
      const near =
        reading.kind === 'overload'
          ? line.overload
          : line.value !== null &&
            Math.abs(reading.value - line.value) <= (mode === 'diode' ? 0.002 : 0.005 * Math.abs(line.value));
      const beep = mode !== 'continuity' || line.beep === undefined || line.beep === beeps(reading);
      if (!near || !beep) wrong.push([line, reading]);
    }
    expect(wrong).toEqual([]);
  });
});

test('modes that are not built say so; others are unknown; nets are checked', () => {
  expect(coldMode('ring').ok || coldMode('ring')).toMatchObject({ problem: { code: 'mode-not-available' } });
  expect(coldMode('smell')).toMatchObject({ problem: { code: 'unknown-mode' } });
  const read = readNetlist('t\nR1 aa bb 1k');
  if (!read.ok) throw new Error('read');
  expect(readBoard(read.value.board, solverFor(read.value.board, []), 'ohms', 'aa', 'zz')).toMatchObject({
    problem: { code: 'unknown-net', details: { net: 'zz' } },
  });
});

test('the meter’s own spread is that of the contract', () => {
  expect(meterSigma('diode', 0.5)).toBeCloseTo(0.0055, 9);
  expect(meterSigma('ohms', 100)).toBeCloseTo(0.5, 9);
  expect(meterSigma('ohms', 100_000)).toBeCloseTo(400, 9);
});
