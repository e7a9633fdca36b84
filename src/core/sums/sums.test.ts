import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { SUMS, runSum } from '.';

interface Case {
  readonly name: string;
  readonly inputs: Readonly<Record<string, unknown>>;
  readonly results?: Readonly<Record<string, unknown>>;
  readonly error?: string;
  readonly rtol: number;
}
/** Numbers within the case's tolerance, in nested results too; everything else exactly. */
function agrees(own: unknown, wanted: unknown, rtol: number): void {
  if (typeof wanted === 'number')
    expect(Math.abs((own as number) - wanted)).toBeLessThanOrEqual(rtol * Math.abs(wanted) + 1e-15);
  else if (wanted !== null && typeof wanted === 'object' && !Array.isArray(wanted))
    for (const [key, value] of Object.entries(wanted)) agrees((own as Record<string, unknown>)[key], value, rtol);
  else expect(own).toEqual(wanted);
}

const all = JSON.parse(
  readFileSync(join(__dirname, '../../../fixtures/reference/sums.json'), 'utf8'),
) as readonly Case[];
const cases = all.filter((c) => SUMS.some((s) => s.name === c.name));

test('the reference holds cases for every built sum', () => {
  for (const sum of SUMS) expect(cases.some((c) => c.name === sum.name)).toBe(true);
});

test.each(cases.map((c) => [`${c.name} ${JSON.stringify(c.inputs)}`, c] as const))('%s', (_title, c) => {
  const done = runSum(c.name, c.inputs);
  if (c.error !== undefined) {
    expect(done.ok).toBe(false);
    if (!done.ok) expect(done.problem.sentence).toContain(c.error);
    return;
  }
  if (!done.ok) throw new Error(done.problem.sentence);
  for (const [key, value] of Object.entries(c.results!)) {
    const own = done.value.results[key];
    agrees(own, value, c.rtol);
  }
});

test.each([
  ['stored-energy', { c: 1e-3 }, 'v'],
  ['stored-energy', { c: 1e-3, v: -1 }, 'v'],
  ['stored-energy', { c: 1e-3, v: 5, x: 1 }, 'x'],
  ['stored-energy', { c: 'big', v: 5 }, 'c'],
  ['discharge-time', { c: 1e-3, vStart: 300, vSafe: 5 }, 'r'],
  ['discharge-time', { c: 1e-3, vStart: 300, vSafe: 5, r: 100, lampW: 60, lampV: 230 }, 'r'],
  ['discharge-time', { c: 1e-3, vStart: 300, vSafe: 5, lampW: 60 }, 'lampV'],
  ['mains-peak', { vrms: 230, drops: 3 }, 'drops'],
])('%s refuses %p, naming %s', (name, inputs, key) => {
  const done = runSum(name, inputs);
  expect(done).toMatchObject({ ok: false, problem: { code: 'bad-input', details: { key } } });
});

test('an unknown sum is named', () =>
  expect(runSum('moon-phase', {})).toMatchObject({ problem: { code: 'unknown-sum' } }));

test('discharging takes away exactly the energy between the two voltages', () => {
  const energy = (v: number): number => runSumResults('stored-energy', { c: 220e-6, v })['energy'] as number;
  const done = runSumResults('discharge-time', { c: 220e-6, vStart: 373, vSafe: 40, r: 2200 });
  expect(done['energy']).toBeCloseTo(energy(373) - energy(40), 9);
  const twice = runSumResults('discharge-time', { c: 220e-6, vStart: 373, vSafe: 40, r: 4400 });
  expect(twice['time']).toBeCloseTo(2 * (done['time'] as number), 9);
});

function runSumResults(name: string, inputs: Record<string, number>) {
  const done = runSum(name, inputs);
  if (!done.ok) throw new Error(done.problem.sentence);
  return done.value.results;
}
