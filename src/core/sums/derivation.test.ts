import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { SUMS, SUM_TASKS, derivation, realPart, resultText, runSum, searchSums, sumText } from '.';

interface Case {
  readonly name: string;
  readonly inputs: Readonly<Record<string, unknown>>;
  readonly error?: string;
}
const cases = (
  JSON.parse(readFileSync(join(__dirname, '../../../fixtures/reference/sums.json'), 'utf8')) as Case[]
).filter((c) => c.error === undefined);

/** Works a formula of the derivation out, by JavaScript's own arithmetic. */
function workOut(formula: string, known: Readonly<Record<string, unknown>>): number {
  const code = formula
    .replace(/[a-zA-Z][a-zA-Z0-9]*/gu, (n) =>
      n === 'ln' ? 'Math.log' : n === 'max' || n === 'min' ? `Math.${n}` : `(known.${n})`,
    )
    .replaceAll('·', '*')
    .replaceAll('²', '**2')
    .replaceAll('^', '**')
    .replaceAll('√', 'Math.sqrt')
    .replaceAll('π', 'Math.PI')
    .replaceAll(';', ',');
  return new Function('known', `return ${code};`)(known) as number;
}

describe('every line of a derivation, worked out again, gives its result', () => {
  const seen = new Set<string>();
  test.each([
    ...cases.map((c) => [c.name, c.inputs] as const),
    ...SUMS.map((s) => [s.name, s.example as Record<string, unknown>] as const),
    ['snubber', { c: 1e-9, v: 320, f: 65e3, r: 47, type: 'rcd' }] as const,
    ['divider-retarget', { vRef: 2.5, rTop: 1e4, rBottom: 1e4, vTarget: 6, modify: 'top' }] as const,
  ])('%s %j', (name, inputs) => {
    const sum = SUMS.find((s) => s.name === name)!;
    const done = runSum(name, inputs);
    if (!done.ok) throw new Error(done.problem.sentence);
    const known = { ...done.value.inputs, ...done.value.results };
    for (const line of derivation(sum, done.value)) {
      seen.add(`${name} ${line.key} ${line.formula}`);
      const wanted = known[line.key] as number;
      const got = workOut(line.formula, known);
      expect([line.key, Math.abs(got - wanted) <= 1e-9 * Math.max(1e-12, Math.abs(wanted))]).toEqual([line.key, true]);
    }
  });
  test('and every line is used by some case', () => {
    const all = SUMS.flatMap((s) =>
      s.steps.map((one) => {
        const [key, ...formula] = (typeof one === 'string' ? one : one.step).split('=');
        return `${s.name} ${key!.trim()} ${formula.join('=').trim()}`;
      }),
    );
    expect(all.filter((line) => !seen.has(line))).toEqual([]);
  });
});

test.each(SUMS.map((s) => [s.name, s] as const))('%s: its sheet is complete', (_name, sum) => {
  const done = runSum(sum.name, sum.example as Record<string, unknown>);
  if (!done.ok) throw new Error(done.problem.sentence);
  // Every result has its words, every word a result; the wanted ones exist in the example.
  expect(Object.keys(sum.resultWords).sort()).toEqual(Object.keys(done.value.results).sort());
  for (const key of sum.lead) expect(done.value.results[key]).not.toBeNull();
  expect(Object.keys(SUM_TASKS)).toContain(sum.task);
});

test('a discharge is derived with the numbers in it', () => {
  const sum = SUMS.find((s) => s.name === 'discharge-time')!;
  const done = runSum('discharge-time', { c: 220e-6, vStart: 325, vSafe: 5, r: 10e3 });
  if (!done.ok) throw new Error();
  const line = derivation(sum, done.value).find((l) => l.key === 'tau')!;
  expect(line.numbers.replace(/\s/gu, ' ')).toBe('10 kΩ · 220 µF');
  expect(line.value.replace(/\s/gu, ' ')).toBe('2.2 s');
  // No lamp was given: its line is not there.
  expect(derivation(sum, done.value).some((l) => l.key === 'r')).toBe(false);
  const text = sumText(sum, done.value);
  expect(text).toContain('capacitance: 220');
  expect(text).toContain('Caution: The resistor needs the voltage rating');
  expect(text).toContain('by\n  tau = ');
});

test('results read as a person says them', () => {
  const retarget = SUMS.find((s) => s.name === 'divider-retarget')!;
  expect(resultText(retarget, 'e24', { value: 4700, vOut: 6.2, error: 0.0012 }).replace(/\s/gu, ' ')).toBe(
    '4.7 kΩ gives 6.2 V (0.12 %)',
  );
  expect(resultText(retarget, 'exact', null)).toBe('none');
  const bank = SUMS.find((s) => s.name === 'cap-bank-outlier')!;
  expect(resultText(bank, 'outliers', [3])).toBe('no. 4');
  expect(resultText(bank, 'outliers', [])).toBe('none');
  expect(
    resultText(
      SUMS.find((s) => s.name === 'sense-start')!,
      'feasible',
      false,
    ),
  ).toBe('no');
});

test.each([
  ['empty a capacitor', 'discharge-time'],
  ['raise the output voltage', 'divider-retarget'],
  ['350 V dc on the bench', 'variac-rig'],
  ['under-voltage', 'uvlo-divider'],
  ['bulb in series', 'lamp-limiter'],
  ['shorted turns', 'ring-q'],
  ['dried capacitor hours', 'cap-life'],
])('“%s” finds %s first', (words, name) => expect(searchSums(words)[0]?.name).toBe(name));

test('words that mean nothing here find nothing; no words find all', () => {
  expect(searchSums('marmalade')).toEqual([]);
  expect(searchSums('  ')).toHaveLength(31);
});

test('the real part to fit lies on the side that the sum asks for, and no nearer one does', () => {
  const sense = SUMS.find((s) => s.name === 'sense-start')!;
  for (const series of ['E12', 'E24', 'E96'] as const)
    for (const value of [0.61, 1.2, 1.21, 4.69, 99.9, 9.95e3, 1e6]) {
      const [above, below] = [realPart(sense, 'rMin', value, series)!, realPart(sense, 'rMax', value, series)!];
      expect(above).toBeGreaterThanOrEqual(value * (1 - 1e-9));
      expect(below).toBeLessThanOrEqual(value * (1 + 1e-9));
      // Neighbours of a series are at most a step apart.
      const step = { E12: 1.25, E24: 1.13, E96: 1.04 }[series];
      expect([series, value, above / below <= step]).toEqual([series, value, true]);
    }
  expect(realPart(sense, 'dropAtMax', 1, 'E24')).toBeNull();
  expect(realPart(sense, 'rMin', null, 'E24')).toBeNull();
  expect(
    realPart(
      SUMS.find((s) => s.name === 'converter-input')!,
      'dropR',
      9.4,
      'E24',
    ),
  ).toBe(9.1);
});
