import { exampleBoard } from '../../../bench/exampleBoards';
import { parseFault } from '../fault';
import { ComplaintReader, SYMPTOMS, limiterSteps, limiterWatts, listHypotheses } from '.';
import type { ComplaintSigns, Symptom } from '.';

const board = exampleBoard('lamp-supply-24v');
const reader = ComplaintReader.of(board)!;

function given(text: string): readonly Symptom[] {
  const faults = text.split('+').map((t) => {
    const fault = parseFault(board, t);
    if (!fault.ok) throw new Error(t);
    return fault.value;
  });
  const signs = reader.signs(faults, SYMPTOMS)!;
  return SYMPTOMS.filter((s) => signs[s]);
}

// What every bench knows of a flyback with an opto: fuse, start-up chain, divider, reference, opto, rectifier, supply pin.
test.each([
  ['F1:open', 'dead'],
  ['R1:open', 'dead'],
  ['M1:short(d,s)', 'fuse-blows'],
  ['R19:value=1.2k', 'high-output'],
  ['U3:open', 'high-output'],
  ['R18:value=12k', 'low-output'],
  ['D3:open', 'hiccup'],
] as const)('%s: the customer says %s', (fault, symptom) => {
  expect(given(fault)).toContain(symptom);
});

test('a sound unit gives none', () => {
  const signs = reader.signs([], SYMPTOMS)!;
  expect(SYMPTOMS.filter((s) => signs[s])).toEqual([]);
});

test('only what is asked for is told', () => {
  expect(Object.keys(reader.signs([], ['dead'])!)).toEqual(['dead']);
});

test('of a board that nobody knows what to feed with nothing is computed', () => {
  expect(ComplaintReader.of({ ...board, nameplate: {} })).toBeNull();
});

const total = (list: ReturnType<typeof listHypotheses>): number => list.reduce((sum, h) => sum + h.weight, 0);

function odds(known: ReadonlyMap<string, ComplaintSigns | null>, label: string): number {
  const list = listHypotheses(board, ['high-output'], known);
  return list.find((h) => h.label === label)!.weight / total(list);
}

test('too high an output raises what makes it so, and not by the kind of part', () => {
  const plain = listHypotheses(board);
  const asked = new Set(['R18:open', 'R18:short', 'R19:value=7.47k', 'U3:open', 'F1:open']);
  const known = new Map(
    plain.filter((h) => asked.has(h.label)).map((h) => [h.label, reader.signs(h.faults, ['high-output'])] as const),
  );
  const table = new Map();
  const raising = [...known].filter(([, s]) => s?.['high-output']).map(([label]) => label);
  const others = [...known].filter(([, s]) => s?.['high-output'] === false).map(([label]) => label);
  expect(raising.length).toBeGreaterThan(0);
  // The table raises every reference and opto, and no leg of a divider.
  const legs = raising.filter((label) => label.startsWith('R'));
  expect(legs.length).toBeGreaterThan(0);
  for (const label of legs) expect(odds(known, label)).toBeGreaterThan(2 * odds(table, label));
  // Against one another the computed ones stand as 0.8 to 0.05 whatever their kind is.
  const plainOf = (label: string): number => plain.find((h) => h.label === label)!.weight;
  const [yes, no] = [raising[0]!, others[0]!];
  const ratio = odds(known, yes) / odds(known, no) / (plainOf(yes) / plainOf(no));
  expect(ratio).toBeCloseTo(0.8 / 0.05, 6);
});

test('until a fault is worked out the table by kind stands', () => {
  const list = listHypotheses(board, ['high-output']);
  const same = listHypotheses(board, ['high-output'], new Map());
  expect(same).toEqual(list);
});

test('the first power: the lamp stays bright on a short, is dark on a sound unit without load', () => {
  const steps = limiterSteps(board, { source: 230, load: 'none' }, [
    { fault: 'M1:short(d,s)', share: 0.6 },
    { fault: 'F1:open', share: 0.1 },
  ]);
  expect(steps.map((s) => [s.fault, s.lamp])).toEqual([
    ['none', 'dark'],
    ['M1:short(d,s)', 'bright'],
    ['F1:open', 'dark'],
  ]);
  expect(steps[0]!.rails[0]!.volts).toBeCloseTo(24, 0);
  expect(steps[1]!.shows).toContain('3 s');
  expect(steps[2]!.rails[0]!.volts).toBe(0);
  // Nothing is charged behind an open fuse: the lamp does not even flash.
  expect([steps[0]!.shows, steps[2]!.shows]).toEqual(['flashes once, then dark', 'stays dark']);
  expect(limiterWatts(80)).toBe(60);
  expect(limiterWatts(5)).toBe(25);
});
