import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Board } from '../circuit';
import { drawParts } from '../meter';
import { readNetlist } from '../netlist';
import { seededRandom } from '../quantity';
import { Diagnoser, buildWholeDictionary, huntFault, listHypotheses } from '.';
import type { Hunt, Hypothesis } from '.';

const folder = join(__dirname, '../../../fixtures/boards');

function board(name: string): Board {
  const read = readNetlist(readFileSync(join(folder, `${name}.cir`), 'utf8'));
  if (!read.ok) throw new Error(name);
  const { nameplate } = JSON.parse(readFileSync(join(folder, `${name}.labels.json`), 'utf8')) as Pick<
    Board,
    'nameplate'
  >;
  return { ...read.value.board, ...(nameplate ? { nameplate } : {}) };
}

const made = new Map<string, Diagnoser>();
function diagnoser(name: string): Diagnoser {
  if (!made.has(name)) {
    const b = board(name);
    made.set(name, new Diagnoser(buildWholeDictionary(b, listHypotheses(b))));
  }
  return made.get(name)!;
}

interface Draw {
  readonly fault: Hypothesis;
  readonly hunt: Hunt;
}

/** Seeded draws over hypotheses of some boards: parts drawn, meter noise, readings the plan itself asks for. */
function draws(
  names: readonly string[],
  count: number,
  seed: number,
  wanted: (h: Hypothesis, visible: boolean) => boolean,
): readonly Draw[] {
  const random = seededRandom(seed);
  return Array.from({ length: count }, (_, k) => {
    const d = diagnoser(names[k % names.length]!);
    const pool = d.predictor.hypotheses.filter((h, i) => i > 0 && wanted(h, d.groups[i] !== 0));
    const fault = pool[Math.floor(random() * pool.length)]!;
    return {
      fault,
      hunt: huntFault(d, fault.faults, drawParts(seededRandom(seed * 1000 + k)), seededRandom(seed * 2000 + k)),
    };
  });
}

const BOTH = ['lamp-supply-24v', 'weather-buck-5v'];
const story = (list: readonly Draw[]): readonly string[] =>
  list.map(({ fault, hunt }) => `${fault.label} -> ${hunt.diagnosis.suspects[0]!.fault} after ${hunt.readings.length}`);

test('60 draws over the visible faults: the true group comes first in at least 57', () => {
  const list = draws(BOTH, 60, 41, (h, visible) => visible && h.faults.length === 1);
  const wrong = list.filter(({ fault, hunt }) => !hunt.diagnosis.suspects[0]!.group.includes(fault.label));
  expect({ seed: 41, right: list.length - wrong.length, wrong: wrong.length > 3 ? story(wrong) : [] }).toMatchObject({
    wrong: [],
  });
});

test('20 draws of fuse and switch together: both are named in at least 18', () => {
  const list = draws(['lamp-supply-24v'], 20, 42, (h) => /^M1:short(?:\(d,s\))?\+F1:open$/u.test(h.label));
  const named = list.filter(({ hunt }) => {
    const { faults } = hunt.diagnosis.suspects[0]!;
    return faults.some((f) => f.startsWith('M1:short')) && faults.includes('F1:open');
  });
  expect(named.length).toBeGreaterThanOrEqual(18);
});

test('14 faults that diode test and ohms cannot see: at most one is convicted, as often as odds of 0.95 are wrong', () => {
  const list = draws(BOTH, 14, 43, (h, visible) => !visible && h.faults.length === 1);
  const convicted = list.filter(({ hunt }) => hunt.diagnosis.verdict === 'named');
  // One whose drawn parts look like a fault may stay open; all others are told to be beyond these readings.
  const told = list.filter(({ hunt }) => hunt.diagnosis.verdict === 'cannot-tell');
  expect(told.length).toBeGreaterThanOrEqual(13);
  expect(convicted.length > 1 ? story(convicted) : []).toEqual([]);
});
